import type { Edit } from "@ash-edge/core/drawing";
import type { Point } from "@ash-edge/core/geometry";
import { picksAt } from "@ash-edge/core/look";
import { refuse, showLength, type Refusal, type SizeKind, type Unit } from "@ash-edge/core/numeric";
import { answering, countedBy } from "./answering.ts";
import { readBlank, typedPart, typedParts } from "./blanks.ts";
import { givenOf, isPointOpen, lastPoint, takesPoint, wantedPick } from "./given.ts";
import { litOf, nextStop } from "./lit.ts";
import { FROM_DATUM, isPlace, PLACE_PARTS, placeEntries, readPointText, type Placing } from "./placing.ts";
import { draggedOf, inOwnKind, proposalOf, proposed, soundly } from "./proposing.ts";
import { isShown, type Part, type Ask, type Entry, type Picked, type Tool, type ToolContext } from "./tool.ts";
import type { Hover, ToolState } from "./toolState.ts";

export type ToolEvent =
  | { readonly type: "click"; readonly hover: Hover }
  | { readonly type: "finish"; readonly hover: Hover | undefined }
  | { readonly type: "next" | "back" | "release" }
  /** The solution before this one, of so many. */
  | { readonly type: "before"; readonly of: number }
  /** A character typed anywhere but in a field: it goes into what is lit. */
  | { readonly type: "key"; readonly text: string }
  /** The last character of what is being typed goes. */
  | { readonly type: "rub" }
  /** What a blank's own field shows now. */
  | { readonly type: "type"; readonly blank: string; readonly text: string }
  | { readonly type: "hold" | "revert" }
  | { readonly type: "tab"; readonly backwards: boolean }
  | {
      readonly type: "fill";
      readonly blank: string;
      readonly entry: Entry;
      readonly kind?: SizeKind;
      /** What goes with it: choices, and what other blanks hold. */
      readonly also?: { readonly choices: ToolState["choices"]; readonly entries: ToolState["entries"] };
    }
  | { readonly type: "empty"; readonly blank: string }
  | { readonly type: "light"; readonly blank: string | undefined }
  | { readonly type: "choice"; readonly name: string; readonly to: string }
  /** The choice that was gone to takes its next option; or the next choice is gone to. */
  | { readonly type: "swap" | "next choice" }
  | { readonly type: "place"; readonly placing: Placing | undefined }
  | { readonly type: "gather"; readonly on: boolean }
  | { readonly type: "drag"; readonly path: readonly Point[] };

export type Step = {
  readonly state: ToolState;
  readonly edit?: Edit;
  readonly ask?: Ask;
  readonly refusal?: Refusal;
  /** What was typed of what made the edit. */
  readonly used?: ToolState["entries"];
};

/**
 * The tool after an event: the one place where blanks are filled, held, released and turned into edits. A refusal keeps
 * what was picked and typed, and lights what must change.
 */
export const stepTool = (tool: Tool, state: ToolState, event: ToolEvent, context: ToolContext): Step => {
  const step = stepped(tool, state, event, context);
  if (!step.refusal || (event.type !== "click" && event.type !== "finish")) return step;
  const lit = blankAtFault(tool, step.state, step.refusal);
  return lit === undefined ? step : { ...step, state: { ...step.state, lit } };
};

/** The blank that holds the value of which a refusal speaks. */
const blankAtFault = (
  tool: Tool,
  { entries, kinds, choices, open }: ToolState,
  { values }: Refusal,
): string | undefined => {
  if (open || typeof values.typed !== "number") return undefined;
  return typedParts(tool, choices).find((part) => {
    const entry = entries[part.name];
    if (!entry) return false;
    const value = part.kind === "size" && kinds[part.name] === "Ø" ? entry.value / 2 : entry.value;
    return value === values.typed || entry.value === values.typed;
  })?.name;
};

const stepped = (tool: Tool, state: ToolState, event: ToolEvent, context: ToolContext): Step => {
  switch (event.type) {
    case "key":
      return { state: keyed(tool, state, event.text, context) };
    case "rub":
      return { state: state.open ? { ...state, open: { ...state.open, text: state.open.text.slice(0, -1) } } : state };
    case "type":
      return afterHeld(tool, elsewhere(state, event.blank), context, (held) => ({
        state: { ...held, open: { blank: event.blank, text: event.text }, lit: event.blank },
      }));
    case "hold":
      return enter(tool, state, context);
    case "tab":
      return tab(tool, state, event.backwards, context);
    case "revert": {
      const { open: _, ...rest } = state;
      return { state: rest };
    }
    case "fill":
      return afterHeld(tool, elsewhere(state, event.blank), context, (held) => {
        const { open: _, lit: __, fresh: ___, ...rest } = held;
        const kinds = event.kind ? { ...held.kinds, [event.blank]: event.kind } : held.kinds;
        const entries = { ...held.entries, [event.blank]: event.entry, ...event.also?.entries };
        return { state: { ...rest, kinds, entries, choices: { ...held.choices, ...event.also?.choices } } };
      });
    case "empty": {
      const { open: _, ...rest } = state;
      return { state: { ...rest, entries: without(state.entries, event.blank), lit: event.blank } };
    }
    case "light":
      return afterHeld(tool, elsewhere(state, event.blank), context, (held) => {
        const { lit: _, ...rest } = held;
        return { state: event.blank === undefined ? rest : { ...rest, lit: event.blank } };
      });
    case "choice":
      return { state: choose(tool, state, event.name, event.to) };
    case "swap": {
      const at = swapped(tool, state);
      return { state: at ? choose(tool, state, at.name, at.to) : state };
    }
    case "next choice": {
      const all = swappable(tool, state);
      const at = all.findIndex(({ name }) => name === swapped(tool, state)?.name);
      const next = all[(at + 1) % Math.max(1, all.length)];
      const label = next?.kind === "choice" ? next.label : "radius or diameter";
      return { state: next ? { ...state, swaps: next.name, said: `The key swaps ${label} now.` } : state };
    }
    case "next":
      return { state: { ...state, way: state.way + 1 } };
    case "before":
      return { state: { ...state, way: state.way + event.of - 1 } };
    case "back": {
      const last = Object.keys(state.picks).at(-1);
      return { state: last === undefined ? state : { ...state, picks: without(state.picks, last), way: 0 } };
    }
    case "place":
      return { state: placing(tool, state, event.placing, context) };
    case "drag": {
      const held = holdEntry(tool, state, context);
      if (held.refusal || !tool.dragged) return held;
      const { ways, refusal } = draggedOf(tool, held.state, event.path, context);
      const way = ways[0];
      if (!way?.edit) return refusal ? { state: held.state, refusal } : { state: held.state };
      const made = soundly(way.edit);
      if (!made.ok) return { state: held.state, refusal: made.refusal };
      return { state: { ...held.state, ...(way.said ? { said: way.said } : {}) }, edit: made.value };
    }
    case "gather": {
      const { gathering: _, ...rest } = state;
      return { state: event.on ? { ...rest, gathering: true } : rest };
    }
    case "release":
      return { state: released(state) };
    case "click":
      return click(tool, state, event.hover, context);
    case "finish":
      // Enter first holds what is being typed
      if (state.open) return enter(tool, state, context);
      if (state.gathering) return stepTool(tool, state, { type: "gather", on: false }, context);
      // a point typed whole is placed as a click would place it
      return state.placing && givenOf(tool, state, undefined, context).pointer
        ? click(tool, state, event.hover, context)
        : tool.finish && !isWaiting(tool, state)
          ? finish(tool, state, context)
          : wanting(tool, state, make(tool, state, state, event.hover, context), context);
  }
};

/** Enter that made nothing says what is wanted first. */
const wanting = (tool: Tool, before: ToolState, step: Step, context: ToolContext): Step => {
  if (step.state !== before || step.refusal || step.edit || step.ask) return step;
  const wanted = wantedPick(tool, before, givenOf(tool, before, undefined, context));
  return wanted ? { ...step, refusal: refuse("pick-wanted", { what: wanted.label }).refusal } : step;
};

/** The choices of the sentence as it is shown, R or Ø among them. */
const swappable = (tool: Tool, { choices }: ToolState): readonly Extract<Part, { kind: "choice" | "size" }>[] =>
  tool.parts.filter(
    (part): part is Extract<Part, { kind: "choice" | "size" }> =>
      (part.kind === "choice" || part.kind === "size") && isShown(part, choices),
  );

/** The choice that is swapped and what it is swapped to; undefined where there is none. */
const swapped = (tool: Tool, state: ToolState): { readonly name: string; readonly to: string } | undefined => {
  const all = swappable(tool, state);
  const part = all.find(({ name }) => name === state.swaps) ?? all[0];
  if (!part) return undefined;
  if (part.kind === "size") return { name: part.name, to: state.kinds[part.name] === "R" ? "Ø" : "R" };
  const at = part.options.findIndex(([id]) => id === state.choices[part.name]);
  return { name: part.name, to: part.options[(at + 1) % part.options.length]![0] };
};

/** A character that was typed outside any field goes on with the entry, or begins one in what is lit. */
const keyed = (tool: Tool, state: ToolState, text: string, context: ToolContext): ToolState => {
  if (state.open) return { ...state, open: { ...state.open, text: state.open.text + text } };
  const lit = litOf(tool, state, context);
  if (!lit) return state;
  if (lit.kind === "blank") return { ...state, open: { blank: lit.name, text }, lit: lit.name };
  // `80;30`, `@12<45` and `<30` are points by themselves; any other number is the point's x
  const { lit: _, ...rest } = state;
  const [{ name: x }] = PLACE_PARTS.xy;
  return { ...rest, placing: state.placing ?? FROM_DATUM, open: { blank: x, text }, lit: x };
};

/** The state with its entry to be held before another blank is touched; an entry of that blank itself goes on. */
const elsewhere = (
  state: ToolState,
  blank: string | undefined,
): { readonly state: ToolState; readonly held: boolean } => ({
  state,
  held: state.open === undefined || state.open.blank === blank,
});
const afterHeld = (
  tool: Tool,
  { state, held }: ReturnType<typeof elsewhere>,
  context: ToolContext,
  then: (state: ToolState) => Step,
): Step => {
  if (held) return then(state);
  const step = holdEntry(tool, state, context);
  return step.refusal ? step : then(step.state);
};

/** Enter on an entry: it is held. A point that was typed whole in one entry is picked at once. */
const enter = (tool: Tool, state: ToolState, context: ToolContext): Step => {
  const whole = isPointOpen(tool, state);
  const held = holdEntry(tool, state, context);
  if (held.refusal || !whole) return held;
  return givenOf(tool, held.state, undefined, context).pointer ? click(tool, held.state, undefined, context) : held;
};

const tab = (tool: Tool, state: ToolState, backwards: boolean, context: ToolContext): Step => {
  const to = nextStop(tool, state, context, backwards);
  const held = holdEntry(tool, state, context);
  if (held.refusal || to === undefined) return held;
  const { placing: place, ...rest } = held.state;
  const typed = Object.keys(held.state.entries).some(isPlace);
  if (isPlace(to)) return { state: { ...held.state, placing: place ?? FROM_DATUM, lit: to } };
  // a point that nothing was typed of is clicked again
  return { state: place && typed ? { ...held.state, lit: to } : { ...rest, lit: to } };
};

/**
 * How the wanted point is typed from now on, or that it is clicked; what was typed of it is told anew where it can be.
 */
const placing = (tool: Tool, state: ToolState, to: Placing | undefined, context: ToolContext): ToolState => {
  const { placing: from, open, ...rest } = state;
  const others = Object.fromEntries(Object.entries(state.entries).filter(([name]) => !isPlace(name)));
  const kept = open && !isPlace(open.blank) ? { open } : {};
  if (!to) return { ...rest, ...kept, entries: others };
  if (!from || (from.as === to.as && from.from === to.from)) return { ...state, placing: to };
  const at = givenOf(tool, state, undefined, context).pointer;
  const entries = at && placeEntries(to, at, lastPoint(tool, state), context);
  if (entries) return { ...rest, ...kept, placing: to, entries: { ...others, ...entries } };
  return { ...rest, ...kept, placing: to, entries: from.as === to.as ? state.entries : others };
};

/** Typed values that are released once the piece is made are waiting for it. */
const isWaiting = (tool: Tool, state: ToolState): boolean =>
  Object.keys(state.entries).some((name) => {
    const part = typedPart(tool, name);
    return part?.kind === "value" && !part.stays && Object.keys(state.picks).length > 0;
  });

/** Enter with nothing waiting: what the tool makes of that, or just an end of what was begun. */
const finish = (tool: Tool, state: ToolState, context: ToolContext): Step => {
  const { ways, refusal } = proposed(tool, state, () =>
    tool.finish!(givenOf(tool, state, undefined, context), context),
  );
  if (refusal) return { state, refusal };
  const way = ways[state.way % Math.max(1, ways.length)];
  // only a run that has pieces is ended by that; what was picked for a first one is kept
  if (!way?.edit && !way?.said && !state.chained) return wanting(tool, state, { state }, context);
  const { chained: _, trail: __, ...rest } = state;
  const ended: ToolState = { ...rest, picks: way?.next ?? {}, way: 0, ...(way?.said ? { said: way.said } : {}) };
  if (!way?.edit) return { state: ended };
  const made = soundly(way.edit);
  return made.ok ? { state: ended, edit: made.value } : { state, refusal: made.refusal };
};

/** Nothing picked any more, and no run to step back along. */
const released = ({ chained: _, trail: __, counted: ___, ...rest }: ToolState): ToolState => ({
  ...rest,
  picks: {},
  way: 0,
});

const without = <T>(record: Readonly<Record<string, T>>, name: string): Record<string, T> =>
  Object.fromEntries(Object.entries(record).filter(([key]) => key !== name));

const choose = (tool: Tool, state: ToolState, name: string, to: string): ToolState => {
  const size = tool.parts.find((part) => part.kind === "size" && part.name === name);
  if (!size) return { ...state, choices: { ...state.choices, [name]: to }, way: 0 };
  const entry = state.entries[name];
  // the number keeps standing and means the other size now, so it answers its callout no more
  const entries = entry ? { ...state.entries, [name]: { text: entry.text, value: entry.value } } : state.entries;
  return { ...state, kinds: { ...state.kinds, [name]: to as SizeKind }, entries };
};

/** Turns the text being typed into a held value; an unreadable one stays open and lit, and is refused. */
const holdEntry = (tool: Tool, state: ToolState, context: ToolContext): Step => {
  const { open, lit: _, fresh: __, ...rest } = state;
  if (!open) return { state };
  if (isPointOpen(tool, state)) return holdPoint(tool, state, rest, context);
  const part = typedPart(tool, open.blank);
  if (!part) return { state: rest };
  if (open.text.trim() === "") return { state: { ...rest, entries: without(state.entries, open.blank) } };
  const read = readBlank(part, open.text, context);
  if (!read.ok) return { state, refusal: read.refusal };
  const { value, kind, then } = read.value;
  if (part.kind === "size" && part.second !== undefined && then?.[0] !== undefined) {
    // two sizes at once: each into its own blank
    const [first, second] = open.text.trim().split(/\s+/) as [string, string];
    const own = { [open.blank]: { text: first, value }, [part.second]: { text: second, value: then[0] } };
    const kinds = { ...state.kinds, [part.second]: state.kinds[open.blank]! };
    return { state: { ...rest, kinds, entries: { ...state.entries, ...own } } };
  }
  const kinds = kind ? { ...state.kinds, [open.blank]: kind } : state.kinds;
  return {
    state: {
      ...rest,
      kinds,
      entries: { ...state.entries, [open.blank]: { text: open.text.trim(), value, ...(then ? { then } : {}) } },
    },
  };
};

/** A point typed in one entry, wherever it was typed: the two blanks of the wanted point are filled. */
const holdPoint = (
  tool: Tool,
  state: ToolState,
  rest: Omit<ToolState, "open" | "lit" | "fresh">,
  context: ToolContext,
): Step => {
  const wanted = wantedPick(tool, rest, givenOf(tool, rest, undefined, context));
  if (!wanted || !takesPoint(wanted)) return { state, refusal: refuse("point-not-wanted").refusal };
  const read = readPointText(state.open!.text, context.unit);
  if (!read.ok) return { state, refusal: read.refusal };
  return { state: { ...rest, placing: read.value.placing, entries: { ...rest.entries, ...read.value.entries } } };
};

/**
 * A click first holds what is typed (it can never discard it), then fills the next blank, then makes what can be made.
 */
const click = (tool: Tool, before: ToolState, hover: Hover | undefined, context: ToolContext): Step => {
  const held = holdEntry(tool, before, context);
  if (held.refusal) return held;
  const { state } = held;
  const given = givenOf(tool, state, hover, context);
  const wanted = wantedPick(tool, state, given);
  if (!wanted) return make(tool, state, state, hover, context);
  const picked = given.picks[wanted.name];
  if (!picked) return { state, refusal: refuse(wanted.takes === "picture" ? "picture-first" : "not-a-curve").refusal };
  const { placing: _, lit: __, fresh: ___, ...placed } = state;
  const entries = Object.fromEntries(Object.entries(state.entries).filter(([name]) => !isPlace(name)));
  const counted = [...(state.counted ?? []), ...countedBy(tool, state, picked.at)];
  const filled: ToolState = {
    ...placed,
    ...(counted.length > 0 ? { counted } : {}),
    entries,
    last: picked.at,
    picks: { ...state.picks, [wanted.name]: picked },
  };
  if (wantedPick(tool, filled, given)) {
    const { refusal } = proposalOf(tool, filled, undefined, context);
    return refusal ? { state, refusal } : { state: filled };
  }
  return make(tool, filled, state, hover, context);
};

/** Makes the chosen way. Refused, everything picked and typed stays as it was before. */
const make = (
  tool: Tool,
  state: ToolState,
  before: ToolState,
  hover: Hover | undefined,
  context: ToolContext,
): Step => {
  const { way, refusal } = proposalOf(tool, state, hover, context);
  if (!way) return refusal ? { state: before, refusal } : { state: before };
  // a way that only shows something makes nothing yet
  if (!way.edit && !way.ask && !way.said && !way.next) return { state: before };
  const stays = (name: string): boolean => {
    const part = typedParts(tool).find((one) => one.name === name);
    return part?.kind === "size" || (part?.kind === "value" && part.stays);
  };
  const entries = Object.fromEntries(
    Object.entries(state.entries).flatMap(([name, entry]): (readonly [string, Entry])[] => {
      if (!stays(name)) return [];
      return entry.then ? nextOf(name, entry.then, context.unit) : [[name, { ...entry, left: true }]];
    }),
  );
  const { lit: _, said: __, measured: ___, chained: ____, counted: _____, trail, ...rest } = state;
  const next: ToolState = {
    ...rest,
    picks: way.next ?? {},
    ...(way.next && way.edit ? { chained: true, trail: [...(trail ?? []), startOf(tool, state)] } : {}),
    entries,
    way: 0,
    fresh: true,
    ...(way.said ? { said: way.said } : {}),
    ...(way.edit ? {} : { measured: Object.values(state.picks) }),
  };
  if (way.ask) return { state: next, ask: way.ask };
  if (!way.edit) return { state: next };
  const made = soundly(way.edit);
  return made.ok
    ? { state: next, edit: answering(state, context, made.value), used: state.entries }
    : { state: before, refusal: inOwnKind(tool, state, made.refusal) };
};

/** The entry of a list of sizes for the next piece; none once the list is used up. */
const nextOf = (name: string, [value, ...then]: readonly number[], unit: Unit): (readonly [string, Entry])[] =>
  value === undefined
    ? []
    : [[name, { text: [value, ...then].map((size) => showLength(size, unit)).join(" "), value, then }]];

const startOf = (tool: Tool, { picks }: ToolState): Readonly<Record<string, Picked>> => {
  const from = tool.from === undefined ? undefined : picks[tool.from];
  return from ? { [tool.from!]: from } : {};
};

/** Things under a place, as picks. */
export const underPoint = (context: ToolContext, at: Point, reach: number): readonly Picked[] =>
  picksAt(context.index, at, reach);
