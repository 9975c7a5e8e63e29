import { chainOfPieces } from "../../contour/chain.ts";
import { joinRuns, runPieces } from "../../contour/joining.ts";
import { layerOf, type Drawing } from "../../drawing/drawing.ts";
import type { Edit } from "../../drawing/edit.ts";
import type { Picture } from "../../drawing/picture.ts";
import { draftEdit } from "../../edits/draftEdit.ts";
import type { Similarity } from "../../geometry/transform.ts";
import type { Id } from "../../numeric/id.ts";
import { transformShape } from "../../shape/kinds.ts";
import { ontoLooseEnds } from "./looseEnds.ts";
import type { Shape } from "./shapes.ts";

type Lie = Pick<Picture, "at" | "scale" | "angle">;

/** From the picture's pixels into the drawing: y goes up there, so arcs turn the other way. */
const placement = ({ at, scale, angle }: Lie): Similarity => {
  const [c, s] = [scale * Math.cos(angle), scale * Math.sin(angle)];
  return { a: c, b: s, c: s, d: -c, e: at.x, f: at.y };
};

/** A shape of a picture where it lies in the drawing. */
export const placedShape = (lie: Lie, shape: Shape): Shape => transformShape(placement(lie), shape) as Shape;

/** A shape that is accepted, and onto which layer. */
export type AcceptedShape = { readonly shape: Shape; readonly layer: Id };

/**
 * Puts shapes of a picture into the drawing, marked as traced: those of a layer whose ends are one as chains. Undefined
 * where nothing is given, or a layer is not there or locked. Ends of theirs go to loose ends in reach on their layer.
 */
export const acceptShapes = (
  drawing: Drawing,
  picture: Lie,
  those: readonly AcceptedShape[],
  reach = 0,
): Edit | undefined => {
  const layers = new Set(those.map(({ layer }) => layer));
  if (those.length === 0 || [...layers].some((id) => layerOf(drawing, id)?.locked !== false)) return undefined;
  const draft = draftEdit(drawing, those.length === 1 ? "Traced" : `Traced, ${those.length} pieces`, "trace-picture");
  for (const layer of layers) {
    const placed = those.flatMap((one) => (one.layer === layer ? [placedShape(picture, one.shape)] : []));
    for (const one of placed) if (one.kind === "circle") draft.add({ ...one, traced: true }, layer);
    const pieces = ontoLooseEnds(
      drawing,
      layer,
      placed.flatMap((one) => (one.kind === "piece" ? [one] : [])),
      reach,
    );
    // ends that were solved to meet are one to the bit
    for (const run of joinRuns(pieces, 0)) {
      const made = runPieces(run, (part) => [pieces[part]!]);
      const [only, ...more] = made;
      if (more.length === 0 && !run.closed) draft.add({ kind: "piece", ...only!, traced: true }, layer);
      else draft.add({ ...chainOfPieces(made, run.closed, draft.newId), traced: true }, layer);
    }
  }
  return draft.finish();
};
