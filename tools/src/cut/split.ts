import { exampleArc } from "../example/exampleShapes.ts";
import { splitAt } from "@ash-edge/core/edits";
import { done } from "@ash-edge/core/numeric";
import { pickedCurve } from "../making.ts";
import { nothing, refused, type Tool } from "../tool.ts";

export const split: Tool = {
  kind: "tool",
  id: "split",
  name: "Split",
  help:
    "Click a place on a line, an arc, a chain, an ellipse part or a free curve: it becomes two there. A contour " +
    "opens there.",
  drawing: ["M3 12 L10 12 M14 12 L21 12", "M12 6 L12 18"],
  example: { cut: [exampleArc([0, 0], [60, 0], -0.5)], clicks: [[30, 15]] },
  parts: [{ kind: "pick", name: "what", label: "place on a curve", takes: "curve", exact: true }],
  propose: (given, { drawing }) => {
    const { what } = given.picks;
    if (!what?.ref || !pickedCurve(drawing, what)) return nothing;
    const made = splitAt(drawing, what.ref, what.at);
    if (!made.ok) return refused(made);
    const { edit, parts } = made.value;
    const said = parts === 1 ? "Opened here." : `Split into ${parts}.`;
    return { ways: [{ preview: [{ shape: { kind: "point", at: what.at } }], edit: () => done(edit), said }] };
  },
};
