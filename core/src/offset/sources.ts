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

/** The pieces of sources in one list, the directions in which each starts and ends (length 1), and the corners between them. */
export type Joined = {
  readonly pieces: readonly Piece[];
  readonly starts: readonly Point[];
  readonly finishes: readonly Point[];
  readonly corners: readonly Corner[];
};

/** All pieces of some sources, each with its source. */
export const cornersOf = (sources: readonly OffsetSource[]): Joined & { readonly owners: readonly number[] } => {
  const pieces: Piece[] = [];
  const owners: number[] = [];
  const starts: Point[] = [];
  const finishes: Point[] = [];
  const corners: Corner[] = [];
  const corner = (before: number, after: number): void => {
    const u = finishes[before]!;
    const v = starts[after]!;
    const turn = Math.atan2(u.x * v.y - u.y * v.x, u.x * v.x + u.y * v.y);
    corners.push({ at: pieces[after]!.a, before, after, turn });
  };
  sources.forEach((source, owner) => {
    const first = pieces.length;
    for (const piece of source.pieces) {
      if (pieceLength(piece) <= NO_LENGTH) continue;
      const start = pieceDirection(piece, 0);
      pieces.push(piece);
      owners.push(owner);
      starts.push(start);
      finishes.push(piece.bulge === 0 ? start : pieceDirection(piece, 1));
    }
    const last = pieces.length - 1;
    if (last < first) return;
    for (let i = first; i < last; i++) corner(i, i + 1);
    if (source.closed) corner(last, first);
    else
      corners.push(
        { at: pieces[first]!.a, before: undefined, after: first, turn: 0 },
        { at: pieces[last]!.b, before: last, after: undefined, turn: 0 },
      );
  });
  return { pieces, starts, finishes, owners, corners };
};

/** A chain there and back, as one contour that opens at both ends as `ends` says. */
export const thereAndBack = (chain: readonly Piece[], ends: Ends): Joined => {
  const back = chain.map(reversePiece).reverse();
  const joined = cornersOf([{ pieces: [...chain, ...back], closed: true }]);
  const last = joined.pieces.length / 2 - 1;
  return {
    ...joined,
    corners: joined.corners.map((one) =>
      one.before === last || one.before === joined.pieces.length - 1 ? { ...one, turn: -Math.PI, cap: ends } : one,
    ),
  };
};
