import { calloutText } from "../callouts/describe.ts";
import { calloutsOf, unitOf, type Drawing } from "../drawing/drawing.ts";
import { describeRef } from "../look/describe.ts";
import type { Id } from "../numeric/id.ts";
import { derivedNumber, showAngle, showLength } from "../numeric/showValue.ts";
import type { Held, Moves } from "../solve/lookTrue.ts";
import type { NumbersStanding, OpenMeasure } from "../solve/standing.ts";
import type { RelationKind } from "../solve/holds/relation.ts";

/** What holds, of one and of several. */
const HELD_WORDS: Readonly<Record<RelationKind, readonly [one: string, several: string]>> = {
  tangent: ["tangent joint", "tangent joints"],
  "same centre": ["shared centre", "shared centres"],
  level: ["level edge", "level edges"],
  upright: ["upright edge", "upright edges"],
  parallel: ["pair of parallels", "pairs of parallels"],
  square: ["pair square to each other", "pairs square to each other"],
  on: ["place on a layout line", "places on layout lines"],
  "in line": ["pair of edges in line", "pairs of edges in line"],
  "bolt circle": ["bolt circle", "bolt circles"],
  "offset pair": ["offset", "offsets"],
  equal: ["pair of equal radii", "pairs of equal radii"],
  aligned: ["pair of centres in line", "pairs of centres in line"],
  quarter: ["arc that ends at its quarter", "arcs that end at their quarters"],
  mirror: ["mirrored pair", "mirrored pairs"],
  land: ["land that nothing calls", "lands that nothing calls"],
  size: ["size that nothing calls", "sizes that nothing calls"],
};

export const heldWords = (kind: RelationKind, count: number): string =>
  `${count} ${HELD_WORDS[kind][count === 1 ? 0 : 1]}`;

/** Between what one relation holds: `tangent joint: big boss R 1 1/8, line 6 1/2`. */
export const relationWords = (drawing: Drawing, { kind, refs }: Held): string => {
  const names = [...new Set(refs.map((ref) => describeRef(drawing, ref)))];
  return `${HELD_WORDS[kind][0]}: ${names.slice(0, 3).join(", ")}${names.length > 3 ? " …" : ""}`;
};

/** `4 corners move, 2 holes change`. */
export const movesWords = ({ corners, holes, arcs, points }: Moves): string => {
  const parts = [
    [corners, "corner", "move"],
    [corners === 0 ? arcs : 0, "arc", "change"],
    [holes, "hole", "change"],
    [points, "point", "move"],
  ] as const;
  const words = parts.flatMap(([count, name, does]) =>
    count > 0 ? [`${count} ${name}${count === 1 ? "" : "s"} ${does}${count === 1 ? "s" : ""}`] : [],
  );
  return words.length === 0 ? "Nothing moves" : words.join(", ");
};

/** A callout as a list names it: its number and what it speaks of. */
export const calloutName = (drawing: Drawing, id: Id): string => {
  const callout = calloutsOf(drawing).find((one) => one.id === id);
  return callout ? `${calloutText(callout, unitOf(drawing))} ${callout.name}`.trim() : "gone";
};

/** Names in a row: `a, b and c`. */
const listed = (names: readonly string[]): string =>
  names.length < 2 ? names.join("") : `${names.slice(0, -1).join(", ")} and ${names.at(-1)}`;

const MEASURES: Readonly<Record<Exclude<OpenMeasure["what"], "radius">, string>> = {
  x: "x",
  y: "y",
  length: "length",
  angle: "direction",
};

/** What is left open: `y of the hole Ø 5/16, now 0`. */
export const openWords = (drawing: Drawing, { what, of, ref, value }: OpenMeasure): string => {
  const unit = unitOf(drawing);
  const shown = (length: number): string => showLength(derivedNumber(length), unit);
  // its own size is no part of the name of what is asked for its size
  const named = describeRef(drawing, { id: ref.id, ...(ref.vertex === undefined ? {} : { vertex: ref.vertex }) })
    .replace(/^circle/, "hole")
    .replace(what === "radius" || of === "edge" ? / (Ø|R|≈|\d).*$/ : "", "");
  if (what === "radius")
    return of === "hole" ? `Ø of the ${named}, now ${shown(2 * value)}` : `R of the ${named}, now ${shown(value)}`;
  const name = of === "corner" ? "corner" : named;
  return `${MEASURES[what]} of the ${name}, now ${what === "angle" ? showAngle(derivedNumber(value)) : shown(value)}`;
};

/** Where nothing is left open; what was not looked at is said. */
export const nothingOpenWords = (unseen: number): string =>
  unseen === 0
    ? "nothing, the numbers tell all of it."
    : `nothing but, perhaps, ${unseen} free or flat curve${unseen === 1 ? "" : "s"}: that is not looked at.`;

/** `130 top follows from 160 whole and 30 step`. */
export const followsWords = (drawing: Drawing, { callout, from }: NumbersStanding["follows"][number]): string =>
  from.length === 0
    ? `${calloutName(drawing, callout)} follows from what holds`
    : `${calloutName(drawing, callout)} follows from ${listed(from.map((id) => calloutName(drawing, id)))}`;

const COUNTS = ["", "", "two", "three", "four", "five", "six"];

/** `These three can’t all be true: 160 whole, 130 top and 40 step.` */
export const oddsWords = (drawing: Drawing, callouts: readonly Id[]): string => {
  const names = listed(callouts.map((id) => calloutName(drawing, id)));
  if (callouts.length === 1) return `${names} can’t be true as long as what holds does.`;
  return `These ${COUNTS[callouts.length] ?? callouts.length} can’t all be true: ${names}.`;
};
