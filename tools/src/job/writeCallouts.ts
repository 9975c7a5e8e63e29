import type { Action } from "../tool.ts";

export const writeCalloutsAction: Action = {
  kind: "action",
  id: "write-callouts",
  name: "Write callouts",
  help:
    "Goes to the ledger's line, where the numbers of the sketch are written down one after another: 26 d bore, " +
    "Enter. A click on the sketch pins the one being written.",
  drawing: ["M4 18 L4 20 L6 20 L18 8 L16 6 Z", "M4 6 L12 6 M4 11 L9 11"],
};
