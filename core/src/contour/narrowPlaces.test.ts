import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { circleHalves } from "../geometry/circle.ts";
import { line, piecePoint, reversePiece, transformPiece, type Piece } from "../geometry/piece.ts";
import { distance, type Point } from "../geometry/point.ts";
import type { Similarity } from "../geometry/transform.ts";
import { RESOLUTION } from "../numeric/tolerance.ts";
import { narrowPlaces, type Boundary } from "./narrowPlaces.ts";

const polygon = (...corners: readonly (readonly [number, number])[]): Piece[] =>
  corners.map(([x, y], i) => {
    const [u, v] = corners[(i + 1) % corners.length]!;
    return line({ x, y }, { x: u, y: v });
  });
const box = (x: number, y: number, w: number, h: number): Piece[] =>
  polygon([x, y], [x + w, y], [x + w, y + h], [x, y + h]);
const disc = (x: number, y: number, radius: number): readonly Piece[] => circleHalves({ centre: { x, y }, radius });
const outside = (pieces: readonly Piece[]): Boundary => ({ pieces, role: "outside" });
const inside = (pieces: readonly Piece[]): Boundary => ({ pieces, role: "inside" });

/** As drawn, moved far off, turned by an odd angle, mirrored, small, and drawn the other way round. */
const PLACEMENTS: readonly (readonly [string, Similarity, boolean])[] = [
  ["as drawn", { a: 1, b: 0, c: 0, d: 1, e: 0, f: 0 }, false],
  ["1e5 away", { a: 1, b: 0, c: 0, d: 1, e: 1e5, f: -1e5 }, false],
  ["turned by 0.7", { a: Math.cos(0.7), b: Math.sin(0.7), c: -Math.sin(0.7), d: Math.cos(0.7), e: 3, f: 4 }, false],
  ["mirrored", { a: -1, b: 0, c: 0, d: 1, e: 7, f: 0 }, false],
  ["at scale 1e-2", { a: 1e-2, b: 0, c: 0, d: 1e-2, e: 0, f: 0 }, false],
  ["the other way round", { a: 1, b: 0, c: 0, d: 1, e: 0, f: 0 }, true],
];

const placed = (boundaries: readonly Boundary[], m: Similarity, turned: boolean): readonly Boundary[] =>
  boundaries.map(({ pieces, role }) => {
    const moved = pieces.map((piece) => transformPiece(m, piece));
    return { role, pieces: turned ? moved.map(reversePiece).reverse() : moved };
  });

// a U: two legs 4 and 6 wide, 20 high, 10 apart, on a foot 5 high
const U = polygon([0, 0], [20, 0], [20, 25], [14, 25], [14, 5], [4, 5], [4, 25], [0, 25]);
// a plate whose waist between two half-round notches of R 8 is 24 - 16 = 8 wide
const WAIST: Piece[] = [
  line({ x: 0, y: 0 }, { x: 22, y: 0 }),
  { a: { x: 22, y: 0 }, b: { x: 38, y: 0 }, bulge: -1 },
  line({ x: 38, y: 0 }, { x: 60, y: 0 }),
  line({ x: 60, y: 0 }, { x: 60, y: 24 }),
  line({ x: 60, y: 24 }, { x: 38, y: 24 }),
  { a: { x: 38, y: 24 }, b: { x: 22, y: 24 }, bulge: -1 },
  line({ x: 22, y: 24 }, { x: 0, y: 24 }),
  line({ x: 0, y: 24 }, { x: 0, y: 0 }),
];

describe("narrow places", () => {
  it.each<[string, readonly Boundary[], number, readonly (readonly [string, number])[]]>([
    [
      "two holes: between them and to the edges",
      [outside(box(0, 0, 50, 20)), inside(disc(10, 10, 4)), inside(disc(21, 10, 5))],
      7,
      [
        ["material", 2],
        ["material", 5],
        ["material", 5],
        ["material", 6],
        ["material", 6],
        ["material", 6],
      ],
    ],
    [
      "a ring off its centre: where it is thinnest",
      [outside(disc(0, 0, 20)), inside(disc(3, 0, 12))],
      8,
      [["material", 5]],
    ],
    [
      "a U: its legs, its foot, and the gap between",
      [outside(U)],
      11,
      [
        ["material", 4],
        ["material", 5],
        ["material", 6],
        ["waste", 10],
      ],
    ],
    ["a waist between notches", [outside(WAIST)], 9, [["material", 8]]],
    [
      "two discs side by side: waste between them",
      [outside(disc(0, 0, 5)), outside(disc(11, 0, 4))],
      5,
      [["waste", 2]],
    ],
    [
      "a bar with a hole: not from edge to edge across it",
      [outside(box(0, 0, 40, 12)), inside(disc(20, 6, 4))],
      12.5,
      [
        ["material", 2],
        ["material", 2],
      ],
    ],
    ["touching: none where they touch", [outside(box(0, 0, 20, 20)), inside(disc(10, 15, 5))], 4, []],
    ["a sharp wedge is none", [outside(polygon([0, 0], [40, 0], [40, 3]))], 2.9, []],
    [
      "a corner that points at an edge",
      [outside(box(0, 0, 30, 30)), inside(polygon([15, 3], [20, 12], [10, 12]))],
      4,
      [["material", 3]],
    ],
  ])("%s", (_, boundaries, limit, expected) => {
    for (const [name, m, turned] of PLACEMENTS) {
      const scale = Math.hypot(m.a, m.b);
      const found = narrowPlaces(placed(boundaries, m, turned), limit * scale);
      const lengths = found.map((one) => [one.of, one.length / scale] as const);
      const sorted = [...lengths].sort((p, q) => p[0].localeCompare(q[0]) || p[1] - q[1]);
      expect([name, ...sorted]).toEqual([
        name,
        ...expected.map(([of, length]) => [of, expect.closeTo(length, 6) as unknown]),
      ]);
    }
  });

  it("is found however little is left, far off and turned", () => {
    for (const gap of [1e-2, 1e-3, 1e-4, 1e-5])
      for (const [name, m, turned] of PLACEMENTS) {
        if (name === "at scale 1e-2") continue;
        const rings = [outside(box(-20, -20, 60, 40)), inside(disc(0, 0, 8)), inside(disc(16 + gap, 0, 8))];
        const [first] = narrowPlaces(placed(rings, m, turned), 1);
        expect([name, gap, first?.of]).toEqual([name, gap, "material"]);
        expect(Math.abs(first!.length / gap - 1)).toBeLessThan(1e-4);
      }
  });

  it.each<[string, readonly Piece[], number, number]>([
    // strips that are not quite parallel, as files with few decimals have them: as thick as their narrower end
    ["a bar tapered by a hair", polygon([0, 0], [40, 0.0004], [40, 3], [0, 3.0003]), 4, 2.9996],
    ["a bar tapered by 2°", polygon([0, 0], [40, 0], [40, 3], [0, 4.4]), 4, 3],
    [
      "a bar in pieces, rounded to two decimals",
      polygon([0, 0], [13, 0.01], [27, -0.01], [40, 0], [40, 3], [22, 3.01], [0, 3]),
      4,
      2.996,
    ],
    ["a bar with slanted ends", polygon([0, 0], [40, 0], [42, 3], [-3, 3.0004]), 4, 3],
    [
      "a slot-shaped bar whose sides are not parallel",
      [
        line({ x: 0, y: 0 }, { x: 40, y: 0.001 }),
        { a: { x: 40, y: 0.001 }, b: { x: 40, y: 2.999 }, bulge: 1 },
        line({ x: 40, y: 2.999 }, { x: 0, y: 3 }),
        { a: { x: 0, y: 3 }, b: { x: 0, y: 0 }, bulge: 1 },
      ],
      4,
      2.998,
    ],
    [
      "a part of a ring whose arcs are not about one middle",
      [
        line({ x: 20, y: 0 }, { x: 23, y: 0 }),
        { a: { x: 23, y: 0 }, b: { x: 0, y: 23.0005 }, bulge: Math.tan(Math.PI / 8) },
        line({ x: 0, y: 23.0005 }, { x: 0, y: 20 }),
        { a: { x: 0, y: 20 }, b: { x: 20, y: 0 }, bulge: -Math.tan(Math.PI / 8) },
      ],
      4,
      3,
    ],
  ])("a strip counts as a wall: %s", (_, pieces, limit, thickness) => {
    for (const [name, m, turned] of PLACEMENTS) {
      const scale = Math.hypot(m.a, m.b);
      const [first] = narrowPlaces(placed([outside(pieces)], m, turned), limit * scale);
      expect([name, first?.of]).toEqual([name, "material"]);
      expect(first!.length / scale).toBeCloseTo(thickness, 2);
    }
  });

  it("between two boundaries it is the shortest way that brute force finds among places along both", () => {
    const made = fc.record({
      x: fc.double({ min: 12, max: 60, noNaN: true }),
      y: fc.double({ min: -20, max: 20, noNaN: true }),
      bulges: fc.array(fc.double({ min: -0.35, max: 0.9, noNaN: true }), { minLength: 4, maxLength: 4 }),
    });
    const blob = (x: number, y: number, bulges: readonly number[]): Piece[] =>
      box(x - 5, y - 4, 10, 8).map((piece, i) => ({ ...piece, bulge: bulges[i]! }));
    const sampled = (pieces: readonly Piece[]): Point[] =>
      pieces.flatMap((piece) => Array.from({ length: 100 }, (_, k) => piecePoint(piece, k / 100)));
    let looked = 0;
    fc.assert(
      fc.property(made, made, (p, q) => {
        const [one, other] = [blob(0, 0, p.bulges), blob(q.x, q.y, q.bulges)];
        const [ps, qs] = [sampled(one), sampled(other)];
        let least = Infinity;
        for (const a of ps) for (const b of qs) least = Math.min(least, distance(a, b));
        if (least < 0.5) return;
        looked += 1;
        const found = narrowPlaces([outside(one), outside(other)], least + 1);
        const across = found.filter(({ boundaries: [a, b] }) => a !== b);
        expect(across[0]?.of).toBe("waste");
        expect(across[0]!.length).toBeLessThanOrEqual(least + RESOLUTION);
        // places lie no farther apart than a hundredth of a piece
        expect(across[0]!.length).toBeGreaterThan(least - 0.01);
      }),
      { numRuns: 30, seed: 20261130 },
    );
    expect(looked).toBeGreaterThan(20);
  });
});
