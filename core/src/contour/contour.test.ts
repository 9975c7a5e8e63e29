import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { applyEdit, newDrawing, PROFILE_LAYER, type Drawing } from "../drawing/index.ts";
import { draftEdit } from "../edits/index.ts";
import { circleHalves } from "../geometry/circle.ts";
import { pieceLength, reversePiece, type Piece } from "../geometry/piece.ts";
import { distance, type Point } from "../geometry/point.ts";
import { scaleOf, transformPoint } from "../geometry/transform.ts";
import { profileOf } from "../profile/profile.ts";
import type { Shape } from "../shape/index.ts";
import { between, placements } from "../testing/placements.ts";
import { chainNearest, chainPoint, splitChain, transformChain } from "./chain.ts";
import { centroidOf } from "./centroid.ts";
import { chainArea, chainLength, enclosedArea, reverseChain } from "./chainMeasure.ts";
import { joinRuns, runPieces } from "./joining.ts";
import { nestingDepths } from "./nesting.ts";
import { windingNumber } from "./winding.ts";

/** A star-shaped outline about the origin, some sides bowed: simple, and its inside is known. */
const outlines: fc.Arbitrary<readonly Piece[]> = fc
  .array(fc.record({ reach: between(5, 10), bulge: fc.oneof(fc.constant(0), between(-0.15, 0.15)) }), {
    minLength: 4,
    maxLength: 14,
  })
  .map((corners) => {
    const at = corners.map(({ reach }, i): Point => ({
      x: reach * Math.cos((2 * Math.PI * i) / corners.length),
      y: reach * Math.sin((2 * Math.PI * i) / corners.length),
    }));
    return corners.map(({ bulge }, i) => ({
      a: at[i]!,
      b: at[(i + 1) % at.length]!,
      bulge: Math.abs(bulge) < 1e-6 ? 0 : bulge,
    }));
  });

const drawn = (shapes: readonly Shape[]): Drawing => {
  const drawing = newDrawing("mm");
  const draft = draftEdit(drawing, "Draw", "draw");
  for (const shape of shapes) draft.add(shape, PROFILE_LAYER);
  return applyEdit(drawing, draft.finish());
};

describe("contours", () => {
  it("areas: a polygon by the shoelace formula, a circle π r², two half discs and a square their sum", () => {
    const square = [
      [0, 0],
      [4, 0],
      [4, 4],
      [0, 4],
    ].map(([x, y]) => ({ x: x! + 1e5, y: y! }));
    const sides = square.map((a, i): Piece => ({ a, b: square[(i + 1) % 4]!, bulge: 0 }));
    expect(enclosedArea(sides)).toBe(16);
    const slot = sides.map((side, i) => ({ ...side, bulge: i % 2 === 1 ? 1 : 0 }));
    expect(enclosedArea(slot)).toBeCloseTo(16 + Math.PI * 4, 10);
    expect(enclosedArea(circleHalves({ centre: { x: 3, y: -2 }, radius: 5 }))).toBeCloseTo(25 * Math.PI, 12);
  });

  it("area by the boundary agrees with area by sampled winding (Monte Carlo on a grid)", () => {
    fc.assert(
      fc.property(outlines, (pieces) => {
        const cell = 0.25;
        let inside = 0;
        for (let x = -12; x < 12; x += cell)
          for (let y = -12; y < 12; y += cell)
            if (windingNumber(pieces, { x: x + 0.1137, y: y + 0.0921 }) !== 0) inside += 1;
        const area = Math.abs(enclosedArea(pieces));
        expect(Math.abs(inside * cell * cell - area) / area).toBeLessThan(0.03);
      }),
      { numRuns: 40 },
    );
  });

  it("pieces shuffled and turned round join into one contour with the same area and length", () => {
    fc.assert(
      fc.property(outlines, fc.infiniteStream(fc.boolean()), fc.nat(), (pieces, flips, seed) => {
        const order = pieces.map((_, i) => i).sort((p, q) => ((p * 7919 + seed) % 31) - ((q * 7919 + seed) % 31));
        const parts = order.map((i) => (flips.next().value ? reversePiece(pieces[i]!) : pieces[i]!));
        const runs = joinRuns(parts, 1e-7);
        expect(runs.map(({ closed, links }) => [closed, links.length])).toEqual([[true, pieces.length]]);
        const joined = runPieces(runs[0]!, (part) => [parts[part]!]);
        joined.forEach((piece, i) => expect(piece.b).toEqual(joined[(i + 1) % joined.length]!.a));
        expect(Math.abs(enclosedArea(joined))).toBeCloseTo(Math.abs(enclosedArea(pieces)), 9);
        const length = (all: readonly Piece[]): number => all.reduce((sum, piece) => sum + pieceLength(piece), 0);
        expect(length(joined)).toBeCloseTo(length(pieces), 9);
      }),
    );
  });

  it("an outline with one piece missing is one open run; a branch stops the runs there", () => {
    const corners = [
      { x: 0, y: 0 },
      { x: 1, y: 0 },
      { x: 1, y: 1 },
      { x: 0, y: 1 },
    ];
    const ends = corners.slice(0, 3).map((a, i) => ({ a, b: corners[i + 1]! }));
    expect(joinRuns(ends, 1e-7)).toMatchObject([{ closed: false, links: [{ part: 0 }, { part: 1 }, { part: 2 }] }]);
    const branch = [...ends, { a: { x: 1, y: 0 }, b: { x: 5, y: 0 } }];
    expect(joinRuns(branch, 1e-7).map(({ links }) => links.length)).toEqual([1, 2, 1]);
  });

  it("loops that hang together at corners or by bridges each close; what is left, joined again, stays as it is", () => {
    const step = fc.record({ from: fc.nat(), corners: fc.integer({ min: 0, max: 5 }) }); // 0 or 1: a way to a new node
    fc.assert(
      fc.property(fc.array(step, { minLength: 1, maxLength: 12 }), fc.nat(), (steps, seed) => {
        const ends: { a: { x: number; y: number }; b: { x: number; y: number } }[] = [];
        let nodes = 1;
        const at = (node: number): { x: number; y: number } => ({ x: node, y: (node * node) % 17 });
        for (const { from, corners } of steps) {
          const first = from % nodes;
          let last = first;
          for (let k = 0; k < Math.max(1, corners); k++) {
            ends.push({ a: at(last), b: at(nodes) });
            last = nodes++;
          }
          if (corners > 1) ends.push({ a: at(last), b: at(first) });
        }
        const order = ends
          .map((_, i) => i)
          .sort((p, q) => ((p * 7919 + seed) % 31) - ((q * 7919 + seed) % 31) || p - q);
        const parts = order.map((i, k) => ((seed + k) % 3 === 0 ? { a: ends[i]!.b, b: ends[i]!.a } : ends[i]!));
        const runs = joinRuns(parts, 1e-7);
        const loops = steps.filter(({ corners }) => corners > 1);
        expect(
          runs
            .filter(({ closed }) => closed)
            .map(({ links }) => links.length)
            .sort(),
        ).toEqual(loops.map(({ corners }) => corners + 1).sort());
        const open = runs
          .filter(({ closed }) => !closed)
          .map(({ links }) => {
            const [start, stop] = [links[0]!, links.at(-1)!];
            return {
              a: parts[start.part]![start.reversed ? "b" : "a"],
              b: parts[stop.part]![stop.reversed ? "a" : "b"],
            };
          });
        expect(joinRuns(open, 1e-7).map(({ links }) => links.length)).toEqual(open.map(() => 1));
      }),
    );
  });

  it("winding tells inside from outside of bellies and hollows, on chords and level with corners too", () => {
    const half = [
      { a: { x: -1, y: 0 }, b: { x: 1, y: 0 }, bulge: 0 },
      { a: { x: 1, y: 0 }, b: { x: -1, y: 0 }, bulge: 1 },
    ];
    expect(windingNumber(half, { x: 0, y: 0.5 })).toBe(1);
    expect(windingNumber(half, { x: 0.9, y: 0.9 })).toBe(0);
    const moon = [
      { a: { x: 1, y: 0 }, b: { x: -1, y: 0 }, bulge: 1 },
      { a: { x: -1, y: 0 }, b: { x: 1, y: 0 }, bulge: -0.5 },
    ];
    expect(windingNumber(moon, { x: 0, y: 0.3 })).toBe(0); // within the hollow
    expect(windingNumber(moon, { x: 0, y: 0.8 })).toBe(1);
    const disc = circleHalves({ centre: { x: 0, y: 0 }, radius: 1 });
    for (const x of [-0.99, -0.3, 0, 0.3, 0.99]) expect(windingNumber(disc, { x, y: 0 })).toBe(1);
    for (const x of [-1.01, 1.01, 5]) expect(windingNumber(disc, { x, y: 0 })).toBe(0);
  });

  it("nesting counts how many contours hold each one", () => {
    fc.assert(
      fc.property(outlines, fc.integer({ min: 2, max: 6 }), (pieces, n) => {
        const shrunk = Array.from({ length: n }, (_, k) =>
          pieces.map(({ a, b, bulge }) => ({
            a: { x: a.x / 3 ** k, y: a.y / 3 ** k },
            b: { x: b.x / 3 ** k, y: b.y / 3 ** k },
            bulge,
          })),
        );
        const beside = circleHalves({ centre: { x: 50, y: 0 }, radius: 2 });
        expect(nestingDepths([...shrunk, beside])).toEqual([...shrunk.map((_, k) => k), 0]);
      }),
    );
  });

  it("a chain run the other way has the opposite area and the same vertices", () => {
    fc.assert(
      fc.property(outlines, (pieces) => {
        const chain = { closed: true, vertices: pieces.map(({ a, bulge }, i) => ({ id: i, at: a, bulge })) };
        const back = reverseChain(chain);
        expect(chainArea(back)).toBeCloseTo(-chainArea(chain), 9);
        expect(new Set(back.vertices.map(({ id }) => id)).size).toBe(pieces.length);
        expect(reverseChain(back)).toEqual(chain);
      }),
    );
  });

  it("a chain cut anywhere keeps its length and shares the cut; moved, turned and mirrored it keeps its shape", () => {
    fc.assert(
      fc.property(outlines, fc.boolean(), between(0.001, 0.999), placements, (pieces, closed, part, placement) => {
        const chain = {
          closed,
          vertices: pieces.map(({ a, bulge }, i) => ({
            id: i,
            at: a,
            bulge: !closed && i === pieces.length - 1 ? 0 : bulge,
          })),
        };
        const s = part * (closed ? pieces.length : pieces.length - 1);
        const parts = splitChain(chain, s, () => 99);
        expect(parts.length).toBe(closed ? 1 : 2);
        expect(parts.reduce((sum, one) => sum + chainLength(one), 0)).toBeCloseTo(chainLength(chain), 8);
        expect(parts[0]!.vertices.at(-1)!.at).toEqual(parts.at(-1)!.vertices[0]!.at);
        const at = chainPoint(chain, s)!;
        expect(chainNearest(chain, at)!.distance).toBeLessThan(1e-9);
        const placed = transformChain(placement, chain);
        const scale = scaleOf(placement);
        expect(chainLength(placed) / scale / chainLength(chain)).toBeCloseTo(1, 6);
        expect(distance(chainPoint(placed, s)!, transformPoint(placement, at))).toBeLessThan(1e-8 * scale + 1e-9);
      }),
    );
  });

  it("a profile says what is closed, what is loose, and how far open ends are apart", () => {
    const { contours, open } = profileOf(
      drawn([
        { kind: "circle", centre: { x: 0, y: 0 }, radius: 10 },
        { kind: "circle", centre: { x: 1, y: 0 }, radius: 3 },
        { kind: "piece", a: { x: 20, y: 0 }, b: { x: 30, y: 0 }, bulge: 1 },
        { kind: "piece", a: { x: 30, y: 0 }, b: { x: 20, y: 0 }, bulge: 0 },
        { kind: "piece", a: { x: 0, y: 20 }, b: { x: 5, y: 20 }, bulge: 0 },
        { kind: "piece", a: { x: 5.31, y: 20 }, b: { x: 9, y: 20 }, bulge: 0 },
      ]),
    );
    expect(contours.map(({ role, depth, joined, ids }) => [role, depth, joined, ids.length])).toEqual([
      ["outside", 0, true, 1],
      ["outside", 0, false, 2],
      ["inside", 1, true, 1],
    ]);
    expect(open.map(({ ends }) => ends.map(({ gap }) => gap?.distance.toFixed(2)))).toEqual([
      ["5.31", "0.31"],
      ["0.31", "4.00"],
    ]);
  });
});

it("an outline of two hundred thousand pieces has its centroid", () => {
  const corner = (i: number) => ({
    x: 7 + 10 * Math.cos((2 * Math.PI * i) / 200_000),
    y: -3 + 10 * Math.sin((2 * Math.PI * i) / 200_000),
  });
  const outline = Array.from({ length: 200_000 }, (_, i) => ({ a: corner(i), b: corner(i + 1), bulge: 0 }));
  const centre = centroidOf(outline)!;
  expect(centre.x).toBeCloseTo(7, 8);
  expect(centre.y).toBeCloseTo(-3, 8);
});
