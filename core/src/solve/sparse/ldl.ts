import { minimumDegree } from "./minimumDegree.ts";

/** A symmetric matrix taken apart as L D Lᵀ. */
export type Factors = {
  /** The unknowns to a right side. */
  readonly solve: (right: Float64Array) => Float64Array;
};

/** A symmetric pattern made ready once, to be taken apart with many values. */
export type Factoring = {
  /** `values` stand in the order of the pattern's places; undefined where they are no finite numbers. */
  readonly factor: (values: Float64Array) => Factors | undefined;
};

const NONE = -1;
/** A pivot is nothing but rounding when it is no larger than this part of what it is the difference of. */
const ROUNDED = 1e-13;
/** What stands for such a pivot: its unknown comes out as 0. */
const DROPPED = 1e30;

/**
 * The first unknowns as they come, as nothing fills in among them; then the others, those that share one of the first
 * beside each other.
 */
const orderOf = (size: number, rows: Int32Array, columns: Int32Array, first: number): Int32Array => {
  const cliques = Array.from({ length: first }, (): number[] => []);
  for (let k = 0; k < rows.length; k++)
    if (rows[k]! < first && columns[k]! >= first) cliques[rows[k]!]!.push(columns[k]! - first);
  const order = new Int32Array(size);
  for (let i = 0; i < first; i++) order[i] = i;
  minimumDegree(size - first, cliques).forEach((i, k) => void (order[first + k] = first + i));
  return order;
};

/**
 * Makes a symmetric pattern ready: `rows[k] <= columns[k]` are its places on and above the diagonal, each diagonal
 * place among them; places named twice add up. Up-looking L D Lᵀ along the elimination tree, without pivoting: for
 * quasi-definite matrices (Vanderbei 1995) [W Jᵀ; J -λ] with W and λ diagonal, the first `positive` unknowns being
 * those of W. A row that follows from others leaves nothing but rounding as its pivot: its unknown is left out. Time
 * and room as the fill.
 */
export const factoring = (size: number, rows: Int32Array, columns: Int32Array, positive: number): Factoring => {
  const order = orderOf(size, rows, columns, positive);
  const at = new Int32Array(size);
  order.forEach((i, k) => void (at[i] = k));
  // the upper triangle by columns, in the new order
  const starts = new Int32Array(size + 1);
  const target = new Int32Array(rows.length);
  for (let k = 0; k < rows.length; k++) starts[Math.max(at[rows[k]!]!, at[columns[k]!]!) + 1]!++;
  for (let j = 0; j < size; j++) starts[j + 1]! += starts[j]!;
  const fill = starts.slice();
  const upper = new Int32Array(rows.length);
  for (let k = 0; k < rows.length; k++) {
    const [p, q] = [at[rows[k]!]!, at[columns[k]!]!];
    const place = fill[Math.max(p, q)]!++;
    target[k] = place;
    upper[place] = Math.min(p, q);
  }
  // the elimination tree and how many entries each column of L has
  const parents = new Int32Array(size).fill(NONE);
  const seen = new Int32Array(size).fill(NONE);
  const counts = new Int32Array(size);
  for (let j = 0; j < size; j++) {
    seen[j] = j;
    for (let k = starts[j]!; k < starts[j + 1]!; k++)
      for (let i = upper[k]!; seen[i] !== j; i = parents[i]!) {
        if (parents[i] === NONE) parents[i] = j;
        counts[i]!++;
        seen[i] = j;
      }
  }
  const heads = new Int32Array(size + 1);
  for (let j = 0; j < size; j++) heads[j + 1] = heads[j]! + counts[j]!;

  const factor = (values: Float64Array): Factors | undefined => {
    const own = new Float64Array(values.length);
    for (let k = 0; k < values.length; k++) own[target[k]!]! += values[k]!;
    const [lower, below] = [new Float64Array(heads[size]!), new Int32Array(heads[size]!)];
    const diagonal = new Float64Array(size);
    const filled = new Int32Array(size);
    const work = new Float64Array(size);
    const path = new Int32Array(size);
    const marked = new Int32Array(size).fill(NONE);
    const stack = new Int32Array(size);
    for (let j = 0; j < size; j++) {
      let top = size;
      marked[j] = j;
      for (let k = starts[j]!; k < starts[j + 1]!; k++) {
        let i = upper[k]!;
        work[i]! += own[k]!;
        let length = 0;
        for (; marked[i] !== j; i = parents[i]!) {
          path[length++] = i;
          marked[i] = j;
        }
        while (length > 0) stack[--top] = path[--length]!;
      }
      let pivot = work[j]!;
      let mass = Math.abs(pivot);
      work[j] = 0;
      for (; top < size; top++) {
        const i = stack[top]!;
        const value = work[i]!;
        work[i] = 0;
        const end = heads[i]! + filled[i]!;
        for (let k = heads[i]!; k < end; k++) work[below[k]!]! -= lower[k]! * value;
        const part = value / diagonal[i]!;
        pivot -= part * value;
        mass += Math.abs(part * value);
        below[end] = j;
        lower[end] = part;
        filled[i]!++;
      }
      if (!Number.isFinite(pivot)) return undefined;
      const sign = order[j]! < positive ? 1 : -1;
      if (sign * pivot <= ROUNDED * mass) pivot = sign * DROPPED;
      diagonal[j] = pivot;
    }
    const solve = (right: Float64Array): Float64Array => {
      const x = new Float64Array(size);
      for (let k = 0; k < size; k++) x[k] = right[order[k]!]!;
      for (let j = 0; j < size; j++) for (let k = heads[j]!; k < heads[j + 1]!; k++) x[below[k]!]! -= lower[k]! * x[j]!;
      for (let j = 0; j < size; j++) x[j]! /= diagonal[j]!;
      for (let j = size - 1; j >= 0; j--)
        for (let k = heads[j]!; k < heads[j + 1]!; k++) x[j]! -= lower[k]! * x[below[k]!]!;
      const out = new Float64Array(size);
      for (let k = 0; k < size; k++) out[order[k]!] = x[k]!;
      return out;
    };
    return { solve };
  };
  return { factor };
};
