import { exampleLine } from "../example/exampleShapes.ts";
import { LAYOUT_LAYER } from "@ash-edge/core/drawing";
import { makingWay } from "../making.ts";
import { nothing, type Tool } from "../tool.ts";

export const point: Tool = {
  kind: "tool",
  id: "point",
  name: "Point",
  help: "Click a place. It makes a layout point that snaps hold on to.",
  drawing: ["M12 9 L12 15 M9 12 L15 12", "M4 12 L7 12 M17 12 L20 12 M12 4 L12 7 M12 17 L12 20"],
  example: { cut: [exampleLine([0, 0], [60, 0]), exampleLine([20, -20], [50, 30])], clicks: [[32, 0]] },
  parts: [
    { kind: "words", text: "at" },
    { kind: "pick", name: "at", label: "point", takes: "point" },
  ],
  propose: (given, { drawing }) => {
    const { at } = given.picks;
    if (!at) return nothing;
    const shape = { kind: "point", at: at.at } as const;
    return { ways: [makingWay(point, drawing, LAYOUT_LAYER, [shape])] };
  },
};
