import type { Action } from "../tool.ts";

export const releaseAction: Action = {
  kind: "action",
  id: "release",
  name: "Release",
  help: "Opens the release of this job: layers, checks, and the file for the machine.",
  drawing: ["M5 14 L5 20 L19 20 L19 14 M12 4 L12 15 M8 8 L12 4 L16 8"],
};
