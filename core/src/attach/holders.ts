import type { Annotation } from "../drawing/annotation.ts";
import type { Callout } from "../drawing/callout.ts";
import { annotationsOf, calloutsOf, type Drawing } from "../drawing/drawing.ts";
import type { Loose } from "../drawing/edit.ts";
import type { Ref } from "../drawing/ref.ts";
import type { Id } from "../numeric/id.ts";

/**
 * What a holder needs of a curve that it names whole: its `span` from end to end (a length), its `carrier` (a radius,
 * the distance of two parallels), or its carrier with the way it runs (an angle). What names a place needs that place.
 */
export type Need = "span" | "carrier" | "direction";

/** The needs of the references of a row, and whether one of them is worth nothing without the others. */
export type Holding = { readonly refs: readonly Ref[]; readonly need: Need; readonly together: boolean };

/** A row that holds references, of whichever table; ids are the drawing's own, so they tell rows apart. */
export type Holder = Holding & { readonly id: Id } & (
    { readonly table: "callout"; readonly row: Callout } | { readonly table: "annotation"; readonly row: Annotation }
  );

/** What a callout holds on to. */
export const heldByCallout = (row: Callout): Holder => {
  const { id, kind, links } = row;
  const distance = kind === "length" || kind === "centres";
  return {
    table: "callout",
    id,
    row,
    refs: links,
    need: kind === "angle" ? "direction" : distance && links.length === 1 ? "span" : "carrier",
    together: distance || kind === "angle",
  };
};

/** Kinds that hold several things of which each counts by itself. */
const EACH_BY_ITSELF: ReadonlySet<Annotation["kind"]> = new Set(["radius", "diameter", "note", "centre mark"]);

/** What a dimension, a note or a mark holds on to. */
export const heldByAnnotation = (row: Annotation): Holder => {
  const { id, kind, refs } = row;
  return {
    table: "annotation",
    id,
    row,
    refs,
    need: kind === "arc length" || (kind === "linear" && refs.length === 1) ? "span" : "carrier",
    together: !EACH_BY_ITSELF.has(kind),
  };
};

/** Everything in a drawing that holds references: callouts, dimensions, notes and marks. */
export const holdersOf = (drawing: Drawing): readonly Holder[] => heldIn(drawing).holders;

type Held = { readonly holders: readonly Holder[]; readonly ids: ReadonlySet<Id> };
const known = new WeakMap<Drawing["annotation"], { readonly callouts: Drawing["callout"]; readonly held: Held }>();

/** Worked out once for each state of the tables: most edits change geometry alone. */
const heldIn = (drawing: Drawing): Held => {
  const found = known.get(drawing.annotation);
  if (found?.callouts === drawing.callout) return found.held;
  const holders = [...calloutsOf(drawing).map(heldByCallout), ...annotationsOf(drawing).map(heldByAnnotation)];
  const held: Held = { holders, ids: new Set(holders.flatMap(({ refs }) => refs.flatMap(idsIn))) };
  known.set(drawing.annotation, { callouts: drawing.callout, held });
  return held;
};

/** The ids that a reference speaks of: its own, and that of a curve that it crosses. */
export const idsIn = (ref: Ref): readonly Id[] =>
  typeof ref.place === "object" && "crosses" in ref.place ? [ref.id, ...idsIn(ref.place.crosses)] : [ref.id];

/** The ids of all that is held by anything. */
export const heldIds = (drawing: Drawing): ReadonlySet<Id> => heldIn(drawing).ids;

/** The row that was cut loose. */
export const looseId = (loose: Loose): Id => ("callout" in loose ? loose.callout : loose.annotation);
