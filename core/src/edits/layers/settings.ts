import { settingsOf, type Drawing, type Settings } from "../../drawing/drawing.ts";
import type { Edit } from "../../drawing/edit.ts";
import type { Making } from "../../drawing/making.ts";
import type { Point } from "../../geometry/point.ts";
import { draftEdit } from "../draftEdit.ts";

/** Says how far the job's numbers may be off where they say nothing of their own; undefined: not at all. */
export const setGeneralTolerance = (drawing: Drawing, tolerance: number | undefined): Edit => {
  const draft = draftEdit(drawing, "General tolerance", "settings");
  const { generalTolerance: _, ...rest }: Settings = settingsOf(drawing);
  draft.set("settings", 0, tolerance === undefined ? rest : { ...rest, generalTolerance: tolerance });
  return draft.finish();
};

/** Puts the datum, from which coordinates count, at a place; what is drawn stays where it is. */
export const setDatum = (drawing: Drawing, datum: Point): Edit => {
  const draft = draftEdit(drawing, "Set the datum", "set-datum");
  draft.set("settings", 0, { ...settingsOf(drawing), datum });
  return draft.finish();
};

/** Says one thing of what a job is made with, or no more; the others stay. */
export const setMaking = <K extends keyof Making>(drawing: Drawing, what: K, to: Making[K] | undefined): Edit => {
  const draft = draftEdit(drawing, "Made with", "making");
  const { making: { [what]: _, ...others } = {}, ...rest } = settingsOf(drawing);
  const making = (to === undefined ? others : { ...others, [what]: to }) as Making;
  draft.set("settings", 0, Object.keys(making).length > 0 ? { ...rest, making } : rest);
  return draft.finish();
};
