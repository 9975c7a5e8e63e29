import Flatbush from "flatbush";
import { curveAt, entityOf, type Drawing } from "../drawing/drawing.ts";
import type { Change, Hint } from "../drawing/edit.ts";
import { curvesOf } from "../drawing/entity.ts";
import { sameTarget, type Ref } from "../drawing/ref.ts";
import { boundsOf, growBounds, type Bounds } from "../geometry/bounds.ts";
import { curveBounds, type Curve } from "../geometry/curve.ts";
import type { Point } from "../geometry/point.ts";
import { transformPoint, type Similarity } from "../geometry/transform.ts";
import type { Id } from "../numeric/id.ts";
import { SAME_PLACE } from "../numeric/tolerance.ts";
import { transformShape } from "../shape/kinds.ts";

/** A curve that stands after an edit, with its reference. */
export type Standing = { readonly ref: Ref; readonly curve: Curve };

/**
 * The way from the drawing before an edit to the one after it: both, what the edit states, and what it left standing of
 * what it changed.
 */
export type Passage = {
  readonly before: Drawing;
  readonly after: Drawing;
  readonly hints: readonly Hint[];
  readonly reshaped: ReadonlySet<Id>;
  readonly moved: ReadonlyMap<Id, Similarity>;
  /** The changed curves whose bounds meet a box, and endless ones. */
  readonly standingIn: (box: Bounds) => readonly Standing[];
};

/** Fewer changed curves than this are looked through one by one. */
const FEW = 32;

/** How the places of one thing passed through an edit: what became of it, in the order of its own direction. */
export const passageOf = (
  before: Drawing,
  after: Drawing,
  changes: readonly Change[],
  hints: readonly Hint[],
): Passage => {
  // most edits are carried by what they state and by names: what they left is looked through only where that is not
  // enough
  let found: Found | undefined;
  const moved = new Map<Id, Similarity>();
  for (const hint of hints) if (hint.kind === "moved") for (const id of hint.ids) moved.set(id, hint.by);
  return {
    before,
    after,
    hints,
    reshaped: new Set(hints.flatMap((hint) => (hint.kind === "reshaped" ? [hint.id] : []))),
    moved,
    standingIn: (box) => {
      found ??= foundAfter(after, changes);
      const { all, bounded, endless, tree } = found;
      if (!tree) return all;
      const { minX, minY, maxX, maxY } = growBounds(box, SAME_PLACE);
      return [...tree.search(minX, minY, maxX, maxY).map((i) => bounded[i]!), ...endless];
    },
  };
};

type Found = {
  readonly all: readonly Standing[];
  readonly bounded: readonly Standing[];
  readonly endless: readonly Standing[];
  readonly tree: Flatbush | undefined;
};

/** The curves that an edit changed, as they are after it, with a tree of them where they are many. */
const foundAfter = (after: Drawing, changes: readonly Change[]): Found => {
  const all = changes.flatMap(({ table, id }): readonly Standing[] => {
    const entity = table === "entity" ? entityOf(after, id) : undefined;
    return entity ? curvesOf(entity) : [];
  });
  const boxes = all.map(({ curve }) => curveBounds(curve));
  const bounded = all.filter((_, i) => boxes[i]);
  return {
    all,
    bounded,
    endless: all.filter((_, i) => !boxes[i]),
    tree: bounded.length > FEW ? treeOf(boxes.filter((one) => one !== undefined)) : undefined,
  };
};

const treeOf = (boxes: readonly Bounds[]): Flatbush => {
  const tree = new Flatbush(boxes.length);
  for (const { minX, minY, maxX, maxY } of boxes) tree.add(minX, minY, maxX, maxY);
  tree.finish();
  return tree;
};

/** What stands near a place, and what a reference's own curve is now, changed or not. */
export const standingNear = (passage: Passage, at: Point, ref: Ref): readonly Standing[] => {
  const found = passage.standingIn(boundsOf([at]));
  const own = curveAt(passage.after, ref);
  return own && !found.some((one) => sameTarget(one.ref, ref))
    ? [{ ref: { id: ref.id, ...(ref.vertex === undefined ? {} : { vertex: ref.vertex }) }, curve: own }, ...found]
    : found;
};

/** Where a reference's place went by what the edit states: moved with its curve, else where it was. */
export const wentTo = ({ moved }: Passage, ref: Ref, at: Point): Point => {
  const by = moved.get(ref.id);
  return by ? transformPoint(by, at) : at;
};

/** The curve that a reference named before, where the edit took it. */
export const curveWentTo = ({ before, moved }: Passage, ref: Ref): Curve | undefined => {
  const curve = curveAt(before, ref);
  const by = moved.get(ref.id);
  return curve && by ? (transformShape(by, curve) as Curve) : curve;
};

/** What the edit states that a reference's curve became; the reference's own curve counts with its whole entity. */
export const becameOf = ({ hints }: Passage, ref: Ref): Extract<Hint, { kind: "became" }> | undefined =>
  hints.find((hint): hint is Extract<Hint, { kind: "became" }> => hint.kind === "became" && sameTarget(hint.from, ref));
