import { entityOf, type Edit } from "@ash-edge/core/drawing";
import { addHoles, threadMark, type HoleCircle } from "@ash-edge/core/edits";
import type { Point } from "@ash-edge/core/geometry";
import { refuse, showLengthUnit, done, type Outcome } from "@ash-edge/core/numeric";
import type { Shape } from "@ash-edge/core/shape";
import {
  drillWords,
  findThread,
  searchThreads,
  threadLength,
  FITS,
  type Thread,
  type Fit,
} from "@ash-edge/core/tables";
import { refused, under, nothing, type Tool, type ToolContext, type Given, type Proposal, type Part } from "../tool.ts";

/** More holes than this at once are a slip of the finger. */
export const MOST = 2000;

/** What one hole is, and what is said of it. */
type HoleSize = HoleCircle & { readonly note?: string };

const holeShapes = (at: Point, { radius, thread }: HoleSize): readonly Shape[] => [
  { kind: "circle", centre: at, radius },
  ...(thread ? [threadMark(at, thread.diameter / 2)] : []),
];

/**
 * Holes at places, in one edit. Callouts are answered by the holes, a thread by that which they bear.
 */
const makeHoles = (
  tool: Tool,
  { drawing, layer }: ToolContext,
  places: readonly Point[],
  size: HoleSize,
  given: Given,
  blanks: readonly string[],
): Outcome<Edit> => {
  const label = places.length === 1 ? tool.name : `${tool.name} × ${places.length}`;
  return addHoles(drawing, { label, gesture: tool.id, layer }, places, size, (draft, holes) => {
    for (const blank of blanks) {
      const callout = given.callout(blank);
      if (!callout) continue;
      draft.link(callout.id, holes, callout.kind !== "count");
    }
  });
};

/** Layout points that are selected: Enter makes a hole on each. */
const selectedPoints = ({ drawing, selection }: ToolContext): readonly Point[] =>
  [...selection].flatMap((id) => {
    const entity = entityOf(drawing, id);
    return entity?.kind === "point" ? [entity.at] : [];
  });

/** Holes of one size at places, with their previews and the edit. */
export const holesAt = (
  tool: Tool,
  context: ToolContext,
  places: readonly Point[],
  size: HoleSize,
  given: Given,
  blanks: readonly string[],
): Proposal => {
  if (places.length > MOST) return refused(refuse("count-too-large", { limit: MOST }));
  return {
    ways: [
      {
        preview: places.flatMap((at) => holeShapes(at, size)).map((shape) => ({ shape })),
        edit: () => makeHoles(tool, context, places, size, given, blanks),
        ...(places.length > 1 ? { said: `${places.length} holes made.` } : {}),
      },
    ],
    ...(size.note ? { note: size.note } : {}),
  };
};

const threadOf = (given: Given, blank: string): Outcome<Thread> | undefined => {
  const text = given.text(blank);
  if (text === undefined || text.trim() === "") return undefined;
  const thread = findThread(text);
  return !thread.ok && searchThreads(text, 1).length > 0 ? undefined : thread; // still being typed
};

/** The hole to be drilled for a thread typed in a blank; undefined where nothing is typed. */
export const tappedSize = (given: Given, blank: string, { unit }: ToolContext): Outcome<HoleSize> | undefined => {
  const thread = threadOf(given, blank);
  if (!thread?.ok) return thread;
  const drill = given.value("drill") ?? threadLength(thread.value, thread.value.drill, unit);
  return done({
    radius: drill / 2,
    thread: { name: thread.value.name, diameter: threadLength(thread.value, thread.value.diameter, unit) },
    note: drillWords(thread.value, unit, drill),
  });
};

/** The hole that a thread's screw goes through, by the fit that is chosen. */
export const clearanceSize = (
  given: Given,
  blank: string,
  fit: Fit,
  { unit }: ToolContext,
): Outcome<HoleSize> | undefined => {
  const thread = threadOf(given, blank);
  if (!thread?.ok) return thread;
  const { clearance } = thread.value;
  if (!clearance) return refuse("no-clearance", { text: thread.value.name });
  const size = threadLength(thread.value, clearance[fit], unit);
  return done({ radius: size / 2, note: `Ø ${showLengthUnit(size, unit)}` });
};

export const at: readonly Part[] = [
  { kind: "words", text: "at" },
  { kind: "pick", name: "at", label: "point", takes: "point" },
];
/** The choice between a fine, medium and coarse fit (ISO 273). */
export const fitChoice = (onlyIf?: ReturnType<typeof under>): Part => ({
  kind: "choice",
  name: "fit",
  label: "fit",
  options: FITS.map((fit) => [fit, fit] as const),
  ...(onlyIf ? { onlyIf } : {}),
});

/** A hole at one point after another, or at all selected layout points with Enter. */
export const singleHoles = (
  named: Pick<Tool, "id" | "name" | "help" | "drawing" | "example" | "parts">,
  blanks: readonly string[],
  first: Readonly<Record<string, string>>,
  sizeOf: (given: Given, context: ToolContext) => Outcome<HoleSize> | undefined,
): Tool => {
  const make =
    (places: (given: Given, context: ToolContext) => readonly Point[]) =>
    (given: Given, context: ToolContext): Proposal => {
      const where = places(given, context);
      const size = sizeOf(given, context);
      if (where.length === 0) return nothing;
      if (!size) return given.isFirm("at") ? refused(refuse("value-empty")) : { ways: [], note: "Type its size" };
      return size.ok ? holesAt(tool, context, where, size.value, given, blanks) : refused(size);
    };
  const tool: Tool = {
    kind: "tool",
    ...named,
    first,
    propose: make(({ picks }) => (picks.at ? [picks.at.at] : [])),
    finish: make((_, context) => selectedPoints(context)),
  };
  return tool;
};

/** What a pattern's holes are: plain, tapped or clearance, with the blanks of each. */
export const kindParts: readonly Part[] = [
  {
    kind: "choice",
    name: "kind",
    label: "holes",
    options: [
      ["plain", "plain"],
      ["tapped", "tapped"],
      ["clearance", "clearance"],
    ],
  },
  { kind: "size", name: "size", first: "Ø", onlyIf: under("kind", "plain") },
  { kind: "thread", name: "thread", label: "thread", onlyIf: under("kind", "tapped", "clearance") },
  fitChoice(under("kind", "clearance")),
];
/** The size of each hole of a pattern, by what it is for; undefined where nothing is typed. */
export const patternSize = (given: Given, context: ToolContext): Outcome<HoleSize> | undefined => {
  const kind = given.choice("kind");
  if (kind === "tapped") return tappedSize(given, "thread", context);
  if (kind === "clearance") return clearanceSize(given, "thread", given.choice("fit") as Fit, context);
  const radius = given.radius("size");
  return radius === undefined ? undefined : done({ radius });
};
export const PATTERN_BLANKS = ["size", "thread", "count"];
