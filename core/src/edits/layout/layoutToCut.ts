import { refuseLocked, type Drawing } from "../../drawing/drawing.ts";
import type { Edit } from "../../drawing/edit.ts";
import type { Entity } from "../../drawing/entity.ts";
import type { Id } from "../../numeric/id.ts";
import { done, type Outcome } from "../../numeric/outcome.ts";
import { draftEdit } from "../draftEdit.ts";

/** Puts an entity that is no endless line on a layer, layout to cut or back. Locked layers: a refusal. */
export const layoutToCut = (drawing: Drawing, entity: Entity, layer: Id, label: string): Outcome<Edit> => {
  const locked = refuseLocked(drawing, entity, { layer });
  if (locked) return locked;
  const draft = draftEdit(drawing, label, "layout-to-cut");
  draft.replace({ ...entity, layer });
  return done(draft.finish());
};
