import { measureCallout } from "@ash-edge/core/callouts";
import { calloutsOf, type Callout } from "@ash-edge/core/drawing";
import { TRUE_WITHIN } from "@ash-edge/core/numeric";
import { readBlank, typedPart, typedParts, type Typed } from "./blanks.ts";
import { givenOf, takesPoint, wantedPick } from "./given.ts";
import { isPlace, PLACE_PARTS } from "./placing.ts";
import { isShown, type Part, type Tool, type ToolContext } from "./tool.ts";
import type { ToolState } from "./toolState.ts";

/** What takes the digits that are typed next: a blank, or a point that a digit opens. */
export type Lit = { readonly kind: "blank" | "point"; readonly name: string };

const NOT_A_STOP: readonly string[] = [];

/** The pick that is wanted next, where it is a point that can be typed. */
const typedPoint = (
  tool: Tool,
  state: ToolState,
  context: ToolContext,
): Extract<Part, { kind: "pick" }> | undefined => {
  const wanted = wantedPick(tool, state, givenOf(tool, state, undefined, context));
  return wanted && takesPoint(wanted) ? wanted : undefined;
};

/** The blanks and the wanted point in the order of the sentence; a point being typed is its two blanks. */
const stopsOf = (tool: Tool, state: ToolState, context: ToolContext): readonly string[] => {
  const point = typedPoint(tool, state, context);
  const typed = new Set<Part>(typedParts(tool, state.choices));
  const pointStops = point && state.placing ? PLACE_PARTS[state.placing.as].map(({ name }) => name) : [];
  return tool.parts.flatMap((part): readonly string[] => {
    if (!isShown(part, state.choices)) return NOT_A_STOP;
    if (part === point) return state.placing ? pointStops : [part.name];
    return typed.has(part) && part.kind !== "words" ? [part.name] : NOT_A_STOP;
  });
};

const isEmpty = (tool: Tool, { entries }: ToolState, name: string): boolean => {
  const part = tool.parts.find((one) => one.kind !== "words" && one.name === name);
  return !(name in entries) && !(part?.kind === "value" && part.given !== undefined);
};

/**
 * The one part of the sentence that is lit: what is being typed; what was lit by hand; of a point being typed its empty
 * blank; the first blank of a tool just taken up or that just made something; then the next empty blank, then the
 * point that is wanted. Undefined where nothing can be typed.
 */
export const litOf = (tool: Tool, state: ToolState, context: ToolContext): Lit | undefined => {
  const stops = stopsOf(tool, state, context);
  const point = typedPoint(tool, state, context);
  const as = (name: string): Lit => ({ kind: point?.name === name && !isPlace(name) ? "point" : "blank", name });
  const hand = state.open?.blank ?? state.lit;
  if (hand !== undefined && stops.includes(hand)) return as(hand);
  if (state.placing && point) {
    const [one, two] = PLACE_PARTS[state.placing.as];
    return as(one.name in state.entries && !(two.name in state.entries) ? two.name : one.name);
  }
  const blanks = stops.filter((name) => name !== point?.name);
  const next = blanks.find((name) => isEmpty(tool, state, name));
  const first = state.fresh ? blanks[0] : next;
  const name = first ?? point?.name ?? blanks[0];
  return name === undefined ? undefined : as(name);
};

/**
 * Where Tab goes from what is lit: through blanks and points, round the sentence, never out of it. From a point it goes
 * into the blanks of that point.
 */
export const nextStop = (
  tool: Tool,
  state: ToolState,
  context: ToolContext,
  backwards: boolean,
): string | undefined => {
  const stops = stopsOf(tool, state, context);
  const lit = litOf(tool, state, context);
  if (lit?.kind === "point" && !backwards) return PLACE_PARTS.xy[0].name;
  const here = stops.indexOf(lit?.name ?? "");
  return here < 0 ? stops[0] : stops[(here + (backwards ? stops.length - 1 : 1)) % stops.length];
};

/** True when a callout's kind of value can be typed in a blank. */
export const fitsBlank = (part: Typed, kind: Callout["kind"]): boolean => {
  switch (part.kind) {
    case "thread":
      return kind === "thread";
    case "size":
      return kind === "radius" || kind === "diameter";
    case "value":
      return part.expects === (kind === "centres" || kind === "chamfer" ? "length" : kind);
    case "list":
    case "text":
      return false;
  }
};

/**
 * The blank that a callout goes into: the lit one where it is empty and takes its kind, else the first that is empty;
 * one that is filled only where it was lit by hand. `full` where blanks take its kind, but all are filled.
 */
export const blankForCallout = (
  tool: Tool,
  state: ToolState,
  { kind }: Pick<Callout, "kind">,
  context: ToolContext,
): { readonly blank?: string; readonly full: boolean } => {
  const takes = (name: string): boolean => {
    const part = typedPart(tool, name);
    return part !== undefined && fitsBlank(part, kind);
  };
  const fitting = stopsOf(tool, state, context).filter(takes);
  const isFree = (name: string): boolean => state.entries[name]?.left ?? !(name in state.entries);
  const empty = fitting.filter((name) => isFree(name) && state.open?.blank !== name);
  const lit = litOf(tool, state, context)?.name;
  const hand = state.open?.blank ?? state.lit;
  const blank = [lit, empty[0], hand].find(
    (name, i) => name !== undefined && (i === 2 ? fitting : empty).includes(name),
  );
  return { ...(blank === undefined ? {} : { blank }), full: fitting.length > 0 };
};

/**
 * The one callout not placed yet whose number is being typed in a blank that takes its kind; undefined where there is
 * none or more than one, and for sizes, which are tied by themselves.
 */
export const offeredCallout = (
  tool: Tool,
  { open }: ToolState,
  context: ToolContext,
): { readonly blank: string; readonly callout: Callout } | undefined => {
  const part = open && typedPart(tool, open.blank);
  if (!open || part?.kind !== "value" || open.text.trim() === "") return undefined;
  const read = readBlank(part, open.text, context);
  if (!read.ok) return undefined;
  const { value } = read.value;
  const fitting = calloutsOf(context.drawing).filter(
    (callout) =>
      Math.abs(callout.value - value) <= TRUE_WITHIN &&
      fitsBlank(part, callout.kind) &&
      measureCallout(context.drawing, callout).state === "not placed",
  );
  return fitting.length === 1 ? { blank: open.blank, callout: fitting[0]! } : undefined;
};
