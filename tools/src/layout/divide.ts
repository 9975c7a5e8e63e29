import { exampleCircle } from "../example/exampleShapes.ts";
import { dividingPoints } from "@ash-edge/core/construct";
import { splitInto } from "@ash-edge/core/edits";
import { done, refuse } from "@ash-edge/core/numeric";
import type { Shape } from "@ash-edge/core/shape";
import { pickedCurve } from "../making.ts";
import { nothing, refused, type Tool } from "../tool.ts";
import { layoutWay } from "./layoutWay.ts";

export const divide: Tool = {
  kind: "tool",
  id: "divide",
  name: "Divide",
  help:
    "Pick a line, an arc or a circle: layout points divide it into equal parts, round a circle from where it was " +
    "picked. Or it is itself cut into that many pieces.",
  drawing: [
    "M4 12 m-1.5 0 a1.5 1.5 0 1 0 3 0 a1.5 1.5 0 1 0 -3 0 M12 12 m-1.5 0 a1.5 1.5 0 1 0 3 0 a1.5 1.5 0 1 0 -3 0 " +
      "M20 12 m-1.5 0 a1.5 1.5 0 1 0 3 0 a1.5 1.5 0 1 0 -3 0",
    "M2 12 L22 12",
  ],
  example: { cut: [exampleCircle(0, 0, 30)], typed: { parts: "6" }, clicks: [[30, 0]] },
  parts: [
    { kind: "pick", name: "curve", label: "line, arc or circle", takes: "curve", exact: true },
    { kind: "words", text: "into" },
    { kind: "value", name: "parts", label: "parts", expects: "count", stays: true, given: 2 },
    { kind: "words", text: "equal parts by" },
    {
      kind: "choice",
      name: "by",
      label: "by",
      options: [
        ["points", "points"],
        ["pieces", "pieces"],
      ],
    },
  ],
  propose: (given, { drawing }) => {
    const { curve: picked } = given.picks;
    const curve = pickedCurve(drawing, picked);
    if (!curve || !picked) return nothing;
    const parts = given.value("parts") ?? 2;
    if (parts < 2) return refused(refuse("divide-by-one"));
    const found = dividingPoints(curve, parts, picked.at);
    if (!found.ok) return given.isFirm("curve") ? refused(found) : nothing;
    const points = found.value.map((at): Shape => ({ kind: "point", at }));
    if (given.choice("by") === "pieces") {
      const cut = splitInto(drawing, picked.ref!, parts, picked.at);
      if (!cut.ok) return given.isFirm("curve") ? refused(cut) : nothing;
      const preview = points.map((shape) => ({ shape }));
      return { ways: [{ preview, edit: () => done(cut.value.edit), said: `Split into ${parts}.` }] };
    }
    return {
      ways: [layoutWay(drawing, points, "Divide", "divide")],
      note: `${points.length} point${points.length === 1 ? "" : "s"}`,
    };
  },
};
