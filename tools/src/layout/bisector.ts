import { exampleLine } from "../example/exampleShapes.ts";
import { bisectorsOf } from "@ash-edge/core/construct";
import { pickedCurve } from "../making.ts";
import { nothing, refused, type Tool } from "../tool.ts";
import { layoutWay, endless } from "./layoutWay.ts";

export const bisector: Tool = {
  kind: "tool",
  id: "bisector",
  name: "Bisector",
  help:
    "Pick two straight edges or layout lines, each on the side that counts. Space shows the other bisector. They " +
    "need not reach each other.",
  drawing: ["M4 20 L20 12", "M4 20 L18 4 M4 20 L21 20"],
  example: {
    cut: [exampleLine([0, 0], [80, 0]), exampleLine([0, 0], [50, 50])],
    clicks: [
      [60, 0],
      [40, 40],
    ],
  },
  parts: [
    { kind: "words", text: "of" },
    { kind: "pick", name: "one", label: "line", takes: "curve" },
    { kind: "words", text: "and" },
    { kind: "pick", name: "other", label: "other line", takes: "curve" },
  ],
  propose: (given, { drawing }) => {
    const { one, other } = given.picks;
    const [a, b] = [pickedCurve(drawing, one), pickedCurve(drawing, other)];
    if (!a || !b || !one || !other || !given.isFirm("one")) return nothing;
    const lines = bisectorsOf(a, one.at, b, other.at);
    if (!lines.ok) return given.isFirm("other") ? refused(lines) : nothing;
    return { ways: lines.value.map((line) => layoutWay(drawing, [endless(line)], "Bisector", "bisector")) };
  },
};
