import { exampleDot } from "../example/exampleShapes.ts";
import { circleOnDiameter, circleThrough } from "@ash-edge/core/construct";
import { nothing, type Tool } from "../tool.ts";
import { RING, dot, circleProposal } from "./roundProposals.ts";

export const circleByThreePoints: Tool = {
  kind: "tool",
  id: "circle-by-three-points",
  name: "Circle by three points",
  help: "Click three points that its rim runs through, in any order.",
  drawing: [RING, `${dot(12, 4)} ${dot(5.1, 16)} ${dot(18.9, 16)}`],
  example: {
    layout: [exampleDot(0, 0), exampleDot(50, 0), exampleDot(20, 30)],
    clicks: [
      [0, 0],
      [50, 0],
      [20, 30],
    ],
  },
  parts: [
    { kind: "words", text: "through" },
    { kind: "pick", name: "one", label: "point", takes: "point" },
    { kind: "pick", name: "two", label: "point 2", takes: "point" },
    { kind: "words", text: "and" },
    { kind: "pick", name: "three", label: "point 3", takes: "point" },
  ],
  propose: (given, context) => {
    const { one, two, three } = given.picks;
    if (!one || !two || !given.isFirm("one")) return nothing;
    if (!three || !given.isFirm("two"))
      return circleProposal(circleByThreePoints, circleOnDiameter(one.at, two.at), false, context).ways.length > 0
        ? { ways: [], note: "Click the third point" }
        : nothing;
    return circleProposal(circleByThreePoints, circleThrough(one.at, two.at, three.at), given.isFirm("three"), context);
  },
};
