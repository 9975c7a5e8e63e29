import type { Equation } from "./equations.ts";
import { merged } from "./merged.ts";
import { HOLDS, planOf, settle, type Problem, type Settled } from "./settle.ts";

/** What is solved: what is wanted of each unknown, how much by, and what must hold. */
export type Task = {
  readonly wanted: Float64Array;
  readonly weights: Float64Array;
  readonly equations: readonly Equation[];
  /** Unknowns that stay, by their numbers; NaN for those that are free. */
  readonly fixed: Float64Array;
};

/** Sums of the square roots of what moves count, rather than squares: few things move. */
const [ROUNDS, POWER] = [8, 0.5];
/** Moves are told from none at first and at last by this part of the size. */
const [COARSE, FINE] = [1e-2, 1e-4];
/** What moves less than this stays. */
const STAYS = 1e-7;
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
 * Values at which all holds and the fewest unknowns differ from what is wanted; those stay to the bit. By squares
 * weighed anew, round after round (Chartrand and Yin 2008), and then by letting nothing move that hardly did.
 */
export const fewest = (task: Task, near: Settled): Settled => {
  const { wanted, weights } = task;
  const own = problem(task);
  let now = near;
  for (let round = 0; round < ROUNDS; round++) {
    const fine = COARSE * (FINE / COARSE) ** (round / (ROUNDS - 1));
    const anew = Float64Array.from(
      weights,
      (weight, i) => weight * ((now.x[i]! - wanted[i]!) ** 2 / (fine * fine) + 1) ** (POWER / 2 - 1),
    );
    const next = settle({ ...own, weights: anew }, now.x);
    if (!holds(next)) break;
    now = next;
  }
  return frozen(task, now);
};

/** What hardly moved stays to the bit, where that can be. */
const frozen = (task: Task, now: Settled): Settled => {
  for (const stays of [STAYS, STAYS * 1e-3]) {
    const fixed = task.fixed.map((value, i) =>
      Number.isNaN(value) && Math.abs(now.x[i]! - task.wanted[i]!) < stays ? task.wanted[i]! : value,
    );
    const next = settle(problem({ ...task, fixed }), now.x);
    if (holds(next)) return next;
  }
  return now;
};
