import fc from "fast-check";
import { describe, expect, it } from "vitest";
import type { Curve } from "../geometry/curve.ts";
import { endlessSide } from "../geometry/endless.ts";
import { between, points } from "../testing/placements.ts";
import { distanceFrom, parallelsOf } from "./parallel.ts";

const made = (of: Curve, side: { x: number; y: number }, by: number, count = 1): readonly Curve[] => {
  const outcome = parallelsOf(of, side, by, count);
  if (!outcome.ok) throw new Error(outcome.refusal.code);
  return outcome.value;
};

describe("parallels", () => {
  it("lie on the side of the pointer, each a step farther", () => {
    fc.assert(
      fc.property(
        points(),
        between(0, 6.2),
        points(),
        between(0.01, 50),
        fc.integer({ min: 1, max: 6 }),
        (through, angle, side, by, count) => {
          const of = { kind: "endless" as const, through, angle };
          const towards = Math.sign(endlessSide(of, side)) || 1;
          made(of, side, by, count).forEach((curve, i) => {
            if (curve.kind !== "endless") throw new Error();
            expect(curve.angle).toBe(angle);
            expect(endlessSide(of, curve.through)).toBeCloseTo(towards * (i + 1) * by, 9);
          });
        },
      ),
    );
  });

  it("are exact for upright and level lines: 6-5/8 right of 0 is 6.625", () => {
    const [upright] = made({ kind: "endless", through: { x: 0, y: 0 }, angle: Math.PI / 2 }, { x: 3, y: 1 }, 6.625);
    expect(upright).toEqual({ kind: "endless", through: { x: 6.625, y: 0 }, angle: Math.PI / 2 });
  });

  it("of a circle are concentric, and inside it end with the centre", () => {
    const circle: Curve = { kind: "circle", centre: { x: 1, y: 1 }, radius: 10 };
    expect(made(circle, { x: 20, y: 1 }, 2, 2)).toMatchObject([{ radius: 12 }, { radius: 14 }]);
    expect(made(circle, { x: 2, y: 1 }, 2, 2)).toMatchObject([{ radius: 8 }, { radius: 6 }]);
    expect(parallelsOf(circle, { x: 2, y: 1 }, 5, 2)).toMatchObject({
      refusal: { code: "parallel-shrinks-away", values: { limit: 5 } },
    });
    expect(distanceFrom(circle, { x: 1, y: 4 })).toBe(7);
  });
});
