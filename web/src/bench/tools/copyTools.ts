import type { Edit } from "@ash-edge/core/drawing";
import { copyEntities, mirrorEntities, transformEntities, type Axis } from "@ash-edge/core/edits";
import {
  after,
  angleOf,
  carrierOf,
  distance,
  mirroring,
  moving,
  scaling,
  subtract,
  turning,
  unit,
  type Point,
  type Similarity,
} from "@ash-edge/core/geometry";
import { readList, refuse, RESOLUTION, toDegrees, toRadians, type Id, type Outcome } from "@ash-edge/core/numeric";
import { pickedCurve } from "./making.ts";
import { thingsPreview } from "./things.ts";
import { nothing, refused, under, type Given, type Part, type Proposal, type Tool, type ToolContext } from "./tool.ts";

const what: Part = { kind: "pick", name: "what", label: "what", takes: "things" };
const SQUARE = "M4 9 L12 9 L12 17 L4 17 Z";

/** What is selected, moved by a similarity in place or as a copy. */
const moved = (
  tool: Pick<Tool, "id" | "name">,
  ids: readonly Id[],
  m: Similarity,
  copy: boolean,
  { drawing }: ToolContext,
): Proposal => {
  const made: Outcome<Edit> = copy
    ? copyEntities(drawing, ids, [m], tool.name, tool.id)
    : transformEntities(drawing, ids, m, tool.name, tool.id);
  if (!made.ok) return refused(made);
  return { ways: [{ preview: thingsPreview(drawing, ids, m).map((shape) => ({ shape })), edit: () => made.value }] };
};

const keeps: Part = {
  kind: "choice",
  name: "keep",
  label: "the original",
  options: [
    ["replace", "moves"],
    ["keep", "stays"],
  ],
};

export const copy: Tool = {
  kind: "tool",
  id: "copy",
  name: "Copy",
  bank: "KeyD",
  help: "Copies what is selected from one point to another, or by x and y typed, again and again. Sizes called for it are called for its copies too.",
  drawing: ["M4 11 L12 11 L12 19 L4 19 Z M12 5 L20 5 L20 13 L14 13", "M12 5 L12 11"],
  parts: [
    what,
    { kind: "words", text: "from" },
    { kind: "pick", name: "from", label: "point", takes: "point" },
    { kind: "words", text: "to" },
    { kind: "pick", name: "to", label: "new place", takes: "point" },
    { kind: "words", text: "· or by x" },
    { kind: "value", name: "x", label: "by x", expects: "length", stays: false, signed: true },
    { kind: "words", text: "y" },
    { kind: "value", name: "y", label: "by y", expects: "length", stays: false, signed: true },
  ],
  from: "from",
  wants: (given) => ["what", ...((given.value("x") ?? given.value("y")) !== undefined ? [] : ["from", "to"])],
  propose: (given, context) => {
    const { from, to } = given.picks;
    const [x, y] = [given.value("x"), given.value("y")];
    const typed = x !== undefined || y !== undefined;
    if (given.things.length === 0 || (!typed && (!from || !to || !given.isFirm("from")))) return nothing;
    const by = typed ? { x: x ?? 0, y: y ?? 0 } : subtract(to!.at, from!.at);
    const proposal = moved(copy, given.things, moving(by), true, context);
    // the next copy starts from the same point
    return typed ? proposal : { ...proposal, ways: proposal.ways.map((way) => ({ ...way, next: { from: from! } })) };
  },
};

/** The angle of a picked edge or of the way between two points. */
const angleOfTwo = (p: Point, q: Point): number => angleOf(subtract(q, p));

export const rotate: Tool = {
  kind: "tool",
  id: "rotate",
  name: "Rotate",
  bank: "KeyD",
  help: "Turns what is selected about a point by the angle typed, or from one direction to another: click a point that should turn to where another lies.",
  drawing: [SQUARE, "M16 17 A9 9 0 0 0 14 6 M14 6 L18 6 M14 6 L14 10"],
  parts: [
    what,
    { kind: "words", text: "about" },
    { kind: "pick", name: "about", label: "point", takes: "point" },
    { kind: "words", text: "by" },
    { kind: "value", name: "angle", label: "angle", expects: "angle", stays: false, signed: true },
    { kind: "words", text: "· or from" },
    { kind: "pick", name: "from", label: "direction", takes: "point" },
    { kind: "words", text: "to" },
    { kind: "pick", name: "to", label: "direction to", takes: "point" },
    keeps,
  ],
  from: "about",
  wants: ({ value }) => ["what", "about", ...(value("angle") === undefined ? ["from", "to"] : [])],
  propose: (given, context) => {
    const { about, from, to } = given.picks;
    const typed = given.value("angle");
    if (given.things.length === 0 || !about) return nothing;
    if (typed === undefined && (!from || !to || !given.isFirm("from"))) return nothing;
    const degenerate =
      typed === undefined && (distance(about.at, from!.at) <= RESOLUTION || distance(about.at, to!.at) <= RESOLUTION);
    if (degenerate) return given.isFirm("to") ? refused(refuse("same-point")) : nothing;
    const angle =
      typed !== undefined ? toRadians(typed) : angleOfTwo(about.at, to!.at) - angleOfTwo(about.at, from!.at);
    const proposal = moved(rotate, given.things, turning(about.at, angle), given.choice("keep") === "keep", context);
    return typed === undefined ? { ...proposal, live: { angle: toDegrees(angle) } } : proposal;
  },
};

export const scale: Tool = {
  kind: "tool",
  id: "scale",
  name: "Scale",
  bank: "KeyD",
  help: "Scales what is selected about a point by the factor typed, or so that a length that two clicks give becomes the length typed.",
  drawing: ["M4 13 L11 13 L11 20 L4 20 Z", "M4 5 L19 5 L19 20 M12 12 L17 7 M14 7 L17 7 L17 10"],
  parts: [
    what,
    { kind: "words", text: "about" },
    { kind: "pick", name: "about", label: "point", takes: "point" },
    {
      kind: "choice",
      name: "by",
      label: "by",
      options: [
        ["factor", "by a factor of"],
        ["length", "so that"],
      ],
    },
    { kind: "value", name: "factor", label: "factor", expects: "number", stays: false, onlyIf: under("by", "factor") },
    { kind: "pick", name: "from", label: "from", takes: "point", onlyIf: under("by", "length") },
    { kind: "pick", name: "to", label: "to", takes: "point", onlyIf: under("by", "length") },
    { kind: "words", text: "becomes", onlyIf: under("by", "length") },
    { kind: "value", name: "length", label: "length", expects: "length", stays: false, onlyIf: under("by", "length") },
    keeps,
  ],
  from: "about",
  wants: ({ choice }) => ["what", "about", ...(choice("by") === "length" ? ["from", "to"] : [])],
  propose: (given, context) => {
    const { about, from, to } = given.picks;
    if (given.things.length === 0 || !about) return nothing;
    const byLength = given.choice("by") === "length";
    const wanted = given.value("length");
    const now = byLength && from && to && given.isFirm("from") ? distance(from.at, to.at) : undefined;
    if (byLength && now === undefined) return nothing;
    const factor = byLength
      ? wanted !== undefined && now! > RESOLUTION
        ? wanted / now!
        : undefined
      : given.value("factor");
    if (factor === undefined)
      return given.isFirm(byLength ? "to" : "about") ? refused(refuse("value-empty")) : { ways: [], note: "Type it" };
    return moved(scale, given.things, scaling(about.at, factor), given.choice("keep") === "keep", context);
  },
};

/** The axis of a mirror: a picked straight line, or the line through two points. */
const axisOf = (given: Given, { drawing }: ToolContext): Axis | undefined => {
  const { line, one, other } = given.picks;
  if (given.choice("on") === "line") {
    const curve = pickedCurve(drawing, line);
    const carrier = curve && carrierOf(curve);
    return carrier?.kind === "line"
      ? { at: carrier.at, angle: curve!.kind === "endless" ? curve!.angle : angleOf(carrier.direction) }
      : undefined;
  }
  if (!one || !other || !given.isFirm("one") || distance(one.at, other.at) <= RESOLUTION) return undefined;
  return { at: one.at, angle: angleOfTwo(one.at, other.at) };
};

export const mirror: Tool = {
  kind: "tool",
  id: "mirror",
  name: "Mirror",
  bank: "KeyD",
  help: "Mirrors what is selected on a line, an edge, a layout line, or on the line through two points. Kept, an open chain with both ends on the line becomes one closed contour with its image, and what lies on the line is not doubled.",
  drawing: ["M4 6 L9 6 L9 18 L4 18 Z", "M12 3 L12 21 M20 6 L15 6 L15 18 L20 18 Z"],
  parts: [
    what,
    { kind: "words", text: "on" },
    {
      kind: "choice",
      name: "on",
      label: "on",
      options: [
        ["line", "a line"],
        ["points", "two points"],
      ],
    },
    { kind: "pick", name: "line", label: "line", takes: "curve", onlyIf: under("on", "line") },
    { kind: "pick", name: "one", label: "point", takes: "point", onlyIf: under("on", "points") },
    { kind: "pick", name: "other", label: "other point", takes: "point", onlyIf: under("on", "points") },
    { kind: "words", text: "·" },
    {
      kind: "choice",
      name: "keep",
      label: "the original",
      options: [
        ["keep", "keep both"],
        ["replace", "replace"],
      ],
    },
  ],
  from: "one",
  wants: ({ choice }) => ["what", ...(choice("on") === "line" ? ["line"] : ["one", "other"])],
  propose: (given, context) => {
    if (given.things.length === 0) return nothing;
    const axis = axisOf(given, context);
    if (!axis) return given.isFirm("line") ? refused(refuse("mirror-line-needed")) : nothing;
    const { drawing } = context;
    const made = mirrorEntities(drawing, given.things, axis, given.choice("keep") === "keep");
    if (!made.ok) return refused(made);
    const { edit, welded } = made.value;
    const preview = thingsPreview(drawing, given.things, mirroring(axis.at, axis.angle)).map((shape) => ({ shape }));
    return {
      ways: [
        {
          preview,
          edit: () => edit,
          ...(welded > 0
            ? { said: `${welded} joined with, or equal to, ${welded === 1 ? "its" : "their"} own image.` }
            : {}),
        },
      ],
    };
  },
};

export const align: Tool = {
  kind: "tool",
  id: "align",
  name: "Align",
  bank: "KeyD",
  help: "Puts what is selected by two pairs of points: the first goes to the second, and the direction to the third turns to where the fourth lies; scaled too if wanted.",
  drawing: ["M3 20 L9 11 L14 14 L8 23 Z", "M14 4 L21 4 L21 10 L14 10 Z M9 11 L14 5"],
  parts: [
    what,
    { kind: "words", text: ":" },
    { kind: "pick", name: "one", label: "point", takes: "point" },
    { kind: "words", text: "to" },
    { kind: "pick", name: "first", label: "its place", takes: "point" },
    { kind: "words", text: "and" },
    { kind: "pick", name: "two", label: "second point", takes: "point" },
    { kind: "words", text: "to" },
    { kind: "pick", name: "second", label: "its direction", takes: "point" },
    {
      kind: "choice",
      name: "scale",
      label: "scale",
      options: [
        ["no", "don’t scale"],
        ["yes", "scale too"],
      ],
    },
  ],
  propose: (given, context) => {
    const { one, first, two, second } = given.picks;
    if (given.things.length === 0 || !one || !first || !given.isFirm("one")) return nothing;
    const shift = moving(subtract(first.at, one.at));
    if (!two || !second || !given.isFirm("two"))
      return given.isFirm("first") || first
        ? { ways: [{ preview: thingsPreview(context.drawing, given.things, shift).map((shape) => ({ shape })) }] }
        : nothing;
    const [was, is] = [subtract(two.at, one.at), subtract(second.at, first.at)];
    if (!unit(was) || !unit(is)) return given.isFirm("second") ? refused(refuse("same-point")) : nothing;
    const turn = turning(first.at, angleOf(is) - angleOf(was));
    const factor = given.choice("scale") === "yes" ? distance(first.at, second.at) / distance(one.at, two.at) : 1;
    return moved(align, given.things, after(after(shift, turn), scaling(first.at, factor)), false, context);
  },
};

/** Which of the copies are left out, counted from 1 in the order in which they come. */
const skipped = (given: Given): ReadonlySet<number> => {
  const read = readList(given.text("skip") ?? "");
  return read.ok ? read.value : new Set();
};
const skipPart: Part = { kind: "list", name: "skip", label: "leave out" };

const repeated = (tool: Tool, given: Given, { drawing }: ToolContext, places: readonly Similarity[]): Proposal => {
  const left = skipped(given);
  // the first is what is selected itself
  const to = places.filter((_, i) => !left.has(i + 2));
  const made = copyEntities(drawing, given.things, to, `${tool.name} × ${to.length + 1}`, tool.id);
  if (!made.ok) return refused(made);
  return {
    ways: [
      {
        preview: to
          .slice(0, 400)
          .flatMap((m) => thingsPreview(drawing, given.things, m))
          .map((shape) => ({ shape })),
        edit: () => made.value,
        said: `${to.length} ${to.length === 1 ? "copy" : "copies"} made.`,
      },
    ],
    note: `${to.length + 1} in all · click or Enter makes them`,
  };
};

export const rows: Tool = {
  kind: "tool",
  id: "rows",
  name: "Rows",
  bank: "KeyD",
  help: "Repeats what is selected in columns and rows: how many of each, and how far apart, or how far the last is from the first. Some can be left out by their numbers, counted along the rows.",
  drawing: [
    "M4 5 L8 5 L8 9 L4 9 Z",
    "M11 5 L15 5 L15 9 L11 9 Z M18 5 L22 5 L22 9 L18 9 Z M4 14 L8 14 L8 18 L4 18 Z M11 14 L15 14 L15 18 L11 18 Z M18 14 L22 14 L22 18 L18 18 Z",
  ],
  parts: [
    what,
    { kind: "value", name: "columns", label: "columns", expects: "count", stays: true, given: 2 },
    { kind: "words", text: "×" },
    { kind: "value", name: "rows", label: "rows", expects: "count", stays: true, given: 1 },
    {
      kind: "choice",
      name: "by",
      label: "lengths are",
      options: [
        ["pitch", "apart"],
        ["total", "in all"],
      ],
    },
    { kind: "value", name: "dx", label: "across", expects: "length", stays: true, signed: true },
    { kind: "words", text: "and" },
    { kind: "value", name: "dy", label: "up", expects: "length", stays: true, signed: true },
    { kind: "words", text: "· leave out" },
    skipPart,
    { kind: "pick", name: "go", label: "go", takes: "point", silent: true },
  ],
  propose: (given, context) => {
    if (given.things.length === 0) return nothing;
    const [columns, many] = [given.value("columns") ?? 2, given.value("rows") ?? 1];
    const [dx, dy] = [given.value("dx"), given.value("dy")];
    if ((columns > 1 && dx === undefined) || (many > 1 && dy === undefined))
      return { ways: [], note: "Type how far apart" };
    if (columns * many < 2) return { ways: [], note: "One is there already" };
    const total = given.choice("by") === "total";
    const [sx, sy] = [
      total && columns > 1 ? (dx ?? 0) / (columns - 1) : (dx ?? 0),
      total && many > 1 ? (dy ?? 0) / (many - 1) : (dy ?? 0),
    ];
    const places = Array.from({ length: columns * many - 1 }, (_, i) =>
      moving({ x: ((i + 1) % columns) * sx, y: Math.floor((i + 1) / columns) * sy }),
    );
    return repeated(rows, given, context, places);
  },
};

export const roundACentre: Tool = {
  kind: "tool",
  id: "round-a-centre",
  name: "Round a centre",
  bank: "KeyD",
  help: "Repeats what is selected about a point: how many in all, over the whole turn or part of one, or so many degrees apart. Some can be left out by their numbers.",
  drawing: [
    "M12 3 L14 6 L10 6 Z",
    "M20 10 L18 13 L17 9.5 Z M17 19 L13.5 18 L16 15.5 Z M7 19 L8 15.5 L10.5 18 Z M4 10 L7 9.5 L6 13 Z",
  ],
  parts: [
    what,
    { kind: "words", text: "about" },
    { kind: "pick", name: "about", label: "centre", takes: "point" },
    { kind: "value", name: "count", label: "how many", expects: "count", stays: true, given: 3 },
    { kind: "words", text: "times" },
    {
      kind: "choice",
      name: "by",
      label: "angle is",
      options: [
        ["total", "over"],
        ["pitch", "apart"],
      ],
    },
    { kind: "value", name: "angle", label: "angle", expects: "angle", stays: true, signed: true, given: 360 },
    { kind: "words", text: "· leave out" },
    skipPart,
  ],
  propose: (given, context) => {
    const { about } = given.picks;
    if (given.things.length === 0 || !about) return nothing;
    const count = given.value("count") ?? 3;
    const angle = given.value("angle") ?? 360;
    if (count < 2) return { ways: [], note: "One is there already" };
    // over a whole turn the last would lie on the first
    const wholeTurn = Math.abs(Math.abs(angle) - 360) < 1e-9;
    const step = given.choice("by") === "pitch" ? angle : wholeTurn ? angle / count : angle / (count - 1);
    const places = Array.from({ length: count - 1 }, (_, i) => turning(about.at, toRadians((i + 1) * step)));
    return repeated(roundACentre, given, context, places);
  },
};
