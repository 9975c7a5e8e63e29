import { exampleRounded } from "../example/exampleShapes.ts";
import { LAYOUT_LAYER, MARK_LAYER } from "@ash-edge/core/drawing";
import { offsetWhat, areaAt, offsetThrough, offsetEdit, type OffsetWhat } from "@ash-edge/core/edits";
import { done, refuse, showLengthUnit, type Outcome } from "@ash-edge/core/numeric";
import type { Corners, Ends } from "@ash-edge/core/offset";
import { contoursOnce } from "../contoursOnce.ts";
import { bySide, under, nothing, refused, type Given, type ToolContext, type Tool } from "../tool.ts";

const whatOf = (given: Given, { drawing, index }: ToolContext): Outcome<OffsetWhat> | undefined => {
  const { of, area } = given.picks;
  if (given.choice("what") === "curve") return of?.ref && offsetWhat(index, of.ref);
  if (!area) return undefined;
  const found = areaAt(contoursOnce(drawing), area.at);
  return found ? { ok: true, value: found } : refuse("offset-outside");
};

/** Where it is drawn if not on the working layer. */
const LAYERS: Readonly<Record<string, number>> = { mark: MARK_LAYER, layout: LAYOUT_LAYER };

export const offset: Tool = {
  kind: "tool",
  id: "offset",
  name: "Offset",
  help:
    "Click a contour, a circle, a chain or one of the pieces that meet, then on the side where the offset belongs: " +
    "at the typed distance, or through the point clicked. Arcs stay arcs, nothing crosses, what is too narrow " +
    "splits or vanishes. An area takes a contour with its holes: inside it the material shrinks, outside it grows. " +
    "Both sides of an open chain can become one band round it. It can be drawn as a mark or as layout.",
  drawing: ["M5 19 L5 9 A4 4 0 0 1 9 5 L19 5", "M10 19 L10 11 A1 1 0 0 1 11 10 L19 10"],
  example: {
    cut: [exampleRounded(70, 40, 12)],
    typed: { distance: "6" },
    chosen: { corners: "sharp" },
    clicks: [
      [35, 0],
      [35, -10],
    ],
  },
  parts: [
    {
      kind: "choice",
      name: "what",
      label: "what",
      options: [
        ["curve", "this curve"],
        ["area", "area with holes"],
      ],
    },
    { kind: "pick", name: "of", label: "contour or piece", takes: "curve", onlyIf: under("what", "curve") },
    { kind: "pick", name: "area", label: "place inside", takes: "place", onlyIf: under("what", "area") },
    { kind: "words", text: "by" },
    { kind: "value", name: "distance", label: "distance", expects: "length", stays: true },
    { kind: "pick", name: "side", label: "side", takes: "point", silent: true, bare: bySide },
    {
      kind: "choice",
      name: "sides",
      label: "sides",
      options: [
        ["one", "this side"],
        ["both", "both sides"],
      ],
    },
    {
      kind: "choice",
      name: "corners",
      label: "corners",
      options: [
        ["round", "round corners"],
        ["sharp", "sharp"],
        ["flat", "flat"],
      ],
    },
    { kind: "words", text: "open ends", onlyIf: under("sides", "both") },
    {
      kind: "choice",
      name: "ends",
      label: "open ends",
      options: [
        ["open", "left open"],
        ["round", "round"],
        ["square", "square"],
        ["flat", "flat"],
      ],
      onlyIf: under("sides", "both"),
    },
    { kind: "value", name: "times", label: "times", expects: "count", stays: true, given: 1 },
    { kind: "words", text: "times" },
    {
      kind: "choice",
      name: "source",
      label: "what it comes from",
      options: [
        ["keep", "keep"],
        ["replace", "replace"],
      ],
    },
    {
      kind: "choice",
      name: "as",
      label: "as what it is drawn",
      options: [
        ["here", "on this layer"],
        ["mark", "as a mark"],
        ["layout", "as layout"],
      ],
    },
  ],
  wants: ({ choice }) => [choice("what") === "curve" ? "of" : "area", "side"],
  propose: (given, context) => {
    const first = given.choice("what") === "curve" ? "of" : "area";
    const what = whatOf(given, context);
    if (!what) return nothing;
    if (!what.ok) return given.isFirm(first) ? refused(what) : nothing;
    const side = given.picks.side ?? (given.isFirm(first) && given.pointer ? { at: given.pointer } : undefined);
    const taken = what.value.ids.length;
    const { deviation } = what.value;
    const note =
      deviation !== undefined
        ? `by way of ${what.value.sources[0]!.pieces.length} arcs, off by ` +
          `${showLengthUnit(deviation, context.unit)} at most`
        : taken > 1 && first === "of"
          ? `${taken} pieces that meet, taken as one`
          : undefined;
    if (!given.isFirm(first) || !side) return { ways: [], ...(note ? { note } : {}) };
    const through = offsetThrough(what.value, side.at);
    const typed = given.value("distance");
    const by = typed === undefined ? through : Math.sign(through) * typed;
    if (by === 0) return { ways: [], ...(note ? { note } : {}) };
    const callout = given.callout("distance");
    const picked = given.picks.of?.ref;
    const ends = given.choice("ends");
    const times = given.value("times") ?? 1;
    const made = offsetEdit(
      context.drawing,
      what.value,
      {
        by,
        corners: given.choice("corners") as Corners,
        bothSides: given.choice("sides") === "both",
        times,
        ...(ends === "open" ? {} : { band: ends as Ends }),
      },
      LAYERS[given.choice("as")] ?? context.layer,
      given.choice("source") === "replace",
      callout && picked ? { callout: callout.id, picked } : undefined,
    );
    if (!made.ok) return refused(made);
    const { shapes, edit, made: count } = made.value;
    const short =
      count < times
        ? `${count} of ${times}: nothing is left from ${showLengthUnit((count + 1) * Math.abs(by), context.unit)} on`
        : undefined;
    const said = [note, short].filter((words) => words !== undefined).join("; ");
    return {
      ways: [
        { preview: shapes.map((shape) => ({ shape })), edit: () => done(edit), ...(said ? { said: `${said}.` } : {}) },
      ],
      ...(said ? { note: said } : {}),
      ...(typed === undefined ? { live: { distance: Math.abs(by) } } : {}),
    };
  },
};
