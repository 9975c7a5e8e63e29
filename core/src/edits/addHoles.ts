import { refuseLocked, type Drawing } from "../drawing/drawing.ts";
import type { Edit } from "../drawing/edit.ts";
import { MARK_LAYER } from "../drawing/layer.ts";
import type { Ref } from "../drawing/ref.ts";
import { arcAt } from "../geometry/circle.ts";
import { arcBetween } from "../geometry/piece.ts";
import type { Point } from "../geometry/point.ts";
import { done, type Outcome } from "../numeric/outcome.ts";
import type { Shape } from "../shape/shape.ts";
import type { Adding, Tie } from "./addShapes.ts";
import { draftEdit } from "./draftEdit.ts";

/** The outer diameter of a thread as drawings show it in the hole: three quarters of a circle (ISO 6410). */
export const threadMark = (centre: Point, radius: number): Shape => {
  const [a, b] = [arcAt(centre, radius, Math.PI / 2), arcAt(centre, radius, 0)];
  return { kind: "piece", ...arcBetween(a, b, centre, true) };
};

/** What one hole is: the circle that is cut, and of a tapped one the outer mark. Radii in the job's unit. */
export type HoleCircle = { readonly radius: number; readonly mark?: number };

/**
 * Adds holes at places, their thread marks on the mark layer; `tie` is told the references of both. A locked layer: a
 * refusal.
 */
export const addHoles = (
  drawing: Drawing,
  { label, gesture, layer }: Omit<Adding, "shapes">,
  places: readonly Point[],
  { radius, mark }: HoleCircle,
  tie: (draft: Tie, holes: readonly Ref[], marks: readonly Ref[]) => void,
): Outcome<Edit> => {
  const locked = refuseLocked(drawing, { layer }, ...(mark === undefined ? [] : [{ layer: MARK_LAYER }]));
  if (locked) return locked;
  const draft = draftEdit(drawing, label, gesture);
  const holes: Ref[] = [];
  const marks: Ref[] = [];
  for (const centre of places) {
    holes.push({ id: draft.add({ kind: "circle", centre, radius }, layer) });
    if (mark !== undefined) marks.push({ id: draft.add(threadMark(centre, mark), MARK_LAYER) });
  }
  tie(draft, holes, marks);
  return done(draft.finish());
};
