import { freeThrough } from "@ash-edge/core/construct";
import { chainOfPieces } from "@ash-edge/core/contour";
import {
  applyEdit,
  entitiesOf,
  LAYOUT_LAYER,
  newDrawing,
  PROFILE_LAYER,
  type Drawing,
  type Edit,
} from "@ash-edge/core/drawing";
import { draftEdit } from "@ash-edge/core/edits";
import { arcsThrough } from "@ash-edge/core/fit";
import { distance } from "@ash-edge/core/geometry";
import { handlesOf, indexDrawing, snapsAt } from "@ash-edge/core/look";
import type { Shape } from "@ash-edge/core/shape";
import {
  startTool,
  stepTool,
  underPoint,
  type Hover,
  type Step,
  type Ask,
  type Tool,
  type ToolContext,
} from "@ash-edge/tools";

type At = readonly [x: number, y: number];
const line = (a: At, b: At): Shape => ({ kind: "piece", a: { x: a[0], y: a[1] }, b: { x: b[0], y: b[1] }, bulge: 0 });
const arc = (a: At, b: At, bulge: number): Shape => ({ ...line(a, b), bulge }) as Shape;
const circle = (x: number, y: number, radius: number): Shape => ({ kind: "circle", centre: { x, y }, radius });
const dot = (x: number, y: number): Shape => ({ kind: "point", at: { x, y } });
const box = (x: number, y: number, width: number, height: number): Shape => ({
  kind: "chain",
  closed: true,
  vertices: (
    [
      [x, y],
      [x + width, y],
      [x + width, y + height],
      [x, y + height],
    ] as const
  ).map(([px, py], i) => ({ id: 900 + i, at: { x: px, y: py }, bulge: 0 })),
});

const wave = (...all: readonly At[]): Shape => {
  const made = freeThrough(all.map(([x, y]) => ({ x, y })));
  if (!made.ok) throw new Error(made.refusal.code);
  return { kind: "free", ...made.value };
};
/** Tangent arcs through three places. */
const arcs = (...all: readonly At[]): Shape => {
  let id = 900;
  return chainOfPieces(
    arcsThrough(
      all.map(([x, y]) => ({ x, y })),
      false,
    ),
    false,
    () => id++,
  );
};
/** A box whose last corner is rounded. */
const rounded = (width: number, height: number, r: number): Shape => ({
  kind: "chain",
  closed: true,
  vertices: (
    [
      [0, 0, 0],
      [width, 0, 0],
      [width, height - r, Math.tan(Math.PI / 8)],
      [width - r, height, 0],
      [0, height, 0],
    ] as const
  ).map(([x, y, bulge], i) => ({ id: 900 + i, at: { x, y }, bulge })),
});

/** A small piece of work by which a tool is explained: what stands there, what is typed, chosen and clicked. */
export type Example = {
  readonly cut?: readonly Shape[];
  readonly layout?: readonly Shape[];
  readonly typed?: Readonly<Record<string, string>>;
  readonly chosen?: Readonly<Record<string, string>>;
  /** All that is cut is selected when the tool is taken up. */
  readonly selected?: boolean;
  readonly clicks?: readonly At[];
  /** The clicks are on a sketch picture, 400 by 300 pixels, that shows 200 by 150 of the unit. */
  readonly onPicture?: readonly At[];
  /** The handle of what stands there that the tool is taken up at. */
  readonly grab?: At;
  /** Enter instead of a last click. */
  readonly finish?: boolean;
};

/** One for every tool; a test makes sure of that, and that each makes or says something. */
export const EXAMPLES: Readonly<Record<string, Example>> = {
  parallel: {
    cut: [line([0, 0], [80, 0])],
    typed: { distance: "15", times: "2" },
    clicks: [
      [40, 0],
      [40, 20],
    ],
  },
  "through-two-points": {
    layout: [dot(10, 10), dot(60, 35)],
    clicks: [
      [10, 10],
      [60, 35],
    ],
  },
  "at-an-angle": { layout: [dot(20, 10)], typed: { angle: "30" }, clicks: [[20, 10]] },
  "square-to": {
    cut: [line([0, 0], [80, 20])],
    layout: [dot(30, 40)],
    clicks: [
      [60, 15],
      [30, 40],
    ],
  },
  bisector: {
    cut: [line([0, 0], [80, 0]), line([0, 0], [50, 50])],
    clicks: [
      [60, 0],
      [40, 40],
    ],
  },
  "layout-line": {
    typed: { length: "60", angle: "20" },
    clicks: [
      [0, 0],
      [60, 20],
    ],
  },
  "layout-circle": { layout: [dot(0, 0)], typed: { size: "50d" }, clicks: [[0, 0]] },
  point: { cut: [line([0, 0], [60, 0]), line([20, -20], [50, 30])], clicks: [[32, 0]] },
  divide: { cut: [circle(0, 0, 30)], typed: { parts: "6" }, clicks: [[30, 0]] },
  "layout-to-cut": {
    cut: [line([0, -20], [0, 20]), line([50, -20], [50, 20])],
    layout: [line([0, 0], [50, 0])],
    clicks: [[25, 0]],
  },
  line: {
    typed: { length: "50", angle: "30" },
    clicks: [
      [0, 0],
      [40, 30],
    ],
  },
  circle: { layout: [dot(0, 0)], typed: { size: "40d" }, clicks: [[0, 0]] },
  "tangent-line": {
    cut: [circle(0, 0, 20), circle(80, 0, 12)],
    clicks: [
      [0, 20],
      [80, 12],
    ],
  },
  "tangent-arc": {
    cut: [circle(0, 0, 20), circle(80, 0, 14)],
    typed: { size: "110r" },
    clicks: [
      [0, -20],
      [80, -14],
    ],
  },
  rectangle: { typed: { width: "70", height: "40", corner: "8" }, chosen: { corners: "round" }, clicks: [[0, 0]] },
  trim: { cut: [circle(0, 0, 25), line([-40, 0], [40, 0])], clicks: [[0, 25]] },
  extend: { cut: [line([0, 0], [40, 0]), line([60, -20], [60, 20])], clicks: [[35, 0]] },
  "to-one-line": {
    cut: [line([60, -30], [60, 30]), line([0, 15], [40, 15]), line([0, -15], [75, -15])],
    clicks: [
      [60, 0],
      [35, 15],
      [70, -15],
    ],
  },
  split: { cut: [arc([0, 0], [60, 0], -0.5)], clicks: [[30, 15]] },
  "split-at-crossings": {
    cut: [line([0, 0], [80, 0]), line([25, -15], [25, 15]), line([55, -15], [55, 15])],
    clicks: [[40, 0]],
  },
  fillet: { cut: [box(0, 0, 70, 40)], typed: { size: "12" }, clicks: [[70, 40]] },
  chamfer: { cut: [box(0, 0, 70, 40)], typed: { a: "12" }, clicks: [[70, 40]] },
  meet: {
    cut: [line([0, 0], [50, 0]), line([70, 20], [70, 50])],
    clicks: [
      [20, 0],
      [70, 40],
    ],
  },
  "corner-relief": { cut: [box(0, 0, 70, 40), box(-15, -15, 100, 70)], typed: { size: "8" }, clicks: [[70, 40]] },
  "change-fillet": { cut: [rounded(70, 40, 8)], typed: { size: "16" }, clicks: [[67.66, 37.66]] },
  sharpen: { cut: [rounded(70, 40, 12)], clicks: [[66.49, 36.49]] },
  copy: { cut: [circle(0, 0, 12)], typed: { x: "40", y: "10" }, clicks: [[12, 0]], finish: true },
  rotate: {
    cut: [line([0, 0], [50, 0])],
    typed: { angle: "35" },
    clicks: [
      [25, 0],
      [0, 0],
    ],
  },
  scale: {
    cut: [line([0, 0], [40, 0]), line([40, 0], [40, 25])],
    typed: { factor: "1.5" },
    selected: true,
    clicks: [[0, 0]],
  },
  mirror: {
    cut: [line([0, 0], [30, 0]), line([30, 0], [30, 30]), line([30, 30], [0, 50])],
    layout: [line([0, -10], [0, 60])],
    selected: true,
    clicks: [[0, 25]],
  },
  align: {
    cut: [line([0, 0], [40, 0])],
    layout: [dot(50, 10), dot(70, 40)],
    clicks: [
      [20, 0],
      [0, 0],
      [50, 10],
      [40, 0],
      [70, 40],
    ],
  },
  rows: {
    cut: [circle(0, 0, 8)],
    typed: { columns: "4", rows: "2", dx: "25", dy: "25", skip: "6" },
    clicks: [[8, 0]],
    finish: true,
  },
  "round-a-centre": {
    cut: [circle(30, 0, 6)],
    layout: [dot(0, 0)],
    typed: { count: "6" },
    clicks: [
      [36, 0],
      [0, 0],
    ],
  },
  move: {
    cut: [circle(0, 0, 12), circle(0, 0, 6)],
    selected: true,
    clicks: [
      [0, 0],
      [50, 20],
    ],
  },
  join: { cut: [line([0, 0], [60, 0]), line([60, 0], [60, 40]), line([60, 40], [0, 0])], finish: true },
  offset: {
    cut: [rounded(70, 40, 12)],
    typed: { distance: "6" },
    chosen: { corners: "sharp" },
    clicks: [
      [35, 0],
      [35, -10],
    ],
  },
  "keep-areas": {
    cut: [circle(0, 0, 20), circle(25, 0, 20)],
    clicks: [
      [-10, 0],
      [12, 0],
    ],
    finish: true,
  },
  unite: {
    cut: [box(0, 0, 60, 25), circle(60, 12, 22)],
    clicks: [
      [20, 0],
      [82, 12],
    ],
  },
  "take-away": {
    cut: [box(0, 0, 60, 40), circle(60, 20, 14)],
    clicks: [
      [20, 0],
      [74, 20],
    ],
  },
  "common-part": {
    cut: [circle(0, 0, 24), circle(24, 0, 24)],
    clicks: [
      [-24, 0],
      [48, 0],
    ],
  },
  "cutter-allowance": { cut: [box(0, 0, 70, 40), circle(35, 20, 10)], typed: { cutter: "8d" }, finish: true },
  "give-width": {
    cut: [line([0, 0], [80, 20])],
    typed: { width: "16", to: "6" },
    chosen: { ends: "round" },
    clicks: [[40, 10]],
  },
  "wide-outline": {
    typed: { width: "14", widthTo: "6" },
    layout: [dot(0, 0), dot(60, 20)],
    clicks: [
      [0, 0],
      [60, 20],
    ],
  },
  "take-apart": { cut: [box(0, 0, 70, 40)], clicks: [[35, 0]], finish: true },
  "start-point": { cut: [box(0, 0, 70, 40)], clicks: [[68, 40]] },
  "open-or-close": { cut: [box(0, 0, 70, 40)], clicks: [[68, 40]] },
  distance: {
    cut: [circle(0, 0, 10), circle(60, 0, 10)],
    clicks: [
      [0, 0],
      [60, 0],
    ],
  },
  angle: {
    cut: [line([0, 0], [60, 0]), line([0, 0], [40, 40])],
    clicks: [
      [50, 0],
      [30, 30],
    ],
  },
  radius: { cut: [arc([0, 0], [60, 0], -0.5)], clicks: [[30, 15]] },
  area: { cut: [box(0, 0, 70, 40)], clicks: [[35, 0]] },
  "on-the-picture": {
    onPicture: [
      [10, 10],
      [210, 10],
    ],
  },
  "to-layer": { layout: [circle(0, 0, 20)], clicks: [[20, 0]], finish: true },
  "scale-picture": {
    typed: { length: "150" },
    onPicture: [
      [10, 10],
      [210, 10],
    ],
  },
  "level-picture": {
    onPicture: [
      [10, 10],
      [210, 30],
    ],
  },
  "straighten-picture": {
    typed: { width: "100", height: "60" },
    onPicture: [
      [60, 60],
      [330, 40],
      [380, 240],
      [30, 220],
    ],
  },
  "place-picture": { onPicture: [[200, 150]], clicks: [[0, 0]] },
  outline: {
    cut: [line([0, 0], [50, 0])],
    chosen: { piece: "arc" },
    clicks: [
      [50, 0],
      [50, 30],
    ],
  },
  "line-at-an-angle": {
    typed: { angle: "30", length: "60" },
    clicks: [
      [0, 0],
      [60, 30],
    ],
  },
  perpendicular: {
    cut: [circle(0, 0, 20)],
    layout: [dot(50, 25)],
    clicks: [
      [14.1, 14.1],
      [50, 25],
    ],
  },
  "parallel-line": {
    cut: [arc([0, 0], [60, 0], -0.4)],
    typed: { distance: "10" },
    clicks: [
      [30, 12],
      [30, 40],
    ],
  },
  "shortest-line": {
    cut: [circle(0, 0, 15), line([40, -20], [60, 30])],
    clicks: [
      [15, 0],
      [50, 5],
    ],
  },
  "free-curve": {
    layout: [dot(0, 0), dot(20, 25), dot(45, 5), dot(70, 30)],
    clicks: [
      [0, 0],
      [20, 25],
      [45, 5],
      [70, 30],
    ],
    finish: true,
  },
  "free-curve-points": {
    cut: [wave([0, 0], [20, 25], [45, 5], [70, 30])],
    layout: [dot(45, 20)],
    clicks: [
      [45, 5],
      [45, 20],
    ],
  },
  "circle-by-two-points": {
    layout: [dot(0, 0), dot(50, 20)],
    clicks: [
      [0, 0],
      [50, 20],
    ],
  },
  "circle-by-three-points": {
    layout: [dot(0, 0), dot(50, 0), dot(20, 30)],
    clicks: [
      [0, 0],
      [50, 0],
      [20, 30],
    ],
  },
  "circle-touching-two": {
    cut: [line([0, 0], [80, 0]), line([0, 0], [50, 50])],
    typed: { size: "15r" },
    clicks: [
      [40, 0],
      [30, 30],
    ],
  },
  "circle-touching-three": {
    cut: [line([0, 0], [90, 0]), line([0, 0], [30, 60]), line([90, 0], [30, 60])],
    clicks: [
      [45, 0],
      [15, 30],
      [60, 30],
    ],
  },
  "arc-by-three-points": {
    layout: [dot(0, 0), dot(20, 22), dot(60, 0)],
    clicks: [
      [0, 0],
      [20, 22],
      [60, 0],
    ],
  },
  "arc-by-centre": {
    layout: [dot(0, 0), dot(30, 0), dot(0, 40)],
    clicks: [
      [0, 0],
      [30, 0],
      [0, 40],
    ],
  },
  "arc-by-ends": {
    layout: [dot(0, 0), dot(60, 0)],
    typed: { size: "40r" },
    clicks: [
      [0, 0],
      [60, 0],
    ],
  },
  "arc-on-from-an-end": {
    cut: [line([0, 0], [40, 0])],
    layout: [dot(60, 25)],
    clicks: [
      [40, 0],
      [60, 25],
    ],
  },
  ellipse: {
    layout: [dot(0, 0), dot(45, 10)],
    typed: { half: "20" },
    clicks: [
      [0, 0],
      [45, 10],
    ],
  },
  "tangent-at-an-angle": {
    cut: [circle(0, 0, 20)],
    typed: { angle: "30", length: "60" },
    clicks: [
      [-10, 17.3],
      [40, 60],
    ],
  },
  "tangent-from-a-touch-point": {
    cut: [circle(0, 0, 20)],
    typed: { length: "50" },
    clicks: [
      [0, 20],
      [60, 22],
    ],
  },
  polygon: { layout: [dot(0, 0)], typed: { size: "40" }, clicks: [[0, 0]] },
  slot: {
    layout: [dot(0, 0), dot(50, 0)],
    typed: { width: "16" },
    clicks: [
      [0, 0],
      [50, 0],
    ],
  },
  "arc-slot": {
    layout: [dot(0, 0), dot(40, 0)],
    typed: { width: "12", sweep: "100" },
    clicks: [
      [0, 0],
      [40, 0],
    ],
  },
  ring: { layout: [dot(0, 0)], typed: { outer: "60", inner: "30" }, clicks: [[0, 0]] },
  "arc-fit": { cut: [wave([0, 0], [20, 25], [45, 5], [70, 30])], typed: { within: "0.5" }, clicks: [[45, 5]] },
  "slide-joint": {
    cut: [arcs([0, 0], [30, 22], [70, 30])],
    clicks: [
      [30, 22],
      [24, 16],
    ],
  },
  smooth: { cut: [box(0, 0, 70, 40)], clicks: [[35, 0]] },
  "to-straight": { cut: [circle(0, 0, 30)], typed: { within: "1" }, clicks: [[30, 0]] },
  "fit-to-points": {
    layout: [dot(0, 0), dot(12, 14), dot(30, 19), dot(52, 10)],
    chosen: { what: "arc" },
    clicks: [
      [0, 0],
      [12, 14],
      [30, 19],
      [52, 10],
    ],
    finish: true,
  },
  bow: {
    cut: [box(0, 0, 70, 40)],
    clicks: [
      [35, 40],
      [35, 55],
    ],
  },
  straighten: { cut: [arc([0, 0], [60, 0], -0.5)], clicks: [[30, 15]] },
  hole: { cut: [box(0, 0, 60, 40)], layout: [dot(20, 20)], typed: { size: "14" }, clicks: [[20, 20]] },
  "tapped-hole": { cut: [box(0, 0, 60, 40)], layout: [dot(30, 20)], typed: { thread: "M20" }, clicks: [[30, 20]] },
  "clearance-hole": { cut: [box(0, 0, 60, 40)], layout: [dot(30, 20)], typed: { thread: "M12" }, clicks: [[30, 20]] },
  "bolt-circle": {
    cut: [circle(0, 0, 40)],
    typed: { count: "6", size: "8", circle: "56", first: "90" },
    clicks: [[0, 0]],
  },
  "hole-grid": {
    cut: [box(0, 0, 90, 60)],
    layout: [dot(15, 15)],
    typed: { columns: "4", rows: "2", size: "8", dx: "20", dy: "30" },
    clicks: [[15, 15]],
  },
  "handle-stretch": { cut: [rounded(70, 40, 10)], grab: [70, 30], clicks: [[85, 42]] },
  "handle-lengthen": { cut: [line([0, 0], [40, 15])], typed: { length: "70" }, grab: [40, 15], finish: true },
  "handle-shift": { cut: [rounded(70, 40, 10)], typed: { distance: "15" }, grab: [30, 40], clicks: [[30, 60]] },
  "handle-add-corner": { cut: [box(0, 0, 70, 40)], typed: { distance: "20" }, grab: [35, 40], clicks: [[10, 42]] },
  "handle-remove-corner": { cut: [box(0, 0, 70, 40)], grab: [70, 40], finish: true },
  "handle-radius": { cut: [circle(30, 20, 12)], typed: { size: "36d" }, grab: [42, 20], finish: true },
  "set-datum": { cut: [box(0, 0, 60, 40)], clicks: [[60, 40]] },
};

const PICTURE = { blob: "example", width: 400, height: 300 };
const REACH = 5;

/** What an example's tool made: the drawing before and after, or what it said or asked for. */
export type Shown = {
  readonly before: Drawing;
  readonly after: Drawing;
  readonly edit?: Edit;
  readonly ask?: Ask;
  readonly said?: string;
};

const standing = ({ cut = [], layout = [] }: Example): Drawing => {
  const start = newDrawing("mm");
  const draft = draftEdit(start, "Example", "example");
  draft.remove(4);
  draft.remove(5);
  for (const shape of cut) draft.add(shape, PROFILE_LAYER);
  for (const shape of layout) draft.add(shape, LAYOUT_LAYER);
  const lie = { at: { x: 0, y: 150 }, scale: 0.5, angle: 0, scaled: true, shown: false, locked: false, opacity: 0.5 };
  draft.set("picture", 800, { id: 800, ...PICTURE, ...lie });
  return applyEdit(start, draft.finish());
};

/** A tool's example carried out; undefined for a tool that has none. */
export const showExample = (tool: Tool): Shown | undefined => {
  const example = EXAMPLES[tool.id];
  return example && carryOut(tool, example);
};

/** Carries out a piece of work with a tool, event by event as the bench would. */
export const carryOut = (tool: Tool, example: Example): Shown => {
  const before = standing(example);
  let selection = new Set<number>();
  if (example.selected) for (const { id } of entitiesOf(before)) selection.add(id);
  let shown: Shown = { before, after: before };
  let state = startTool(tool, { choices: example.chosen ?? {} });
  const context = (): ToolContext => ({
    drawing: shown.after,
    index: indexDrawing(shown.after),
    unit: "mm",
    selection,
    layer: PROFILE_LAYER,
  });
  if (example.grab) {
    const [x, y] = example.grab;
    const all = [...entitiesOf(before)];
    const handle = handlesOf(all).find(({ at }) => distance(at, { x, y }) < 0.1);
    if (!handle) throw new Error(`no handle at ${x}, ${y}`);
    selection = new Set(all.map(({ id }) => id));
    state = { ...state, picks: { handle: { at: handle.at, ref: handle.refs[0]! } } };
  }
  const take = (step: Step): void => {
    ({ state } = step);
    const { edit, ask } = step;
    if (edit) shown = { ...shown, edit, after: applyEdit(shown.after, edit) };
    if (ask) shown = { ...shown, ask };
    if (state.said) shown = { ...shown, said: state.said };
    if (step.refusal) shown = { ...shown, said: `refused: ${step.refusal.code}` };
  };
  for (const [blank, text] of Object.entries(example.typed ?? {})) {
    take(stepTool(tool, state, { type: "type", blank, text }, context()));
    take(stepTool(tool, state, { type: "hold" }, context()));
  }
  for (const [x, y] of example.onPicture ?? [])
    take(stepTool(tool, state, { type: "click", hover: { at: { x, y }, under: [], picture: PICTURE } }, context()));
  for (const [x, y] of example.clicks ?? []) {
    const at = { x, y };
    const [snap] = snapsAt(context().index, at, REACH);
    const under = underPoint(context(), at, REACH);
    const hover: Hover = { at: snap?.at ?? at, under, ...(snap ? { snap } : {}) };
    if (tool.parts.some((part) => part.kind === "pick" && part.takes === "things") && selection.size === 0) {
      selection = new Set(under.flatMap(({ ref }) => (ref ? [ref.id] : [])).slice(0, 1));
      continue;
    }
    take(stepTool(tool, state, { type: "click", hover }, context()));
  }
  if (example.finish) take(stepTool(tool, state, { type: "finish", hover: undefined }, context()));
  return shown;
};
