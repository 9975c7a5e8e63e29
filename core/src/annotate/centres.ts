import { tipOf } from "../attach/frame.ts";
import { placeOf } from "../attach/places.ts";
import { circleThrough } from "../construct/circlesThrough.ts";
import type { Annotation } from "../drawing/annotation.ts";
import { curveAt, roundAt, type Drawing } from "../drawing/drawing.ts";
import type { Ref } from "../drawing/ref.ts";
import { carrierOf, curveEnds } from "../geometry/curve.ts";
import { along, between, dot, subtract, times, unit, type Point } from "../geometry/point.ts";
import type { Circle } from "../geometry/circle.ts";
import { carrierNearest } from "../geometry/curve.ts";
import { meetCarriers, meetingPoints } from "../intersect/carriers.ts";
import { greatest, least } from "../numeric/greatest.ts";
import { RESOLUTION } from "../numeric/tolerance.ts";
import type { Pen } from "./pen.ts";

const cross = (pen: Pen, { centre: { x, y }, radius }: Circle): void => {
  const reach = radius + pen.overhang;
  pen.line({ x: x - reach, y }, { x: x + reach, y }, true);
  pen.line({ x, y: y - reach }, { x, y: y + reach }, true);
};

/** A cross in each round curve, past its edge by the overhang (ISO 128-2, line 04.1). */
export const drawCentreMarks = (pen: Pen, drawing: Drawing, { refs }: Annotation): boolean => {
  const circles = refs.map((ref) => roundAt(drawing, ref));
  if (circles.length === 0 || circles.some((circle) => !circle)) return false;
  for (const circle of circles as readonly Circle[]) cross(pen, circle);
  return true;
};

/** The line half way between two edges, as long as both; of edges that are not parallel what halves their angle. */
const betweenEdges = (drawing: Drawing, refs: readonly Ref[]): readonly [Point, Point] | undefined => {
  const curves = refs.map((ref) => curveAt(drawing, ref));
  const [p, q] = curves.map((curve) => curve && carrierOf(curve));
  if (p?.kind !== "line" || q?.kind !== "line") return undefined;
  const ends = curves.flatMap((curve) => (curve ? curveEnds(curve) : []));
  const one = p.direction;
  const other = dot(p.direction, q.direction) < 0 ? times(q.direction, -1) : q.direction;
  const [vertex] = meetingPoints(meetCarriers(p, q, RESOLUTION));
  const origin = vertex ?? between(p.at, carrierNearest(q, p.at), 0.5);
  const bisecting = [one, times(one, -1)]
    .map((way) => unit({ x: way.x + other.x, y: way.y + other.y }))
    .find((way) => way !== undefined);
  // of the two that halve crossing lines the one that runs between what is drawn of them
  const [middleA, middleB] = curves.map((curve) => {
    const [a, b] = curve ? curveEnds(curve) : [];
    return a && b ? between(a, b, 0.5) : origin;
  }) as [Point, Point];
  const toward = vertex ? subtract(between(middleA, middleB, 0.5), vertex) : one;
  const square = bisecting && { x: -bisecting.y, y: bisecting.x };
  const way =
    vertex && bisecting && square && Math.abs(dot(square, toward)) > Math.abs(dot(bisecting, toward))
      ? square
      : bisecting;
  if (!way) return undefined;
  const reach = (ends.length > 0 ? ends : [origin]).map((end) => dot(subtract(end, origin), way));
  return [along(origin, way, least(reach)), along(origin, way, greatest(reach))];
};

/**
 * The line of symmetry of two edges, the line through two places, or the circle through the centres of three and more
 * holes with a cross stroke at each, past them by the overhang.
 */
export const drawCentreLine = (pen: Pen, drawing: Drawing, { refs }: Annotation): boolean => {
  if (refs.length > 2) return roundHoles(pen, drawing, refs);
  const places = refs.map((ref) => placeOf(drawing, ref));
  const [p, q] = places.every((place) => place !== undefined) ? places : (betweenEdges(drawing, refs) ?? []);
  const way = p && q && unit(subtract(q, p));
  if (!p || !q || !way) return false;
  pen.line(along(p, way, -pen.overhang), along(q, way, pen.overhang), true);
  return true;
};

/** The circle on which the centres of round curves lie; undefined where they lie on none. */
export const pitchCircleOf = (drawing: Drawing, refs: readonly Ref[]): Circle | undefined => {
  const places = refs.map((ref) => placeOf(drawing, ref) ?? roundAt(drawing, ref)?.centre);
  if (places.length < 3 || places.some((place) => !place)) return undefined;
  const made = circleThrough(places[0]!, places[1]!, places[2]!);
  if (!made.ok) return undefined;
  const { centre, radius } = made.value;
  const off = (p: Point): number => Math.abs(Math.hypot(p.x - centre.x, p.y - centre.y) - radius);
  return places.every((place) => off(place!) <= ROUND_WITHIN * radius) ? { centre, radius } : undefined;
};

/** Holes lie on a circle to this part of its radius. */
const ROUND_WITHIN = 1e-4;

const roundHoles = (pen: Pen, drawing: Drawing, refs: readonly Ref[]): boolean => {
  const circle = pitchCircleOf(drawing, refs);
  if (!circle) return false;
  const { centre, radius } = circle;
  pen.circle(centre, radius, true);
  for (const ref of refs) {
    const place = placeOf(drawing, ref) ?? tipOf(drawing, ref)!;
    const hole = roundAt(drawing, ref)?.radius ?? pen.height;
    const way = unit(subtract(place, centre))!;
    const reach = hole + pen.overhang;
    pen.line(along(place, way, -reach), along(place, way, reach), true);
  }
  return true;
};

/** Three quarters of the outer circle of a thread, thin, open at the upper right (ISO 6410-1). */
export const drawThreadMark = (pen: Pen, drawing: Drawing, { refs, size }: Annotation): boolean => {
  const hole = refs[0] && roundAt(drawing, refs[0]);
  if (!hole || size === undefined) return false;
  pen.arc(hole.centre, size / 2, Math.PI / 2, (3 * Math.PI) / 2);
  return true;
};
