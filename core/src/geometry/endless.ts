import { unitAt } from "../numeric/angle.ts";
import { along, angleOf, dot, leftOf, subtract, type Point } from "./point.ts";
import { isMirror, transformPoint, turnOf, type Similarity } from "./transform.ts";

/** A straight line without ends, for layout only; its parameter is the signed distance from `through`. */
export type Endless = { readonly through: Point; readonly angle: number };

/** The direction of a layout line, of length 1. */
export const endlessDirection = ({ angle }: Endless): Point => unitAt(angle);
/** The place on a layout line, `t` from the place that it goes through. */
export const endlessPoint = (line: Endless, t: number): Point => along(line.through, unitAt(line.angle), t);
/** How far the foot of a place lies from the place that the line goes through, with its sign. */
export const endlessParameter = (line: Endless, p: Point): number => dot(subtract(p, line.through), unitAt(line.angle));

/** The signed distance of `p` from the line, positive to its left. */
export const endlessSide = (line: Endless, p: Point): number =>
  dot(subtract(p, line.through), leftOf(unitAt(line.angle)));

/** The place on a layout line that is nearest, its parameter, and how far away it is. */
export const endlessNearest = (line: Endless, p: Point): { t: number; at: Point; distance: number } => {
  const t = endlessParameter(line, p);
  return { t, at: endlessPoint(line, t), distance: Math.abs(endlessSide(line, p)) };
};

/** The layout line through two places; they must differ. */
export const endlessThrough = (p: Point, q: Point): Endless => ({ through: p, angle: angleOf(subtract(q, p)) });

/** The layout line moved, turned, scaled or mirrored. */
export const transformEndless = (m: Similarity, { through, angle }: Endless): Endless => ({
  through: transformPoint(m, through),
  angle: isMirror(m) ? turnOf(m) - angle : turnOf(m) + angle,
});
