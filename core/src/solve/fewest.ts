import type { Equation } from "./equations.ts";
import { merged } from "./merged.ts";
import { HOLDS, planOf, rowsOver, settle, type Problem, type Settled } from "./settle.ts";
import { rankOf } from "./sparse/rank.ts";

/** What is solved: what is wanted of each unknown, how much by, and what must hold. */
export type Task = {
  readonly wanted: Float64Array;
  readonly weights: Float64Array;
  readonly equations: readonly Equation[];
  /** Unknowns that stay, by their numbers; NaN for those that are free. */
  readonly fixed: Float64Array;
  /** Directions that stay as long as they can, the most meant first. */
  readonly directions?: readonly Equation[];
};

/** What is weighed less hardly counts: flat arcs' centres, helps. */
const HARDLY = 0.1;
/** What moves less than this stays. */
const STAYS = 1e-7;
/** Between what stays and what moves equations hold as nearly as they were drawn: the residual of constructions. */
const AS_DRAWN = 1e-9;
/** Starts elsewhere, this far off, where the way from what is drawn leads nowhere. */
const JITTERS = [1e-3, 1e-2, 1e-2];

const problem = ({ wanted, weights, equations, fixed }: Task): Problem => ({
  plan: planOf(merged(wanted.length, equations, fixed)),
  wanted,
  weights,
});

/** True where all that was asked holds. */
export const holds = ({ lack }: Settled): boolean => lack <= HOLDS;

/** The nearest values at which all holds, by squares; from some starts near by where the first leads nowhere. */
export const nearest = (task: Task, from: ArrayLike<number> = task.wanted): Settled => {
  const own = problem(task);
  let best = settle(own, from);
  let seed = 1;
  for (const jitter of JITTERS) {
    if (holds(best)) break;
    const start = Float64Array.from(task.wanted, (value) => {
      seed = (seed * 48271) % 2147483647;
      return value + jitter * ((2 * seed) / 2147483647 - 1);
    });
    const again = settle(own, start);
    if (again.lack < best.lack) best = again;
  }
  return best;
};

/**
 * Values at which all holds and the fewest things differ from what is wanted; those stay to the bit. One after the
 * other directions are held, then unknowns where they are, as long as the rank of the equations leaves the rest a way:
 * first those that most things share, and what lies near the datum before what lies far from it. Without directions a
 * part that lies aslant would turn rather than grow along its own edges.
 */
export const fewest = (task: Task, near: Settled): Settled => {
  const { wanted, weights, directions = [] } = task;
  const own = problem(task);
  const { own: columns, count } = own.plan.merged;
  // what several unknowns are counts for all of them
  const weight = new Float64Array(count);
  const hardly = new Uint8Array(count).fill(1);
  columns.forEach((column, i) => {
    if (column < 0) return;
    weight[column]! += weights[i]!;
    if (weights[i]! > HARDLY) hardly[column] = 0;
  });
  const order = [...weight.keys()].sort((p, q) => hardly[p]! - hardly[q]! || weight[q]! - weight[p]! || p - q);
  const { merged: left } = own.plan;
  const rows = rowsOver(left, left.equations, near.x);
  const turns = rowsOver(left, directions, near.x);
  const rank = rankOf(count, [...rows, ...turns]);
  for (const row of rows) rank.add(row);
  const staying = directions.filter((_, k) => turns[k]!.at.length > 0 && rank.add(turns[k]!));
  const held = new Uint8Array(count);
  for (const column of order) if (rank.add({ at: [column], by: [1] })) held[column] = 1;
  const fixed = task.fixed.map((value, i) =>
    Number.isNaN(value) && columns[i]! >= 0 && held[columns[i]!] ? wanted[i]! : value,
  );
  const steady = { ...task, equations: [...task.equations, ...staying] };
  const next = settle(problem({ ...steady, fixed }), near.x);
  return next.lack <= AS_DRAWN ? frozen(steady, next) : frozen(task, near);
};

/** What hardly moved stays to the bit, where that can be. */
const frozen = (task: Task, now: Settled): Settled => {
  for (const stays of [STAYS, STAYS * 1e-3]) {
    const fixed = task.fixed.map((value, i) =>
      Number.isNaN(value) && Math.abs(now.x[i]! - task.wanted[i]!) < stays ? task.wanted[i]! : value,
    );
    const next = settle(problem({ ...task, fixed }), now.x);
    if (next.lack <= AS_DRAWN) return next;
  }
  return now;
};
