import { curveAt } from "../drawing/drawing.ts";
import type { Ref } from "../drawing/ref.ts";
import { EVERYWHERE } from "../geometry/bounds.ts";
import { carrierOf, curveNearest, curvePoint, type Curve } from "../geometry/curve.ts";
import { distance, type Point } from "../geometry/point.ts";
import { carryRef } from "./carryRef.ts";
import type { Holding } from "./holders.ts";
import type { Passage, Standing } from "./passage.ts";
import { placeOf, placeOnCurve } from "./places.ts";

/** Curves looked at for an offer: nobody wants to be offered something far off. */
const LOOKED_AT = 400;

/**
 * What could be held again by what lost its place: of what the edit left, the nearest end or centre where a place
 * was lost, the nearest curve of the same form where a curve was. It is only offered, never taken by itself. Undefined
 * where there is nothing like it.
 */
export const offerFor = (passage: Passage, { refs, need }: Holding): readonly Ref[] | undefined => {
  const standing = passage.standingIn(EVERYWHERE).slice(0, LOOKED_AT);
  const offered = refs.map((ref) => carryRef(passage, ref, need) ?? likeIt(passage, ref, standing));
  return offered.every((one) => one !== undefined) ? offered.flat() : undefined;
};

const likeIt = (passage: Passage, ref: Ref, standing: readonly Standing[]): readonly Ref[] | undefined => {
  const was = placeOf(passage.before, ref);
  const found = was ? nearestPlace(ref, was, standing) : nearestCurve(curveAt(passage.before, ref), standing);
  return found && [found];
};

const nearestPlace = (ref: Ref, was: Point, standing: readonly Standing[]): Ref | undefined => {
  let best: { readonly ref: Ref; readonly away: number } | undefined;
  const names = ref.place === "centre" ? (["centre"] as const) : (["start", "end"] as const);
  for (const one of standing)
    for (const place of names) {
      const at = placeOnCurve(one.curve, place);
      const away = at ? distance(at, was) : Infinity;
      if (at && (!best || away < best.away)) best = { ref: { ...one.ref, place }, away };
    }
  return best?.ref;
};

const formOf = (curve: Curve): string => carrierOf(curve)?.kind ?? curve.kind;

const nearestCurve = (was: Curve | undefined, standing: readonly Standing[]): Ref | undefined => {
  if (!was) return undefined;
  const middle = was.kind === "endless" ? was.through : curvePoint(was, was.kind === "circle" ? 0 : 0.5);
  let best: { readonly ref: Ref; readonly away: number } | undefined;
  for (const { ref, curve } of standing) {
    if (formOf(curve) !== formOf(was)) continue;
    const away = curveNearest(curve, middle).distance;
    if (!best || away < best.away) best = { ref, away };
  }
  return best?.ref;
};
