import { entityOf, refuseLocked, type Drawing } from "../../drawing/drawing.ts";
import type { Edit } from "../../drawing/edit.ts";
import { reshaped } from "../../drawing/entity.ts";
import type { Similarity } from "../../geometry/transform.ts";
import type { Id } from "../../numeric/id.ts";
import { done, refuse, type Outcome } from "../../numeric/outcome.ts";
import { transformShape } from "../../shape/kinds.ts";
import { draftEdit } from "../draftEdit.ts";

/**
 * Moves, turns, mirrors or scales what is named, in place: ids, layers and attachments stay. Nothing named, or
 * something on a locked layer: a refusal.
 */
export const transformEntities = (
  drawing: Drawing,
  ids: readonly Id[],
  m: Similarity,
  label: string,
  gesture: string,
): Outcome<Edit> => {
  const entities = ids.map((id) => entityOf(drawing, id)).filter((entity) => entity !== undefined);
  if (entities.length === 0) return refuse("nothing-selected");
  const locked = refuseLocked(drawing, ...entities);
  if (locked) return locked;
  const draft = draftEdit(drawing, label, gesture);
  draft.move(
    entities.map((entity) => reshaped(entity, transformShape(m, entity))),
    m,
  );
  return done(draft.finish());
};
