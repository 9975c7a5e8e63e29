import type { Action } from "../tool.ts";

export const tidyAction: Action = {
  kind: "action",
  id: "tidy",
  name: "Tidy",
  help:
    "Looks the drawing over for duplicates, overlaps, gaps, tails and edges that two outlines share, and lists them " +
    "as findings: mended one by one, by kind, or all, or left as they are. The tolerance within which is mended " +
    "stands above them.",
  drawing: ["M4 17 L9 17 M9 17 L9 9 L15 9 L15 17 M15 17 L20 17", "M4 19 L11 19 M13 19 L20 19"],
};
