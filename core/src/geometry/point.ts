/** A place in the drawing, in the job's unit, y up. Also used for vectors. */
export type Point = { readonly x: number; readonly y: number };

/** The sum of two vectors. */
export const add = (p: Point, q: Point): Point => ({ x: p.x + q.x, y: p.y + q.y });
/** The vector from the second to the first. */
export const subtract = (p: Point, q: Point): Point => ({ x: p.x - q.x, y: p.y - q.y });
/** A vector scaled. */
export const times = (p: Point, factor: number): Point => ({ x: p.x * factor, y: p.y * factor });
/** The scalar product. */
export const dot = (p: Point, q: Point): number => p.x * q.x + p.y * q.y;
/** The cross product: above zero where the second lies counter-clockwise of the first. */
export const cross = (p: Point, q: Point): number => p.x * q.y - p.y * q.x;
// the plain root is good to one unit in the last place here and a dozen times as fast as Math.hypot; sizes stay far
// from overflow
/** The length of a vector. */
export const norm = ({ x, y }: Point): number => Math.sqrt(x * x + y * y);
/** How far two places are apart. */
export const distance = (p: Point, q: Point): number => {
  const [x, y] = [q.x - p.x, q.y - p.y];
  return Math.sqrt(x * x + y * y);
};
/** The direction of a vector, in radians from -π to π. */
export const angleOf = (p: Point): number => Math.atan2(p.y, p.x);

/** `p` turned a quarter counter-clockwise: the left of `p`. */
export const leftOf = (p: Point): Point => ({ x: -p.y, y: p.x });

/** The point at fraction `t` from `p` to `q`; exactly the ends at 0 and 1. */
export const between = (p: Point, q: Point, t: number): Point =>
  t === 0 ? p : t === 1 ? q : { x: p.x + (q.x - p.x) * t, y: p.y + (q.y - p.y) * t };

/** The place half way between two. */
export const midpoint = (p: Point, q: Point): Point => ({ x: (p.x + q.x) / 2, y: (p.y + q.y) / 2 });

/** `p` at length 1; undefined when it has no direction. */
export const unit = (p: Point): Point | undefined => {
  const length = norm(p);
  return length > 0 && Number.isFinite(length) ? { x: p.x / length, y: p.y / length } : undefined;
};

/** `p` turned counter-clockwise by `angle`. */
export const turned = (p: Point, angle: number): Point => {
  const c = Math.cos(angle);
  const s = Math.sin(angle);
  return { x: p.x * c - p.y * s, y: p.x * s + p.y * c };
};

/** The point `length` along unit vector `direction` from `p`. */
export const along = (p: Point, direction: Point, length: number): Point => ({
  x: p.x + direction.x * length,
  y: p.y + direction.y * length,
});

/** True where two places are no farther apart than a tolerance. */
export const samePoint = (p: Point, q: Point, tolerance: number): boolean => distance(p, q) <= tolerance;
/** True where two places are the same to the last bit. */
export const equalPoint = (p: Point, q: Point): boolean => p.x === q.x && p.y === q.y;
