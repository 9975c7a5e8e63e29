import { exampleDot } from "../example/exampleShapes.ts";
import { polygonOnSide, polygonOf, type PolygonSize } from "@ash-edge/core/construct";
import { distance, angleOf, subtract } from "@ash-edge/core/geometry";
import { RESOLUTION, toRadians } from "@ash-edge/core/numeric";
import { under, nothing, type Tool } from "../tool.ts";
import { closedShape } from "./closedShape.ts";

export const polygon: Tool = {
  kind: "tool",
  id: "polygon",
  name: "Polygon",
  help:
    "A regular polygon: across its flats, across its corners, or with a side of the typed length, about a centre; " +
    "or on a side that two clicks give. What is not typed comes from the second click.",
  drawing: ["M12 3 L19.8 7.5 L19.8 16.5 L12 21 L4.2 16.5 L4.2 7.5 Z"],
  example: { layout: [exampleDot(0, 0)], typed: { size: "40" }, clicks: [[0, 0]] },
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
