import { exampleCircle, exampleDot } from "../example/exampleShapes.ts";
import { squareEnd, feetOf } from "@ash-edge/core/construct";
import { curveNearest, directionAt, distance } from "@ash-edge/core/geometry";
import { RESOLUTION, refuse } from "@ash-edge/core/numeric";
import { linkCallout } from "../linking.ts";
import { pickedCurve, makingWay, pieceShape } from "../making.ts";
import { nothing, refused, type Tool } from "../tool.ts";
import { lineEnd } from "./line.ts";

export const perpendicular: Tool = {
  kind: "tool",
  id: "perpendicular",
  name: "Perpendicular",
  help:
    "Click a curve, then a point: the line from the point square to the curve; Space takes its other feet. A point " +
    "on the curve itself starts a line square to it there, as long as typed or as a further click says.",
  drawing: ["M14 4 L14 17", "M4 17 L21 17 M14 13 L18 13 L18 17"],
  example: {
    cut: [exampleCircle(0, 0, 20)],
    layout: [exampleDot(50, 25)],
    clicks: [
      [14.1, 14.1],
      [50, 25],
    ],
  },
  parts: [
    { kind: "words", text: "square to" },
    { kind: "pick", name: "curve", label: "curve", takes: "curve" },
    { kind: "words", text: "through" },
    { kind: "pick", name: "through", label: "point", takes: "point" },
    { kind: "words", text: "· length" },
    { kind: "value", name: "length", label: "length", expects: "length", stays: false },
    { kind: "pick", name: "to", label: "end", takes: "point", silent: true },
  ],
  wants: ({ picks }) => (picks.through?.snap === "on the curve" ? ["curve", "through", "to"] : ["curve", "through"]),
  propose: (given, { drawing, layer }) => {
    const { curve: picked, through } = given.picks;
    const curve = pickedCurve(drawing, picked);
    if (!curve || !through || !given.isFirm("curve")) return nothing;
    const foot = curveNearest(curve, through.at);
    const length = given.value("length");
    const link = (draft: Parameters<typeof linkCallout>[0], ids: readonly number[]): void =>
      linkCallout(draft, given.callout("length"), [{ id: ids[0]! }]);
    if (foot.distance <= RESOLUTION) {
      const to = given.picks.to?.at ?? given.pointer;
      // the first click sets the place, the second the end
      if (!given.picks.to && through.snap !== "on the curve")
        return {
          ways: [{ preview: [], next: { curve: picked!, through: { ...through, at: foot.at, snap: "on the curve" } } }],
        };
      if (!to) return nothing;
      const end = squareEnd(directionAt(curve, foot.at), foot.at, to, length);
      if (distance(foot.at, end) <= RESOLUTION) return nothing;
      const way = makingWay(perpendicular, drawing, layer, [pieceShape({ a: foot.at, b: end, bulge: 0 })], link);
      return { ways: [way], ...(length === undefined ? { live: { length: distance(foot.at, end) } } : {}) };
    }
    const feet = feetOf(curve, through.at).filter(
      (at) => curveNearest(curve, at).distance <= RESOLUTION || curve.kind === "piece",
    );
    if (feet.length === 0) return given.isFirm("through") ? refused(refuse("no-foot")) : nothing;
    const ways = feet.map((at) => {
      const b = length === undefined ? at : lineEnd(through.at, at, length, undefined);
      return makingWay(perpendicular, drawing, layer, [pieceShape({ a: through.at, b, bulge: 0 })], link);
    });
    return { ways, ...(length === undefined ? { live: { length: distance(through.at, feet[0]!) } } : {}) };
  },
};
