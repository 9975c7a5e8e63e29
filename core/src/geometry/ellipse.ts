import { greatest } from "../numeric/greatest.ts";
import { normalAngle, TURN } from "../numeric/angle.ts";
import { boundsOf, type Bounds } from "./bounds.ts";
import { leftOf, norm, times, type Point } from "./point.ts";
import type { Smooth } from "./smooth.ts";
import { isMirror, transformPoint, transformVector, type Similarity } from "./transform.ts";
import { WHOLE_TURN_WITHIN } from "../numeric/tolerance.ts";

/**
 * An ellipse or part of one: `major` runs from the centre to the end of the longer half axis, `ratio` is the shorter
 * over the longer. At parameter t in [0, 1] the eccentric angle is from + t sweep; a whole one sweeps a full turn. As
 * in the DXF reference, but for the signed sweep.
 */
export type Ellipse = {
  readonly centre: Point;
  readonly major: Point;
  readonly ratio: number;
  readonly from: number;
  readonly sweep: number;
};

/** True where an ellipse goes all round. */
export const isWhole = ({ sweep }: Ellipse): boolean => Math.abs(sweep) >= TURN - WHOLE_TURN_WITHIN;
/** Half the long and half the short axis of an ellipse. */
export const halfAxes = ({ major, ratio }: Ellipse): readonly [number, number] => [norm(major), norm(major) * ratio];

/** The point at eccentric angle `angle`. */
export const ellipseAt = ({ centre, major, ratio }: Ellipse, angle: number): Point => {
  const [c, s, minor] = [Math.cos(angle), Math.sin(angle), times(leftOf(major), ratio)];
  return { x: centre.x + c * major.x + s * minor.x, y: centre.y + c * major.y + s * minor.y };
};

const along = ({ major, ratio }: Ellipse, angle: number, scale: number): Point => {
  const [c, s, minor] = [Math.cos(angle), Math.sin(angle), times(leftOf(major), ratio)];
  return { x: scale * (c * minor.x - s * major.x), y: scale * (c * minor.y - s * major.y) };
};

/** An ellipse as a smooth curve: its place, direction and bending at a parameter from 0 to 1. */
export const ellipseSmooth = (ellipse: Ellipse): Smooth => {
  const { from, sweep, centre } = ellipse;
  const steps = Math.max(2, Math.ceil(Math.abs(sweep) / (Math.PI / 4)));
  return {
    at: (t) => ellipseAt(ellipse, from + t * sweep),
    first: (t) => along(ellipse, from + t * sweep, sweep),
    second: (t) => {
      const p = ellipseAt(ellipse, from + t * sweep);
      return { x: -sweep * sweep * (p.x - centre.x), y: -sweep * sweep * (p.y - centre.y) };
    },
    bend: () => sweep * sweep * greatest(halfAxes(ellipse)),
    breaks: Array.from({ length: steps + 1 }, (_, i) => i / steps),
    closed: isWhole(ellipse),
  };
};

/** The parameter of an eccentric angle, in [0, 1) of a whole ellipse; of a part only where it is on it. */
export const ellipseParameter = ({ from, sweep }: Ellipse, angle: number): number | undefined => {
  const turn = normalAngle(sweep > 0 ? angle - from : from - angle);
  const t = turn / Math.abs(sweep);
  return t <= 1 ? t : undefined;
};

/** Exact bounds: the ends, and where x or y is greatest and least. */
export const ellipseBounds = (ellipse: Ellipse): Bounds => {
  const { major, ratio, from, sweep } = ellipse;
  const minor = times(leftOf(major), ratio);
  const turns = [Math.atan2(minor.x, major.x), Math.atan2(minor.y, major.y)].flatMap((angle) => [
    angle,
    angle + Math.PI,
  ]);
  const on = turns.filter((angle) => ellipseParameter(ellipse, angle) !== undefined);
  return boundsOf([from, from + sweep, ...on].map((angle) => ellipseAt(ellipse, angle)));
};

/** The part of an ellipse between two parameters of it, 0 its start and 1 its end. */
export const partOfEllipse = (ellipse: Ellipse, from: number, to: number): Ellipse => ({
  ...ellipse,
  from: ellipse.from + from * ellipse.sweep,
  sweep: (to - from) * ellipse.sweep,
});

/** The ellipse moved, turned, scaled or mirrored; a mirror turns its sweep over. */
export const transformEllipse = (m: Similarity, { centre, major, ratio, from, sweep }: Ellipse): Ellipse => ({
  centre: transformPoint(m, centre),
  major: transformVector(m, major),
  ratio,
  from: isMirror(m) ? -from : from,
  sweep: isMirror(m) ? -sweep : sweep,
});
