import { pieceLength, segmentArea, type Piece } from "../geometry/piece.ts";
import { cross, subtract, type Point } from "../geometry/point.ts";
import { chainPieces, type Chain } from "./chain.ts";

/** The length along a chain, in drawing units. */
export const chainLength = (chain: Chain): number =>
  chainPieces(chain).reduce((sum, piece) => sum + pieceLength(piece), 0);

/**
 * The signed area within closed pieces, positive counter-clockwise: the shoelace formula about a point of the contour
 * (so that nothing cancels far from the origin) plus the circular segment of each arc.
 */
export const enclosedArea = (pieces: readonly Piece[]): number => {
  const origin = pieces[0]?.a;
  if (!origin) return 0;
  return pieces.reduce(
    (sum, piece) => sum + cross(subtract(piece.a, origin), subtract(piece.b, origin)) / 2 + segmentArea(piece),
    0,
  );
};

/** The signed area of a closed chain. */
export const chainArea = (chain: Chain): number => enclosedArea(chainPieces(chain));

/** The same closed or open chain run the other way; vertices keep their ids and places. */
export const reverseChain = (chain: Chain): Chain => {
  const { closed, vertices } = chain;
  const n = vertices.length;
  // the piece that started at vertex i starts, reversed, at vertex i + 1
  return {
    closed,
    vertices: vertices.map((__, k) => {
      const vertex = vertices[n - 1 - k]!;
      const before = vertices[(2 * n - 2 - k) % n]!;
      const last = !closed && k === n - 1;
      const { width: _, ...rest } = vertex;
      const width = last || !before.width ? {} : { width: [before.width[1], before.width[0]] as const };
      return { ...rest, bulge: last || before.bulge === 0 ? 0 : -before.bulge, ...width };
    }),
  };
};

/** The first and last place of an open chain; none where it is closed. */
export const chainEnds = ({ closed, vertices }: Chain): readonly Point[] =>
  closed || vertices.length === 0 ? [] : [vertices[0]!.at, vertices.at(-1)!.at];
