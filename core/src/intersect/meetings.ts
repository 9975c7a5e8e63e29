import { boundsMeet, growBounds } from "../geometry/bounds.ts";
import {
  carrierOf,
  curveBounds,
  curveEnds,
  curveNearest,
  curvePoint,
  type Carrier,
  type Curve,
} from "../geometry/curve.ts";
import { pieceLength, piecePoint as pointOf } from "../geometry/piece.ts";
import { cross, distance, leftOf, subtract, unit, type Point } from "../geometry/point.ts";
import { meetCarriers, meetingPoints } from "./carriers.ts";
import { smoothMeetings } from "./smoothMeetings.ts";

/**
 * How two curves meet at a place: they cross, they touch, an end of one lies on the other, or a whole stretch of one
 * lies on the other. `onA` and `onB` are parameters as each kind of curve has them.
 */
export type Meeting =
  | { readonly kind: "crossing" | "touch" | "end"; readonly at: Point; readonly onA: number; readonly onB: number }
  | { readonly kind: "overlap"; readonly from: Point; readonly to: Point };

const reaches = (curve: Curve, p: Point, tolerance: number): boolean => curveNearest(curve, p).distance <= tolerance;

/**
 * Half the width of the lens of thickness `tolerance` where two carriers touch: how far off a computed touch may lie.
 */
const lensHalfWidth = (a: Carrier, b: Carrier, tolerance: number): number => {
  const radii = [a, b].map((carrier) => (carrier.kind === "circle" ? carrier.radius : Infinity));
  const smaller = Math.min(radii[0]!, radii[1]!);
  return smaller === Infinity ? tolerance : 4 * Math.sqrt(smaller * tolerance);
};

/**
 * How far along, from a crossing at `p`, two carriers stay within `tolerance` of each other: a known end there is the
 * same meeting.
 */
const crossingWidth = (a: Carrier, b: Carrier, p: Point, tolerance: number): number => {
  const [u, v] = [a, b].map((carrier) =>
    carrier.kind === "line" ? carrier.direction : (unit(leftOf(subtract(p, carrier.centre))) ?? { x: 1, y: 0 }),
  );
  const sine = Math.abs(cross(u!, v!));
  return Math.min((2 * tolerance) / Math.max(sine, Number.MIN_VALUE), lensHalfWidth(a, b, tolerance));
};

/**
 * All places where two curves meet. An end that lies on the other within `tolerance` gives its own coordinates, so that
 * what is cut there shares them as numbers. No meetings: an empty list. Touches are one point on the line of centres.
 */
export const meetings = (a: Curve, b: Curve, tolerance: number): readonly Meeting[] => {
  const [boxA, boxB] = [curveBounds(a), curveBounds(b)];
  if (boxA && boxB && !boundsMeet(growBounds(boxA, tolerance), boxB)) return [];

  const found: Extract<Meeting, { at: Point }>[] = [];
  const known = (p: Point, reach: number): boolean => found.some(({ at }) => distance(at, p) <= reach);
  const note = (kind: "crossing" | "touch" | "end", at: Point): void => {
    found.push({ kind, at, onA: curveNearest(a, at).t, onB: curveNearest(b, at).t });
  };
  for (const end of curveEnds(a)) if (reaches(b, end, tolerance) && !known(end, tolerance)) note("end", end);
  for (const end of curveEnds(b)) if (reaches(a, end, tolerance) && !known(end, 2 * tolerance)) note("end", end);

  const [onA, onB] = [carrierOf(a), carrierOf(b)];
  if (!onA || !onB) {
    // at a known end the curves stay within the tolerance of each other for a little way: that is the same meeting
    for (const { at, kind, width } of smoothMeetings(a, b, tolerance)) if (!known(at, width)) note(kind, at);
    return found;
  }
  const meeting = meetCarriers(onA, onB, tolerance);
  if (meeting.kind === "same") return overlaps(a, b, found, tolerance);
  for (const p of meetingPoints(meeting)) {
    const reach =
      meeting.kind === "touch"
        ? lensHalfWidth(onA, onB, tolerance)
        : Math.max(2 * tolerance, crossingWidth(onA, onB, p, tolerance));
    if (known(p, reach) || !reaches(a, p, tolerance) || !reaches(b, p, tolerance)) continue;
    note(meeting.kind === "touch" ? "touch" : "crossing", p);
  }
  return found;
};

/** On one carrier: the ends found on each other bound the stretches that both share. */
const overlaps = (
  a: Curve,
  b: Curve,
  ends: Extract<Meeting, { at: Point }>[],
  tolerance: number,
): readonly Meeting[] => {
  if (ends.length === 0) {
    // two equal circles, two equal endless lines: everything is shared and there is no end to name
    const p =
      a.kind === "circle"
        ? { x: a.centre.x + a.radius, y: a.centre.y }
        : a.kind === "endless"
          ? a.through
          : curvePoint(a, 0);
    return reaches(b, p, tolerance) ? [{ kind: "overlap", from: p, to: p }] : [];
  }
  // Walk along the one that has ends (a circle or an endless line has none), and test the middle of each stretch.
  const [walked, other] = a.kind === "piece" ? [a, b] : [b, a];
  if (walked.kind !== "piece") return [];
  const length = pieceLength(walked);
  const stops = [...new Set(ends.map(({ at }) => curveNearest(walked, at).t))].sort((s, t) => s - t);
  const shared: Meeting[] = [];
  for (let i = 0; i + 1 < stops.length; i++) {
    const [from, to] = [stops[i]!, stops[i + 1]!];
    if ((to - from) * length <= tolerance) continue;
    if (reaches(other, pointOf(walked, (from + to) / 2), tolerance))
      shared.push({ kind: "overlap", from: pointOf(walked, from), to: pointOf(walked, to) });
  }
  return shared.length > 0 ? shared : ends;
};
