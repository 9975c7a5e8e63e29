import { tangentLinesFromPoint } from "./tangentLines.ts";
import { arcBetween, bulgeOf, type Piece } from "../geometry/piece.ts";
import {
  add,
  along,
  angleOf,
  cross,
  distance,
  dot,
  leftOf,
  midpoint,
  subtract,
  turned,
  unit,
  type Point,
  times,
} from "../geometry/point.ts";
import { done, refuse, type Outcome } from "../numeric/outcome.ts";
import { RESOLUTION, ROUNDING, SAME_DIRECTION, SETTLED } from "../numeric/tolerance.ts";
import { circleThrough } from "./circlesThrough.ts";

/**
 * The arc from `a` through `through` to `b`; three points on one line give the line. Source: Euclid IV.5, III.20 for
 * the side.
 */
export const arcThrough = (a: Point, through: Point, b: Point): Outcome<Piece> => {
  const circle = circleThrough(a, through, b);
  if (!circle.ok && circle.refusal.code !== "points-in-line") return circle;
  const side = cross(subtract(b, a), subtract(through, a));
  if (!circle.ok) {
    const t = dot(subtract(through, a), subtract(b, a)) / dot(subtract(b, a), subtract(b, a));
    return t > 0 && t < 1 ? done({ a, b, bulge: 0 }) : refuse("points-in-line");
  }
  return done(arcBetween(a, b, circle.value.centre, side < 0));
};

/**
 * The two arcs about `centre` from `a` towards `to`, counter-clockwise first: the end lies on the way from the centre
 * to `to`.
 */
export const arcsAbout = (centre: Point, a: Point, to: Point): Outcome<readonly Piece[]> => {
  const direction = unit(subtract(to, centre));
  const radius = distance(centre, a);
  if (!direction || radius <= RESOLUTION) return refuse("same-point", {}, centre);
  const b = along(centre, direction, radius);
  if (distance(a, b) <= RESOLUTION) return refuse("no-length");
  return done([arcBetween(a, b, centre, true), arcBetween(a, b, centre, false)]);
};

/**
 * The two arcs about `centre` from `a` with a sweep (radians, above 0 and below a whole turn): counter-clockwise first.
 */
export const arcsBySweepAbout = (centre: Point, a: Point, sweep: number): Outcome<readonly Piece[]> => {
  if (!(sweep > 0 && sweep < 2 * Math.PI)) return refuse("property-impossible");
  if (distance(centre, a) <= RESOLUTION) return refuse("same-point", {}, centre);
  const out = subtract(a, centre);
  return done([1, -1].map((way) => ({ a, b: add(centre, turned(out, way * sweep)), bulge: bulgeOf(way * sweep) })));
};

/**
 * The arcs from `a` to `b` of a radius: the two short ones, then the two long ones, each bulging to the right first.
 * Exactly half the chord gives the two half circles; less is a refusal that names it. Source: circular segment
 * (Machinery's Handbook).
 */
export const arcsByRadius = (a: Point, b: Point, radius: number): Outcome<readonly Piece[]> => {
  const half = distance(a, b) / 2;
  if (half <= RESOLUTION / 2) return refuse("no-length");
  if (radius < half - RESOLUTION / 2) return refuse("radius-too-small", { typed: radius, limit: half });
  const quarter = Math.tan(Math.asin(Math.min(1, half / radius)) / 2);
  if (radius <= half + ROUNDING * half) return done([1, -1].map((bulge) => ({ a, b, bulge })));
  return done([quarter, -quarter, 1 / quarter, -1 / quarter].map((bulge) => ({ a, b, bulge })));
};

/** The two arcs from `a` to `b` of a sweep in radians, bulging to the right first. */
export const arcsBySweep = (a: Point, b: Point, sweep: number): Outcome<readonly Piece[]> => {
  if (distance(a, b) <= RESOLUTION) return refuse("no-length");
  if (!(sweep > 0 && sweep < 2 * Math.PI)) return refuse("property-impossible");
  return done([1, -1].map((way) => ({ a, b, bulge: bulgeOf(way * sweep) })));
};

/**
 * The two arcs from `a` to `b` of a height over the chord (sagitta = bulge · chord / 2), bulging to the right first.
 */
export const arcsByHeight = (a: Point, b: Point, height: number): Outcome<readonly Piece[]> => {
  const half = distance(a, b) / 2;
  if (half <= RESOLUTION / 2) return refuse("no-length");
  if (!(height > 0)) return refuse("value-not-positive", { what: "The height" });
  return done([1, -1].map((way) => ({ a, b, bulge: (way * height) / half })));
};

/**
 * The one arc from `a` to `b` that starts in `direction` (radians); a line where it points straight at `b`. Source:
 * Euclid III.32.
 */
export const arcFrom = (a: Point, direction: number, b: Point): Outcome<Piece> => {
  const chord = subtract(b, a);
  if (distance(a, b) <= RESOLUTION) return refuse("no-length");
  const turn = angleOf(turned(chord, -direction)); // half the sweep
  if (Math.abs(Math.abs(turn) - Math.PI) < SAME_DIRECTION) return refuse("arc-turns-back");
  return done({ a, b, bulge: Math.abs(turn) < SETTLED ? 0 : Math.tan(turn / 2) });
};

/**
 * The arc that starts in `direction` with a radius: on the side of `to`, as far round as `to` lies, or by `sweep`
 * (radians). A point straight ahead gives neither side: a refusal.
 */
export const arcFromWithRadius = (
  a: Point,
  direction: number,
  radius: number,
  to: Point,
  sweep?: number,
): Outcome<Piece> => {
  const heading = { x: Math.cos(direction), y: Math.sin(direction) };
  const side = cross(heading, subtract(to, a)) < 0 ? -1 : 1;
  const centre = along(a, leftOf(heading), side * radius);
  if (sweep !== undefined) {
    const arcs = arcsBySweepAbout(centre, a, sweep);
    return arcs.ok ? done(arcs.value[side > 0 ? 0 : 1]!) : arcs;
  }
  const arcs = arcsAbout(centre, a, to);
  return arcs.ok ? done(arcs.value[side > 0 ? 0 : 1]!) : arcs;
};

/**
 * The arc that starts in `direction` with a radius, on the side of `to`, and ends where it heads straight for `to`;
 * undefined where `to` lies within its circle or straight ahead. Source: tangents from a point to a circle (Euclid
 * III.17).
 */
export const arcHeadingFor = (a: Point, direction: number, radius: number, to: Point): Piece | undefined => {
  const heading = { x: Math.cos(direction), y: Math.sin(direction) };
  const side = cross(heading, subtract(to, a)) < 0 ? -1 : 1;
  const centre = along(a, leftOf(heading), side * radius);
  if (distance(to, centre) <= radius + RESOLUTION) return undefined;
  const lines = tangentLinesFromPoint(to, { centre, radius });
  const touch = (lines.ok ? lines.value : [])
    .map((line) => line.to)
    .find((at) => dot(times(leftOf(subtract(at, centre)), side), subtract(to, at)) > 0);
  if (!touch || distance(touch, a) <= RESOLUTION) return undefined;
  return arcBetween(a, touch, centre, side > 0);
};

/**
 * A line bowed so that its middle comes as near to `to` as it can without moving its ends; undefined where that is the
 * line itself.
 */
export const bowTowards = (a: Point, b: Point, to: Point): Piece => {
  const half = distance(a, b) / 2;
  const left = leftOf(unit(subtract(b, a)) ?? { x: 1, y: 0 });
  const height = dot(subtract(to, midpoint(a, b)), left);
  return { a, b, bulge: half === 0 ? 0 : -height / half };
};

/** The direction in which a piece arrives at its end, and leaves its start, in radians. */
export const arrivalOf = ({ a, b, bulge }: Piece): number => angleOf(turned(subtract(b, a), 2 * Math.atan(bulge)));
/** The direction in which a piece leaves its start, in radians. */
export const departureOf = ({ a, b, bulge }: Piece): number => angleOf(turned(subtract(b, a), -2 * Math.atan(bulge)));
