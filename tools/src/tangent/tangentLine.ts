import { exampleCircle } from "../example/exampleShapes.ts";
import {
  tangentLinesOfRound,
  tangentLinesOfCircles,
  tangentLinesFromPoint,
  type Round,
  type TangentLine,
} from "@ash-edge/core/construct";
import { distance } from "@ash-edge/core/geometry";
import { refuse, RESOLUTION, type Outcome } from "@ash-edge/core/numeric";
import { makingWay, pieceShape } from "../making.ts";
import { nothing, refused, type Tool } from "../tool.ts";
import { WHERE_TOUCHED } from "../touching.ts";
import { roundOf, touchesThere } from "./fromTouch.ts";

const solutions = (a: Round | undefined, b: Round | undefined): Outcome<readonly TangentLine[]> => {
  if (!a || !b || (a.kind === "point" && b.kind === "point")) return refuse("not-a-curve");
  if (a.kind === "ellipse" || b.kind === "ellipse") return tangentLinesOfRound(a, b);
  if (a.kind === "circle" && b.kind === "circle") return tangentLinesOfCircles(a, b);
  if (a.kind === "point" && b.kind === "circle") return tangentLinesFromPoint(a.at, b);
  if (a.kind !== "circle" || b.kind !== "point") return refuse("not-a-curve");
  const back = tangentLinesFromPoint(b.at, a);
  return back.ok ? { ok: true, value: back.value.map((line) => ({ from: line.to, to: line.from })) } : back;
};

export const tangentLine: Tool = {
  kind: "tool",
  id: "tangent-line",
  name: "Tangent line",
  help:
    "Pick a point, a circle or an ellipse, then another, each near where the line should touch. Space shows the " +
    "next of its solutions.",
  drawing: [
    "M4 6 L20 9",
    "M11 12 A4.5 4.5 0 1 1 2 12 A4.5 4.5 0 1 1 11 12 M22 14 A3.5 3.5 0 1 1 15 14 A3.5 3.5 0 1 1 22 14",
  ],
  example: {
    cut: [exampleCircle(0, 0, 20), exampleCircle(80, 0, 12)],
    clicks: [
      [0, 20],
      [80, 12],
    ],
  },
  parts: [
    { kind: "words", text: "from" },
    { kind: "pick", name: "from", label: "point or circle", takes: "either", round: true },
    { kind: "words", text: "to" },
    { kind: "pick", name: "to", label: "circle or point", takes: "either", round: true },
    { kind: "words", text: "·" },
    WHERE_TOUCHED,
  ],
  from: "from",
  propose: (given, { drawing, layer }) => {
    const { from, to } = given.picks;
    if (!from || !to || !given.isFirm("from")) return nothing;
    const [a, b] = [roundOf(drawing, from), roundOf(drawing, to)];
    if (b?.kind === "point" && a?.kind === "point" && !given.isFirm("to")) return nothing;
    const found = solutions(a, b);
    if (!found.ok) return refused(found);
    const touches = touchesThere(given, drawing);
    const real = found.value.filter(
      (line) => touches(from, line.from) && touches(to, line.to) && distance(line.from, line.to) > RESOLUTION,
    );
    if (real.length === 0) return refused(refuse("touch-beyond-end"));
    const miss = (line: TangentLine): number => distance(line.from, from.at) + distance(line.to, to.at);
    return {
      ways: [...real]
        .sort((p, q) => miss(p) - miss(q))
        .map((line) => makingWay(tangentLine, drawing, layer, [pieceShape({ a: line.from, b: line.to, bulge: 0 })])),
    };
  },
};
