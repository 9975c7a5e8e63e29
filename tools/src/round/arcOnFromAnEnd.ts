import { exampleLine, exampleDot } from "../example/exampleShapes.ts";
import { arcFrom, arcFromWithRadius } from "@ash-edge/core/construct";
import type { Drawing } from "@ash-edge/core/drawing";
import { outlineEnd } from "@ash-edge/core/edits";
import type { Point } from "@ash-edge/core/geometry";
import { refuse, toRadians } from "@ash-edge/core/numeric";
import { nothing, refused, type Picked, type Tool } from "../tool.ts";
import { dot, arcProposal, one } from "./roundProposals.ts";

/** The place and direction in which a picked end runs out, of a loose line or arc or an open chain. */
const runningOut = (drawing: Drawing, picked: Picked | undefined): { at: Point; direction: number } | undefined => {
  const end = picked && outlineEnd(drawing, picked);
  return picked && end?.arrives !== undefined ? { at: picked.at, direction: end.arrives } : undefined;
};

export const arcOnFromAnEnd: Tool = {
  kind: "tool",
  id: "arc-on-from-an-end",
  name: "Arc on from an end",
  help:
    "Click the end of a line, an arc or an open chain: an arc goes on from it without a corner, to where you click, " +
    "or with R or Ø and the sweep typed.",
  drawing: ["M3 17 L11 17 A7 7 0 0 0 18 10 L18 7", dot(11, 17)],
  example: {
    cut: [exampleLine([0, 0], [40, 0])],
    layout: [exampleDot(60, 25)],
    clicks: [
      [40, 0],
      [60, 25],
    ],
  },
  parts: [
    { kind: "words", text: "on from" },
    { kind: "pick", name: "from", label: "end", takes: "point" },
    { kind: "words", text: "to" },
    { kind: "pick", name: "to", label: "point", takes: "point" },
    { kind: "words", text: "· with" },
    { kind: "size", name: "size", first: "R" },
    { kind: "words", text: "sweep" },
    { kind: "value", name: "sweep", label: "sweep", expects: "angle", stays: false },
  ],
  from: "from",
  propose: (given, context) => {
    const start = runningOut(context.drawing, given.picks.from);
    const to = given.picks.to?.at ?? given.pointer;
    if (!given.picks.from || !given.isFirm("from")) return nothing;
    if (!start) return refused(refuse("no-end-here"));
    if (!to) return nothing;
    const radius = given.radius("size");
    const sweep = given.value("sweep");
    const arc =
      radius === undefined
        ? arcFrom(start.at, start.direction, to)
        : arcFromWithRadius(start.at, start.direction, radius, to, sweep === undefined ? undefined : toRadians(sweep));
    return arcProposal(arcOnFromAnEnd, one(arc), given.isFirm("to"), given, context);
  },
};
