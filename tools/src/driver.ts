import { calloutsOf, curveAt, UnsoundEdit, type PictureSize, type Edit, type Drawing } from "@ash-edge/core/drawing";
import { carrierOf, curveNearest, type Point } from "@ash-edge/core/geometry";
import { picksAt } from "@ash-edge/core/look";
import {
  readTypedValue,
  done,
  readList,
  refuse,
  RESOLUTION,
  type SizeKind,
  type Outcome,
  type Refusal,
} from "@ash-edge/core/numeric";
import { findThread, threadLength } from "@ash-edge/core/tables";
import { ALL_PLACE_PARTS, placedPoint, isPlace, type Placing } from "./placing.ts";
import {
  refused,
  isShown,
  pickParts,
  type Picked,
  type Entry,
  type Ask,
  type Tool,
  type Part,
  type ToolContext,
  type Given,
  type Wanting,
  type Proposal,
  type Way,
} from "./tool.ts";

/** Where an active tool stands. `way` counts the presses of Space; `open` is the text being typed. */
export type ToolState = {
  readonly picks: Readonly<Record<string, Picked>>;
  readonly entries: Readonly<Record<string, Entry>>;
  readonly kinds: Readonly<Record<string, SizeKind>>;
  readonly choices: Readonly<Record<string, string>>;
  readonly way: number;
  /** The wanted point is being typed instead of clicked. */
  readonly placing?: Placing;
  /** The point picked last, from which typed points may count. */
  readonly last?: Point;
  /** More is being added to what is selected: Enter goes on. */
  readonly gathering?: boolean;
  /** True while the first pick is the end of the piece just made. */
  readonly chained?: boolean;
  /** The picks from which each piece of the run was drawn, for stepping back. */
  readonly trail?: readonly Readonly<Record<string, Picked>>[];
  readonly open?: { readonly blank: string; readonly text: string };
  /** The blank that was lit by hand; else the next pick is. */
  readonly lit?: string;
  /** What the last click said or measured. */
  readonly said?: string;
  readonly measured?: readonly Picked[];
};

/** What the pointer is over: the place (snapped where the blank takes points), and the things there, nearest first. */
export type Hover = {
  readonly at: Point;
  readonly snap?: { readonly kind: string; readonly ref?: Picked["ref"] };
  readonly under: readonly Picked[];
  /** The pointer is over a sketch picture; `at` is in its pixels then. */
  readonly picture?: PictureSize;
};

export type ToolEvent =
  | { readonly type: "click"; readonly hover: Hover }
  | { readonly type: "finish"; readonly hover: Hover | undefined }
  | { readonly type: "next" | "back" | "release" }
  | { readonly type: "type"; readonly blank: string; readonly text: string }
  | { readonly type: "hold" | "revert" }
  | { readonly type: "fill"; readonly blank: string; readonly entry: Entry; readonly kind?: SizeKind }
  | { readonly type: "empty"; readonly blank: string }
  | { readonly type: "light"; readonly blank: string | undefined }
  | { readonly type: "choice"; readonly name: string; readonly to: string }
  | { readonly type: "place"; readonly placing: Placing | undefined }
  | { readonly type: "gather"; readonly on: boolean }
  | { readonly type: "drag"; readonly path: readonly Point[] };

export type Step = { readonly state: ToolState; readonly edit?: Edit; readonly ask?: Ask; readonly refusal?: Refusal };

/** The state in which a tool is taken up: choices as they were left, sizes never. */
export const startTool = (
  tool: Tool,
  kept: {
    readonly choices?: Readonly<Record<string, string>>;
    readonly kinds?: Readonly<Record<string, SizeKind>>;
  } = {},
): ToolState => {
  const choices: Record<string, string> = {};
  const kinds: Record<string, SizeKind> = {};
  for (const part of tool.parts) {
    if (part.kind === "choice") {
      const left = kept.choices?.[part.name];
      choices[part.name] = part.options.some(([id]) => id === left)
        ? left!
        : (tool.first?.[part.name] ?? part.options[0]![0]);
    }
    if (part.kind === "size") kinds[part.name] = kept.kinds?.[part.name] ?? part.first;
  }
  return { picks: {}, entries: {}, kinds, choices, way: 0 };
};

export type Typed = Extract<Part, { kind: "size" | "value" | "thread" | "list" }>;
/** The blanks that take a number; with `choices` only those that are shown. */
export const typedParts = (tool: Tool, choices?: Readonly<Record<string, string>>): readonly Typed[] =>
  tool.parts.filter(
    (part): part is Typed =>
      (part.kind === "size" || part.kind === "value" || part.kind === "thread" || part.kind === "list") &&
      (choices === undefined || isShown(part, choices)),
  );

/** The blank of that name: one of the tool's own, or one of a point being typed. */
export const typedPart = (tool: Tool, name: string): Typed | undefined =>
  typedParts(tool).find((part) => part.name === name) ?? ALL_PLACE_PARTS.find((part) => part.name === name);

/** Reads what was typed in a blank, in drawing units or radians; refused where it is no value of its kind. */
export const readBlank = (
  part: Typed,
  text: string,
  context: Pick<ToolContext, "unit">,
): ReturnType<typeof readTypedValue> => {
  if (part.kind === "thread") {
    const thread = findThread(text);
    return thread.ok ? done({ value: threadLength(thread.value, thread.value.diameter, context.unit) }) : thread;
  }
  if (part.kind === "list") {
    const listed = readList(text);
    return listed.ok ? done({ value: listed.value.size }) : listed;
  }
  const size = part.kind === "size";
  const expects = part.kind === "size" ? "length" : part.expects;
  const read = readTypedValue(text, { unit: context.unit, expects, kinds: size });
  if (!read.ok || expects === "angle" || (part.kind === "value" && part.signed) || read.value.value > 0) return read;
  return refuse("value-not-positive", { what: size ? "A radius or diameter" : `The ${part.label}` });
};

/** What a tool is given, with the pointer's own pick in the next blank that wants one. */
export const givenOf = (tool: Tool, state: ToolState, hover: Hover | undefined, context: ToolContext): Given => {
  const part = (name: string): Typed | undefined => typedPart(tool, name);
  const entry = (name: string): { value: number; kind?: SizeKind; callout?: number } | undefined => {
    if (state.open?.blank !== name) return state.entries[name];
    const read = readBlank(part(name)!, state.open.text, context);
    return read.ok ? read.value : undefined; // an unreadable text previews nothing
  };
  const value = (name: string): number | undefined => {
    const own = part(name);
    return entry(name)?.value ?? (own?.kind === "value" ? own.given : undefined);
  };
  const radius = (name: string): number | undefined => {
    const own = entry(name);
    if (!own) return undefined;
    return (own.kind ?? state.kinds[name]) === "Ø" ? own.value / 2 : own.value;
  };
  const choice = (name: string): string => state.choices[name]!;
  const things = state.gathering ? [] : [...context.selection];
  const text = (name: string): string | undefined =>
    state.open?.blank === name ? state.open.text : state.entries[name]?.text;
  const wanted = wantedPick(tool, state, { value, radius, choice, things });
  const placed =
    state.placing && wanted && takesPoint(wanted)
      ? placedPoint(state.placing, value, hover?.at, lastPoint(tool, state), context)
      : undefined;
  const hovered = placed ? { at: placed } : hover && wanted && pickFrom(wanted, hover, context.drawing);
  return {
    picks: hovered ? { ...state.picks, [wanted!.name]: hovered } : state.picks,
    isFirm: (name) => name in state.picks,
    pointer: placed ?? hover?.at,
    value,
    text,
    radius,
    choice,
    things,
    callout: (name) => calloutOf(context.drawing, tool, state, name),
  };
};

/** From where "the last point" counts: the running start point, else the point picked last. */
const lastPoint = (tool: Tool, state: ToolState): Point | undefined =>
  (tool.from ? state.picks[tool.from]?.at : undefined) ?? state.last;

/**
 * The callout that an entry answers: the one it was filled from, or, for the typed radius or diameter of something to
 * be cut, the only callout that calls just that.
 */
const calloutOf = (drawing: Drawing, tool: Tool, state: ToolState, name: string): ReturnType<Given["callout"]> => {
  const entry = state.entries[name];
  if (!entry) return undefined;
  const all = calloutsOf(drawing);
  if (entry.callout !== undefined) return all.find(({ id }) => id === entry.callout);
  if (tool.layout || !tool.parts.some((part) => part.kind === "size" && part.name === name)) return undefined;
  const kind = state.kinds[name] === "Ø" ? "diameter" : "radius";
  const fitting = all.filter((callout) => callout.kind === kind && callout.value === entry.value);
  return fitting.length === 1 ? fitting[0] : undefined;
};

type PickPart = Extract<Part, { kind: "pick" }>;

/** The next pick that the tool wants. */
export const wantedPick = (tool: Tool, state: ToolState, given: Omit<Wanting, "picks">): PickPart | undefined => {
  const names = tool.wants?.({ ...given, picks: state.picks }) ?? pickParts(tool).map(({ name }) => name);
  const parts = pickParts(tool);
  const isWanted = (part: PickPart): boolean =>
    part.takes === "things" ? given.things.length === 0 : !(part.name in state.picks);
  return names.map((name) => parts.find((part) => part.name === name)!).find(isWanted);
};

/** True where a place will do, so that points may be snapped to and typed. */
export const takesPoint = ({ takes }: PickPart): boolean => takes === "point" || takes === "either";

/**
 * Snaps that mean a point even where a curve under the pointer would do as well. A crossing or a quarter does not: it
 * lies on the very curve that is meant, and a tangent to that point is no tangent to the curve.
 */
const POINT_SNAPS = new Set(["end", "centre", "point"]);

const isRound = (drawing: Drawing, { ref }: Picked): boolean => {
  const curve = ref && curveAt(drawing, ref);
  return curve !== undefined && (curve.kind === "ellipse" || carrierOf(curve)?.kind === "circle");
};

const isOn = (drawing: Drawing, { ref }: Picked, at: Point): boolean => {
  const curve = ref && curveAt(drawing, ref);
  return curve !== undefined && curveNearest(curve, at).distance <= RESOLUTION;
};

const pickFrom = (part: PickPart, { at, snap, under, picture }: Hover, drawing: Drawing): Picked | undefined => {
  if (part.takes === "things") return undefined;
  if (part.takes === "place") return { at };
  if (part.takes === "picture") return picture && { at, picture };
  const point: Picked = { at, ...(snap?.ref ? { ref: snap.ref } : {}), ...(snap ? { snap: snap.kind } : {}) };
  if (part.takes === "point") return point;
  const curve = part.round ? under.find((picked) => isRound(drawing, picked)) : under[0];
  if (part.takes === "curve") return part.exact && curve && snap && isOn(drawing, curve, at) ? { ...curve, at } : curve;
  return curve && !(snap && POINT_SNAPS.has(snap.kind)) ? curve : point;
};

/** An edit that could not be stored is a fault of what made it: it is refused in words, and nothing is changed. */
const soundly = <T>(make: () => Outcome<T>): Outcome<T> => {
  try {
    return make();
  } catch (reason) {
    if (reason instanceof UnsoundEdit) return refuse("edit-unsound", { reason: reason.reason });
    throw reason;
  }
};

const proposed = (propose: () => Proposal): Proposal => {
  const made = soundly(() => done(propose()));
  return made.ok ? made.value : refused(made);
};

/** What a drag along a path would make now. */
export const draggedOf = (tool: Tool, state: ToolState, path: readonly Point[], context: ToolContext): Proposal =>
  proposed(() => tool.dragged!(givenOf(tool, state, undefined, context), context, path));

/** What the tool would make now; the chosen way and how many there are. */
export const proposalOf = (
  tool: Tool,
  state: ToolState,
  hover: Hover | undefined,
  context: ToolContext,
): Proposal & { readonly way?: Way; readonly which: number } => {
  const proposal = proposed(() => tool.propose(givenOf(tool, state, hover, context), context));
  const count = proposal.ways.length;
  const which = count === 0 ? 0 : state.way % count;
  const way = proposal.ways[which];
  return way ? { ...proposal, way, which } : { ...proposal, which };
};

/** The tool after an event: the one place where blanks are filled, held, released and turned into edits. */
export const stepTool = (tool: Tool, state: ToolState, event: ToolEvent, context: ToolContext): Step => {
  switch (event.type) {
    case "type":
      return { state: { ...state, open: { blank: event.blank, text: event.text }, lit: event.blank } };
    case "hold":
      return holdEntry(tool, state, context);
    case "revert": {
      const { open: _, ...rest } = state;
      return { state: rest };
    }
    case "fill": {
      const { open: _, ...rest } = state;
      const kinds = event.kind ? { ...state.kinds, [event.blank]: event.kind } : state.kinds;
      return { state: { ...rest, kinds, entries: { ...state.entries, [event.blank]: event.entry } } };
    }
    case "empty": {
      const { open: _, ...rest } = state;
      return { state: { ...rest, entries: without(state.entries, event.blank) } };
    }
    case "light": {
      const { lit: _, ...rest } = state;
      return { state: event.blank ? { ...rest, lit: event.blank } : rest };
    }
    case "choice":
      return { state: choose(tool, state, event.name, event.to) };
    case "next":
      return { state: { ...state, way: state.way + 1 } };
    case "back": {
      const last = Object.keys(state.picks).at(-1);
      return { state: last === undefined ? state : { ...state, picks: without(state.picks, last), way: 0 } };
    }
    case "place": {
      const { placing: _, ...rest } = state;
      const entries = Object.fromEntries(Object.entries(state.entries).filter(([name]) => !isPlace(name)));
      return {
        state: event.placing
          ? {
              ...rest,
              placing: event.placing,
              entries: sameKind(state.placing, event.placing) ? state.entries : entries,
            }
          : { ...rest, entries },
      };
    }
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
      if (state.gathering) return stepTool(tool, state, { type: "gather", on: false }, context);
      // a point typed whole is placed as a click would place it
      return state.placing && givenOf(tool, state, undefined, context).pointer
        ? click(tool, state, event.hover, context)
        : tool.finish && !isWaiting(tool, state)
          ? finish(tool, state, context)
          : make(tool, state, event.hover, context);
  }
};

/** Typed values that are released once the piece is made are waiting for it. */
const isWaiting = (tool: Tool, state: ToolState): boolean =>
  Object.keys(state.entries).some((name) => {
    const part = typedPart(tool, name);
    return part?.kind === "value" && !part.stays && Object.keys(state.picks).length > 0;
  });

/** Enter with nothing waiting: what the tool makes of that, or just an end of what was begun. */
const finish = (tool: Tool, state: ToolState, context: ToolContext): Step => {
  const { ways, refusal } = proposed(() => tool.finish!(givenOf(tool, state, undefined, context), context));
  if (refusal) return { state, refusal };
  const way = ways[state.way % Math.max(1, ways.length)];
  const { chained: _, trail: __, ...rest } = state;
  const ended: ToolState = { ...rest, picks: way?.next ?? {}, way: 0, ...(way?.said ? { said: way.said } : {}) };
  if (!way?.edit) return { state: ended };
  const made = soundly(way.edit);
  return made.ok ? { state: ended, edit: made.value } : { state, refusal: made.refusal };
};

/** Nothing picked any more, and no run to step back along. */
const released = ({ chained: _, trail: __, ...rest }: ToolState): ToolState => ({ ...rest, picks: {}, way: 0 });

const sameKind = (one: Placing | undefined, other: Placing): boolean => one === undefined || one.as === other.as;

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

/** Turns the text being typed into a held value; an unreadable one stays open and is refused. */
const holdEntry = (tool: Tool, state: ToolState, context: ToolContext): Step => {
  const { open, lit, ...held } = state;
  if (!open) return { state };
  // the other number of a typed point comes next by itself
  const rest: ToolState = lit === undefined || isPlace(open.blank) ? held : { ...held, lit };
  const part = typedPart(tool, open.blank);
  if (!part) return { state: rest };
  if (open.text.trim() === "") return { state: { ...rest, entries: without(state.entries, open.blank) } };
  const read = readBlank(part, open.text, context);
  if (!read.ok) return { state, refusal: read.refusal };
  const { value, kind } = read.value;
  const kinds = kind ? { ...state.kinds, [open.blank]: kind } : state.kinds;
  return { state: { ...rest, kinds, entries: { ...state.entries, [open.blank]: { text: open.text.trim(), value } } } };
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
  if (!wanted) return make(tool, state, hover, context);
  const picked = given.picks[wanted.name];
  if (!picked) return { state, refusal: refuse(wanted.takes === "picture" ? "picture-first" : "not-a-curve").refusal };
  const { placing: _, ...placed } = state;
  const entries = Object.fromEntries(Object.entries(state.entries).filter(([name]) => !isPlace(name)));
  const filled: ToolState = { ...placed, entries, last: picked.at, picks: { ...state.picks, [wanted.name]: picked } };
  if (wantedPick(tool, filled, given)) {
    const { refusal } = proposalOf(tool, filled, undefined, context);
    const { lit: __, ...unlit } = filled;
    return refusal ? { state, refusal } : { state: unlit };
  }
  return make(tool, filled, hover, context);
};

/** Makes the chosen way. Refused, the picks stay as they were before the last one. */
const make = (tool: Tool, state: ToolState, hover: Hover | undefined, context: ToolContext): Step => {
  const { way, refusal } = proposalOf(tool, state, hover, context);
  if (!way) {
    const back = stepTool(tool, state, { type: "back" }, context).state;
    return refusal ? { state: back, refusal } : { state: back };
  }
  const stays = (name: string): boolean => {
    const part = typedParts(tool).find((one) => one.name === name);
    return part?.kind === "size" || (part?.kind === "value" && part.stays);
  };
  const entries = Object.fromEntries(Object.entries(state.entries).filter(([name]) => stays(name)));
  const { lit: _, said: __, measured: ___, chained: ____, trail, ...rest } = state;
  const next: ToolState = {
    ...rest,
    picks: way.next ?? {},
    ...(way.next && way.edit ? { chained: true, trail: [...(trail ?? []), startOf(tool, state)] } : {}),
    entries,
    way: 0,
    ...(way.said ? { said: way.said } : {}),
    ...(way.edit ? {} : { measured: Object.values(state.picks) }),
  };
  if (way.ask) return { state: next, ask: way.ask };
  if (!way.edit) return { state: next };
  const made = soundly(way.edit);
  // refused at the last, all that was picked and typed before the last click stays
  return made.ok
    ? { state: next, edit: made.value }
    : { state: stepTool(tool, state, { type: "back" }, context).state, refusal: made.refusal };
};

const startOf = (tool: Tool, { picks }: ToolState): Readonly<Record<string, Picked>> => {
  const from = tool.from === undefined ? undefined : picks[tool.from];
  return from ? { [tool.from!]: from } : {};
};

/** Things under a place, as picks. */
export const underPoint = (context: ToolContext, at: Point, reach: number): readonly Picked[] =>
  picksAt(context.index, at, reach);
