import { calloutsOf, settingsOf, type Drawing } from "../drawing/drawing.ts";
import type { Callout } from "../drawing/callout.ts";
import type { Edit } from "../drawing/edit.ts";
import type { Making } from "../drawing/making.ts";
import type { Id } from "../numeric/id.ts";
import { done, refuse, type Outcome } from "../numeric/outcome.ts";
import { draftEdit } from "./draftEdit.ts";

/** Says what a job is made with. */
export const setMaking = (drawing: Drawing, making: Making): Edit => {
  const draft = draftEdit(drawing, "Made with", "making");
  const { making: _, ...rest } = settingsOf(drawing);
  draft.set("settings", 0, Object.keys(making).length > 0 ? { ...rest, making } : rest);
  return draft.finish();
};

const changeCallout = (
  drawing: Drawing,
  id: Id,
  label: string,
  change: (callout: Callout) => Callout,
): Outcome<Edit> => {
  const callout = calloutsOf(drawing).find((one) => one.id === id);
  if (!callout) return refuse("nothing-selected");
  const draft = draftEdit(drawing, label, "prove");
  draft.set("callout", id, change(callout));
  return done(draft.finish());
};

/** Lets a callout be off for a reason, on a day such as 2027-01-11; without a reason it is to hold again. */
export const waiveCallout = (drawing: Drawing, id: Id, reason: string, on: string): Outcome<Edit> =>
  changeCallout(drawing, id, reason ? "Waive" : "Waive no more", ({ waived: _, ...callout }) =>
    reason ? { ...callout, waived: { reason, on } } : callout,
  );

/** A callout was looked at while it measured so much; undefined where it is to be looked at again. */
export const lookAtCallout = (drawing: Drawing, id: Id, measured: number | undefined): Outcome<Edit> =>
  changeCallout(drawing, id, "Looked at", ({ looked: _, ...callout }) =>
    measured === undefined ? callout : { ...callout, looked: measured },
  );
