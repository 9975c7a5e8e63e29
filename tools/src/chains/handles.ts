import type { Action } from "../tool.ts";

export const handlesAction: Action = {
  kind: "action",
  id: "handles-shown",
  name: "Handles shown",
  short: "Handles",
  help: "Shows handles on what is selected, by which it is stretched, shifted, bowed, or puts them away.",
  drawing: ["M5 18 L19 6", "M5 18 m-2 0 a2 2 0 1 0 4 0 a2 2 0 1 0 -4 0 M19 6 m-2 0 a2 2 0 1 0 4 0 a2 2 0 1 0 -4 0"],
};
