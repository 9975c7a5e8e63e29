import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { circleHalves } from "../geometry/circle.ts";
import { reversePiece, transformPiece, type Piece } from "../geometry/piece.ts";
import type { Point } from "../geometry/point.ts";
import type { Similarity } from "../geometry/transform.ts";
import { between, placements } from "../testing/placements.ts";
import { nestingDepths } from "./nesting.ts";

const run = (...corners: readonly (readonly [number, number, number?])[]): readonly Piece[] =>
  corners.map(([x, y, bulge = 0], i) => {
    const [u, v] = corners[(i + 1) % corners.length]!;
    return { a: { x, y }, b: { x: u, y: v }, bulge };
  });
const box = (x: number, y: number, w: number, h: number): readonly Piece[] =>
  run([x, y], [x + w, y], [x + w, y + h], [x, y + h]);
const disc = (x: number, y: number, radius: number): readonly Piece[] => circleHalves({ centre: { x, y }, radius });
const QUARTER = Math.tan(Math.PI / 8);
const rounded = (w: number, h: number, r: number): readonly Piece[] =>
  run(
    [r, 0],
    [w - r, 0, QUARTER],
    [w, r],
    [w, h - r, QUARTER],
    [w - r, h],
    [r, h, QUARTER],
    [0, h - r],
    [0, r, QUARTER],
  );

/**
 * Pairs that touch in a point or along an edge, in an outline of w by h (a disc: of radius h / 2): which lies in which
 * follows from how they are made. `t` places the touch along the side, `s` is a share of the room.
 */
const TOUCHING: Readonly<
  Record<
    string,
    (w: number, h: number, t: number, s: number) => { outer: readonly Piece[]; inner: readonly Piece[]; depth: 0 | 1 }
  >
> = {
  "circle tangent to a side from inside": (w, h, t, s) => {
    const r = (Math.min(w, h) / 2) * s;
    return { outer: box(0, 0, w, h), inner: disc(r + t * (w - 2 * r), h - r, r), depth: 1 };
  },
  "circle tangent to a side from outside": (w, h, t, s) => {
    const r = (Math.min(w, h) / 2) * s;
    return { outer: box(0, 0, w, h), inner: disc(t * w, h + r, r), depth: 0 };
  },
  "circle tangent to two sides": (w, h, _, s) => {
    const r = (Math.min(w, h) / 2) * s;
    return { outer: box(0, 0, w, h), inner: disc(r, r, r), depth: 1 };
  },
  "circle tangent to a rounded outline's corner": (w, h, _, s) => {
    const big = Math.min(w, h) / 2.5;
    const r = big * s;
    const off = (big - r) / Math.SQRT2;
    return { outer: rounded(w, h, big), inner: disc(big - off, big - off, r), depth: 1 };
  },
  "circle tangent to a circle from inside": (_, h, t, s) => {
    const [big, r, turn] = [h / 2, (h / 2) * s, 7 * t];
    return { outer: disc(0, 0, big), inner: disc((big - r) * Math.cos(turn), (big - r) * Math.sin(turn), r), depth: 1 };
  },
  "circle tangent to a circle from outside": (_, h, t, s) => {
    const [big, r, turn] = [h / 2, (h / 2) * s, 7 * t];
    return { outer: disc(0, 0, big), inner: disc((big + r) * Math.cos(turn), (big + r) * Math.sin(turn), r), depth: 0 };
  },
  "box that shares part of a side, inside": (w, h, t, s) => ({
    outer: box(0, 0, w, h),
    inner: box(t * w * (1 - s), 0, w * s, h * s),
    depth: 1,
  }),
  "box that shares part of a side, outside": (w, h, t, s) => ({
    outer: box(0, 0, w, h),
    inner: box(t * w * (1 - s), -h * s, w * s, h * s),
    depth: 0,
  }),
  "box that shares a corner and two sides": (w, h, _, s) => ({
    outer: box(0, 0, w, h),
    inner: box(w * (1 - s), h * (1 - s), w * s, h * s),
    depth: 1,
  }),
  "box corner to corner": (w, h, _, s) => ({ outer: box(0, 0, w, h), inner: box(w, h, w * s, h * s), depth: 0 }),
  "triangle with all corners on the sides": (w, h, t, s) => ({
    outer: box(0, 0, w, h),
    inner: run([t * w, 0], [w, s * h], [0, h * (1 - t)]),
    depth: 1,
  }),
  "lens on a chord of the outline": (w, h, t, s) => ({
    outer: run([0, 0], [w, 0], [w, h], [0, h]),
    inner: run([0, h * t * 0.5, -0.2 * s], [w, h * t * 0.5, -0.2 * s]),
    depth: 1,
  }),
};

const placedBy = (m: Similarity, pieces: readonly Piece[]): readonly Piece[] =>
  pieces.map((piece) => transformPiece(m, piece));
/** To three decimals, as files of other programs hold numbers; bulges as they are. */
const toFile = (pieces: readonly Piece[]): readonly Piece[] => {
  const round = ({ x, y }: Point): Point => ({ x: Number(x.toFixed(3)), y: Number(y.toFixed(3)) });
  return pieces.map(({ a, b, bulge }) => ({ a: round(a), b: round(b), bulge }));
};

describe("nesting of contours that touch", () => {
  it.each(Object.entries(TOUCHING))("%s: in any placement, either way round, as it is and rounded", (name, make) => {
    fc.assert(
      fc.property(
        fc.record({
          w: between(30, 90),
          h: between(30, 90),
          t: between(0, 1),
          s: between(0.05, 0.9),
          m: placements,
          turned: fc.boolean(),
          swapped: fc.boolean(),
          rounded: fc.boolean(),
        }),
        ({ w, h, t, s, m, turned, swapped, rounded: coarse }) => {
          const { outer, inner, depth } = make(w, h, t, s);
          fc.pre(!name.startsWith("lens") || t > 0.5);
          const scale = Math.hypot(m.a, m.b);
          // three decimals of something small, or of what is far out, is another drawing
          const file = coarse && scale * s > 1 ? toFile : (pieces: readonly Piece[]) => pieces;
          const both = [
            file(placedBy(m, outer)),
            file(placedBy(m, turned ? inner.map(reversePiece).reverse() : inner)),
          ];
          const found = nestingDepths(swapped ? both.reverse() : both);
          expect(swapped ? [...found].reverse() : found).toEqual([0, depth]);
        },
      ),
      { numRuns: 150 },
    );
  });

  it("the same in one another: later in earlier; crossing ones are holes of nobody", () => {
    expect(nestingDepths([box(0, 0, 9, 9), box(0, 0, 9, 9), disc(4, 4, 2), disc(4, 4, 2)])).toEqual([0, 1, 2, 3]);
    expect(nestingDepths([box(0, 0, 9, 9), box(5, 0, 8, 9)])).toEqual([0, 0]);
    expect(nestingDepths([])).toEqual([]);
  });
});
