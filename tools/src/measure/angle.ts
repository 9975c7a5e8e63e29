import { exampleLine } from "../example/exampleShapes.ts";
import { angleOfLines } from "@ash-edge/core/construct";
import { toDegrees, showAngle } from "@ash-edge/core/numeric";
import { pickedCurve } from "../making.ts";
import { nothing, refused, type Tool } from "../tool.ts";
import { measured } from "./measured.ts";

export const angleTool: Tool = {
  kind: "tool",
  id: "angle",
  name: "Angle",
  help:
    "Click two straight lines: the angle between them, and what is left of half a turn. Nothing is drawn. Then " +
    "click a callout to say that this angle answers it.",
  drawing: ["M4 19 L20 19 M4 19 L17 6", "M13 19 A9 9 0 0 0 10.4 12.6"],
  example: {
    cut: [exampleLine([0, 0], [60, 0]), exampleLine([0, 0], [40, 40])],
    clicks: [
      [50, 0],
      [30, 30],
    ],
  },
  parts: [
    { kind: "words", text: "between" },
    { kind: "pick", name: "one", label: "line", takes: "curve" },
    { kind: "words", text: "and" },
    { kind: "pick", name: "other", label: "other line", takes: "curve" },
  ],
  answers: ["angle"],
  propose: (given, { drawing }) => {
    const { one, other } = given.picks;
    const [a, b] = [pickedCurve(drawing, one), pickedCurve(drawing, other)];
    if (!a || !b || !given.isFirm("one")) return nothing;
    const angle = angleOfLines(a, b);
    if (!angle.ok) return given.isFirm("other") ? refused(angle) : nothing;
    const degrees = toDegrees(angle.value);
    return measured(`Angle ${showAngle(degrees)} · ${showAngle(180 - degrees)} the other way`);
  },
};
