import { exampleLine } from "../example/exampleShapes.ts";
import {
  arcFrom,
  arcFromWithRadius,
  arcHeadingFor,
  arcThrough,
  arcsAbout,
  arcsBySweepAbout,
  arcsByRadius,
  arcsBySweep,
  departureOf,
  arrivalOf,
  type WidthRun,
} from "@ash-edge/core/construct";
import type { Edit } from "@ash-edge/core/drawing";
import { extendOutline, outlineEnd, type OutlineEnd } from "@ash-edge/core/edits";
import { distance, pieceLength, angleOf, subtract, type Point, type Piece } from "@ash-edge/core/geometry";
import { toDegrees, RESOLUTION, refuse, done, toRadians, type Outcome, SAME_DIRECTION } from "@ash-edge/core/numeric";
import { linkCallout } from "../linking.ts";
import { pieceShape } from "../making.ts";
import {
  nothing,
  refused,
  under,
  type OnlyIf,
  type Given,
  type ToolContext,
  type Picked,
  type Way,
  type Proposal,
  type Tool,
} from "../tool.ts";
import { typedEnd, lineEnd } from "./line.ts";

const inArc =
  (...options: readonly string[]): OnlyIf =>
  (choices) =>
    choices.piece === "arc" && options.includes(choices.arc ?? "");

/** How a direction that the last piece gives is missing is said. */
const NO_DIRECTION = "Draw a piece first: there is none yet to go on from tangent";

/** The pieces that could come next, from `from` to where the pointer or the numbers say. */
const nextPieces = (
  given: Given,
  from: Point,
  end: OutlineEnd,
): Outcome<readonly Piece[]> | { note: string } | undefined => {
  const pointer = given.picks.to?.at ?? given.pointer;
  const [length, typed] = [given.value("length"), given.value("angle")];
  const base = given.choice("counted") === "last" && end.arrives !== undefined ? toDegrees(end.arrives) : 0;
  const angle = typed === undefined ? undefined : base + typed;
  const sweep = given.value("sweep");
  const isArc = given.choice("piece") === "arc";
  const way = given.choice("arc");
  const to = typedEnd(from, length, angle) ?? (pointer && lineEnd(from, pointer, length, angle));
  if (!to) return undefined;
  if (!isArc) return distance(from, to) <= RESOLUTION ? refuse("no-length") : done([{ a: from, b: to, bulge: 0 }]);
  const one = (arc: Outcome<Piece>): Outcome<readonly Piece[]> => (arc.ok ? done([arc.value]) : arc);
  switch (way) {
    case "tangent": {
      if (end.arrives === undefined) return { note: NO_DIRECTION };
      const radius = given.radius("size");
      if (radius === undefined) return one(arcFrom(from, end.arrives, to));
      const arc = arcFromWithRadius(from, end.arrives, radius, to, sweep === undefined ? undefined : toRadians(sweep));
      // Space: as far round as runs straight on to that point
      const heading = sweep === undefined ? arcHeadingFor(from, end.arrives, radius, to) : undefined;
      return arc.ok && heading ? done([arc.value, heading]) : one(arc);
    }
    case "start": {
      const start = given.value("start");
      if (start === undefined) return { note: "Type the direction in which it starts" };
      return one(arcFrom(from, toRadians(start) + (given.choice("counted") === "last" ? (end.arrives ?? 0) : 0), to));
    }
    case "through": {
      const through = given.picks.through;
      return through && given.isFirm("through") ? one(arcThrough(from, through.at, to)) : undefined;
    }
    case "centre": {
      const centre = given.picks.centre;
      if (!centre || !given.isFirm("centre")) return undefined;
      return sweep === undefined ? arcsAbout(centre.at, from, to) : arcsBySweepAbout(centre.at, from, toRadians(sweep));
    }
    case "radius": {
      const radius = given.radius("size");
      return radius === undefined ? { note: "Type R or Ø" } : arcsByRadius(from, to, radius);
    }
    default:
      return sweep === undefined ? { note: "Type the sweep" } : arcsBySweep(from, to, toRadians(sweep));
  }
};

const waysOf = (
  given: Given,
  { drawing, layer }: ToolContext,
  from: Picked,
  pieces: readonly Piece[],
  width?: WidthRun,
): readonly OutlineWay[] =>
  pieces.map((piece) => {
    const { edit, closes, end } = extendOutline(drawing, from, piece, layer, width);
    const made = edit((draft, ref) => {
      for (const blank of ["length", "angle", "size"]) linkCallout(draft, given.callout(blank), [ref]);
    });
    return {
      preview: [{ shape: pieceShape(piece) }],
      edit: () => done(made),
      closes,
      ...(closes ? { said: "The outline is closed." } : { next: { from: { ...end(made), snap: "end" } } }),
    };
  });
export type OutlineWay = Way & { readonly edit: () => Outcome<Edit>; readonly closes: boolean };

const turn = (p: number, q: number): number => Math.abs(Math.atan2(Math.sin(p - q), Math.cos(p - q)));

/** What comes next of an outline; with a width, its pieces carry it. */
export const nextOfOutline = (
  given: Given,
  context: ToolContext,
  width?: WidthRun,
): Proposal & { readonly ways: readonly (Way | OutlineWay)[] } => {
  const { from } = given.picks;
  if (!from || !given.isFirm("from")) return nothing;
  const end = outlineEnd(context.drawing, from);
  const pieces = nextPieces(given, from.at, end);
  if (!pieces) return nothing;
  if ("note" in pieces) return { ways: [], note: pieces.note };
  if (!pieces.ok) return given.isFirm("to") || pieces.refusal.code !== "no-length" ? refused(pieces) : nothing;
  const [piece] = pieces.value;
  const closes = end.first && distance(end.first.at, piece!.b) <= RESOLUTION && end.pieces > 1;
  const isLine = piece!.bulge === 0;
  return {
    ways: waysOf(given, context, from, pieces.value, width),
    live: {
      ...(given.value("length") === undefined
        ? { length: isLine ? pieceLength(piece!) : distance(piece!.a, piece!.b) }
        : {}),
      ...(given.value("angle") === undefined ? { angle: toDegrees(angleOf(subtract(piece!.b, piece!.a))) } : {}),
    },
    ...(closes ? { note: closes && end.first ? closingNote(piece!, end) : "" } : {}),
  };
};

export const outline: Tool = {
  kind: "tool",
  id: "outline",
  name: "Outline",
  help:
    "A chain of lines and arcs in one go, also on from the end of an open one. Backquote swaps line and arc. Length " +
    "and angle can be typed, either or both; of a tangent arc with its R typed Space takes the end from which a line " +
    "runs straight on to the pointer. Backspace takes one piece back; a click on the first point closes; " +
    "Enter closes or ends it.",
  drawing: ["M4 18 L4 10 A6 6 0 0 1 16 10 L20 18", "M4 18 m-2 0 a2 2 0 1 0 4 0 a2 2 0 1 0 -4 0"],
  example: {
    cut: [exampleLine([0, 0], [50, 0])],
    chosen: { piece: "arc" },
    clicks: [
      [50, 0],
      [50, 30],
    ],
  },
  parts: [
    { kind: "words", text: "from" },
    { kind: "pick", name: "from", label: "point or end", takes: "point" },
    {
      kind: "choice",
      name: "piece",
      label: "next piece",
      options: [
        ["line", "line"],
        ["arc", "arc"],
      ],
    },
    {
      kind: "choice",
      name: "arc",
      label: "arc by",
      onlyIf: under("piece", "arc"),
      options: [
        ["tangent", "tangent"],
        ["through", "through"],
        ["centre", "centre"],
        ["radius", "R"],
        ["sweep", "sweep"],
        ["start", "start"],
      ],
    },
    { kind: "pick", name: "through", label: "through", takes: "point", onlyIf: inArc("through") },
    { kind: "pick", name: "centre", label: "centre", takes: "point", onlyIf: inArc("centre") },
    { kind: "size", name: "size", first: "R", onlyIf: inArc("radius", "tangent") },
    { kind: "words", text: "sweep", onlyIf: inArc("sweep", "centre", "tangent") },
    {
      kind: "value",
      name: "sweep",
      label: "sweep",
      expects: "angle",
      stays: false,
      onlyIf: inArc("sweep", "centre", "tangent"),
    },
    { kind: "words", text: "starting at", onlyIf: inArc("start") },
    {
      kind: "value",
      name: "start",
      label: "start direction",
      expects: "angle",
      stays: false,
      signed: true,
      onlyIf: inArc("start"),
    },
    { kind: "words", text: "to" },
    { kind: "pick", name: "to", label: "point", takes: "point" },
    { kind: "words", text: "length" },
    { kind: "value", name: "length", label: "length", expects: "length", stays: false },
    { kind: "words", text: "angle" },
    { kind: "value", name: "angle", label: "angle", expects: "angle", stays: false, signed: true },
    {
      kind: "choice",
      name: "counted",
      label: "angles count from",
      options: [
        ["level", "level"],
        ["last", "last"],
      ],
    },
    {
      kind: "choice",
      name: "end",
      label: "Enter",
      options: [
        ["close", "close"],
        ["open", "leave open"],
      ],
    },
  ],
  from: "from",
  wants: ({ choice }) => {
    const way = choice("piece") === "arc" ? choice("arc") : "";
    return ["from", ...(way === "through" || way === "centre" ? [way] : []), "to"];
  },
  propose: (given, context) => nextOfOutline(given, context),
  finish: (given, context): Proposal => {
    const { from } = given.picks;
    const end = from && outlineEnd(context.drawing, from);
    if (!from || !end?.first || end.pieces < 2 || given.choice("end") === "open") return nothing;
    const arc = given.choice("piece") === "arc" && end.arrives !== undefined;
    const piece: Outcome<Piece> = arc
      ? arcFrom(from.at, end.arrives!, end.first.at)
      : done({ a: from.at, b: end.first.at, bulge: 0 });
    if (distance(from.at, end.first.at) <= RESOLUTION) return nothing;
    return piece.ok ? { ways: waysOf(given, context, from, [piece.value]) } : refused(piece);
  },
};

/** Whether a closing piece meets the first one without a corner. */
const closingNote = (piece: Piece, end: OutlineEnd): string => {
  const corners = [
    ...(end.arrives === undefined || turn(departureOf(piece), end.arrives) > SAME_DIRECTION ? ["the last"] : []),
    ...(turn(arrivalOf(piece), end.first!.leaves) > SAME_DIRECTION ? ["the first"] : []),
  ];
  return corners.length === 0
    ? "closes, tangent at both ends"
    : `closes, with a corner at ${corners.join(" and ")} piece`;
};
