import { transformChain } from "../contour/chain.ts";
import { transformCircle } from "../geometry/circle.ts";
import { transformEllipse } from "../geometry/ellipse.ts";
import { transformEndless } from "../geometry/endless.ts";
import { transformFree } from "../geometry/free.ts";
import { transformPiece } from "../geometry/piece.ts";
import { transformPoint, type Similarity } from "../geometry/transform.ts";
import { done, refuse, type Outcome } from "../numeric/outcome.ts";
import { entityOf, refuseLocked, type Drawing } from "./drawing.ts";
import { draftEdit, type Edit } from "./edit.ts";
import type { Id, Shape } from "./entity.ts";

/** A shape under a similarity. */
export const transformShape = (m: Similarity, shape: Shape): Shape => {
  switch (shape.kind) {
    case "point":
      return { kind: "point", at: transformPoint(m, shape.at) };
    case "piece":
      return { kind: "piece", ...transformPiece(m, shape) };
    case "circle":
      return { kind: "circle", ...transformCircle(m, shape) };
    case "chain":
      return { kind: "chain", ...transformChain(m, shape) };
    case "endless":
      return { kind: "endless", ...transformEndless(m, shape) };
    case "ellipse":
      return { kind: "ellipse", ...transformEllipse(m, shape) };
    case "free":
      return { kind: "free", ...transformFree(m, shape) };
  }
};

/**
 * Moves, turns, mirrors or scales what is named, in place: ids, layers and attachments stay. Nothing named, or something on a locked
 * layer: a refusal.
 */
export const transformEntities = (
  drawing: Drawing,
  ids: readonly Id[],
  m: Similarity,
  label: string,
  gesture: string,
): Outcome<Edit> => {
  const entities = ids.map((id) => entityOf(drawing, id)).filter((entity) => entity !== undefined);
  if (entities.length === 0) return refuse("nothing-selected");
  const locked = refuseLocked(drawing, ...entities);
  if (locked) return locked;
  const draft = draftEdit(drawing, label, gesture);
  for (const entity of entities) {
    const { id, layer, line } = entity;
    draft.replace({ ...transformShape(m, entity), id, layer, ...(line ? { line } : {}) });
  }
  return done(draft.finish());
};
