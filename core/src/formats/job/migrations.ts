import { done, refuse, type Outcome } from "../../numeric/outcome.ts";

/**
 * The version in which drawings and edits are written now: in job files, snapshots and the journal. Raised whenever an
 * older reader would read them wrongly, with a step below that brings what is older up to it, and a kept old file in a
 * test.
 */
export const FORMAT_VERSION = 5;

/** What brings something written in one version to the next. */
type Step = (value: never) => unknown;

/**
 * Rows of a drawing. Version 2: references name more places. Version 3: callouts say more (chamfers, how many, fits,
 * one limit, for reference). Version 4: dimensions, notes and marks. Version 5: what a job is made with, callouts that
 * were looked at or waived. What the one before wrote means the same.
 */
const DRAWING_STEPS: Readonly<Record<number, Step>> = {
  1: (rows) => rows,
  2: (rows) => rows,
  3: (rows) => rows,
  4: (rows) => rows,
};

type EditOf1 = { readonly label: string; readonly gesture: string; readonly changes: unknown };
/**
 * Edits. Version 2: what was cut loose is told by callout, and what became of geometry is stated by hints; both were
 * only ever used when the edit was made. Versions 3 to 5: as with drawings.
 */
const EDIT_STEPS: Readonly<Record<number, Step>> = {
  1: ({ label, gesture, changes }: EditOf1) => ({ label, gesture, changes, lineage: [], cutLoose: [] }),
  2: (edit) => edit,
  3: (edit) => edit,
  4: (edit) => edit,
};

const STEPS = { drawing: DRAWING_STEPS, edit: EDIT_STEPS };

/**
 * A drawing's rows or an edit as they are written now, whatever version wrote them; a newer version than this is
 * refused, never guessed at.
 */
export const migrated = (kind: keyof typeof STEPS, value: unknown, version: unknown): Outcome<unknown> => {
  if (!Number.isInteger(version) || (version as number) < 1)
    return refuse("file-not-readable", { reason: "its version is no whole number" });
  if ((version as number) > FORMAT_VERSION)
    return refuse("version-newer", { version: version as number, known: FORMAT_VERSION });
  let now = value;
  try {
    for (let n = version as number; n < FORMAT_VERSION; n++) now = STEPS[kind][n]!(now as never);
  } catch {
    return refuse("file-not-readable", { reason: "what it holds is not what its version says" });
  }
  return done(now);
};
