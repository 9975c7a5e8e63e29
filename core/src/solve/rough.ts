import type { Id } from "../numeric/id.ts";
import type { Told } from "./ask.ts";
import type { Equation } from "./equations.ts";
import { holds, nearest, type Task } from "./fewest.ts";
import { PRIORITIES, type Relation } from "./holds/index.ts";
import type { Settled } from "./settle.ts";

/** What is meant in a drawing that was drawn roughly, where it can all be, and what of it could not. */
export type Rough = {
  readonly settled: Settled;
  readonly kept: readonly Relation[];
  readonly gone: readonly Relation[];
};

/**
 * What is told by nearness alone: a hole beside a round corner's centre, or beside a layout line. It comes after what
 * joints and directions say, and numbers that fight it are right.
 */
export const UNCERTAIN: ReadonlySet<string> = new Set(["same centre", "on"]);
const UNCERTAIN_BY = 25;

/** In a rough drawing sizes are not meant as they are. */
const LEAST_MEANT = PRIORITIES.mirror;

/**
 * The nearest drawing in which `must` holds, and as much of what is meant as can, the strongest first: all at once
 * where they agree, else kind by kind, halving what does not go in.
 */
export const solveRough = (
  base: Omit<Task, "equations">,
  must: readonly Equation[],
  relations: readonly Relation[],
): Rough | undefined => {
  const meant = relations.filter(({ kind }) => PRIORITIES[kind] >= LEAST_MEANT);
  const task = (kept: readonly Relation[]): Task => ({
    ...base,
    equations: [...must, ...kept.flatMap(({ equations }) => equations)],
  });
  const all = nearest(task(meant));
  if (holds(all)) return { settled: all, kept: meant, gone: [] };
  let settled = nearest(task([]));
  if (!holds(settled)) return undefined;
  const kept: Relation[] = [];
  const gone: Relation[] = [];
  const take = (some: readonly Relation[]): void => {
    if (some.length === 0) return;
    const next = nearest(task([...kept, ...some]), settled.x);
    if (holds(next)) {
      settled = next;
      for (const one of some) kept.push(one);
    } else if (some.length === 1) gone.push(some[0]!);
    else {
      const half = some.length >> 1;
      take(some.slice(0, half));
      take(some.slice(half));
    }
  };
  const order = ({ kind }: Relation): number => PRIORITIES[kind] - (UNCERTAIN.has(kind) ? UNCERTAIN_BY : 0);
  for (const priority of [...new Set(meant.map(order))].sort((p, q) => q - p))
    take(meant.filter((one) => order(one) === priority));
  return { settled: nearest(task(kept), base.wanted), kept, gone };
};

/**
 * The fewest callouts that can't all be true as long as strong relations hold, by leaving one out after the other;
 * none where they agree.
 */
export const fighting = (
  base: Omit<Task, "equations">,
  structure: readonly Equation[],
  strong: readonly Relation[],
  told: readonly Told[],
): readonly Id[] => {
  const agree = (some: readonly Told[]): boolean =>
    holds(
      nearest({
        ...base,
        equations: [...structure, ...[...strong, ...some].flatMap(({ equations }) => equations)],
      }),
    );
  if (agree(told) || !agree([])) return [];
  let left = told;
  for (const one of told) {
    const without = left.filter((other) => other !== one);
    if (!agree(without)) left = without;
  }
  return left.map(({ callout }) => callout.id);
};
