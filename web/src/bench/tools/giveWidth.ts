import type { WidthEnd } from "@ash-edge/core/construct";
import { giveWidth as widened, type WidthSource } from "@ash-edge/core/drawing";
import { refuse } from "@ash-edge/core/numeric";
import { nothing, refused, type Tool } from "./tool.ts";

export const giveWidth: Tool = {
  kind: "tool",
  id: "give-width",
  name: "Give width",
  bank: "KeyF",
  help: "Click a line, an arc or a chain of them, with a width typed: it becomes the closed contour round it, even, or tapering with its length to another width at its end; 0 makes a point. Ends flat, round or pointed, corners sharp or round. A closed chain gets a contour on both sides.",
  drawing: ["M3 15 L17 4 L21 9 L7 20 Z", "M5 17.5 L19 6.5"],
  parts: [
    { kind: "pick", name: "what", label: "line, arc or chain", takes: "curve" },
    { kind: "words", text: "width" },
    { kind: "value", name: "width", label: "width", expects: "length", stays: false },
    { kind: "words", text: "to" },
    { kind: "value", name: "to", label: "width at the end", expects: "length", stays: false, signed: true },
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
    {
      kind: "choice",
      name: "source",
      label: "its line",
      options: [
        ["goes", "line goes"],
        ["layout", "line to layout"],
      ],
    },
  ],
  propose: (given, { drawing, layer }) => {
    const { what } = given.picks;
    if (!what?.ref) return nothing;
    const from = given.value("width");
    if (from === undefined)
      return given.isFirm("what") ? refused(refuse("value-empty")) : { ways: [], note: "Type the width" };
    const to = given.value("to") ?? from;
    if (to < 0) return refused(refuse("value-not-positive", { what: "The width at the end" }));
    const made = widened(
      drawing,
      what.ref.id,
      { from, to, ends: given.choice("ends") as WidthEnd, corners: given.choice("corners") as "sharp" | "round" },
      given.choice("source") as WidthSource,
      layer,
    );
    if (!made.ok) return refused(made);
    const { edit, contours } = made.value;
    return { ways: [{ preview: contours.map((shape) => ({ shape })), edit: () => edit }] };
  },
};
