import { refuseLocked, type Drawing } from "../../drawing/drawing.ts";
import type { Edit } from "../../drawing/edit.ts";
import { reshaped, type Entity } from "../../drawing/entity.ts";
import { done, type Outcome } from "../../numeric/outcome.ts";
import type { Shape } from "../../shape/shape.ts";
import type { Tie } from "../addShapes.ts";
import { draftEdit } from "../draftEdit.ts";

/**
 * Gives an entity another shape on purpose: what is attached follows it, with new numbers. On a locked layer: a
 * refusal.
 */
export const reshapeEntity = (
  drawing: Drawing,
  entity: Entity,
  shape: Shape,
  label: string,
  gesture: string,
  tie?: (draft: Tie) => void,
): Outcome<Edit> => {
  const locked = refuseLocked(drawing, entity);
  if (locked) return locked;
  const draft = draftEdit(drawing, label, gesture);
  draft.reshape(reshaped(entity, shape));
  tie?.(draft);
  return done(draft.finish());
};
