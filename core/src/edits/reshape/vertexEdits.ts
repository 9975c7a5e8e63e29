import { curveAt, entityOf, refuseLocked, type Drawing } from "../../drawing/drawing.ts";
import type { Edit } from "../../drawing/edit.ts";
import { reshaped } from "../../drawing/entity.ts";
import type { Ref } from "../../drawing/ref.ts";
import { carrierNearest, curveNearest, pieceCarrier } from "../../geometry/curve.ts";
import { arcBetween, arcOf, partOfPiece, pieceLength, piecePoint, type Piece } from "../../geometry/piece.ts";
import { distance, type Point } from "../../geometry/point.ts";
import { done, refuse, type Outcome } from "../../numeric/outcome.ts";
import { RESOLUTION } from "../../numeric/tolerance.ts";
import { draftEdit } from "../draftEdit.ts";
import { chainPath } from "../path.ts";
import { endPiece } from "./stretch.ts";

/**
 * Puts a corner on a piece of a chain, or on a loose one, which becomes a chain; the shape stays. At an end of it: a
 * refusal.
 */
export const addCorner = (drawing: Drawing, ref: Ref, near: Point): Outcome<Edit> => {
  const entity = entityOf(drawing, ref.id);
  const curve = curveAt(drawing, ref);
  if (!entity || curve?.kind !== "piece") return refuse("not-a-piece");
  const locked = refuseLocked(drawing, entity);
  if (locked) return locked;
  const { t, at } = curveNearest(curve, near);
  const length = pieceLength(curve);
  if (t * length <= RESOLUTION || (1 - t) * length <= RESOLUTION) return refuse("corner-at-end", {}, at);
  const [first, second] = [partOfPiece(curve, 0, t, undefined, at), partOfPiece(curve, t, 1, at, undefined)];
  const draft = draftEdit(drawing, "Add a corner", "handle");
  const added = draft.newId();
  if (entity.kind === "chain") {
    const path = chainPath(entity);
    path.put(
      draft,
      path.links.flatMap((link) =>
        link.id === ref.vertex
          ? [
              { ...link, piece: first },
              { piece: second, id: added },
            ]
          : [link],
      ),
      "replace",
    );
  } else {
    const [start, end] = [draft.newId(), draft.newId()];
    const vertices = [
      { id: start, at: first.a, bulge: first.bulge },
      { id: added, at, bulge: second.bulge },
      { id: end, at: second.b, bulge: 0 },
    ];
    draft.replace(reshaped(entity, { kind: "chain", closed: false, vertices }));
  }
  return done(draft.finish());
};

/** One piece in place of two: along their common carrier where they have one, else straight. */
const merged = (p: Piece, q: Piece): Piece => {
  const straight: Piece = { a: p.a, b: q.b, bulge: 0 };
  const arc = arcOf(p);
  if (!arc || Math.sign(p.bulge) !== Math.sign(q.bulge)) return straight;
  const own = pieceCarrier(p);
  const shared = [0, 0.5, 1].every((t) => {
    const place = piecePoint(q, t);
    return distance(carrierNearest(own, place), place) <= RESOLUTION;
  });
  return shared ? arcBetween(p.a, q.b, arc.centre, p.bulge > 0) : straight;
};

/**
 * Takes a corner out of a chain: the two pieces at it become one, straight, or the arc where they lie on one circle; an
 * open chain loses its end piece at an end. Too few left for a chain: a refusal.
 */
export const removeCorner = (drawing: Drawing, ref: Ref): Outcome<Edit> => {
  const entity = entityOf(drawing, ref.id);
  if (entity?.kind !== "chain") return refuse("chain-needed");
  const locked = refuseLocked(drawing, entity);
  if (locked) return locked;
  const { links, put } = chainPath(entity);
  const n = entity.vertices.length;
  const k = entity.vertices.findIndex(({ id }) => id === ref.vertex);
  if (k < 0) return refuse("pick-first");
  const draft = draftEdit(drawing, "Take a corner out", "handle");
  const atOpenEnd = !entity.closed && (k === 0 || k === n - 1);
  if (links.length <= (entity.closed ? 2 : 1)) return refuse("chain-too-short");
  if (atOpenEnd) {
    draft.replace(endPiece(drawing, ref)!.without()!);
    return done(draft.finish());
  }
  const [before, own] = [links[(k + links.length - 1) % links.length]!, links[k]!];
  const made = merged(before.piece, own.piece);
  if (pieceLength(made) <= RESOLUTION) return refuse("no-length", {}, made.a);
  if (entity.closed && links.length === 3 && made.bulge === 0 && links.every(({ piece }) => piece.bulge === 0))
    return refuse("chain-too-short");
  put(
    draft,
    links.flatMap((link) => (link === own ? [] : link === before ? [{ ...before, piece: made }] : [link])),
    "replace",
  );
  return done(draft.finish());
};
