import fc from "fast-check";
import { expect, test } from "vitest";
import { weldPoints } from "./weldPoints.ts";

test(
  "points within the tolerance, also through others, have the number of the first of them, near the origin " +
    "and far off",
  () => {
    const place = fc.tuple(fc.nat(9), fc.nat(9));
    fc.assert(
      fc.property(
        fc.array(place, { maxLength: 120, size: "max" }),
        fc.constantFrom(1e-6, 0.05, 1),
        fc.constantFrom(0, 1e5, -1e9),
        (all, tolerance, far) => {
          // steps of a little less than the tolerance, and gaps of a little more
          const points = all.map(
            ([x, y]) =>
              [far + (x + (x > 4 ? 0.2 : 0)) * 0.9 * tolerance, (y + (y > 6 ? 0.2 : 0)) * 0.9 * tolerance] as const,
          );
          const first = points.map((_, i) => i);
          const near = (i: number, j: number): boolean =>
            Math.hypot(points[i]![0] - points[j]![0], points[i]![1] - points[j]![1]) <= tolerance;
          for (let changed = true; changed;) {
            changed = false;
            for (let i = 0; i < points.length; i++)
              for (let j = 0; j < i; j++)
                if (near(i, j) && first[i] !== first[j]) {
                  first[i] = first[j] = Math.min(first[i]!, first[j]!);
                  changed = true;
                }
          }
          expect([...weldPoints(Float64Array.from(points.flat()), tolerance)]).toEqual(first);
        },
      ),
      { numRuns: 60 },
    );
  },
);
