import { greatest } from "../numeric/greatest.ts";
import type { Circle } from "../geometry/circle.ts";
import { along, distance, leftOf, subtract, unit, type Point } from "../geometry/point.ts";
import { done, refuse, type Outcome } from "../numeric/outcome.ts";
import { residualBound } from "../numeric/tolerance.ts";

/** A straight tangent: the ends are where it starts and where it touches. */
export type TangentLine = { readonly from: Point; readonly to: Point };

const largest = (...points: readonly Point[]): number =>
  greatest(points.flatMap(({ x, y }) => [Math.abs(x), Math.abs(y)]));

/**
 * The tangent lines from `p` to `circle`: left touching point first, as seen from `p`; one, along the circle, when `p`
 * lies on it (then of length zero: the direction is square to the radius). Inside the circle: a refusal.
 *
 * Source: Euclid, Elements III.17; the half chord is factored so that it does not cancel near the circle.
 */
export const tangentLinesFromPoint = (p: Point, circle: Circle): Outcome<readonly TangentLine[]> => {
  const d = distance(p, circle.centre);
  const bound = residualBound(circle.radius, largest(p, circle.centre));
  if (d < circle.radius - bound) return refuse("point-inside-circle", {}, p);
  const towards = unit(subtract(circle.centre, p))!;
  if (d <= circle.radius + bound) return done([{ from: p, to: p }]);
  const reach = circle.radius / d;
  const back = along(circle.centre, towards, -circle.radius * reach); // foot of the contact chord
  const half = circle.radius * (Math.sqrt((d - circle.radius) * (d + circle.radius)) / d);
  return done([1, -1].map((side) => ({ from: p, to: along(back, leftOf(towards), side * half) })));
};

/**
 * The tangent lines of two circles, touching `from` first: the outer pair, then the crossed pair; within each pair the
 * one on the left of the way from centre to centre first. Touching circles give one line between them instead of the
 * crossed pair; internally touching ones one line in all. One inside the other, or equal: a refusal.
 *
 * Source: the unit normal n of the line with n·c = r₁ ∓ r₂ (belts over two pulleys, Machinery's Handbook); derived
 * here. Residual: a few units in the last place of the coordinates.
 */
export const tangentLinesOfCircles = (from: Circle, to: Circle): Outcome<readonly TangentLine[]> => {
  const d = distance(from.centre, to.centre);
  const bound = residualBound(Math.max(from.radius, to.radius), largest(from.centre, to.centre));
  const towards = unit(subtract(to.centre, from.centre));
  if (!towards || d <= bound)
    return Math.abs(from.radius - to.radius) <= bound ? refuse("circles-same") : refuse("circle-inside-circle");
  const lines: TangentLine[] = [];
  for (const crossed of [false, true]) {
    const other = crossed ? -to.radius : to.radius;
    const difference = from.radius - other;
    const room = d - Math.abs(difference);
    if (room < -bound) continue;
    const sine = room <= bound ? 0 : Math.sqrt(room * (d + Math.abs(difference))) / d;
    const cosine = sine === 0 ? Math.sign(difference) : difference / d;
    for (const side of sine === 0 ? [1] : [1, -1]) {
      const normal = {
        x: towards.x * cosine + leftOf(towards).x * side * sine,
        y: towards.y * cosine + leftOf(towards).y * side * sine,
      };
      lines.push({ from: along(from.centre, normal, from.radius), to: along(to.centre, normal, other) });
    }
  }
  return lines.length > 0 ? done(lines) : refuse("circle-inside-circle");
};
