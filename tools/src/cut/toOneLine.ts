import { exampleLine } from "../example/exampleShapes.ts";
import { planExtend } from "@ash-edge/core/edits";
import { done } from "@ash-edge/core/numeric";
import { nothing, refused, type Tool } from "../tool.ts";
import { sweptEnds } from "./sweptEnds.ts";

export const toOneLine: Tool = {
  kind: "tool",
  id: "to-one-line",
  name: "To one line",
  help:
    "Click a line or curve, then the ends that should come to it, one after another or with a drag across them: " +
    "each is run on to it, or cut back to it where it has run past.",
  drawing: ["M18 4 L18 20", "M4 7 L14 7 M4 12 L21 12 M4 17 L11 17"],
  example: {
    cut: [exampleLine([60, -30], [60, 30]), exampleLine([0, 15], [40, 15]), exampleLine([0, -15], [75, -15])],
    clicks: [
      [60, 0],
      [35, 15],
      [70, -15],
    ],
  },
  parts: [
    { kind: "words", text: "bring" },
    { kind: "pick", name: "end", label: "ends", takes: "curve" },
    { kind: "words", text: "to" },
    { kind: "pick", name: "to", label: "line or curve", takes: "curve" },
  ],
  wants: () => ["to", "end"],
  propose: (given, { index }) => {
    const { to, end } = given.picks;
    if (!to?.ref || !given.isFirm("to") || !end?.ref) return nothing;
    const plan = planExtend(index, end.ref, end.at, new Set([to.ref.id]));
    if (!plan.ok) return given.isFirm("end") ? refused(plan) : nothing;
    const { edit, comes, goes } = plan.value;
    const preview = [...comes.map((shape) => ({ shape })), ...goes.map((shape) => ({ shape, goes: true }))];
    return { ways: [{ preview, edit: () => done(edit), next: { to } }] };
  },
  drag: "path",
  dragged: (given, { index }, path) => {
    const { to } = given.picks;
    return to?.ref ? sweptEnds(new Set([to.ref.id]), index, path) : nothing;
  },
};
