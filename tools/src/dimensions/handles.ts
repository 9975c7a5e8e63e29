import { changeAnnotations, holdingInstead, linePulled, textPulled, textPutAt } from "@ash-edge/core/annotate";
import { annotationOf, type Annotation } from "@ash-edge/core/drawing";
import { refuse } from "@ash-edge/core/numeric";
import { exampleBox } from "../example/exampleShapes.ts";
import type { Example } from "../example/example.ts";
import { nothing, refused, type Given, type Proposal, type Tool, type ToolContext } from "../tool.ts";
import { heldBy, isBare, measuredRef, pointedRef, standsAt } from "./dimensioning.ts";

// What the handles of dimensions, notes and marks offer. The handle's pick names the annotation, and which of the
// things it holds.

/** The annotation whose handle is in hand, and which of the things it holds that is. */
const inHand = (given: Given, { drawing }: ToolContext): { annotation: Annotation; which: number } | undefined => {
  const ref = given.picks.handle?.ref;
  const annotation = ref && annotationOf(drawing, ref.id);
  return annotation && { annotation, which: ref.vertex ?? 0 };
};

/** A proposal that puts an annotation in its own place, changed. */
const changed = ({ drawing }: ToolContext, annotation: Annotation, label: string): Proposal => ({
  ways: [
    {
      preview: [],
      annotations: [annotation],
      edit: () => changeAnnotations(drawing, [annotation], label, "annotation"),
    },
  ],
});

/** One that is done as soon as it is taken. */
const atOnce = (
  tool: Omit<Tool, "kind" | "parts" | "propose">,
  change: (annotation: Annotation, which: number) => Annotation,
): Tool => ({
  ...tool,
  kind: "tool",
  parts: [],
  propose: (given, context) => {
    const held = inHand(given, context);
    return held ? changed(context, change(held.annotation, held.which), tool.name) : nothing;
  },
});

/** The first thing cut in an example, by the id that it is given. */
const FIRST = 6;
const box = { cut: [exampleBox(0, 0, 60, 40)] } as const;
const edge: Example = {
  ...box,
  annotations: [{ kind: "linear", refs: [{ id: FIRST, vertex: 900 }], at: { x: 0, y: -14 } }],
};
const noted: Example = {
  ...box,
  annotations: [
    {
      kind: "note",
      refs: [
        { id: FIRST, vertex: 900, place: "end" },
        { id: FIRST, vertex: 901, place: "end" },
      ],
      at: { x: 20, y: 14 },
      text: "deburr",
    },
  ],
};

export const moveTextTool: Tool = {
  kind: "tool",
  id: "handle-text",
  name: "Move the text",
  help: "Puts the text of a dimension or a note where you click: along its line, or farther out with it.",
  drawing: ["M3 18 L21 18 M6 15.5 L3 18 L6 20.5", "M12 12 L19 6 M15 5 L20 5 L20 10"],
  example: { ...edge, grabText: true, clicks: [[45, -22]] },
  parts: [{ kind: "words", text: "to" }, standsAt("new place")],
  propose: (given, context) => {
    const held = inHand(given, context);
    const to = given.picks.at?.at ?? given.pointer;
    if (!held || !to) return nothing;
    const made = textPulled(context.drawing, held.annotation, given.picks.handle!.at, to);
    return changed(context, made, "Move the text");
  },
};

export const moveLineTool: Tool = {
  kind: "tool",
  id: "handle-line",
  name: "Move the line",
  help: "Puts the line of a dimension where you click: farther out, nearer, or on the other side.",
  drawing: ["M3 16 L21 16 M3 20 L21 20", "M12 13 L12 4 M9 7 L12 4 L15 7"],
  example: { ...edge, grab: [30, -14], clicks: [[30, -24]] },
  parts: [{ kind: "words", text: "to" }, standsAt("new place")],
  propose: (given, context) => {
    const held = inHand(given, context);
    const to = given.picks.at?.at ?? given.pointer;
    return held && to ? changed(context, linePulled(context.drawing, held.annotation, to), "Move the line") : nothing;
  },
};

export const holdInsteadTool: Tool = {
  kind: "tool",
  id: "handle-held",
  name: "Hold another place",
  help: "What the dimension or the note held at this end it lets go; it holds on to what you click instead.",
  drawing: ["M4 6 L4 19 M20 6 L20 19 M4 10 L20 10", "M17 3 L23 3 M20 0.5 L20 5.5"],
  example: { ...noted, grab: [60, 0], clicks: [[0, 20]] },
  parts: [
    { kind: "words", text: "to" },
    { kind: "pick", name: "to", label: "point or edge", takes: "either" },
  ],
  propose: (given, context) => {
    const held = inHand(given, context);
    const { to } = given.picks;
    if (!held || !to) return nothing;
    if (isBare(to)) return given.isFirm("to") ? refused(refuse("nothing-to-hold")) : nothing;
    const { annotation, which } = held;
    const ref =
      annotation.kind === "note" ? pointedRef(context.drawing, to)! : measuredRef(context.drawing, heldBy(to)!);
    return changed(context, holdingInstead(context.drawing, annotation, which, ref), "Hold another place");
  },
};

export const addTipTool: Tool = {
  kind: "tool",
  id: "handle-tip",
  name: "Add a tip",
  help: "The note points to one more place: click it.",
  drawing: ["M12 12 L4 19 M12 12 L20 19 M12 12 L12 6 L18 6", "M17 3 L23 3 M20 0.5 L20 5.5"],
  example: { ...noted, grabText: true, clicks: [[0, 20]] },
  parts: [
    { kind: "words", text: "on" },
    { kind: "pick", name: "to", label: "thing", takes: "either" },
  ],
  propose: (given, context) => {
    const held = inHand(given, context);
    const { to } = given.picks;
    if (!held || !to) return nothing;
    const ref = pointedRef(context.drawing, to);
    if (!ref) return given.isFirm("to") ? refused(refuse("nothing-to-hold")) : nothing;
    const { annotation } = held;
    const made = { ...annotation, refs: [...annotation.refs, ref] };
    // a note that pointed to nothing counts from its first tip from now on: its text stays where it is
    const counted = annotation.refs.length === 0 ? textPutAt(context.drawing, made, annotation.at) : made;
    return changed(context, counted, "Add a tip");
  },
};

export const takeTipOffTool: Tool = atOnce(
  {
    id: "handle-tip-off",
    name: "Take the tip off",
    help: "The note does not point there any more.",
    drawing: ["M12 12 L4 19 M12 12 L12 6 L18 6", "M12 12 L20 19 M17 3 L23 3"],
    example: { ...noted, grab: [60, 40], finish: true },
  },
  (annotation, which) => ({ ...annotation, refs: annotation.refs.filter((_, i) => i !== which) }),
);

export const flipArrowsTool: Tool = atOnce(
  {
    id: "handle-flip",
    name: "Flip the arrows",
    help: "Arrows that point outwards point inwards from outside, and the other way round.",
    drawing: [
      "M3 12 L8 12 M16 12 L21 12 M5.5 9.5 L8 12 L5.5 14.5 M18.5 9.5 L16 12 L18.5 14.5",
      "M8 5 L8 19 M16 5 L16 19",
    ],
    example: { ...edge, grab: [30, -14], finish: true },
  },
  ({ flipped, ...rest }) => (flipped ? rest : { ...rest, flipped: true }),
);

export const landingTool: Tool = atOnce(
  {
    id: "handle-landing",
    name: "Show or hide the landing",
    help: "The level end of a leader under or before its text is hidden, or shown again.",
    drawing: ["M4 19 L12 9 L20 9", "M14 5 L20 5"],
    example: { ...noted, grabText: true, finish: true },
  },
  ({ bare, ...rest }) => (bare ? rest : { ...rest, bare: true }),
);

export const textToMiddleTool: Tool = atOnce(
  {
    id: "handle-middle",
    name: "Text to the middle",
    help: "The text of a dimension goes back to the middle of its line.",
    drawing: ["M3 16 L21 16 M6 13.5 L3 16 L6 18.5 M18 13.5 L21 16 L18 18.5", "M10 10 L14 10 M12 5 L12 8"],
    example: {
      ...box,
      annotations: [{ kind: "linear", refs: [{ id: FIRST, vertex: 900 }], at: { x: 15, y: -14 } }],
      grabText: true,
      finish: true,
    },
  },
  (annotation) => ({ ...annotation, at: { x: 0, y: annotation.at.y } }),
);

/** All that handles of annotations offer. */
export const ANNOTATION_HANDLE_TOOLS: readonly Tool[] = [
  moveTextTool,
  moveLineTool,
  holdInsteadTool,
  addTipTool,
  takeTipOffTool,
  flipArrowsTool,
  landingTool,
  textToMiddleTool,
];
