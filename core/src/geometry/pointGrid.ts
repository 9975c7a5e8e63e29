import type { Point } from "./point.ts";

/** Finds points near a place: `near` visits every one within `reach` in x and in y, and perhaps some a little farther off. */
export type PointGrid = { readonly near: (place: Point, visit: (i: number) => void) => void };

/**
 * Points in squares some times (at least 4) as wide as the reach, so that what lies near a place lies in at most four of them, also where
 * coordinates are so large that reach is rounded; in wider squares mostly in one, if few points share one. Squares are kept in a table
 * by a hash of their numbers; different squares that share a slot only cost a look. Built and asked in time proportional to the points.
 */
export const pointGrid = (points: readonly Point[], reach: number, width = 4): PointGrid => {
  const size = width * reach;
  const mask = 2 ** Math.ceil(Math.log2(2 * points.length + 2)) - 1;
  const heads = new Int32Array(mask + 1).fill(-1);
  const nexts = new Int32Array(points.length);
  // squares' numbers may be beyond 32 bits: folded by remainders, which keeps neighbours apart
  const fold = (n: number): number => {
    const square = Math.floor(n / size);
    return (square > -BITS && square < BITS ? square : square % BITS) | 0;
  };
  const slot = (column: number, row: number): number => {
    const h = Math.imul(column, 73_856_093) ^ Math.imul(row, 19_349_663);
    // squares in even steps share their low bits: the high ones are mixed in
    const mixed = Math.imul(h ^ (h >>> 15), 0x2c1b3c6d);
    return (mixed ^ (mixed >>> 13)) & mask;
  };
  for (let i = 0; i < points.length; i++) {
    const at = slot(fold(points[i]!.x), fold(points[i]!.y));
    nexts[i] = heads[at]!;
    heads[at] = i;
  }
  return {
    near: ({ x, y }, visit) => {
      const [c0, c1, r0, r1] = [fold(x - reach), fold(x + reach), fold(y - reach), fold(y + reach)];
      const first = slot(c0, r0);
      for (let i = heads[first]!; i >= 0; i = nexts[i]!) visit(i);
      if (c0 === c1 && r0 === r1) return;
      const seen = [first];
      for (const at of [slot(c1, r0), slot(c0, r1), slot(c1, r1)]) {
        if (seen.includes(at)) continue;
        seen.push(at);
        for (let i = heads[at]!; i >= 0; i = nexts[i]!) visit(i);
      }
    },
  };
};

const BITS = 2_147_483_647;
