import type { Carrier } from "../geometry/curve.ts";
import { add, along, cross, distance, dot, leftOf, subtract, times, unit, type Point } from "../geometry/point.ts";
import { PARALLEL } from "../numeric/tolerance.ts";

/** How two carriers meet. A touch is one point on the line of centres; `same` means that they lie on each other. */
export type CarrierMeeting =
  | { readonly kind: "none" }
  | { readonly kind: "same" }
  | { readonly kind: "touch"; readonly at: Point }
  | { readonly kind: "crossing"; readonly at: readonly Point[] };

type Line = Extract<Carrier, { kind: "line" }>;
type Circle = Extract<Carrier, { kind: "circle" }>;

const lineLine = (a: Line, b: Line, tolerance: number): CarrierMeeting => {
  const sine = cross(a.direction, b.direction);
  const gap = subtract(b.at, a.at);
  if (Math.abs(sine) < PARALLEL)
    return Math.abs(cross(a.direction, gap)) <= tolerance ? { kind: "same" } : { kind: "none" };
  // An upright or level line gives its own coordinate, exactly.
  const onA = along(a.at, a.direction, cross(gap, b.direction) / sine);
  return { kind: "crossing", at: [straightened(straightened(onA, a), b)] };
};

/** A point of an exactly level or upright line has that line's coordinate to the last bit. */
const straightened = (p: Point, { at, direction }: Line): Point =>
  direction.x === 0 ? { x: at.x, y: p.y } : direction.y === 0 ? { x: p.x, y: at.y } : p;

const lineCircle = (line: Line, circle: Circle, tolerance: number): CarrierMeeting => {
  const toCentre = subtract(circle.centre, line.at);
  const foot = straightened(along(line.at, line.direction, dot(toCentre, line.direction)), line);
  const away = Math.abs(cross(line.direction, toCentre));
  const depth = circle.radius - away; // thickness of the lens between line and circle
  if (depth < -tolerance) return { kind: "none" };
  if (depth <= tolerance) return { kind: "touch", at: foot };
  const half = Math.sqrt(depth * (circle.radius + away));
  return {
    kind: "crossing",
    at: [along(foot, line.direction, -half), along(foot, line.direction, half)].map((p) => straightened(p, line)),
  };
};

/**
 * Two circles. The half chord by Heron's formula in factored form, which does not cancel near touching; worked from the
 * smaller circle's centre.
 */
const circleCircle = (one: Circle, other: Circle, tolerance: number): CarrierMeeting => {
  const [small, large] = one.radius <= other.radius ? [one, other] : [other, one];
  const d = distance(small.centre, large.centre);
  const difference = large.radius - small.radius;
  if (d + difference <= tolerance) return { kind: "same" };
  const outside = d - (small.radius + large.radius); // > 0: apart
  const within = difference - d; // > 0: one inside the other
  if (outside > tolerance || within > tolerance) return { kind: "none" };
  const direction = unit(subtract(large.centre, small.centre));
  if (!direction) return { kind: "none" };
  if (outside >= -tolerance) return { kind: "touch", at: along(small.centre, direction, small.radius + outside / 2) };
  if (within >= -tolerance) return { kind: "touch", at: along(small.centre, direction, -small.radius - within / 2) };
  const reach = (d - (difference * (small.radius + large.radius)) / d) / 2;
  const half = Math.sqrt((small.radius - reach) * (small.radius + reach));
  const foot = along(small.centre, direction, reach);
  const left = times(leftOf(direction), half);
  return { kind: "crossing", at: [add(foot, left), subtract(foot, left)] };
};

/**
 * Where two carriers meet, in the job's unit. A lens (or a gap) between them no thicker than `tolerance` is a touch.
 * Closed forms; a crossing's residual on both is a few units in the last place of the coordinates involved.
 */
export const meetCarriers = (a: Carrier, b: Carrier, tolerance: number): CarrierMeeting => {
  if (a.kind === "line") return b.kind === "line" ? lineLine(a, b, tolerance) : lineCircle(a, b, tolerance);
  return b.kind === "line" ? lineCircle(b, a, tolerance) : circleCircle(a, b, tolerance);
};

/** The points of a meeting: none, one or two. */
export const meetingPoints = (meeting: CarrierMeeting): readonly Point[] =>
  meeting.kind === "crossing" ? meeting.at : meeting.kind === "touch" ? [meeting.at] : [];
