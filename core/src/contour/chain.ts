import { pieceNearest, piecePoint, splitPiece, type Piece } from "../geometry/piece.ts";
import type { Point } from "../geometry/point.ts";
import { isMirror, scaleOf, transformPoint, type Similarity } from "../geometry/transform.ts";
import type { Id } from "../numeric/id.ts";

/** A corner of a chain; `bulge` is that of the piece that starts here. */
export type Vertex = {
  readonly id: Id;
  readonly at: Point;
  readonly bulge: number;
  /** The width that the piece from here was given at its start and its end, until the contour round it is made. */
  readonly width?: readonly [from: number, to: number];
};

export type Chain = { readonly closed: boolean; readonly vertices: readonly Vertex[] };

/** The piece of a closed or open chain that starts at vertex number `i`; undefined at the end of an open one. */
export const chainPiece = ({ closed, vertices }: Chain, i: number): Piece | undefined => {
  const from = vertices[i];
  const to = vertices[i + 1] ?? (closed ? vertices[0] : undefined);
  return from && to ? { a: from.at, b: to.at, bulge: from.bulge } : undefined;
};

/** The pieces of a chain in its order; a closed one comes back to its first vertex. */
export const chainPieces = (chain: Chain): readonly Piece[] =>
  chain.vertices.map((_, i) => chainPiece(chain, i)).filter((piece) => piece !== undefined);

/** Pieces end to end as a chain; `newId` numbers its corners. */
export const chainOfPieces = (
  pieces: readonly Piece[],
  closed: boolean,
  newId: () => Id,
): { readonly kind: "chain" } & Chain => {
  const vertices = pieces.map(({ a, bulge }): Vertex => ({ id: newId(), at: a, bulge }));
  if (!closed) vertices.push({ id: newId(), at: pieces.at(-1)!.b, bulge: 0 });
  return { kind: "chain", closed, vertices };
};

/** A place on a chain: the number of its piece plus the fraction of that piece's length. */
export type ChainParameter = number;

/** The point of a chain at `s`, which is brought into its span. An empty chain has none. */
export const chainPoint = (chain: Chain, s: ChainParameter): Point | undefined => {
  const pieces = chainPieces(chain);
  if (pieces.length === 0) return chain.vertices[0]?.at;
  const within = Math.min(Math.max(s, 0), pieces.length);
  const i = Math.min(Math.floor(within), pieces.length - 1);
  return piecePoint(pieces[i]!, within - i);
};

/** The place of a chain nearest to `p`, the point there and its distance; undefined for an empty chain. */
export const chainNearest = (
  chain: Chain,
  p: Point,
): { s: ChainParameter; at: Point; distance: number } | undefined => {
  let best: { s: number; at: Point; distance: number } | undefined;
  chainPieces(chain).forEach((piece, i) => {
    const { t, at, distance } = pieceNearest(piece, p);
    if (!best || distance < best.distance) best = { s: i + t, at, distance };
  });
  return best;
};

/**
 * The chain cut at `s`: an open one into two, a closed one into one open chain that starts and ends there. The parts
 * share the cut as the same numbers; vertices keep their ids, and the new ones take theirs from `newId`. At an end
 * there is nothing to cut: the chain itself.
 */
export const splitChain = (chain: Chain, s: ChainParameter, newId: () => number): readonly Chain[] => {
  const { closed, vertices } = chain;
  const i = Math.floor(s);
  const piece = chainPiece(chain, i);
  if (!piece) return [chain];
  const atVertex = s === i;
  if (atVertex && i === 0 && !closed) return [chain];
  const [head, tail] = atVertex ? [undefined, piece] : splitPiece(piece, s - i);
  const start: Vertex = atVertex ? vertices[i]! : { id: newId(), at: tail.a, bulge: tail.bulge };
  const before = vertices
    .slice(0, i + 1)
    .map((vertex, k) => (k === i && head ? { ...vertex, bulge: head.bulge } : vertex));
  const end: Vertex = { id: newId(), at: start.at, bulge: 0 };
  const first = atVertex ? [...before.slice(0, -1), end] : [...before, end];
  const second = [start, ...vertices.slice(i + 1)];
  if (!closed) return [first, second].map((part) => ({ closed: false, vertices: part }));
  return [{ closed: false, vertices: [...second, ...first] }];
};

/** The chain moved, turned, scaled or mirrored; a mirror turns its bulges over. */
export const transformChain = (m: Similarity, { closed, vertices }: Chain): Chain => ({
  closed,
  vertices: vertices.map((vertex) => ({
    ...vertex,
    at: transformPoint(m, vertex.at),
    bulge: isMirror(m) && vertex.bulge !== 0 ? -vertex.bulge : vertex.bulge,
    ...(vertex.width ? { width: [vertex.width[0] * scaleOf(m), vertex.width[1] * scaleOf(m)] as const } : {}),
  })),
});
