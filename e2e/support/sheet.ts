// A great drawing for measuring: a sheet of rounded outlines with holes, as the rows of a stored drawing.
import { applyEdit, drawingText, newDrawing, PROFILE_LAYER } from "@ash-edge/core/drawing";
import { chainOfPieces } from "@ash-edge/core/contour";
import { draftEdit } from "@ash-edge/core/edits";
import { rectangleOf } from "@ash-edge/core/construct";

/** Rounded rectangles of eight curves and a hole of one each, `curves` in all (about), 40 apart, in rows of 120. */
export const sheet = (curves: number): { readonly text: string; readonly nextId: number; readonly curves: number } => {
  const start = newDrawing("mm");
  const draft = draftEdit(start, "Sheet", "sheet");
  const parts = Math.ceil(curves / 9);
  for (let i = 0; i < parts; i++) {
    const at = { x: (i % 120) * 40, y: Math.floor(i / 120) * 40 };
    const made = rectangleOf(30, 20 + (i % 7), { across: 1, up: 1 }, at, { kind: "round", size: 3 + (i % 4) });
    if (!made.ok) throw new Error(made.refusal.code);
    draft.add(chainOfPieces(made.value, true, draft.newId), PROFILE_LAYER);
    draft.add({ kind: "circle", centre: at, radius: 2 + (i % 5) }, PROFILE_LAYER);
  }
  const drawing = applyEdit(start, draft.finish());
  return { text: drawingText(drawing), nextId: drawing.nextId, curves: parts * 9 };
};
