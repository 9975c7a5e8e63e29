import { TURN } from "../numeric/angle.ts";
import { constant, linAt, type Lin, type Spot } from "./lin.ts";
import type { Row } from "./sparse/rank.ts";

/**
 * Something that is to be 0: a length, with slopes of order 1. `of` are the sums that it speaks of; `value` is told
 * what they come to, and writes down how it changes with each.
 */
export type Equation = {
  readonly of: readonly Lin[];
  readonly value: (u: Float64Array, slopes: Float64Array) => number;
  /** Two that are to be one and the same number. */
  readonly ties?: readonly [Lin, Lin];
};

const MOST_SUMS = 12;
const sums = new Float64Array(MOST_SUMS);
const slopes = new Float64Array(MOST_SUMS);

/** What an equation lacks at some values of the unknowns. */
export const lackOf = ({ of, value }: Equation, x: ArrayLike<number>): number => {
  of.forEach((lin, k) => void (sums[k] = linAt(lin, x)));
  return value(sums, slopes);
};

/** The same, with the row of its slopes; each unknown once. */
export const rowOf = ({ of, value }: Equation, x: ArrayLike<number>): { readonly lack: number; readonly row: Row } => {
  of.forEach((lin, k) => void (sums[k] = linAt(lin, x)));
  const lack = value(sums, slopes);
  const parts = new Map<number, number>();
  of.forEach((lin, k) => {
    lin.at.forEach((i, n) => void parts.set(i, (parts.get(i) ?? 0) + slopes[k]! * lin.by[n]!));
  });
  return { lack, row: { at: [...parts.keys()], by: [...parts.values()] } };
};

/** A sum is 0. */
export const vanishes = (lin: Lin): Equation => ({
  of: [lin],
  value: (u, d) => {
    d[0] = 1;
    return u[0]!;
  },
});

/** One sum is a part of another. */
export const agree = (p: Lin, q: Lin, k = 1): Equation => ({
  ...(k === 1 ? { ties: [p, q] } : {}),
  of: [p, q],
  value: (u, d) => {
    d[0] = 1;
    d[1] = -k;
    return u[0]! - k * u[1]!;
  },
});

/** Writes the slopes of something by the length and the direction of (x, y), which is q - p, at `at` and `at + 2`. */
const putEnds = (d: Float64Array, x: number, y: number): void => {
  d[0] = -x;
  d[1] = -y;
  d[2] = x;
  d[3] = y;
};

/** Two places are so far apart; `by` times what `far` comes to. */
export const apart = (p: Spot, q: Spot, far: Lin, by = 1): Equation => ({
  of: [p.x, p.y, q.x, q.y, far],
  value: (u, d) => {
    const [x, y] = [u[2]! - u[0]!, u[3]! - u[1]!];
    const length = Math.hypot(x, y);
    if (length > 0) putEnds(d, x / length, y / length);
    else putEnds(d, 1, 0);
    d[4] = -by;
    return length - by * u[4]!;
  },
});

/** A place lies so far to the left of the line through two others, `by` times what `far` comes to. */
export const beside = (a: Spot, b: Spot, p: Spot, far: Lin, by = 1): Equation => ({
  of: [a.x, a.y, b.x, b.y, p.x, p.y, far],
  value: (u, d) => {
    const [x, y] = [u[2]! - u[0]!, u[3]! - u[1]!];
    const [v, w] = [u[4]! - u[0]!, u[5]! - u[1]!];
    const length = Math.hypot(x, y) || 1;
    const cross = x * w - y * v;
    const [byX, byY] = [w / length - (cross * x) / length ** 3, -v / length - (cross * y) / length ** 3];
    const [ownX, ownY] = [-y / length, x / length];
    d[0] = -byX - ownX;
    d[1] = -byY - ownY;
    d[2] = byX;
    d[3] = byY;
    d[4] = ownX;
    d[5] = ownY;
    d[6] = -by;
    return cross / length - by * u[6]!;
  },
});

/** The centre of an arc stands square over the end `e` of the line through `a` and `b`: they touch there. */
export const squareOver = (a: Spot, b: Spot, centre: Spot, e: Spot): Equation => ({
  of: [a.x, a.y, b.x, b.y, centre.x, centre.y, e.x, e.y],
  value: (u, d) => {
    const [x, y] = [u[2]! - u[0]!, u[3]! - u[1]!];
    const [v, w] = [u[4]! - u[6]!, u[5]! - u[7]!];
    const length = Math.hypot(x, y) || 1;
    const dot = x * v + y * w;
    const [byX, byY] = [v / length - (dot * x) / length ** 3, w / length - (dot * y) / length ** 3];
    d[0] = -byX;
    d[1] = -byY;
    d[2] = byX;
    d[3] = byY;
    d[4] = x / length;
    d[5] = y / length;
    d[6] = -d[4];
    d[7] = -d[5];
    return dot / length;
  },
});

/** An end that two arcs share lies in line with both centres, over the larger radius: they touch there. */
export const inLine = (one: Spot, other: Spot, e: Spot, larger: number): Equation => ({
  of: [one.x, one.y, other.x, other.y, e.x, e.y],
  value: (u, d) => {
    const [px, py, qx, qy] = [u[0]! - u[4]!, u[1]! - u[5]!, u[2]! - u[4]!, u[3]! - u[5]!];
    d[0] = qy / larger;
    d[1] = -qx / larger;
    d[2] = -py / larger;
    d[3] = px / larger;
    d[4] = -d[0] - d[2];
    d[5] = -d[1] - d[3];
    return (px * qy - py * qx) / larger;
  },
});

/** The direction of a line made by two places is turned by `angle` from another's, modulo `period`; times a length. */
export const turnedBy = (
  [a, b]: readonly [Spot, Spot],
  [p, q]: readonly [Spot, Spot],
  angle: number,
  period: number,
  length: number,
): Equation => ({
  of: [a.x, a.y, b.x, b.y, p.x, p.y, q.x, q.y],
  value: (u, d) => {
    const [x, y, v, w] = [u[2]! - u[0]!, u[3]! - u[1]!, u[6]! - u[4]!, u[7]! - u[5]!];
    const [one, other] = [x * x + y * y || 1, v * v + w * w || 1];
    d[2] = (length * y) / one;
    d[3] = (-length * x) / one;
    d[0] = -d[2];
    d[1] = -d[3];
    d[6] = (-length * w) / other;
    d[7] = (length * v) / other;
    d[4] = -d[6];
    d[5] = -d[7];
    const off = Math.atan2(w, v) - Math.atan2(y, x) - angle;
    return length * (off - period * Math.round(off / period));
  },
});

/** The length of an arc from `a` to `b` about a centre, one way round or the other; `near` tells how often round. */
export const along = (a: Spot, b: Spot, centre: Spot, radius: Lin, way: number, near: number, far: Lin): Equation => ({
  of: [a.x, a.y, b.x, b.y, centre.x, centre.y, radius, far],
  value: (u, d) => {
    const [px, py, qx, qy] = [u[0]! - u[4]!, u[1]! - u[5]!, u[2]! - u[4]!, u[3]! - u[5]!];
    const [p, q] = [px * px + py * py || 1, qx * qx + qy * qy || 1];
    const raw = way * (Math.atan2(qy, qx) - Math.atan2(py, px));
    const sweep = raw + TURN * Math.round((near - raw) / TURN);
    const r = u[6]!;
    d[0] = (way * r * py) / p;
    d[1] = (-way * r * px) / p;
    d[2] = (-way * r * qy) / q;
    d[3] = (way * r * qx) / q;
    d[4] = -d[0] - d[2];
    d[5] = -d[1] - d[3];
    d[6] = sweep;
    d[7] = -1;
    return r * sweep - u[7]!;
  },
});

export const NOUGHT: Lin = constant(0);
