import { chainOfPieces } from "@ash-edge/core/contour";
import { entityOf, layerOf, settingsOf, type Drawing } from "@ash-edge/core/drawing";
import {
  draftEdit,
  fitEntity,
  jointNear,
  slideJoint,
  smoothEntity,
  straightenEntity,
  type FitGiven,
  type FitMade,
} from "@ash-edge/core/edits";
import { arcToPoints, circleToPoints, fitRun, lineToPoints, type Residuals } from "@ash-edge/core/fit";
import type { Piece, Point } from "@ash-edge/core/geometry";
import { refuse, showLengthUnit, toRadians, type Outcome, type Unit } from "@ash-edge/core/numeric";
import type { Shape } from "@ash-edge/core/shape";
import { nothing, refused, under, type Given, type Part, type Proposal, type Tool, type ToolContext } from "./tool.ts";

const within: readonly Part[] = [
  { kind: "words", text: "within" },
  { kind: "value", name: "within", label: "tolerance", expects: "length", stays: true },
];
/** What is typed, else the join tolerance of the job. */
const toleranceOf = (given: Given, drawing: Drawing): number =>
  given.value("within") ?? settingsOf(drawing).joinTolerance;

const known = new WeakMap<Drawing, { key: string; made: Outcome<FitMade> }>();
/** A fit doesn't depend on where on the curve the pointer is. */
const fittedOnce = (drawing: Drawing, id: number, given: FitGiven): Outcome<FitMade> => {
  const key = `${id} ${JSON.stringify(given)}`;
  const last = known.get(drawing);
  if (last?.key === key) return last.made;
  const made = fitEntity(drawing, id, given);
  known.set(drawing, { key, made });
  return made;
};

/** Turns of a chain over this are corners, unless another angle is typed. */
const CORNER_DEGREES = 20;

export const arcFit: Tool = {
  kind: "tool",
  id: "arc-fit",
  name: "Arc fit",
  bank: "KeyG",
  help: "Click an ellipse, a free curve, or a chain of many small pieces: tangent arcs and lines take its place, no farther off than the tolerance, ends and corners as they were (of a chain, what turns more than the angle). It says how many there are and how far off at the most, and a chart shows it all along. A curve that is nearly one arc can be made one.",
  drawing: [
    "M3 17 C7 4 15 3 21 13",
    "M3 17 m-1.4 0 a1.4 1.4 0 1 0 2.8 0 a1.4 1.4 0 1 0 -2.8 0 M12 7 m-1.4 0 a1.4 1.4 0 1 0 2.8 0 a1.4 1.4 0 1 0 -2.8 0 M21 13 m-1.4 0 a1.4 1.4 0 1 0 2.8 0 a1.4 1.4 0 1 0 -2.8 0",
  ],
  parts: [
    { kind: "words", text: "to" },
    { kind: "pick", name: "curve", label: "curve or chain", takes: "curve" },
    ...within,
    {
      kind: "choice",
      name: "how",
      label: "how",
      options: [
        ["arcs", "tangent arcs"],
        ["one", "one arc"],
      ],
    },
    { kind: "words", text: "corners over", onlyIf: under("how", "arcs") },
    {
      kind: "value",
      name: "corners",
      label: "corners over",
      expects: "angle",
      stays: true,
      given: CORNER_DEGREES,
      onlyIf: under("how", "arcs"),
    },
  ],
  propose: (given, { drawing, unit }) => {
    const id = given.picks.curve?.ref?.id;
    if (id === undefined) return nothing;
    const tolerance = toleranceOf(given, drawing);
    const cornerAngle = toRadians(given.value("corners") ?? CORNER_DEGREES);
    const made = fittedOnce(drawing, id, { tolerance, cornerAngle, oneArc: given.choice("how") === "one" });
    if (!made.ok) return refused(made);
    const { edit, shape, before, after, fit } = made.value;
    const words = `${before > 1 ? `${before} pieces to ${after}` : after === 1 ? "1 piece" : `${after} pieces`}, off by ${showLengthUnit(fit.deviation, unit)} at most`; // prettier-ignore
    return {
      ways: [{ preview: [{ shape }, { shape: { kind: "point", at: fit.at } }], edit: () => edit, said: `${words}.` }],
      note: words,
      chart: { profile: fit.profile, tolerance },
      ...(given.value("within") === undefined ? { live: { within: tolerance } } : {}),
    };
  },
};

export const slideAJoint: Tool = {
  kind: "tool",
  id: "slide-joint",
  name: "Slide a joint",
  bank: "KeyG",
  help: "Where does this arc end? Click a chain near the place where one arc or line runs on smoothly into the next, then where that place should be: both pieces change and stay tangent to each other and to their neighbours.",
  drawing: ["M3 18 A10 10 0 0 1 12 9 A13 13 0 0 0 21 4", "M12 9 m-2 0 a2 2 0 1 0 4 0 a2 2 0 1 0 -4 0 M14 13 L19 11"],
  parts: [
    { kind: "words", text: "of" },
    { kind: "pick", name: "chain", label: "chain, near it", takes: "curve" },
    { kind: "words", text: "to" },
    { kind: "pick", name: "to", label: "place", takes: "point" },
  ],
  propose: (given, { drawing }) => {
    const { chain, to } = given.picks;
    if (!chain?.ref) return nothing;
    const joint = jointNear(drawing, chain.ref.id, chain.at);
    if (joint === undefined) return refused(refuse("joint-none"));
    const entity = entityOf(drawing, chain.ref.id);
    const at = entity?.kind === "chain" ? entity.vertices[joint]!.at : chain.at;
    if (!to || !given.isFirm("chain")) return { ways: [{ preview: [{ shape: { kind: "point", at } }] }] };
    const made = slideJoint(drawing, chain.ref.id, joint, to.at);
    if (!made.ok) return refused(made);
    const { edit, pieces } = made.value;
    return {
      ways: [
        {
          preview: [
            ...pieces.map((piece) => ({ shape: { kind: "piece", ...piece } as Shape })),
            { shape: { kind: "point", at: pieces[0]!.b } },
          ],
          edit: () => edit,
        },
      ],
    };
  },
};

export const smooth: Tool = {
  kind: "tool",
  id: "smooth",
  name: "Smooth",
  bank: "KeyG",
  help: "Click a chain: tangent arcs go through its corners, two between one and the next, or a free curve is steered by them, whose points can then be moved.",
  drawing: ["M3 18 C8 4 12 20 21 6", "M3 18 L9 9 L15 14 L21 6"],
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
    return { ways: [{ preview: [{ shape: made.value.shape }], edit: () => made.value.edit }] };
  },
};

export const toStraight: Tool = {
  kind: "tool",
  id: "to-straight",
  name: "To straight pieces",
  bank: "KeyG",
  help: "Click a chain, an arc, a circle or a smooth curve: its arcs become straight pieces, as few as lie within the tolerance. For machines that read no arcs.",
  drawing: ["M3 17 L7 9 L13 6 L21 9", "M3 17 C6 6 14 3 21 9"],
  parts: [{ kind: "pick", name: "curve", label: "curve or chain", takes: "curve" }, ...within],
  propose: (given, { drawing }) => {
    const id = given.picks.curve?.ref?.id;
    if (id === undefined) return nothing;
    const tolerance = toleranceOf(given, drawing);
    const made = straightenEntity(drawing, id, tolerance);
    if (!made.ok) return refused(made);
    const { edit, shape, count } = made.value;
    return {
      ways: [{ preview: [{ shape }], edit: () => edit, said: `${count} straight pieces.` }],
      note: `${count} straight pieces`,
      ...(given.value("within") === undefined ? { live: { within: tolerance } } : {}),
    };
  },
};

/** So many points can be picked. */
const MOST_POINTS = 60;
const POINT_NAMES = Array.from({ length: MOST_POINTS }, (_, i) => `point ${i + 1}`);

type Fitted = { readonly shape: Shape; readonly words: string };

const fitted = (given: Given, { drawing, unit }: ToolContext, points: readonly Point[]): Fitted | undefined => {
  const what = given.choice("what");
  const off = ({ largest, rms }: Residuals): string => `off by ${showLengthUnit(largest, unit)} at most, ${showLengthUnit(rms, unit)} on average (root mean square)`; // prettier-ignore
  if (what === "line") {
    const line = lineToPoints(points);
    return line && { shape: { kind: "piece", ...line.piece }, words: off(line.residuals) };
  }
  if (what === "circle") {
    const circle = circleToPoints(points);
    return circle && { shape: { kind: "circle", ...circle.circle }, words: `${roundSize(circle.circle.radius, unit)}, ${off(circle.residuals)}` }; // prettier-ignore
  }
  if (what === "arc") {
    const arc = arcToPoints(points);
    return arc && { shape: { kind: "piece", ...arc.piece }, words: off(arc.residuals) };
  }
  const run = points.slice(1).map((b, i): Piece => ({ a: points[i]!, b, bulge: 0 }));
  const fit = run.length > 0 ? fitRun(run, false, toleranceOf(given, drawing)) : undefined;
  let id = -1;
  return fit && { shape: chainOfPieces(fit.pieces, false, () => id--), words: `${fit.pieces.length} pieces, off by ${showLengthUnit(fit.deviation, unit)} at most` }; // prettier-ignore
};

const roundSize = (radius: number, unit: Unit): string => `R ${showLengthUnit(radius, unit)}`;

const propose = (given: Given, context: ToolContext): Proposal => {
  const points = POINT_NAMES.flatMap((name) => given.picks[name]?.at ?? []);
  const dots = points.map((at) => ({ shape: { kind: "point", at } as Shape }));
  if (points.length < 2) return { ways: [{ preview: dots }] };
  const made = fitted(given, context, points);
  if (!made) return points.length < 3 ? { ways: [{ preview: dots }] } : refused(refuse("points-no-circle"));
  const { drawing, layer } = context;
  return {
    ways: [
      {
        preview: [{ shape: made.shape }, ...dots],
        edit: () => {
          const draft = draftEdit(drawing, "Fit to points", "fit-to-points");
          const { shape } = made;
          draft.add(shape.kind === "chain" ? { ...shape, vertices: shape.vertices.map((one) => ({ ...one, id: draft.newId() })) } : shape, layer); // prettier-ignore
          return draft.finish();
        },
        said: `Fitted: ${made.words}.`,
      },
    ],
    note: `${points.length} points · ${made.words} · Enter makes it`,
  };
};

export const fitToPoints: Tool = {
  kind: "tool",
  id: "fit-to-points",
  name: "Fit to points",
  bank: "KeyG",
  help: "Click points, on the picture of a sketch under the drawing or anywhere; Backspace takes the last one back. Enter makes the line, the arc or the circle that lies nearest to all of them, or tangent arcs and lines within a tolerance, and says how far the points lie off it.",
  drawing: [
    "M4 18 A15 15 0 0 1 20 8",
    "M5 15 m-1.3 0 a1.3 1.3 0 1 0 2.6 0 a1.3 1.3 0 1 0 -2.6 0 M9 13 m-1.3 0 a1.3 1.3 0 1 0 2.6 0 a1.3 1.3 0 1 0 -2.6 0 M14 8 m-1.3 0 a1.3 1.3 0 1 0 2.6 0 a1.3 1.3 0 1 0 -2.6 0 M19 10 m-1.3 0 a1.3 1.3 0 1 0 2.6 0 a1.3 1.3 0 1 0 -2.6 0",
  ],
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
