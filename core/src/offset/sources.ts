import { NO_LENGTH } from "../numeric/tolerance.ts";
import { pieceLength, reversePiece, sweepOf, type Piece } from "../geometry/piece.ts";
import type { Point } from "../geometry/point.ts";

/** A contour or an open chain to be offset, its pieces end to end in the direction of travel. */
export type OffsetSource = { readonly pieces: readonly Piece[]; readonly closed: boolean };

export type Corners = "round" | "sharp" | "flat";

/**
 * How a band round an open chain ends: round about its last point, straight across it, or square, run on by the
 * distance.
 */
export type Ends = "round" | "flat" | "square";

/**
 * Where pieces of sources meet, and where open ones end: for each corner the piece before and the one after it, as
 * places in the list of all pieces, -1 for none.
 */
export type CornerList = {
  readonly before: Int32Array;
  readonly after: Int32Array;
  /**
   * The tangent of half of what the direction turns there, left positive; infinite where it turns back, 0 at an end.
   */
  readonly halfTurn: Float64Array;
  /** The ends of a band, where the source turns back on itself. */
  readonly caps: ReadonlyMap<number, Ends>;
};

/**
 * The pieces of sources in one list, the directions in which each starts and ends (x, y, x, y, of length 1), and the
 * corners between.
 */
export type Joined = {
  readonly pieces: readonly Piece[];
  readonly directions: Float64Array;
  readonly lengths: Float64Array;
  readonly corners: CornerList;
};

/** All pieces of some sources, each with its source. */
export const cornersOf = (sources: readonly OffsetSource[]): Joined & { readonly owners: readonly number[] } => {
  const pieces: Piece[] = [];
  const owners: number[] = [];
  const ranges: { first: number; last: number; closed: boolean }[] = [];
  sources.forEach((source, owner) => {
    const first = pieces.length;
    for (let i = 0; i < source.pieces.length; i++) {
      const piece = source.pieces[i]!;
      const { a, b } = piece;
      // a chord in x or y tells most
      const chord = Math.max(Math.abs(b.x - a.x), Math.abs(b.y - a.y));
      if (chord <= NO_LENGTH && pieceLength(piece) <= NO_LENGTH) continue;
      pieces.push(piece);
      owners.push(owner);
    }
    if (pieces.length > first) ranges.push({ first, last: pieces.length - 1, closed: source.closed });
  });
  const directions = directionsOf(pieces);
  const lengths = new Float64Array(pieces.length);
  for (let i = 0; i < pieces.length; i++) lengths[i] = pieceLength(pieces[i]!);
  const count = ranges.reduce((sum, { first, last, closed }) => sum + last - first + (closed ? 1 : 2), 0);
  const before = new Int32Array(count).fill(-1);
  const after = new Int32Array(count).fill(-1);
  const halfTurn = new Float64Array(count);
  let k = 0;
  const corner = (p: number, q: number): void => {
    before[k] = p;
    after[k] = q;
    if (p >= 0 && q >= 0)
      halfTurn[k] = halfTurnOf(
        directions[4 * p + 2]!,
        directions[4 * p + 3]!,
        directions[4 * q]!,
        directions[4 * q + 1]!,
      );
    k += 1;
  };
  for (const { first, last, closed } of ranges) {
    for (let i = first; i < last; i++) corner(i, i + 1);
    if (closed) corner(last, first);
    else {
      corner(-1, first);
      corner(last, -1);
    }
  }
  return { pieces, directions, lengths, owners, corners: { before, after, halfTurn, caps: new Map() } };
};

/** The place of a corner. */
export const cornerPlace = ({ pieces, corners: { before, after } }: Joined, corner: number): Point =>
  after[corner]! >= 0 ? pieces[after[corner]!]!.a : pieces[before[corner]!]!.b;

const directionsOf = (pieces: readonly Piece[]): Float64Array => {
  const directions = new Float64Array(4 * pieces.length);
  for (let i = 0; i < pieces.length; i++) {
    const { a, b, bulge } = pieces[i]!;
    const x = b.x - a.x;
    const y = b.y - a.y;
    const chord = Math.sqrt(x * x + y * y);
    // an arc starts and ends half of its sweep to either side of its chord
    const half = bulge === 0 ? 0 : sweepOf(bulge) / 2;
    const [c, s] = half === 0 ? [1, 0] : [Math.cos(half), Math.sin(half)];
    directions[4 * i] = (x * c + y * s) / chord;
    directions[4 * i + 1] = (y * c - x * s) / chord;
    directions[4 * i + 2] = (x * c - y * s) / chord;
    directions[4 * i + 3] = (y * c + x * s) / chord;
  }
  return directions;
};

/** tan(t / 2) = sin t / (1 + cos t) = (1 - cos t) / sin t, of which the one is taken that does not cancel. */
const halfTurnOf = (ux: number, uy: number, vx: number, vy: number): number => {
  const sine = ux * vy - uy * vx;
  const cosine = ux * vx + uy * vy;
  return cosine > 0 ? sine / (1 + cosine) : (1 - cosine) / sine;
};

/** A chain there and back, as one contour that opens at both ends as `ends` says. */
export const thereAndBack = (chain: readonly Piece[], ends: Ends): Joined => {
  const back = chain.map(reversePiece).reverse();
  const { pieces, directions, lengths, corners } = cornersOf([{ pieces: [...chain, ...back], closed: true }]);
  const caps = new Map<number, Ends>();
  corners.before.forEach((before, corner) => {
    if (before !== pieces.length / 2 - 1 && before !== pieces.length - 1) return;
    caps.set(corner, ends);
    corners.halfTurn[corner] = -Infinity;
  });
  return { pieces, directions, lengths, corners: { ...corners, caps } };
};
