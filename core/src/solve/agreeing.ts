import { rowOf, type Equation } from "./equations.ts";
import { factoring, type Factors } from "./sparse/ldl.ts";
import { rankOf, type Row } from "./sparse/rank.ts";

/** Some equations that stand or go together; `from` is what they come from. */
export type Group<T> = { readonly from: T; readonly equations: readonly Equation[]; readonly mayGo: boolean };

/**
 * Which groups can hold together with those before them, to first order. What can't and may not go is at odds, with the
 * fewest of those before it that it fights: all of them but one would agree.
 */
export type Agreed<T> = {
  readonly kept: readonly T[];
  readonly gone: readonly T[];
  readonly atOdds: readonly { readonly one: T; readonly with: readonly T[] }[];
};

/** A row that follows from those before it asks for another change than they make when they differ by this part. */
const DIFFERS = 1e-6;
/** Changes smaller than this are none, nor are those as small as what was taken for holding. */
const [NO_CHANGE, AS_FOUND] = [1e-8, 10];
/** A row has no share in another that follows where its part is smaller. */
const NO_SHARE = 1e-7;
/** Keeps the system of independent rows solvable. */
const SLACK = 1e-13;

/** The system [1 Jᵀ; J 0] of independent rows. */
const systemOf = (width: number, rows: readonly Row[]): Factors | undefined => {
  const [at, to, values]: [number[], number[], number[]] = [[], [], []];
  const put = (i: number, j: number, value: number): void => {
    at.push(i);
    to.push(j);
    values.push(value);
  };
  for (let i = 0; i < width; i++) put(i, i, 1);
  rows.forEach((row, k) => {
    put(width + k, width + k, -SLACK);
    row.at.forEach((i, n) => put(i, width + k, row.by[n]!));
  });
  return factoring(width + rows.length, Int32Array.from(at), Int32Array.from(to), width).factor(
    Float64Array.from(values),
  );
};

/** Rows in their order, those that follow from others told apart. */
export type Sorted = {
  readonly rows: readonly Row[];
  readonly lacks: readonly number[];
  /** Of which group each independent row is. */
  readonly groups: readonly number[];
  readonly following: readonly { readonly group: number; readonly row: Row; readonly lack: number }[];
};

type Told = readonly { readonly lack: number; readonly row: Row }[];

/** Each equation's row at some values, without the unknowns that are fixed. */
export const rowsOf = (equations: readonly Equation[], x: ArrayLike<number>, fixed: Float64Array): Told =>
  equations.map((equation) => {
    const { lack, row } = rowOf(equation, x);
    const stays = row.at.map((i) => Number.isNaN(fixed[i]!));
    return { lack, row: { at: row.at.filter((_, k) => stays[k]), by: row.by.filter((_, k) => stays[k]) } };
  });

const sorted = (width: number, told: readonly Told[], out: ReadonlySet<number>): Sorted => {
  const rank = rankOf(
    width,
    told.flatMap((own) => own.map(({ row }) => row)),
  );
  const [rows, lacks, groups]: [Row[], number[], number[]] = [[], [], []];
  const following: { readonly group: number; readonly row: Row; readonly lack: number }[] = [];
  told.forEach((own, group) => {
    if (out.has(group)) return;
    for (const { row, lack } of own) {
      if (row.at.length > 0 && rank.add(row)) {
        rows.push(row);
        lacks.push(lack);
        groups.push(group);
      } else following.push({ group, row, lack });
    }
  });
  return { rows, lacks, groups, following };
};

/** The groups whose rows a row that follows is made of: r = Σ c J, the parts by the system of all. */
const madeOf = (system: Factors | undefined, { rows, groups }: Sorted, width: number, row: Row): readonly number[] => {
  const right = new Float64Array(width + rows.length);
  row.at.forEach((i, n) => void (right[i]! += row.by[n]!));
  const parts = system?.solve(right);
  return parts ? [...new Set(groups.filter((_, k) => Math.abs(parts[width + k]!) > NO_SHARE))] : [];
};

/**
 * Goes through groups in their order, at values at which all but the first few hold: a group that follows from those
 * before it, and would have to change otherwise than it may, goes, if it may go. `fixed` unknowns don't count; `near`
 * is how nearly what was found holds.
 */
export const agreeing = <T>(
  width: number,
  x: ArrayLike<number>,
  fixed: Float64Array,
  groups: readonly Group<T>[],
  near: number,
): Agreed<T> => {
  const none = Math.max(NO_CHANGE, AS_FOUND * near);
  const told = groups.map(({ equations }) => rowsOf(equations, x, fixed));
  const out = new Set<number>();
  for (;;) {
    const now = sorted(width, told, out);
    const right = new Float64Array(width + now.rows.length);
    let most = none;
    now.lacks.forEach((lack, k) => {
      right[width + k] = -lack;
      most = Math.max(most, Math.abs(lack));
    });
    const system = systemOf(width, now.rows);
    const change = system?.solve(right) ?? right;
    const wrong = new Map<number, Row>();
    for (const { group, row, lack } of now.following) {
      const does = row.at.reduce((sum, i, n) => sum + row.by[n]! * change[i]!, lack);
      if (Math.abs(does) > DIFFERS * most + none) wrong.set(group, row);
    }
    const goes = [...wrong.keys()].filter((group) => groups[group]!.mayGo);
    if (goes.length > 0) {
      // single ones go together; of those that share several equations the strongest, as others may hold without it
      const several = goes.filter((group) => told[group]!.length > 1);
      for (const group of goes) if (told[group]!.length === 1 || group === several[0]) out.add(group);
      continue;
    }
    return {
      kept: groups.flatMap(({ from }, i) => (out.has(i) || wrong.has(i) ? [] : [from])),
      gone: groups.flatMap(({ from }, i) => (out.has(i) ? [from] : [])),
      atOdds: [...wrong].map(([group, row]) => ({
        one: groups[group]!.from,
        with: madeOf(system, now, width, row).map((k) => groups[k]!.from),
      })),
    };
  }
};

/** Which groups follow from those before them, and from which. */
export const followsFrom = <T>(
  width: number,
  x: ArrayLike<number>,
  fixed: Float64Array,
  groups: readonly Group<T>[],
): { readonly sorted: Sorted; readonly following: readonly { readonly one: T; readonly from: readonly T[] }[] } => {
  const told = groups.map(({ equations }) => rowsOf(equations, x, fixed));
  const now = sorted(width, told, new Set());
  // a group with a row of its own says something of its own
  const own = new Set(now.groups);
  const seen = new Set<number>();
  const system = now.following.length > 0 ? systemOf(width, now.rows) : undefined;
  const following = now.following.flatMap(({ group, row }) => {
    if (own.has(group) || seen.has(group) || row.at.length === 0) return [];
    seen.add(group);
    return [{ one: groups[group]!.from, from: madeOf(system, now, width, row).map((k) => groups[k]!.from) }];
  });
  return { sorted: now, following };
};
