import {
  carrierOf,
  curveBounds,
  curveEnds,
  curveNearest,
  isSmooth,
  pieceCarrier,
  smoothOf,
  carrierNearest,
  type Curve,
} from "../geometry/curve.ts";
import { arcBetween, type Piece } from "../geometry/piece.ts";
import { along, cross, distance, dot, leftOf, subtract, unit, type Point } from "../geometry/point.ts";
import { feetOn } from "../geometry/smooth.ts";
import { meetings } from "../intersect/meetings.ts";
import { done, refuse, type Outcome } from "../numeric/outcome.ts";
import { RESOLUTION, SETTLED } from "../numeric/tolerance.ts";

/**
 * The places of a curve to which the way from `p` is square, nearest first: one on a line (wherever its ends are), two
 * on a circle, up to four on an ellipse. From a circle's own centre every way is: none. Source: Euclid I.12, III.18.
 */
export const feetOf = (curve: Curve, p: Point): readonly Point[] => {
  const carrier = carrierOf(curve);
  const feet = (): readonly Point[] => {
    if (!carrier && isSmooth(curve)) return feetOn(smoothOf(curve), p).map(smoothOf(curve).at);
    if (carrier?.kind === "line") return [carrierNearest(carrier, p)];
    if (carrier?.kind !== "circle" || distance(p, carrier.centre) <= RESOLUTION) return [];
    const near = carrierNearest(carrier, p);
    return [near, { x: 2 * carrier.centre.x - near.x, y: 2 * carrier.centre.y - near.y }];
  };
  return [...feet()].sort((q, r) => distance(p, q) - distance(p, r));
};

/**
 * The shortest line between two curves, from the first to the second: between ends and feet, along the line of centres,
 * or, for ellipses and free curves, by turns from one to the other until it stays. Curves that meet, or run side by
 * side without ends, have none: a refusal. To the bound of the contracts between lines and arcs, to resolution else.
 * Source: derived here.
 */
export const shortestLine = (a: Curve, b: Curve): Outcome<Piece> => {
  if (meetings(a, b, RESOLUTION).length > 0) return refuse("curves-meet");
  const found: (readonly [Point, Point])[] = [];
  for (const end of curveEnds(a)) found.push([end, curveNearest(b, end).at]);
  for (const end of curveEnds(b)) found.push([curveNearest(a, end).at, end]);
  const [onA, onB] = [carrierOf(a), carrierOf(b)];
  const on = (curve: Curve, p: Point): boolean => curveNearest(curve, p).distance <= RESOLUTION;
  if (onA?.kind === "circle" && onB?.kind === "circle") {
    const way = unit(subtract(onB.centre, onA.centre)) ?? { x: 1, y: 0 };
    for (const s of [1, -1])
      for (const t of [1, -1])
        found.push([along(onA.centre, way, s * onA.radius), along(onB.centre, way, t * onB.radius)]);
  } else if (onA?.kind === "circle" && onB?.kind === "line") {
    const foot = carrierNearest(onB, onA.centre);
    const way = unit(subtract(foot, onA.centre)) ?? leftOf(onB.direction);
    for (const s of [1, -1]) found.push([along(onA.centre, way, s * onA.radius), foot]);
  } else if (onA?.kind === "line" && onB?.kind === "circle") {
    const foot = carrierNearest(onA, onB.centre);
    const way = unit(subtract(foot, onB.centre)) ?? leftOf(onA.direction);
    for (const s of [1, -1]) found.push([foot, along(onB.centre, way, s * onB.radius)]);
  } else if (!onA || !onB)
    for (const pair of [...byTurns(a, b), ...byTurns(b, a).map(([q, p]) => [p, q] as const)]) found.push(pair);
  else if (a.kind === "endless" && b.kind === "endless") found.push([a.through, curveNearest(b, a.through).at]);
  const lines = found.filter(([p, q]) => on(a, p) && on(b, q) && distance(p, q) > RESOLUTION);
  if (lines.length === 0) return refuse("curves-meet");
  const [p, q] = lines.reduce((best, line) => (distance(...line) < distance(...best) ? line : best));
  return done({ a: p, b: q, bulge: 0 });
};

const TURNS = 400;
/** From many places of `a` to the nearest of `b` and back, until neither moves. */
const byTurns = (a: Curve, b: Curve): (readonly [Point, Point])[] => {
  const starts = isSmooth(a) ? Array.from({ length: 24 }, (_, i) => smoothOf(a).at(i / 24)) : boundsPoints(a);
  return starts.map((start) => {
    let [p, q] = [curveNearest(a, start).at, start];
    for (let i = 0; i < TURNS; i++) {
      q = curveNearest(b, p).at;
      const next = curveNearest(a, q).at;
      const moved = distance(next, p);
      p = next;
      if (moved < SETTLED * (1 + Math.abs(p.x) + Math.abs(p.y))) break;
    }
    return [p, q] as const;
  });
};
const boundsPoints = (curve: Curve): Point[] => {
  const box = curveBounds(curve);
  return box
    ? [
        { x: box.minX, y: box.minY },
        { x: box.maxX, y: box.maxY },
      ]
    : [];
};

/**
 * A piece parallel to another at `by` on the side of `side`: a line with its ends moved square to it, an arc about the
 * same centre with the same sweep; the whole of it. An arc that would shrink to nothing is a refusal.
 */
export const parallelPiece = (piece: Piece, side: Point, by: number): Outcome<Piece> => {
  const carrier = pieceCarrier(piece);
  if (carrier.kind === "line") {
    const sign = cross(carrier.direction, subtract(side, carrier.at)) < 0 ? -1 : 1;
    const n = leftOf(carrier.direction);
    return done({ a: along(piece.a, n, sign * by), b: along(piece.b, n, sign * by), bulge: 0 });
  }
  const { centre, radius } = carrier;
  const reach = distance(side, centre) >= radius ? radius + by : radius - by;
  if (reach <= RESOLUTION) return refuse("parallel-shrinks-away", { limit: radius });
  const moved = (p: Point): Point => along(centre, unit(subtract(p, centre))!, reach);
  return done({ ...arcBetween(moved(piece.a), moved(piece.b), centre, piece.bulge > 0), bulge: piece.bulge });
};

/** The end of a line square to `curve` at its place `at`, towards `to`, `length` long or as far as `to` reaches. */
export const squareEnd = (direction: number, at: Point, to: Point, length?: number): Point => {
  const n = leftOf({ x: Math.cos(direction), y: Math.sin(direction) });
  const reach = dot(subtract(to, at), n);
  return along(at, n, length === undefined ? reach : reach < 0 ? -length : length);
};
