import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { pieceRadius, type Piece } from "../../geometry/piece.ts";
import type { Point } from "../../geometry/point.ts";
import { enclosedArea } from "../../contour/chainMeasure.ts";
import { meetingPlaces } from "../../contour/meetingPlaces.ts";
import { polygon, randomFrom, roundedCorners } from "../../testing/contours.ts";
import { measuredPoints, TRACED_SHAPES, tracedRightly } from "../../testing/tracings.ts";
import { fitMeasured } from "./index.ts";

const CASES = Object.keys(TRACED_SHAPES).flatMap((name) => [0, 0.01, 0.05, 0.1, 0.2].map((sigma) => ({ name, sigma })));
const bracket = TRACED_SHAPES.bracket!;
const radii = (pieces: readonly Piece[]): number[] =>
  pieces.flatMap((piece) => (piece.bulge === 0 ? [] : [pieceRadius(piece)])).sort((p, q) => p - q);

describe("fit to measured points", () => {
  // the whole trial, 25 seeds each, is scripts/bench/tracings.ts
  it.each(CASES)(
    "$name with scatter $sigma in steps of 0.5: its lines and arcs, radii within their errors",
    ({ name, sigma }) => {
      const tried = [1, 2, 3].map((seed) => tracedRightly(name, sigma, 7919 * seed));
      expect(tried.filter(({ right }) => right).length).toBeGreaterThanOrEqual(2);
      expect(tried.filter(({ off }) => off.some((errors) => errors > 3)).length).toBeLessThanOrEqual(1);
    },
  );

  it("never lies far off, crosses itself or has more pieces, whatever outline was measured", () => {
    const corner = fc.tuple(
      fc.double({ min: -0.3, max: 0.3, noNaN: true }),
      fc.double({ min: 30, max: 90, noNaN: true }),
    );
    fc.assert(
      fc.property(
        fc.array(corner, { minLength: 3, maxLength: 10 }),
        fc.constantFrom(0, 0.3, 0.7),
        fc.constantFrom(0.005, 0.02, 0.05, 0.1, 0.2),
        fc.constantFrom(0.2, 0.5, 1),
        fc.nat(),
        (drawn, rounding, sigma, step, seed) => {
          const corners = drawn.map(([turn, away], i): Point => {
            const angle = (2 * Math.PI * (i + turn)) / drawn.length;
            return { x: away * Math.cos(angle), y: away * Math.sin(angle) };
          });
          const outline =
            rounding === 0 ? polygon(corners.map(({ x, y }) => [x, y])) : roundedCorners(corners, rounding);
          const points = measuredPoints(outline, step, sigma, randomFrom(seed));
          const made = fitMeasured(points, true);
          if (!made || made.circle) return;
          const { pieces } = made;
          expect(pieces.length).toBeLessThanOrEqual(outline.length);
          expect(meetingPlaces([{ closed: true, pieces }], "crossing")).toEqual([]);
          const off = Math.abs(enclosedArea(pieces)) - Math.abs(enclosedArea(outline));
          expect(Math.abs(off)).toBeLessThan((2 * sigma + 0.02) * step * points.length);
          expect(made.largest).toBeLessThan(12 * made.scatter);
        },
      ),
      { numRuns: 60 },
    );
  });

  it("points that scatter alike, strayed ones, and those rounded to a grid are still the outline's", () => {
    const alike = [1, 2, 3, 4, 5].map((seed) => tracedRightly("bracket", 0.1, 7919 * seed, 0.8));
    expect(alike.filter(({ right }) => right).length).toBeGreaterThanOrEqual(4);
    const random = randomFrom(31);
    const strayed = measuredPoints(bracket, 0.5, 0.05, random).map(({ x, y }, i): Point =>
      i % 97 === 50 ? { x: x + 9, y: y - 14 } : { x, y },
    );
    const onGrid = measuredPoints(bracket, 0.5, 0.2, random).map(({ x, y }): Point => ({
      x: Math.round(2 * x) / 2,
      y: Math.round(2 * y) / 2,
    }));
    for (const points of [strayed, onGrid]) {
      const made = fitMeasured(points, true)!;
      expect(made.pieces).toHaveLength(9);
      radii(made.pieces).forEach((radius, i) => expect(Math.abs(radius - [8, 8, 12][i]!)).toBeLessThan(1.5));
    }
    expect(fitMeasured(strayed, true)!.strayed).toBe(strayed.filter((_, i) => i % 97 === 50).length);
  });

  it("is the same wherever it lies, however large it is, and of 100 000 points", () => {
    const points = measuredPoints(bracket, 0.005, 0.05, randomFrom(5));
    expect(points.length).toBeGreaterThan(1e5 / 2);
    const made = fitMeasured(points, true)!;
    expect(radii(made.pieces).map((radius) => Math.round(100 * radius))).toEqual([800, 800, 1200]);
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 6.3, noNaN: true }),
        fc.constantFrom(1e-2, 1, 1e4),
        fc.constantFrom(0, 1e5),
        (turn, scale, away) => {
          const some = points.filter((_, i) => i % 80 === 0);
          const [c, s] = [Math.cos(turn) * scale, Math.sin(turn) * scale];
          const placed = some.map(({ x, y }) => ({ x: x * c - y * s + away, y: x * s + y * c - away }));
          const found = radii(fitMeasured(placed, true)!.pieces).map((radius) => radius / scale);
          expect(found).toHaveLength(3);
          found.forEach((radius, i) => expect(Math.abs(radius - [8, 8, 12][i]!)).toBeLessThan(0.2));
        },
      ),
      { numRuns: 12 },
    );
  });

  it("few points picked by eye are no exact data: an arc where they lie on one, corners where they are picked", () => {
    const onArc = (count: number): Point[] =>
      Array.from({ length: count }, (_, i) => ({
        x: 50 * Math.cos((2 * i) / count) + 0.07 * Math.cos(5 * i),
        y: 50 * Math.sin((2 * i) / count) + 0.07 * Math.sin(3 * i),
      }));
    for (const count of [5, 6, 7, 12, 40]) {
      const { pieces, largest } = fitMeasured(onArc(count), false, 0.1)!;
      expect(pieces).toHaveLength(1);
      expect(pieceRadius(pieces[0]!)).toBeCloseTo(50, 0);
      expect(largest).toBeLessThan(0.2);
    }
    const corners = [
      { x: 0, y: 0 },
      { x: 40, y: 3 },
      { x: 55, y: 30 },
      { x: 20, y: 60 },
    ];
    const { pieces } = fitMeasured(corners, false, 0.1)!;
    expect(pieces).toHaveLength(3);
    pieces.forEach(({ a, b }, i) => {
      expect(Math.hypot(a.x - corners[i]!.x, a.y - corners[i]!.y)).toBeLessThan(1e-9);
      expect(Math.hypot(b.x - corners[i + 1]!.x, b.y - corners[i + 1]!.y)).toBeLessThan(1e-9);
    });
  });

  it("says nothing where points don't tell: too few, too far apart, all over, in one place, there and back", () => {
    const random = randomFrom(9);
    const there = Array.from({ length: 200 }, (_, i) => ({ x: i < 100 ? i : 200 - i, y: 0 }));
    const all = Array.from({ length: 500 }, () => ({ x: 100 * random(), y: 100 * random() }));
    for (const points of [[], there.slice(0, 20), there, all, all.map(() => ({ x: 3, y: 4 }))])
      expect(fitMeasured(points, true)).toBeUndefined();
    expect(fitMeasured(measuredPoints(TRACED_SHAPES["rounded rectangle"]!, 10, 0.05, random), true)).toBeUndefined();
  });
});
