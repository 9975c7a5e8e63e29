import { settingsOf } from "@ash-edge/core/drawing";
import { angleOf, subtract, along, distance, norm, type Point } from "@ash-edge/core/geometry";
import {
  derivedNumber,
  done,
  readTypedValue,
  refuse,
  showLength,
  toDegrees,
  toRadians,
  unitAt,
  type Outcome,
  type Unit,
} from "@ash-edge/core/numeric";
import type { Entry, Part, ToolContext } from "./tool.ts";

/** A point being typed: how, and from where it counts. */
export type Placing = { readonly as: "xy" | "polar"; readonly from: "datum" | "last" };

type ValuePart = Extract<Part, { kind: "value" }>;
const part = (name: string, label: string, expects: "length" | "angle"): ValuePart => ({
  kind: "value",
  name,
  label,
  expects,
  stays: false,
  signed: true,
});

/** How a point is typed unless it says otherwise. */
export const FROM_DATUM: Placing = { as: "xy", from: "datum" };

/** The two blanks of a typed point. */
export const PLACE_PARTS: Readonly<Record<Placing["as"], readonly [ValuePart, ValuePart]>> = {
  xy: [part("place x", "x", "length"), part("place y", "y", "length")],
  polar: [part("place distance", "distance", "length"), part("place angle", "direction", "angle")],
};
export const ALL_PLACE_PARTS: readonly ValuePart[] = Object.values(PLACE_PARTS).flat();
/** True for the blanks of a typed point. */
export const isPlace = (name: string): boolean => name.startsWith("place ");

/**
 * The point that is typed so far: what is typed wins, the pointer gives the rest (x typed, y from the pointer).
 * Undefined when something is missing and there is no pointer, or when nothing is typed.
 */
export const placedPoint = (
  { as, from }: Placing,
  value: (name: string) => number | undefined,
  pointer: Point | undefined,
  last: Point | undefined,
  context: Pick<ToolContext, "drawing">,
): Point | undefined => {
  const base = (from === "last" ? last : undefined) ?? settingsOf(context.drawing).datum;
  const [one, two] = PLACE_PARTS[as].map(({ name }) => value(name));
  if (one === undefined && two === undefined) return undefined;
  if (as === "xy") {
    const x = one === undefined ? pointer?.x : base.x + one;
    const y = two === undefined ? pointer?.y : base.y + two;
    return x === undefined || y === undefined ? undefined : { x, y };
  }
  if ((one === undefined || two === undefined) && !pointer) return undefined;
  const way = pointer && subtract(pointer, base);
  if (two !== undefined) {
    const direction = unitAt(toRadians(two));
    return along(base, direction, one ?? way!.x * direction.x + way!.y * direction.y);
  }
  const reach = distance(base, pointer!);
  return reach === 0 ? undefined : along(base, { x: way!.x / reach, y: way!.y / reach }, one!);
};

/** A point that was typed in one entry. */
export type TypedPoint = { readonly placing: Placing; readonly entries: Readonly<Record<string, Entry>> };

/** True for text that is a point by itself: `80;30` from the datum, `@5;2` and `@12<45` from the last point, `<30`. */
export const isPointText = (text: string): boolean => /^\s*[@<]|;|<(?=.)/.test(text);

/**
 * Reads a point typed in one entry; a distance that is left out comes from the pointer. Refused with the part's reason.
 */
export const readPointText = (text: string, unit: Unit): Outcome<TypedPoint> => {
  const trimmed = text.trim();
  const from = /^[@<]/.test(trimmed) ? "last" : "datum";
  const rest = trimmed.replace(/^@/, "");
  const as = rest.includes("<") ? "polar" : "xy";
  const halves = rest.split(as === "polar" ? "<" : ";");
  if (halves.length !== 2 || halves[1]!.trim() === "") return refuse("point-unreadable", { text: trimmed });
  const entries: Record<string, Entry> = {};
  for (const [i, { name, expects }] of PLACE_PARTS[as].entries()) {
    const half = halves[i]!.trim();
    if (half === "" && as === "polar") continue;
    const read = readTypedValue(half, { unit, expects, kinds: false });
    if (!read.ok) return read;
    entries[name] = { text: half, value: read.value.value };
  }
  return done({ placing: { as, from }, entries });
};

/** What would be typed for a place, counted so; undefined where a direction is asked of a place on itself. */
export const placeEntries = (
  { as, from }: Placing,
  at: Point,
  last: Point | undefined,
  { drawing, unit }: Pick<ToolContext, "drawing" | "unit">,
): Readonly<Record<string, Entry>> | undefined => {
  const by = subtract(at, (from === "last" ? last : undefined) ?? settingsOf(drawing).datum);
  if (as === "polar" && norm(by) === 0) return undefined;
  const values = as === "xy" ? [by.x, by.y] : [norm(by), toDegrees(angleOf(by))];
  return Object.fromEntries(
    PLACE_PARTS[as].map(({ name, expects }, i) => [
      name,
      {
        text: expects === "angle" ? String(derivedNumber(values[i]!)) : showLength(values[i]!, unit),
        value: values[i]!,
      },
    ]),
  );
};
