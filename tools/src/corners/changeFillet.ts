import { exampleRounded } from "../example/exampleShapes.ts";
import { reroundCorner } from "@ash-edge/core/edits";
import { nothing, type Tool } from "../tool.ts";
import { cutProposal, linker } from "./cornerPick.ts";

export const changeFillet: Tool = {
  kind: "tool",
  id: "change-fillet",
  name: "Change fillet",
  help:
    "Click a rounded corner, of a chain or of loose pieces, with the new R or Ø typed: its edges stay where they " +
    "run, the arc gets the " +
    "new radius.",
  drawing: ["M4 20 L4 12 A8 8 0 0 1 12 4 L20 4", "M4 20 L4 15 A11 11 0 0 1 15 4 L20 4"],
  example: { cut: [exampleRounded(70, 40, 8)], typed: { size: "16" }, clicks: [[67.66, 37.66]] },
  parts: [
    { kind: "pick", name: "arc", label: "rounded corner", takes: "curve", round: true },
    { kind: "words", text: "to" },
    { kind: "size", name: "size", first: "R" },
  ],
  propose: (given, context) => {
    const { arc } = given.picks;
    const radius = given.radius("size");
    if (!arc?.ref) return nothing;
    if (radius === undefined) return { ways: [], note: "Type R or Ø" };
    return cutProposal(
      reroundCorner(context.drawing, arc.ref, radius, linker(given, "size")),
      true,
      context.unit,
      "changed",
    );
  },
};
