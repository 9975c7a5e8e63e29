import { entityOf, refuseLocked, type Drawing } from "../drawing/drawing.ts";
import type { Edit } from "../drawing/edit.ts";
import type { Id } from "../numeric/id.ts";
import { done, refuse, type Outcome } from "../numeric/outcome.ts";
import { draftEdit } from "./draftEdit.ts";

/** Takes out what is picked; ids that are gone already are passed over. Refused for nothing, and on a locked layer. */
export const removeEntities = (drawing: Drawing, ids: readonly Id[]): Outcome<Edit> => {
  const standing = ids.filter((id) => entityOf(drawing, id));
  if (standing.length === 0) return refuse("nothing-selected");
  const locked = refuseLocked(drawing, ...standing.map((id) => entityOf(drawing, id)!));
  if (locked) return locked;
  const draft = draftEdit(drawing, standing.length === 1 ? "Delete" : `Delete ${standing.length}`, "delete");
  standing.forEach(draft.remove);
  return done(draft.finish());
};
