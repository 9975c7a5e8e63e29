import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { pieceLength, piecePoint, pieceRadius, sweepOf, type Piece } from "../geometry/piece.ts";
import { angleOf, distance, subtract, type Point } from "../geometry/point.ts";
import { scaleOf, transformPoint } from "../geometry/transform.ts";
import type { Outcome } from "../numeric/outcome.ts";
import { residualBound } from "../numeric/tolerance.ts";
import { between, placements, points } from "../testing/placements.ts";
import {
  arcFrom,
  arcFromWithRadius,
  arcsAbout,
  arcsByHeight,
  arcsByRadius,
  arcsBySweep,
  arcsBySweepAbout,
  arcThrough,
  arrivalOf,
  bowTowards,
  departureOf,
  parallelPiece,
  shortestLine,
  feetOf,
  arcHeadingFor,
} from "./index.ts";

const value = <T>(outcome: Outcome<T>): T => {
  if (!outcome.ok) throw new Error(outcome.refusal.code);
  return outcome.value;
};
const turnBetween = (p: number, q: number): number => Math.abs(Math.atan2(Math.sin(p - q), Math.cos(p - q)));
const pairs = fc.tuple(placements, points(), points()).filter(([, a, b]) => distance(a, b) > 1);
const bound = (size: number): number => 16 * residualBound(size, 1e5 + size);

describe("arcs", () => {
  it("through three points run through them in that order", () => {
    fc.assert(
      fc.property(pairs, between(-1.5, 1.5), between(0.1, 0.9), ([m, a0, b0], bulge, t) => {
        fc.pre(Math.abs(bulge) > 0.02);
        const [a, b] = [transformPoint(m, a0), transformPoint(m, b0)];
        const arc: Piece = { a, b, bulge };
        const found = value(arcThrough(a, piecePoint(arc, t), b));
        expect(Math.abs(sweepOf(found.bulge) - sweepOf(bulge))).toBeLessThan(1e-3);
        expect(distance(piecePoint(found, 0.5), piecePoint(arc, 0.5))).toBeLessThan(2e4 * bound(pieceRadius(arc)));
      }),
    );
    expect(value(arcThrough({ x: 0, y: 0 }, { x: 5, y: 0 }, { x: 9, y: 0 })).bulge).toBe(0);
    expect(arcThrough({ x: 0, y: 0 }, { x: 12, y: 0 }, { x: 9, y: 0 })).toMatchObject({ ok: false });
  });

  it("of a radius between two points are four, short before long; half the chord gives the two half circles", () => {
    fc.assert(
      fc.property(pairs, between(1.0001, 20), ([m, a0, b0], times) => {
        const [a, b] = [transformPoint(m, a0), transformPoint(m, b0)];
        const radius = (times * distance(a, b)) / 2;
        const arcs = value(arcsByRadius(a, b, radius));
        expect(arcs).toHaveLength(4);
        for (const arc of arcs) expect(Math.abs(pieceRadius(arc) - radius)).toBeLessThan(bound(radius) + 1e-9 * radius);
        // circular segment (Machinery's Handbook): chord = 2 r sin(sweep / 2)
        for (const arc of arcs)
          expect(2 * radius * Math.sin(Math.abs(sweepOf(arc.bulge)) / 2)).toBeCloseTo(distance(a, b), 3);
        expect(arcs.map(({ bulge }) => Math.abs(bulge) < 1)).toEqual([true, true, false, false]);
      }),
    );
    const half = value(arcsByRadius({ x: 0, y: 0 }, { x: 8, y: 0 }, 4));
    expect(half.map(({ bulge }) => bulge)).toEqual([1, -1]);
    expect(arcsByRadius({ x: 0, y: 0 }, { x: 8, y: 0 }, 3.999999)).toMatchObject({
      refusal: { code: "radius-too-small", values: { limit: 4 } },
    });
  });

  it("by sweep, by height and about a centre are what was asked", () => {
    fc.assert(
      fc.property(pairs, between(0.05, 6.2), ([m, a0, b0], sweep) => {
        const [a, b] = [transformPoint(m, a0), transformPoint(m, b0)];
        const scale = scaleOf(m);
        for (const arc of value(arcsBySweep(a, b, sweep))) expect(Math.abs(sweepOf(arc.bulge))).toBeCloseTo(sweep, 12);
        const height = 0.3 * distance(a, b);
        for (const arc of value(arcsByHeight(a, b, height))) {
          const middle = { x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 };
          expect(Math.abs(distance(piecePoint(arc, 0.5), middle) - height)).toBeLessThan(bound(height + scale));
        }
        const about = value(arcsBySweepAbout(a, b, sweep));
        about.forEach((arc, i) => {
          expect(Math.abs(pieceLength(arc) - sweep * distance(a, b))).toBeLessThan(
            1e-6 * distance(a, b) * sweep + bound(scale),
          );
          expect(Math.sign(arc.bulge)).toBe(i === 0 ? 1 : -1);
        });
        const [ccw, cw] = value(
          arcsAbout(a, b, transformPoint(m, { x: a0.x + Math.cos(sweep), y: a0.y + Math.sin(sweep) })),
        );
        expect(Math.abs(sweepOf(ccw!.bulge)) + Math.abs(sweepOf(cw!.bulge))).toBeCloseTo(2 * Math.PI, 9);
      }),
    );
    expect(arcsBySweep({ x: 0, y: 0 }, { x: 1, y: 0 }, 2 * Math.PI)).toMatchObject({ ok: false });
    expect(arcsAbout({ x: 0, y: 0 }, { x: 0, y: 0 }, { x: 1, y: 0 })).toMatchObject({ ok: false });
  });

  it("that go on from a direction leave in it; tangent and chord make half the sweep (Euclid III.32)", () => {
    fc.assert(
      fc.property(pairs, between(-3, 3), between(0.2, 50), ([m, a0, b0], direction, radius0) => {
        const [a, b] = [transformPoint(m, a0), transformPoint(m, b0)];
        const off = Math.abs(Math.sin(angleOf(subtract(b, a)) - direction));
        fc.pre(off > 0.05);
        const arc = value(arcFrom(a, direction, b));
        expect(turnBetween(departureOf(arc), direction)).toBeLessThan(1e-9);
        expect(turnBetween(arrivalOf(arc), 2 * angleOf(subtract(b, a)) - direction)).toBeLessThan(1e-9);
        const radius = radius0 * scaleOf(m);
        const round = arcFromWithRadius(a, direction, radius, b);
        if (round.ok) {
          expect(turnBetween(departureOf(round.value), direction)).toBeLessThan(1e-6);
          expect(Math.abs(pieceRadius(round.value) - radius)).toBeLessThan(1e4 * bound(radius));
        }
        const swept = value(arcFromWithRadius(a, direction, radius, b, 1.25));
        expect(Math.abs(sweepOf(swept.bulge))).toBeCloseTo(1.25, 9);
      }),
    );
    expect(value(arcFrom({ x: 0, y: 0 }, 0, { x: 5, y: 0 })).bulge).toBe(0);
    expect(arcFrom({ x: 0, y: 0 }, 0, { x: -5, y: 0 })).toMatchObject({ refusal: { code: "arc-turns-back" } });
  });

  it("bowed towards a point pass it where it lies over the middle; straightened they are the chord", () => {
    const bowed = bowTowards({ x: 0, y: 0 }, { x: 10, y: 0 }, { x: 5, y: -2 });
    expect(piecePoint(bowed, 0.5)).toEqual({ x: expect.closeTo(5, 12), y: expect.closeTo(-2, 12) });
    expect(bowTowards({ x: 0, y: 0 }, { x: 10, y: 0 }, { x: 3, y: 0 }).bulge).toBeCloseTo(0, 15);
  });
});

describe("parallels, feet and the shortest line", () => {
  const pieces = fc
    .record({ a: points(), b: points(), bulge: fc.oneof(fc.constant(0), between(-2, 2)) })
    .filter(({ a, b, bulge }) => distance(a, b) > 2 && (bulge === 0 || Math.abs(bulge) > 0.05));
  it("a parallel piece keeps its distance all along", () => {
    fc.assert(
      fc.property(pieces, points(), between(0.1, 3), between(0, 1), (piece, side, by, t) => {
        const made = parallelPiece(piece, side, by);
        const radius = piece.bulge === 0 ? Infinity : pieceRadius(piece);
        if (!made.ok) {
          // only an arc moved in by its whole radius leaves nothing
          expect([made.refusal.code, by >= radius - 1e-9]).toEqual(["parallel-shrinks-away", true]);
          return;
        }
        const [p, q] = [piecePoint(piece, t), piecePoint(made.value, t)];
        expect(distance(p, q)).toBeCloseTo(by, 6);
      }),
    );
  });
  it("no two points of the curves are nearer than the shortest line", () => {
    fc.assert(
      fc.property(
        pieces,
        pieces,
        fc.array(fc.tuple(between(0, 1), between(0, 1)), { minLength: 20, maxLength: 20 }),
        (p, q, tries) => {
          const line = shortestLine({ kind: "piece", ...p }, { kind: "piece", ...q });
          if (!line.ok) {
            expect(line.refusal.code).toBe("curves-meet");
            return;
          }
          const length = distance(line.value.a, line.value.b);
          for (const [s, t] of tries)
            expect(distance(piecePoint(p, s), piecePoint(q, t))).toBeGreaterThan(length - 1e-7);
        },
      ),
    );
  });
  it(
    "of an ellipse and a line by the closed form: the tangent parallel to the line lies √(a² sin² + b² cos²) " +
      "from the centre",
    () => {
      const ellipse = {
        kind: "ellipse" as const,
        centre: { x: 0, y: 0 },
        major: { x: 50, y: 0 },
        ratio: 0.4,
        from: 0,
        sweep: 2 * Math.PI,
      };
      const angle = 0.7;
      const n = { x: -Math.sin(angle), y: Math.cos(angle) };
      const line = { kind: "endless" as const, through: { x: 90 * n.x, y: 90 * n.y }, angle };
      const found = value(shortestLine(ellipse, line));
      expect(distance(found.a, found.b)).toBeCloseTo(90 - Math.hypot(50 * n.x, 20 * n.y), 8);
      const feet = feetOf(ellipse, { x: 3, y: 2 });
      expect(feet).toHaveLength(4); // inside the evolute four normals meet (Apollonius, Conics V)
      const point: Point = { x: 70, y: 40 };
      expect(feetOf(ellipse, point)).toHaveLength(2);
    },
  );
});

describe("an arc that heads for a place", () => {
  it("is tangent at its start and points at the place from its end, wherever it lies", () => {
    fc.assert(
      fc.property(
        fc.double({ min: -50, max: 50, noNaN: true }),
        fc.double({ min: -50, max: 50, noNaN: true }),
        fc.double({ min: -3, max: 3, noNaN: true }),
        fc.double({ min: 0.5, max: 20, noNaN: true }),
        fc.constantFrom(0, 1e5),
        (x, y, direction, radius, off) => {
          const a = { x: off, y: -off };
          const to = { x: off + x, y: y - off };
          const arc = arcHeadingFor(a, direction, radius, to);
          const size = radius + Math.hypot(x, y);
          if (!arc) return;
          const side = Math.cos(direction) * (to.y - a.y) - Math.sin(direction) * (to.x - a.x) < 0 ? -1 : 1;
          const centre = { x: a.x - side * radius * Math.sin(direction), y: a.y + side * radius * Math.cos(direction) };
          expect(Math.abs(distance(arc.b, centre) - radius)).toBeLessThan(residualBound(size, off + size));
          // the turn between two directions, far from the join of -π and π
          const turn = (p: number, q: number): number => Math.abs(Math.atan2(Math.sin(p - q), Math.cos(p - q)));
          // a direction is told by two places no better than they are by their numbers
          const told = (apart: number): number => 1e-9 + residualBound(0, off + size) / apart;
          const chord = distance(arc.a, arc.b);
          expect(turn(departureOf(arc), direction)).toBeLessThan(told(chord));
          const rest = Math.hypot(to.x - arc.b.x, to.y - arc.b.y);
          // Euclid III.36: what is left to the place is √(d² - R²) from the centre
          if (rest > 1e-3)
            expect(turn(arrivalOf(arc), Math.atan2(to.y - arc.b.y, to.x - arc.b.x))).toBeLessThan(
              told(chord) + told(rest),
            );
        },
      ),
      { numRuns: 500, examples: [[1.9976114761011559, 0.00004502567026065663, 0, 0.6540616712367262, 1e5]] },
    );
    expect(arcHeadingFor({ x: 0, y: 0 }, 0, 5, { x: 1, y: 5 })).toBeUndefined(); // within its circle
  });
});
