import { entityOf, refuseLocked, curveAt, type Drawing } from "../../drawing/drawing.ts";
import type { Edit } from "../../drawing/edit.ts";
import type { Ref } from "../../drawing/ref.ts";
import { carrierOf, curveNearest } from "../../geometry/curve.ts";
import { plainPiece, type Piece } from "../../geometry/piece.ts";
import { meetCarriers, meetingPoints } from "../../intersect/carriers.ts";
import type { Id } from "../../numeric/id.ts";
import { done, type Outcome } from "../../numeric/outcome.ts";
import { RESOLUTION } from "../../numeric/tolerance.ts";
import type { Tie } from "../addShapes.ts";
import { draftEdit, type EditDraft } from "../draftEdit.ts";
import { replaceLoose } from "./meet.ts";

/** A picked curve and what stays of it beside an arc; without a piece it stays as it is. */
export type Trimmed = { readonly ref: Ref; readonly piece?: Piece };

/**
 * An arc between two picked curves on `layer`, each shortened or run on to it where a piece is given: of loose pieces,
 * and at the ends of open chains. What is attached to the corner that the two made stays with it, at the sharp corner.
 * Refused: locked layers, and what lies within a chain.
 */
export const arcBetweenCurves = (
  drawing: Drawing,
  label: string,
  gesture: string,
  arc: Piece,
  sides: readonly [Trimmed, Trimmed],
  layer: Id,
  tie?: (draft: Tie, arc: Ref) => void,
): Outcome<Edit> => {
  const changed = sides.filter(({ piece }) => piece);
  const entities = changed.map(({ ref }) => entityOf(drawing, ref.id)).filter((entity) => entity !== undefined);
  const locked = refuseLocked(drawing, { layer }, ...entities);
  if (locked) return locked;
  const draft = draftEdit(drawing, label, gesture);
  for (const { ref, piece } of changed) {
    const put = replaceLoose(drawing, draft, ref, piece!, "replace");
    if (!put.ok) return put;
  }
  if (changed.length === 2) noteCorners(drawing, draft, sides[0].ref, sides[1].ref);
  const id = draft.add({ kind: "piece", ...plainPiece(arc) }, layer);
  tie?.(draft, { id });
  return done(draft.finish());
};

/**
 * The corners that two curves made before an arc came between them: where their carriers meet, on one of them at least.
 */
const noteCorners = (drawing: Drawing, draft: EditDraft, p: Ref, q: Ref): void => {
  const [one, other] = [curveAt(drawing, p), curveAt(drawing, q)];
  const [a, b] = [one && carrierOf(one), other && carrierOf(other)];
  if (!one || !other || !a || !b) return;
  for (const at of meetingPoints(meetCarriers(a, b, RESOLUTION)))
    if ([one, other].some((curve) => curveNearest(curve, at).distance <= RESOLUTION))
      draft.corner(at, { ...bare(p), place: { crosses: bare(q) } });
};

const bare = ({ id, vertex }: Ref): Ref => ({ id, ...(vertex === undefined ? {} : { vertex }) });
