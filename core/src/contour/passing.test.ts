import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { arcBetween, line, piecePoint, transformPiece, type Piece } from "../geometry/piece.ts";
import type { Point } from "../geometry/point.ts";
import { placements } from "../testing/placements.ts";
import { meetingPlaces, type MeetingRun } from "./meetingPlaces.ts";

const O: Point = { x: 0, y: 0 };

/** Two pieces through the origin that leave it at two angles, bowed as told. */
const through = (angles: readonly [number, number], bulges: readonly [number, number]): readonly Piece[] => {
  const away = (angle: number): Point => ({ x: 10 * Math.cos(angle), y: 10 * Math.sin(angle) });
  return [
    { a: away(angles[0]), b: O, bulge: bulges[0] },
    { a: O, b: away(angles[1]), bulge: bulges[1] },
  ];
};

/** Where each way out of the origin stands on a small circle about it, by places on the pieces themselves. */
const angleNear = (piece: Piece, outgoing: boolean): number => {
  const p = piecePoint(piece, outgoing ? 1e-4 : 1 - 1e-4);
  return Math.atan2(p.y, p.x);
};

describe("what goes through a place where two runs meet", () => {
  const whole = (min: number, max: number, step: number): fc.Arbitrary<number> =>
    fc.integer({ min, max }).map((n) => n * step);
  const angle = whole(-314, 314, 0.01);
  const bulge = fc.oneof(fc.constant(0), whole(-40, 40, 0.01));
  const four = <T>(of: fc.Arbitrary<T>): fc.Arbitrary<[T, T, T, T]> => fc.tuple(of, of, of, of);
  it("crosses there exactly where its ways out lie on both sides of the other's, in any placement", () => {
    let [crossed, touched] = [0, 0];
    fc.assert(
      fc.property(four(angle), four(bulge), placements, (angles, bulges, placement) => {
        const one = through([angles[0], angles[1]], [bulges[0], bulges[1]]);
        const other = through([angles[2], angles[3]], [bulges[2], bulges[3]]);
        const [p, q, r, s] = [one, other].flatMap((run) => [angleNear(run[0]!, false), angleNear(run[1]!, true)]);
        const sorted = [p!, q!, r!, s!].sort((x, y) => x - y);
        fc.pre(sorted.every((x, i) => (i < 3 ? sorted[i + 1]! - x : sorted[0]! + 2 * Math.PI - x) > 0.02));
        const on = (x: number): number => (x - p! + 4 * Math.PI) % (2 * Math.PI);
        const expected = on(r!) < on(q!) !== on(s!) < on(q!);
        const placed = [one, other].map((pieces): MeetingRun => ({
          closed: false,
          pieces: pieces.map((piece) => transformPiece(placement, piece)),
        }));
        const { x, y } = transformPiece(placement, one[0]!).b;
        const met = meetingPlaces(placed).filter(({ at }) => Math.hypot(at.x - x, at.y - y) <= 1e-6);
        expect(met.map(({ kind }) => kind)).toEqual(expected ? ["crossing"] : []);
        if (expected) crossed += 1;
        else touched += 1;
      }),
    );
    expect(Math.min(crossed, touched)).toBeGreaterThan(5);
  });

  it("tangent ways are told apart by how they bend; a shared stretch is no crossing", () => {
    const bow = (radius: number, side: number): readonly Piece[] => [
      arcBetween({ x: -radius, y: side * radius }, O, { x: 0, y: side * radius }, side > 0),
      arcBetween(O, { x: radius, y: side * radius }, { x: 0, y: side * radius }, side > 0),
    ];
    const wave: readonly Piece[] = [bow(5, -1)[0]!, bow(5, 1)[1]!];
    const straight = [line({ x: -9, y: 0 }, O), line(O, { x: 9, y: 0 })];
    const kinds = (...runs: (readonly Piece[])[]): string[] =>
      meetingPlaces(runs.map((pieces) => ({ closed: false, pieces }))).map(({ kind }) => kind);
    expect(kinds(wave, straight)).toEqual(["crossing"]);
    expect(kinds(bow(5, 1), straight)).toEqual([]);
    expect(kinds(bow(5, 1), bow(3, 1))).toEqual([]);
    expect(kinds(bow(3, 1), [bow(5, 1)[0]!, bow(2, 1)[1]!])).toEqual(["crossing"]);
    expect(kinds(straight, [line({ x: -9, y: 0 }, O), line(O, { x: 9, y: 9 })])).toEqual(["doubled"]);
  });

  it("an outline whose side runs through a circle's middle crosses it on both sides, wherever its seam lies", () => {
    const corners = [
      { x: -20, y: 0 },
      { x: 20, y: 0 },
      { x: 20, y: 30 },
      { x: -20, y: 30 },
    ];
    const pieces = corners.map((a, i) => line(a, corners[(i + 1) % 4]!));
    const halves = [
      arcBetween({ x: -9, y: 0 }, { x: 9, y: 0 }, O, true),
      arcBetween({ x: 9, y: 0 }, { x: -9, y: 0 }, O, true),
    ];
    const circle: MeetingRun = { closed: true, pieces: [], circle: { centre: O, radius: 9 } };
    for (const round of [circle, { closed: true, pieces: halves }])
      expect(meetingPlaces([{ closed: true, pieces }, round]).map(({ kind, at }) => [kind, Math.abs(at.x)])).toEqual([
        ["crossing", 9],
        ["crossing", 9],
      ]);
  });
});
