import { lackOf, type Equation } from "./equations.ts";
import type { Merged } from "./merged.ts";
import { linAt } from "./lin.ts";
import { factoring, type Factoring } from "./sparse/ldl.ts";
import type { Row } from "./sparse/rank.ts";

/** Equations made ready once, to be solved from anywhere. */
export type Plan = {
  readonly merged: Merged;
  readonly every: readonly Compiled[];
  /** Those between what is not given. */
  readonly parts: readonly Compiled[];
  readonly rows: Int32Array;
  readonly columns: Int32Array;
  readonly ready: Factoring;
};

/** What is looked for: values near `wanted`, each held there by its weight, at which all equations hold. */
export type Problem = {
  readonly plan: Plan;
  readonly wanted: ArrayLike<number>;
  readonly weights: ArrayLike<number>;
};

/** Values of all unknowns, and the most that an equation lacks there. */
export type Settled = { readonly x: Float64Array; readonly lack: number };

/** Equations hold within this part of the size of the drawing. */
export const HOLDS = 1e-12;
/** Steps until it is given up. */
const MOST_STEPS = 60;
/** What is wanted draws no more once that moves less than this, or after so many steps, where little lacks. */
const [DRAWN, MOST_DRAWN, NEAR] = [1e-5, 10, 1e-7];
/**
 * How much equations give is this times the squares of what lacks (Yamashita and Fukushima 2001): where some follow
 * from others, so that they nearly fight while they don't hold yet, a step stays short; at the end it is Newton's.
 */
const [FIRST_GIVE, MOST_GIVE] = [1e-2, 1e8];
/** They give no less than this. */
const LEAST_GIVE = 1e-13;
/** An equation moves nothing by more than this part of the size in one step. */
const LONGEST = 0.25;

const MOST_SUMS = 12;

/** An equation with its unknowns told by their numbers among those left. */
type Compiled = {
  readonly equation: Equation;
  readonly columns: Int32Array;
  /** For each sum and each unknown in it, at which of the columns its slope counts; -1 where it is given. */
  readonly slots: readonly Int32Array[];
};

const compiled = (equation: Equation, own: Int32Array): Compiled => {
  const columns: number[] = [];
  const slots = equation.of.map(({ at }) =>
    Int32Array.from(at, (i) => {
      const column = own[i]!;
      if (column < 0) return -1;
      const known = columns.indexOf(column);
      if (known >= 0) return known;
      columns.push(column);
      return columns.length - 1;
    }),
  );
  return { equation, columns: Int32Array.from(columns), slots };
};

const all = (merged: Merged, left: Float64Array, out: Float64Array): Float64Array => {
  for (let i = 0; i < out.length; i++) out[i] = merged.own[i]! < 0 ? merged.given[i]! : left[merged.own[i]!]!;
  return out;
};

/** What is between given numbers alone was found to hold as near as this. */
const AS_FOUND = 1e-8;

const mostOf = (parts: readonly Compiled[], x: Float64Array): number => {
  let most = 0;
  for (const { equation, columns } of parts) {
    const lack = Math.abs(lackOf(equation, x));
    if (columns.length > 0 || lack > AS_FOUND) most = Math.max(most, lack);
  }
  return most;
};

/** The rows of equations at some values, over the unknowns that are left. */
export const rowsOver = ({ own }: Merged, equations: readonly Equation[], x: ArrayLike<number>): readonly Row[] => {
  const sums = new Float64Array(MOST_SUMS);
  const slopes = new Float64Array(MOST_SUMS);
  return equations.map((equation) => {
    const { columns, slots } = compiled(equation, own);
    equation.of.forEach((lin, n) => void (sums[n] = linAt(lin, x)));
    equation.value(sums, slopes);
    const by = new Array<number>(columns.length).fill(0);
    equation.of.forEach((lin, n) =>
      slots[n]!.forEach((slot, i) => {
        if (slot >= 0) by[slot]! += slopes[n]! * lin.by[i]!;
      }),
    );
    return { at: [...columns], by };
  });
};

export const planOf = (merged: Merged): Plan => {
  const every = merged.equations.map((equation) => compiled(equation, merged.own));
  // between numbers that are given there is nothing to do
  const parts = every.filter(({ columns }) => columns.length > 0);
  const size = merged.count + parts.length;
  const [rows, columns]: [number[], number[]] = [[], []];
  for (let i = 0; i < size; i++) {
    rows.push(i);
    columns.push(i);
  }
  parts.forEach(({ columns: at }, k) => {
    for (const column of at) {
      rows.push(column);
      columns.push(merged.count + k);
    }
  });
  const pattern = { rows: Int32Array.from(rows), columns: Int32Array.from(columns) };
  return { merged, every, parts, ...pattern, ready: factoring(size, pattern.rows, pattern.columns, merged.count) };
};

/**
 * The values nearest to the wanted ones, by weighted squares, at which all equations hold: Levenberg's steps in the
 * form [W Jᵀ; J -λ], which is quasi-definite. `from` is where to begin. Equations that follow from others do no harm as
 * long as they agree; where they don't, or there is no way, `lack` stays.
 */
export const settle = ({ plan, wanted, weights }: Problem, from: ArrayLike<number>): Settled => {
  const { merged, every, parts, rows, columns, ready } = plan;
  const { own, count } = merged;
  const size = count + parts.length;
  // several that are one have one place to be drawn to
  const [weight, target, left] = [new Float64Array(count), new Float64Array(count), new Float64Array(count)];
  const shares = new Int32Array(count);
  for (let i = 0; i < own.length; i++) {
    const column = own[i]!;
    if (column < 0) continue;
    weight[column]! += weights[i]!;
    target[column]! += weights[i]! * wanted[i]!;
    left[column]! += from[i]!;
    shares[column]!++;
  }
  for (let c = 0; c < count; c++) {
    target[c]! /= weight[c]!;
    left[c]! /= shares[c]!;
  }
  const x = new Float64Array(own.length);
  all(merged, left, x);
  if (parts.length === 0 || count === 0) {
    if (count > 0) all(merged, target, x);
    return { x, lack: mostOf(every, x) };
  }
  const values = new Float64Array(rows.length);
  const sums = new Float64Array(MOST_SUMS);
  const slopes = new Float64Array(MOST_SUMS);
  const lacks = new Float64Array(parts.length);

  /** Puts the slopes at x into the matrix; the squares of what lacks. */
  const look = (at: Float64Array, writes: boolean): number => {
    let sum = 0;
    let place = size;
    parts.forEach(({ equation, columns: own, slots }, k) => {
      equation.of.forEach(({ at: unknowns, by, plus }, n) => {
        let value = plus;
        for (let i = 0; i < unknowns.length; i++) value += by[i]! * at[unknowns[i]!]!;
        sums[n] = value;
      });
      const lack = equation.value(sums, slopes);
      sum += lack * lack;
      if (!writes) return;
      lacks[k] = lack;
      values.fill(0, place, place + own.length);
      equation.of.forEach(({ by }, n) => {
        const slot = slots[n]!;
        for (let i = 0; i < slot.length; i++) if (slot[i]! >= 0) values[place + slot[i]!]! += slopes[n]! * by[i]!;
      });
      place += own.length;
    });
    return sum;
  };

  const trial = new Float64Array(own.length);
  const next = new Float64Array(count);
  let give = FIRST_GIVE;
  let squares = look(x, true);
  // first what is wanted draws, until that moves nothing any more; then only what lacks is made good
  let draws = true;
  let stood = 0;
  for (let step = 0; step < MOST_STEPS; step++) {
    const lack = Math.sqrt(squares);
    if (step >= MOST_DRAWN && lack < NEAR) draws = false;
    if (!draws && (lack < HOLDS * 1e-3 || stood > 2)) break;
    // for what little is missing at the end all unknowns weigh the same: that is told best
    for (let c = 0; c < count; c++) values[c] = draws ? weight[c]! : 1;
    const gives = Math.max(LEAST_GIVE, give * squares);
    for (let k = 0; k < parts.length; k++) values[count + k] = -gives;
    const factors = ready.factor(values);
    if (!factors) break;
    const right = new Float64Array(size);
    if (draws) for (let c = 0; c < count; c++) right[c] = weight[c]! * (target[c]! - left[c]!);
    for (let k = 0; k < parts.length; k++) right[count + k] = -lacks[k]!;
    const move = factors.solve(right);
    // once refined: what the factors' rounding left
    const rest = right.slice();
    for (let k = 0; k < rows.length; k++) {
      const [i, j] = [rows[k]!, columns[k]!];
      rest[i]! -= values[k]! * move[j]!;
      if (i !== j) rest[j]! -= values[k]! * move[i]!;
    }
    const better = factors.solve(rest);
    let most = 0;
    for (let c = 0; c < count; c++) {
      move[c]! += better[c]!;
      most = Math.max(most, Math.abs(move[c]!));
    }
    if (!Number.isFinite(most)) break;
    const part = Math.min(1, LONGEST / most);
    for (let c = 0; c < count; c++) next[c] = left[c]! + part * move[c]!;
    all(merged, next, trial);
    const then = look(trial, false);
    // what draws may raise what lacks a little, while that is small beside the step
    if (then < squares || (draws && Math.sqrt(then) < 0.5 * most * part)) {
      stood = then < 0.25 * squares ? 0 : stood + 1;
      left.set(next);
      x.set(trial);
      squares = look(x, true);
      give = Math.max(FIRST_GIVE, give / 10);
      if (draws && most < DRAWN && Math.sqrt(squares) < NEAR) {
        draws = false;
        stood = 0;
      }
    } else if (!draws) break;
    else if (lack < NEAR) {
      draws = false;
      stood = 0;
    } else {
      give *= 10;
      if (give > MOST_GIVE) break;
    }
  }
  return { x, lack: mostOf(every, x) };
};
