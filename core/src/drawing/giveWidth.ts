import { profileOf } from "../contour/profile.ts";
import { widthContours, type Width } from "../construct/width.ts";
import type { Piece } from "../geometry/piece.ts";
import { done, refuse, type Outcome } from "../numeric/outcome.ts";
import { RESOLUTION } from "../numeric/tolerance.ts";
import { faultsOf } from "../prove/faults.ts";
import { entityOf, layerOf, type Drawing } from "./drawing.ts";
import { draftEdit, type Edit } from "./edit.ts";
import { chainOfPieces, chainPieces, type Entity, type Id, type Shape } from "./entity.ts";
import { LAYOUT_LAYER, PROFILE_LAYER } from "./layer.ts";
import { plain } from "./trim.ts";

/** What becomes of the chain itself. */
export const WIDTH_SOURCES = ["goes", "layout"] as const;
export type WidthSource = (typeof WIDTH_SOURCES)[number];

/**
 * Gives a line, an arc or a chain a width: the closed contours round it, on `layer`; the chain itself goes, or becomes layout.
 * Refused as `widthContours` does, and where a contour would cross itself.
 */
export const giveWidth = (
  drawing: Drawing,
  id: Id,
  width: Width,
  source: WidthSource,
  layer: Id,
): Outcome<{ edit: Edit; contours: readonly Shape[] }> => {
  const entity = entityOf(drawing, id);
  if (entity?.kind !== "piece" && entity?.kind !== "chain") return refuse("width-needs-chain");
  for (const own of [layerOf(drawing, entity.layer), layerOf(drawing, layer)])
    if (own?.locked) return refuse("layer-locked", { layer: own.name });
  const pieces: readonly Piece[] = entity.kind === "piece" ? [plain(entity)] : chainPieces(entity).map(plain);
  const made = widthContours(pieces, entity.kind === "chain" && entity.closed, width);
  if (!made.ok) return made;
  const draft = draftEdit(drawing, "Give width", "give-width");
  const contours = made.value.map((run) => chainOfPieces(run, true, draft.newId));
  for (const contour of contours) {
    const alone: Entity = { ...contour, id, layer: PROFILE_LAYER };
    const faults = faultsOf(profileOf(drawing, RESOLUTION, [alone]));
    const crossed = faults.find(({ code }) => code === "crossing" || code === "doubled");
    if (crossed) return refuse("width-crosses", {}, crossed.at);
    draft.add(contour, layer);
  }
  if (source === "goes") draft.remove(id);
  else draft.replace({ ...entity, layer: LAYOUT_LAYER });
  return done({ edit: draft.finish(), contours });
};
