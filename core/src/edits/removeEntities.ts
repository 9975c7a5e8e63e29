import { annotationOf, entityOf, refuseLocked, settingsOf, type Drawing } from "../drawing/drawing.ts";
import type { Edit } from "../drawing/edit.ts";
import type { Id } from "../numeric/id.ts";
import { done, refuse, type Outcome } from "../numeric/outcome.ts";
import { draftEdit } from "./draftEdit.ts";

/** The refusal to change dimensions and notes while they are locked; undefined where they are not. */
export const refuseAnnotationsLocked = (drawing: Drawing): (Outcome<never> & { readonly ok: false }) | undefined =>
  settingsOf(drawing).annotationsLocked ? refuse("annotations-locked") : undefined;

/**
 * Takes out what is picked, dimensions and notes too; ids that are gone already are passed over. Refused for nothing,
 * and for what is locked.
 */
export const removeEntities = (drawing: Drawing, ids: readonly Id[]): Outcome<Edit> => {
  const standing = ids.filter((id) => entityOf(drawing, id));
  const annotations = ids.filter((id) => annotationOf(drawing, id));
  const count = standing.length + annotations.length;
  if (count === 0) return refuse("nothing-selected");
  const locked =
    refuseLocked(drawing, ...standing.map((id) => entityOf(drawing, id)!)) ??
    (annotations.length > 0 ? refuseAnnotationsLocked(drawing) : undefined);
  if (locked) return locked;
  const draft = draftEdit(drawing, count === 1 ? "Delete" : `Delete ${count}`, "delete");
  standing.forEach(draft.remove);
  for (const id of annotations) draft.set("annotation", id, undefined);
  return done(draft.finish());
};
