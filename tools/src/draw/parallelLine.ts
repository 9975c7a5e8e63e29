import { exampleArc } from "../example/exampleShapes.ts";
import { distanceFrom, parallelPiece } from "@ash-edge/core/construct";
import { refuse, RESOLUTION } from "@ash-edge/core/numeric";
import { linkCallout } from "../linking.ts";
import { pickedCurve, makingWay, pieceShape } from "../making.ts";
import { bySide, nothing, refused, type Tool } from "../tool.ts";

export const parallelLine: Tool = {
  kind: "tool",
  id: "parallel-line",
  name: "Parallel line",
  help:
    "Click a line or an arc, then its side: a piece just as long, parallel at the typed distance, or through the " +
    "point clicked.",
  drawing: ["M4 8 L18 8", "M6 16 L20 16 M12 10.5 L12 13.5"],
  example: {
    cut: [exampleArc([0, 0], [60, 0], -0.4)],
    typed: { distance: "10" },
    clicks: [
      [30, 12],
      [30, 40],
    ],
  },
  parts: [
    { kind: "words", text: "to" },
    { kind: "pick", name: "of", label: "line or arc", takes: "curve" },
    { kind: "words", text: "at" },
    { kind: "value", name: "distance", label: "distance", expects: "length", stays: true },
    { kind: "pick", name: "side", label: "side", takes: "point", silent: true, bare: bySide },
  ],
  propose: (given, { drawing, layer }) => {
    const { of } = given.picks;
    const curve = pickedCurve(drawing, of);
    const side = given.picks.side?.at ?? given.pointer;
    if (!of?.ref || !curve || !side || !given.isFirm("of")) return nothing;
    if (curve.kind !== "piece") return refused(refuse("cannot-parallel"));
    const typed = given.value("distance");
    const by = typed ?? distanceFrom(curve, side);
    if (by <= RESOLUTION) return nothing;
    const made = parallelPiece(curve, side, by);
    if (!made.ok) return refused(made);
    const source = of.ref;
    const way = makingWay(parallelLine, drawing, layer, [pieceShape(made.value)], (draft, [id]) =>
      linkCallout(draft, given.callout("distance"), [source, { id: id! }]),
    );
    return { ways: [way], ...(typed === undefined ? { live: { distance: by } } : {}) };
  },
};
