import { applyEdit, drawingText, invertEdit, PROFILE_LAYER, type Drawing, type Edit } from "@ash-edge/core/drawing";
import { draftEdit } from "@ash-edge/core/edits";
import {
  createJob,
  loadJob,
  stepAt,
  stepCount,
  withStep,
  type Database,
  type History,
  type StoredJob,
} from "../index.ts";

/** How much the harnesses do: a little in every run of the tests, all of it where HARNESS=full is set. */
export const FULL = process.env.HARNESS === "full";

export const HEAD = { number: "0500", name: "Washer", customer: "", material: "", thickness: "", quantity: 1, due: "" };

/** Random numbers that a seed repeats (Park and Miller's minimal standard). */
export const randomBy = (seed: number): (() => number) => {
  let state = (seed % 2147483646) + 1;
  return () => (state = (state * 16807) % 2147483647) / 2147483647;
};

/** A job with nothing drawn, opened. */
export const newJob = async (database: Database): Promise<{ readonly id: string; readonly stored: StoredJob }> => {
  const id = await createJob(database, { ...HEAD, unit: "mm" });
  return { id, stored: (await loadJob(database, id))! };
};

/** A circle drawn: the smallest step. */
export const circleEdit = (drawing: Drawing, radius: number): Edit => {
  const draft = draftEdit(drawing, "Circle", "circle");
  draft.add({ kind: "circle", centre: { x: 0, y: 0 }, radius }, PROFILE_LAYER);
  return draft.finish();
};

/** A drawing in one tab, as its bench has it: an edit goes on from where it stands, undo and redo move along. */
export type Tab = { readonly drawing: Drawing; readonly history: History };

export const afterEdit = ({ drawing, history }: Tab, edit: Edit): Tab => ({
  drawing: applyEdit(drawing, edit),
  history: withStep(history, edit),
});

/** One step back (-1) or on again (1); undefined where there is none in memory. */
export const afterWalk = ({ drawing, history }: Tab, by: -1 | 1): Tab | undefined => {
  const edit = stepAt(history, by < 0 ? history.position - 1 : history.position);
  const to = history.position + by;
  if (!edit || to < history.first || to > stepCount(history)) return undefined;
  return {
    drawing: applyEdit(drawing, by < 0 ? invertEdit(edit) : edit),
    history: { ...history, position: to },
  };
};

/** All that a reopened job must have the same: its content, where it stands, and how far it can be redone. */
export const contentOf = ({ drawing, history }: Tab): string =>
  `${history.position}/${stepCount(history)} ${drawingText(drawing)}`;
