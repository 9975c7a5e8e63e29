import {
  chamferByAngle,
  chamferCorner,
  filletRadiusAt,
  filletsBetween,
  RELIEFS,
  type Relief,
} from "@ash-edge/core/construct";
import { chainPiece } from "@ash-edge/core/contour";
import { curveAt, entityOf, type Ref } from "@ash-edge/core/drawing";
import {
  cornerAt,
  cutCorners,
  cutLooseCorner,
  draftEdit,
  filletCut,
  freeSide,
  looseEdges,
  meetCurves,
  reliefCut,
  replaceLoose,
  reroundCorner,
  type Corner,
  type CornerCut,
  type CornersCut,
  type EditDraft,
} from "@ash-edge/core/edits";
import { boundsOf, curveNearest, distance, type Piece, type Point } from "@ash-edge/core/geometry";
import { searchIndex } from "@ash-edge/core/look";
import { done, refuse, RESOLUTION, toRadians, type Outcome } from "@ash-edge/core/numeric";
import { sayRefusal } from "@ash-edge/core/say";
import { linkCallout } from "./linking.ts";
import { changingWay, pieceShape } from "./making.ts";
import {
  nothing,
  refused,
  under,
  type Given,
  type Part,
  type Picked,
  type Proposal,
  type Tool,
  type ToolContext,
  type Wanting,
} from "./tool.ts";

/** A pick that stands for a corner: an end snapped to at which two edges meet. */
const pickedCorner = ({ index }: ToolContext, picked: Picked | undefined): Corner | undefined =>
  picked?.ref && (picked.ref.place === "start" || picked.ref.place === "end")
    ? cornerAt(index, picked.ref, picked.at)
    : undefined;

const isEnd = (picked: Picked | undefined): boolean => picked?.ref?.place === "start" || picked?.ref?.place === "end";

/** The corner, then, where a curve was picked instead, the other curve. */
const wantsCorner = ({ picks, choice }: Wanting): readonly string[] =>
  isEnd(picks.corner) || choice("how") === "whole" ? ["corner"] : ["corner", "other"];

/** The two edges of a corner, the first ending where the second starts. */
const edgesOf = ({ drawing }: ToolContext, corner: Corner): readonly [Piece, Piece] | undefined => {
  if (corner.kind === "loose") return looseEdges(drawing, corner);
  const entity = entityOf(drawing, corner.id);
  if (entity?.kind !== "chain") return undefined;
  const i = entity.vertices.findIndex(({ id }) => id === corner.vertex);
  const n = entity.vertices.length;
  const [before, after] = [chainPiece(entity, (i + n - 1) % n), chainPiece(entity, i)];
  return before && after ? [before, after] : undefined;
};

const linker =
  (given: Given, blank: string) =>
  (draft: EditDraft, refs: readonly Ref[]): void =>
    linkCallout(draft, given.callout(blank), refs);

const cutProposal = (cut: Outcome<CornersCut>, firm: boolean, unit: ToolContext["unit"], word: string): Proposal => {
  if (!cut.ok) return firm ? refused(cut) : nothing;
  const { edit, count, refusals } = cut.value;
  const left =
    refusals.length > 0
      ? ` ${refusals.length} left as ${refusals.length === 1 ? "it was" : "they were"}: ${sayRefusal(refusals[0]!, unit)}`
      : "";
  return {
    ways: [
      changingWay(edit, count > 1 || left ? { said: `${count} corner${count === 1 ? "" : "s"} ${word}.${left}` } : {}),
    ],
    ...(count > 1 || left
      ? { note: `${count} corner${count === 1 ? "" : "s"}${left ? `, ${refusals.length} left` : ""}` }
      : {}),
  };
};

/** A cut made at one corner, or at all of its contour. */
const atCorner = (
  given: Given,
  context: ToolContext,
  corner: Corner,
  cut: CornerCut,
  name: string,
  blank: string,
): Outcome<CornersCut> => {
  const whole = given.choice("how") === "whole";
  if (corner.kind === "chain")
    return cutCorners(
      context.drawing,
      corner.id,
      whole ? "all" : [corner.vertex],
      cut,
      whole ? `${name}, whole contour` : name,
      linker(given, blank),
    );
  return cutLooseCorner(context.drawing, corner, cut, name, given.choice("edges") === "keep", linker(given, blank));
};

/** The chain corners inside a box, cut in one edit for the chain that has most of them. */
const inBox = (
  context: ToolContext,
  path: readonly Point[],
  cut: CornerCut,
  name: string,
  link: ReturnType<typeof linker>,
  word: string,
): Proposal => {
  const box = boundsOf(path);
  const inside = ({ x, y }: Point): boolean => x >= box.minX && x <= box.maxX && y >= box.minY && y <= box.maxY;
  const chains = new Map<number, number[]>();
  for (const { ref } of searchIndex(context.index, box)) {
    const entity = entityOf(context.drawing, ref.id);
    if (entity?.kind !== "chain" || chains.has(entity.id)) continue;
    const corners = entity.vertices.filter(
      (vertex, i) => inside(vertex.at) && (entity.closed || (i > 0 && i < entity.vertices.length - 1)),
    );
    if (corners.length > 0)
      chains.set(
        entity.id,
        corners.map(({ id }) => id),
      );
  }
  const [most] = [...chains].sort(([, p], [, q]) => q.length - p.length);
  if (!most) return refused(refuse("no-corner-here"));
  return cutProposal(cutCorners(context.drawing, most[0], most[1], cut, name, link), true, context.unit, word);
};

const how: Part = {
  kind: "choice",
  name: "how",
  label: "how many",
  options: [
    ["one", "one corner"],
    ["whole", "whole contour"],
  ],
};
const edges: Part = {
  kind: "choice",
  name: "edges",
  label: "edges",
  options: [
    ["trim", "trim the edges"],
    ["keep", "keep"],
  ],
};

/** A corner of the chain under the pointer, for the whole contour: any of its pieces will do. */
const anyCorner = ({ drawing }: ToolContext, picked: Picked | undefined): Corner | undefined => {
  const entity = picked?.ref && entityOf(drawing, picked.ref.id);
  if (entity?.kind !== "chain") return undefined;
  const vertex = entity.vertices[1]!;
  return { kind: "chain", id: entity.id, vertex: vertex.id, at: vertex.at };
};

/** The fillet between two picked curves that are not one corner of a chain. */
const betweenTwo = (given: Given, context: ToolContext, one: Picked, other: Picked): Proposal => {
  const { drawing, layer } = context;
  const [a, b] = [curveAt(drawing, one.ref!), curveAt(drawing, other.ref!)];
  if (!a || !b) return refused(refuse("not-a-curve"));
  const found = filletsBetween(a, one.at, b, other.at, given.radius("size"));
  if (!found.ok)
    return given.isFirm("other") || found.refusal.code !== "value-empty"
      ? refused(found)
      : { ways: [], note: "Type R or Ø" };
  const keep = given.choice("edges") === "keep";
  const ways = found.value.flatMap(({ arc, a: first, b: second }) => {
    const draft = draftEdit(drawing, "Fillet", "fillet");
    for (const [picked, piece] of [
      [one, first],
      [other, second],
    ] as const) {
      if (keep || !piece) continue;
      if (!replaceLoose(drawing, draft, picked.ref!, piece).ok) return [];
    }
    const id = draft.add(pieceShape(arc), layer);
    linkCallout(draft, given.callout("size"), [{ id }]);
    return [changingWay(draft.finish())];
  });
  return ways.length > 0 ? { ways } : refused(refuse("inside-chain"));
};

/** Two picked pieces of one chain that are neighbours are its corner. */
const chainCorner = ({ drawing }: ToolContext, one: Picked, other: Picked): Corner | undefined => {
  const entity = entityOf(drawing, one.ref!.id);
  if (entity?.kind !== "chain" || one.ref!.id !== other.ref!.id) return undefined;
  const at = (picked: Picked): number => entity.vertices.findIndex(({ id }) => id === picked.ref!.vertex);
  const n = entity.vertices.length;
  const [i, j] = [at(one), at(other)];
  const after = (i + 1) % n === j ? j : (j + 1) % n === i ? i : undefined;
  if (after === undefined) return undefined;
  return { kind: "chain", id: entity.id, vertex: entity.vertices[after]!.id, at: entity.vertices[after]!.at };
};

export const fillet: Tool = {
  kind: "tool",
  id: "fillet",
  name: "Fillet",
  bank: "KeyS",
  help: "Click a corner, or two of line, arc and circle one after the other on the sides that stay, with R or Ø typed; without one, pull the radius from the corner. The whole contour at once, or a drag round some corners. Between parallel lines it is the half circle. Space shows the next where there are several.",
  drawing: ["M4 20 L4 12 A8 8 0 0 1 12 4 L20 4", "M4 12 L4 4 L12 4"],
  parts: [
    { kind: "pick", name: "corner", label: "corner or curve", takes: "either" },
    { kind: "pick", name: "other", label: "other curve", takes: "curve", silent: true },
    { kind: "words", text: "with" },
    { kind: "size", name: "size", first: "R" },
    { kind: "words", text: "·" },
    how,
    edges,
    { kind: "pick", name: "pull", label: "radius", takes: "point", silent: true },
  ],
  wants: (given) => [
    ...wantsCorner(given),
    ...(isEnd(given.picks.corner) && given.radius("size") === undefined ? ["pull"] : []),
  ],
  propose: (given, context) => {
    const { corner: picked, other } = given.picks;
    if (!picked?.ref) return nothing;
    const whole = given.choice("how") === "whole";
    const corner =
      pickedCorner(context, picked) ??
      (whole
        ? anyCorner(context, picked)
        : other?.ref && given.isFirm("corner")
          ? chainCorner(context, picked, other)
          : undefined);
    if (corner) {
      const pulled = given.picks.pull?.at ?? (given.isFirm("corner") ? given.pointer : undefined);
      const own = edgesOf(context, corner);
      const typed = given.radius("size");
      const radius =
        typed ??
        (pulled && own
          ? filletRadiusAt(own[0], own[1], curveNearest({ kind: "piece", ...own[0] }, pulled).at)
          : undefined);
      if (radius === undefined) return { ways: [], note: "Type R or Ø, or pull it" };
      const cut = cutProposal(
        atCorner(given, context, corner, filletCut(radius), "Fillet", "size"),
        true,
        context.unit,
        "rounded",
      );
      return typed === undefined ? { ...cut, live: { size: radius } } : cut;
    }
    if (isEnd(picked)) return given.isFirm("corner") ? refused(refuse("no-corner-here")) : nothing;
    if (!other?.ref || !given.isFirm("corner")) return nothing;
    return betweenTwo(given, context, picked, other);
  },
  drag: "box",
  dragged: (given, context, path) => {
    const radius = given.radius("size");
    if (radius === undefined) return { ways: [], note: "Type R or Ø first" };
    return inBox(context, path, filletCut(radius), "Fillet", linker(given, "size"), "rounded");
  },
};

export const chamfer: Tool = {
  kind: "tool",
  id: "chamfer",
  name: "Chamfer",
  bank: "KeyS",
  help: "Click a corner, or the two edges one after the other: it is cut off by the length along the first edge, and the same, another length, or at an angle along the second. The whole contour at once, or a drag round some corners.",
  drawing: ["M4 20 L4 12 L12 4 L20 4", "M4 12 L4 4 L12 4"],
  parts: [
    { kind: "pick", name: "corner", label: "corner or edge", takes: "either" },
    { kind: "pick", name: "other", label: "other edge", takes: "curve", silent: true },
    { kind: "words", text: "by" },
    { kind: "value", name: "a", label: "length", expects: "length", stays: true },
    {
      kind: "choice",
      name: "by",
      label: "second edge",
      options: [
        ["same", "the same"],
        ["and", "and"],
        ["at", "at"],
      ],
    },
    { kind: "value", name: "b", label: "second length", expects: "length", stays: true, onlyIf: under("by", "and") },
    { kind: "value", name: "angle", label: "angle", expects: "angle", stays: true, onlyIf: under("by", "at") },
    { kind: "words", text: "·" },
    how,
    edges,
  ],
  wants: wantsCorner,
  propose: (given, context) => {
    const { corner: picked, other } = given.picks;
    const cut = chamferCut(given);
    if (!picked?.ref) return nothing;
    const corner =
      pickedCorner(context, picked) ??
      (given.choice("how") === "whole"
        ? anyCorner(context, picked)
        : other?.ref && given.isFirm("corner")
          ? (chainCorner(context, picked, other) ?? looseCorner(context, picked, other))
          : undefined);
    if (!corner) return given.isFirm(isEnd(picked) ? "corner" : "other") ? refused(refuse("no-corner-here")) : nothing;
    if (!cut) return { ways: [], note: "Type the length" };
    return cutProposal(atCorner(given, context, corner, cut, "Chamfer", "a"), true, context.unit, "cut off");
  },
  drag: "box",
  dragged: (given, context, path) => {
    const cut = chamferCut(given);
    return cut
      ? inBox(context, path, cut, "Chamfer", () => undefined, "cut off")
      : { ways: [], note: "Type the length first" };
  },
};

const chamferCut = (given: Given): CornerCut | undefined => {
  const a = given.value("a");
  const [by, second, angle] = [given.choice("by"), given.value("b"), given.value("angle")];
  if (a === undefined || (by === "and" && second === undefined) || (by === "at" && angle === undefined))
    return undefined;
  return (before, after) => {
    const b =
      by === "and" ? done(second!) : by === "at" ? chamferByAngle(before, after, a, toRadians(angle!)) : done(a);
    return b.ok ? chamferCorner(before, after, a, b.value) : b;
  };
};

/** Two loose pieces, or end pieces of open chains, that were picked and end at one place. */
const looseCorner = ({ index, drawing }: ToolContext, one: Picked, other: Picked): Corner | undefined => {
  const [p, q] = [curveAt(drawing, one.ref!), curveAt(drawing, other.ref!)];
  if (p?.kind !== "piece" || q?.kind !== "piece") return undefined;
  const at = [p.a, p.b].find((end) => [q.a, q.b].some((own) => distance(own, end) <= RESOLUTION));
  return at && cornerAt(index, { id: one.ref!.id }, at);
};

export const meet: Tool = {
  kind: "tool",
  id: "meet",
  name: "Meet",
  bank: "KeyS",
  help: "Click two lines or arcs, each on the side that should stay: both run to their corner, made longer or cut.",
  drawing: ["M4 20 L4 4 L20 4", "M4 8 L4 4 L8 4"],
  parts: [
    { kind: "pick", name: "one", label: "line or arc", takes: "curve" },
    { kind: "words", text: "and" },
    { kind: "pick", name: "other", label: "other line or arc", takes: "curve" },
  ],
  propose: (given, { drawing }) => {
    const { one, other } = given.picks;
    if (!one?.ref || !other?.ref || !given.isFirm("one")) return nothing;
    const made = meetCurves(drawing, { ref: one.ref, at: one.at }, { ref: other.ref, at: other.at });
    if (!made.ok) return given.isFirm("other") ? refused(made) : nothing;
    const { edit } = made.value;
    return { ways: [changingWay(edit)] };
  },
};

const RELIEF_WORDS: Readonly<Record<Relief, string>> = {
  bisector: "along the bisector",
  edge: "along an edge",
  round: "round",
};

export const cornerRelief: Tool = {
  kind: "tool",
  id: "corner-relief",
  name: "Corner relief",
  bank: "KeyS",
  help: "Click an inside corner between straight edges of a contour, with the cutter's Ø typed: it is cut out so far that a square corner goes in. Along the bisector, along the edge after it, or round; the whole contour at once.",
  drawing: ["M4 4 L4 14 A3.5 3.5 0 1 0 10 20 L20 20", "M4 14 L4 20 L10 20"],
  parts: [
    { kind: "pick", name: "corner", label: "inside corner", takes: "either" },
    { kind: "words", text: "for a cutter of" },
    { kind: "size", name: "size", first: "Ø" },
    {
      kind: "choice",
      name: "kind",
      label: "kind",
      options: RELIEFS.map((kind) => [kind, RELIEF_WORDS[kind]] as const),
    },
    how,
  ],
  propose: (given, context) => {
    const { corner: picked } = given.picks;
    const radius = given.radius("size");
    const corner =
      pickedCorner(context, picked) ?? (given.choice("how") === "whole" ? anyCorner(context, picked) : undefined);
    if (!picked) return nothing;
    if (corner?.kind !== "chain") return given.isFirm("corner") ? refused(refuse("no-corner-here")) : nothing;
    if (radius === undefined) return { ways: [], note: "Type the cutter’s Ø" };
    const side = freeSide(context.drawing, corner.id);
    if (!side.ok) return refused(side);
    const cut = reliefCut(radius, given.choice("kind") as Relief, side.value);
    return cutProposal(atCorner(given, context, corner, cut, "Corner relief", "size"), true, context.unit, "relieved");
  },
};

export const changeFillet: Tool = {
  kind: "tool",
  id: "change-fillet",
  name: "Change fillet",
  bank: "KeyS",
  help: "Click a rounded corner of a chain, with the new R or Ø typed: its edges stay where they run, the arc gets the new radius.",
  drawing: ["M4 20 L4 12 A8 8 0 0 1 12 4 L20 4", "M4 20 L4 15 A11 11 0 0 1 15 4 L20 4"],
  parts: [
    { kind: "pick", name: "arc", label: "rounded corner", takes: "curve", round: true },
    { kind: "words", text: "to" },
    { kind: "size", name: "size", first: "R" },
  ],
  propose: (given, context) => {
    const { arc } = given.picks;
    const radius = given.radius("size");
    if (!arc?.ref) return nothing;
    if (radius === undefined) return { ways: [], note: "Type R or Ø" };
    return cutProposal(
      reroundCorner(context.drawing, arc.ref, radius, linker(given, "size")),
      true,
      context.unit,
      "changed",
    );
  },
};

export const sharpen: Tool = {
  kind: "tool",
  id: "sharpen",
  name: "Sharpen",
  bank: "KeyS",
  help: "Click a rounded or a cut corner of a chain: the arc goes, and its edges run to their sharp corner.",
  drawing: ["M4 20 L4 4 L20 4", "M4 12 A8 8 0 0 1 12 4"],
  parts: [{ kind: "pick", name: "arc", label: "rounded corner", takes: "curve" }],
  propose: (given, context) => {
    const { arc } = given.picks;
    if (!arc?.ref) return nothing;
    return cutProposal(
      reroundCorner(context.drawing, arc.ref, undefined),
      given.isFirm("arc"),
      context.unit,
      "sharpened",
    );
  },
};
