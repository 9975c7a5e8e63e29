import { curveEnds, curvePoint, isSmooth, smoothOf, type Curve } from "../geometry/curve.ts";
import { pieceNearest, type Piece } from "../geometry/piece.ts";
import { deviationOf, legsOfRun, legsOfSmooth } from "./deviation.ts";
import { distance, leftOf, subtract, type Point } from "../geometry/point.ts";

/** A line or an arc in place of a curve, and how far the curve lies off it at the most. */
export type OneArc = { readonly piece: Piece; readonly deviation: number; readonly at: Point };

/** Places that are looked at. */
const LOOKS = 400;

/**
 * The arc between a curve's ends that lies nearest to all of it: its bulge by golden section on the largest distance,
 * which has one least value for curves that bend one way. Undefined for what has no two ends.
 */
export const fitOneArc = (curve: Curve): OneArc | undefined => {
  const [a, b] = curveEnds(curve);
  if (!a || !b || distance(a, b) === 0) return undefined;
  const places = Array.from({ length: LOOKS + 1 }, (_, i) => curvePoint(curve, i / LOOKS));
  const told = (bulge: number): OneArc => {
    const piece: Piece = { a, b, bulge };
    let [deviation, at] = [0, a];
    for (const p of places) {
      const off = pieceNearest(piece, p).distance;
      if (off > deviation) [deviation, at] = [off, p];
    }
    return { piece, deviation, at };
  };
  // the bulge of the arc through the middle is near the best one
  const chord = subtract(b, a);
  const middle = places[LOOKS / 2]!;
  const sagitta =
    -(leftOf(chord).x * (middle.x - a.x) + leftOf(chord).y * (middle.y - a.y)) / (chord.x ** 2 + chord.y ** 2);
  const start = 2 * sagitta;
  let [low, high] = [start - 0.3 * (1 + Math.abs(start)), start + 0.3 * (1 + Math.abs(start))];
  const golden = (Math.sqrt(5) - 1) / 2;
  for (let i = 0; i < 60; i++) {
    const [p, q] = [high - golden * (high - low), low + golden * (high - low)];
    if (told(p).deviation <= told(q).deviation) high = q;
    else low = p;
  }
  const best = told((low + high) / 2);
  const straight = told(0);
  const { piece } = straight.deviation <= best.deviation ? straight : best;
  return {
    piece,
    ...deviationOf(isSmooth(curve) ? legsOfSmooth(smoothOf(curve)) : legsOfRun([piece]), [piece], false),
  };
};
