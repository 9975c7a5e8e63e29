import { entityOf, refuseLocked, type Drawing } from "../../drawing/drawing.ts";
import type { Edit } from "../../drawing/edit.ts";
import type { Id } from "../../numeric/id.ts";
import { done, refuse, type Outcome } from "../../numeric/outcome.ts";
import { draftEdit } from "../draftEdit.ts";

/**
 * Gives what is named a line style of its own, or lets its role have it. Nothing named, or something on a locked layer:
 * a refusal.
 */
export const setLineStyle = (drawing: Drawing, ids: readonly Id[], line: string | undefined): Outcome<Edit> => {
  const entities = ids.map((id) => entityOf(drawing, id)).filter((entity) => entity !== undefined);
  if (entities.length === 0) return refuse("nothing-selected");
  const locked = refuseLocked(drawing, ...entities);
  if (locked) return locked;
  const draft = draftEdit(drawing, "Line style", "property");
  for (const { line: _, ...rest } of entities) draft.replace(line ? { ...rest, line } : rest);
  return done(draft.finish());
};

/** Lets go of colours that came with a file. Nothing named that has one, or something on a locked layer: a refusal. */
export const dropColours = (drawing: Drawing, ids: readonly Id[]): Outcome<Edit> => {
  const entities = ids.flatMap((id) => entityOf(drawing, id) ?? []).filter(({ colour }) => colour !== undefined);
  if (entities.length === 0) return refuse("nothing-selected");
  const locked = refuseLocked(drawing, ...entities);
  if (locked) return locked;
  const draft = draftEdit(drawing, "Colour as its role", "property");
  for (const { colour: _, ...rest } of entities) draft.replace(rest);
  return done(draft.finish());
};
