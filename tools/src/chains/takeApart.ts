import { exampleBox } from "../example/exampleShapes.ts";
import { takeApart as apart } from "@ash-edge/core/edits";
import { done } from "@ash-edge/core/numeric";
import { nothing, refused, type Tool } from "../tool.ts";

export const takeApart: Tool = {
  kind: "tool",
  id: "take-apart",
  name: "Take apart",
  help:
    "Click a chain or a contour, or have some selected: it becomes single lines and arcs again. Join puts them " +
    "together.",
  drawing: ["M3 16 L8 10 M11 8 L21 8", "M8 10 m-1.6 0 a1.6 1.6 0 1 0 3.2 0 M9.5 8 m-1.6 0 a1.6 1.6 0 1 0 3.2 0"],
  example: { cut: [exampleBox(0, 0, 70, 40)], clicks: [[35, 0]], finish: true },
  parts: [{ kind: "pick", name: "what", label: "chain", takes: "things" }],
  propose: (given, { drawing }) => {
    if (given.things.length === 0) return nothing;
    const made = apart(drawing, given.things);
    if (!made.ok) return refused(made);
    const { edit, pieces } = made.value;
    return {
      ways: [{ preview: [], edit: () => done(edit), said: `${pieces} pieces.` }],
      note: `${pieces} pieces · click or Enter takes it apart`,
    };
  },
};
