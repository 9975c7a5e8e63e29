import fc from "fast-check";
import { describe, expect, it } from "vitest";
import type { Circle } from "../geometry/circle.ts";
import { carrierNearest, type Carrier } from "../geometry/curve.ts";
import { distance, type Point } from "../geometry/point.ts";
import { scaleOf, transformPoint, type Similarity } from "../geometry/transform.ts";
import { residualBound } from "../numeric/tolerance.ts";
import { between, placements, points } from "../testing/placements.ts";
import { circlesTouchingThree, circleOnDiameter, circleThrough } from "./index.ts";

const circle = (x: number, y: number, radius: number): Carrier => ({ kind: "circle", centre: { x, y }, radius });
const line = (p: Point, angle: number): Carrier => ({
  kind: "line",
  at: p,
  direction: { x: Math.cos(angle), y: Math.sin(angle) },
});
const placed = (m: Similarity, carrier: Carrier): Carrier => {
  if (carrier.kind === "circle")
    return { kind: "circle", centre: transformPoint(m, carrier.centre), radius: carrier.radius * scaleOf(m) };
  const [p, q] = [carrier.at, { x: carrier.at.x + carrier.direction.x, y: carrier.at.y + carrier.direction.y }].map(
    (one) => transformPoint(m, one),
  ) as [Point, Point];
  const length = distance(p, q);
  return { kind: "line", at: p, direction: { x: (q.x - p.x) / length, y: (q.y - p.y) / length } };
};
const solutions = (...all: [Carrier, Carrier, Carrier]) => {
  const found = circlesTouchingThree(...all);
  return found.ok ? found.value : [];
};
/** How far a circle is from touching a carrier, by the distances themselves. */
const miss = (carrier: Carrier, { centre, radius }: Circle): number => {
  const away = distance(centre, carrier.kind === "circle" ? carrier.centre : carrierNearest(carrier, centre));
  if (carrier.kind === "line") return Math.abs(away - radius);
  return Math.min(Math.abs(away - radius - carrier.radius), Math.abs(away - Math.abs(radius - carrier.radius)));
};

describe("circles touching three (Apollonius)", () => {
  it("between three circles that touch each other are Soddy's two: Descartes' circle theorem", () => {
    fc.assert(
      fc.property(placements, between(1, 9), between(1, 9), between(1, 9), (m, a, b, c) => {
        const [d, x] = [a + b, ((a + b) ** 2 + (a + c) ** 2 - (b + c) ** 2) / (2 * (a + b))];
        const all = [circle(0, 0, a), circle(d, 0, b), circle(x, Math.sqrt((a + c) ** 2 - x * x), c)].map((one) =>
          placed(m, one),
        );
        const radii = solutions(...(all as [Carrier, Carrier, Carrier])).map(({ radius }) => radius / scaleOf(m));
        const [p, q, r] = [1 / a, 1 / b, 1 / c];
        const root = 2 * Math.sqrt(p * q + q * r + r * p);
        const [inner, outer] = [1 / (p + q + r + root), 1 / Math.abs(p + q + r - root)];
        expect(radii.some((radius) => Math.abs(radius - inner) < 1e-5)).toBe(true);
        if (outer < 1e3)
          expect(radii.some((radius) => Math.abs(radius - outer) < 1e-4 * Math.max(1, outer * outer))).toBe(true);
      }),
    );
  });

  it("are eight for three circles apart, none of them beyond the others' tangents", () => {
    const three = [circle(0, 0, 1), circle(10, 0, 2), circle(4, 9, 1.5)] as const;
    for (const [i, j, k] of [
      [0, 1, 2],
      [2, 0, 1],
      [1, 0, 2],
    ] as const)
      expect(solutions(three[i], three[j], three[k])).toHaveLength(8); // whatever their order
    expect(solutions(circle(0, 0, 1), circle(10, 0, 1), circle(5, 8, 1))).toHaveLength(8);
  });
  it(
    "are four in and beside a triangle of lines: the incircle's radius is area over half the perimeter (Euclid " +
      "IV.4)",
    () => {
      const sides: [Carrier, Carrier, Carrier] = [
        line({ x: 0, y: 0 }, 0),
        line({ x: 0, y: 0 }, Math.PI / 2),
        line({ x: 4, y: 0 }, Math.atan2(3, -4)),
      ];
      const radii = solutions(...sides)
        .map(({ radius }) => radius)
        .sort((p, q) => p - q);
      expect(radii).toEqual([1, 2, 3, 6].map((radius) => expect.closeTo(radius, 12)));
    },
  );
  it("touch all three, at the origin and far from it, turned, mirrored and scaled", () => {
    const carriers = fc.oneof(
      fc.record({ p: points(60), r: between(0.5, 40) }).map(({ p, r }) => circle(p.x, p.y, r)),
      fc.record({ p: points(60), angle: between(0, 6.28) }).map(({ p, angle }) => line(p, angle)),
    );
    fc.assert(
      fc.property(placements, carriers, carriers, carriers, (m, a, b, c) => {
        const all = [a, b, c].map((one) => placed(m, one)) as [Carrier, Carrier, Carrier];
        for (const found of solutions(...all)) {
          const largest = Math.abs(found.centre.x) + Math.abs(found.centre.y) + found.radius + 1e5;
          // nearly the same place twice (circles that nearly touch in one point) is as good as doubles make it
          const bound = 64 * residualBound(Math.max(found.radius, 100 * scaleOf(m)), largest);
          all.forEach((carrier, i) => {
            expect(miss(carrier, found)).toBeLessThan(bound);
            expect(Math.abs(distance(found.touches[i]!, found.centre) - found.radius)).toBeLessThan(bound);
          });
        }
        expect(solutions(...all).length).toBeLessThanOrEqual(8);
      }),
      { numRuns: 300 },
    );
  });
  it("says so where there are none: one circle inside another and a third outside; twice the same", () => {
    expect(circlesTouchingThree(circle(0, 0, 9), circle(0, 0, 4), circle(30, 0, 2))).toMatchObject({
      refusal: { code: "no-tangent" },
    });
    expect(circlesTouchingThree(circle(0, 0, 9), circle(0, 0, 9), circle(30, 0, 2))).toMatchObject({
      refusal: { code: "curves-same" },
    });
    const level = [0, 1, 2].map((y) => line({ x: 0, y }, 0)) as [Carrier, Carrier, Carrier];
    expect(circlesTouchingThree(...level)).toMatchObject({ ok: false });
  });
});

describe("circles through points", () => {
  it("stand on their diameter (Thales: any point of it sees the ends square), and run through all three", () => {
    fc.assert(
      fc.property(placements, points(), points(), between(0, 6.28), (m, p0, q0, angle) => {
        fc.pre(distance(p0, q0) > 1);
        const [p, q] = [transformPoint(m, p0), transformPoint(m, q0)];
        const made = circleOnDiameter(p, q);
        if (!made.ok) throw new Error(made.refusal.code);
        const { centre, radius } = made.value;
        const on = { x: centre.x + radius * Math.cos(angle), y: centre.y + radius * Math.sin(angle) };
        const dot = (p.x - on.x) * (q.x - on.x) + (p.y - on.y) * (q.y - on.y);
        expect(Math.abs(dot)).toBeLessThan(radius * 64 * residualBound(radius, 1e5 + radius));
        fc.pre(Math.min(distance(on, p), distance(on, q)) > 0.05 * radius);
        const again = circleThrough(p, on, q);
        if (!again.ok) throw new Error(again.refusal.code);
        for (const one of [p, on, q])
          expect(Math.abs(distance(one, again.value.centre) - again.value.radius)).toBeLessThan(
            64 * residualBound(radius, 1e5 + radius),
          );
      }),
    );
  });
  it("refuses the same point twice, and three on one line", () => {
    expect(circleOnDiameter({ x: 1, y: 1 }, { x: 1, y: 1 })).toMatchObject({ refusal: { code: "same-point" } });
    expect(circleThrough({ x: 0, y: 0 }, { x: 1, y: 1 }, { x: 2, y: 2 })).toMatchObject({
      refusal: { code: "points-in-line" },
    });
    expect(circleThrough({ x: 0, y: 0 }, { x: 1, y: 1 }, { x: 0, y: 0 })).toMatchObject({
      refusal: { code: "same-point" },
    });
  });
});
