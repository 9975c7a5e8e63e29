import { exampleCircle } from "../example/exampleShapes.ts";
import { roundTangentsAtAngle } from "@ash-edge/core/construct";
import { distance } from "@ash-edge/core/geometry";
import { toRadians, refuse } from "@ash-edge/core/numeric";
import { nothing, refused, type Tool } from "../tool.ts";
import { WHERE_TOUCHED } from "../touching.ts";
import { roundOf, touchesThere, fromTouch } from "./fromTouch.ts";

export const tangentAtAnAngle: Tool = {
  kind: "tool",
  id: "tangent-at-an-angle",
  name: "Tangent at an angle",
  help:
    "Pick a circle, an arc or an ellipse near where the line should touch, with the angle typed; a second click, or " +
    "the typed length, gives the end. Space shows the tangent on the other side.",
  drawing: ["M3 13 L19 4", "M18 15 A6 6 0 1 1 6 15 A6 6 0 1 1 18 15"],
  example: {
    cut: [exampleCircle(0, 0, 20)],
    typed: { angle: "30", length: "60" },
    clicks: [
      [-10, 17.3],
      [40, 60],
    ],
  },
  parts: [
    { kind: "words", text: "touching" },
    { kind: "pick", name: "on", label: "circle", takes: "curve", round: true },
    { kind: "words", text: "at" },
    { kind: "value", name: "angle", label: "angle", expects: "angle", stays: true, signed: true },
    { kind: "words", text: "· length" },
    { kind: "value", name: "length", label: "length", expects: "length", stays: false },
    { kind: "pick", name: "to", label: "end", takes: "point", silent: true },
    { kind: "words", text: "·" },
    WHERE_TOUCHED,
  ],
  propose: (given, context) => {
    const { on } = given.picks;
    const round = on && roundOf(context.drawing, on);
    if (!on || !round || round.kind === "point" || !given.isFirm("on")) return nothing;
    const typed = given.value("angle");
    if (typed === undefined) return { ways: [], note: "Type the angle" };
    const angle = toRadians(typed);
    const there = touchesThere(given, context.drawing);
    const touches = roundTangentsAtAngle(round, angle)
      .filter((at) => there(on, at))
      .sort((p, q) => distance(p, on.at) - distance(q, on.at));
    if (touches.length === 0) return refused(refuse("touch-beyond-end"));
    return fromTouch(
      tangentAtAnAngle,
      given,
      context,
      touches.map((at) => ({ at, angle })),
    );
  },
};
