import { exampleDot } from "../example/exampleShapes.ts";
import { arcThrough } from "@ash-edge/core/construct";
import { pieceShape } from "../making.ts";
import { nothing, type Tool } from "../tool.ts";
import { dot, arcProposal, one } from "./roundProposals.ts";

export const arcByThreePoints: Tool = {
  kind: "tool",
  id: "arc-by-three-points",
  name: "Arc by three points",
  help: "Click its start, a point that it runs through, and its end.",
  drawing: ["M4 18 A9.5 9.5 0 0 1 20 18", `${dot(4, 18)} ${dot(12, 8.6)} ${dot(20, 18)}`],
  example: {
    layout: [exampleDot(0, 0), exampleDot(20, 22), exampleDot(60, 0)],
    clicks: [
      [0, 0],
      [20, 22],
      [60, 0],
    ],
  },
  parts: [
    { kind: "words", text: "from" },
    { kind: "pick", name: "from", label: "point", takes: "point" },
    { kind: "words", text: "through" },
    { kind: "pick", name: "through", label: "through", takes: "point" },
    { kind: "words", text: "to" },
    { kind: "pick", name: "to", label: "end", takes: "point" },
  ],
  from: "from",
  propose: (given, context) => {
    const { from, through, to } = given.picks;
    if (!from || !through || !given.isFirm("from")) return nothing;
    if (!to || !given.isFirm("through"))
      return { ways: [{ preview: [{ shape: pieceShape({ a: from.at, b: through.at, bulge: 0 }) }] }] };
    return arcProposal(
      arcByThreePoints,
      one(arcThrough(from.at, through.at, to.at)),
      given.isFirm("to"),
      given,
      context,
    );
  },
};
