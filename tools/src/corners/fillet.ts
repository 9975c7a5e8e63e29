import { exampleBox } from "../example/exampleShapes.ts";
import { filletsBetween, filletRadiusAt } from "@ash-edge/core/construct";
import { chainPiece } from "@ash-edge/core/contour";
import { entityOf, curveAt } from "@ash-edge/core/drawing";
import { looseEdges, arcBetweenCurves, filletCut, type Corner } from "@ash-edge/core/edits";
import { curveNearest, type Piece } from "@ash-edge/core/geometry";
import { refuse, type Refusal } from "@ash-edge/core/numeric";
import { linkCallout } from "../linking.ts";
import { changingWay } from "../making.ts";
import { refused, nothing, type ToolContext, type Given, type Picked, type Proposal, type Tool } from "../tool.ts";
import {
  how,
  edges,
  wantsCorner,
  isEnd,
  pickedCorner,
  anyCorner,
  chainCorner,
  cutProposal,
  atCorner,
  inBox,
  linker,
} from "./cornerPick.ts";

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

/** The fillet between two picked curves that are not one corner of a chain. */
const betweenTwo = (given: Given, context: ToolContext, one: Picked, other: Picked): Proposal => {
  const { drawing } = context;
  const [own, beside] = [one, other].map(({ ref }) => entityOf(drawing, ref!.id)?.layer);
  // between two of one layer it lies there, whatever the working layer is
  const layer = own !== undefined && own === beside ? own : context.layer;
  const [a, b] = [curveAt(drawing, one.ref!), curveAt(drawing, other.ref!)];
  if (!a || !b) return refused(refuse("not-a-curve"));
  const found = filletsBetween(a, one.at, b, other.at, given.radius("size"));
  if (!found.ok)
    return given.isFirm("other") || found.refusal.code !== "value-empty"
      ? refused(found)
      : { ways: [], note: "Type R or Ø" };
  const keep = given.choice("edges") === "keep";
  let refusal: { readonly refusal: Refusal } | undefined;
  const ways = found.value.flatMap(({ arc, a: first, b: second }) => {
    const sides = [
      { ref: one.ref!, ...(keep || !first ? {} : { piece: first }) },
      { ref: other.ref!, ...(keep || !second ? {} : { piece: second }) },
    ] as const;
    const edit = arcBetweenCurves(drawing, "Fillet", "fillet", arc, sides, layer, (draft, ref) =>
      linkCallout(draft, given.callout("size"), [ref]),
    );
    if (!edit.ok) refusal ??= edit;
    return edit.ok ? [changingWay(edit.value)] : [];
  });
  return ways.length > 0 ? { ways } : refused(refusal ?? refuse("inside-chain"));
};

export const fillet: Tool = {
  kind: "tool",
  id: "fillet",
  name: "Fillet",
  help:
    "Click a corner, or two of line, arc and circle one after the other on the sides that stay, with R or Ø typed; " +
    "without one, pull the radius from the corner; several at once, .75 .25 1, are taken corner by corner. " +
    "The whole contour at once, or a drag round some corners. Between " +
    "parallel lines it is the half circle. Space shows the next where there are several.",
  drawing: ["M4 20 L4 12 A8 8 0 0 1 12 4 L20 4", "M4 12 L4 4 L12 4"],
  example: { cut: [exampleBox(0, 0, 70, 40)], typed: { size: "12" }, clicks: [[70, 40]] },
  parts: [
    { kind: "pick", name: "corner", label: "corner or curve", takes: "either" },
    { kind: "pick", name: "other", label: "other curve", takes: "curve", silent: true },
    { kind: "words", text: "with" },
    { kind: "size", name: "size", first: "R", several: true },
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
        atCorner(given, context, corner, filletCut(radius), "Fillet", "size", { size: radius, of: filletCut }),
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
    return inBox(given, context, path, filletCut(radius), "Fillet", linker(given, "size"), "rounded");
  },
};
