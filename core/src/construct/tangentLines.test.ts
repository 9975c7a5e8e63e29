import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { transformCircle, type Circle } from "../geometry/circle.ts";
import { distance, dot, subtract } from "../geometry/point.ts";
import { scaleOf, transformPoint } from "../geometry/transform.ts";
import { residualBound } from "../numeric/tolerance.ts";
import { between, placements } from "../testing/placements.ts";
import { tangentLinesFromPoint, tangentLinesOfCircles, type TangentLine } from "./tangentLines.ts";

const origin = { x: 0, y: 0 };
const circle = (x: number, radius: number): Circle => ({ centre: { x, y: 0 }, radius });
const lines = (from: Circle, to: Circle): readonly TangentLine[] => {
  const outcome = tangentLinesOfCircles(from, to);
  if (!outcome.ok) throw new Error(outcome.refusal.code);
  return outcome.value;
};
const code = (outcome: { ok: boolean; refusal?: { code: string } }): string | undefined => outcome.refusal?.code;

/** How far a touching point is from being one: off the circle, or its radius not square to the line. */
const residual = (round: Circle, at: { x: number; y: number }, line: TangentLine): number => {
  const length = distance(line.from, line.to);
  const along = dot(subtract(at, round.centre), subtract(line.to, line.from)) / length;
  return Math.max(Math.abs(distance(at, round.centre) - round.radius), Math.abs(along));
};

describe("tangent lines", () => {
  it("outer and crossed belts over two pulleys (Machinery's Handbook): √(d² - (R - r)²) and √(d² - (R + r)²)", () => {
    fc.assert(
      fc.property(between(0.5, 5), between(0.5, 5), between(1.01, 20), (R, r, apart) => {
        const d = (R + r) * apart;
        const lengths = lines(circle(0, R), circle(d, r)).map((line) => distance(line.from, line.to));
        const [outer, crossed] = [Math.sqrt(d * d - (R - r) ** 2), Math.sqrt(d * d - (R + r) ** 2)];
        [outer, outer, crossed, crossed].forEach((length, i) =>
          expect(Math.abs(lengths[i]! - length)).toBeLessThan(1e-9 * d),
        );
      }),
    );
  });

  it("touch both circles squarely, wherever they are put", () => {
    fc.assert(
      fc.property(between(0.1, 5), between(0.1, 5), between(0.2, 20), placements, (R, r, d, placement) => {
        const [a, b] = [transformCircle(placement, circle(0, R)), transformCircle(placement, circle(d, r))];
        const outcome = tangentLinesOfCircles(a, b);
        if (!outcome.ok) {
          expect(d).toBeLessThanOrEqual(Math.abs(R - r) * (1 + 1e-9));
          return;
        }
        const scale = scaleOf(placement);
        const bound = residualBound(scale * (d + R + r), 1e5 + scale * 25);
        for (const line of outcome.value)
          if (distance(line.from, line.to) > 1e-3 * scale) {
            expect(residual(a, line.from, line)).toBeLessThanOrEqual(bound);
            expect(residual(b, line.to, line)).toBeLessThanOrEqual(bound);
          }
      }),
    );
  });

  it.each([
    ["apart", 10, 4],
    ["touching from outside", 5, 3],
    ["crossing", 4, 2],
    ["touching from inside", 1, 1],
  ])("%s at %d: %d lines", (_, d, count) => expect(lines(circle(0, 3), circle(d, 2))).toHaveLength(count));

  it("has none with one circle inside the other, or the same twice, and says which", () => {
    expect(code(tangentLinesOfCircles(circle(0, 3), circle(0.5, 2)))).toBe("circle-inside-circle");
    expect(code(tangentLinesOfCircles(circle(0, 3), circle(0, 2)))).toBe("circle-inside-circle");
    expect(code(tangentLinesOfCircles(circle(1, 3), circle(1, 3)))).toBe("circles-same");
  });

  it(
    "from a point: the power of a point d² - r² (Euclid III.36); inside there is none, on the circle one of no " +
      "length",
    () => {
      fc.assert(
        fc.property(between(1.0001, 100), placements, (d, placement) => {
          const round = transformCircle(placement, circle(d, 1));
          const p = transformPoint(placement, origin);
          const outcome = tangentLinesFromPoint(p, round);
          if (!outcome.ok) throw new Error(outcome.refusal.code);
          expect(outcome.value).toHaveLength(2);
          const scale = scaleOf(placement);
          // near the circle the touching point is as uncertain as the square root of the coordinates' own rounding
          for (const { to } of outcome.value) {
            const slack = (1e-9 * d * d + (8e-11 * d) / scale) * 2;
            expect(Math.abs((distance(p, to) / scale) ** 2 - (d * d - 1))).toBeLessThan(slack);
          }
        }),
      );
      expect(code(tangentLinesFromPoint({ x: 0.9, y: 0 }, circle(0, 1)))).toBe("point-inside-circle");
      expect(code(tangentLinesFromPoint(origin, circle(0, 1)))).toBe("point-inside-circle");
      const on = tangentLinesFromPoint({ x: 1, y: 0 }, circle(0, 1));
      expect(on.ok && on.value).toEqual([{ from: { x: 1, y: 0 }, to: { x: 1, y: 0 } }]);
    },
  );
});
