import { rectangleOf, type CornerStyle, type RectanglePlace } from "@ash-edge/core/construct";
import type { Ref } from "@ash-edge/core/drawing";
import { addContour } from "@ash-edge/core/edits";
import { turned, subtract, type Piece, type Point } from "@ash-edge/core/geometry";
import { toRadians, RESOLUTION, SAME_DIRECTION } from "@ash-edge/core/numeric";
import { linkCallout } from "../linking.ts";
import { pieceShape } from "../making.ts";
import { under, nothing, refused, oneWay, type Given, type Tool } from "../tool.ts";

export const NINE_PLACES: readonly (readonly [id: string, words: string])[] = [
  ["02", "upper left"],
  ["12", "top"],
  ["22", "upper right"],
  ["01", "left"],
  ["11", "centre"],
  ["21", "right"],
  ["00", "lower left"],
  ["10", "bottom"],
  ["20", "lower right"],
];

type Extent = { readonly size: number; readonly place: 0 | 1 | 2 };

/** One side: typed, it hangs on the chosen place; from the pointer, it reaches from the point to the pointer. */
const extent = (typed: number | undefined, place: 0 | 1 | 2, towards: number | undefined): Extent | undefined => {
  if (typed !== undefined) return { size: typed, place };
  if (towards === undefined) return undefined;
  return place === 1 ? { size: 2 * Math.abs(towards), place } : { size: Math.abs(towards), place: towards < 0 ? 2 : 0 };
};

const cornersOf = (given: Given): CornerStyle | undefined => {
  const kind = given.choice("corners");
  if (kind === "sharp") return { kind };
  const size = kind === "round" ? given.radius("corner") : given.value("cut");
  return size === undefined ? undefined : { kind: kind as "round" | "cut", size };
};

const isAlong = ({ a, b, bulge }: Piece, angle: number): boolean => {
  const { x, y } = turned(subtract(b, a), -angle);
  return bulge === 0 && Math.abs(y) < SAME_DIRECTION * Math.abs(x);
};

export const rectangle: Tool = {
  kind: "tool",
  id: "rectangle",
  name: "Rectangle",
  help:
    "Type width and height and click where its chosen place lies; what is not typed comes from a second click. " +
    "Corners sharp, rounded or cut; turned by an angle.",
  drawing: ["M4 7 L20 7 L20 18 L4 18 Z", "M4 18 m-2 0 a2 2 0 1 0 4 0 a2 2 0 1 0 -4 0"],
  example: { typed: { width: "70", height: "40", corner: "8" }, chosen: { corners: "round" }, clicks: [[0, 0]] },
  parts: [
    { kind: "value", name: "width", label: "width", expects: "length", stays: true },
    { kind: "words", text: "by" },
    { kind: "value", name: "height", label: "height", expects: "length", stays: true },
    { kind: "words", text: "· its" },
    { kind: "choice", name: "place", label: "placed by", nine: true, options: NINE_PLACES },
    { kind: "words", text: "at" },
    { kind: "pick", name: "at", label: "point", takes: "point" },
    { kind: "pick", name: "other", label: "other corner", takes: "point", silent: true },
    {
      kind: "choice",
      name: "corners",
      label: "corners",
      options: [
        ["sharp", "sharp"],
        ["round", "round"],
        ["cut", "cut"],
      ],
    },
    { kind: "size", name: "corner", first: "R", onlyIf: under("corners", "round") },
    { kind: "value", name: "cut", label: "cut", expects: "length", stays: true, onlyIf: under("corners", "cut") },
    { kind: "words", text: "turned" },
    { kind: "value", name: "turned", label: "turned", expects: "angle", stays: true, given: 0, signed: true },
  ],
  from: "at",
  first: { place: "00" },
  wants: (given) =>
    given.value("width") !== undefined && given.value("height") !== undefined ? ["at"] : ["at", "other"],
  propose: (given, { drawing, layer }) => {
    const { at, other } = given.picks;
    if (!at) return nothing;
    const angle = toRadians(given.value("turned") ?? 0);
    const to = other?.at ?? (given.isFirm("at") ? given.pointer : undefined);
    const way: Point | undefined = to && turned(subtract(to, at.at), -angle);
    const chosen = [...given.choice("place")].map(Number) as [0 | 1 | 2, 0 | 1 | 2];
    // started on a corner by a click, it grows towards the pointer
    const grows = to && given.isFirm("at") && chosen[0] !== 1 && chosen[1] !== 1;
    const [across, up] = grows && way ? ([way.x < 0 ? 2 : 0, way.y < 0 ? 2 : 0] as const) : chosen;
    const [wide, high] = [extent(given.value("width"), across, way?.x), extent(given.value("height"), up, way?.y)];
    const corners = cornersOf(given);
    if (!wide || !high || wide.size <= RESOLUTION || high.size <= RESOLUTION) return nothing;
    if (!corners) return { ways: [], note: "Type the size of the corners" };
    const place: RectanglePlace = { across: wide.place, up: high.place };
    const made = rectangleOf(wide.size, high.size, place, at.at, corners, angle);
    if (!made.ok) return refused(made);
    const pieces = made.value;
    const edit = () =>
      addContour(drawing, { label: "Rectangle", gesture: "rectangle", layer }, pieces, (draft, refs) => {
        const fitting = (fits: (piece: Piece) => boolean): readonly Ref[] => refs.filter((_, i) => fits(pieces[i]!));
        const [level, upright] = [0, Math.PI / 2].map((turn) => fitting((piece) => isAlong(piece, angle + turn)));
        if (upright!.length === 2) linkCallout(draft, given.callout("width"), upright!);
        if (level!.length === 2) linkCallout(draft, given.callout("height"), level!);
        linkCallout(
          draft,
          given.callout("corner"),
          fitting(({ bulge }) => bulge !== 0),
        );
      });
    return oneWay(pieces.map(pieceShape), edit, {
      ...(given.value("width") === undefined ? { width: wide.size } : {}),
      ...(given.value("height") === undefined ? { height: high.size } : {}),
    });
  },
};
