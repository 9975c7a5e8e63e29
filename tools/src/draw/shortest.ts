import { exampleCircle, exampleLine } from "../example/exampleShapes.ts";
import { shortestLine } from "@ash-edge/core/construct";
import { pickedCurve, makingWay, pieceShape } from "../making.ts";
import { nothing, refused, type Tool } from "../tool.ts";

export const shortest: Tool = {
  kind: "tool",
  id: "shortest-line",
  name: "Shortest line",
  help: "Click two curves that do not meet: the shortest line between them, also of ellipses and free curves.",
  drawing: ["M10 12 L15 12", "M8 12 m-5 0 a5 5 0 1 1 7 0 M17 4 L17 20"],
  example: {
    cut: [exampleCircle(0, 0, 15), exampleLine([40, -20], [60, 30])],
    clicks: [
      [15, 0],
      [50, 5],
    ],
  },
  parts: [
    { kind: "words", text: "between" },
    { kind: "pick", name: "one", label: "curve", takes: "curve" },
    { kind: "words", text: "and" },
    { kind: "pick", name: "other", label: "other curve", takes: "curve" },
  ],
  propose: (given, { drawing, layer }) => {
    const [a, b] = [pickedCurve(drawing, given.picks.one), pickedCurve(drawing, given.picks.other)];
    if (!a || !b || !given.isFirm("one")) return nothing;
    const line = shortestLine(a, b);
    if (!line.ok) return given.isFirm("other") ? refused(line) : nothing;
    return { ways: [makingWay(shortest, drawing, layer, [pieceShape(line.value)])] };
  },
};
