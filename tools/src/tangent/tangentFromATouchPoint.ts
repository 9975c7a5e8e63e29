import { exampleCircle } from "../example/exampleShapes.ts";
import { curveNearest, directionAt } from "@ash-edge/core/geometry";
import { pickedCurve } from "../making.ts";
import { nothing, type Tool } from "../tool.ts";
import { fromTouch } from "./fromTouch.ts";

export const tangentFromATouchPoint: Tool = {
  kind: "tool",
  id: "tangent-from-a-touch-point",
  name: "Tangent from a touch point",
  help:
    "Click the place on a circle, an arc, an ellipse or a free curve where the line should touch; it runs on from " +
    "there, as long as typed or as far as a second click says.",
  drawing: ["M10 4.4 L21 12", "M17 15 A6.5 6.5 0 1 1 4 15 A6.5 6.5 0 1 1 17 15"],
  example: {
    cut: [exampleCircle(0, 0, 20)],
    typed: { length: "50" },
    clicks: [
      [0, 20],
      [60, 22],
    ],
  },
  parts: [
    { kind: "words", text: "at" },
    { kind: "pick", name: "on", label: "place on the curve", takes: "curve", exact: true },
    { kind: "words", text: "· length" },
    { kind: "value", name: "length", label: "length", expects: "length", stays: false },
    { kind: "pick", name: "to", label: "end", takes: "point", silent: true },
  ],
  propose: (given, context) => {
    const { on } = given.picks;
    const curve = pickedCurve(context.drawing, on);
    if (!on || !curve || !given.isFirm("on")) return nothing;
    const { at } = curveNearest(curve, on.at);
    return fromTouch(tangentFromATouchPoint, given, context, [{ at, angle: directionAt(curve, at) }]);
  },
};
