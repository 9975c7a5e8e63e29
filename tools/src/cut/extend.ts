import { exampleLine } from "../example/exampleShapes.ts";
import { planExtend } from "@ash-edge/core/edits";
import { done, refuse } from "@ash-edge/core/numeric";
import { pickedCurve } from "../making.ts";
import { nothing, refused, type Tool } from "../tool.ts";
import { sweptEnds } from "./sweptEnds.ts";
import { cutsNothing, cutterChoice, cuttersOf } from "./trim.ts";

export const extend: Tool = {
  kind: "tool",
  id: "extend",
  name: "Extend",
  help:
    "Click a line, an arc, an open chain, part of an ellipse or a free curve near the end that should run on: it " +
    "goes on along itself to whatever is ahead of it, or to what is selected. A drag takes every end near which it " +
    "crosses. An end that has run past what is selected is cut back to it.",
  drawing: ["M4 12 L12 12 M20 4 L20 20", "M12 12 L20 12 M16 9 L20 12 L16 15"],
  example: { cut: [exampleLine([0, 0], [40, 0]), exampleLine([60, -20], [60, 20])], clicks: [[35, 0]] },
  parts: [
    { kind: "pick", name: "end", label: "end", takes: "curve" },
    { kind: "words", text: "to" },
    cutterChoice("to", "boundaries", "whatever is ahead"),
  ],
  propose: (given, context) => {
    const { end } = given.picks;
    if (!end?.ref || !pickedCurve(context.drawing, end)) return nothing;
    if (cutsNothing(given.choice("to"), context)) return refused(refuse("cutters-none"));
    const plan = planExtend(context.index, end.ref, end.at, cuttersOf(given.choice("to"), context));
    if (!plan.ok) return refused(plan);
    const { edit, comes, goes } = plan.value;
    const preview = [...comes.map((shape) => ({ shape })), ...goes.map((shape) => ({ shape, goes: true }))];
    return { ways: [{ preview, edit: () => done(edit) }] };
  },
  drag: "path",
  dragged: (given, context, path) =>
    cutsNothing(given.choice("to"), context)
      ? refused(refuse("cutters-none"))
      : sweptEnds(cuttersOf(given.choice("to"), context), context.index, path),
};
