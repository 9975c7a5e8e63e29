import type { Point } from "../../geometry/point.ts";

/** The circle nearest to a run of points, and the sum of their squared distances from it. */
export type RoundFit = { readonly rss: number; readonly centre: Point; readonly radius: number };

/** What any run of points (from, up to but without to) says of lines and circles, in a time that is always the same. */
export type Moments = {
  /** How many of its points count. */
  readonly weight: (from: number, to: number) => number;
  readonly line: (from: number, to: number) => number;
  readonly round: (from: number, to: number) => RoundFit | undefined;
  readonly sums: (from: number, to: number) => Sums;
};

const SUMS = 9; // w, x, y, xx, xy, yy, xz, yz, zz with z = x² + y²

/** Newton's steps from 0 rise to the least root; they settle in a few. */
const MOST_STEPS = 20;
/** A circle so much wider than its points (lengths are about 1) is a line. */
const WIDEST = 1e4;

/** Sums of w, x, y, xx, xy, yy, xz, yz, zz over points, z = x² + y²; those of two runs together are their sums. */
export type Sums = Float64Array;

/**
 * The sum of the squared distances of points from the line nearest to them: the smaller eigenvalue of their moments.
 */
export const lineRss = (run: Sums): number => {
  const [w, x, y, xx, xy, yy] = run as unknown as [number, number, number, number, number, number];
  if (w < 2) return 0;
  const [a, b, c] = [xx - (x * x) / w, xy - (x * y) / w, yy - (y * y) / w];
  return Math.max(0, (a + c - Math.hypot(a - c, 2 * b)) / 2);
};

/**
 * The circle nearest to points by Taubin's fit (IEEE PAMI 13, 1991, from memory), by Newton's steps from 0; undefined
 * where the points say nothing of a circle: too few, or as good as in a line.
 */
export const roundOf = (run: Sums): RoundFit | undefined => {
  const w = run[0]!;
  if (w < 3) return undefined;
  const mx = run[1]! / w;
  const my = run[2]! / w;
  const [sxx, sxy, syy] = [run[3]! / w, run[4]! / w, run[5]! / w];
  const [sxz, syz, szz] = [run[6]! / w, run[7]! / w, run[8]! / w];
  const square = mx * mx + my * my;
  const sz = sxx + syy;
  // about the mean, z' = z - 2 (mx x + my y) + square
  const [xx, xy, yy] = [sxx - mx * mx, sxy - mx * my, syy - my * my];
  const z = xx + yy;
  const xz = sxz - 2 * mx * sxx - 2 * my * sxy + square * mx - mx * z;
  const yz = syz - 2 * mx * sxy - 2 * my * syy + square * my - my * z;
  const zz =
    szz +
    4 * (mx * mx * sxx + my * my * syy + 2 * mx * my * sxy) +
    square * square -
    4 * (mx * sxz + my * syz) +
    2 * square * sz -
    4 * square * square;
  const covariance = xx * yy - xy * xy;
  const variance = zz - z * z;
  const a3 = 4 * z;
  const a2 = -3 * z * z - zz;
  const a1 = variance * z + 4 * covariance * z - xz * xz - yz * yz;
  const a0 = xz * (xz * yy - yz * xy) + yz * (yz * xx - xz * xy) - variance * covariance;
  let root = 0;
  for (let step = 0; step < MOST_STEPS; step++) {
    const value = a0 + root * (a1 + root * (a2 + root * a3));
    const slope = a1 + root * (2 * a2 + root * 3 * a3);
    const next = root - value / slope;
    if (!Number.isFinite(next) || next < 0 || Math.abs(next - root) <= 1e-12 * Math.abs(next)) break;
    root = next;
  }
  const det = 2 * (root * root - root * z + covariance);
  if (det === 0) return undefined;
  const cx = (xz * (yy - root) - yz * xy) / det;
  const cy = (yz * (xx - root) - xz * xy) / det;
  const radius = Math.sqrt(cx * cx + cy * cy + z);
  if (!(radius < WIDEST)) return undefined;
  return { rss: Math.max(0, root) * w, centre: { x: mx + cx, y: my + cy }, radius };
};

/**
 * Sums over the points up to each, so that those of any run are a difference. The points lie within about 1 of the
 * origin; `counts` is 0 for those that are to say nothing.
 */
export const momentsOf = (points: readonly Point[], counts: Uint8Array): Moments => {
  const sums = new Float64Array(SUMS * (points.length + 1));
  points.forEach(({ x, y }, i) => {
    const z = x * x + y * y;
    const own = counts[i] === 0 ? undefined : [1, x, y, x * x, x * y, y * y, x * z, y * z, z * z];
    for (let k = 0; k < SUMS; k++) sums[SUMS * (i + 1) + k] = sums[SUMS * i + k]! + (own?.[k] ?? 0);
  });
  const run = new Float64Array(SUMS);
  const read = (from: number, to: number): Sums => {
    for (let k = 0; k < SUMS; k++) run[k] = sums[SUMS * to + k]! - sums[SUMS * from + k]!;
    return run;
  };
  return {
    weight: (from, to) => sums[SUMS * to]! - sums[SUMS * from]!,
    line: (from, to) => lineRss(read(from, to)),
    round: (from, to) => roundOf(read(from, to)),
    sums: (from, to) => read(from, to).slice(),
  };
};
