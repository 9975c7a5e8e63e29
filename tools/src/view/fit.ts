import type { Action } from "../tool.ts";

export const fitAction: Action = {
  kind: "action",
  id: "fit",
  name: "Fit",
  help: "Shows the whole drawing.",
  drawing: ["M4 9 L4 4 L9 4 M15 4 L20 4 L20 9 M20 15 L20 20 L15 20 M9 20 L4 20 L4 15", "M8 12 L16 12"],
};
