import { exampleBox } from "../example/exampleShapes.ts";
import { entityOf } from "@ash-edge/core/drawing";
import { openOrClose } from "@ash-edge/core/edits";
import { done } from "@ash-edge/core/numeric";
import { nothing, refused, type Tool } from "../tool.ts";

export const openClose: Tool = {
  kind: "tool",
  id: "open-or-close",
  name: "Open or close",
  help:
    "Click a contour near the corner where it should open, or an open chain to close it with a line between its " +
    "ends.",
  drawing: ["M9 5 L5 5 L5 19 L19 19 L19 5 L15 5", "M9 5 L15 5"],
  example: { cut: [exampleBox(0, 0, 70, 40)], clicks: [[68, 40]] },
  parts: [{ kind: "pick", name: "at", label: "chain", takes: "curve" }],
  propose: (given, { drawing }) => {
    const { at } = given.picks;
    const entity = at?.ref && entityOf(drawing, at.ref.id);
    if (!at?.ref || !entity) return nothing;
    const made = openOrClose(drawing, entity.id, at.at);
    if (!made.ok) return given.isFirm("at") ? refused(made) : nothing;
    const { edit, opened } = made.value;
    return {
      ways: [
        { preview: [], edit: () => done(edit), said: opened ? "The contour is open here." : "The chain is closed." },
      ],
      note: opened ? "opens here" : "closes it",
    };
  },
};
