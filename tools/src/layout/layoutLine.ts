import { LAYOUT_LAYER } from "@ash-edge/core/drawing";
import { distance, angleOf, subtract } from "@ash-edge/core/geometry";
import { RESOLUTION, toDegrees } from "@ash-edge/core/numeric";
import type { Shape } from "@ash-edge/core/shape";
import { lineEnd } from "../draw/line.ts";
import { linkCallout } from "../linking.ts";
import { makingWay } from "../making.ts";
import { nothing, type Tool } from "../tool.ts";

export const layoutLine: Tool = {
  kind: "tool",
  id: "layout-line",
  name: "Layout line",
  help: "Click two points; length and angle can be typed. It makes a layout line with ends, which is never cut.",
  drawing: ["M5 18 L19 6", "M2 18 L8 18 M16 6 L22 6"],
  example: {
    typed: { length: "60", angle: "20" },
    clicks: [
      [0, 0],
      [60, 20],
    ],
  },
  parts: [
    { kind: "words", text: "from" },
    { kind: "pick", name: "from", label: "point", takes: "point" },
    { kind: "words", text: "· length" },
    { kind: "value", name: "length", label: "length", expects: "length", stays: false },
    { kind: "words", text: "angle" },
    { kind: "value", name: "angle", label: "angle", expects: "angle", stays: false },
    { kind: "pick", name: "to", label: "end", takes: "point", silent: true },
  ],
  from: "from",
  propose: (given, { drawing }) => {
    const { from } = given.picks;
    const to = given.picks.to?.at ?? given.pointer;
    if (!from || !given.isFirm("from") || !to) return nothing;
    const end = lineEnd(from.at, to, given.value("length"), given.value("angle"));
    if (distance(from.at, end) <= RESOLUTION) return nothing;
    const shape: Shape = { kind: "piece", a: from.at, b: end, bulge: 0 };
    return {
      ways: [
        makingWay(layoutLine, drawing, LAYOUT_LAYER, [shape], (draft, [id]) =>
          linkCallout(draft, given.callout("length"), [{ id: id! }]),
        ),
      ],
      live: { length: distance(from.at, end), angle: toDegrees(angleOf(subtract(end, from.at))) },
    };
  },
};
