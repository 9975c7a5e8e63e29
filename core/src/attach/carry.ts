import type { Annotation } from "../drawing/annotation.ts";
import type { Drawing } from "../drawing/drawing.ts";
import type { Change, Hint, Loose } from "../drawing/edit.ts";
import { sameRef, type Ref } from "../drawing/ref.ts";
import { distance, dot } from "../geometry/point.ts";
import { transformPoint, type Similarity } from "../geometry/transform.ts";
import type { Id } from "../numeric/id.ts";
import { SAME_PLACE } from "../numeric/tolerance.ts";
import { carryRef } from "./carryRef.ts";
import { frameOf, fromFrame, movedAnnotation, textPlace, tipOf, toFrame } from "./frame.ts";
import { holdersOf, idsIn, type Holder } from "./holders.ts";
import { offerFor } from "./offer.ts";
import { passageOf, type Passage } from "./passage.ts";

/** What became of the rows that hold what an edit touched, where they differ, and what was cut loose. */
export type Carried = {
  readonly rows: ReadonlyMap<Id, Holder>;
  readonly loose: readonly Loose[];
  /** Marks that went with all that they belonged to. */
  readonly gone: readonly Id[];
};

/** Marks say nothing beyond what they stand on: they belong to it, and go with it. */
const BELONGS: ReadonlySet<Annotation["kind"]> = new Set(["centre mark", "thread mark"]);

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
  const rows = new Map<Id, Holder>();
  const loose: Loose[] = [];
  const gone: Id[] = [];
  const changed = new Set<Id>();
  const given = new Set<Id>();
  for (const { table, id } of changes) {
    if (table === "entity" || table === "picture") changed.add(id);
    if (table === "annotation") given.add(id);
  }
  if (changed.size === 0) return { rows, loose, gone };
  const isTouched = (ref: Ref): boolean => idsIn(ref).some((id) => changed.has(id));
  // what the edit itself puts in a row's place or takes out is not carried
  const touched = holdersOf(before).filter(({ refs, id }) => !given.has(id) && refs.some(isTouched));
  if (touched.length === 0) return { rows, loose, gone };
  const passage = passageOf(before, apply(), changes, hints);
  for (const holder of touched) {
    const { kept, lost } = carryHolder(passage, holder, isTouched);
    if (kept.length === 0 && holder.table === "annotation" && BELONGS.has(holder.row.kind)) {
      gone.push(holder.id);
      continue;
    }
    if (lost.length > 0) {
      const offer = offerFor(passage, holder);
      const { table, id, refs } = holder;
      loose.push({
        ...(table === "callout" ? { callout: id } : { annotation: id }),
        links: refs,
        ...(offer ? { offer } : {}),
      });
    }
    const same = kept.length === holder.refs.length && kept.every((ref, i) => sameRef(ref, holder.refs[i]!));
    if (holder.table === "callout") {
      if (!same) rows.set(holder.id, { ...holder, refs: kept, row: { ...holder.row, links: kept } });
      continue;
    }
    const refs = same ? holder.refs : kept;
    const row = carryAnnotation(passage, holder.row, refs);
    if (row !== holder.row) rows.set(holder.id, { ...holder, refs, row });
  }
  return { rows, loose, gone };
};

const carryHolder = (
  passage: Passage,
  { refs, need, together }: Holder,
  isTouched: (ref: Ref) => boolean,
): { readonly kept: readonly Ref[]; readonly lost: readonly Ref[] } => {
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

/** The similarity by which everything that references name went; undefined where not all of it went by one. */
const movedAll = ({ moved }: Passage, refs: readonly Ref[]): Similarity | undefined => {
  const [first, ...rest] = refs.flatMap(idsIn).map((id) => moved.get(id));
  return rest.every((by) => by === first) ? first : undefined;
};

/**
 * An annotation with what it holds now. Its text goes with what was moved, stays in the drawing where only names have
 * changed, and keeps its place beside what was reshaped. What lost everything remembers where it stood.
 */
const carryAnnotation = (passage: Passage, was: Annotation, refs: readonly Ref[]): Annotation => {
  const { before, after } = passage;
  const held: Annotation = refs === was.refs ? was : { ...was, refs };
  const text = textPlace(before, was);
  if (refs.length === 0 && was.refs.length > 0) {
    const from = tipOf(before, was.refs[0]!) ?? text;
    return text && from ? { ...held, lost: [text, from] } : held;
  }
  const by = movedAll(passage, was.refs);
  if (by) {
    const moved: Annotation = { ...movedAnnotation(before, was, by), refs };
    const now = refs === was.refs ? undefined : frameOf(after, moved);
    return now && text ? { ...moved, at: toFrame(now, transformPoint(by, text)) } : moved;
  }
  const changed = was.refs.flatMap(idsIn).some((id) => passage.reshaped.has(id) || passage.moved.has(id));
  const [former, frame] = [frameOf(before, was), frameOf(after, held)];
  if (changed || !text || !frame || !former || distance(fromFrame(frame, was.at), text) <= SAME_PLACE) return held;
  // named otherwise, so perhaps counted from another place or the other way: what is drawn stays where it is
  const { x, y } = toFrame(frame, text);
  const along = was.kind === "linear" ? was.at.x * Math.sign(dot(frame.axis, former.axis)) : x;
  return { ...held, at: { x: along + 0, y } };
};
