import type { Callout } from "../drawing/callout.ts";
import type { Ref } from "../drawing/ref.ts";

/**
 * What a holder needs of a curve that it names whole: its `span` from end to end (a length), its `carrier` (a radius,
 * the distance of two parallels), or its carrier with the way it runs (an angle). What names a place needs that place.
 */
export type Need = "span" | "carrier" | "direction";

/** The needs of the references of a row, and whether one of them is worth nothing without the others. */
export type Holding = { readonly refs: readonly Ref[]; readonly need: Need; readonly together: boolean };

/** What a callout holds on to. */
export const heldByCallout = ({ kind, links }: Callout): Holding => {
  const distance = kind === "length" || kind === "centres";
  return {
    refs: links,
    need: kind === "angle" ? "direction" : distance && links.length === 1 ? "span" : "carrier",
    together: distance || kind === "angle",
  };
};
