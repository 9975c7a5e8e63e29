import { exampleBox } from "../example/exampleShapes.ts";
import { smoothEntity } from "@ash-edge/core/edits";
import { done } from "@ash-edge/core/numeric";
import { nothing, refused, type Tool } from "../tool.ts";

export const smooth: Tool = {
  kind: "tool",
  id: "smooth",
  name: "Smooth",
  help:
    "Click a chain: tangent arcs go through its corners, two between one and the next, or a free curve is steered " +
    "by them, whose points can then be moved.",
  drawing: ["M3 18 C8 4 12 20 21 6", "M3 18 L9 9 L15 14 L21 6"],
  example: { cut: [exampleBox(0, 0, 70, 40)], clicks: [[35, 0]] },
  parts: [
    { kind: "pick", name: "chain", label: "chain", takes: "curve" },
    { kind: "words", text: "as" },
    {
      kind: "choice",
      name: "how",
      label: "how",
      options: [
        ["arcs", "tangent arcs through its corners"],
        ["free", "a free curve steered by them"],
      ],
    },
  ],
  propose: (given, { drawing }) => {
    const id = given.picks.chain?.ref?.id;
    if (id === undefined) return nothing;
    const made = smoothEntity(drawing, id, given.choice("how") as "arcs" | "free");
    if (!made.ok) return refused(made);
    return { ways: [{ preview: [{ shape: made.value.shape }], edit: () => done(made.value.edit) }] };
  },
};
