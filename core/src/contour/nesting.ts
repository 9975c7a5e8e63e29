import Flatbush from "flatbush";
import { boundsExtent } from "../geometry/bounds.ts";
import { pieceNearest, piecePoint, type Piece, piecesBounds } from "../geometry/piece.ts";
import type { Point } from "../geometry/point.ts";
import { resolutionFor } from "../numeric/tolerance.ts";
import { windingNumber } from "./winding.ts";

/** How deep each contour lies: 0 for outermost ones, 1 for holes in them, and so on. Contours that don't cross are assumed. */
export const nestingDepths = (contours: readonly (readonly Piece[])[]): readonly number[] => {
  if (contours.length === 0) return [];
  const boxes = contours.map((pieces) => piecesBounds(pieces)!);
  const tree = new Flatbush(contours.length);
  for (const box of boxes) tree.add(box.minX, box.minY, box.maxX, box.maxY);
  tree.finish();
  return contours.map((pieces, i) => {
    const box = boxes[i]!;
    let depth = 0;
    for (const j of tree.search(box.minX, box.minY, box.maxX, box.maxY)) {
      const other = boxes[j]!;
      const holds =
        other.minX <= box.minX && other.minY <= box.minY && other.maxX >= box.maxX && other.maxY >= box.maxY;
      if (j === i || !holds) continue;
      const inside =
        windingNumber(contours[j]!, clearPoint(pieces, contours[j]!, resolutionFor(boundsExtent(other)))) !== 0;
      // of two equal contours only the later one counts as inside
      if (inside && !(sameBox(box, other) && j > i)) depth += 1;
    }
    return depth;
  });
};

const sameBox = (p: object, q: object): boolean => JSON.stringify(p) === JSON.stringify(q);

/** A point of `pieces` that does not lie on `other`, so that inside and outside are told apart; the first end if all do. */
const clearPoint = (pieces: readonly Piece[], other: readonly Piece[], resolution: number): Point => {
  for (const t of [0, 0.5, 0.29]) {
    for (const piece of pieces) {
      const p = piecePoint(piece, t);
      if (other.every((edge) => pieceNearest(edge, p).distance > resolution)) return p;
    }
  }
  return pieces[0]!.a;
};
