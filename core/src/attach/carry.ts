import type { Callout } from "../drawing/callout.ts";
import { calloutsOf, type Drawing } from "../drawing/drawing.ts";
import type { Change, Hint, Loose } from "../drawing/edit.ts";
import { sameRef, type Ref } from "../drawing/ref.ts";
import type { Id } from "../numeric/id.ts";
import { carryRef } from "./carryRef.ts";
import { heldByCallout } from "./holders.ts";
import { offerFor } from "./offer.ts";
import { passageOf, type Passage } from "./passage.ts";

/**
 * What became of the references that an edit touched: new links by callout, where they differ, and what was cut loose.
 */
export type Carried = { readonly links: ReadonlyMap<Id, readonly Ref[]>; readonly loose: readonly Loose[] };

/** The ids that a reference speaks of: its own, and that of a curve that it crosses. */
export const idsIn = (ref: Ref): readonly Id[] =>
  typeof ref.place === "object" && "crosses" in ref.place ? [ref.id, ...idsIn(ref.place.crosses)] : [ref.id];

/**
 * Carries every reference of every table from the drawing before an edit to the one after it. A reference either names
 * the same place as before (the same point of the plane, the same curve, or what the edit states became of them), or it
 * is cut loose and listed, never anything else. One that is worth nothing without another goes with it. Costs next to
 * nothing where the edit touches no reference.
 */
export const carry = (
  before: Drawing,
  apply: () => Drawing,
  changes: readonly Change[],
  hints: readonly Hint[],
): Carried => {
  const links = new Map<Id, readonly Ref[]>();
  const loose: Loose[] = [];
  const holding = calloutsOf(before).filter((callout) => callout.links.length > 0);
  if (holding.length === 0) return { links, loose };
  const changed = new Set(changes.filter(({ table }) => table === "entity" || table === "picture").map(({ id }) => id));
  const isTouched = (ref: Ref): boolean => idsIn(ref).some((id) => changed.has(id));
  const touched = holding.filter((callout) => callout.links.some(isTouched));
  if (touched.length === 0) return { links, loose };
  const passage = passageOf(before, apply(), changes, hints);
  for (const callout of touched) {
    const { kept, lost } = carryCallout(passage, callout, isTouched);
    if (lost.length > 0) {
      const offer = offerFor(passage, callout);
      loose.push({ callout: callout.id, links: callout.links, ...(offer ? { offer } : {}) });
    }
    const same = kept.length === callout.links.length && kept.every((ref, i) => sameRef(ref, callout.links[i]!));
    if (!same) links.set(callout.id, kept);
  }
  return { links, loose };
};

const carryCallout = (
  passage: Passage,
  callout: Callout,
  isTouched: (ref: Ref) => boolean,
): { readonly kept: readonly Ref[]; readonly lost: readonly Ref[] } => {
  const { refs, need, together } = heldByCallout(callout);
  const used: Ref[] = [];
  const carried = refs.map((ref) => {
    const to = isTouched(ref) ? carryRef(passage, ref, need, used) : [ref];
    for (const one of to ?? []) used.push(one);
    return to;
  });
  const lost = refs.filter((_, i) => !carried[i]);
  if (together && lost.length > 0) return { kept: [], lost };
  const kept: Ref[] = [];
  // two copies of which one stays are one thing now
  for (const ref of carried.flatMap((to) => to ?? []))
    if (together || !kept.some((one) => sameRef(one, ref))) kept.push(ref);
  return { kept, lost };
};
