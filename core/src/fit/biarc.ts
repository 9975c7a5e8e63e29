import { SAME_TANGENT, STRAIGHT_BULGE } from "../numeric/tolerance.ts";
import type { Piece } from "../geometry/piece.ts";
import { add, cross, dot, subtract, times, type Point } from "../geometry/point.ts";

/**
 * Two arcs from `p` with direction `u` to `q` with direction `v` that meet tangentially; `ratio` is the tangent length
 * at the end over that at the start. Undefined where there are none that run forwards. Source: biarcs (Bolton 1975,
 * from memory), worked out here for any ratio: 2 r (1 - u·v) d² + 2 c·(u + r v) d - c² = 0 for the tangent length d, c
 * the chord.
 */
export const biarc = (p: Point, u: Point, q: Point, v: Point, ratio = 1): readonly [Piece, Piece] | undefined => {
  const chord = subtract(q, p);
  const square = dot(chord, chord);
  const a = 2 * ratio * (1 - dot(u, v));
  const b = 2 * dot(chord, add(u, times(v, ratio)));
  const d = (2 * square) / (b + Math.sqrt(b * b + 4 * a * square));
  if (!(d > 0) || !Number.isFinite(d)) return undefined;
  const [start, end] = [add(p, times(u, d)), subtract(q, times(v, d * ratio))];
  const joint = add(start, times(subtract(end, start), 1 / (1 + ratio)));
  return [leavingAlong(p, u, joint), arrivingAlong(joint, q, v)];
};

/** An arc's bulge is the tangent of half the angle between its chord and its direction at an end. */
const half = (direction: Point, chord: Point): number =>
  Math.tan(Math.atan2(cross(direction, chord), dot(direction, chord)) / 2);
const straightened = (bulge: number): number => (Math.abs(bulge) < STRAIGHT_BULGE ? 0 : bulge);

/** The arc from `a` with direction `u` there to `b`. */
export const leavingAlong = (a: Point, u: Point, b: Point): Piece => ({
  a,
  b,
  bulge: straightened(half(u, subtract(b, a))),
});
/** The arc from `a` to `b` with direction `v` there. */
export const arrivingAlong = (a: Point, b: Point, v: Point): Piece => ({
  a,
  b,
  bulge: straightened(-half(v, subtract(b, a))),
});

/** The one arc or line from `a` with direction `u` to `b` with direction `v`; undefined where no one has both. */
export const oneArc = (a: Point, u: Point, b: Point, v: Point): Piece | undefined => {
  const chord = subtract(b, a);
  const [leaves, arrives] = [Math.atan2(cross(u, chord), dot(u, chord)), Math.atan2(cross(chord, v), dot(chord, v))];
  return Math.abs(leaves - arrives) <= SAME_TANGENT ? leavingAlong(a, u, b) : undefined;
};
