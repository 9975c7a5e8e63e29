import { pieceBounds, plainPiece, transformPiece } from "../geometry/piece.ts";
import { oneCurve, type Kind } from "./kind.ts";

/** A line or an arc on its own. */
export const pieceKind: Kind<"piece"> = {
  ...oneCurve,
  bounds: pieceBounds,
  transform: (m, piece) => ({ kind: "piece", ...transformPiece(m, piece) }),
  curves: (curve) => [{ curve }],
  pieces: (piece) => [plainPiece(piece)],
  fields: { a: "point", b: "point", bulge: "number" },
};
