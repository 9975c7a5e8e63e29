import { exampleDot } from "../example/exampleShapes.ts";
import type { WidthRun } from "@ash-edge/core/construct";
import { applyEdit, mergeEdits } from "@ash-edge/core/drawing";
import { giveWidth, outlineEnd } from "@ash-edge/core/edits";
import { done, refuse } from "@ash-edge/core/numeric";
import { outline, nextOfOutline, type OutlineWay } from "../draw/outline.ts";
import { refused, type Given, type ToolContext, type Way, type Tool, type Proposal } from "../tool.ts";
import { widthShape, widthParts } from "./giveWidth.ts";

/** How wide the next piece is: as typed, else as wide as the piece before it ends. */
const runOf = (given: Given, before: number | undefined): WidthRun | undefined => {
  const from = given.value("width") ?? before;
  return from === undefined ? undefined : [from, given.value("widthTo") ?? from];
};

/**
 * A piece with its width: the preview shows the contour as it would be; where the outline closes, its contours are made
 * at once.
 */
const shownWide = (given: Given, { drawing, layer }: ToolContext, way: OutlineWay): Way | ReturnType<typeof refuse> => {
  const made = way.edit();
  if (!made.ok) return made;
  const edit = made.value;
  const { id } = edit.changes.find(({ table }) => table === "entity")!;
  const round = giveWidth(applyEdit(drawing, edit), id, widthShape(given), "goes", layer);
  if (!round.ok) return round;
  const preview = [...way.preview, ...round.value.contours.map((shape) => ({ shape }))];
  if (!way.closes) return { ...way, preview };
  const both = mergeEdits([edit, round.value.edit], "Outline with a width", "wide-outline");
  return { preview, edit: () => done(both), said: "The outline is closed, and its contours are made." };
};

export const wideOutline: Tool = {
  ...outline,
  id: "wide-outline",
  name: "Outline with a width",
  help:
    "An outline whose pieces have a width each, even or tapering to another at the end; one that nothing is typed " +
    "for goes on as wide as the piece before it ends. Enter makes the closed contour round it; a click on the first " +
    "point closes it and makes both.",
  drawing: ["M3 15 L12 5 L20 9 L18 13 L12.5 10.5 L7 18 Z", "M5 16.5 L12.2 7.8 L19 11"],
  example: {
    typed: { width: "14", widthTo: "6" },
    layout: [exampleDot(0, 0), exampleDot(60, 20)],
    clicks: [
      [0, 0],
      [60, 20],
    ],
  },
  parts: [
    ...outline.parts.filter((part) => !("name" in part && part.name === "end")),
    { kind: "words", text: "· width" },
    { kind: "value", name: "width", label: "width", expects: "length", stays: false, signed: true },
    { kind: "words", text: "to" },
    { kind: "value", name: "widthTo", label: "width at the end", expects: "length", stays: false, signed: true },
    ...widthParts,
  ],
  propose: (given, context): Proposal => {
    const { from } = given.picks;
    const run = from && runOf(given, outlineEnd(context.drawing, from).width);
    const drawn = nextOfOutline(given, context, run);
    if (!from || drawn.ways.length === 0) return drawn;
    if (!run)
      return given.isFirm("to")
        ? refused(refuse("width-missing"))
        : { ways: drawn.ways.map(({ preview }) => ({ preview })), note: "Type the width" };
    const live = {
      ...drawn.live,
      ...(given.value("width") === undefined ? { width: run[0] } : {}),
      ...(given.value("widthTo") === undefined ? { widthTo: run[1] } : {}),
    };
    const ways: Way[] = [];
    for (const way of drawn.ways) {
      const shown = "closes" in way ? shownWide(given, context, way) : way;
      if ("refusal" in shown) return { ...refused(shown), live };
      ways.push(shown);
    }
    return { ...drawn, ways, live };
  },
  finish: (given, context): Proposal => {
    const id = given.picks.from?.ref?.id;
    if (id === undefined) return { ways: [] };
    const made = giveWidth(context.drawing, id, widthShape(given), "goes", context.layer);
    if (!made.ok) return refused(made);
    return { ways: [{ preview: [], edit: () => done(made.value.edit), said: "The contour is made." }] };
  },
};
