import { exampleDot } from "../example/exampleShapes.ts";
import { slotByLength, slotOf } from "@ash-edge/core/construct";
import { distance, type Piece } from "@ash-edge/core/geometry";
import { toRadians, refuse, RESOLUTION } from "@ash-edge/core/numeric";
import { under, nothing, refused, type Tool } from "../tool.ts";
import { closedShape } from "./closedShape.ts";

export const slot: Tool = {
  kind: "tool",
  id: "slot",
  name: "Slot",
  help:
    "A straight slot with full round ends, as wide as typed: between two centres that are clicked, or of an overall " +
    "length about its middle.",
  drawing: ["M8 8 L16 8 A4 4 0 1 1 16 16 L8 16 A4 4 0 1 1 8 8", "M6 12 L10 12 M14 12 L18 12"],
  example: {
    layout: [exampleDot(0, 0), exampleDot(50, 0)],
    typed: { width: "16" },
    clicks: [
      [0, 0],
      [50, 0],
    ],
  },
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
    // its overall length is from the middle of one round end to that of the other
    const links = {
      width: ({ bulge }: Piece) => bulge === 0,
      length: ({ bulge }: Piece) => bulge !== 0 && ("middle" as const),
    };
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
