import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { residualBound } from "../numeric/tolerance.ts";
import { between, placements, points } from "../testing/placements.ts";
import { boundsExtent } from "./bounds.ts";
import {
  arcBetween,
  arcOf,
  bulgeOf,
  pieceBounds,
  pieceCentre,
  pieceDirection,
  pieceLength,
  pieceNearest,
  piecePoint,
  pieceRadius,
  reversePiece,
  segmentArea,
  splitPiece,
  sweepOf,
  transformPiece,
  type Piece,
} from "./piece.ts";
import { cross, distance, subtract } from "./point.ts";
import { scaleOf, transformPoint } from "./transform.ts";

/** Lines, flat arcs, half circles and nearly full turns; a bulge below 1e-9 is no arc at any size that is cut. */
const bulges = fc.oneof(
  fc.constantFrom(0, 1, -1, 1e-9, 30),
  between(-4, 4).filter((bulge) => Math.abs(bulge) > 1e-9),
);
const pieces: fc.Arbitrary<Piece> = fc
  .record({ a: points(), b: points(), bulge: bulges })
  .filter(({ a, b }) => distance(a, b) > 1e-3);

describe("pieces", () => {
  it("radius from chord and height: r = (c²/4 + h²) / 2h (circular segment, Machinery's Handbook)", () => {
    fc.assert(
      fc.property(between(0.1, 1e3), between(0.01, 1), (chord, part) => {
        const height = part * chord;
        const piece = { a: { x: 0, y: 0 }, b: { x: chord, y: 0 }, bulge: (2 * height) / chord };
        expect(pieceRadius(piece) / ((chord * chord) / 4 / (2 * height) + height / 2)).toBeCloseTo(1, 14);
        expect(piecePoint(piece, 0.5).y).toBeCloseTo(-height, 9); // counter-clockwise: the belly is to the right
      }),
    );
  });

  it("segment area is r²/2 (θ - sin θ), and its series meets it without a step", () => {
    for (const bulge of [0.0199999, 0.0200001, 0.5, 1, 3]) {
      const piece = { a: { x: 0, y: 0 }, b: { x: 2, y: 0 }, bulge };
      const [r, theta] = [pieceRadius(piece), sweepOf(bulge)];
      expect(Math.abs(segmentArea(piece) / (((r * r) / 2) * (theta - Math.sin(theta))) - 1)).toBeLessThan(1e-9);
    }
  });

  it("a split shares its point as numbers and keeps length, radius and area", () => {
    fc.assert(
      fc.property(pieces, between(0.01, 0.99), (piece, t) => {
        const [first, second] = splitPiece(piece, t);
        expect(first.b).toBe(second.a);
        expect([first.a, second.b]).toEqual([piece.a, piece.b]);
        expect((pieceLength(first) + pieceLength(second)) / pieceLength(piece)).toBeCloseTo(1, 10);
        expect(pieceLength(first) / pieceLength(piece)).toBeCloseTo(t, 9);
        const triangle = cross(subtract(first.b, piece.a), subtract(piece.b, piece.a)) / 2;
        const whole = segmentArea(first) + segmentArea(second) + triangle;
        expect(Math.abs(whole - segmentArea(piece))).toBeLessThan(1e-9 * (1 + Math.abs(segmentArea(piece))) + 1e-7);
      }),
    );
  });

  it("every point of an arc is at its radius, within its bounds, and is found again as its own nearest point", () => {
    fc.assert(
      fc.property(pieces, between(0, 1), (piece, t) => {
        const p = piecePoint(piece, t);
        const centre = pieceCentre(piece);
        const size = Math.max(pieceLength(piece), centre ? pieceRadius(piece) : 0);
        if (centre && pieceRadius(piece) < 1e6)
          expect(Math.abs(distance(p, centre) - pieceRadius(piece))).toBeLessThan(1e-9 * size);
        const box = pieceBounds(piece);
        const slack = 1e-9 * size;
        expect(
          p.x >= box.minX - slack && p.x <= box.maxX + slack && p.y >= box.minY - slack && p.y <= box.maxY + slack,
        ).toBe(true);
        expect(pieceNearest(piece, p).distance).toBeLessThan(1e-7 * Math.max(1, size));
      }),
    );
  });

  it("bounds of a half circle stand at its quadrant", () => {
    expect(pieceBounds({ a: { x: 1, y: 0 }, b: { x: -1, y: 0 }, bulge: 1 })).toMatchObject({
      minX: -1,
      maxX: 1,
      maxY: 1,
    });
    expect(pieceBounds({ a: { x: 1, y: 0 }, b: { x: -1, y: 0 }, bulge: -1 }).minY).toBeCloseTo(-1, 15);
  });

  it("reversed it runs the same way back; moved, turned, mirrored and scaled it keeps its shape", () => {
    fc.assert(
      fc.property(pieces, placements, between(0, 1), (piece, placement, t) => {
        const back = reversePiece(piece);
        expect(distance(piecePoint(back, 1 - t), piecePoint(piece, t))).toBeLessThan(1e-7);
        const placed = transformPiece(placement, piece);
        const scale = scaleOf(placement);
        const bound = 100 * residualBound(scale * pieceLength(piece), boundsExtent(pieceBounds(placed)));
        expect(distance(piecePoint(placed, t), transformPoint(placement, piecePoint(piece, t)))).toBeLessThan(bound);
        expect(Math.abs(pieceLength(placed) - scale * pieceLength(piece))).toBeLessThan(bound);
      }),
    );
  });

  it("an arc spelled out and put together again has its own bulge; its direction is square to its radius", () => {
    fc.assert(
      fc.property(
        pieces.filter(({ bulge }) => Math.abs(bulge) > 1e-3 && Math.abs(bulge) < 20),
        between(0, 1),
        (piece, t) => {
          const arc = arcOf(piece)!;
          expect(arcBetween(piece.a, piece.b, arc.centre, arc.sweep > 0).bulge / piece.bulge).toBeCloseTo(1, 8);
          expect(bulgeOf(arc.sweep) / piece.bulge).toBeCloseTo(1, 12);
          const radius = subtract(piecePoint(piece, t), arc.centre);
          expect(Math.abs(cross(radius, pieceDirection(piece, t))) / arc.radius).toBeCloseTo(1, 9);
        },
      ),
    );
  });
});
