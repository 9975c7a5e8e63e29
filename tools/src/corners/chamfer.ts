import { exampleBox } from "../example/exampleShapes.ts";
import { chamferByAngle, chamferCorner } from "@ash-edge/core/construct";
import { curveAt } from "@ash-edge/core/drawing";
import { cornerAt, type CornerCut, type Corner } from "@ash-edge/core/edits";
import { distance, pieceNearest, reversePiece, type Piece, type Point } from "@ash-edge/core/geometry";
import { refuse, done, toRadians, RESOLUTION } from "@ash-edge/core/numeric";
import { under, nothing, refused, type Tool, type Given, type ToolContext, type Picked } from "../tool.ts";
import {
  how,
  edges,
  wantsCorner,
  pickedCorner,
  anyCorner,
  chainCorner,
  isEnd,
  cutProposal,
  atCorner,
  inBox,
} from "./cornerPick.ts";

export const chamfer: Tool = {
  kind: "tool",
  id: "chamfer",
  name: "Chamfer",
  help:
    "Click a corner, or the two edges one after the other: it is cut off by the length along the first edge, and " +
    "the same, another length, or at an angle along the second. The whole contour at once, or a drag round some " +
    "corners.",
  drawing: ["M4 20 L4 12 L12 4 L20 4", "M4 12 L4 4 L12 4"],
  example: { cut: [exampleBox(0, 0, 70, 40)], typed: { a: "12" }, clicks: [[70, 40]] },
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
  alsoSays: ({ kind, value, angle, other }) => {
    if (kind !== "chamfer") return undefined;
    if (angle !== undefined && angle !== 45) return { choices: { by: "at" }, values: { angle } };
    return other !== undefined && other !== value
      ? { choices: { by: "and" }, values: { b: other } }
      : { choices: { by: "same" }, values: {} };
  },
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
      ? inBox(given, context, path, cut, "Chamfer", () => undefined, "cut off")
      : { ways: [], note: "Type the length first" };
  },
};

const chamferCut = (given: Given): CornerCut | undefined => {
  const a = given.value("a");
  const [by, second, angle] = [given.choice("by"), given.value("b"), given.value("angle")];
  if (a === undefined || (by === "and" && second === undefined) || (by === "at" && angle === undefined))
    return undefined;
  const first = given.picks.corner;
  return (before, after) => {
    // the length lies along the edge that was clicked first, which may be the one that comes after the corner
    const turned = first !== undefined && !isEnd(first) && liesOn(after, first.at) && !liesOn(before, first.at);
    const [one, two] = turned ? [reversePiece(after), reversePiece(before)] : [before, after];
    const b = by === "and" ? done(second!) : by === "at" ? chamferByAngle(one, two, a, toRadians(angle!)) : done(a);
    if (!b.ok) return b;
    return turned ? chamferCorner(before, after, b.value, a) : chamferCorner(before, after, a, b.value);
  };
};

const liesOn = (piece: Piece, at: Point): boolean => pieceNearest(piece, at).distance <= RESOLUTION;

/** Two loose pieces, or end pieces of open chains, that were picked and end at one place. */
const looseCorner = ({ index, drawing }: ToolContext, one: Picked, other: Picked): Corner | undefined => {
  const [p, q] = [curveAt(drawing, one.ref!), curveAt(drawing, other.ref!)];
  if (p?.kind !== "piece" || q?.kind !== "piece") return undefined;
  const at = [p.a, p.b].find((end) => [q.a, q.b].some((own) => distance(own, end) <= RESOLUTION));
  return at && cornerAt(index, { id: one.ref!.id }, at);
};
