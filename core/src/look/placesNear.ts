import { type Bounds } from "../geometry/bounds.ts";
import { curveNearest, curvePoint } from "../geometry/curve.ts";
import { distance, type Point } from "../geometry/point.ts";
import { describePoint, describeRef } from "./describe.ts";
import { searchIndex, type DrawingIndex } from "./drawingIndex.ts";
import { lockedAt } from "./picking.ts";
import { SNAP_KINDS, SNAP_WORDS, snapsAt, type Snap } from "./snaps.ts";

/** A place that can be gone to without a pointer: where, what is there in words, and the snap that it is. */
export type NearPlace = { readonly at: Point; readonly words: string; readonly snap?: Snap };

/** Snaps that are places of something, not of the pointer. */
const PLACES = new Set(SNAP_KINDS.filter((kind) => kind !== "grid" && kind !== "nearest" && kind !== "extended"));
/** No more things than this are stepped through: nobody goes farther. */
const THINGS = 200;

/**
 * What lies in sight, nearest to a place first: the things there, each at the middle of a line or an arc and at its
 * nearest place otherwise; and the snaps, where points are wanted. Nothing on locked layers.
 */
export const placesNear = (
  index: DrawingIndex,
  at: Point,
  sight: Bounds,
  wants: { readonly points: boolean; readonly things: boolean },
  from?: Point,
): readonly NearPlace[] => {
  const { drawing } = index;
  const inside = ({ x, y }: Point): boolean => x >= sight.minX && x <= sight.maxX && y >= sight.minY && y <= sight.maxY;
  const found: NearPlace[] = [];
  if (wants.things)
    for (const item of searchIndex(index, sight)) {
      if (item.kind !== "curve" || found.length >= THINGS) continue;
      const place = item.curve.kind === "piece" ? curvePoint(item.curve, 0.5) : curveNearest(item.curve, at).at;
      if (!inside(place) || lockedAt(index, place, 0)) continue;
      found.push({ at: place, words: `${describeRef(drawing, item.ref)}, at ${describePoint(drawing, place)}` });
    }
  if (wants.points) {
    const reach = Math.hypot(sight.maxX - sight.minX, sight.maxY - sight.minY);
    for (const snap of snapsAt(index, at, reach, { kinds: PLACES, from })) {
      if (!inside(snap.at)) continue;
      const of = snap.ref && snap.kind !== "datum" ? ` of ${describeRef(drawing, snap.ref)}` : "";
      const where = snap.kind === "datum" ? "" : `, at ${describePoint(drawing, snap.at)}`;
      found.push({ at: snap.at, words: `${SNAP_WORDS[snap.kind]}${of}${where}`, snap });
    }
  }
  return found.sort((p, q) => distance(p.at, at) - distance(q.at, at));
};
