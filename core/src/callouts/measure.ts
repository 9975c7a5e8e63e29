import type { Callout } from "../drawing/callout.ts";
import { curveAt, entityOf, settingsOf, type Drawing } from "../drawing/drawing.ts";
import type { Ref } from "../drawing/ref.ts";
import { carrierOf, carrierNearest, curveLength, isSmooth, type Curve } from "../geometry/curve.ts";
import { pieceLength, piecePoint } from "../geometry/piece.ts";
import { angleOf, cross, distance, subtract, type Point } from "../geometry/point.ts";
import { signedAngle, toDegrees } from "../numeric/angle.ts";
import { TRUE_WITHIN } from "../numeric/tolerance.ts";

/** How a callout stands: by `by` = measured - called. */
export type CalloutState =
  | { readonly state: "not placed" }
  | { readonly state: "true" | "within" | "off"; readonly measured: number; readonly by: number };

/** The place that a reference names as a point; undefined where it names a whole curve. */
const placeOf = (drawing: Drawing, ref: Ref): Point | undefined => {
  const entity = entityOf(drawing, ref.id);
  if (entity?.kind === "point") return entity.at;
  const curve = curveAt(drawing, ref);
  if (!curve || !ref.place) return undefined;
  const carrier = carrierOf(curve);
  if (ref.place === "centre") return carrier?.kind === "circle" ? carrier.centre : undefined;
  if (curve.kind !== "piece") return undefined;
  return piecePoint(curve, { start: 0, middle: 0.5, end: 1 }[ref.place]);
};

const roundSize = (curve: Curve | undefined): number | undefined => {
  const carrier = curve && carrierOf(curve);
  return carrier?.kind === "circle" ? carrier.radius : undefined;
};

/** The distance between two things: points, parallel lines, concentric circles, or a point and a curve. */
export const distanceBetween = (drawing: Drawing, p: Ref, q: Ref): number | undefined => {
  const [one, other] = [placeOf(drawing, p), placeOf(drawing, q)];
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

const measureLinks = (drawing: Drawing, { kind, links, value }: Callout): number | undefined => {
  const [first, second] = links;
  if (!first) return undefined;
  switch (kind) {
    case "radius":
    case "diameter": {
      const sizes = links.map((ref) => roundSize(curveAt(drawing, ref))).filter((size) => size !== undefined);
      const worst = sizes
        .map((size) => (kind === "radius" ? size : 2 * size))
        .sort((p, q) => Math.abs(q - value) - Math.abs(p - value));
      return worst[0];
    }
    case "length":
    case "centres": {
      if (second) return distanceBetween(drawing, first, second);
      const curve = curveAt(drawing, first);
      if (curve?.kind === "piece") return pieceLength(curve);
      return curve && isSmooth(curve) ? curveLength(curve) : undefined;
    }
    case "angle": {
      const [a, b] = [curveAt(drawing, first), second && curveAt(drawing, second)].map(
        (curve) => curve && carrierOf(curve),
      );
      if (a?.kind !== "line") return undefined;
      const other = b?.kind === "line" ? angleOf(b.direction) : 0;
      return Math.abs(toDegrees(signedAngle(angleOf(a.direction) - other)));
    }
    case "count":
      return links.filter(({ id }) => entityOf(drawing, id)).length;
    case "thread": {
      const size = roundSize(curveAt(drawing, first));
      return size === undefined ? undefined : 2 * size;
    }
  }
};

/** How far a callout may be off, below and above: its own limits or tolerance, else the job's; angles and counts have only their own. */
export const allowedOff = (drawing: Drawing, callout: Callout): { low: number; high: number } | undefined => {
  const { kind, limits, tolerance } = callout;
  if (limits) return limits;
  const general = ["length", "centres", "radius", "diameter"].includes(kind)
    ? settingsOf(drawing).generalTolerance
    : undefined;
  const either = tolerance ?? general;
  return either === undefined ? undefined : { low: -either, high: either };
};

/** How a callout stands against the drawing now. True within 1e-6 of its value; inside its tolerance but not true is "within". */
export const measureCallout = (drawing: Drawing, callout: Callout): CalloutState => {
  const measured = measureLinks(drawing, callout);
  if (measured === undefined) return { state: "not placed" };
  const by = measured - callout.value;
  if (Math.abs(by) <= TRUE_WITHIN) return { state: "true", measured, by };
  const allowed = allowedOff(drawing, callout);
  const within = allowed !== undefined && by >= allowed.low - TRUE_WITHIN && by <= allowed.high + TRUE_WITHIN;
  return { state: within ? "within" : "off", measured, by };
};
