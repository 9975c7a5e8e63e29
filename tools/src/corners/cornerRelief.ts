import { exampleBox } from "../example/exampleShapes.ts";
import { RELIEFS, type Relief } from "@ash-edge/core/construct";
import { freeSide, reliefCut } from "@ash-edge/core/edits";
import { refuse } from "@ash-edge/core/numeric";
import { nothing, refused, type Tool } from "../tool.ts";
import { how, pickedCorner, anyCorner, cutProposal, atCorner } from "./cornerPick.ts";

const RELIEF_WORDS: Readonly<Record<Relief, string>> = {
  bisector: "along the bisector",
  edge: "along an edge",
  round: "round",
};

export const cornerRelief: Tool = {
  kind: "tool",
  id: "corner-relief",
  name: "Corner relief",
  help:
    "Click an inside corner between straight edges of a contour, with the cutter's Ø typed: it is cut out so far " +
    "that a square corner goes in. Along the bisector, along the edge after it, or round; the whole contour at " +
    "once.",
  drawing: ["M4 4 L4 14 A3.5 3.5 0 1 0 10 20 L20 20", "M4 14 L4 20 L10 20"],
  example: { cut: [exampleBox(0, 0, 70, 40), exampleBox(-15, -15, 100, 70)], typed: { size: "8" }, clicks: [[70, 40]] },
  parts: [
    { kind: "pick", name: "corner", label: "inside corner", takes: "either" },
    { kind: "words", text: "for a cutter of" },
    { kind: "size", name: "size", first: "Ø" },
    {
      kind: "choice",
      name: "kind",
      label: "kind",
      options: RELIEFS.map((kind) => [kind, RELIEF_WORDS[kind]] as const),
    },
    how,
  ],
  propose: (given, context) => {
    const { corner: picked } = given.picks;
    const radius = given.radius("size");
    const corner =
      pickedCorner(context, picked) ?? (given.choice("how") === "whole" ? anyCorner(context, picked) : undefined);
    if (!picked) return nothing;
    if (corner?.kind !== "chain") return given.isFirm("corner") ? refused(refuse("no-corner-here")) : nothing;
    if (radius === undefined) return { ways: [], note: "Type the cutter’s Ø" };
    const side = freeSide(context.drawing, corner.id);
    if (!side.ok) return refused(side);
    const cut = reliefCut(radius, given.choice("kind") as Relief, side.value);
    return cutProposal(atCorner(given, context, corner, cut, "Corner relief", "size"), true, context.unit, "relieved");
  },
};
