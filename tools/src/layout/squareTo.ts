import { exampleLine, exampleDot } from "../example/exampleShapes.ts";
import { lineSquareTo } from "@ash-edge/core/construct";
import { pickedCurve } from "../making.ts";
import { nothing, refused, type Tool } from "../tool.ts";
import { layoutWay, endless } from "./layoutWay.ts";

export const squareTo: Tool = {
  kind: "tool",
  id: "square-to",
  name: "Square to",
  help: "Pick an edge, a layout line or a circle, then click the point that the layout line should run through.",
  drawing: ["M12 4 L12 20", "M4 18 L20 18 M12 14 L16 14 L16 18"],
  example: {
    cut: [exampleLine([0, 0], [80, 20])],
    layout: [exampleDot(30, 40)],
    clicks: [
      [60, 15],
      [30, 40],
    ],
  },
  parts: [
    { kind: "words", text: "layout line square to" },
    { kind: "pick", name: "edge", label: "edge", takes: "curve" },
    { kind: "words", text: "through" },
    { kind: "pick", name: "through", label: "point", takes: "point" },
  ],
  propose: (given, { drawing }) => {
    const { edge, through } = given.picks;
    const curve = pickedCurve(drawing, edge);
    if (!curve || !through || !given.isFirm("edge")) return nothing;
    const line = lineSquareTo(curve, through.at);
    if (!line.ok) return refused(line);
    return { ways: [layoutWay(drawing, [endless(line.value)], "Square to", "square-to")] };
  },
};
