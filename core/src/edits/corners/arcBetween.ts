import { entityOf, refuseLocked, curveAt, type Drawing } from "../../drawing/drawing.ts";
import type { Edit } from "../../drawing/edit.ts";
import type { Ref } from "../../drawing/ref.ts";
import { carrierOf, curveNearest } from "../../geometry/curve.ts";
import { plainPiece, type Piece } from "../../geometry/piece.ts";
import { distance } from "../../geometry/point.ts";
import { meetCarriers, meetingPoints } from "../../intersect/carriers.ts";
import type { Id } from "../../numeric/id.ts";
import { done, refuse, type Outcome } from "../../numeric/outcome.ts";
import { RESOLUTION } from "../../numeric/tolerance.ts";
import type { Tie } from "../addShapes.ts";
import { draftEdit, type EditDraft } from "../draftEdit.ts";

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
  for (const { ref, piece } of changed) if (!putEnd(drawing, draft, ref, piece!)) return refuse("inside-chain");
  if (changed.length === 2) noteCorners(drawing, draft, sides[0].ref, sides[1].ref);
  const id = draft.add({ kind: "piece", ...plainPiece(arc) }, layer);
  tie?.(draft, { id });
  return done(draft.finish());
};

/**
 * Puts what stays of a loose piece, or of a piece at the end of an open chain, in its place; false where that would
 * break a chain.
 */
const putEnd = (drawing: Drawing, draft: EditDraft, ref: Ref, piece: Piece): boolean => {
  const entity = entityOf(drawing, ref.id);
  if (entity?.kind === "piece") {
    draft.replace({ ...entity, ...plainPiece(piece) });
    return true;
  }
  if (entity?.kind !== "chain" || entity.closed) return false;
  const i = entity.vertices.findIndex(({ id }) => id === ref.vertex);
  const [own, next] = [entity.vertices[i], entity.vertices[i + 1]];
  if (!own || !next) return false;
  const [startMoves, endMoves] = [distance(own.at, piece.a) > RESOLUTION, distance(next.at, piece.b) > RESOLUTION];
  if ((startMoves && i > 0) || (endMoves && i + 2 < entity.vertices.length)) return false;
  draft.replace({
    ...entity,
    vertices: entity.vertices.map((vertex) =>
      vertex === own
        ? { ...vertex, at: piece.a, bulge: piece.bulge }
        : vertex === next
          ? { ...vertex, at: piece.b }
          : vertex,
    ),
  });
  return true;
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
