import { runTo } from "../../construct/fillet.ts";
import { curveAt, entityOf, refuseLocked, type Drawing } from "../../drawing/drawing.ts";
import type { Edit } from "../../drawing/edit.ts";
import type { Ref } from "../../drawing/ref.ts";
import { carrierOf, isSmooth } from "../../geometry/curve.ts";
import type { Piece } from "../../geometry/piece.ts";
import { distance, type Point } from "../../geometry/point.ts";
import { meetCarriers, meetingPoints } from "../../intersect/carriers.ts";
import { done, refuse, type Outcome } from "../../numeric/outcome.ts";
import { RESOLUTION } from "../../numeric/tolerance.ts";
import { draftEdit, type EditDraft } from "../draftEdit.ts";

type Picked = { readonly ref: Ref; readonly at: Point };

/**
 * Puts a piece that was run on or cut in its own place, on purpose unless it says otherwise. Refused where that would
 * break a chain (it must be loose, or at the end of an open one on the side that changes), and on a locked layer.
 */
export const replaceLoose = (
  drawing: Drawing,
  draft: EditDraft,
  ref: Ref,
  piece: Piece,
  how: "reshape" | "replace" = "reshape",
): Outcome<true> => {
  const entity = entityOf(drawing, ref.id);
  const locked = entity && refuseLocked(drawing, entity);
  if (locked) return locked;
  if (entity?.kind === "piece") {
    draft[how]({ ...entity, a: piece.a, b: piece.b, bulge: piece.bulge });
    return done(true);
  }
  if (entity?.kind !== "chain" || entity.closed) return refuse("inside-chain");
  const i = entity.vertices.findIndex(({ id }) => id === ref.vertex);
  const [own, next] = [entity.vertices[i], entity.vertices[i + 1]];
  if (!own || !next) return refuse("inside-chain");
  const [startMoves, endMoves] = [distance(own.at, piece.a) > RESOLUTION, distance(next.at, piece.b) > RESOLUTION];
  if ((startMoves && i > 0) || (endMoves && i + 2 < entity.vertices.length)) return refuse("inside-chain");
  draft[how]({
    ...entity,
    vertices: entity.vertices.map((vertex) =>
      vertex === own
        ? { ...vertex, at: piece.a, bulge: piece.bulge }
        : vertex === next
          ? { ...vertex, at: piece.b }
          : vertex,
    ),
  });
  return done(true);
};

/**
 * Runs two picked curves to their corner, each prolonged or cut; the picked side of each stays. Of several meetings of
 * their carriers the one nearest to both picks counts. Layout lines and circles stay as they are, and only the other is
 * run. Pieces within chains, carriers that never meet, and two that stay are refused.
 */
export const meetCurves = (
  drawing: Drawing,
  one: Picked,
  other: Picked,
): Outcome<{ edit: Edit; a: Piece | undefined; b: Piece | undefined }> => {
  const [a, b] = [curveAt(drawing, one.ref), curveAt(drawing, other.ref)];
  if (!a || !b || isSmooth(a) || isSmooth(b) || (a.kind !== "piece" && b.kind !== "piece"))
    return refuse("not-a-piece");
  const places = meetingPoints(meetCarriers(carrierOf(a)!, carrierOf(b)!, RESOLUTION));
  const miss = (p: Point): number => distance(p, one.at) + distance(p, other.at);
  const at = [...places].sort((p, q) => miss(p) - miss(q))[0];
  if (!at) return refuse("meet-no-corner");
  const [first, second] = [runTo(a, one.at, at), runTo(b, other.at, at)];
  if ([first, second].some((piece) => piece && distance(piece.a, piece.b) <= RESOLUTION)) return refuse("no-length");
  const draft = draftEdit(drawing, "Meet", "meet");
  for (const [{ ref }, piece] of [
    [one, first],
    [other, second],
  ] as const) {
    const put = piece && replaceLoose(drawing, draft, ref, piece);
    if (put && !put.ok) return put;
  }
  return done({ edit: draft.finish(), a: first, b: second });
};
