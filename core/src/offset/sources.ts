import { pieceDirection, pieceLength, reversePiece, type Piece } from "../geometry/piece.ts";
import type { Point } from "../geometry/point.ts";

/** A contour or an open chain to be offset, its pieces end to end in the direction of travel. */
export type OffsetSource = { readonly pieces: readonly Piece[]; readonly closed: boolean };

export type Corners = "round" | "sharp" | "flat";

/** How a band round an open chain ends: round about its last point, straight across it, or square, run on by the distance. */
export type Ends = "round" | "flat" | "square";

/** Where two pieces of a source meet, or one ends: `before` and `after` as places in the list of all pieces. */
export type Corner = {
  readonly at: Point;
  readonly before: number | undefined;
  readonly after: number | undefined;
  /** How far the direction turns there, left positive; 0 at an end. */
  readonly turn: number;
  /** The end of a band, where the source turns back on itself. */
  readonly cap?: Ends;
};

/** A turn under this (radians) is smooth: joined at the bisector the result is off by turn² / 8 of the distance, 5e-11 of it. */
export const SMOOTH_TURN = 2e-5;

/** Pieces without length take part in nothing. */
const NO_LENGTH = 1e-9;

/** All pieces of some sources in one list, each with its source, and the corners between them. */
export const cornersOf = (
  sources: readonly OffsetSource[],
): { readonly pieces: readonly Piece[]; readonly owners: readonly number[]; readonly corners: readonly Corner[] } => {
  const pieces: Piece[] = [];
  const owners: number[] = [];
  const corners: Corner[] = [];
  sources.forEach((source, owner) => {
    const own = source.pieces.filter((piece) => pieceLength(piece) > NO_LENGTH);
    if (own.length === 0) return;
    const first = pieces.length;
    for (const piece of own) {
      pieces.push(piece);
      owners.push(owner);
    }
    const last = pieces.length - 1;
    for (let i = first; i < last; i++) corners.push(corner(pieces, i, i + 1));
    if (source.closed) corners.push(corner(pieces, last, first));
    else
      corners.push(
        { at: pieces[first]!.a, before: undefined, after: first, turn: 0 },
        { at: pieces[last]!.b, before: last, after: undefined, turn: 0 },
      );
  });
  return { pieces, owners, corners };
};

const corner = (pieces: readonly Piece[], before: number, after: number): Corner => {
  const [u, v] = [pieceDirection(pieces[before]!, 1), pieceDirection(pieces[after]!, 0)];
  return {
    at: pieces[after]!.a,
    before,
    after,
    turn: Math.atan2(u.x * v.y - u.y * v.x, u.x * v.x + u.y * v.y),
  };
};

/** A chain there and back, as one contour that opens at both ends as `ends` says. */
export const thereAndBack = (
  chain: readonly Piece[],
  ends: Ends,
): { readonly pieces: readonly Piece[]; readonly corners: readonly Corner[] } => {
  const back = chain.map(reversePiece).reverse();
  const { pieces, corners } = cornersOf([{ pieces: [...chain, ...back], closed: true }]);
  const last = pieces.length / 2 - 1;
  return {
    pieces,
    corners: corners.map((one) =>
      one.before === last || one.before === pieces.length - 1 ? { ...one, turn: -Math.PI, cap: ends } : one,
    ),
  };
};
