import type { Action } from "../tool.ts";

/** What is done at once. The bench carries them out by their ids. */
export const clearLayoutAction: Action = {
  kind: "action",
  id: "clear-layout",
  name: "Clear layout",
  help: "Removes all layout lines, circles and points in one step. Undo brings them back.",
  drawing: ["M5 19 L19 5", "M4 8 L20 8 M4 16 L20 16"],
};
