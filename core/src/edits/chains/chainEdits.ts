import { chainPieces, type Vertex } from "../../contour/chain.ts";
import { reverseChain } from "../../contour/chainMeasure.ts";
import { entityOf, refuseLocked, type Drawing } from "../../drawing/drawing.ts";
import type { Edit } from "../../drawing/edit.ts";
import { lookOf, reshaped, type Entity } from "../../drawing/entity.ts";
import { plainPiece } from "../../geometry/piece.ts";
import { distance, type Point } from "../../geometry/point.ts";
import type { Id } from "../../numeric/id.ts";
import { done, refuse, type Outcome } from "../../numeric/outcome.ts";
import { RESOLUTION } from "../../numeric/tolerance.ts";
import { draftEdit } from "../draftEdit.ts";

type ChainEntity = Entity & { readonly kind: "chain" };

const chainOf = (drawing: Drawing, id: Id): Outcome<ChainEntity> => {
  const entity = entityOf(drawing, id);
  if (entity?.kind !== "chain") return refuse("chain-needed");
  return refuseLocked(drawing, entity) ?? done(entity);
};

/** Turns chains into single lines and arcs, on their layers. What is no chain is passed over. */
export const takeApart = (drawing: Drawing, ids: readonly Id[]): Outcome<{ edit: Edit; pieces: number }> => {
  const chains = ids.map((id) => chainOf(drawing, id));
  const refused = chains.find((chain) => !chain.ok && chain.refusal.code === "layer-locked");
  if (refused && !refused.ok) return refused;
  const standing = chains.flatMap((chain) => (chain.ok ? [chain.value] : []));
  if (standing.length === 0) return refuse("chain-needed");
  const draft = draftEdit(drawing, "Take apart", "take-apart");
  let pieces = 0;
  for (const chain of standing) {
    chainPieces(chain).forEach((piece, i) => {
      const shape = { kind: "piece" as const, ...plainPiece(piece) };
      if (i === 0) draft.replace(reshaped(chain, shape));
      else draft.add({ ...shape, ...lookOf(chain) }, chain.layer);
      pieces += 1;
    });
  }
  return done({ edit: draft.finish(), pieces });
};

/** The vertex of a chain nearest to `at`. */
export const nearestVertex = ({ vertices }: Pick<ChainEntity, "vertices">, at: Point): Vertex =>
  vertices.reduce((best, vertex) => (distance(vertex.at, at) < distance(best.at, at) ? vertex : best));

/** Opens a contour at its corner nearest to `at`; closes an open chain with a line, or by its ends where they meet. */
export const openOrClose = (drawing: Drawing, id: Id, at: Point): Outcome<{ edit: Edit; opened: boolean }> => {
  const chain = chainOf(drawing, id);
  if (!chain.ok) return chain;
  const { value } = chain;
  const draft = draftEdit(drawing, value.closed ? "Open" : "Close", "open-close");
  if (value.closed) {
    const first = nearestVertex(value, at);
    const i = value.vertices.indexOf(first);
    const turned = [...value.vertices.slice(i), ...value.vertices.slice(0, i)];
    draft.replace({ ...value, closed: false, vertices: [...turned, { id: draft.newId(), at: first.at, bulge: 0 }] });
    return done({ edit: draft.finish(), opened: true });
  }
  const [first, last] = [value.vertices[0]!, value.vertices.at(-1)!];
  const meets = distance(first.at, last.at) <= RESOLUTION;
  if (value.vertices.length < 3) return refuse("chain-too-short");
  draft.replace({ ...value, closed: true, vertices: meets ? value.vertices.slice(0, -1) : value.vertices });
  return done({ edit: draft.finish(), opened: false });
};

/**
 * Lets a contour start at its corner nearest to `at`, and run the other way round where that is wanted; an open chain
 * can only be turned.
 */
export const startAt = (drawing: Drawing, id: Id, at: Point, turn: boolean): Outcome<Edit> => {
  const chain = chainOf(drawing, id);
  if (!chain.ok) return chain;
  const { value } = chain;
  const i = value.closed ? value.vertices.indexOf(nearestVertex(value, at)) : 0;
  const started = { closed: value.closed, vertices: [...value.vertices.slice(i), ...value.vertices.slice(0, i)] };
  const draft = draftEdit(drawing, turn ? "Start point and direction" : "Start point", "start-point");
  if (!turn) {
    draft.replace({ ...value, ...started });
    return done(draft.finish());
  }
  const turned = reverseChain(started);
  const vertices = value.closed ? [turned.vertices.at(-1)!, ...turned.vertices.slice(0, -1)] : turned.vertices;
  draft.replace({ ...value, vertices });
  return done(draft.finish());
};
