import { exampleLine } from "../example/exampleShapes.ts";
import { splitAtCrossings } from "@ash-edge/core/edits";
import { done } from "@ash-edge/core/numeric";
import { pickedCurve } from "../making.ts";
import { nothing, refused, type Tool } from "../tool.ts";

export const splitCrossings: Tool = {
  kind: "tool",
  id: "split-at-crossings",
  name: "Split at crossings",
  help: "Click a curve: it is split at every place where something meets it, layout lines too.",
  drawing: ["M3 12 L7 12 M9 12 L15 12 M17 12 L21 12", "M8 5 L8 19 M16 5 L16 19"],
  example: {
    cut: [exampleLine([0, 0], [80, 0]), exampleLine([25, -15], [25, 15]), exampleLine([55, -15], [55, 15])],
    clicks: [[40, 0]],
  },
  parts: [{ kind: "pick", name: "what", label: "curve", takes: "curve" }],
  propose: (given, { drawing, index }) => {
    const { what } = given.picks;
    if (!what?.ref || !pickedCurve(drawing, what)) return nothing;
    const made = splitAtCrossings(index, what.ref);
    if (!made.ok) return given.isFirm("what") ? refused(made) : nothing;
    const { edit, parts } = made.value;
    return { ways: [{ preview: [], edit: () => done(edit), said: `Split into ${parts}.` }], note: `${parts} parts` };
  },
};
