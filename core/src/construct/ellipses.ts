import type { Ellipse } from "../geometry/ellipse.ts";
import { cross, distance, dot, leftOf, norm, subtract, times, unit, type Point } from "../geometry/point.ts";
import { TURN } from "../numeric/angle.ts";
import { done, refuse, type Outcome } from "../numeric/outcome.ts";
import { RESOLUTION, ROUNDING, SAME_DIRECTION } from "../numeric/tolerance.ts";

const whole = { from: 0, sweep: TURN };

/**
 * The ellipse about `centre` with one half axis to `end` and the other `half` long; the longer of the two becomes the
 * major one.
 */
export const ellipseByAxes = (centre: Point, end: Point, half: number): Outcome<Ellipse> => {
  const axis = subtract(end, centre);
  const length = norm(axis);
  if (length <= RESOLUTION || half <= RESOLUTION) return refuse("no-length");
  if (half <= length) return done({ centre, major: axis, ratio: half / length, ...whole });
  return done({ centre, major: times(leftOf(axis), half / length), ratio: length / half, ...whole });
};

/**
 * The ellipse about `centre` with one half axis to `end`, through `on`. A point beyond the axis' own strip lies on
 * none: a refusal. Source: x²/a² + y²/b² = 1 solved for b.
 */
export const ellipseThrough = (centre: Point, end: Point, on: Point): Outcome<Ellipse> => {
  const axis = unit(subtract(end, centre));
  const a = distance(centre, end);
  if (!axis || a <= RESOLUTION) return refuse("no-length");
  const [x, y] = [dot(subtract(on, centre), axis), cross(axis, subtract(on, centre))];
  const rest = 1 - (x / a) ** 2;
  if (rest <= ROUNDING || Math.abs(y) <= RESOLUTION) return refuse("points-in-line");
  return ellipseByAxes(centre, end, Math.abs(y) / Math.sqrt(rest));
};

/**
 * The part of an ellipse from its place nearest the way to `from` round, counter-clockwise, to that nearest the way to
 * `to`.
 */
export const ellipsePart = (ellipse: Ellipse, from: Point, to: Point): Outcome<Ellipse> => {
  const angleTo = (p: Point): number => {
    const away = subtract(p, ellipse.centre);
    const { major, ratio } = ellipse;
    return Math.atan2(cross(major, away) / ratio, dot(major, away));
  };
  const [start, end] = [angleTo(from), angleTo(to)];
  const sweep = end - start <= 0 ? end - start + TURN : end - start;
  if (sweep < SAME_DIRECTION || sweep > TURN - SAME_DIRECTION) return refuse("no-length");
  return done({ ...ellipse, from: start, sweep });
};
