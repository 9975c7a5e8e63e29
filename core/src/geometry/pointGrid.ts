import type { Point } from "./point.ts";

/** Finds points near a place: `near` visits every one within `reach` in x and in y, and perhaps some a little farther off. */
export type PointGrid = { readonly near: (place: Point, visit: (i: number) => void) => void };

/**
 * Points in squares four times as wide as the reach, so that what lies near a place lies in at most four of them, also where coordinates
 * are so large that reach is rounded. Squares are kept in a table
 * by a hash of their numbers; different squares that share a slot only cost a look. Built and asked in time proportional to the points.
 */
export const pointGrid = (points: readonly Point[], reach: number): PointGrid => {
  const size = 4 * reach;
  const mask = 2 ** Math.ceil(Math.log2(2 * points.length + 2)) - 1;
  const heads = new Int32Array(mask + 1).fill(-1);
  const nexts = new Int32Array(points.length);
  // squares' numbers may be beyond 32 bits: folded by remainders, which keeps neighbours apart
  const fold = (n: number): number => (Math.floor(n / size) % 2_147_483_647) | 0;
  const slot = (column: number, row: number): number => {
    const h = Math.imul(column, 73_856_093) ^ Math.imul(row, 19_349_663);
    // squares in even steps share their low bits: the high ones are mixed in
    const mixed = Math.imul(h ^ (h >>> 15), 0x2c1b3c6d);
    return (mixed ^ (mixed >>> 13)) & mask;
  };
  points.forEach(({ x, y }, i) => {
    const at = slot(fold(x), fold(y));
    nexts[i] = heads[at]!;
    heads[at] = i;
  });
  return {
    near: ({ x, y }, visit) => {
      const [c0, c1, r0, r1] = [fold(x - reach), fold(x + reach), fold(y - reach), fold(y + reach)];
      const slots = [slot(c0, r0)];
      for (const other of [slot(c1, r0), slot(c0, r1), slot(c1, r1)]) if (!slots.includes(other)) slots.push(other);
      for (const at of slots) for (let i = heads[at]!; i >= 0; i = nexts[i]!) visit(i);
    },
  };
};
