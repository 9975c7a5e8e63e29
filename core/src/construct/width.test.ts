import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { enclosedArea } from "../contour/chainMeasure.ts";
import {
  arcBetween,
  line,
  pieceDirection,
  pieceLength,
  pieceNearest,
  piecePoint,
  type Piece,
} from "../geometry/piece.ts";
import { cross, distance, type Point } from "../geometry/point.ts";
import { taperedRuns, widthContours, type Width, type WidthRun } from "./width.ts";

const point = (x: number, y: number): Point => ({ x, y });
type Given = Omit<Width, "runs"> & { from: number; to: number; runs?: readonly WidthRun[] };
const even = (width: number, rest: Partial<Given> = {}): Given => ({
  from: width,
  to: width,
  ends: "flat",
  corners: "sharp",
  ...rest,
});
const withRuns = (pieces: readonly Piece[], given: Given): Width => ({
  ...given,
  runs: given.runs ?? taperedRuns(pieces, given.from, given.to),
});
const made = (pieces: readonly Piece[], width: Given, closed = false): readonly (readonly Piece[])[] => {
  const contours = widthContours(pieces, closed, withRuns(pieces, width));
  if (!contours.ok) throw new Error(contours.refusal.code);
  return contours.value;
};
const code = (pieces: readonly Piece[], width: Given, closed = false): string => {
  const contours = widthContours(pieces, closed, withRuns(pieces, width));
  return contours.ok ? "made" : contours.refusal.code;
};
const length = (pieces: readonly Piece[]): number => pieces.reduce((sum, piece) => sum + pieceLength(piece), 0);

describe("a chain given a width", () => {
  // area of a strip about a smooth curve: length × width (Pappus), its ends half circles
  it("along a line and the arc that goes on from it", () => {
    const pieces = [line(point(0, 0), point(50, 0)), arcBetween(point(50, 0), point(80, 30), point(50, 30), true)];
    const [flat] = made(pieces, even(8));
    expect(enclosedArea(flat!)).toBeCloseTo(8 * length(pieces), 9);
    const [round] = made(pieces, even(8, { ends: "round" }));
    expect(enclosedArea(round!)).toBeCloseTo(8 * length(pieces) + Math.PI * 16, 9);
    const [pointed] = made(pieces, even(8, { ends: "pointed" }));
    expect(enclosedArea(pointed!)).toBeCloseTo(8 * length(pieces) + 2 * 16, 9);
    expect(flat).toHaveLength(6); // two pieces a side and two ends
  });

  it("tapering: a trapezoid, a triangle where the end has none, round ends that touch its sides", () => {
    const pieces = [line(point(0, 0), point(90, 0))];
    expect(enclosedArea(made(pieces, { ...even(20), to: 8 })[0]!)).toBeCloseTo((90 * 28) / 2, 9);
    const [hand] = made(pieces, { ...even(20), to: 0 });
    expect(enclosedArea(hand!)).toBeCloseTo(900, 9);
    expect(hand).toHaveLength(3);
    const [tip] = made(pieces, { ...even(20), to: 8, ends: "round" });
    tip!.forEach((piece, i) => {
      const next = tip![(i + 1) % tip!.length]!;
      expect(Math.abs(cross(pieceDirection(piece, 1), pieceDirection(next, 0)))).toBeLessThan(1e-12);
    });
  });

  it("at corners: sharp ones make up for each other, round ones are sectors", () => {
    const pieces = [line(point(0, 0), point(60, 0)), line(point(60, 0), point(60, 40))];
    expect(enclosedArea(made(pieces, even(10))[0]!)).toBeCloseTo(10 * 100, 9);
    const [round] = made(pieces, even(10, { corners: "round" }));
    expect(enclosedArea(round!)).toBeCloseTo(1000 - 25 + (Math.PI * 25) / 4, 9);
    expect(code(pieces, even(90))).toBe("width-corner");
  });

  it("round a closed chain on both sides", () => {
    const corners = [point(0, 0), point(60, 0), point(60, 40), point(0, 40)];
    const pieces = corners.map((a, i) => line(a, corners[(i + 1) % 4]!));
    const areas = made(pieces, even(10), true).map((run) => Math.abs(enclosedArea(run)));
    expect(areas.sort((p, q) => p - q)).toEqual([50 * 30, 70 * 50]);
  });

  it("each piece of its own: a step where it changes at once, a corner, a point at either end", () => {
    const straight = [line(point(0, 0), point(40, 0)), line(point(40, 0), point(100, 0))];
    const stepped = made(
      straight,
      even(0, {
        runs: [
          [20, 20],
          [8, 8],
        ],
      }),
    );
    expect(enclosedArea(stepped[0]!)).toBeCloseTo(40 * 20 + 60 * 8, 9);
    expect(stepped[0]!).toHaveLength(8);
    const hand = made(
      straight,
      even(0, {
        runs: [
          [0, 20],
          [20, 0],
        ],
      }),
    );
    expect(enclosedArea(hand[0]!)).toBeCloseTo((100 * 20) / 2, 9);
    expect(hand[0]!).toHaveLength(4);
    // at a square corner the sides meet: 10 wide and 60 long, then 6 wide and 40 long, the corner 10 by 6 belongs to
    // both
    const bent = [line(point(0, 0), point(60, 0)), line(point(60, 0), point(60, 40))];
    expect(
      enclosedArea(
        made(
          bent,
          even(0, {
            runs: [
              [10, 10],
              [6, 6],
            ],
          }),
        )[0]!,
      ),
    ).toBeCloseTo(63 * 10 + 35 * 6, 9);
    // a slight bend steps where the width changes, within the wider half of it
    const slight = [line(point(0, 0), point(60, 0)), line(point(60, 0), point(120, 6))];
    for (const { a } of made(
      slight,
      even(0, {
        runs: [
          [10, 10],
          [16, 16],
        ],
      }),
    )[0]!)
      expect(Math.min(...[point(0, 0), point(60, 0), point(120, 6)].map((p) => distance(a, p)))).toBeLessThan(8.001);
    expect(
      code(
        straight,
        even(0, {
          runs: [
            [20, 0],
            [0, 8],
          ],
        }),
      ),
    ).toBe("width-none-within");
    expect(
      code(
        straight,
        even(0, {
          runs: [
            [20, -1],
            [8, 8],
          ],
        }),
      ),
    ).toBe("width-none-within");
  });

  it("says what does not go", () => {
    const arc = [arcBetween(point(50, 0), point(80, 30), point(50, 30), true)];
    expect(code(arc, even(60))).toBe("width-too-wide");
    expect(code(arc, { ...even(6), to: 3 })).toBe("width-tapered-arc");
  });

  it("keeps both sides half the width away, wherever it lies", () => {
    const at = fc.record({
      x: fc.double({ min: -500, max: 500, noNaN: true }),
      y: fc.double({ min: -500, max: 500, noNaN: true }),
    });
    fc.assert(
      fc.property(
        at,
        at,
        fc.double({ min: 0.1, max: 40, noNaN: true }),
        fc.double({ min: -1, max: 1, noNaN: true }),
        (a, b, width, bulge) => {
          fc.pre(distance(a, b) > 100);
          const piece = { a, b, bulge: Math.abs(bulge) < 1e-3 ? 0 : bulge };
          const [contour] = made([piece], even(width));
          for (const side of [contour![0]!, contour![2]!])
            for (const t of [0, 0.3, 0.8, 1])
              expect(pieceNearest(piece, piecePoint(side, t)).distance).toBeCloseTo(width / 2, 6);
        },
      ),
    );
  });
});
