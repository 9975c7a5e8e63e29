import { calloutsOf, curveAt, type Drawing } from "@ash-edge/core/drawing";
import { carrierOf, curveNearest, type Point } from "@ash-edge/core/geometry";
import { RESOLUTION, type SizeKind } from "@ash-edge/core/numeric";
import { readBlank, typedPart, type Typed } from "./blanks.ts";
import { isPointText, placedPoint, readPointText, type TypedPoint } from "./placing.ts";
import { pickParts, type Given, type Part, type Picked, type Tool, type ToolContext, type Wanting } from "./tool.ts";
import type { Hover, ToolState } from "./toolState.ts";

/** What a tool is given, with the pointer's own pick in the next blank that wants one. */
export const givenOf = (tool: Tool, state: ToolState, hover: Hover | undefined, context: ToolContext): Given => {
  const part = (name: string): Typed | undefined => typedPart(tool, name);
  // a point typed in one entry leaves the blank as it is in which it was begun
  const point = isPointOpen(tool, state) ? readPointText(state.open!.text, context.unit) : undefined;
  const typed: ToolState = point?.ok ? { ...state, ...pointState(state, point.value) } : state;
  const entry = (name: string): { value: number; kind?: SizeKind; callout?: number } | undefined => {
    if (state.open?.blank !== name || point) return typed.entries[name];
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
    state.open?.blank === name && !point ? state.open.text : state.entries[name]?.text;
  const wanted = wantedPick(tool, state, { value, radius, choice, things });
  const placed =
    typed.placing && wanted && takesPoint(wanted)
      ? placedPoint(typed.placing, value, hover?.at, lastPoint(tool, state), context)
      : undefined;
  const hovered = placed ? { at: placed } : hover && wanted && pickFrom(wanted, hover, state.picks, context.drawing);
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

/** True while a point is typed in one entry; the words of a text are never one. */
export const isPointOpen = (tool: Tool, { open }: ToolState): boolean =>
  open !== undefined && isPointText(open.text) && typedPart(tool, open.blank)?.kind !== "text";

const pointState = ({ entries }: ToolState, point: TypedPoint): Pick<ToolState, "entries" | "placing"> => ({
  placing: point.placing,
  entries: { ...entries, ...point.entries },
});

/** From where "the last point" counts: the running start point, else the point picked last. */
export const lastPoint = (tool: Tool, state: ToolState): Point | undefined =>
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

/** True where a place on something will do, so that points are snapped to. */
export const takesSnap = ({ takes, bare }: PickPart, wanting?: Wanting): boolean =>
  (takes === "point" || takes === "either") && !(wanting && bare?.(wanting));

/** True where a place will do, so that one may be typed: of what is snapped to, and of what is never. */
export const takesPoint = (part: PickPart): boolean => takesSnap(part) || (part.takes === "place" && !part.silent);

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

/** Snaps that lie on a curve anywhere: where no curve is meant they name no point either. */
const ANYWHERE = new Set(["nearest", "perpendicular", "tangent", "extended", "grid"]);

const pickFrom = (
  part: PickPart,
  { at, snap, under, picture }: Hover,
  picks: ToolState["picks"],
  drawing: Drawing,
): Picked | undefined => {
  if (part.takes === "things") return undefined;
  if (part.takes === "place") return { at };
  if (part.takes === "picture") return picture && { at, picture };
  const point: Picked = { at, ...(snap?.ref ? { ref: snap.ref } : {}), ...(snap ? { snap: snap.kind } : {}) };
  if (part.takes === "point") return point;
  const curve = part.round ? under.find((picked) => isRound(drawing, picked)) : under[0];
  const { fits } = part;
  if (fits && part.takes === "either") {
    const fitting = under.find(({ ref }) => ref && fits(ref, picks, drawing));
    if (fitting && !(snap && POINT_SNAPS.has(snap.kind))) return fitting;
    return snap && ANYWHERE.has(snap.kind) ? { at } : point;
  }
  if (part.takes === "curve") return part.exact && curve && snap && isOn(drawing, curve, at) ? { ...curve, at } : curve;
  return curve && !(snap && POINT_SNAPS.has(snap.kind)) ? curve : point;
};
