import { exampleBox } from "../example/exampleShapes.ts";
import { setDatum as putDatum } from "@ash-edge/core/edits";
import { done } from "@ash-edge/core/numeric";
import { nothing, oneWay, type Tool } from "../tool.ts";

export const setDatum: Tool = {
  kind: "tool",
  id: "set-datum",
  name: "Set the datum",
  help:
    "Click the point, any snap, from which coordinates count from now on: a corner of the outline, a boss. What is " +
    "drawn stays where it is.",
  drawing: ["M6 5 L6 18 L19 18", "M6 18 m-3 0 a3 3 0 1 0 6 0 a3 3 0 1 0 -6 0"],
  example: { cut: [exampleBox(0, 0, 60, 40)], clicks: [[60, 40]] },
  parts: [
    { kind: "words", text: "at" },
    { kind: "pick", name: "at", label: "point", takes: "point" },
  ],
  propose: (given, { drawing }) => {
    const { at } = given.picks;
    if (!at) return nothing;
    return oneWay([{ kind: "point", at: at.at }], () => done(putDatum(drawing, at.at)));
  },
};
