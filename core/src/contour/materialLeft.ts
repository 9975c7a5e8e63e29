import { reversePiece, type Piece } from "../geometry/piece.ts";
import { enclosedArea } from "./chainMeasure.ts";
import { nestingDepths } from "./nesting.ts";

/**
 * Contours with material to the left of each: outer ones counter-clockwise, holes in them clockwise, by how deep they
 * lie.
 */
export const withMaterialLeft = (contours: readonly (readonly Piece[])[]): readonly (readonly Piece[])[] => {
  const depths = nestingDepths(contours);
  return contours.map((pieces, i) => {
    const turns = enclosedArea(pieces) > 0;
    return turns === (depths[i]! % 2 === 0) ? pieces : pieces.map(reversePiece).reverse();
  });
};
