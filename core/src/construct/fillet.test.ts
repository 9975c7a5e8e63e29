import fc from "fast-check";
import { describe, expect, it } from "vitest";
import {
  arcOf,
  pieceDirection,
  pieceLength,
  pieceNearest,
  piecePoint,
  pieceRadius,
  transformPiece,
  type Piece,
} from "../geometry/piece.ts";
import { angleOf, cross, distance, dot, leftOf, subtract, type Point } from "../geometry/point.ts";
import { meetings } from "../intersect/meetings.ts";
import { scaleOf } from "../geometry/transform.ts";
import type { Outcome } from "../numeric/outcome.ts";
import { residualBound, RESOLUTION } from "../numeric/tolerance.ts";
import { between, placements } from "../testing/placements.ts";
import {
  chamferByAngle,
  chamferCorner,
  cornerSide,
  filletCorner,
  filletRadiusAt,
  filletsBetween,
  largestFillet,
  relieveCorner,
  RELIEFS,
  sharpCorner,
} from "./index.ts";

const value = <T>(outcome: Outcome<T>): T => {
  if (!outcome.ok) throw new Error(outcome.refusal.code);
  return outcome.value;
};
const line = (x1: number, y1: number, x2: number, y2: number): Piece => ({
  a: { x: x1, y: y1 },
  b: { x: x2, y: y2 },
  bulge: 0,
});
const kink = (p: Point, q: Point): number => Math.abs(cross(p, q)) + (dot(p, q) < 0 ? 2 : 0);

/**
 * Two edges with a corner at the origin: the first arrives along -x, the second leaves at `angle`; each straight or
 * bowed.
 */
const corners = fc
  .record({
    angle: between(0.25, 2.9),
    left: fc.boolean(),
    before: between(5, 40),
    after: between(5, 40),
    bows: fc.tuple(fc.constantFrom(0, 0.15, -0.15), fc.constantFrom(0, 0.12, -0.12)),
    m: placements,
  })
  .map(({ angle, left, before, after, bows, m }) => {
    const turn = left ? angle : -angle;
    const p: Piece = { a: { x: -before, y: 0 }, b: { x: 0, y: 0 }, bulge: bows[0] };
    const q: Piece = { a: { x: 0, y: 0 }, b: { x: after * Math.cos(turn), y: after * Math.sin(turn) }, bulge: bows[1] };
    return { p: transformPiece(m, p), q: transformPiece(m, q), m };
  })
  .filter(({ p, q }) => cornerSide(p, q) !== 0 && Math.abs(cross(pieceDirection(p, 1), pieceDirection(q, 0))) > 0.1);

const bow = fc.oneof(fc.constant(0), between(0.01, 0.95), between(-0.95, -0.01));
/** The same with edges bowed anyhow, in one place: some meet twice, some turn by nearly half a turn. */
const bowedCorners = fc
  .record({
    angle: between(0.15, 2.95),
    left: fc.boolean(),
    before: between(3, 43),
    after: between(3, 43),
    bows: fc.tuple(bow, bow),
  })
  .map(({ angle, left, before, after, bows }) => {
    const turn = left ? angle : -angle;
    const p: Piece = { a: { x: -before, y: 0 }, b: { x: 0, y: 0 }, bulge: bows[0] };
    const q: Piece = { a: { x: 0, y: 0 }, b: { x: after * Math.cos(turn), y: after * Math.sin(turn) }, bulge: bows[1] };
    return { p, q };
  })
  .filter(({ p, q }) => cornerSide(p, q) !== 0);

describe("a fillet in a corner", () => {
  it("touches both edges without a kink, has its radius, and the largest that fits fits exactly", () => {
    fc.assert(
      fc.property(corners, between(0.05, 0.98), ({ p, q, m }, part) => {
        const largest = largestFillet(p, q);
        fc.pre(largest !== undefined);
        const radius = part * largest!;
        const made = filletCorner(p, q, radius);
        fc.pre(made.ok);
        const { before, arc, after } = value(made);
        const bound = 200 * residualBound(Math.max(radius, 80 * scaleOf(m)), 1e5 + radius);
        expect(Math.abs(pieceRadius(arc) - radius)).toBeLessThan(bound + 1e-7 * radius);
        for (const [end, edge] of [
          [arc.a, p],
          [arc.b, q],
        ] as const)
          expect(pieceNearest(edge, end).distance).toBeLessThan(bound);
        if (before) {
          expect(before.b).toBe(arc.a);
          expect(kink(pieceDirection(before, 1), pieceDirection(arc, 0))).toBeLessThan(1e-5);
        }
        if (after) {
          expect(after.a).toBe(arc.b);
          expect(kink(pieceDirection(arc, 1), pieceDirection(after, 0))).toBeLessThan(1e-5);
        }
        const exact = filletCorner(p, q, largest!);
        expect(exact.ok).toBe(true);
        const more = filletCorner(p, q, largest! * (1 + 1e-6) + 2e-6);
        if (!more.ok)
          expect(
            more.refusal.values.limit === undefined ||
              Math.abs((more.refusal.values.limit as number) - largest!) < 1e-9 * largest!,
          ).toBe(true);
      }),
    );
  });

  // brute force over radii five powers of ten apart, for edges bowed up to nearly half a turn
  it("names the largest that fits: it works, a millionth more does not, and no other radius beyond it", () => {
    fc.assert(
      fc.property(bowedCorners, ({ p, q }) => {
        const largest = largestFillet(p, q);
        const working = Array.from({ length: 120 }, (_, k) => 0.01 * 10 ** (k / 24)).filter(
          (radius) => filletCorner(p, q, radius).ok,
        );
        if (largest === undefined) expect(working).toEqual([]);
        if (largest === undefined || largest === Infinity) return;
        expect(filletCorner(p, q, largest).ok).toBe(true);
        // touching places count as on an edge to a resolution, which a long radius turns into its square times that
        const more = largest * (1 + 1e-6) + RESOLUTION * (3 + largest ** 2);
        expect(filletCorner(p, q, more)).toMatchObject({ refusal: { values: { limit: expect.closeTo(largest, 6) } } });
        expect(Math.max(0, ...working)).toBeLessThan(more);
      }),
      { numRuns: 300 },
    );
    // by hand: a line 12 below the middle of an arc of R 13; a circle of 25 / 2 touches both where it makes half a turn
    const at = (angle: number): Point => ({ x: -5 + 13 * Math.cos(angle), y: 12 + 13 * Math.sin(angle) });
    const start = Math.atan2(-12, 5);
    const arc: Piece = { a: { x: 0, y: 0 }, b: at(1.75), bulge: Math.tan((1.75 - start) / 4) };
    expect(largestFillet(line(-60, 0, 0, 0), arc)).toBeCloseTo(12.5, 9);
  });

  it(
    "between lines takes R / tan(a / 2) off each (tangent length); the largest uses up the shorter edge, a " +
      "millionth more is refused",
    () => {
      fc.assert(
        fc.property(between(0.3, 2.8), between(3, 50), between(3, 50), (angle, a, b) => {
          const [p, q] = [line(-a, 0, 0, 0), line(0, 0, -b * Math.cos(angle), b * Math.sin(angle))];
          const short = Math.min(a, b);
          const largest = largestFillet(p, q)!;
          expect(largest).toBeCloseTo(short * Math.tan(angle / 2), 9);
          const half = value(filletCorner(p, q, largest / 2));
          expect(distance(half.arc.a, p.b)).toBeCloseTo(short / 2, 9);
          const whole = value(filletCorner(p, q, largest));
          expect([whole.before, whole.after].filter(Boolean)).toHaveLength(Math.abs(a - b) < 1e-7 ? 0 : 1);
          expect(filletCorner(p, q, largest + 1e-6)).toMatchObject({
            refusal: { code: "radius-too-large", values: { limit: largest } },
          });
        }),
      );
      const square = value(filletCorner(line(-10, 0, 0, 0), line(0, 0, 0, 10), 10));
      expect(square).toEqual({
        arc: { a: { x: -10, y: 0 }, b: { x: 0, y: 10 }, bulge: expect.closeTo(Math.tan(Math.PI / 8), 12) },
      });
    },
  );

  it("starts where the pointer says; a corner beside a tangent arc works; smooth joints are no corners", () => {
    const [p, q] = [line(-20, 0, 0, 0), line(0, 0, 0, 8)];
    expect(filletRadiusAt(p, q, { x: -3, y: 0 })).toBeCloseTo(3, 12);
    // q runs on into a tangent arc: a fillet that uses up all of q still ends tangent to it
    expect(value(filletCorner(p, q, 8)).after).toBeUndefined();
    const arc: Piece = { a: { x: 0, y: 0 }, b: { x: 10, y: 10 }, bulge: Math.tan(Math.PI / 8) };
    expect(filletCorner(p, arc, 2)).toMatchObject({ refusal: { code: "corner-smooth" } });
    expect(filletCorner(p, q, 0)).toMatchObject({ refusal: { code: "value-not-positive" } });
  });

  it("is taken back to the sharp corner, also of arcs", () => {
    fc.assert(
      fc.property(corners, between(0.05, 0.6), ({ p, q, m }, part) => {
        // where the edges meet again there are two corners
        fc.pre(meetings({ kind: "piece", ...p }, { kind: "piece", ...q }, RESOLUTION).length === 1);
        const most = Math.min(largestFillet(p, q) ?? 0, pieceLength(p) / 2, pieceLength(q) / 2);
        const made = filletCorner(p, q, part * most);
        fc.pre(made.ok);
        const { before, arc, after } = value(made);
        fc.pre(before !== undefined && after !== undefined);
        const sharp = sharpCorner(before!, arc, after!);
        fc.pre(sharp.ok);
        expect(distance(value(sharp).before.b, p.b)).toBeLessThan(1e-6 * scaleOf(m) + 1e-8);
        expect(distance(piecePoint(value(sharp).after, 0.5), piecePoint(q, 0.5))).toBeLessThan(
          1e-5 * scaleOf(m) + 1e-7,
        );
      }),
    );
  });
});

describe("a fillet between two picked curves", () => {
  const circle = { kind: "circle" as const, centre: { x: 0, y: 0 }, radius: 10 };
  it("of parallel lines is the half circle, by itself; another radius is refused naming it", () => {
    const [a, b] = [line(0, 0, 20, 0), line(0, 6, 25, 6)].map((piece) => ({ kind: "piece" as const, ...piece }));
    const [half] = value(filletsBetween(a!, { x: 15, y: 0 }, b!, { x: 15, y: 6 }, undefined));
    expect(half!.arc).toMatchObject({ a: { x: 20, y: 0 }, b: { x: 20, y: 6 } });
    expect(Math.abs(half!.arc.bulge)).toBeCloseTo(1, 12);
    expect(half!.b).toMatchObject({ a: { x: 0, y: 6 }, b: { x: 20, y: 6 } });
    expect(filletsBetween(a!, { x: 15, y: 0 }, b!, { x: 15, y: 6 }, 4)).toMatchObject({
      refusal: { values: { limit: 3 } },
    });
  });
  it.each([
    [
      "lines that do not reach each other",
      { kind: "piece", ...line(-20, 0, -5, 0) },
      { x: -10, y: 0 },
      { kind: "piece", ...line(0, 5, 0, 20) },
      { x: 0, y: 12 },
      3,
    ],
    ["a line and a circle", { kind: "piece", ...line(-30, 4, 30, 4) }, { x: -20, y: 4 }, circle, { x: -8, y: 8 }, 3],
    ["two circles", circle, { x: 8, y: 6 }, { kind: "circle", centre: { x: 25, y: 0 }, radius: 8 }, { x: 18, y: 5 }, 6],
    [
      "a line and an arc",
      { kind: "piece", ...line(-30, 4, 30, 4) },
      { x: -20, y: 4 },
      { kind: "piece", a: { x: -10, y: 0 }, b: { x: 10, y: 0 }, bulge: -1 },
      { x: -6, y: 8 },
      2,
    ],
  ] as const)("%s: tangent to both, on the picked sides", (_, a, pickA, b, pickB, radius) => {
    const [best] = value(filletsBetween(a, pickA, b, pickB, radius));
    const { centre } = arcOf(best!.arc)!;
    for (const [curve, end] of [
      [a, best!.arc.a],
      [b, best!.arc.b],
    ] as const) {
      const tangent = leftOf(subtract(end, centre));
      const own =
        curve.kind === "circle"
          ? leftOf(subtract(end, curve.centre))
          : pieceDirection(curve, pieceNearest(curve, end).t);
      expect(
        Math.abs(cross(tangent, own)) / (Math.hypot(tangent.x, tangent.y) * Math.hypot(own.x, own.y)),
      ).toBeLessThan(1e-9);
      expect(Math.abs(distance(end, centre) - radius)).toBeLessThan(1e-9);
    }
  });
});

describe("chamfers and reliefs", () => {
  it("take their lengths off both edges, or one and an angle (sine rule)", () => {
    fc.assert(
      fc.property(corners, between(0.05, 0.9), between(0.05, 0.9), ({ p, q, m }, s, t) => {
        const [back, ahead] = [s * pieceLength(p), t * pieceLength(q)];
        const { before, between: cut, after } = value(chamferCorner(p, q, back, ahead));
        expect(Math.abs(pieceLength(p) - pieceLength(before!) - back)).toBeLessThan(1e-6 * scaleOf(m) + 1e-8);
        expect(Math.abs(pieceLength(q) - pieceLength(after!) - ahead)).toBeLessThan(1e-6 * scaleOf(m) + 1e-8);
        expect([cut[0]!.a, cut[0]!.b]).toEqual([before!.b, after!.a]);
      }),
    );
    const [p, q] = [line(-20, 0, 0, 0), line(0, 0, 0, 12)];
    expect(value(chamferByAngle(p, q, 5, Math.PI / 6))).toBeCloseTo(5 * Math.tan(Math.PI / 6), 12);
    expect(chamferByAngle(p, q, 5, Math.PI / 2)).toMatchObject({ refusal: { code: "chamfer-angle" } });
    expect(chamferCorner(p, q, 5, 12.1)).toMatchObject({ refusal: { code: "cut-too-large", values: { limit: 12 } } });
    expect(value(chamferCorner(p, q, 20, 12))).toEqual({ between: [line(-20, 0, 0, 12)] });
  });
  it(
    "relieve an inside corner so that the cutter's circle reaches it, and leave nothing of the square corner " +
      "standing",
    () => {
      fc.assert(
        fc.property(between(0.6, 2.6), between(0.5, 3), fc.constantFrom(...RELIEFS), (angle, radius, kind) => {
          // turns left: free space left
          const [p, q] = [line(-40, 0, 0, 0), line(0, 0, -40 * Math.cos(angle), 40 * Math.sin(angle))];
          const { between: cut } = value(relieveCorner(p, q, radius, kind, 1));
          const arc = arcOf(cut[0]!)!;
          expect(arc.radius).toBeCloseTo(radius, 9);
          // the corner lies on the circle, or inside it
          expect(distance(arc.centre, { x: 0, y: 0 })).toBeLessThan(radius + 1e-9);
          // the arc bulges away from the free space
          const middle = piecePoint(cut[0]!, 0.5);
          const inFree =
            angleOf(middle) > Math.PI - angle + 1e-9 &&
            angleOf(middle) < Math.PI - 1e-9 &&
            Math.hypot(middle.x, middle.y) > 1e-9;
          expect(inFree).toBe(false);
        }),
      );
      const [p, q] = [line(-40, 0, 0, 0), line(0, 0, 0, 40)];
      expect(relieveCorner(p, q, 3, "round", -1)).toMatchObject({ refusal: { code: "corner-outside" } });
      expect(relieveCorner({ ...p, bulge: 0.1 }, q, 3, "round", 1)).toMatchObject({
        refusal: { code: "relief-straight" },
      });
    },
  );
});
