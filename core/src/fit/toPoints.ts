import { NEGLIGIBLE, ROUNDING, SETTLED } from "../numeric/tolerance.ts";
import type { Circle } from "../geometry/circle.ts";
import type { Piece } from "../geometry/piece.ts";
import { distance, type Point } from "../geometry/point.ts";

/** How far each point lies off what was fitted, the largest of them, and their root mean square. */
export type Residuals = { readonly each: readonly number[]; readonly largest: number; readonly rms: number };

const residuals = (each: readonly number[]): Residuals => ({
  each,
  largest: each.reduce((most, off) => Math.max(most, Math.abs(off)), 0),
  rms: Math.sqrt(each.reduce((sum, off) => sum + off * off, 0) / each.length),
});

const meanOf = (points: readonly Point[]): Point => ({
  x: points.reduce((sum, { x }) => sum + x, 0) / points.length,
  y: points.reduce((sum, { y }) => sum + y, 0) / points.length,
});

/**
 * The line with the least sum of squared distances (total least squares: the main axis of the points about their mean),
 * as the piece between the outermost feet. Undefined for fewer than two points, or all in one place.
 */
export const lineToPoints = (
  points: readonly Point[],
): { readonly piece: Piece; readonly residuals: Residuals } | undefined => {
  if (points.length < 2) return undefined;
  const mean = meanOf(points);
  let [xx, xy, yy] = [0, 0, 0];
  for (const { x, y } of points) {
    const [u, v] = [x - mean.x, y - mean.y];
    xx += u * u;
    xy += u * v;
    yy += v * v;
  }
  if (xx + yy === 0) return undefined;
  const angle = Math.atan2(2 * xy, xx - yy) / 2;
  const [c, s] = [Math.cos(angle), Math.sin(angle)];
  const along = points.map(({ x, y }) => (x - mean.x) * c + (y - mean.y) * s);
  const least = along.reduce((low, t) => Math.min(low, t));
  const most = along.reduce((high, t) => Math.max(high, t));
  const first = along[0]! <= along.at(-1)! ? [least, most] : [most, least];
  const [a, b] = first.map((t) => ({ x: mean.x + t * c, y: mean.y + t * s }));
  return {
    piece: { a: a!, b: b!, bulge: 0 },
    residuals: residuals(points.map(({ x, y }) => -(x - mean.x) * s + (y - mean.y) * c)),
  };
};

/** Steps of Gauss and Newton; they settle in a few. */
const STEPS = 30;

/**
 * The circle with the least sum of squared distances: from the algebraic one (Kasa 1976, from memory) by Gauss and
 * Newton's steps on the distances themselves. Undefined for fewer than three points, or points in a line.
 */
export const circleToPoints = (
  points: readonly Point[],
): { readonly circle: Circle; readonly residuals: Residuals } | undefined => {
  if (points.length < 3) return undefined;
  const mean = meanOf(points);
  let [xx, xy, yy, xz, yz, z] = [0, 0, 0, 0, 0, 0];
  for (const p of points) {
    const [x, y] = [p.x - mean.x, p.y - mean.y];
    const square = x * x + y * y;
    xx += x * x;
    xy += x * y;
    yy += y * y;
    xz += x * square;
    yz += y * square;
    z += square;
  }
  const det = xx * yy - xy * xy;
  if (!(det > NEGLIGIBLE * (xx + yy) ** 2)) return undefined;
  let cx = (xz * yy - yz * xy) / (2 * det);
  let cy = (yz * xx - xz * xy) / (2 * det);
  let radius = Math.sqrt(cx * cx + cy * cy + z / points.length);
  const n = points.length;
  for (let step = 0; step < STEPS; step++) {
    // normal equations of d - r with the gradient of each distance: (-ux, -uy, -1)
    let [a, b, c, d, e, f, g, h] = [0, 0, 0, 0, 0, 0, 0, 0];
    for (const p of points) {
      const [x, y] = [p.x - mean.x - cx, p.y - mean.y - cy];
      const away = Math.sqrt(x * x + y * y) || Number.MIN_VALUE;
      const [ux, uy, off] = [x / away, y / away, away - radius];
      a += ux * ux;
      b += ux * uy;
      c += ux;
      d += uy * uy;
      e += uy;
      f += ux * off;
      g += uy * off;
      h += off;
    }
    const moved = solved(a, b, c, d, e, n, f, g, h);
    if (!moved) break;
    cx += moved[0];
    cy += moved[1];
    radius += moved[2];
    if (Math.abs(moved[0]) + Math.abs(moved[1]) + Math.abs(moved[2]) < SETTLED * radius) break;
  }
  const centre = { x: mean.x + cx, y: mean.y + cy };
  return { circle: { centre, radius }, residuals: residuals(points.map((p) => distance(p, centre) - radius)) };
};

/** Cramer's rule for the symmetric system (a b c, b d e, c e n) = (f, g, h). */
const solved = (
  a: number,
  b: number,
  c: number,
  d: number,
  e: number,
  n: number,
  f: number,
  g: number,
  h: number,
): readonly [number, number, number] | undefined => {
  const det = a * (d * n - e * e) - b * (b * n - e * c) + c * (b * e - d * c);
  if (Math.abs(det) < ROUNDING * n ** 3) return undefined;
  return [
    (f * (d * n - e * e) - b * (g * n - e * h) + c * (g * e - d * h)) / det,
    (a * (g * n - e * h) - f * (b * n - e * c) + c * (b * h - g * c)) / det,
    (a * (d * h - g * e) - b * (b * h - g * c) + f * (b * e - d * c)) / det,
  ];
};

/** The part of the fitted circle from the first point to the last, through those between. */
export const arcToPoints = (
  points: readonly Point[],
): { readonly piece: Piece; readonly residuals: Residuals } | undefined => {
  const fitted = circleToPoints(points);
  if (!fitted) return undefined;
  const { centre, radius } = fitted.circle;
  const angles = points.map(({ x, y }) => Math.atan2(y - centre.y, x - centre.x));
  let sweep = 0;
  angles.slice(1).forEach((angle, i) => {
    const turn = angle - angles[i]!;
    sweep += turn - 2 * Math.PI * Math.round(turn / (2 * Math.PI));
  });
  if (sweep === 0 || Math.abs(sweep) > MOST_SWEEP) return undefined;
  const on = (angle: number): Point => ({
    x: centre.x + radius * Math.cos(angle),
    y: centre.y + radius * Math.sin(angle),
  });
  return {
    piece: { a: on(angles[0]!), b: on(angles.at(-1)!), bulge: Math.tan(sweep / 4) },
    residuals: fitted.residuals,
  };
};

/** Points that go on round farther than this (radians) are a circle. */
const MOST_SWEEP = 6.2;
