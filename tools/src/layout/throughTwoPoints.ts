import { exampleDot } from "../example/exampleShapes.ts";
import { lineThrough } from "@ash-edge/core/construct";
import { nothing, refused, type Tool } from "../tool.ts";
import { layoutWay, endless } from "./layoutWay.ts";

export const throughTwoPoints: Tool = {
  kind: "tool",
  id: "through-two-points",
  name: "Through two points",
  help: "Click two points. It makes the layout line through both.",
  drawing: ["M3 19 L21 5", "M8 15 m-2 0 a2 2 0 1 0 4 0 a2 2 0 1 0 -4 0 M16 9 m-2 0 a2 2 0 1 0 4 0 a2 2 0 1 0 -4 0"],
  example: {
    layout: [exampleDot(10, 10), exampleDot(60, 35)],
    clicks: [
      [10, 10],
      [60, 35],
    ],
  },
  parts: [
    { kind: "words", text: "layout line through" },
    { kind: "pick", name: "one", label: "point", takes: "point" },
    { kind: "words", text: "and" },
    { kind: "pick", name: "other", label: "other point", takes: "point" },
  ],
  from: "one",
  propose: (given, { drawing }) => {
    const { one, other } = given.picks;
    if (!one || !other || !given.isFirm("one")) return nothing;
    const line = lineThrough(one.at, other.at);
    if (!line.ok) return given.isFirm("other") ? refused(line) : nothing;
    return { ways: [layoutWay(drawing, [endless(line.value)], "Through two points", "through-two-points")] };
  },
};
