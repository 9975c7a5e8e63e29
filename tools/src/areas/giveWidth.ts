import { exampleLine } from "../example/exampleShapes.ts";
import { widthContours, taperedRuns, type WidthEnd } from "@ash-edge/core/construct";
import { chainOfPieces } from "@ash-edge/core/contour";
import { curveAt, entityOf } from "@ash-edge/core/drawing";
import { giveWidth as widened, givePieceWidth, type WidthGiven, type WidthSource } from "@ash-edge/core/edits";
import { done, refuse } from "@ash-edge/core/numeric";
import { under, nothing, refused, type Part, type Given, type Tool, type ToolContext, type Proposal } from "../tool.ts";

/** How ends and corners of what is given a width are made. */
export const widthParts: readonly Part[] = [
  { kind: "words", text: "· ends" },
  {
    kind: "choice",
    name: "ends",
    label: "ends",
    options: [
      ["flat", "flat"],
      ["round", "round"],
      ["pointed", "pointed"],
    ],
  },
  { kind: "words", text: "corners" },
  {
    kind: "choice",
    name: "corners",
    label: "corners",
    options: [
      ["sharp", "sharp"],
      ["round", "round"],
    ],
  },
];
/** How a run of a given width ends and goes round corners, as chosen. */
export const widthShape = (given: Given): Pick<WidthGiven, "ends" | "corners"> => ({
  ends: given.choice("ends") as WidthEnd,
  corners: given.choice("corners") as "sharp" | "round",
});

export const giveWidth: Tool = {
  kind: "tool",
  id: "give-width",
  name: "Give width",
  help:
    "Click a line, an arc or a chain of them, with a width typed: it becomes the closed contour round it, even, or " +
    "tapering with its length to another width at its end; 0 makes a point. Piece by piece, each click gives one " +
    "piece of a chain its own, and Enter makes the contour. Ends flat, round or pointed, corners sharp or round. A " +
    "closed chain gets a contour on both sides.",
  drawing: ["M3 15 L17 4 L21 9 L7 20 Z", "M5 17.5 L19 6.5"],
  example: {
    cut: [exampleLine([0, 0], [80, 20])],
    typed: { width: "16", to: "6" },
    chosen: { ends: "round" },
    clicks: [[40, 10]],
  },
  parts: [
    {
      kind: "choice",
      name: "how",
      label: "how",
      options: [
        ["whole", "whole"],
        ["piece", "piece by piece"],
      ],
    },
    { kind: "pick", name: "what", label: "line, arc or chain", takes: "curve" },
    { kind: "words", text: "width" },
    { kind: "value", name: "width", label: "width", expects: "length", stays: false, signed: true },
    { kind: "words", text: "to" },
    { kind: "value", name: "to", label: "width at the end", expects: "length", stays: false, signed: true },
    ...widthParts,
    {
      kind: "choice",
      name: "source",
      label: "its line",
      options: [
        ["goes", "line goes"],
        ["layout", "line to layout"],
      ],
      onlyIf: under("how", "whole"),
    },
  ],
  propose: (given, context) => {
    const { what } = given.picks;
    if (!what?.ref) return nothing;
    const from = given.value("width");
    if (from === undefined)
      return given.isFirm("what") ? refused(refuse("value-empty")) : { ways: [], note: "Type the width" };
    const to = given.value("to") ?? from;
    if (from < 0 || to < 0) return refused(refuse("value-not-positive", { what: "A width" }));
    if (given.choice("how") === "piece") return onePiece(given, context, [from, to]);
    const made = widened(
      context.drawing,
      what.ref.id,
      { from, to, ...widthShape(given) },
      given.choice("source") as WidthSource,
      context.layer,
    );
    if (!made.ok) return refused(made);
    const { edit, contours } = made.value;
    return { ways: [{ preview: contours.map((shape) => ({ shape })), edit: () => done(edit) }] };
  },
  finish: (given, { drawing, layer }) => {
    const { chain } = given.picks;
    if (given.choice("how") !== "piece" || !chain?.ref) return nothing;
    const made = widened(drawing, chain.ref.id, widthShape(given), "goes", layer);
    if (!made.ok) return refused(made);
    return { ways: [{ preview: [], edit: () => done(made.value.edit), said: "The contour is made." }] };
  },
};

/** One piece of a chain gets a width of its own; it is shown by itself, and the chain stays in hand for the next. */
const onePiece = (given: Given, { drawing }: ToolContext, run: readonly [number, number]): Proposal => {
  const { what } = given.picks;
  const curve = curveAt(drawing, what!.ref!);
  const entity = entityOf(drawing, what!.ref!.id);
  if (entity?.kind !== "chain" || curve?.kind !== "piece") return refused(refuse("chain-needed"));
  if (run[0] !== run[1] && curve.bulge !== 0) return refused(refuse("width-tapered-arc"));
  const put = givePieceWidth(drawing, what!.ref!, run);
  if (!put.ok) return refused(put);
  const alone = widthContours([curve], false, { runs: taperedRuns([curve], ...run), ends: "flat", corners: "sharp" });
  let id = -1;
  const shapes = alone.ok ? alone.value.map((side) => chainOfPieces(side, true, () => id--)) : [];
  return {
    ways: [
      {
        preview: shapes.map((shape) => ({ shape })),
        edit: () => done(put.value),
        next: { chain: { at: what!.at, ref: { id: entity.id } } },
        said: "Enter makes the contour, or click the next piece.",
      },
    ],
  };
};
