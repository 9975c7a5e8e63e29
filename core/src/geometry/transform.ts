import { unitAt } from "../numeric/angle.ts";
import type { Point } from "./point.ts";

/**
 * A similarity: turn, equal scale, mirror and move, as the matrix [[a, c, e], [b, d, f]]. Arcs stay arcs under it.
 */
export type Similarity = {
  readonly a: number;
  readonly b: number;
  readonly c: number;
  readonly d: number;
  readonly e: number;
  readonly f: number;
};

/** A move. */
export const moving = (by: Point): Similarity => ({ a: 1, b: 0, c: 0, d: 1, e: by.x, f: by.y });

/** A turn about a place, counter-clockwise, in radians. */
export const turning = (about: Point, angle: number): Similarity => {
  const { x: c, y: s } = unitAt(angle);
  return { a: c, b: s, c: -s, d: c, e: about.x - c * about.x + s * about.y, f: about.y - s * about.x - c * about.y };
};

/** A scaling about a place. */
export const scaling = (about: Point, factor: number): Similarity => ({
  a: factor,
  b: 0,
  c: 0,
  d: factor,
  e: about.x * (1 - factor),
  f: about.y * (1 - factor),
});

/** Mirror on the line through `at` at `angle`. */
export const mirroring = (at: Point, angle: number): Similarity => {
  const { x: c, y: s } = unitAt(2 * angle);
  return { a: c, b: s, c: s, d: -c, e: at.x - c * at.x - s * at.y, f: at.y - s * at.x + c * at.y };
};

/** First `first`, then `second`. */
export const after = (first: Similarity, second: Similarity): Similarity => ({
  a: second.a * first.a + second.c * first.b,
  b: second.b * first.a + second.d * first.b,
  c: second.a * first.c + second.c * first.d,
  d: second.b * first.c + second.d * first.d,
  e: second.a * first.e + second.c * first.f + second.e,
  f: second.b * first.e + second.d * first.f + second.f,
});

/** A place moved, turned, scaled or mirrored. */
export const transformPoint = (m: Similarity, p: Point): Point => ({
  x: m.a * p.x + m.c * p.y + m.e,
  y: m.b * p.x + m.d * p.y + m.f,
});

/** A direction or a difference under it: without the move. */
export const transformVector = (m: Similarity, p: Point): Point => ({
  x: m.a * p.x + m.c * p.y,
  y: m.b * p.x + m.d * p.y,
});

/** The factor by which a transform scales lengths. */
export const scaleOf = (m: Similarity): number => Math.hypot(m.a, m.b);
/** True where a transform turns things over. */
export const isMirror = (m: Similarity): boolean => m.a * m.d - m.b * m.c < 0;
/** The angle at which +x comes out. */
export const turnOf = (m: Similarity): number => Math.atan2(m.b, m.a);
