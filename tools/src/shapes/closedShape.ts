import { addContour } from "@ash-edge/core/edits";
import type { Piece } from "@ash-edge/core/geometry";
import type { Outcome } from "@ash-edge/core/numeric";
import { linkCallout } from "../linking.ts";
import { pieceShape } from "../making.ts";
import { refused, nothing, type Tool, type Given, type ToolContext, type Proposal } from "../tool.ts";

/** A closed chain of pieces; `links` says which of its pieces, or which places on them, answer which blank. */
export const closedShape = (
  tool: Tool,
  pieces: Outcome<readonly Piece[]>,
  firm: boolean,
  given: Given,
  { drawing, layer }: ToolContext,
  rest: Pick<Proposal, "live" | "note"> = {},
  links: Readonly<Record<string, (piece: Piece, i: number) => boolean | "middle">> = {},
): Proposal => {
  if (!pieces.ok) return firm ? refused(pieces) : nothing;
  const made = pieces.value;
  const edit = () =>
    addContour(drawing, { label: tool.name, gesture: tool.id, layer }, made, (draft, refs) => {
      for (const [blank, fits] of Object.entries(links)) {
        const fitting = refs.flatMap((ref, i) => {
          const place = fits(made[i]!, i);
          return place === false ? [] : place === true ? ref : { ...ref, place };
        });
        if (fitting.length > 0) linkCallout(draft, given.callout(blank), fitting);
      }
    });
  return { ways: [{ preview: made.map((piece) => ({ shape: pieceShape(piece) })), edit }], ...rest };
};
