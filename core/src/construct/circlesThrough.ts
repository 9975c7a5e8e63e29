import type { Circle } from "../geometry/circle.ts";
import { cross, distance, dot, midpoint, subtract, type Point } from "../geometry/point.ts";
import { done, refuse, type Outcome } from "../numeric/outcome.ts";
import { RESOLUTION } from "../numeric/tolerance.ts";

/** The circle whose diameter runs from `p` to `q`; the same point twice is a refusal. Source: Thales. */
export const circleOnDiameter = (p: Point, q: Point): Outcome<Circle> =>
  distance(p, q) <= RESOLUTION
    ? refuse("same-point", {}, p)
    : done({ centre: midpoint(p, q), radius: distance(p, q) / 2 });

/**
 * The circle through three points. Refused: two at one place, or all three on one line (nearer to it than the
 * resolution). Worked from the point whose two sides are the shortest; the residual grows as the three come near to one
 * line. Source: Euclid IV.5.
 */
export const circleThrough = (p: Point, q: Point, r: Point): Outcome<Circle> => {
  if (distance(p, q) <= RESOLUTION || distance(q, r) <= RESOLUTION || distance(p, r) <= RESOLUTION)
    return refuse("same-point");
  const sides = (a: Point, b: Point, c: Point): number => distance(a, b) + distance(a, c);
  const [a, b, c] = [
    [p, q, r],
    [q, r, p],
    [r, p, q],
  ].sort((one, other) => sides(one[0]!, one[1]!, one[2]!) - sides(other[0]!, other[1]!, other[2]!))[0] as [
    Point,
    Point,
    Point,
  ];
  const [u, v] = [subtract(b, a), subtract(c, a)];
  const twice = 2 * cross(u, v);
  const longest = Math.max(distance(p, q), distance(q, r), distance(p, r));
  if (Math.abs(twice) / 2 <= RESOLUTION * longest) return refuse("points-in-line");
  const [uu, vv] = [dot(u, u), dot(v, v)];
  const centre = { x: a.x + (v.y * uu - u.y * vv) / twice, y: a.y + (u.x * vv - v.x * uu) / twice };
  return done({ centre, radius: distance(centre, a) });
};
