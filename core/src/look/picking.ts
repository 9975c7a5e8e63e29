import { layerOf, entityOf } from "../drawing/drawing.ts";
import type { Layer } from "../drawing/layer.ts";
import type { Ref } from "../drawing/ref.ts";
import { growBounds } from "../geometry/bounds.ts";
import { curveNearest } from "../geometry/curve.ts";
import { distance, type Point } from "../geometry/point.ts";
import { searchIndex, type DrawingIndex } from "./drawingIndex.ts";

/** Something under the pointer: what, and the place on it nearest to the pointer. */
export type Pick = { readonly ref: Ref; readonly at: Point; readonly snap?: string };

/**
 * What lies within `reach` of `at`, nearest first; at the same distance the newest first, since it was drawn on top.
 * Nothing on a locked layer. Layout lines stand behind cut geometry when both are about as near.
 */
export const picksAt = (index: DrawingIndex, at: Point, reach: number): readonly Pick[] => {
  const box = growBounds({ minX: at.x, minY: at.y, maxX: at.x, maxY: at.y }, reach);
  const found: { pick: Pick; away: number; id: number }[] = [];
  for (const item of searchIndex(index, box)) {
    if (item.kind === "centre" || item.kind === "area") continue;
    const layer = layerOf(index.drawing, entityOf(index.drawing, item.ref.id)?.layer ?? -1);
    if (!layer || layer.locked) continue;
    const place = item.kind === "curve" ? curveNearest(item.curve, at).at : item.at;
    const away = distance(place, at);
    if (away > reach) continue;
    found.push({
      pick: { ref: item.ref, at: place },
      away: away + (layer.role === "layout" ? reach / 3 : 0),
      id: item.ref.id,
    });
  }
  return found.sort((p, q) => p.away - q.away || q.id - p.id).map(({ pick }) => pick);
};

/** The locked layer of what lies here, where nothing that can be picked does. */
export const lockedAt = (index: DrawingIndex, at: Point, reach: number): Layer | undefined => {
  const box = growBounds({ minX: at.x, minY: at.y, maxX: at.x, maxY: at.y }, reach);
  for (const item of searchIndex(index, box)) {
    if (item.kind !== "curve" || curveNearest(item.curve, at).distance > reach) continue;
    const layer = layerOf(index.drawing, entityOf(index.drawing, item.ref.id)?.layer ?? -1);
    if (layer?.locked) return layer;
  }
  return undefined;
};
