import { exampleArc } from "../example/exampleShapes.ts";
import { curveAt } from "@ash-edge/core/drawing";
import { bendPiece } from "@ash-edge/core/edits";
import { done, refuse } from "@ash-edge/core/numeric";
import { pieceShape } from "../making.ts";
import { nothing, refused, type Tool } from "../tool.ts";

export const straighten: Tool = {
  kind: "tool",
  id: "straighten",
  name: "Straighten",
  help: "Click an arc, loose or in a chain: it becomes the line between its ends.",
  drawing: ["M4 17 L20 17", "M4 17 A11 11 0 0 1 20 17"],
  example: { cut: [exampleArc([0, 0], [60, 0], -0.5)], clicks: [[30, 15]] },
  parts: [{ kind: "pick", name: "piece", label: "arc", takes: "curve", round: true }],
  propose: (given, { drawing }) => {
    const { piece: picked } = given.picks;
    const curve = picked?.ref && curveAt(drawing, picked.ref);
    if (!picked?.ref || !curve) return nothing;
    if (curve.kind !== "piece" || curve.bulge === 0) return refused(refuse("not-an-arc"));
    const bent = bendPiece(drawing, picked.ref, 0, "Straighten");
    if (!bent.ok) return refused(bent);
    return {
      ways: [
        {
          preview: [{ shape: pieceShape({ a: curve.a, b: curve.b, bulge: 0 }) }],
          edit: () => done(bent.value(() => undefined)),
        },
      ],
    };
  },
};
