import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { carrierOf, type Curve } from "../geometry/curve.ts";
import { endlessSide, transformEndless, type Endless } from "../geometry/endless.ts";
import { distance, type Point } from "../geometry/point.ts";
import { scaleOf, transformPoint } from "../geometry/transform.ts";
import type { Outcome } from "../numeric/outcome.ts";
import { between, placements, points } from "../testing/placements.ts";
import { bisectorsOf, cutPartOf, dividingPoints, lineSquareTo, lineThrough, tangentsAtAngle } from "./layoutLines.ts";

const got = <T>(outcome: Outcome<T>): T => {
  if (!outcome.ok) throw new Error(outcome.refusal.code);
  return outcome.value;
};
const piece = (a: Point, b: Point, bulge = 0): Curve => ({ kind: "piece", a, b, bulge });
const away = (line: Endless, p: Point): number => Math.abs(endlessSide(line, p));

describe("layout lines", () => {
  it("through two points hold both, and are exactly level or upright where the points are", () => {
    fc.assert(
      fc.property(points(), points(), placements, (p, q, placement) => {
        fc.pre(distance(p, q) > 0.01);
        const [a, b] = [transformPoint(placement, p), transformPoint(placement, q)];
        const line = got(lineThrough(a, b));
        expect(Math.max(away(line, a), away(line, b))).toBeLessThan(1e-9 * scaleOf(placement) * 300 + 1e-9);
      }),
    );
    expect(got(lineThrough({ x: 1, y: 2 }, { x: 1, y: 9 })).angle).toBe(Math.PI / 2);
    expect(lineThrough({ x: 1, y: 2 }, { x: 1, y: 2 })).toMatchObject({ refusal: { code: "same-point" } });
  });

  it("square to an edge run at a right angle to it, through the point; square to a circle through its centre", () => {
    fc.assert(
      fc.property(points(), points(), points(), (a, b, p) => {
        fc.pre(distance(a, b) > 0.01);
        const line = got(lineSquareTo(piece(a, b), p));
        expect(away(line, p)).toBeLessThan(1e-9);
        expect(Math.cos(line.angle) * (b.x - a.x) + Math.sin(line.angle) * (b.y - a.y)).toBeCloseTo(0, 9);
      }),
    );
    expect(
      away(got(lineSquareTo({ kind: "circle", centre: { x: 3, y: 4 }, radius: 1 }, { x: 0, y: 0 })), { x: 3, y: 4 }),
    ).toBeCloseTo(0, 12);
    expect(lineSquareTo({ kind: "circle", centre: { x: 3, y: 4 }, radius: 1 }, { x: 3, y: 4 })).toMatchObject({
      refusal: { code: "same-point" },
    });
  });

  it(
    "every point of a bisector is as far from one line as from the other, also where the lines do not reach " +
      "each other (Euclid I.9)",
    () => {
      fc.assert(
        fc.property(
          points(),
          between(0, 3),
          between(0.05, 3),
          between(1, 40),
          between(1, 40),
          between(-50, 50),
          placements,
          (corner, angle, opening, near, far, t, placement) => {
            const along = (turn: number, reach: number): Point => ({
              x: corner.x + reach * Math.cos(turn),
              y: corner.y + reach * Math.sin(turn),
            });
            const place = (curve: [Point, Point]): Curve =>
              piece(transformPoint(placement, curve[0]), transformPoint(placement, curve[1]));
            const one = place([along(angle, near), along(angle, near + 5)]);
            const other = place([along(angle + opening, far), along(angle + opening, far + 5)]);
            const [pickA, pickB] = [(one as { a: Point }).a, (other as { a: Point }).a];
            const lines = got(bisectorsOf(one, pickA, other, pickB));
            expect(lines).toHaveLength(2);
            const scale = scaleOf(placement);
            const endless = (curve: Curve): Endless => {
              const carrier = carrierOf(curve);
              if (carrier?.kind !== "line") throw new Error();
              return { through: carrier.at, angle: Math.atan2(carrier.direction.y, carrier.direction.x) };
            };
            for (const { through, angle: run } of lines) {
              const p = { x: through.x + t * scale * Math.cos(run), y: through.y + t * scale * Math.sin(run) };
              expect(Math.abs(away(endless(one), p) - away(endless(other), p))).toBeLessThan(1e-6 * scale + 1e-8);
            }
            // the first one runs between the two picks
            const sides = [pickA, pickB].map((pick) => Math.sign(endlessSide(lines[0]!, pick)));
            expect(sides[0]).toBe(-sides[1]!);
          },
        ),
      );
    },
  );

  it("between parallel lines the middle one; of the same line twice none", () => {
    const [middle] = got(
      bisectorsOf(piece({ x: 0, y: 0 }, { x: 5, y: 0 }), { x: 0, y: 0 }, piece({ x: 9, y: 7 }, { x: 2, y: 7 }), {
        x: 2,
        y: 7,
      }),
    );
    expect(middle).toEqual({ through: { x: 0, y: 3.5 }, angle: 0 });
    expect(
      bisectorsOf(piece({ x: 0, y: 0 }, { x: 5, y: 0 }), { x: 0, y: 0 }, piece({ x: 6, y: 0 }, { x: 9, y: 0 }), {
        x: 6,
        y: 0,
      }),
    ).toMatchObject({ refusal: { code: "curves-same" } });
  });

  it("tangents at an angle stand a radius from the centre, the one near the pointer first (Euclid III.16)", () => {
    fc.assert(
      fc.property(
        points(),
        between(0.1, 20),
        between(0, 6),
        points(),
        placements,
        (centre, radius, angle, near, placement) => {
          const lines = tangentsAtAngle({ centre, radius }, angle, near);
          for (const line of lines) expect(away(line, centre)).toBeCloseTo(radius, 9);
          expect(away(lines[0]!, near)).toBeLessThanOrEqual(away(lines[1]!, near));
          const placed = transformEndless(placement, lines[0]!);
          expect(away(placed, transformPoint(placement, centre)) / scaleOf(placement) / radius).toBeCloseTo(1, 4);
        },
      ),
    );
  });

  it("dividing points stand equally far apart: chords 2 R sin(π/n) round a circle (Machinery's Handbook)", () => {
    fc.assert(
      fc.property(fc.integer({ min: 2, max: 24 }), between(0.5, 50), points(), (n, radius, start) => {
        const round = got(dividingPoints({ kind: "circle", centre: { x: 1, y: 2 }, radius }, n, start));
        round.forEach((p, i) =>
          expect(distance(p, round[(i + 1) % n]!)).toBeCloseTo(2 * radius * Math.sin(Math.PI / n), 9),
        );
        const straight = got(dividingPoints(piece({ x: 0, y: 0 }, { x: 10, y: 5 }), n, start));
        expect(straight).toHaveLength(n - 1);
        straight.forEach((p, i) => expect(p.x).toBeCloseTo(((i + 1) * 10) / n, 12));
      }),
    );
    expect(dividingPoints({ kind: "endless", through: { x: 0, y: 0 }, angle: 0 }, 3, { x: 0, y: 0 })).toMatchObject({
      refusal: { code: "cannot-divide" },
    });
  });

  it("a layout line is cut at the meetings next to the pick, with their own numbers", () => {
    const layout: Curve = { kind: "endless", through: { x: 0, y: 0 }, angle: 0 };
    const others = [-3, 2, 7].map((x) => piece({ x, y: -1 }, { x, y: 1 }));
    expect(got(cutPartOf(layout, others, { x: 4, y: 0.2 }))).toEqual(piece({ x: 2, y: 0 }, { x: 7, y: 0 }));
    expect(cutPartOf(layout, others, { x: 8, y: 0 })).toMatchObject({ refusal: { code: "layout-not-crossed" } });
  });
});
