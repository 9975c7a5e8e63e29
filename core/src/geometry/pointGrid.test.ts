import fc from "fast-check";
import { expect, it } from "vitest";
import { pointGrid } from "./pointGrid.ts";

const place = (reach: number) =>
  fc
    .record({ x: fc.integer({ min: -40, max: 40 }), y: fc.integer({ min: -40, max: 40 }) })
    .chain(({ x, y }) =>
      fc.constantFrom(0, 1e5, -1e9).map((off) => ({ x: off + (x * reach) / 3, y: (y * reach) / 3 - off })),
    );

it("a grid of points visits every point within reach, each once", () => {
  fc.assert(
    fc.property(
      fc
        .constantFrom(0.05, 1e-6, 3)
        .chain((reach) => fc.record({ reach: fc.constant(reach), points: fc.array(place(reach)), at: place(reach) })),
      ({ reach, points, at }) => {
        const visited: number[] = [];
        pointGrid(points, reach).near(at, (i) => visited.push(i));
        expect(new Set(visited).size).toBe(visited.length);
        points.forEach(({ x, y }, i) => {
          if (Math.abs(x - at.x) <= reach && Math.abs(y - at.y) <= reach) expect(visited).toContain(i);
        });
      },
    ),
  );
});
