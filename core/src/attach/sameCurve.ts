import {
  carrierNearest,
  carrierOf,
  curveLength,
  curveNearest,
  curvePoint,
  directionAt,
  type Carrier,
  type Curve,
} from "../geometry/curve.ts";
import { distance, type Point } from "../geometry/point.ts";
import { TURN } from "../numeric/angle.ts";
import { SAME_PLACE } from "../numeric/tolerance.ts";

/** Places at which a curve is looked at: few, as only curves of closed form are compared by them. */
const LOOKS = [0.02, 0.1, 0.25, 0.4, 0.5, 0.6, 0.75, 0.9, 0.98];

/** Places along a curve, its ends among them where it has some; of an endless line three about its point. */
export const placesAlong = (curve: Curve): readonly Point[] => {
  if (curve.kind === "endless") return [-1000, 0, 1000].map((t) => curvePoint(curve, t));
  const looks = curve.kind === "circle" ? LOOKS.map((part) => TURN * part) : [0, ...LOOKS, 1];
  return looks.map((t) => curvePoint(curve, t));
};

const onCarrier = (carrier: Carrier, curve: Curve): boolean =>
  placesAlong(curve).every((p) => distance(carrierNearest(carrier, p), p) <= SAME_PLACE);

/**
 * True where two curves lie on one line or circle: the shorter is held against the carrier of the longer, which is told
 * better.
 */
export const onOneCarrier = (p: Curve, q: Curve): boolean => {
  const [one, other] = [carrierOf(p), carrierOf(q)];
  if (!one || !other || one.kind !== other.kind || Math.min(curveLength(p), curveLength(q)) <= SAME_PLACE) return false;
  return curveLength(p) >= curveLength(q) ? onCarrier(one, q) : onCarrier(other, p);
};

/** True where a curve lies on a carrier. */
export const liesOn = (carrier: Carrier, curve: Curve): boolean => {
  const own = carrierOf(curve);
  if (own?.kind !== carrier.kind) return false;
  return onCarrier(carrier, curve);
};

/** How many of some places along `p` lie on `q` as well: 0 where they share no stretch. */
export const sharedPlaces = (p: Curve, q: Curve): number => {
  const [of, on] = curveLength(p) <= curveLength(q) ? [p, q] : [q, p];
  return placesAlong(of).filter((at) => curveNearest(on, at).distance <= SAME_PLACE).length;
};

/** True where two curves on one carrier run opposite ways where `p` has its middle. */
export const runsAgainst = (p: Curve, q: Curve): boolean => {
  const middle = p.kind === "endless" ? p.through : curvePoint(p, p.kind === "circle" ? 0 : 0.5);
  return Math.cos(directionAt(p, middle) - directionAt(q, middle)) < 0;
};
