import type { Action } from "../tool.ts";

export const makeTrueAction: Action = {
  kind: "action",
  id: "make-true",
  name: "Make true",
  help:
    "Moves what is drawn the least so that the ledger’s numbers are true and what holds goes on holding: tangent " +
    "joints, level edges, shared centres. What would move is shown first, and what holds can be let go. Lists what " +
    "the numbers leave open, and puts callouts that are not placed where they belong.",
  drawing: ["M4 20 L15 20 L21 8 M9 9 L11.5 12 L16 5", "M4 17 L13 17 L18 8"],
};
