import { exampleBox } from "../example/exampleShapes.ts";
import { removeCorner } from "@ash-edge/core/edits";
import { nothing, type Tool } from "../tool.ts";
import { changes } from "./handleParts.ts";

export const removeCornerTool: Tool = {
  kind: "tool",
  id: "handle-remove-corner",
  name: "Take the corner out",
  help:
    "The two pieces at the corner become one: straight, or the arc that both lie on. At an open end, the end piece " +
    "goes.",
  drawing: ["M4 18 L20 18", "M4 18 L12 6 L20 18"],
  example: { cut: [exampleBox(0, 0, 70, 40)], grab: [70, 40], finish: true },
  parts: [],
  propose: (given, { drawing }) => {
    const { handle } = given.picks;
    return handle?.ref ? changes(removeCorner(drawing, handle.ref)) : nothing;
  },
};
