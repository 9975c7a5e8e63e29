import type { Annotation } from "../drawing/annotation.ts";
import { refuseLocked, type Drawing } from "../drawing/drawing.ts";
import type { Edit } from "../drawing/edit.ts";
import type { Ref } from "../drawing/ref.ts";
import { arcAt } from "../geometry/circle.ts";
import { arcBetween } from "../geometry/piece.ts";
import type { Point } from "../geometry/point.ts";
import { done, type Outcome } from "../numeric/outcome.ts";
import type { Shape } from "../shape/shape.ts";
import type { Adding, Tie } from "./addShapes.ts";
import { draftEdit } from "./draftEdit.ts";
import { refuseAnnotationsLocked } from "./removeEntities.ts";

/** The outer diameter of a thread as drawings show it in the hole: three quarters of a circle (ISO 6410). */
export const threadMark = (centre: Point, radius: number): Shape => {
  const [a, b] = [arcAt(centre, radius, Math.PI / 2), arcAt(centre, radius, 0)];
  return { kind: "piece", ...arcBetween(a, b, centre, true) };
};

/** What one hole is: the circle that is cut, and of a tapped one its thread. Lengths in the job's unit. */
export type HoleCircle = {
  readonly radius: number;
  /** Its designation and its outer diameter. */
  readonly thread?: { readonly name: string; readonly diameter: number };
};

/**
 * Adds holes at places, each tapped one with a thread mark that belongs to it; `tie` is told the references of the
 * holes. Where the layer, or marks, are locked: a refusal.
 */
export const addHoles = (
  drawing: Drawing,
  { label, gesture, layer }: Omit<Adding, "shapes">,
  places: readonly Point[],
  { radius, thread }: HoleCircle,
  tie: (draft: Tie, holes: readonly Ref[]) => void,
): Outcome<Edit> => {
  const locked = refuseLocked(drawing, { layer }) ?? (thread ? refuseAnnotationsLocked(drawing) : undefined);
  if (locked) return locked;
  const draft = draftEdit(drawing, label, gesture);
  const holes = places.map((centre): Ref => ({ id: draft.add({ kind: "circle", centre, radius }, layer) }));
  if (thread)
    for (const hole of holes) {
      const id = draft.newId();
      const mark: Annotation = {
        id,
        kind: "thread mark",
        refs: [hole],
        at: { x: 0, y: 0 },
        size: thread.diameter,
        text: thread.name,
      };
      draft.set("annotation", id, mark);
    }
  tie(draft, holes);
  return done(draft.finish());
};
