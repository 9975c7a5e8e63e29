import { placeOf } from "../attach/places.ts";
import type { Callout } from "../drawing/callout.ts";
import { curveAt, entityOf, settingsOf, type Drawing } from "../drawing/drawing.ts";
import type { Ref } from "../drawing/ref.ts";
import { carrierOf, carrierNearest, curveLength, isSmooth, type Curve } from "../geometry/curve.ts";
import { pieceLength } from "../geometry/piece.ts";
import { angleOf, cross, distance, subtract } from "../geometry/point.ts";
import { signedAngle, toDegrees } from "../numeric/angle.ts";
import { TRUE_WITHIN } from "../numeric/tolerance.ts";

/** How a callout stands: by `by` = measured - called. */
export type CalloutState =
  | { readonly state: "not placed" }
  | { readonly state: "true" | "within" | "off"; readonly measured: number; readonly by: number };

const roundSize = (curve: Curve | undefined): number | undefined => {
  const carrier = curve && carrierOf(curve);
  return carrier?.kind === "circle" ? carrier.radius : undefined;
};

/** The distance between two things: points, parallel lines, concentric circles, or a point and a curve. */
export const distanceBetween = (drawing: Drawing, p: Ref, q: Ref): number | undefined => {
  const [one, other] = [placeOf(drawing, p), placeOf(drawing, q)];
  // a place that is not there any more is no reason to measure to the curve instead
  if ((p.place !== undefined && !one) || (q.place !== undefined && !other)) return undefined;
  if (one && other) return distance(one, other);
  const [a, b] = [curveAt(drawing, p), curveAt(drawing, q)];
  const [onA, onB] = [a && carrierOf(a), b && carrierOf(b)];
  if (one && onB) return distance(one, carrierNearest(onB, one));
  if (other && onA) return distance(other, carrierNearest(onA, other));
  if (!onA || !onB) return undefined;
  if (onA.kind === "circle" && onB.kind === "circle")
    return distance(onA.centre, onB.centre) <= TRUE_WITHIN
      ? Math.abs(onA.radius - onB.radius)
      : distance(onA.centre, onB.centre);
  if (onA.kind === "line" && onB.kind === "line") {
    if (Math.abs(cross(onA.direction, onB.direction)) > TRUE_WITHIN) return undefined;
    return Math.abs(cross(onA.direction, subtract(onB.at, onA.at)));
  }
  const [straight, round] = onA.kind === "line" ? [onA, onB] : [onB, onA];
  return round.kind === "circle" ? distance(round.centre, carrierNearest(straight, round.centre)) : undefined;
};

/** The direction of a referenced straight line (radians), the way it is seen; undefined for what is not straight. */
const directionOf = (drawing: Drawing, ref: Ref): number | undefined => {
  const curve = curveAt(drawing, ref);
  const carrier = curve && carrierOf(curve);
  return carrier?.kind === "line" ? angleOf(carrier.direction) + (ref.turned ? Math.PI : 0) : undefined;
};

const measureLinks = (drawing: Drawing, { kind, links, value }: Callout): number | undefined => {
  const [first, second] = links;
  if (!first) return undefined;
  switch (kind) {
    case "radius":
    case "diameter":
    case "thread": {
      const sizes = links.map((ref) => roundSize(curveAt(drawing, ref))).filter((size) => size !== undefined);
      const worst = sizes
        .map((size) => (kind === "radius" ? size : 2 * size))
        .sort((p, q) => Math.abs(q - value) - Math.abs(p - value));
      return worst[0];
    }
    case "length":
    case "centres": {
      if (second) return distanceBetween(drawing, first, second);
      if (first.place !== undefined) return undefined;
      const curve = curveAt(drawing, first);
      if (curve?.kind === "piece") return pieceLength(curve);
      return curve && isSmooth(curve) ? curveLength(curve) : undefined;
    }
    case "angle": {
      const [one, other] = [directionOf(drawing, first), second ? directionOf(drawing, second) : 0];
      if (one === undefined || other === undefined) return undefined;
      return Math.abs(toDegrees(signedAngle(one - other)));
    }
    case "count":
      return links.filter((ref) => (ref.vertex === undefined ? entityOf(drawing, ref.id) : curveAt(drawing, ref)))
        .length;
  }
};

/**
 * How far a callout may be off, below and above: its own limits or tolerance, else the job's; angles and counts have
 * only their own.
 */
export const allowedOff = (drawing: Drawing, callout: Callout): { low: number; high: number } | undefined => {
  const { kind, limits, tolerance } = callout;
  if (limits) return limits;
  const general = ["length", "centres", "radius", "diameter"].includes(kind)
    ? settingsOf(drawing).generalTolerance
    : undefined;
  const either = tolerance ?? general;
  return either === undefined ? undefined : { low: -either, high: either };
};

/**
 * How a callout stands against the drawing now. True within 1e-6 of its value; inside its tolerance but not true is
 * "within".
 */
export const measureCallout = (drawing: Drawing, callout: Callout): CalloutState => {
  const measured = measureLinks(drawing, callout);
  if (measured === undefined) return { state: "not placed" };
  const by = measured - callout.value;
  if (Math.abs(by) <= TRUE_WITHIN) return { state: "true", measured, by };
  const allowed = allowedOff(drawing, callout);
  const within = allowed !== undefined && by >= allowed.low - TRUE_WITHIN && by <= allowed.high + TRUE_WITHIN;
  return { state: within ? "within" : "off", measured, by };
};
