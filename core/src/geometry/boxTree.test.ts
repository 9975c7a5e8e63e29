import fc from "fast-check";
import Flatbush from "flatbush";
import { expect, test } from "vitest";
import { boxTree, runTree } from "./boxTree.ts";

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
