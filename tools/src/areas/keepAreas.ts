import { exampleCircle } from "../example/exampleShapes.ts";
import { settingsOf, type Drawing } from "@ash-edge/core/drawing";
import { areaField, keepAreas as kept, type AreaField } from "@ash-edge/core/edits";
import { piecePoint, type Point } from "@ash-edge/core/geometry";
import { done, refuse } from "@ash-edge/core/numeric";
import { refused, nothing, type Given, type ToolContext, type Proposal, type Tool, type Part, under } from "../tool.ts";
import { filled } from "./combining.ts";

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
  const bridges = given.choice("gaps") === "bridge";
  const bridged = bridges ? (given.value("reach") ?? settingsOf(drawing).joinTolerance) : 0;
  const field = fieldOnce(drawing, given.choice("bounds") === "all", bridged);
  const made = kept(field, places, layer, given.choice("rest") === "drop");
  const live = bridges && given.value("reach") === undefined ? { live: { reach: bridged } } : {};
  if (!made.ok) {
    const { refusal } = made;
    const told = refusal.code === "area-leaks" && bridges ? { ...refusal.values, reach: bridged } : refusal.values;
    return { ...refused({ refusal: { ...refusal, values: told } }), ...live };
  }
  const { edit, outlines } = made.value;
  const words = outlines.length === 1 ? "1 contour" : `${outlines.length} contours`;
  return {
    ways: [{ preview: filled(outlines), edit: () => done(edit), said: `${words} kept.` }],
    note: `${words} · Enter keeps them`,
    ...live,
  };
};

export const keepAreas: Tool = {
  kind: "tool",
  id: "keep-areas",
  name: "Keep areas",
  help:
    "Click into each area that is to stay, among anything that crosses round it, or drag across several; a second " +
    "click lets one go. Enter makes their outline one clean contour with its holes. Where an area leaks it says " +
    "where and how wide the gap is; gaps within the join tolerance can be bridged.",
  drawing: [
    "M9.5 12 m-6 0 a6 6 0 1 0 12 0 a6 6 0 1 0 -12 0",
    "M15 12 m-6 0 a6 6 0 1 0 12 0 a6 6 0 1 0 -12 0 M12 8 L12 16",
  ],
  example: {
    cut: [exampleCircle(0, 0, 20), exampleCircle(25, 0, 20)],
    clicks: [
      [-10, 0],
      [12, 0],
    ],
    finish: true,
  },
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
    {
      kind: "value",
      name: "reach",
      label: "gaps up to",
      expects: "length",
      stays: true,
      onlyIf: under("gaps", "bridge"),
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
    const field = fieldOnce(
      context.drawing,
      given.choice("bounds") === "all",
      given.choice("gaps") === "bridge" ? settingsOf(context.drawing).joinTolerance : 0,
    );
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
