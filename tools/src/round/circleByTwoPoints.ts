import { exampleDot } from "../example/exampleShapes.ts";
import { circleOnDiameter } from "@ash-edge/core/construct";
import { nothing, type Tool } from "../tool.ts";
import { RING, dot, circleProposal } from "./roundProposals.ts";

export const circleByTwoPoints: Tool = {
  kind: "tool",
  id: "circle-by-two-points",
  name: "Circle by two points",
  help: "Click the two ends of a diameter.",
  drawing: [RING, `M4 12 L20 12 ${dot(4, 12)} ${dot(20, 12)}`],
  example: {
    layout: [exampleDot(0, 0), exampleDot(50, 20)],
    clicks: [
      [0, 0],
      [50, 20],
    ],
  },
  parts: [
    { kind: "words", text: "from" },
    { kind: "pick", name: "one", label: "point", takes: "point" },
    { kind: "words", text: "across to" },
    { kind: "pick", name: "other", label: "other point", takes: "point" },
  ],
  from: "one",
  propose: (given, context) => {
    const { one, other } = given.picks;
    if (!one || !other || !given.isFirm("one")) return nothing;
    return circleProposal(circleByTwoPoints, circleOnDiameter(one.at, other.at), given.isFirm("other"), context);
  },
};
