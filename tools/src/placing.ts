import { settingsOf } from "@ash-edge/core/drawing";
import { subtract, along, distance, type Point } from "@ash-edge/core/geometry";
import { unitAt, toRadians } from "@ash-edge/core/numeric";
import type { Part, ToolContext } from "./tool.ts";

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
