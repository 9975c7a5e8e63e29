import { minimumDegree } from "./minimumDegree.ts";

/** A row of a sparse matrix. */
export type Row = { readonly at: readonly number[]; readonly by: readonly number[] };

/** Rows taken in one after the other. */
export type Rank = {
  /** True where the row does not follow from those taken in before; it counts from then on. */
  readonly add: (row: Row) => boolean;
  readonly count: () => number;
};

/** What is left of a row of length 1 when it follows from the others: rounding. */
const FOLLOWS = 1e-9;

/** A row that is kept, by its first column's value and its others, in any order. */
type Kept = { first: number; readonly columns: number[]; readonly values: number[] };

/** Takes the least number out of a heap; puts one in. */
const put = (heap: number[], value: number): void => {
  heap.push(value);
  for (let i = heap.length - 1; i > 0;) {
    const up = (i - 1) >> 1;
    if (heap[up]! <= heap[i]!) break;
    [heap[up], heap[i]] = [heap[i]!, heap[up]!];
    i = up;
  }
};
const take = (heap: number[]): number => {
  const first = heap[0]!;
  const last = heap.pop()!;
  if (heap.length === 0) return first;
  heap[0] = last;
  for (let i = 0; ;) {
    let child = 2 * i + 1;
    if (child >= heap.length) return first;
    if (child + 1 < heap.length && heap[child + 1]! < heap[child]!) child++;
    if (heap[i]! <= heap[child]!) return first;
    [heap[child], heap[i]] = [heap[i]!, heap[child]!];
    i = child;
  }
};

/**
 * Which of some rows over `width` unknowns are independent, in the order in which they come: QR by rows with Givens'
 * rotations, each row at length 1, its columns in an order in which little fills in for the rows that are `expected`.
 * Taking one in costs what it meets.
 */
export const rankOf = (width: number, expected: readonly Row[]): Rank => {
  const order = minimumDegree(
    width,
    expected.map(({ at }) => at),
  );
  const placeOf = new Int32Array(width);
  order.forEach((i, k) => void (placeOf[i] = k));
  const kept = new Map<number, Kept>();
  const work = new Float64Array(width);
  const waiting = new Uint8Array(width);
  const seen = new Int32Array(width).fill(-1);
  let turns = 0;

  const add = ({ at, by }: Row): boolean => {
    const length = Math.sqrt(by.reduce((sum, value) => sum + value * value, 0));
    if (!(length > 0)) return false;
    const heap: number[] = [];
    const wait = (column: number): void => {
      if (waiting[column]) return;
      waiting[column] = 1;
      put(heap, column);
    };
    at.forEach((i, k) => {
      const column = placeOf[i]!;
      work[column]! += by[k]! / length;
      wait(column);
    });
    while (heap.length > 0) {
      const column = take(heap);
      waiting[column] = 0;
      const value = work[column]!;
      work[column] = 0;
      if (Math.abs(value) <= FOLLOWS) continue;
      const other = kept.get(column);
      if (!other) {
        const columns = heap.filter((one) => work[one] !== 0);
        kept.set(column, { first: value, columns, values: columns.map((one) => work[one]!) });
        for (const one of heap) {
          work[one] = 0;
          waiting[one] = 0;
        }
        return true;
      }
      const r = Math.hypot(other.first, value);
      const [c, s] = [other.first / r, value / r];
      const { columns, values } = other;
      other.first = r;
      turns++;
      const former = columns.length;
      for (let k = 0; k < former; k++) {
        const one = columns[k]!;
        seen[one] = turns;
        const [p, q] = [values[k]!, work[one]!];
        values[k] = c * p + s * q;
        work[one] = c * q - s * p;
        if (p !== 0) wait(one);
      }
      for (const one of heap) {
        const q = work[one]!;
        if (seen[one] === turns || q === 0) continue;
        columns.push(one);
        values.push(s * q);
        work[one] = c * q;
      }
    }
    return false;
  };
  return { add, count: () => kept.size };
};
