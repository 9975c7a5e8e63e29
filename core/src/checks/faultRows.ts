import type { Id } from "../numeric/id.ts";
import type { Fault } from "./check.ts";

/** Faults of one kind as they are listed: the first of them, how many there are, and all that they lie on. */
export type FaultRow = {
  readonly fault: Fault;
  readonly count: number;
  readonly ids: readonly Id[];
  readonly all: readonly Fault[];
};

/** So many faults of a kind are listed one by one; more are one row. */
const SINGLY = 4;

/** Faults as rows in their order: a few of a kind each by itself, many as one row with their number. */
export const faultRows = (faults: readonly Fault[]): readonly FaultRow[] => {
  const kinds = new Map<string, Fault[]>();
  for (const fault of faults) {
    const kind = `${fault.severity} ${fault.code}`;
    void (kinds.get(kind)?.push(fault) ?? kinds.set(kind, [fault]));
  }
  return [...kinds.values()].flatMap((alike) =>
    alike.length <= SINGLY
      ? alike.map((fault) => ({ fault, count: 1, ids: fault.ids, all: [fault] }))
      : [{ fault: alike[0]!, count: alike.length, ids: [...new Set(alike.flatMap(({ ids }) => ids))], all: alike }],
  );
};
