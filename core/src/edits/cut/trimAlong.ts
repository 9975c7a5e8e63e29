import { layerOf, entityOf } from "../../drawing/drawing.ts";
import { applyEdit, mergeEdits, type Edit } from "../../drawing/edit.ts";
import type { Ref } from "../../drawing/ref.ts";
import { boundsOf, growBounds } from "../../geometry/bounds.ts";
import { curveNearest } from "../../geometry/curve.ts";
import { distance, type Point } from "../../geometry/point.ts";
import { meetings } from "../../intersect/meetings.ts";
import { reindex, searchIndex, type DrawingIndex } from "../../look/drawingIndex.ts";
import { done, refuse, type Outcome } from "../../numeric/outcome.ts";
import { RESOLUTION } from "../../numeric/tolerance.ts";
import type { Shape } from "../../shape/shape.ts";
import type { Cutters } from "./cuts.ts";
import { planExtend } from "./extend.ts";
import { planTrim } from "./trim.ts";

/** What a drag across the board changes: what goes and comes, how many, and the one edit of it all. */
export type Swept = {
  readonly edit: Edit;
  readonly goes: readonly Shape[];
  readonly comes: readonly Shape[];
  readonly count: number;
  /** How many of them went whole, because nothing crossed them. */
  readonly whole: number;
};

type Hit = { readonly ref: Ref; readonly at: Point };

/**
 * Everything that may be changed and that a run of points crosses, in the order in which it is crossed. Layout is
 * passed over.
 */
export const crossedBy = (index: DrawingIndex, path: readonly Point[]): readonly Hit[] => {
  const hits: Hit[] = [];
  for (let i = 1; i < path.length; i++) {
    const [a, b] = [path[i - 1]!, path[i]!];
    if (distance(a, b) <= RESOLUTION) continue;
    const here: (Hit & { t: number })[] = [];
    for (const item of searchIndex(index, growBounds(boundsOf([a, b]), RESOLUTION))) {
      if (item.kind !== "curve" || item.curve.kind === "endless") continue;
      const layer = layerOf(index.drawing, entityOf(index.drawing, item.ref.id)?.layer ?? -1);
      if (!layer || layer.locked || layer.role === "layout") continue;
      for (const meeting of meetings(item.curve, { kind: "piece", a, b, bulge: 0 }, RESOLUTION))
        if (meeting.kind !== "overlap") here.push({ ref: item.ref, at: meeting.at, t: distance(a, meeting.at) });
    }
    for (const hit of here.sort((p, q) => p.t - q.t)) hits.push(hit);
  }
  return hits;
};

/** What stands at a place now: after earlier cuts the piece that was crossed may be another entity. */
const standingAt = (index: DrawingIndex, { ref, at }: Hit): Ref | undefined => {
  const box = growBounds({ minX: at.x, minY: at.y, maxX: at.x, maxY: at.y }, 10 * RESOLUTION);
  const found = searchIndex(index, box).filter(
    (item) =>
      item.kind === "curve" &&
      item.curve.kind !== "endless" &&
      curveNearest(item.curve, at).distance <= 10 * RESOLUTION,
  );
  return (found.find((item) => item.ref.id === ref.id) ?? found[0])?.ref;
};

const sweep = (
  index: DrawingIndex,
  path: readonly Point[],
  label: string,
  change: (
    now: DrawingIndex,
    ref: Ref,
    at: Point,
  ) => Outcome<{ edit: Edit; goes: readonly Shape[]; comes: readonly Shape[]; whole?: boolean }>,
): Outcome<Swept> => {
  let now = index;
  const edits: Edit[] = [];
  const [goes, comes]: [Shape[], Shape[]] = [[], []];
  let whole = 0;
  let refused: Outcome<never> | undefined;
  for (const hit of crossedBy(index, path)) {
    const ref = standingAt(now, hit);
    if (!ref) continue;
    const made = change(now, ref, hit.at);
    if (!made.ok) {
      refused ??= made;
      continue;
    }
    edits.push(made.value.edit);
    if (made.value.whole) whole += 1;
    for (const shape of made.value.goes) goes.push(shape);
    for (const shape of made.value.comes) comes.push(shape);
    now = reindex(now, applyEdit(now.drawing, made.value.edit));
  }
  if (edits.length === 0) return refused ?? refuse("pick-first");
  const edit = mergeEdits(
    edits,
    edits.length === 1 ? edits[0]!.label : `${label} × ${edits.length}`,
    label.toLowerCase(),
  );
  return done({ edit, goes, comes, count: edits.length, whole });
};

/**
 * Trims every piece that a drag crosses, each where it is crossed, as one edit. Nothing crossed: the reason of the
 * first refusal.
 */
export const trimAlong = (index: DrawingIndex, path: readonly Point[], cutters: Cutters): Outcome<Swept> =>
  sweep(index, path, "Trim", (now, ref, at) => {
    const plan = planTrim(now, ref, at, cutters);
    return plan.ok
      ? done({ edit: plan.value.edit, goes: plan.value.removed, comes: [], whole: plan.value.whole })
      : plan;
  });

/** Runs every end near which a drag crosses to what lies ahead, as one edit. */
export const extendAlong = (index: DrawingIndex, path: readonly Point[], cutters: Cutters): Outcome<Swept> =>
  sweep(index, path, "Extend", (now, ref, at) => {
    const plan = planExtend(now, ref, at, cutters);
    return plan.ok ? done({ edit: plan.value.edit, goes: plan.value.goes, comes: plan.value.comes }) : plan;
  });
