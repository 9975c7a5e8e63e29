import { greatest } from "../numeric/greatest.ts";
import { boxTree } from "../geometry/boxTree.ts";
import { pieceNearest, piecePoint, piecesBounds, type Piece } from "../geometry/piece.ts";
import type { Point } from "../geometry/point.ts";
import { resolutionFor } from "../numeric/tolerance.ts";
import { windingNumber } from "./winding.ts";

/**
 * How deep each contour lies: 0 for outermost ones, 1 for holes in them, and so on. Contours that don't cross are
 * assumed.
 */
export const nestingDepths = (contours: readonly (readonly Piece[])[]): readonly number[] => {
  if (contours.length === 0) return [];
  const boxes = new Float64Array(4 * contours.length);
  contours.forEach((pieces, i) => {
    const { minX, minY, maxX, maxY } = piecesBounds(pieces)!;
    boxes.set([minX, minY, maxX, maxY], 4 * i);
  });
  const depths = contours.map(() => 0);
  /** Counts one contour as a step deeper where it lies inside another. */
  const look = (i: number, j: number): void => {
    const [p, q] = [4 * i, 4 * j];
    if (
      boxes[q]! > boxes[p]! ||
      boxes[q + 1]! > boxes[p + 1]! ||
      boxes[q + 2]! < boxes[p + 2]! ||
      boxes[q + 3]! < boxes[p + 3]!
    )
      return;
    const extent = greatest([0, 1, 2, 3].map((k) => Math.abs(boxes[q + k]!)));
    const inside = windingNumber(contours[j]!, clearPoint(contours[i]!, contours[j]!, resolutionFor(extent))) !== 0;
    // of two equal contours only the later one counts as inside
    const same = [0, 1, 2, 3].every((k) => boxes[p + k] === boxes[q + k]);
    if (inside && !(same && j > i)) depths[i]! += 1;
  };
  boxTree(boxes).pairs(0, (i, j) => {
    look(i, j);
    look(j, i);
  });
  return depths;
};

/**
 * A point of `pieces` that does not lie on `other`, so that inside and outside are told apart; the first end if all do.
 */
const clearPoint = (pieces: readonly Piece[], other: readonly Piece[], resolution: number): Point => {
  for (const t of [0, 0.5, 0.29]) {
    for (const piece of pieces) {
      const p = piecePoint(piece, t);
      if (other.every((edge) => pieceNearest(edge, p).distance > resolution)) return p;
    }
  }
  return pieces[0]!.a;
};
