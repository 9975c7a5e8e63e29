import { entityOf, refuseLocked, type Drawing } from "../../drawing/drawing.ts";
import type { Edit } from "../../drawing/edit.ts";
import { reshaped } from "../../drawing/entity.ts";
import type { Id } from "../../numeric/id.ts";
import { done, refuse, type Outcome } from "../../numeric/outcome.ts";
import { propertiesOf, withProperty } from "../../shape/kinds.ts";
import { draftEdit } from "../draftEdit.ts";

/**
 * Changes one property of all that is named (things that don't have it are left alone). Lengths must be above zero; a
 * radius smaller than half the chord, a sweep of a whole turn and a piece without length are refused. Lines keep their
 * start and their direction, arcs their start and their circle.
 */
export const changeProperty = (
  drawing: Drawing,
  ids: readonly Id[],
  name: string,
  value: number,
  vertex?: Id,
): Outcome<Edit> => {
  const draft = draftEdit(drawing, `Change ${name.replace(/^(at|vertex) /, "")}`, "property");
  let any = false;
  for (const id of ids) {
    const entity = entityOf(drawing, id);
    const property = entity && propertiesOf(entity, vertex).find((one) => one.name === name);
    if (!entity || !property) continue;
    const locked = refuseLocked(drawing, entity);
    if (locked) return locked;
    if (property.kind === "length" && !(value > 0))
      return refuse("value-not-positive", { what: `The ${property.label}` });
    const next = withProperty(entity, name, value, vertex);
    if (!next.ok) return next;
    draft.reshape(reshaped(entity, next.value));
    any = true;
  }
  return any ? done(draft.finish()) : refuse("nothing-selected");
};
