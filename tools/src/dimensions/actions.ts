import type { Action } from "../tool.ts";

export const dimensionAllAction: Action = {
  kind: "action",
  id: "dimension-all",
  name: "Dimension all called",
  short: "All called",
  help:
    "Gives every callout that is placed on the geometry its dimension, outside the contour, in one step that can be " +
    "undone.",
  drawing: ["M3 5 L21 5 M3 9 L14 9 M14 9 L21 9", "M3 3 L3 20 M14 7 L14 20 M21 3 L21 20 M3 20 L21 20"],
};
