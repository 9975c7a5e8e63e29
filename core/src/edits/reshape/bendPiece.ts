import { entityOf, refuseLocked, type Drawing } from "../../drawing/drawing.ts";
import type { Edit } from "../../drawing/edit.ts";
import type { Ref } from "../../drawing/ref.ts";
import { done, refuse, type Outcome } from "../../numeric/outcome.ts";
import { draftEdit, type EditDraft } from "../draftEdit.ts";

/**
 * Gives a loose piece, or one of a chain, another bulge; its ends stay. The edit is made by a function that may tie
 * callouts to it. Refused: what is no piece, and what lies on a locked layer.
 */
export const bendPiece = (
  drawing: Drawing,
  ref: Ref,
  bulge: number,
  label: string,
): Outcome<(link: (draft: EditDraft) => void) => Edit> => {
  const entity = entityOf(drawing, ref.id);
  if (entity?.kind !== "piece" && entity?.kind !== "chain") return refuse("not-a-piece");
  const locked = refuseLocked(drawing, entity);
  if (locked) return locked;
  return done((link) => {
    const draft = draftEdit(drawing, label, "bend");
    if (entity.kind === "piece") draft.reshape({ ...entity, bulge });
    else
      draft.reshape({
        ...entity,
        vertices: entity.vertices.map((vertex) => (vertex.id === ref.vertex ? { ...vertex, bulge } : vertex)),
      });
    link(draft);
    return draft.finish();
  });
};
