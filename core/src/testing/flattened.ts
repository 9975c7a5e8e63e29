import { piecePoint, sweepOf, pieceRadius, type Piece } from "../geometry/piece.ts";
import type { Point } from "../geometry/point.ts";

/**
 * Points along a piece from its start (without its end), between which no chord lies farther than `chord` off the arc:
 * what libraries that know straight lines only are given. Sagitta r (1 - cos(step / 2)).
 */
export const flattened = (piece: Piece, chord: number): readonly Point[] => {
  if (piece.bulge === 0) return [piece.a];
  const step = 2 * Math.acos(Math.max(0, 1 - chord / pieceRadius(piece)));
  const count = Math.max(1, Math.ceil(Math.abs(sweepOf(piece.bulge)) / step));
  return Array.from({ length: count }, (_, i) => (i === 0 ? piece.a : piecePoint(piece, i / count)));
};
