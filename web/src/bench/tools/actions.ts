import type { Action } from "./tool.ts";

/** What is done at once. The bench carries them out by their ids. */
export const clearLayoutAction: Action = {
  kind: "action",
  id: "clear-layout",
  name: "Clear layout",
  bank: "KeyQ",
  help: "Removes all layout lines, circles and points in one step. Undo brings them back.",
  drawing: ["M5 19 L19 5", "M4 8 L20 8 M4 16 L20 16"],
};

export const fitAction: Action = {
  kind: "action",
  id: "fit",
  name: "Fit",
  bank: "KeyV",
  help: "Shows the whole drawing.",
  drawing: ["M4 9 L4 4 L9 4 M15 4 L20 4 L20 9 M20 15 L20 20 L15 20 M9 20 L4 20 L4 15", "M8 12 L16 12"],
};

export const writeCalloutsAction: Action = {
  kind: "action",
  id: "write-callouts",
  name: "Write callouts",
  bank: "KeyB",
  help: "Goes to the ledger's line, where the numbers of the sketch are written down one after another: 26 d bore, Enter. A click on the sketch pins the one being written.",
  drawing: ["M4 18 L4 20 L6 20 L18 8 L16 6 Z", "M4 6 L12 6 M4 11 L9 11"],
};

export const releaseAction: Action = {
  kind: "action",
  id: "release",
  name: "Release",
  bank: "KeyB",
  help: "Opens the release of this job: layers, checks, and the file for the machine.",
  drawing: ["M5 14 L5 20 L19 20 L19 14 M12 4 L12 15 M8 8 L12 4 L16 8"],
};
