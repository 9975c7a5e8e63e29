import type { Outline, Combination } from "@ash-edge/core/arrangement";
import { entityOf, isLayout } from "@ash-edge/core/drawing";
import { outlineShape, combineEntities } from "@ash-edge/core/edits";
import { done } from "@ash-edge/core/numeric";
import { contoursOnce } from "../contoursOnce.ts";
import {
  nothing,
  refused,
  type PreviewShape,
  type Tool,
  type Given,
  type ToolContext,
  type Proposal,
} from "../tool.ts";

/** Outlines as filled previews. */
export const filled = (outlines: readonly Outline[]): readonly PreviewShape[] => {
  let id = -1;
  return outlines.map((outline) => ({ shape: outlineShape(outline, () => id--), fill: true }));
};

type Words = Pick<Tool, "id" | "name" | "help" | "drawing" | "example"> & { readonly between: string };

/** A tool that unites contours, takes one from another, or keeps what they share. */
export const combining = (how: Combination, { between, ...words }: Words): Tool => ({
  kind: "tool",
  ...words,
  parts: [
    { kind: "pick", name: "of", label: "contour", takes: "curve" },
    { kind: "words", text: between },
    { kind: "pick", name: "with", label: "contour", takes: "curve" },
    { kind: "words", text: "·" },
    {
      kind: "choice",
      name: "holes",
      label: "holes",
      options: [
        ["alone", "outlines alone"],
        ["with", "with their holes"],
      ],
    },
    { kind: "words", text: "·" },
    {
      kind: "choice",
      name: "sources",
      label: "what they come from",
      options: [
        ["drop", "drop them"],
        ["keep", "keep them"],
      ],
    },
  ],
  propose: (given, context) => {
    const [of, other] = [given.picks.of?.ref?.id, given.picks.with?.ref?.id];
    if (of === undefined || other === undefined || !given.isFirm("of")) return nothing;
    return combined(how, given, context, [of, other]);
  },
  finish: (given, context) => {
    // what is laid out is selected along with the rest, and bounds nothing
    const ids = given.things.filter((id) => {
      const entity = entityOf(context.drawing, id);
      return entity && !isLayout(context.drawing, entity);
    });
    return ids.length < 2 ? nothing : combined(how, given, context, ids);
  },
});

const combined = (how: Combination, given: Given, { drawing }: ToolContext, ids: readonly number[]): Proposal => {
  const made = combineEntities(drawing, contoursOnce(drawing), ids, how, {
    holes: given.choice("holes") === "with",
    keep: given.choice("sources") === "keep",
  });
  if (!made.ok) return refused(made);
  const { edit, outlines, first } = made.value;
  const words = outlines.length === 1 ? "1 contour" : `${outlines.length} contours`;
  const at = outlines[0]!.pieces[0]!.a;
  return {
    ways: [
      {
        preview: filled(outlines),
        edit: () => done(edit),
        said: `${words} made.`,
        next: { of: { at, ref: { id: first } } },
      },
    ],
    note: words,
  };
};
