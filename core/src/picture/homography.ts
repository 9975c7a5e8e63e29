import { ROUNDING } from "../numeric/tolerance.ts";
import type { Point } from "../geometry/point.ts";

/** A plane perspective map, row by row: (x, y, 1) becomes (u, v, w), and the point is (u / w, v / w). */
export type Homography = readonly [number, number, number, number, number, number, number, number, number];

/** Where `p` goes; `w` > 0 on this side of the horizon (for maps made by `homographyOf`, near the four points). */
export const throughHomography = (h: Homography, { x, y }: Point): Point & { readonly w: number } => {
  const w = h[6] * x + h[7] * y + h[8];
  return { x: (h[0] * x + h[1] * y + h[2]) / w, y: (h[3] * x + h[4] * y + h[5]) / w, w };
};

/**
 * The perspective map that takes four points to four others; undefined when three of either lie on one line (to within
 * 1e-12 of the square of their size). Residual at the four points: about 1e-12 of their size.
 *
 * Source: Heckbert, Fundamentals of Texture Mapping (1989), square to quadrilateral, composed with the inverse of
 * another.
 */
export const homographyOf = (from: readonly Point[], to: readonly Point[]): Homography | undefined => {
  const [a, b] = [fromSquare(from), fromSquare(to)];
  const back = a && invertHomography(a);
  return b && back && signedAt(multiply(b, back), from[0]!);
};

/** The unit square (0,0), (1,0), (1,1), (0,1) to four points. */
const fromSquare = ([p0, p1, p2, p3]: readonly Point[]): Homography | undefined => {
  if (!p0 || !p1 || !p2 || !p3) return undefined;
  const [dx1, dy1, dx2, dy2] = [p1.x - p2.x, p1.y - p2.y, p3.x - p2.x, p3.y - p2.y];
  const [sx, sy] = [p0.x - p1.x + p2.x - p3.x, p0.y - p1.y + p2.y - p3.y];
  const determinant = dx1 * dy2 - dx2 * dy1;
  const size = Math.max(dx1 * dx1 + dy1 * dy1, dx2 * dx2 + dy2 * dy2);
  if (!(Math.abs(determinant) > ROUNDING * size)) return undefined;
  const g = (sx * dy2 - dx2 * sy) / determinant;
  const h = (dx1 * sy - sx * dy1) / determinant;
  return [
    p1.x - p0.x + g * p1.x,
    p3.x - p0.x + h * p3.x,
    p0.x,
    p1.y - p0.y + g * p1.y,
    p3.y - p0.y + h * p3.y,
    p0.y,
    g,
    h,
    1,
  ];
};

const multiply = (a: Homography, b: Homography): Homography =>
  [0, 1, 2].flatMap((row) =>
    [0, 1, 2].map((column) =>
      [0, 1, 2].reduce((sum, k) => sum + a[(3 * row + k) as 0]! * b[(3 * k + column) as 0]!, 0),
    ),
  ) as unknown as Homography;

/** The way back (the adjugate: the scale of a homography is free); undefined where there is none. */
export const invertHomography = (m: Homography): Homography | undefined => {
  const [a, b, c, d, e, f, g, h, i] = m;
  const determinant = a * (e * i - f * h) - b * (d * i - f * g) + c * (d * h - e * g);
  if (!Number.isFinite(determinant) || determinant === 0) return undefined;
  const back = [
    e * i - f * h,
    c * h - b * i,
    b * f - c * e,
    f * g - d * i,
    a * i - c * g,
    c * d - a * f,
    d * h - e * g,
    b * g - a * h,
    a * e - b * d,
  ].map((value) => value / determinant);
  return back as unknown as Homography;
};

/** With the sign that makes `w` positive at `p`. */
const signedAt = (m: Homography, p: Point): Homography =>
  throughHomography(m, p).w < 0 ? (m.map((value) => -value) as unknown as Homography) : m;
