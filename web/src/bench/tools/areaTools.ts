import type { Combination, Outline } from "@ash-edge/core/arrangement";
import { entityOf, settingsOf, type Drawing } from "@ash-edge/core/drawing";
import { areaField, combineEntities, keepAreas as kept, outlineShape, type AreaField } from "@ash-edge/core/edits";
import { piecePoint, type Point } from "@ash-edge/core/geometry";
import { refuse } from "@ash-edge/core/numeric";
import { contoursOnce } from "./contoursOnce.ts";
import { nothing, refused, type Given, type Part, type PreviewShape, type Proposal, type Tool, type ToolContext } from "./tool.ts"; // prettier-ignore

const filled = (outlines: readonly Outline[]): readonly PreviewShape[] => {
  let id = -1;
  return outlines.map((outline) => ({ shape: outlineShape(outline, () => id--), fill: true }));
};

const known = new WeakMap<Drawing, { layout: boolean; bridged: number; field: AreaField }>();
/** The areas of a drawing don't depend on the pointer. */
const fieldOnce = (drawing: Drawing, layout: boolean, bridged: number): AreaField => {
  const last = known.get(drawing);
  if (last && last.layout === layout && last.bridged === bridged) return last.field;
  const field = areaField(drawing, layout, bridged);
  known.set(drawing, { layout, bridged, field });
  return field;
};

/** So many areas can be pointed into before Enter. */
const MOST_AREAS = 60;
const AREA_NAMES = Array.from({ length: MOST_AREAS }, (_, i) => `area ${i + 1}`);

const keep = (given: Given, { drawing, layer }: ToolContext, places: readonly Point[]): Proposal => {
  const bridged = given.choice("gaps") === "bridge" ? settingsOf(drawing).joinTolerance : 0;
  const field = fieldOnce(drawing, given.choice("bounds") === "all", bridged);
  const made = kept(field, places, layer, given.choice("rest") === "drop");
  if (!made.ok) return refused(made);
  const { edit, outlines } = made.value;
  const words = outlines.length === 1 ? "1 contour" : `${outlines.length} contours`;
  return {
    ways: [{ preview: filled(outlines), edit: () => edit, said: `${words} kept.` }],
    note: `${words} · Enter keeps them`,
  };
};

export const keepAreas: Tool = {
  kind: "tool",
  id: "keep-areas",
  name: "Keep areas",
  bank: "KeyF",
  help: "Click into each area that is to stay, among anything that crosses round it, or drag across several; a second click lets one go. Enter makes their outline one clean contour with its holes. Where an area leaks it says where and how wide the gap is; gaps within the join tolerance can be bridged.",
  drawing: [
    "M9.5 12 m-6 0 a6 6 0 1 0 12 0 a6 6 0 1 0 -12 0",
    "M15 12 m-6 0 a6 6 0 1 0 12 0 a6 6 0 1 0 -12 0 M12 8 L12 16",
  ],
  drag: "path",
  parts: [
    ...AREA_NAMES.map((name, i): Part => ({
      kind: "pick",
      name,
      label: "areas",
      takes: "place",
      ...(i > 0 ? { silent: true } : {}),
    })),
    { kind: "words", text: "among" },
    {
      kind: "choice",
      name: "bounds",
      label: "what bounds them",
      options: [
        ["cut", "all but layout"],
        ["all", "whatever crosses"],
      ],
    },
    { kind: "words", text: "·" },
    {
      kind: "choice",
      name: "gaps",
      label: "gaps",
      options: [
        ["stop", "stop at gaps"],
        ["bridge", "bridge gaps"],
      ],
    },
    { kind: "words", text: "·" },
    {
      kind: "choice",
      name: "rest",
      label: "the rest",
      options: [
        ["drop", "drop the rest"],
        ["leave", "leave the rest"],
      ],
    },
  ],
  propose: (given, context) => {
    const places = AREA_NAMES.flatMap((name) => given.picks[name]?.at ?? []);
    return places.length === 0 ? nothing : keep(given, context, places);
  },
  finish: (given, context) => {
    const places = AREA_NAMES.flatMap((name) => given.picks[name]?.at ?? []);
    return places.length === 0 ? nothing : keep(given, context, places);
  },
  dragged: (given, context, path) => {
    const field = fieldOnce(context.drawing, given.choice("bounds") === "all", given.choice("gaps") === "bridge" ? settingsOf(context.drawing).joinTolerance : 0); // prettier-ignore
    const faces = new Map<number, Point>();
    for (const at of alongPath(path)) {
      const face = field.arrangement.faceAt(at);
      if (face !== 0 && !faces.has(face)) faces.set(face, at);
    }
    return faces.size === 0 ? refused(refuse("area-open")) : keep(given, context, [...faces.values()]);
  },
};

/** Places along a way, close enough not to miss an area that it goes through. */
const alongPath = (path: readonly Point[]): readonly Point[] =>
  path.flatMap((b, i) =>
    i === 0 ? [b] : Array.from({ length: 16 }, (_, k) => piecePoint({ a: path[i - 1]!, b, bulge: 0 }, (k + 1) / 16)),
  );

type Words = Pick<Tool, "id" | "name" | "help" | "drawing"> & { readonly between: string };

const combining = (how: Combination, { between, ...words }: Words): Tool => ({
  kind: "tool",
  ...words,
  bank: "KeyF",
  parts: [
    { kind: "pick", name: "of", label: "contour", takes: "curve" },
    { kind: "words", text: between },
    { kind: "pick", name: "with", label: "contour", takes: "curve" },
    { kind: "words", text: "·" },
    {
      kind: "choice",
      name: "holes",
      label: "holes",
      options: [
        ["alone", "outlines alone"],
        ["with", "with their holes"],
      ],
    },
    { kind: "words", text: "·" },
    {
      kind: "choice",
      name: "sources",
      label: "what they come from",
      options: [
        ["drop", "drop them"],
        ["keep", "keep them"],
      ],
    },
  ],
  propose: (given, context) => {
    const [of, other] = [given.picks.of?.ref?.id, given.picks.with?.ref?.id];
    if (of === undefined || other === undefined || !given.isFirm("of")) return nothing;
    return combined(how, given, context, [of, other]);
  },
  finish: (given, context) => {
    const ids = given.things.filter((id) => entityOf(context.drawing, id));
    return ids.length < 2 ? nothing : combined(how, given, context, ids);
  },
});

const combined = (how: Combination, given: Given, { drawing }: ToolContext, ids: readonly number[]): Proposal => {
  const made = combineEntities(drawing, contoursOnce(drawing), ids, how, {
    holes: given.choice("holes") === "with",
    keep: given.choice("sources") === "keep",
  });
  if (!made.ok) return refused(made);
  const { edit, outlines, first } = made.value;
  const words = outlines.length === 1 ? "1 contour" : `${outlines.length} contours`;
  const at = outlines[0]!.pieces[0]!.a;
  return {
    ways: [{ preview: filled(outlines), edit: () => edit, said: `${words} made.`, next: { of: { at, ref: { id: first } } } }], // prettier-ignore
    note: words,
  };
};

export const unite = combining("unite", {
  id: "unite",
  name: "Unite",
  between: "with",
  help: "Click a contour, then one that overlaps or touches it: they become one contour round both, arcs kept as they are. Go on clicking to unite more with it. With several selected, Enter unites them all.",
  drawing: ["M4 4 L14 4 L14 10 L20 10 L20 20 L10 20 L10 14 L4 14 Z"],
});
export const takeAway = combining("take-away", {
  id: "take-away",
  name: "Take away",
  between: "less",
  help: "Click the contour that stays, then the one that is taken away from it: what they share goes. Go on clicking to take away more. With several selected, Enter takes the others away from the first.",
  drawing: ["M4 4 L14 4 L14 10 L10 10 L10 14 L4 14 Z", "M14 10 L20 10 L20 20 L10 20 L10 14"],
});
export const commonPart = combining("common", {
  id: "common-part",
  name: "Common part",
  between: "and",
  help: "Click two contours: what both of them cover stays. With several selected, Enter keeps what all of them cover.",
  drawing: ["M10 10 L14 10 L14 14 L10 14 Z", "M4 4 L14 4 L14 10 L20 10 L20 20 L10 20 L10 14 L4 14 Z"],
});
