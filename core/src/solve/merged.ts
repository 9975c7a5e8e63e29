import type { Equation } from "./equations.ts";
import type { Lin } from "./lin.ts";

/**
 * Unknowns that are one number by what ties them, or a number that is given: fewer are left to be solved, and the same
 * numbers come out by construction.
 */
export type Merged = {
  /** Of each unknown, which of those left it is; -1 where it is given. */
  readonly own: Int32Array;
  readonly count: number;
  /** What those that are given are. */
  readonly given: Float64Array;
  /** The equations that are left. */
  readonly equations: readonly Equation[];
};

const GIVEN = -1;

const oneOf = ({ at, by, plus }: Lin): number | undefined =>
  at.length === 1 && by[0] === 1 && plus === 0 ? at[0] : undefined;

/** Merges what `equations` tie, and gives `fixed` unknowns their numbers (NaN: not fixed). */
export const merged = (count: number, equations: readonly Equation[], fixed: Float64Array): Merged => {
  const parents = Int32Array.from({ length: count }, (_, i) => i);
  const values = fixed.slice();
  const rootOf = (i: number): number => {
    let root = i;
    while (parents[root] !== root) root = parents[root]!;
    while (parents[i] !== root) [parents[i], i] = [root, parents[i]!];
    return root;
  };
  const left: Equation[] = [];
  for (const equation of equations) {
    const { ties } = equation;
    const [p, q] = ties ? [oneOf(ties[0]), oneOf(ties[1])] : [];
    if (!ties || (p === undefined && ties[0].at.length > 0) || (q === undefined && ties[1].at.length > 0)) {
      left.push(equation);
      continue;
    }
    const one = p === undefined ? undefined : rootOf(p);
    const other = q === undefined ? undefined : rootOf(q);
    if (one === undefined && other === undefined) {
      left.push(equation);
      continue;
    }
    if (one === other) continue;
    const a = one === undefined ? ties[0].plus : values[one]!;
    const b = other === undefined ? ties[1].plus : values[other]!;
    // two different numbers: that can't be, and is left to be found out
    if (!Number.isNaN(a) && !Number.isNaN(b) && a !== b) {
      left.push(equation);
      continue;
    }
    const value = Number.isNaN(a) ? b : a;
    if (one !== undefined && other !== undefined) parents[Math.max(one, other)] = Math.min(one, other);
    values[Math.min(one ?? Infinity, other ?? Infinity)] = value;
  }
  const own = new Int32Array(count).fill(GIVEN);
  const given = new Float64Array(count).fill(NaN);
  const numbers = new Map<number, number>();
  for (let i = 0; i < count; i++) {
    const root = rootOf(i);
    if (!Number.isNaN(values[root]!)) {
      given[i] = values[root]!;
      continue;
    }
    if (!numbers.has(root)) numbers.set(root, numbers.size);
    own[i] = numbers.get(root)!;
  }
  return { own, count: numbers.size, given, equations: left };
};
