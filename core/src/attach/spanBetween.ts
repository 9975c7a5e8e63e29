import { curveAt, type Drawing } from "../drawing/drawing.ts";
import type { Ref } from "../drawing/ref.ts";
import { carrierNearest, carrierOf, curveEnds, type Carrier, type Curve } from "../geometry/curve.ts";
import { add, cross, distance, leftOf, midpoint, subtract, times, unit, type Point } from "../geometry/point.ts";
import { TRUE_WITHIN } from "../numeric/tolerance.ts";
import { placeOf } from "./places.ts";

/**
 * The two places between which a distance is measured. `across`: the direction in which it is, also where it is 0;
 * undefined where two places coincide.
 */
export type Span = { readonly from: Point; readonly to: Point; readonly across: Point | undefined };

const spanOf = (from: Point, to: Point, across = unit(subtract(to, from))): Span => ({ from, to, across });

/** From a place to where a carrier is nearest to it. */
const toCarrier = (from: Point, carrier: Carrier): Span => {
  const to = carrierNearest(carrier, from);
  const normal = carrier.kind === "line" ? leftOf(carrier.direction) : undefined;
  return spanOf(from, to, distance(from, to) > TRUE_WITHIN ? unit(subtract(to, from)) : normal);
};

const turnedRound = ({ from, to, across }: Span): Span => ({ from: to, to: from, across: across && times(across, -1) });

/** A place about the middle of a curve that lies on a line. */
const about = (curve: Curve): Point => {
  const [a, b] = curveEnds(curve);
  return curve.kind === "endless" ? curve.through : a && b ? midpoint(a, b) : { x: 0, y: 0 };
};

/**
 * The span between two things: places, parallel lines, a place and a curve, circles about one centre (from the one to
 * the other) or about two (from centre to centre), a circle's centre and a line. Undefined where there is none: lines
 * that are not parallel, what is gone.
 */
export const spanBetween = (drawing: Drawing, p: Ref, q: Ref): Span | undefined => {
  const [one, other] = [placeOf(drawing, p), placeOf(drawing, q)];
  // a place that is not there any more is no reason to measure to the curve instead
  if ((p.place !== undefined && !one) || (q.place !== undefined && !other)) return undefined;
  if (one && other) return spanOf(one, other);
  const [a, b] = [curveAt(drawing, p), curveAt(drawing, q)];
  const [onA, onB] = [a && carrierOf(a), b && carrierOf(b)];
  if (one && onB) return toCarrier(one, onB);
  if (other && onA) return turnedRound(toCarrier(other, onA));
  if (!onA || !onB) return undefined;
  if (onA.kind === "circle" && onB.kind === "circle") {
    if (distance(onA.centre, onB.centre) > TRUE_WITHIN) return spanOf(onA.centre, onB.centre);
    const [from, to] = [onA, onB].map(({ radius }) => add(onA.centre, { x: radius, y: 0 })) as [Point, Point];
    return spanOf(from, to, { x: 1, y: 0 });
  }
  if (onA.kind === "line" && onB.kind === "line")
    return Math.abs(cross(onA.direction, onB.direction)) > TRUE_WITHIN ? undefined : toCarrier(about(a!), onB);
  if (onA.kind === "circle") return toCarrier(onA.centre, onB);
  return onB.kind === "circle" ? turnedRound(toCarrier(onB.centre, onA)) : undefined;
};

/** The span of one straight or round piece from end to end; undefined for what has no ends. */
export const spanAlong = (drawing: Drawing, ref: Ref): Span | undefined => {
  if (ref.place !== undefined) return undefined;
  const curve = curveAt(drawing, ref);
  const [from, to] = curve ? curveEnds(curve) : [];
  return from && to && spanOf(from, to);
};
