import { annotationHandles, displayList } from "@ash-edge/core/annotate";
import {
  applyEdit,
  calloutsOf,
  entitiesOf,
  LAYOUT_LAYER,
  newDrawing,
  PROFILE_LAYER,
  styleOf,
  type Drawing,
  type Edit,
} from "@ash-edge/core/drawing";
import { draftEdit } from "@ash-edge/core/edits";
import { distance, type Point } from "@ash-edge/core/geometry";
import { handlesOf, indexDrawing, snapsAt } from "@ash-edge/core/look";
import { stepTool, underPoint, type Step } from "../driver.ts";
import { startTool, type Hover, type ToolState } from "../toolState.ts";
import type { Ask, Tool, ToolContext } from "../tool.ts";
import type { Example } from "./example.ts";

const PICTURE = { blob: "example", width: 400, height: 300 };
const REACH = 5;

/** What an example's tool made: the drawing before and after, or what it said or asked for. */
export type Shown = {
  readonly before: Drawing;
  readonly after: Drawing;
  /** What it did, in order. */
  readonly edits: readonly Edit[];
  readonly ask?: Ask;
  readonly said?: string;
};

const standing = ({ cut = [], layout = [], annotations = [], callouts = [] }: Example): Drawing => {
  const start = newDrawing("mm");
  const draft = draftEdit(start, "Example", "example");
  draft.remove(4);
  draft.remove(5);
  for (const shape of cut) draft.add(shape, PROFILE_LAYER);
  for (const shape of layout) draft.add(shape, LAYOUT_LAYER);
  const lie = { at: { x: 0, y: 150 }, scale: 0.5, angle: 0, scaled: true, shown: false, locked: false, opacity: 0.5 };
  for (const callout of callouts) {
    const id = draft.newId();
    draft.set("callout", id, { ...callout, id });
  }
  for (const annotation of annotations) {
    const id = draft.newId();
    draft.set("annotation", id, { ...annotation, id });
  }
  draft.set("picture", 800, { id: 800, ...PICTURE, ...lie });
  return applyEdit(start, draft.finish());
};

/** A tool's own example carried out. */
export const showExample = (tool: Tool): Shown => carryOut(tool, tool.example);

/**
 * Carries out a piece of work with a tool, event by event as the bench would, on what the example stands on or on a
 * drawing of one's own; `pause` looks on between two events.
 */
export const carryOut = (
  tool: Tool,
  example: Example,
  pause?: (state: ToolState, context: ToolContext) => void,
  before = standing(example),
): Shown => {
  let selection = new Set<number>();
  if (example.selected) for (const { id } of entitiesOf(before)) selection.add(id);
  let shown: Shown = { before, after: before, edits: [] };
  let state = startTool(tool, { choices: example.chosen ?? {} });
  const context = (): ToolContext => ({
    drawing: shown.after,
    index: indexDrawing(shown.after),
    unit: "mm",
    selection,
    layer: PROFILE_LAYER,
  });
  if (example.called)
    state = { ...state, picks: { called: { at: { x: 0, y: 0 }, ref: { id: calloutsOf(before)[0]!.id } } } };
  if (example.grab || example.grabText) {
    const all = [...entitiesOf(before)];
    const spoken = displayList(before, styleOf(before), 1).flatMap((one) => annotationHandles(before, one));
    const grabbed = (at: Point): boolean => distance(at, { x: example.grab![0], y: example.grab![1] }) < 0.1;
    // where geometry and what speaks of it have handles at one place the example means the latter
    const handle = example.grab
      ? [...spoken, ...handlesOf(all)].find(({ at }) => grabbed(at))
      : spoken.find(({ kind }) => kind === "text");
    if (!handle) throw new Error(`no handle at ${example.grab?.join() ?? "a text"}`);
    selection = new Set(all.map(({ id }) => id));
    state = { ...state, picks: { handle: { at: handle.at, ref: handle.refs[0]! } } };
  }
  const take = (step: Step): void => {
    ({ state } = step);
    const { edit, ask } = step;
    if (edit) shown = { ...shown, edits: [...shown.edits, edit], after: applyEdit(shown.after, edit) };
    if (ask) shown = { ...shown, ask };
    if (state.said) shown = { ...shown, said: state.said };
    if (step.refusal) shown = { ...shown, said: `refused: ${step.refusal.code}` };
    pause?.(state, context());
  };
  for (const [blank, text] of Object.entries(example.typed ?? {})) {
    take(stepTool(tool, state, { type: "type", blank, text }, context()));
    take(stepTool(tool, state, { type: "hold" }, context()));
  }
  for (const [x, y] of example.onPicture ?? [])
    take(stepTool(tool, state, { type: "click", hover: { at: { x, y }, under: [], picture: PICTURE } }, context()));
  const clickAt = ([x, y]: readonly [number, number]): void => {
    const at = { x, y };
    const [snap] = snapsAt(context().index, at, REACH);
    const under = underPoint(context(), at, REACH);
    const hover: Hover = { at: snap?.at ?? at, under, ...(snap ? { snap } : {}) };
    if (tool.parts.some((part) => part.kind === "pick" && part.takes === "things") && selection.size === 0) {
      selection = new Set(under.flatMap(({ ref }) => (ref ? [ref.id] : [])).slice(0, 1));
      return;
    }
    take(stepTool(tool, state, { type: "click", hover }, context()));
  };
  example.clicks?.forEach(clickAt);
  if (example.finish) take(stepTool(tool, state, { type: "finish", hover: undefined }, context()));
  example.then?.forEach(clickAt);
  return shown;
};
