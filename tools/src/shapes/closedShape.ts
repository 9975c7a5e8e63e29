import { chainOfPieces } from "@ash-edge/core/contour";
import type { Ref } from "@ash-edge/core/drawing";
import { draftEdit } from "@ash-edge/core/edits";
import type { Piece } from "@ash-edge/core/geometry";
import type { Outcome } from "@ash-edge/core/numeric";
import { linkCallout } from "../linking.ts";
import { pieceShape } from "../making.ts";
import { refused, nothing, type Tool, type Given, type ToolContext, type Proposal } from "../tool.ts";

/** A closed chain of pieces; `links` says which of its pieces answer which blank. */
export const closedShape = (
  tool: Tool,
  pieces: Outcome<readonly Piece[]>,
  firm: boolean,
  given: Given,
  { drawing, layer }: ToolContext,
  rest: Pick<Proposal, "live" | "note"> = {},
  links: Readonly<Record<string, (piece: Piece, i: number) => boolean>> = {},
): Proposal => {
  if (!pieces.ok) return firm ? refused(pieces) : nothing;
  const made = pieces.value;
  const edit = () => {
    const draft = draftEdit(drawing, tool.name, tool.id);
    const chain = chainOfPieces(made, true, draft.newId);
    const id = draft.add(chain, layer);
    for (const [blank, fits] of Object.entries(links)) {
      const refs = made.flatMap((piece, i): Ref[] => (fits(piece, i) ? [{ id, vertex: chain.vertices[i]!.id }] : []));
      if (refs.length > 0) linkCallout(draft, given.callout(blank), refs);
    }
    return draft.finish();
  };
  return { ways: [{ preview: made.map((piece) => ({ shape: pieceShape(piece) })), edit }], ...rest };
};
