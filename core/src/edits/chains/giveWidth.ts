import { taperedRuns, widthContours, type Width, type WidthRun } from "../../construct/width.ts";
import { chainOfPieces, chainPieces } from "../../contour/chain.ts";
import { meetingPlaces } from "../../contour/meetingPlaces.ts";
import { entityOf, refuseLocked, type Drawing } from "../../drawing/drawing.ts";
import type { Edit } from "../../drawing/edit.ts";
import type { Entity } from "../../drawing/entity.ts";
import { LAYOUT_LAYER } from "../../drawing/layer.ts";
import type { Ref } from "../../drawing/ref.ts";
import { plainPiece, type Piece } from "../../geometry/piece.ts";
import type { Id } from "../../numeric/id.ts";
import { done, refuse, type Outcome } from "../../numeric/outcome.ts";
import type { Shape } from "../../shape/shape.ts";
import { draftEdit } from "../draftEdit.ts";

/** What becomes of the chain itself. */
export const WIDTH_SOURCES = ["goes", "layout"] as const;
export type WidthSource = (typeof WIDTH_SOURCES)[number];

/** The widths a chain is given: from its start to its end, or as its pieces were given theirs one by one. */
export type WidthGiven = Omit<Width, "runs"> &
  ({ readonly from: number; readonly to: number } | { readonly from?: undefined; readonly to?: undefined });

/**
 * The widths of the pieces of a chain as they were given; one without goes on as the piece before it ended, else as the
 * next begins.
 */
export const givenRuns = (entity: Entity): Outcome<readonly WidthRun[]> => {
  if (entity.kind !== "chain") return refuse("width-missing");
  const own = chainPieces(entity).map((_, i) => entity.vertices[i]!.width);
  const first = own.find((run) => run);
  if (!first) return refuse("width-missing");
  let before = first[0];
  return done(
    own.map((run): WidthRun => {
      const [from, to] = run ?? [before, before];
      before = to;
      return [from, to];
    }),
  );
};

/**
 * Gives a line, an arc or a chain a width: the closed contours round it, on `layer`; the chain itself goes, or becomes
 * layout. Refused as `widthContours` does, a closed chain that should taper, and where a contour would cross itself.
 */
export const giveWidth = (
  drawing: Drawing,
  id: Id,
  { from, to, ends, corners }: WidthGiven,
  source: WidthSource,
  layer: Id,
): Outcome<{ edit: Edit; contours: readonly Shape[] }> => {
  const entity = entityOf(drawing, id);
  if (entity?.kind !== "piece" && entity?.kind !== "chain") return refuse("width-needs-chain");
  const locked = refuseLocked(drawing, entity, { layer });
  if (locked) return locked;
  const closed = entity.kind === "chain" && entity.closed;
  if (closed && from !== to) return refuse("width-closed");
  const pieces: readonly Piece[] = entity.kind === "piece" ? [plainPiece(entity)] : chainPieces(entity).map(plainPiece);
  const runs = from === undefined ? givenRuns(entity) : done(taperedRuns(pieces, from, to));
  if (!runs.ok) return runs;
  const made = widthContours(pieces, closed, { runs: runs.value, ends, corners });
  if (!made.ok) return made;
  const draft = draftEdit(drawing, "Give width", "give-width");
  const contours = made.value.map((run) => chainOfPieces(run, true, draft.newId));
  for (const contour of contours) {
    const crossed = meetingPlaces([{ closed: true, pieces: chainPieces(contour) }]).find(
      ({ kind }) => kind !== "touching",
    );
    if (crossed) return refuse("width-crosses", {}, crossed.at);
    draft.add(contour, layer);
  }
  if (source === "goes") draft.remove(id);
  else draft.replace({ ...entity, layer: LAYOUT_LAYER });
  return done({ edit: draft.finish(), contours });
};

/** Gives one piece of a chain a width, kept with it until the contour is made. */
export const givePieceWidth = (drawing: Drawing, ref: Ref, width: WidthRun): Outcome<Edit> => {
  const entity = entityOf(drawing, ref.id);
  if (entity?.kind !== "chain" || ref.vertex === undefined) return refuse("chain-needed");
  const locked = refuseLocked(drawing, entity);
  if (locked) return locked;
  const draft = draftEdit(drawing, "Width of a piece", "give-width");
  draft.replace({
    ...entity,
    vertices: entity.vertices.map((vertex) => (vertex.id === ref.vertex ? { ...vertex, width } : vertex)),
  });
  return done(draft.finish());
};
