import type { Edit } from "@ash-edge/core/drawing";

/**
 * The steps of a job that are in memory, from number `first` on, and how many of all its steps are applied. Older ones
 * stay in the store until undo goes there.
 */
export type History = { readonly edits: readonly Edit[]; readonly first: number; readonly position: number };

/** How many steps there are, those that can be redone and those still in the store included. */
export const stepCount = ({ edits, first }: History): number => first + edits.length;

/** Step number `n`, counted from 0; undefined where it is not in memory. */
export const stepAt = ({ edits, first }: History, n: number): Edit | undefined => edits[n - first];

/** The history with a new step after the position; what could be redone goes. */
export const withStep = ({ edits, first, position }: History, edit: Edit): History => ({
  edits: [...edits.slice(0, position - first), edit],
  first,
  position: position + 1,
});

/** The history with older steps, which end where it starts, before its own. */
export const withOlder = (history: History, older: readonly Edit[]): History => ({
  ...history,
  edits: [...older, ...history.edits],
  first: history.first - older.length,
});
