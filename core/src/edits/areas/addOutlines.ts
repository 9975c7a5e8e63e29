import type { Outline } from "../../arrangement/index.ts";
import { entityOf, refuseLocked, type Drawing } from "../../drawing/drawing.ts";
import type { Edit } from "../../drawing/edit.ts";
import type { Id } from "../../numeric/id.ts";
import { done, type Outcome } from "../../numeric/outcome.ts";
import { draftEdit } from "../draftEdit.ts";
import { outlineShape } from "./areas.ts";

/**
 * Adds contours as outlines on a layer, and takes away what they come from where that is named. Locked layers: a
 * refusal.
 */
export const addOutlines = (
  drawing: Drawing,
  outlines: readonly Outline[],
  layer: Id,
  replaced: readonly Id[],
  label: string,
  gesture: string,
): Outcome<Edit> => {
  const gone = replaced.map((id) => entityOf(drawing, id)).filter((entity) => entity !== undefined);
  const locked = refuseLocked(drawing, { layer }, ...gone);
  if (locked) return locked;
  const draft = draftEdit(drawing, label, gesture);
  for (const outline of outlines) draft.add(outlineShape(outline, draft.newId), layer);
  for (const { id } of gone) draft.remove(id);
  return done(draft.finish());
};
