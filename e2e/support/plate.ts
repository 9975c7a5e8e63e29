import { applyEdit, newDrawing, PROFILE_LAYER, type Drawing, type NewCallout } from "@ash-edge/core/drawing";
import { draftEdit } from "@ash-edge/core/edits";
import type { Id } from "@ash-edge/core/numeric";

/** What is drawn: the plate's outline, its lower edge by the vertex it starts at, and its holes. */
export type Drawn = { readonly outline: Id; readonly lowerEdge: Id; readonly holes: readonly Id[] };

/** A plate w by h with holes, as x, y and radius; `more` draws on it before it is one edit. */
export const plateWith = (
  [w, h]: readonly [number, number],
  holes: readonly (readonly [number, number, number])[],
  callouts: readonly NewCallout[] = [],
  more: (draft: ReturnType<typeof draftEdit>, drawn: Drawn, start: Drawing) => void = () => undefined,
): Drawing => {
  const start = newDrawing("mm", callouts);
  const draft = draftEdit(start, "Draw", "draw");
  const vertices = [
    [0, 0],
    [w, 0],
    [w, h],
    [0, h],
  ].map(([x, y]) => ({ id: draft.newId(), at: { x: x!, y: y! }, bulge: 0 }));
  const outline = draft.add({ kind: "chain", closed: true, vertices }, PROFILE_LAYER);
  const made = holes.map(([x, y, radius]) => draft.add({ kind: "circle", centre: { x, y }, radius }, PROFILE_LAYER));
  more(draft, { outline, lowerEdge: vertices[0]!.id, holes: made }, start);
  return applyEdit(start, draft.finish());
};
