import { boltCircle as boltPlaces, gridPoints } from "@ash-edge/core/construct";
import { entityOf, MARK_LAYER, type Edit, type Ref } from "@ash-edge/core/drawing";
import { draftEdit } from "@ash-edge/core/edits";
import { angleOf, arcAt, arcBetween, distance, subtract, type Point } from "@ash-edge/core/geometry";
import {
  refuse,
  RESOLUTION,
  showLengthUnit,
  toDegrees,
  toRadians,
  done,
  type Id,
  type Outcome,
} from "@ash-edge/core/numeric";
import type { Shape } from "@ash-edge/core/shape";
import { findThread, FITS, searchThreads, threadLength, type Fit, type Thread } from "@ash-edge/core/tables";
import { nothing, refused, under, type Given, type Part, type Proposal, type Tool, type ToolContext } from "./tool.ts";

/** More holes than this at once are a slip of the finger. */
const MOST = 2000;

/** What one hole is: the circle that is cut, and for a tapped one the outer mark. */
type HoleSize = { readonly radius: number; readonly mark?: number; readonly note?: string };

/** The outer diameter of a thread as drawings show it in the hole: three quarters of a circle (ISO 6410). */
const threadMark = (centre: Point, radius: number): Shape => {
  const [a, b] = [arcAt(centre, radius, Math.PI / 2), arcAt(centre, radius, 0)];
  return { kind: "piece", ...arcBetween(a, b, centre, true) };
};

const holeShapes = (at: Point, { radius, mark }: HoleSize): readonly Shape[] => [
  { kind: "circle", centre: at, radius },
  ...(mark === undefined ? [] : [threadMark(at, mark)]),
];

/** Holes at places, in one edit. Callouts: a plain size answers its circles, a thread its marks, a count all of them. */
const makeHoles = (
  tool: Tool,
  { drawing, layer }: ToolContext,
  places: readonly Point[],
  size: HoleSize,
  given: Given,
  blanks: readonly string[],
): Edit => {
  const draft = draftEdit(drawing, places.length === 1 ? tool.name : `${tool.name} × ${places.length}`, tool.id);
  const made = places.map((at): { hole: Id; mark?: Id } => {
    const hole = draft.add({ kind: "circle", centre: at, radius: size.radius }, layer);
    return size.mark === undefined ? { hole } : { hole, mark: draft.add(threadMark(at, size.mark), MARK_LAYER) };
  });
  const holes = made.map(({ hole }): Ref => ({ id: hole }));
  const marks = made.flatMap(({ mark }): Ref[] => (mark === undefined ? [] : [{ id: mark }]));
  for (const blank of blanks) {
    const callout = given.callout(blank);
    if (callout)
      draft.link(callout.id, callout.kind === "thread" && marks.length > 0 ? marks : holes, callout.kind !== "count");
  }
  return draft.finish();
};

/** Layout points that are selected: Enter makes a hole on each. */
const selectedPoints = ({ drawing, selection }: ToolContext): readonly Point[] =>
  [...selection].flatMap((id) => {
    const entity = entityOf(drawing, id);
    return entity?.kind === "point" ? [entity.at] : [];
  });

const holesAt = (
  tool: Tool,
  context: ToolContext,
  places: readonly Point[],
  size: HoleSize,
  given: Given,
  blanks: readonly string[],
): Proposal => {
  if (places.length > MOST) return refused(refuse("count-too-large", { limit: MOST }));
  return {
    ways: [
      {
        preview: places.flatMap((at) => holeShapes(at, size)).map((shape) => ({ shape })),
        edit: () => makeHoles(tool, context, places, size, given, blanks),
        ...(places.length > 1 ? { said: `${places.length} holes made.` } : {}),
      },
    ],
    ...(size.note ? { note: size.note } : {}),
  };
};

const threadOf = (given: Given, blank: string): Outcome<Thread> | undefined => {
  const text = given.text(blank);
  if (text === undefined || text.trim() === "") return undefined;
  const thread = findThread(text);
  return !thread.ok && searchThreads(text, 1).length > 0 ? undefined : thread; // still being typed
};

const tappedSize = (given: Given, blank: string, { unit }: ToolContext): Outcome<HoleSize> | undefined => {
  const thread = threadOf(given, blank);
  if (!thread?.ok) return thread;
  const drill = given.value("drill") ?? threadLength(thread.value, thread.value.drill, unit);
  const { minor } = thread.value;
  const [least, most] = minor ? minor.map((length) => threadLength(thread.value, length, unit)) : [];
  const limits = minor ? ` (6H: ${showLengthUnit(least!, unit)} to ${showLengthUnit(most!, unit)})` : "";
  return done({
    radius: drill / 2,
    mark: threadLength(thread.value, thread.value.diameter, unit) / 2,
    note: `drill Ø ${showLengthUnit(drill, unit)}${limits}`,
  });
};

const clearanceSize = (given: Given, blank: string, fit: Fit, { unit }: ToolContext): Outcome<HoleSize> | undefined => {
  const thread = threadOf(given, blank);
  if (!thread?.ok) return thread;
  const { clearance } = thread.value;
  if (!clearance) return refuse("no-clearance", { text: thread.value.name });
  const size = threadLength(thread.value, clearance[fit], unit);
  return done({ radius: size / 2, note: `Ø ${showLengthUnit(size, unit)}` });
};

const at: readonly Part[] = [
  { kind: "words", text: "at" },
  { kind: "pick", name: "at", label: "point", takes: "point" },
];
const fitChoice = (onlyIf?: ReturnType<typeof under>): Part => ({
  kind: "choice",
  name: "fit",
  label: "fit",
  options: FITS.map((fit) => [fit, fit] as const),
  ...(onlyIf ? { onlyIf } : {}),
});

/** A hole at one point after another, or at all selected layout points with Enter. */
const singleHoles = (
  named: Pick<Tool, "id" | "name" | "help" | "drawing" | "parts">,
  blanks: readonly string[],
  first: Readonly<Record<string, string>>,
  sizeOf: (given: Given, context: ToolContext) => Outcome<HoleSize> | undefined,
): Tool => {
  const make =
    (places: (given: Given, context: ToolContext) => readonly Point[]) =>
    (given: Given, context: ToolContext): Proposal => {
      const where = places(given, context);
      const size = sizeOf(given, context);
      if (where.length === 0) return nothing;
      if (!size) return given.isFirm("at") ? refused(refuse("value-empty")) : { ways: [], note: "Type its size" };
      return size.ok ? holesAt(tool, context, where, size.value, given, blanks) : refused(size);
    };
  const tool: Tool = {
    kind: "tool",
    ...named,
    bank: "KeyX",
    first,
    propose: make(({ picks }) => (picks.at ? [picks.at.at] : [])),
    finish: make((_, context) => selectedPoints(context)),
  };
  return tool;
};

const CROSS = "M12 9 L12 15 M9 12 L15 12";
export const hole: Tool = singleHoles(
  {
    id: "hole",
    name: "Hole",
    help: "A plain hole at each point clicked, with R or Ø typed or taken from the ledger; Enter makes one on every layout point that is selected.",
    drawing: ["M19 12 A7 7 0 1 1 5 12 A7 7 0 1 1 19 12", CROSS],
    parts: [{ kind: "size", name: "size", first: "Ø" }, ...at],
  },
  ["size"],
  {},
  (given) => {
    const radius = given.radius("size");
    return radius === undefined ? undefined : done({ radius });
  },
);

export const tappedHole: Tool = singleHoles(
  {
    id: "tapped-hole",
    name: "Tapped hole",
    help: "Type the thread (M6, M20x1.5, 3/8-16): the drill comes from the table with its limits, or is typed. It makes the drilled hole, and the outer circle three quarters round on the Marks layer.",
    drawing: ["M16.5 12 A4.5 4.5 0 1 1 7.5 12 A4.5 4.5 0 1 1 16.5 12", "M12 4.5 A7.5 7.5 0 1 0 19.5 12"],
    parts: [
      { kind: "thread", name: "thread", label: "thread" },
      { kind: "words", text: "drill" },
      { kind: "value", name: "drill", label: "drill", expects: "length", stays: true },
      ...at,
    ],
  },
  ["thread"],
  {},
  (given, context) => tappedSize(given, "thread", context),
);

export const clearanceHole: Tool = singleHoles(
  {
    id: "clearance-hole",
    name: "Clearance hole",
    help: "A hole for a bolt to pass through: type its thread, choose how much room it has.",
    drawing: ["M20 12 A8 8 0 1 1 4 12 A8 8 0 1 1 20 12", "M16 12 A4 4 0 1 1 8 12 A4 4 0 1 1 16 12"],
    parts: [{ kind: "words", text: "for" }, { kind: "thread", name: "thread", label: "thread" }, fitChoice(), ...at],
  },
  ["thread"],
  { fit: "medium" },
  (given, context) => clearanceSize(given, "thread", given.choice("fit") as Fit, context),
);

/** What a pattern's holes are: plain, tapped or clearance, with the blanks of each. */
const kindParts: readonly Part[] = [
  {
    kind: "choice",
    name: "kind",
    label: "holes",
    options: [
      ["plain", "plain"],
      ["tapped", "tapped"],
      ["clearance", "clearance"],
    ],
  },
  { kind: "size", name: "size", first: "Ø", onlyIf: under("kind", "plain") },
  { kind: "thread", name: "thread", label: "thread", onlyIf: under("kind", "tapped", "clearance") },
  fitChoice(under("kind", "clearance")),
];
const patternSize = (given: Given, context: ToolContext): Outcome<HoleSize> | undefined => {
  const kind = given.choice("kind");
  if (kind === "tapped") return tappedSize(given, "thread", context);
  if (kind === "clearance") return clearanceSize(given, "thread", given.choice("fit") as Fit, context);
  const radius = given.radius("size");
  return radius === undefined ? undefined : done({ radius });
};
const PATTERN_BLANKS = ["size", "thread", "count"];

export const boltCircle: Tool = {
  kind: "tool",
  id: "bolt-circle",
  name: "Bolt circle",
  bank: "KeyX",
  help: "Holes equally spaced on a circle: how many, what kind, on which circle, about which centre, the first at which angle. Without the circle typed, a second click gives the place of the first hole.",
  drawing: [
    "M14 5 A2 2 0 1 1 10 5 A2 2 0 1 1 14 5 M20 15.5 A2 2 0 1 1 16 15.5 A2 2 0 1 1 20 15.5 M8 15.5 A2 2 0 1 1 4 15.5 A2 2 0 1 1 8 15.5",
    "M19 12 A7 7 0 1 1 5 12 A7 7 0 1 1 19 12",
  ],
  parts: [
    { kind: "value", name: "count", label: "how many", expects: "count", stays: true, given: 4 },
    { kind: "words", text: "×" },
    ...kindParts,
    { kind: "words", text: "on" },
    { kind: "size", name: "circle", first: "Ø" },
    { kind: "words", text: "about" },
    { kind: "pick", name: "centre", label: "centre", takes: "point" },
    { kind: "words", text: "first at" },
    { kind: "value", name: "first", label: "first at", expects: "angle", stays: true, signed: true },
    { kind: "pick", name: "hole", label: "first hole", takes: "point", silent: true },
  ],
  from: "centre",
  first: { fit: "medium" },
  wants: ({ radius, value }) => [
    "centre",
    ...(radius("circle") === undefined || value("first") === undefined ? ["hole"] : []),
  ],
  propose: (given, context) => {
    const { centre } = given.picks;
    if (!centre) return nothing;
    const size = patternSize(given, context);
    if (!size) return given.isFirm("centre") ? { ways: [], note: "Type the size of the holes" } : nothing;
    if (!size.ok) return refused(size);
    const pointer = given.picks.hole?.at ?? (given.isFirm("centre") ? given.pointer : undefined);
    const radius = given.radius("circle") ?? (pointer && distance(centre.at, pointer));
    const typed = given.value("first");
    const first = typed !== undefined ? toRadians(typed) : pointer ? angleOf(subtract(pointer, centre.at)) : 0;
    if (!radius || radius <= RESOLUTION) return nothing;
    const places = boltPlaces(centre.at, radius, given.value("count") ?? 4, first);
    const proposal = holesAt(boltCircle, context, places, size.value, given, PATTERN_BLANKS);
    return {
      ...proposal,
      ways: proposal.ways.map((way) => ({
        ...way,
        preview: [...way.preview, { shape: { kind: "circle", centre: centre.at, radius } }],
      })),
      live: {
        ...(given.radius("circle") === undefined ? { circle: radius } : {}),
        ...(typed === undefined ? { first: toDegrees(first) } : {}),
      },
    };
  },
};

export const holeGrid: Tool = {
  kind: "tool",
  id: "hole-grid",
  name: "Hole grid",
  bank: "KeyX",
  help: "Holes in columns and rows from the point clicked: how many of each, how far apart, turned if wanted.",
  drawing: [
    "M8 7 A2 2 0 1 1 4 7 A2 2 0 1 1 8 7 M20 7 A2 2 0 1 1 16 7 A2 2 0 1 1 20 7 M8 17 A2 2 0 1 1 4 17 A2 2 0 1 1 8 17 M20 17 A2 2 0 1 1 16 17 A2 2 0 1 1 20 17",
  ],
  parts: [
    { kind: "value", name: "columns", label: "columns", expects: "count", stays: true, given: 2 },
    { kind: "words", text: "×" },
    { kind: "value", name: "rows", label: "rows", expects: "count", stays: true, given: 2 },
    ...kindParts,
    { kind: "value", name: "dx", label: "apart across", expects: "length", stays: true },
    { kind: "words", text: "and" },
    { kind: "value", name: "dy", label: "apart up", expects: "length", stays: true },
    { kind: "words", text: "apart, from" },
    { kind: "pick", name: "at", label: "first hole", takes: "point" },
    { kind: "words", text: "turned" },
    { kind: "value", name: "turned", label: "turned", expects: "angle", stays: true, signed: true, given: 0 },
  ],
  first: { fit: "medium" },
  propose: (given, context) => {
    const { at: from } = given.picks;
    if (!from) return nothing;
    const size = patternSize(given, context);
    const [dx, dy] = [given.value("dx"), given.value("dy")];
    if (!size || dx === undefined || dy === undefined)
      return given.isFirm("at")
        ? refused(refuse("value-empty"))
        : { ways: [], note: "Type the size of the holes and how far apart" };
    if (!size.ok) return refused(size);
    const [columns, rows] = [given.value("columns") ?? 2, given.value("rows") ?? 2];
    if (columns * rows > MOST) return refused(refuse("count-too-large", { limit: MOST }));
    const places = gridPoints(from.at, columns, rows, dx, dy, toRadians(given.value("turned") ?? 0));
    return holesAt(holeGrid, context, places, size.value, given, PATTERN_BLANKS);
  },
};
