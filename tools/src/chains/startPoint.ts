import { exampleBox } from "../example/exampleShapes.ts";
import { entityOf } from "@ash-edge/core/drawing";
import { startAt, nearestVertex } from "@ash-edge/core/edits";
import { done } from "@ash-edge/core/numeric";
import { nothing, refused, type Tool } from "../tool.ts";

export const startPoint: Tool = {
  kind: "tool",
  id: "start-point",
  name: "Start point",
  help:
    "Click a contour near the corner where the cutter should start; its direction is kept or turned round. An open " +
    "chain can be turned round.",
  drawing: ["M6 6 L18 6 L18 18 L6 18 Z", "M6 6 m-2.2 0 a2.2 2.2 0 1 0 4.4 0 a2.2 2.2 0 1 0 -4.4 0 M11 3 L15 6 L11 9"],
  example: { cut: [exampleBox(0, 0, 70, 40)], clicks: [[68, 40]] },
  parts: [
    { kind: "pick", name: "at", label: "chain, near a corner", takes: "curve" },
    { kind: "words", text: "·" },
    {
      kind: "choice",
      name: "way",
      label: "direction",
      options: [
        ["keep", "keep the direction"],
        ["turn", "turn it round"],
      ],
    },
  ],
  propose: (given, { drawing }) => {
    const { at } = given.picks;
    const entity = at?.ref && entityOf(drawing, at.ref.id);
    if (!at?.ref || !entity) return nothing;
    const made = startAt(drawing, entity.id, at.at, given.choice("way") === "turn");
    if (!made.ok) return given.isFirm("at") ? refused(made) : nothing;
    const start = entity.kind === "chain" ? nearestVertex(entity, at.at).at : at.at;
    return { ways: [{ preview: [{ shape: { kind: "point", at: start } }], edit: () => done(made.value) }] };
  },
};
