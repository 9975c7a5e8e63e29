import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { transformCircle } from "../geometry/circle.ts";
import { carrierOf, type Carrier, type Curve } from "../geometry/curve.ts";
import { transformEndless } from "../geometry/endless.ts";
import { pieceRadius, sweepOf } from "../geometry/piece.ts";
import { cross, distance, subtract } from "../geometry/point.ts";
import { scaleOf, type Similarity } from "../geometry/transform.ts";
import { residualBound } from "../numeric/tolerance.ts";
import { between, placements, points } from "../testing/placements.ts";
import { arcsByPicks, arcsOfTangentCircle, tangentCircles } from "./tangentArcs.ts";

const round = (x: number, radius: number): Carrier => ({ kind: "circle", centre: { x, y: 0 }, radius });
const level = (y: number): Carrier => ({ kind: "line", at: { x: 0, y }, direction: { x: 1, y: 0 } });
const upright: Carrier = { kind: "line", at: { x: 0, y: 0 }, direction: { x: 0, y: 1 } };
const place = (m: Similarity, curve: Curve): Carrier =>
  carrierOf(
    curve.kind === "circle"
      ? { kind: "circle", ...transformCircle(m, curve) }
      : { kind: "endless", ...transformEndless(m, curve as never) },
  );
const refusal = (a: Carrier, b: Carrier, r: number): { code: string; values: Record<string, unknown> } => {
  const outcome = tangentCircles(a, b, r);
  if (outcome.ok) throw new Error(`${outcome.value.length} found`);
  return outcome.refusal;
};

/** How far a carrier is from a place. */
const away = (carrier: Carrier, p: { x: number; y: number }): number =>
  carrier.kind === "circle"
    ? Math.abs(distance(p, carrier.centre) - carrier.radius)
    : Math.abs(cross(carrier.direction, subtract(p, carrier.at)));

describe("circles of a radius that touch two", () => {
  it("touch both at that radius, wherever the two are put", () => {
    let [tried, touched] = [0, 0];
    const curves: fc.Arbitrary<Curve> = fc.oneof(
      fc
        .record({ centre: points(10), radius: between(0.2, 8) })
        .map((circle): Curve => ({ kind: "circle", ...circle })),
      fc.record({ through: points(10), angle: between(0, 3) }).map((line): Curve => ({ kind: "endless", ...line })),
    );
    fc.assert(
      fc.property(curves, curves, between(0.1, 30), placements, (one, other, r, placement) => {
        const scale = scaleOf(placement);
        const [a, b] = [place(placement, one), place(placement, other)];
        const found = tangentCircles(a, b, r * scale);
        tried += 1;
        if (!found.ok) {
          expect([
            "radius-too-small",
            "radius-too-large",
            "lines-parallel",
            "circles-same",
            "curves-same",
            "no-tangent",
            "radius-no-fit",
          ]).toContain(found.refusal.code);
          return;
        }
        touched += 1;
        for (const { centre, onA, onB } of found.value) {
          // nearly parallel lines meet far away: the bound goes by how far
          const bound =
            residualBound(scale * 40, Math.max(1e5 + scale * 60, Math.abs(centre.x), Math.abs(centre.y))) * 4;
          for (const at of [onA, onB]) expect(Math.abs(distance(centre, at) - r * scale)).toBeLessThanOrEqual(bound);
          expect(away(a, onA)).toBeLessThanOrEqual(bound);
          expect(away(b, onB)).toBeLessThanOrEqual(bound);
          // so far out that doubles are coarser than the circle, its ends tell nothing of it
          if (bound > 1e-3 * r * scale) continue;
          for (const arc of arcsOfTangentCircle({ centre, onA, onB })) {
            // r = chord / (2 sin(sweep / 2)): what the ends are off tells by r / chord, what the sweep is off by 1 /
            // sweep
            const told = 2 + (4 * r * scale) / distance(onA, onB) + 4 / Math.abs(sweepOf(arc.bulge));
            expect(Math.abs(pieceRadius(arc) - r * scale)).toBeLessThanOrEqual(bound * told);
          }
        }
      }),
      { numRuns: 500 },
    );
    // about half of two random curves can be touched by a random circle: enough of them were looked at
    expect(touched).toBeGreaterThan(tried / 4);
  });

  it.each([
    ["lines that cross", level(0), upright, 1, 4],
    ["a line that passes a circle, a little over half the gap", level(5), round(0, 3), 1.5, 2],
    ["a line through a circle", level(0), round(0, 3), 1, 8],
    ["circles apart, larger than all", round(0, 1), round(6, 1.5), 20, 8],
    ["circles apart, only between them", round(0, 1), round(6, 1.5), 2, 2],
    ["circles that cross", round(0, 3), round(4, 3), 0.25, 8],
    ["one inside the other, in the ring", round(0, 5), round(1, 2), 1.5, 2],
  ])("%s: count", (_, a, b, r, count) => {
    const found = tangentCircles(a, b, r);
    expect(found.ok && found.value.length).toBe(count);
  });

  it("names the nearest radius that works, and that radius works", () => {
    // boss to boss: the smallest that spans the gap is half of it
    const small = refusal(round(0, 1.125), round(6.625, 0.75), 2);
    expect([small.code, small.values.limit]).toEqual(["radius-too-small", (6.625 - 1.125 - 0.75) / 2]);
    const limit = tangentCircles(round(0, 1.125), round(6.625, 0.75), (6.625 - 1.125 - 0.75) / 2);
    expect(limit.ok && limit.value).toHaveLength(1);
    // in a ring 2 wide on one side and 4 on the other: from 1 to 2 between the walls, from 3 to 4 round the inner
    // circle
    expect(refusal(round(0, 5), round(1, 2), 2.4).values.limit).toBe(2);
    expect(refusal(round(0, 5), round(1, 2), 2.6).values.limit).toBe(3);
    expect(refusal(level(5), round(0, 3), 0.4)).toMatchObject({ code: "radius-too-small", values: { limit: 1 } });
    fc.assert(
      fc.property(between(0.5, 4), between(0.5, 4), between(0.3, 20), between(0.01, 12), (R, r, d, typed) => {
        const outcome = tangentCircles(round(0, R), round(d, r), typed);
        if (outcome.ok || outcome.refusal.values.limit === undefined) return;
        expect(tangentCircles(round(0, R), round(d, r), outcome.refusal.values.limit as number).ok).toBe(true);
      }),
    );
  });

  it("between parallel lines only half their distance fits", () => {
    expect(refusal(level(0), level(7), 3)).toMatchObject({ code: "radius-no-fit", values: { limit: 3.5 } });
    const fits = tangentCircles(level(0), level(7), 3.5, { x: 4, y: 1 });
    expect(fits.ok && fits.value).toEqual([{ centre: { x: 4, y: 3.5 }, onA: { x: 4, y: 0 }, onB: { x: 4, y: 7 } }]);
  });

  it("refuses what is no radius, and the same curve twice", () => {
    expect(refusal(level(0), upright, 0).code).toBe("value-not-positive");
    expect(refusal(level(0), upright, NaN).code).toBe("value-not-positive");
    expect(refusal(round(0, 2), round(0, 2), 1).code).toBe("curves-same");
  });

  it("puts the arcs nearest to the picks first, short ones before long ones", () => {
    const found = tangentCircles(level(0), upright, 1);
    if (!found.ok) throw new Error();
    const arcs = arcsByPicks(found.value, { x: 2, y: 0 }, { x: 0, y: 2 });
    expect(arcs).toHaveLength(8);
    expect(arcs[0]!.a.x).toBeCloseTo(1, 15);
    expect(arcs[0]!.b.y).toBeCloseTo(1, 15);
    expect(arcs.map(({ bulge }) => Math.abs(bulge) < 1)).toEqual([true, true, true, true, false, false, false, false]);
  });
});
