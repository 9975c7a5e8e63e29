import { exampleRounded } from "../example/exampleShapes.ts";
import { reroundCorner } from "@ash-edge/core/edits";
import { nothing, type Tool } from "../tool.ts";
import { cutProposal } from "./cornerPick.ts";

export const sharpen: Tool = {
  kind: "tool",
  id: "sharpen",
  name: "Sharpen",
  help: "Click a rounded or a cut corner of a chain: the arc goes, and its edges run to their sharp corner.",
  drawing: ["M4 20 L4 4 L20 4", "M4 12 A8 8 0 0 1 12 4"],
  example: { cut: [exampleRounded(70, 40, 12)], clicks: [[66.49, 36.49]] },
  parts: [{ kind: "pick", name: "arc", label: "rounded corner", takes: "curve" }],
  propose: (given, context) => {
    const { arc } = given.picks;
    if (!arc?.ref) return nothing;
    return cutProposal(
      reroundCorner(context.drawing, arc.ref, undefined),
      given.isFirm("arc"),
      context.unit,
      "sharpened",
    );
  },
};
