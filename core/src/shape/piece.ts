import { pieceBounds, plainPiece, transformPiece } from "../geometry/piece.ts";
import { NUMBER, POINT } from "../numeric/fields.ts";
import { oneCurve, type Kind } from "./kind.ts";

/** A line or an arc on its own. */
export const pieceKind: Kind<"piece"> = {
  ...oneCurve,
  bounds: pieceBounds,
  transform: (m, piece) => ({ kind: "piece", ...transformPiece(m, piece) }),
  curves: (curve) => [{ curve }],
  pieces: (piece) => [plainPiece(piece)],
  fields: { a: POINT, b: POINT, bulge: NUMBER },
};
