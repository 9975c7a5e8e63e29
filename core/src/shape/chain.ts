import { chainPieces, transformChain } from "../contour/chain.ts";
import { piecesBounds } from "../geometry/piece.ts";
import { BOOLEAN, ID, listOf, NUMBER, optional, POINT } from "../numeric/fields.ts";
import type { Kind } from "./kind.ts";

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
  fields: {
    closed: BOOLEAN,
    vertices: listOf({ is: "record", of: { id: ID, at: POINT, bulge: NUMBER, width: optional(WIDTH) } }, 2),
  },
  nonsense: ({ vertices }) =>
    new Set(vertices.map(({ id }) => id)).size < vertices.length ? "two corners of a chain have one id" : undefined,
};
