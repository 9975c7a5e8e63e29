import { exampleCircle } from "../example/exampleShapes.ts";
import { boltCircle as boltPlaces } from "@ash-edge/core/construct";
import { distance, angleOf, subtract } from "@ash-edge/core/geometry";
import { toRadians, RESOLUTION, toDegrees } from "@ash-edge/core/numeric";
import { nothing, refused, type Tool } from "../tool.ts";
import { kindParts, patternSize, holesAt, PATTERN_BLANKS } from "./holeMaking.ts";

export const boltCircle: Tool = {
  kind: "tool",
  id: "bolt-circle",
  name: "Bolt circle",
  help:
    "Holes equally spaced on a circle: how many, what kind, on which circle, about which centre, the first at which " +
    "angle. Without the circle typed, a second click gives the place of the first hole.",
  drawing: [
    "M14 5 A2 2 0 1 1 10 5 A2 2 0 1 1 14 5 M20 15.5 A2 2 0 1 1 16 15.5 A2 2 0 1 1 20 15.5 M8 15.5 A2 2 0 1 1 4 " +
      "15.5 A2 2 0 1 1 8 15.5",
    "M19 12 A7 7 0 1 1 5 12 A7 7 0 1 1 19 12",
  ],
  example: {
    cut: [exampleCircle(0, 0, 40)],
    typed: { count: "6", size: "8", circle: "56", first: "90" },
    clicks: [[0, 0]],
  },
  parts: [
    { kind: "value", name: "count", label: "how many", expects: "count", stays: true, given: 4 },
    { kind: "words", text: "×" },
    ...kindParts,
    { kind: "words", text: "on" },
    { kind: "size", name: "circle", first: "Ø" },
    { kind: "words", text: "about" },
    { kind: "pick", name: "centre", label: "centre", takes: "point" },
    { kind: "words", text: "first at" },
    { kind: "value", name: "first", label: "first at", expects: "angle", stays: true, signed: true },
    { kind: "pick", name: "hole", label: "first hole", takes: "point", silent: true },
  ],
  from: "centre",
  first: { fit: "medium" },
  wants: ({ radius, value }) => [
    "centre",
    ...(radius("circle") === undefined || value("first") === undefined ? ["hole"] : []),
  ],
  propose: (given, context) => {
    const { centre } = given.picks;
    if (!centre) return nothing;
    const size = patternSize(given, context);
    if (!size) return given.isFirm("centre") ? { ways: [], note: "Type the size of the holes" } : nothing;
    if (!size.ok) return refused(size);
    const pointer = given.picks.hole?.at ?? (given.isFirm("centre") ? given.pointer : undefined);
    const radius = given.radius("circle") ?? (pointer && distance(centre.at, pointer));
    const typed = given.value("first");
    const first = typed !== undefined ? toRadians(typed) : pointer ? angleOf(subtract(pointer, centre.at)) : 0;
    if (!radius || radius <= RESOLUTION) return nothing;
    const places = boltPlaces(centre.at, radius, given.value("count") ?? 4, first);
    const proposal = holesAt(boltCircle, context, places, size.value, given, PATTERN_BLANKS);
    return {
      ...proposal,
      ways: proposal.ways.map((way) => ({
        ...way,
        preview: [...way.preview, { shape: { kind: "circle", centre: centre.at, radius } }],
      })),
      live: {
        ...(given.radius("circle") === undefined ? { circle: radius } : {}),
        ...(typed === undefined ? { first: toDegrees(first) } : {}),
      },
    };
  },
};
