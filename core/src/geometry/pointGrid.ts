import type { Point } from "./point.ts";
import { slotMask, squareAt, squareHash } from "./squares.ts";

/**
 * Finds points near a place: `near` visits every one within `reach` in x and in y, and perhaps some a little farther
 * off.
 */
export type PointGrid = { readonly near: (place: Point, visit: (i: number) => void) => void };

/**
 * Points in squares some times (at least 4) as wide as the reach, so that what lies near a place lies in at most four
 * of them, also where coordinates are so large that reach is rounded; in wider squares mostly in one, if few points
 * share one. Squares are kept in a table by a hash of their numbers; different squares that share a slot only cost a
 * look. Built and asked in time proportional to the points.
 */
export const pointGrid = (points: readonly Point[], reach: number, width = 4): PointGrid => {
  const size = width * reach;
  const mask = slotMask(points.length);
  const heads = new Int32Array(mask + 1).fill(-1);
  const nexts = new Int32Array(points.length);
  for (let i = 0; i < points.length; i++) {
    const at = squareHash(squareAt(points[i]!.x / size), squareAt(points[i]!.y / size)) & mask;
    nexts[i] = heads[at]!;
    heads[at] = i;
  }
  /** Visits what lies in a slot. */
  const look = (at: number, visit: (i: number) => void): void => {
    for (let i = heads[at]!; i >= 0; i = nexts[i]!) visit(i);
  };
  return {
    near: ({ x, y }, visit) => {
      const left = squareAt((x - reach) / size);
      const right = squareAt((x + reach) / size);
      const below = squareAt((y - reach) / size);
      const above = squareAt((y + reach) / size);
      const first = squareHash(left, below) & mask;
      look(first, visit);
      if (left === right && below === above) return;
      // squares may share a slot
      const second = squareHash(right, below) & mask;
      if (second !== first) look(second, visit);
      const third = squareHash(left, above) & mask;
      if (third !== first && third !== second) look(third, visit);
      const fourth = squareHash(right, above) & mask;
      if (fourth !== first && fourth !== second && fourth !== third) look(fourth, visit);
    },
  };
};
