import { entityOf, type Drawing } from "../drawing/drawing.ts";
import type { Edit } from "../drawing/edit.ts";
import type { Id } from "../numeric/id.ts";
import { draftEdit } from "./draftEdit.ts";

/** Takes out what is picked; ids that are already gone are passed over. Undefined when nothing is left to remove. */
export const removeEntities = (drawing: Drawing, ids: readonly Id[]): Edit | undefined => {
  const standing = ids.filter((id) => entityOf(drawing, id));
  if (standing.length === 0) return undefined;
  const draft = draftEdit(drawing, standing.length === 1 ? "Delete" : `Delete ${standing.length}`, "delete");
  standing.forEach(draft.remove);
  return draft.finish();
};
