import { chainOfPieces } from "../contour/chain.ts";
import { refuseLocked, type Drawing } from "../drawing/drawing.ts";
import type { Edit } from "../drawing/edit.ts";
import type { Ref } from "../drawing/ref.ts";
import type { Piece } from "../geometry/piece.ts";
import type { Id } from "../numeric/id.ts";
import { done, type Outcome } from "../numeric/outcome.ts";
import { renewedShape } from "../shape/kinds.ts";
import type { Shape } from "../shape/shape.ts";
import { draftEdit, type EditDraft } from "./draftEdit.ts";

/** What a tool may do to an edit that the core makes: tie callouts to what was made. */
export type Tie = Pick<EditDraft, "link">;

/** What is added, what people read of it, what made it, and onto which layer. */
export type Adding = {
  readonly label: string;
  readonly gesture: string;
  readonly layer: Id;
  readonly shapes: readonly Shape[];
};

/**
 * Adds shapes to a layer, with ids of their own in them; `tie` is told their ids, in order. A locked layer: a refusal.
 */
export const addShapes = (
  drawing: Drawing,
  { label, gesture, layer, shapes }: Adding,
  tie?: (draft: Tie, ids: readonly Id[]) => void,
): Outcome<Edit> => {
  const locked = refuseLocked(drawing, { layer });
  if (locked) return locked;
  const draft = draftEdit(drawing, label, gesture);
  const ids = shapes.map((shape) => draft.add(renewedShape(shape, draft.newId), layer));
  tie?.(draft, ids);
  return done(draft.finish());
};

/** Adds a closed chain of pieces to a layer; `tie` is told the reference of each piece. A locked layer: a refusal. */
export const addContour = (
  drawing: Drawing,
  { label, gesture, layer }: Omit<Adding, "shapes">,
  pieces: readonly Piece[],
  tie?: (draft: Tie, refs: readonly Ref[]) => void,
): Outcome<Edit> => {
  const locked = refuseLocked(drawing, { layer });
  if (locked) return locked;
  const draft = draftEdit(drawing, label, gesture);
  const chain = chainOfPieces(pieces, true, draft.newId);
  const id = draft.add(chain, layer);
  tie?.(
    draft,
    chain.vertices.map((vertex): Ref => ({ id, vertex: vertex.id })),
  );
  return done(draft.finish());
};
