import { exampleBox } from "../example/exampleShapes.ts";
import { addCorner } from "@ash-edge/core/edits";
import { curveNearest, pieceLength, piecePoint, type Point } from "@ash-edge/core/geometry";
import { done, RESOLUTION, refuse } from "@ash-edge/core/numeric";
import { nothing, refused, type Tool } from "../tool.ts";
import { pieceAt } from "./handleParts.ts";

export const addCornerTool: Tool = {
  kind: "tool",
  id: "handle-add-corner",
  name: "Add a corner",
  help:
    "Puts a corner on a line or an arc where you click, or at the typed distance from the end that is nearer to the " +
    "pointer. The shape stays until the corner is moved.",
  drawing: ["M4 17 L20 9", "M12 13 m-2.5 0 a2.5 2.5 0 1 0 5 0 a2.5 2.5 0 1 0 -5 0"],
  example: { cut: [exampleBox(0, 0, 70, 40)], typed: { distance: "20" }, grab: [35, 40], clicks: [[10, 42]] },
  parts: [
    { kind: "pick", name: "to", label: "place on it", takes: "point", silent: true },
    { kind: "value", name: "distance", label: "distance", expects: "length", stays: false },
    { kind: "words", text: "from the nearer end" },
  ],
  propose: (given, context) => {
    const { handle, to } = given.picks;
    const piece = pieceAt(context, handle);
    if (!handle?.ref || !piece) return nothing;
    const pointer = curveNearest({ kind: "piece", ...piece }, to?.at ?? given.pointer ?? handle.at);
    const typed = given.value("distance");
    const length = pieceLength(piece);
    if (typed !== undefined && typed >= length - RESOLUTION)
      return refused(refuse("corner-beyond", { limit: length }, piece.b));
    const part = typed === undefined ? pointer.t : typed / length;
    const t = typed !== undefined && pointer.t > 0.5 ? 1 - part : part;
    const at: Point = typed === undefined ? pointer.at : piecePoint(piece, t);
    const added = addCorner(context.drawing, handle.ref, at);
    if (!added.ok) return refused(added);
    return {
      ways: [{ preview: [{ shape: { kind: "point", at } }], edit: () => done(added.value) }],
      ...(typed === undefined ? { live: { distance: Math.min(t, 1 - t) * length } } : {}),
    };
  },
};
