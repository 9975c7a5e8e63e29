import { arcSlotOf, polygonOf, polygonOnSide, slotByLength, slotOf, type PolygonSize } from "@ash-edge/core/construct";
import { chainOfPieces } from "@ash-edge/core/contour";
import type { Ref } from "@ash-edge/core/drawing";
import { draftEdit } from "@ash-edge/core/edits";
import { angleOf, distance, subtract, type Piece } from "@ash-edge/core/geometry";
import { refuse, RESOLUTION, signedAngle, toDegrees, toRadians, type Outcome } from "@ash-edge/core/numeric";
import { linkCallout } from "./linking.ts";
import { makingWay, pieceShape } from "./making.ts";
import { nothing, refused, under, type Given, type Proposal, type Tool, type ToolContext } from "./tool.ts";

/** A closed chain of pieces; `links` says which of its pieces answer which blank. */
const closedShape = (
  tool: Tool,
  pieces: Outcome<readonly Piece[]>,
  firm: boolean,
  given: Given,
  { drawing, layer }: ToolContext,
  rest: Pick<Proposal, "live" | "note"> = {},
  links: Readonly<Record<string, (piece: Piece, i: number) => boolean>> = {},
): Proposal => {
  if (!pieces.ok) return firm ? refused(pieces) : nothing;
  const made = pieces.value;
  const edit = () => {
    const draft = draftEdit(drawing, tool.name, tool.id);
    const chain = chainOfPieces(made, true, draft.newId);
    const id = draft.add(chain, layer);
    for (const [blank, fits] of Object.entries(links)) {
      const refs = made.flatMap((piece, i): Ref[] => (fits(piece, i) ? [{ id, vertex: chain.vertices[i]!.id }] : []));
      if (refs.length > 0) linkCallout(draft, given.callout(blank), refs);
    }
    return draft.finish();
  };
  return { ways: [{ preview: made.map((piece) => ({ shape: pieceShape(piece) })), edit }], ...rest };
};

export const polygon: Tool = {
  kind: "tool",
  id: "polygon",
  name: "Polygon",
  bank: "KeyT",
  help: "A regular polygon: across its flats, across its corners, or with a side of the typed length, about a centre; or on a side that two clicks give. What is not typed comes from the second click.",
  drawing: ["M12 3 L19.8 7.5 L19.8 16.5 L12 21 L4.2 16.5 L4.2 7.5 Z"],
  parts: [
    { kind: "words", text: "with" },
    { kind: "value", name: "sides", label: "sides", expects: "count", stays: true, given: 6 },
    { kind: "words", text: "sides ·" },
    {
      kind: "choice",
      name: "as",
      label: "measured",
      options: [
        ["flats", "across flats"],
        ["corners", "across corners"],
        ["side", "along a side"],
        ["edge", "on two points"],
      ],
    },
    {
      kind: "value",
      name: "size",
      label: "size",
      expects: "length",
      stays: true,
      onlyIf: under("as", "flats", "corners", "side"),
    },
    { kind: "words", text: "at" },
    { kind: "pick", name: "at", label: "centre", takes: "point" },
    { kind: "pick", name: "to", label: "corner", takes: "point", silent: true },
    { kind: "words", text: "turned", onlyIf: under("as", "flats", "corners", "side") },
    {
      kind: "value",
      name: "turned",
      label: "turned",
      expects: "angle",
      stays: true,
      signed: true,
      given: 0,
      onlyIf: under("as", "flats", "corners", "side"),
    },
  ],
  from: "at",
  wants: ({ value, choice }) => ["at", ...(choice("as") === "edge" || value("size") === undefined ? ["to"] : [])],
  propose: (given, context) => {
    const { at, to } = given.picks;
    if (!at) return nothing;
    const sides = given.value("sides") ?? 6;
    const as = given.choice("as");
    const other = to?.at ?? (given.isFirm("at") ? given.pointer : undefined);
    if (as === "edge")
      return other && given.isFirm("at")
        ? closedShape(polygon, polygonOnSide(at.at, other, sides), given.isFirm("to"), given, context)
        : nothing;
    const typed = given.value("size");
    const away = other ? distance(at.at, other) : 0;
    const half = Math.PI / sides;
    const pulled = as === "corners" ? 2 * away : as === "flats" ? 2 * away * Math.cos(half) : 2 * away * Math.sin(half);
    const size = typed ?? pulled;
    if (size <= RESOLUTION) return nothing;
    const angle =
      toRadians(given.value("turned") ?? 0) + (typed === undefined && other ? angleOf(subtract(other, at.at)) : 0);
    const made = polygonOf(at.at, sides, size, as as PolygonSize, angle);
    return closedShape(polygon, made, true, given, context, typed === undefined ? { live: { size } } : {}, {
      size: (_, i) => as === "side" && i === 0,
    });
  },
};

export const slot: Tool = {
  kind: "tool",
  id: "slot",
  name: "Slot",
  bank: "KeyT",
  help: "A straight slot with full round ends, as wide as typed: between two centres that are clicked, or of an overall length about its middle.",
  drawing: ["M8 8 L16 8 A4 4 0 1 1 16 16 L8 16 A4 4 0 1 1 8 8", "M6 12 L10 12 M14 12 L18 12"],
  parts: [
    { kind: "value", name: "width", label: "width", expects: "length", stays: true },
    { kind: "words", text: "wide ·" },
    {
      kind: "choice",
      name: "by",
      label: "by",
      options: [
        ["centres", "between centres"],
        ["length", "overall length"],
      ],
    },
    { kind: "pick", name: "one", label: "centre", takes: "point", onlyIf: under("by", "centres") },
    { kind: "words", text: "and", onlyIf: under("by", "centres") },
    { kind: "pick", name: "other", label: "other centre", takes: "point", onlyIf: under("by", "centres") },
    { kind: "words", text: "apart", onlyIf: under("by", "centres") },
    { kind: "value", name: "apart", label: "apart", expects: "length", stays: true, onlyIf: under("by", "centres") },
    {
      kind: "value",
      name: "length",
      label: "overall length",
      expects: "length",
      stays: true,
      onlyIf: under("by", "length"),
    },
    { kind: "words", text: "at", onlyIf: under("by", "length") },
    {
      kind: "value",
      name: "angle",
      label: "angle",
      expects: "angle",
      stays: true,
      signed: true,
      given: 0,
      onlyIf: under("by", "length"),
    },
    { kind: "words", text: "about", onlyIf: under("by", "length") },
    { kind: "pick", name: "middle", label: "middle", takes: "point", onlyIf: under("by", "length") },
  ],
  from: "one",
  wants: ({ choice }) => (choice("by") === "length" ? ["middle"] : ["one", "other"]),
  propose: (given, context) => {
    const width = given.value("width");
    const links = { width: ({ bulge }: Piece) => bulge === 0, length: () => false };
    if (given.choice("by") === "length") {
      const { middle } = given.picks;
      const length = given.value("length");
      if (!middle) return nothing;
      if (width === undefined || length === undefined)
        return { ways: [], note: "Type the width and the overall length" };
      const made = slotByLength(middle.at, length, width, toRadians(given.value("angle") ?? 0));
      return closedShape(slot, made, true, given, context, {}, links);
    }
    const { one, other } = given.picks;
    if (!one || !other || !given.isFirm("one")) return nothing;
    if (width === undefined)
      return given.isFirm("other") ? refused(refuse("value-empty")) : { ways: [], note: "Type the width" };
    const away = distance(one.at, other.at);
    const apart = given.value("apart");
    if (away <= RESOLUTION) return nothing;
    const end =
      apart === undefined
        ? other.at
        : {
            x: one.at.x + ((other.at.x - one.at.x) * apart) / away,
            y: one.at.y + ((other.at.y - one.at.y) * apart) / away,
          };
    const live = apart === undefined ? { live: { apart: away } } : {};
    return closedShape(slot, slotOf(one.at, end, width), true, given, context, live, {
      ...links,
      apart: (_, i) => i === 0,
    });
  },
};

export const arcSlot: Tool = {
  kind: "tool",
  id: "arc-slot",
  name: "Arc slot",
  bank: "KeyT",
  help: "A slot along an arc, with full round ends: click the centre of the arc, the centre of one end, and that of the other, or type the sweep.",
  drawing: ["M4.5 12 A7.5 7.5 0 0 1 19.5 12 L16 12 A4 4 0 0 0 8 12 Z", "M12 18 m-1 0 a1 1 0 1 0 2 0 a1 1 0 1 0 -2 0"],
  parts: [
    { kind: "value", name: "width", label: "width", expects: "length", stays: true },
    { kind: "words", text: "wide · about" },
    { kind: "pick", name: "centre", label: "centre", takes: "point" },
    { kind: "words", text: "from" },
    { kind: "pick", name: "one", label: "end centre", takes: "point" },
    { kind: "words", text: "to" },
    { kind: "pick", name: "other", label: "other end", takes: "point" },
    { kind: "words", text: "sweep" },
    { kind: "value", name: "sweep", label: "sweep", expects: "angle", stays: true, signed: true },
  ],
  from: "centre",
  wants: ({ value }) => ["centre", "one", ...(value("sweep") === undefined ? ["other"] : [])],
  propose: (given, context) => {
    const { centre, one, other } = given.picks;
    const width = given.value("width");
    if (!centre || !one || !given.isFirm("centre")) return nothing;
    if (width === undefined) return { ways: [], note: "Type the width" };
    const typed = given.value("sweep");
    const turn = (to: { x: number; y: number }): number =>
      signedAngle(angleOf(subtract(to, centre.at)) - angleOf(subtract(one.at, centre.at)));
    const sweep = typed !== undefined ? toRadians(typed) : other && given.isFirm("one") ? turn(other.at) : undefined;
    if (sweep === undefined || Math.abs(sweep) < 1e-9) return nothing;
    const firm = given.isFirm(typed === undefined ? "other" : "one");
    const live = typed === undefined ? { live: { sweep: toDegrees(sweep) } } : {};
    const way = closedShape(arcSlot, arcSlotOf(centre.at, one.at, sweep, width), firm, given, context, live);
    if (typed !== undefined || way.ways.length === 0) return way;
    // the long way round is the other solution
    const long = closedShape(
      arcSlot,
      arcSlotOf(centre.at, one.at, sweep > 0 ? sweep - 2 * Math.PI : sweep + 2 * Math.PI, width),
      false,
      given,
      context,
    );
    return { ...way, ways: [...way.ways, ...long.ways] };
  },
};

export const ring: Tool = {
  kind: "tool",
  id: "ring",
  name: "Ring",
  bank: "KeyT",
  help: "Two circles about one centre: a washer, a flange. Both sizes are typed, as R or Ø.",
  drawing: ["M21 12 A9 9 0 1 1 3 12 A9 9 0 1 1 21 12 M16.5 12 A4.5 4.5 0 1 1 7.5 12 A4.5 4.5 0 1 1 16.5 12"],
  parts: [
    { kind: "words", text: "outer" },
    { kind: "size", name: "outer", first: "Ø" },
    { kind: "words", text: "inner" },
    { kind: "size", name: "inner", first: "Ø" },
    { kind: "words", text: "at" },
    { kind: "pick", name: "at", label: "centre", takes: "point" },
  ],
  propose: (given, { drawing, layer }) => {
    const { at } = given.picks;
    if (!at) return nothing;
    const [outer, inner] = [given.radius("outer"), given.radius("inner")];
    if (outer === undefined || inner === undefined)
      return given.isFirm("at") ? refused(refuse("value-empty")) : { ways: [], note: "Type both sizes" };
    if (inner >= outer) return refused(refuse("radius-too-large", { typed: inner, limit: outer }));
    const circles = [outer, inner].map((radius) => ({ kind: "circle", centre: at.at, radius }) as const);
    return {
      ways: [
        makingWay(ring, drawing, layer, circles, (draft, ids) => {
          linkCallout(draft, given.callout("outer"), [{ id: ids[0]! }]);
          linkCallout(draft, given.callout("inner"), [{ id: ids[1]! }]);
        }),
      ],
    };
  },
};
