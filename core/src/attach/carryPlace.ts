import { curveAt, type Drawing } from "../drawing/drawing.ts";
import type { Hint } from "../drawing/edit.ts";
import type { Place, Ref } from "../drawing/ref.ts";
import { EVERYWHERE } from "../geometry/bounds.ts";
import { carrierOf, curveNearest, isSmooth, type Carrier, type Curve } from "../geometry/curve.ts";
import { distance, type Point } from "../geometry/point.ts";
import { TURN } from "../numeric/angle.ts";
import { SAME_PLACE } from "../numeric/tolerance.ts";
import { transformShape } from "../shape/kinds.ts";
import { becameOf, standingNear, wentTo, type Passage, type Standing } from "./passage.ts";
import { carriersOf, placeOf, placeOnCurve } from "./places.ts";
import { liesOn } from "./sameCurve.ts";

const isAt = (p: Point | undefined, at: Point): boolean => p !== undefined && distance(p, at) <= SAME_PLACE;

/** A crossing is told apart from the curves' other crossings by where it was last. */
const notedNear = (ref: Ref, at: Point): Ref =>
  ref.place === "sharp" || (typeof ref.place === "object" && "crosses" in ref.place) ? { ...ref, near: at } : ref;

/** The name of a place on a curve that runs the other way. */
export const turnedPlace = (place: Place): Place => {
  if (place === "start") return "end";
  if (place === "end") return "start";
  return typeof place === "object" && "along" in place ? { along: 1 - place.along } : place;
};

/**
 * The reference that names after an edit the place that `ref` names before it; undefined where there is none any more.
 * A place that names nothing already is cut loose before an edit makes it name something.
 */
export const carryPlace = (passage: Passage, ref: Ref): Ref | undefined => {
  const { before, after } = passage;
  const was = placeOf(before, ref);
  if (!was) return undefined;
  const became = becameOf(passage, ref);
  if (became && !became.whole) {
    const named = nearestNamed(after, became, ref, was);
    if (named) return named;
  }
  if (passage.reshaped.has(ref.id)) {
    const is = placeOf(after, ref);
    if (is) return notedNear(ref, is);
  }
  const at = wentTo(passage, ref, was);
  if (isAt(placeOf(after, ref), at)) return notedNear(ref, at);
  return findPlace(passage, ref, at);
};

/** Of what a curve became, the place of the name nearest to where it was. */
const nearestNamed = (
  after: Drawing,
  { to, within = Infinity }: Extract<Hint, { kind: "became" }>,
  { place }: Ref,
  was: Point,
): Ref | undefined => {
  let best: { readonly ref: Ref; readonly away: number } | undefined;
  for (const target of to)
    for (const name of place === undefined ? [undefined] : [place, turnedPlace(place)]) {
      const ref: Ref = { ...target, ...(name === undefined ? {} : { place: name }) };
      const is = placeOf(after, ref);
      const away = is ? distance(is, was) : Infinity;
      if (away <= within && (!best || away < best.away)) best = { ref, away };
    }
  return best?.ref;
};

/** The carriers that a place hung on, where the edit took them. */
const carriersNow = ({ before, moved }: Passage, ref: Ref): readonly Carrier[] => {
  const by = moved.get(ref.id);
  return carriersOf(before, ref).map((carrier) => {
    if (!by) return carrier;
    const shape =
      carrier.kind === "circle"
        ? transformShape(by, { kind: "circle", centre: carrier.centre, radius: carrier.radius })
        : transformShape(by, {
            kind: "endless",
            through: carrier.at,
            angle: Math.atan2(carrier.direction.y, carrier.direction.x),
          });
    return carrierOf(shape as Curve)!;
  });
};

const NAMES: readonly Exclude<Place, "area" | "sharp">[] = [
  "start",
  "end",
  "middle",
  { quarter: 0 },
  { quarter: 1 },
  { quarter: 2 },
  { quarter: 3 },
];

/**
 * A place by its point: on a curve on the same carrier that the edit left, or an end of what its own entity is now;
 * else the corner stated for it.
 */
const findPlace = (passage: Passage, ref: Ref, at: Point): Ref | undefined => {
  const carriers = carriersNow(passage, ref);
  const near = standingNear(passage, at, ref);
  const own = (one: Standing): boolean => one.ref.id === ref.id;
  const on = (one: Standing): boolean =>
    carriers.some((carrier) => liesOn(carrier, one.curve)) ||
    (own(one) && isSmooth(one.curve) && curveAt(passage.before, ref)?.kind === one.curve.kind);
  const sameLine = near.filter(on);
  if (ref.place === "centre") {
    const round = sameLine.find(({ curve }) => isAt(placeOnCurve(curve, "centre"), at));
    return round && { ...round.ref, place: "centre" };
  }
  const preferred = typeof ref.place === "string" && ref.place !== "area" && ref.place !== "sharp" ? [ref.place] : [];
  for (const place of [...preferred, ...NAMES]) {
    const ends = place === "start" || place === "end";
    const found = near.find(
      (one) => (sameLine.includes(one) || (ends && own(one))) && isAt(placeOnCurve(one.curve, place), at),
    );
    if (found) return { ...found.ref, place };
  }
  for (const one of sameLine) {
    const nearest = curveNearest(one.curve, at);
    if (nearest.distance > SAME_PLACE) continue;
    const along = one.curve.kind === "circle" ? nearest.t / TURN : nearest.t;
    return { ...one.ref, place: { along } };
  }
  for (const hint of passage.hints) {
    if (hint.kind !== "corner" || !isAt(hint.at, at)) continue;
    const sharp: Ref = { ...hint.sharp, near: at };
    if (isAt(placeOf(passage.after, sharp), at)) return sharp;
  }
  return crossingAgain(passage, ref, at);
};

/**
 * A crossing whose curves have other names now, or one that lies beyond what is left of them: again the meeting of the
 * two, at the same place.
 */
const crossingAgain = (passage: Passage, ref: Ref, at: Point): Ref | undefined => {
  if (typeof ref.place !== "object" || !("crosses" in ref.place)) return undefined;
  const [one, other] = [ref, ref.place.crosses].map((side) => {
    const was = curveAt(passage.before, side);
    const carrier = was && carrierOf(was);
    const own = curveAt(passage.after, side);
    if (own && carrier && liesOn(carrier, own)) return side;
    return carrier && passage.standingIn(EVERYWHERE).find(({ curve }) => liesOn(carrier, curve))?.ref;
  });
  if (!one || !other) return undefined;
  const { id, vertex } = one;
  const { id: otherId, vertex: otherVertex } = other;
  const named: Ref = {
    id,
    ...(vertex === undefined ? {} : { vertex }),
    place: { crosses: { id: otherId, ...(otherVertex === undefined ? {} : { vertex: otherVertex }) } },
    near: at,
  };
  return isAt(placeOf(passage.after, named), at) ? named : undefined;
};
