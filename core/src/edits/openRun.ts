import { chainPieces } from "../contour/chain.ts";
import { entityOf } from "../drawing/drawing.ts";
import type { Entity } from "../drawing/entity.ts";
import { plainPiece, reversePiece, type Piece } from "../geometry/piece.ts";
import { distance, type Point } from "../geometry/point.ts";
import { weldPieces } from "../contour/joining.ts";
import { searchIndex, type DrawingIndex } from "../look/drawingIndex.ts";
import type { Id } from "../numeric/id.ts";
import { RESOLUTION } from "../numeric/tolerance.ts";

/** A loose piece or an open chain as the pieces of a run; undefined for anything that has no two free ends. */
const piecesOf = (entity: Entity | undefined): readonly Piece[] | undefined =>
  entity?.kind === "piece"
    ? [plainPiece(entity)]
    : entity?.kind === "chain" && !entity.closed
      ? chainPieces(entity).map(plainPiece)
      : undefined;

const turnedRound = (pieces: readonly Piece[]): readonly Piece[] => pieces.map(reversePiece).reverse();

/** What begins at a place, run away from it: of one layer, not yet taken; undefined where none or several do. */
const goingOn = (
  index: DrawingIndex,
  at: Point,
  layer: Id,
  taken: ReadonlySet<Id>,
): { readonly id: Id; readonly pieces: readonly Piece[] } | undefined => {
  const box = { minX: at.x - RESOLUTION, minY: at.y - RESOLUTION, maxX: at.x + RESOLUTION, maxY: at.y + RESOLUTION };
  const found = new Map<Id, readonly Piece[]>();
  for (const { ref } of searchIndex(index, box)) {
    const entity = entityOf(index.drawing, ref.id);
    const pieces = piecesOf(entity);
    if (!pieces || entity!.layer !== layer || taken.has(ref.id)) continue;
    if (distance(pieces[0]!.a, at) <= RESOLUTION) found.set(ref.id, pieces);
    else if (distance(pieces.at(-1)!.b, at) <= RESOLUTION) found.set(ref.id, turnedRound(pieces));
  }
  const [only] = found;
  return only && found.size === 1 ? { id: only[0], pieces: only[1] } : undefined;
};

/**
 * All loose pieces and open chains that meet one of them end to end, as one run with its ids; what branches off ends
 * it. Undefined for what has no two free ends.
 */
export const openRun = (
  index: DrawingIndex,
  own: Entity,
): { readonly ids: readonly Id[]; readonly pieces: readonly Piece[]; readonly closed: boolean } | undefined => {
  const start = piecesOf(own);
  if (!start) return undefined;
  const taken = new Set([own.id]);
  const ids: Id[] = [own.id];
  let pieces = [...start];
  const isClosed = (): boolean => pieces.length > 1 && distance(pieces.at(-1)!.b, pieces[0]!.a) <= RESOLUTION;
  for (const turned of [false, true]) {
    if (isClosed()) break;
    if (turned) pieces = [...turnedRound(pieces)];
    for (let next = goingOn(index, pieces.at(-1)!.b, own.layer, taken); next && !isClosed();) {
      taken.add(next.id);
      ids.push(next.id);
      for (const piece of next.pieces) pieces.push(piece);
      next = isClosed() ? undefined : goingOn(index, pieces.at(-1)!.b, own.layer, taken);
    }
    if (turned) {
      pieces = [...turnedRound(pieces)];
      ids.reverse();
    }
  }
  const closed = isClosed();
  return { ids, pieces: weldPieces(pieces, closed), closed };
};
