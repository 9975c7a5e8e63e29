import fc from "fast-check";
import Flatbush from "flatbush";
import { expect, test } from "vitest";
import { boxesOf } from "./boxesOf.ts";
import { boxTree, runTree } from "./boxTree.ts";
import { circleBounds, circleHalves } from "./circle.ts";
import { pieceNearest, type Piece } from "./piece.ts";

const box = fc
  .tuple(fc.integer({ min: -50, max: 50 }), fc.integer({ min: -50, max: 50 }), fc.nat(12), fc.nat(12))
  .map(([x, y, w, h]) => [x, y, x + w, y + h] as const);
const drawing = fc.array(box, { minLength: 0, maxLength: 700, size: "max" });

test("pairs and finds are those that asking Flatbush for every box alone gives", () => {
  fc.assert(
    fc.property(drawing, fc.constantFrom(0, 0.5, 3), fc.nat(40), (all, reach, breaks) => {
      const boxes = Float64Array.from(all.flat());
      const linked = (i: number): boolean => breaks > 0 && i % breaks !== 1;
      const tree = breaks === 0 ? boxTree(boxes) : runTree(boxes, linked);
      const pairs: string[] = [];
      tree.pairs(reach, (i, j) => void pairs.push(`${i} ${j}`));
      const expected: string[] = [];
      const reference = all.length > 0 ? new Flatbush(all.length) : undefined;
      for (const b of all) reference!.add(...b);
      reference?.finish();
      const asked = (a: number, b: number, c: number, d: number): number[] =>
        reference?.search(a - reach, b - reach, c + reach, d + reach) ?? [];
      all.forEach((b, i) =>
        asked(...b).forEach((j) => void (j > i && !(j === i + 1 && linked(i)) && expected.push(`${i} ${j}`))),
      );
      expect(pairs.sort()).toEqual(expected.sort());
      const found: number[] = [];
      tree.within(3 - reach, -4 - reach, 3 + reach, -4 + reach, (i) => void found.push(i));
      const near = (p: number, q: number): number => p - q;
      expect(found.sort(near)).toEqual(asked(3, -4, 3, -4).sort(near));
    }),
    { numRuns: 60 },
  );
});

const middle = fc.constantFrom({ x: 0, y: 0 }, { x: 5e-7, y: 0 }, { x: 40, y: 7 }, { x: 1e5, y: -3 });
const circle = fc.record({ centre: middle, radius: fc.integer({ min: 1, max: 40 }).map((n) => n + (n % 3) * 1e-7) });

test("of circles about few middles only those are left out that lie apart, or that a rectangle misses", () => {
  fc.assert(
    fc.property(fc.array(circle, { minLength: 20, maxLength: 200, size: "max" }), fc.boolean(), (all, whole) => {
      const pieces = all.flatMap((one): readonly Piece[] => circleHalves(one));
      const curves = whole ? all : pieces;
      const circles = Float64Array.from(
        (whole ? all : all.flatMap((one) => [one, one])).flatMap(({ centre, radius }) => [centre.x, centre.y, radius]),
      );
      const boxes = boxesOf(curves);
      const [plain, ringed] = whole
        ? [boxTree(boxes), boxTree(boxes, circles)]
        : [runTree(boxes, (i) => i % 2 === 0), runTree(boxes, (i) => i % 2 === 0, circles)];
      const reach = 1e-7;
      const pairs = new Set<string>();
      ringed.pairs(reach, (i, j) => void pairs.add(`${i} ${j}`));
      plain.pairs(reach, (i, j) => {
        if (pairs.has(`${i} ${j}`)) return;
        const [x, y, r] = circles.subarray(3 * i, 3 * i + 3) as unknown as [number, number, number];
        const [u, v, s] = circles.subarray(3 * j, 3 * j + 3) as unknown as [number, number, number];
        expect(Math.hypot(x - u, y - v)).toBeLessThan(1e-5);
        expect(Math.abs(r - s)).toBeGreaterThan(2 * reach);
      });
      const { minX, maxY } = circleBounds(all[0]!);
      const found = new Set<number>();
      ringed.within(minX - 0.1, maxY - 3, minX + 1, maxY - 2, (i) => void found.add(i));
      plain.within(minX - 0.1, maxY - 3, minX + 1, maxY - 2, (i) => {
        if (found.has(i) || whole) return;
        // no place of the rectangle lies on what was left out
        for (const x of [minX - 0.1, minX + 0.45, minX + 1])
          for (const y of [maxY - 3, maxY - 2.5, maxY - 2])
            expect(pieceNearest(pieces[i]!, { x, y }).distance).toBeGreaterThan(1e-9);
      });
    }),
    { numRuns: 60 },
  );
});
