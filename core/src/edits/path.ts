import { chainPieces, type Vertex } from "../contour/chain.ts";
import { entityOf } from "../drawing/drawing.ts";
import type { Entity } from "../drawing/entity.ts";
import type { Ref } from "../drawing/ref.ts";
import { pieceDirection, reversePiece, type Piece } from "../geometry/piece.ts";
import { cross, distance, dot, type Point } from "../geometry/point.ts";
import { searchIndex, type DrawingIndex } from "../look/drawingIndex.ts";
import type { Id } from "../numeric/id.ts";
import { RESOLUTION, TANGENT_WITHIN } from "../numeric/tolerance.ts";
import type { EditDraft } from "./draftEdit.ts";

/**
 * A piece of a run joined end to end: of a chain with the id of the vertex it starts at, else a loose one with its own
 * id.
 */
export type Link = { readonly piece: Piece; readonly id: Id } & Pick<Vertex, "width">;
export type ChainEntity = Entity & { readonly kind: "chain" };

/** The pieces of a chain with the ids of the vertices that they start at. */
export const linksOf = (chain: ChainEntity): Link[] =>
  chainPieces(chain).map((piece, i) => {
    const { id, width } = chain.vertices[i]!;
    return { piece, id, ...(width ? { width } : {}) };
  });

/** The vertices that such links run through; an open run has one more at its end. */
export const verticesOf = (links: readonly Link[], closed: boolean, last: Vertex | undefined): Vertex[] => [
  ...links.map(({ piece, id, width }) => ({ id, at: piece.a, bulge: piece.bulge, ...(width ? { width } : {}) })),
  ...(closed || !last ? [] : [{ ...last, at: links.at(-1)!.piece.b, bulge: 0 }]),
];

/** A run of pieces, and how it is put back once its links were changed: on purpose, unless it says otherwise. */
export type Path = {
  readonly links: readonly Link[];
  readonly closed: boolean;
  readonly put: (draft: EditDraft, links: readonly Link[], how?: "replace" | "reshape") => void;
};

/** A chain as a path: its links, and whether it closes. */
export const chainPath = (chain: ChainEntity): Path => ({
  links: linksOf(chain),
  closed: chain.closed,
  put: (draft, links, how = "reshape") => {
    // a rounded corner that was put back stands behind its edge; the start point stays where it was
    const start = chain.closed
      ? Math.max(
          0,
          links.findIndex(({ id }) => id === chain.vertices[0]!.id),
        )
      : 0;
    const inOrder = [...links.slice(start), ...links.slice(0, start)];
    const last = chain.closed ? undefined : chain.vertices.at(-1);
    draft[how]({ ...chain, vertices: verticesOf(inOrder, chain.closed, last) });
  },
});

/**
 * As many loose pieces as are followed from the one that is changed: its neighbour, that one's own, and one to spare.
 */
const FOLLOWED = 3;

/**
 * The path that a piece lies in: its chain, or the loose pieces of its layer that meet it, each at an end of their own.
 */
export const pathOf = (index: DrawingIndex, ref: Ref): Path | undefined => {
  const entity = entityOf(index.drawing, ref.id);
  if (entity?.kind === "chain") return chainPath(entity);
  return entity?.kind === "piece" ? loosePath(index, entity) : undefined;
};

export type PieceEntity = Entity & { readonly kind: "piece" };
type Step = { readonly entity: PieceEntity; readonly turned: boolean };

/** The loose pieces that a loose piece runs on into at both of its ends, at most so many each way, in running order. */
const stepsFrom = (
  index: DrawingIndex,
  own: PieceEntity,
  followed: number,
): { readonly steps: readonly Step[]; readonly closed: boolean } => {
  const before: Step[] = [];
  const after: Step[] = [{ entity: own, turned: false }];
  const used = new Set([own.id]);
  for (const ahead of [true, false]) {
    for (let i = 0; i < followed; i++) {
      const { entity, turned } = ahead ? after.at(-1)! : (before.at(-1) ?? after[0]!);
      const end = turned === ahead ? entity.a : entity.b;
      const found = endingAt(index, end, own.layer).filter(({ id }) => id !== entity.id);
      const [next] = found;
      if (!next || found.length > 1) break;
      if (used.has(next.id)) {
        if (used.size > 2) return { steps: [...before.reverse(), ...after], closed: true };
        break;
      }
      used.add(next.id);
      const startsThere = distance(next.a, end) <= RESOLUTION;
      const step = { entity: next, turned: startsThere !== ahead };
      (ahead ? after : before).push(step);
    }
  }
  return { steps: [...before.reverse(), ...after], closed: false };
};

const loosePath = (index: DrawingIndex, own: PieceEntity): Path => {
  const { steps, closed } = stepsFrom(index, own, FOLLOWED);
  return {
    links: steps.map(({ entity, turned }) => ({ piece: turned ? reversePiece(entity) : entity, id: entity.id })),
    closed,
    put: (draft, links, how = "reshape") => {
      for (const { entity, turned } of steps) {
        const link = links.find(({ id }) => id === entity.id);
        if (!link) draft.remove(entity.id);
        else if (link.piece !== entity) {
          const { a, b, bulge } = turned ? reversePiece(link.piece) : link.piece;
          if (a !== entity.a || b !== entity.b || bulge !== entity.bulge) draft[how]({ ...entity, a, b, bulge });
        }
      }
    },
  };
};

/** The loose pieces of a layer that end at a place. */
const endingAt = (index: DrawingIndex, { x, y }: Point, layer: Id): readonly PieceEntity[] => {
  const box = { minX: x - RESOLUTION, minY: y - RESOLUTION, maxX: x + RESOLUTION, maxY: y + RESOLUTION };
  const found = new Map<Id, PieceEntity>();
  for (const { ref } of searchIndex(index, box)) {
    const entity = entityOf(index.drawing, ref.id);
    if (entity?.kind !== "piece" || entity.layer !== layer) continue;
    if ([entity.a, entity.b].some((end) => distance(end, { x, y }) <= RESOLUTION)) found.set(entity.id, entity);
  }
  return [...found.values()];
};

/** True where a piece runs on into the next one without a corner. */
export const runsOn = (before: Piece, after: Piece): boolean => {
  const [u, v] = [pieceDirection(before, 1), pieceDirection(after, 0)];
  return Math.abs(cross(u, v)) <= TANGENT_WITHIN && dot(u, v) > 0;
};

/** The positions before and after one in a path; undefined at the open ends. */
export const beside = (
  { links, closed }: Pick<Path, "links" | "closed">,
  i: number,
): readonly [number | undefined, number | undefined] => {
  const n = links.length;
  if (n < 2) return [undefined, undefined];
  return [i > 0 ? i - 1 : closed ? n - 1 : undefined, i + 1 < n ? i + 1 : closed ? 0 : undefined];
};
