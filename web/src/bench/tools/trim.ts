import { planTrim } from "@ash-edge/core/drawing";
import { nothing, refused, type Tool } from "./tool.ts";

export const trim: Tool = {
  kind: "tool",
  id: "trim",
  name: "Trim",
  bank: "KeyA",
  help: "Click the piece that is too much: it goes, back to what crosses it on both sides. What would go is shown first.",
  drawing: ["M4 12 L9 12 M12 4 L12 20", "M14 12 L20 12"],
  parts: [
    { kind: "pick", name: "piece", label: "piece", takes: "curve" },
    { kind: "words", text: "back to" },
    {
      kind: "choice",
      name: "cutters",
      label: "cutting edges",
      options: [
        ["all", "whatever crosses"],
        ["cut", "all but layout"],
      ],
    },
  ],
  propose: (given, { index }) => {
    const { piece } = given.picks;
    if (!piece?.ref) return nothing;
    const plan = planTrim(index, piece.ref, piece.at, given.choice("cutters") === "all");
    if (!plan.ok) return refused(plan);
    const { removed, whole, edit } = plan.value;
    const preview = removed.map((shape) => ({ shape, goes: true }));
    return {
      ways: [
        {
          preview,
          edit: () => edit,
          ...(whole ? { said: "Nothing crossed it, so the whole piece was removed." } : {}),
        },
      ],
      ...(whole ? { note: "Nothing crosses this piece: all of it goes" } : {}),
    };
  },
};
