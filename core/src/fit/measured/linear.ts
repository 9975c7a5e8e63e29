/** A square matrix taken apart, row after row, to solve with: Gauss with the largest pivot of each column. */
export type Factors = { readonly rows: Float64Array; readonly order: Int32Array; readonly size: number };

/** Pivots below this part of the largest entry are none. */
const NO_PIVOT = 1e-300;

/** Undefined where the matrix is singular. */
export const factored = (matrix: Float64Array, size: number): Factors | undefined => {
  const rows = matrix.slice();
  const order = Int32Array.from({ length: size }, (_, i) => i);
  for (let k = 0; k < size; k++) {
    let best = k;
    for (let i = k + 1; i < size; i++) if (Math.abs(rows[i * size + k]!) > Math.abs(rows[best * size + k]!)) best = i;
    const pivot = rows[best * size + k]!;
    if (!(Math.abs(pivot) > NO_PIVOT)) return undefined;
    if (best !== k) {
      for (let j = 0; j < size; j++) {
        const kept = rows[k * size + j]!;
        rows[k * size + j] = rows[best * size + j]!;
        rows[best * size + j] = kept;
      }
      const kept = order[k]!;
      order[k] = order[best]!;
      order[best] = kept;
    }
    for (let i = k + 1; i < size; i++) {
      const part = (rows[i * size + k]! /= pivot);
      if (part !== 0) for (let j = k + 1; j < size; j++) rows[i * size + j]! -= part * rows[k * size + j]!;
    }
  }
  return { rows, order, size };
};

export const solvedFor = ({ rows, order, size }: Factors, right: Float64Array): Float64Array => {
  const out = Float64Array.from(order, (i) => right[i]!);
  for (let i = 1; i < size; i++) for (let j = 0; j < i; j++) out[i]! -= rows[i * size + j]! * out[j]!;
  for (let i = size - 1; i >= 0; i--) {
    for (let j = i + 1; j < size; j++) out[i]! -= rows[i * size + j]! * out[j]!;
    out[i]! /= rows[i * size + i]!;
  }
  return out;
};
