import { bulgeForRadius } from "../construct/bulgeForRadius.ts";
import { centroidOf } from "../contour/centroid.ts";
import { chainPiece, chainPieces, transformChain } from "../contour/chain.ts";
import { boundsMiddle } from "../geometry/bounds.ts";
import { arcOf, pieceLength, piecePoint, piecesBounds } from "../geometry/piece.ts";
import { BOOLEAN, ID, listOf, NUMBER, optional, POINT } from "../numeric/fields.ts";
import { done, refuse } from "../numeric/outcome.ts";
import { coordinates, withCoordinate, type Kind, type OwnHandle } from "./kind.ts";

/** A width at the start and at the end of a piece. */
const WIDTH = listOf({ is: "number", least: 0 }, 2, 2);

/** Lines and arcs joined end to end, open or closed. */
export const chainKind: Kind<"chain"> = {
  bounds: (chain) => piecesBounds(chainPieces(chain)),
  transform: (m, chain) => ({ kind: "chain", ...transformChain(m, chain) }),
  curves: (chain) =>
    chainPieces(chain).map((piece, i) => ({
      curve: { kind: "piece", ...piece },
      vertex: chain.vertices[i]!.id,
    })),
  pieces: chainPieces,
  smooth: false,
  isClosed: ({ closed }) => closed,
  renewed: ({ kind, closed, vertices }, newId) => ({
    kind,
    closed,
    vertices: vertices.map((vertex) => ({ ...vertex, id: newId() })),
  }),
  ownIds: ({ vertices }) => vertices.map(({ id }) => id),
  properties: (chain, vertex) => {
    const i = chain.vertices.findIndex(({ id }) => id === vertex);
    const own = chain.vertices[i];
    if (!own) return [];
    const piece = chainPiece(chain, i);
    const round = piece && piece.bulge !== 0 ? arcOf(piece) : undefined;
    return [
      ...coordinates("vertex", "", own.at),
      ...(round ? [{ name: "radius", label: "radius", kind: "length", value: round.radius } as const] : []),
    ];
  },
  withProperty: (chain, name, value, vertex) => {
    const i = chain.vertices.findIndex(({ id }) => id === vertex);
    const own = chain.vertices[i];
    if (!own) return refuse("pick-first");
    const bulge = name === "radius" ? bulgeForRadius(chainPiece(chain, i)!, value) : done(own.bulge);
    if (!bulge.ok) return bulge;
    const at = name === "radius" ? own.at : withCoordinate(own.at, name, value);
    const next = { ...own, at, bulge: bulge.value };
    return done({ ...chain, vertices: chain.vertices.map((one) => (one === own ? next : one)) });
  },
  handles: (chain) => {
    const { closed, vertices } = chain;
    const pieces = chainPieces(chain);
    const isEnd = (i: number): boolean => !closed && (i === 0 || i === vertices.length - 1);
    const middle = (closed ? centroidOf(pieces) : undefined) ?? boundsMiddle(piecesBounds(pieces)!);
    return [
      ...vertices.map(({ id: vertex, at }, i): OwnHandle => ({ kind: isEnd(i) ? "chain end" : "corner", at, vertex })),
      ...pieces.map((piece, i): OwnHandle => ({
        kind: "middle",
        at: piecePoint(piece, 0.5),
        vertex: vertices[i]!.id,
        length: pieceLength(piece),
      })),
      { kind: "centre", at: middle },
    ];
  },
  fields: {
    closed: BOOLEAN,
    vertices: listOf({ is: "record", of: { id: ID, at: POINT, bulge: NUMBER, width: optional(WIDTH) } }, 2),
  },
  nonsense: ({ vertices }) =>
    new Set(vertices.map(({ id }) => id)).size < vertices.length ? "two corners of a chain have one id" : undefined,
};
