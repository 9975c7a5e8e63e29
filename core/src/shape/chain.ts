import { chainPieces, transformChain } from "../contour/chain.ts";
import { piecesBounds } from "../geometry/piece.ts";
import type { Kind } from "./kind.ts";

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
  isClosed: ({ closed }) => closed,
  renewed: ({ kind, closed, vertices }, newId) => ({
    kind,
    closed,
    vertices: vertices.map((vertex) => ({ ...vertex, id: newId() })),
  }),
  ownIds: ({ vertices }) => vertices.map(({ id }) => id),
  fields: {
    closed: "boolean",
    vertices: {
      least: 2,
      listOf: {
        record: {
          id: { whole: [0, Number.MAX_SAFE_INTEGER] },
          at: "point",
          bulge: "number",
          width: { pairOf: "number", optional: true },
        },
      },
    },
  },
  nonsense: ({ vertices }) =>
    new Set(vertices.map(({ id }) => id)).size < vertices.length ? "two corners of a chain have one id" : undefined,
};
