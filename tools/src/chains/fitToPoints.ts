import { exampleDot } from "../example/exampleShapes.ts";
import { chainOfPieces } from "@ash-edge/core/contour";
import { layerOf } from "@ash-edge/core/drawing";
import { addShapes } from "@ash-edge/core/edits";
import {
  lineToPoints,
  circleToPoints,
  arcToPoints,
  fitMeasured,
  type Measured,
  type Residuals,
} from "@ash-edge/core/fit";
import { boundsOf, equalPoint, type Point } from "@ash-edge/core/geometry";
import { showLengthUnit, refuse, type Unit } from "@ash-edge/core/numeric";
import type { Shape } from "@ash-edge/core/shape";
import { refused, under, nothing, type Given, type ToolContext, type Proposal, type Tool, type Part } from "../tool.ts";
import { toleranceOf } from "./fitTolerance.ts";

/** So many points can be picked. */
const MOST_POINTS = 60;
const POINT_NAMES = Array.from({ length: MOST_POINTS }, (_, i) => `point ${i + 1}`);

type Fitted = { readonly shape: Shape; readonly words: string; readonly within?: number };

/** Where nothing else is told, points picked by eye lie within this part of how far they reach. */
const PICKED_WITHIN = 0.005;

const fitted = (given: Given, { drawing, unit }: ToolContext, points: readonly Point[]): Fitted | undefined => {
  const what = given.choice("what");
  const off = ({ largest, rms }: Residuals): string =>
    `off by ${showLengthUnit(largest, unit)} at most, ${showLengthUnit(rms, unit)} on average (root mean square)`;
  if (what === "line") {
    const line = lineToPoints(points);
    return line && { shape: { kind: "piece", ...line.piece }, words: off(line.residuals) };
  }
  if (what === "circle") {
    const circle = circleToPoints(points);
    return (
      circle && {
        shape: { kind: "circle", ...circle.circle },
        words: `${roundSize(circle.circle.radius, unit)}, ${off(circle.residuals)}`,
      }
    );
  }
  if (what === "arc") {
    const arc = arcToPoints(points);
    return arc && { shape: { kind: "piece", ...arc.piece }, words: off(arc.residuals) };
  }
  const within = given.value("within") ?? Math.max(toleranceOf(given, drawing), PICKED_WITHIN * reachOf(points));
  const fit = runWithin(points, within);
  if (!fit) return undefined;
  let id = -1;
  const { pieces, largest } = fit;
  const made = pieces.length === 1 ? "1 piece" : `${pieces.length} pieces`;
  return {
    shape: chainOfPieces(pieces, false, () => id--),
    words: `${made}, off by ${showLengthUnit(largest, unit)} at most`,
    within,
  };
};

/** How far points reach in x or y, whichever is more. */
const reachOf = (points: readonly Point[]): number => {
  const { minX, minY, maxX, maxY } = boundsOf(points);
  return Math.max(maxX - minX, maxY - minY);
};

/** The fewest lines and arcs that no point lies farther off than the tolerance, which is about twice their scatter. */
const runWithin = (points: readonly Point[], tolerance: number): Measured | undefined => {
  let fit: Measured | undefined;
  for (let scatter = tolerance / 2; scatter > tolerance / 100; scatter /= 2) {
    fit = fitMeasured(points, false, scatter);
    if (!fit || fit.largest <= tolerance) break;
  }
  return fit;
};

const roundSize = (radius: number, unit: Unit): string => `R ${showLengthUnit(radius, unit)}`;

const propose = (given: Given, context: ToolContext): Proposal => {
  const picked = POINT_NAMES.flatMap((name) => given.picks[name]?.at ?? []);
  // the pointer is still on the last one that was picked
  const points = picked.filter((at, i) => i === 0 || !equalPoint(at, picked[i - 1]!));
  const dots = points.map((at) => ({ shape: { kind: "point", at } as Shape }));
  if (points.length < 2) return { ways: [{ preview: dots }] };
  const made = fitted(given, context, points);
  if (!made) return points.length < 3 ? { ways: [{ preview: dots }] } : refused(refuse("points-no-circle"));
  const { drawing, layer } = context;
  return {
    ways: [
      {
        preview: [{ shape: made.shape }, ...dots],
        edit: () =>
          addShapes(drawing, { label: "Fit to points", gesture: "fit-to-points", layer, shapes: [made.shape] }),
        said: `Fitted: ${made.words}.`,
      },
    ],
    note:
      `${points.length} points · ${made.words}` +
      `${made.within === undefined ? "" : `, within ${showLengthUnit(made.within, context.unit)}`} · Enter makes it`,
  };
};

export const fitToPoints: Tool = {
  kind: "tool",
  id: "fit-to-points",
  name: "Fit to points",
  help:
    "Click points, on the picture of a sketch under the drawing or anywhere; Backspace takes the last one back. " +
    "Enter makes the line, the arc or the circle that lies nearest to all of them, or the fewest arcs and lines for " +
    "points picked by eye within a tolerance, a two hundredth of their reach where none is typed, and says how far " +
    "they lie off it.",
  drawing: [
    "M4 18 A15 15 0 0 1 20 8",
    ["M5 15", "M9 13", "M14 8", "M19 10"]
      .map((at) => `${at} m-1.3 0 a1.3 1.3 0 1 0 2.6 0 a1.3 1.3 0 1 0 -2.6 0`)
      .join(" "),
  ],
  example: {
    layout: [exampleDot(0, 0), exampleDot(12, 14), exampleDot(30, 19), exampleDot(52, 10)],
    chosen: { what: "arc" },
    clicks: [
      [0, 0],
      [12, 14],
      [30, 19],
      [52, 10],
    ],
    finish: true,
  },
  parts: [
    { kind: "words", text: "a" },
    {
      kind: "choice",
      name: "what",
      label: "what",
      options: [
        ["circle", "circle"],
        ["arc", "arc"],
        ["line", "line"],
        ["run", "arcs and lines"],
      ],
    },
    { kind: "words", text: "to" },
    ...POINT_NAMES.map((name, i): Part => ({
      kind: "pick",
      name,
      label: "points",
      takes: "point",
      ...(i > 0 ? { silent: true } : {}),
    })),
    { kind: "words", text: "within", onlyIf: under("what", "run") },
    { kind: "value", name: "within", label: "tolerance", expects: "length", stays: true, onlyIf: under("what", "run") },
  ],
  propose,
  finish: (given, context) => {
    const proposal = propose(given, context);
    const layer = layerOf(context.drawing, context.layer);
    if (layer?.locked) return refused(refuse("layer-locked", { layer: layer.name }));
    return proposal.ways[0]?.edit ? proposal : nothing;
  },
};
