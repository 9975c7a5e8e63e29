import fc from "fast-check";
import Coordinate from "jsts/org/locationtech/jts/geom/Coordinate.js";
import GeometryFactory from "jsts/org/locationtech/jts/geom/GeometryFactory.js";
import OverlayOp from "jsts/org/locationtech/jts/operation/overlay/OverlayOp.js";
import { describe, expect, it } from "vitest";
import { enclosedArea } from "../contour/chainMeasure.ts";
import { circleHalves } from "../geometry/circle.ts";
import {
  pieceDirection,
  pieceRadius,
  piecePoint,
  reversePiece,
  transformPiece,
  type Piece,
} from "../geometry/piece.ts";
import { along, distance, leftOf, type Point } from "../geometry/point.ts";
import { blob, gear, mapped, polygon, randomFrom, roundedCorners, star } from "../testing/contours.ts";
import { flattened } from "../testing/flattened.ts";
import { placements } from "../testing/placements.ts";
import { crossingsOf, isWelded } from "../testing/offsetChecks.ts";
import { unionTrial } from "../testing/unionTrial.ts";
import {
  arrange,
  combine,
  offCarrier,
  outlineOf,
  pointAlong,
  positionAlong,
  spanOf,
  type Area,
  type Combination,
  type Outline,
} from "./index.ts";
import { meetSpans } from "./meetSpans.ts";

const disc = (x: number, y: number, radius: number): readonly Piece[] => circleHalves({ centre: { x, y }, radius });
const box = (x: number, y: number, w: number, h: number): readonly Piece[] =>
  polygon([
    [x, y],
    [x + w, y],
    [x + w, y + h],
    [x, y + h],
  ]);
const areaOf = (outlines: readonly Outline[]): number =>
  outlines.reduce((sum, { pieces }) => sum + enclosedArea(pieces), 0);
/** What comes of areas; a refusal fails. */
const combined = (areas: readonly Area[], how: Combination): readonly Outline[] => {
  const made = combine(areas, how);
  if (!made.ok) throw new Error(made.refusal.code);
  return made.value;
};
const area = (how: Combination, ...areas: readonly Area[]): number => areaOf(combined(areas, how));

/** Two contours that cross, of any family, somewhere and turned. */
const pair = fc.integer({ min: 1, max: 1e9 }).map((seed): readonly [Piece[], Piece[]] => {
  const random = randomFrom(seed);
  const one = (): Piece[] => {
    const made = [
      () => star(9, random),
      () => blob(12, 50, 0.5, random),
      () => gear(9),
      () =>
        roundedCorners(
          star(7, random).map(({ a }) => a),
          0.5,
        ),
    ][Math.floor(random() * 4)]!();
    const pieces = crossingsOf([made]) > 0 ? made.map(({ a, b }) => ({ a, b, bulge: 0 })) : made;
    const [angle, dx, dy] = [6 * random(), 60 * random(), 60 * random()];
    const [c, s] = [Math.cos(angle), Math.sin(angle)];
    return mapped(pieces, ({ x, y }) => ({ x: x * c - y * s + dx, y: x * s + y * c + dy }));
  };
  return [one(), one()];
});

describe("arrangement", () => {
  it("holds Euler's formula V - E + F = 1 + C, and every half-edge has one face", () => {
    fc.assert(
      fc.property(pair, ([one, other]) => {
        const made = arrange([...one, ...other].map((piece, i) => ({ ...piece, owner: i })));
        const root = made.vertices.map((_, i) => i);
        const find = (i: number): number => (root[i] === i ? i : find(root[i]!));
        for (const { start, end } of made.edges) root[find(start)] = find(end);
        const components = new Set(made.vertices.map((_, i) => find(i))).size;
        expect(made.vertices.length - made.edges.length + made.faces.length).toBe(1 + components);
        expect(made.faces.flat(2).sort((p, q) => p - q)).toEqual(
          Array.from({ length: 2 * made.edges.length }, (_, i) => i),
        );
      }),
      { numRuns: 60 },
    );
  });

  it("united and common areas add up, take away is what is not common, whichever way contours turn", () => {
    fc.assert(
      fc.property(pair, fc.boolean(), ([one, other], back) => {
        const turned = back ? other.map(reversePiece).reverse() : other;
        const [p, q] = [enclosedArea(one), enclosedArea(other)];
        const [united, common] = [combined([[one], [turned]], "unite"), combined([[one], [turned]], "common")];
        expect(Math.abs(areaOf(united) + areaOf(common) - p - q)).toBeLessThan(1e-6);
        expect(Math.abs(area("take-away", [one], [turned]) + areaOf(common) - p)).toBeLessThan(1e-6);
        for (const { pieces } of [...united, ...common]) expect(isWelded(pieces)).toBe(true);
        expect(crossingsOf(united.map(({ pieces }) => pieces))).toBe(0);
      }),
      { numRuns: 60 },
    );
  });

  it("agrees with jsts' overlay, arcs flattened within 1e-5", () => {
    const factory = new GeometryFactory();
    const ring = (pieces: readonly Piece[]) => {
      const points = pieces.flatMap((piece) => flattened(piece, 1e-5)).map(({ x, y }) => new Coordinate(x, y));
      return factory.createPolygon(factory.createLinearRing([...points, points[0]!]), []);
    };
    fc.assert(
      fc.property(pair, ([one, other]) => {
        const theirs = OverlayOp.union(ring(one), ring(other)).getArea() as number;
        expect(Math.abs(area("unite", [one], [other]) - theirs)).toBeLessThan(2e-5 * 1500);
      }),
      { numRuns: 25 },
    );
  });

  // area of the lens of two circles: closed form from circular segments
  it("arcs stay arcs: the lens of two circles, their union and difference", () => {
    const lens = 2 * (100 * Math.acos(0.6) - 6 * 8);
    const common = combined([[disc(0, 0, 10)], [disc(12, 0, 10)]], "common");
    expect(areaOf(common)).toBeCloseTo(lens, 11);
    expect(common[0]!.pieces.map(pieceRadius).every((r) => Math.abs(r - 10) < 1e-12)).toBe(true);
    expect(area("unite", [disc(0, 0, 10)], [disc(12, 0, 10)])).toBeCloseTo(200 * Math.PI - lens, 10);
    expect(area("take-away", [disc(0, 0, 10)], [disc(12, 0, 10)])).toBeCloseTo(100 * Math.PI - lens, 10);
  });

  it("shared edges go, touching places stay apart, one in another is a hole, the same twice is itself", () => {
    const side = combined([[box(0, 0, 10, 10)], [box(10, 0, 10, 10)]], "unite");
    expect(side.map(({ pieces }) => pieces.length)).toEqual([4]);
    const part = combined([[box(0, 0, 10, 10)], [box(10, 2, 5, 5)]], "unite");
    expect([part.length, areaOf(part)]).toEqual([1, 125]);
    const touching = combined([[disc(0, 0, 5)], [disc(10, 0, 5)]], "unite");
    expect(touching.map(({ circle }) => circle?.radius)).toEqual([5, 5]);
    const corner = combined([[box(0, 0, 10, 10)], [box(10, 10, 10, 10)]], "unite");
    expect(corner.map(({ pieces }) => pieces.length)).toEqual([4, 4]);
    const hole = combined([[box(0, 0, 40, 40)], [disc(20, 20, 8)]], "take-away");
    expect(hole).toHaveLength(2);
    expect(areaOf(hole)).toBeCloseTo(1600 - 64 * Math.PI, 10);
    const inside = combined([[box(0, 0, 40, 40)], [disc(32, 20, 8)]], "take-away"); // touches the side from within
    expect(areaOf(inside)).toBeCloseTo(1600 - 64 * Math.PI, 10);
    expect(areaOf(combined([[box(0, 0, 7, 7)], [box(0, 0, 7, 7)]], "unite"))).toBe(49);
    expect(combined([[box(0, 0, 7, 7)], [box(0, 0, 7, 7)]], "take-away")).toEqual([]);
    // a plate with a hole, and what lies in the hole
    expect(areaOf(combined([[box(0, 0, 40, 40), box(10, 10, 20, 20)], [box(15, 15, 10, 10)]], "unite"))).toBe(1300);
  });

  it("faces among what crosses: a cross of lines in a circle, with loose ends; the outline of some of them", () => {
    const lines: Piece[] = [
      { a: { x: -15, y: 0 }, b: { x: 15, y: 0 }, bulge: 0 },
      { a: { x: 0, y: -15 }, b: { x: 0, y: 15 }, bulge: 0 },
    ];
    const made = arrange([...disc(0, 0, 10), ...lines].map((piece) => ({ ...piece, owner: 0 })));
    expect(made.faces).toHaveLength(5);
    const [east, north, out] = [
      { x: 5, y: 1 },
      { x: -1, y: 5 },
      { x: 12, y: 1 },
    ].map(made.faceAt);
    expect([east === north, out]).toEqual([false, 0]);
    const [half] = outlineOf(made, (face) => face === east || face === north);
    expect(enclosedArea(half!.pieces)).toBeCloseTo(50 * Math.PI, 10);
    expect(half!.pieces).toHaveLength(2); // the line between them is gone, the arcs are one again
  });

  it("a plate minus 500 holes, some over its edge; 200 discs and boxes united", () => {
    const plate = box(0, 0, 250, 200);
    const holes = Array.from({ length: 500 }, (_, i) => [disc((i % 25) * 10, Math.floor(i / 25) * 10 + 5, 3)]);
    const made = combined([[plate], ...holes], "take-away");
    expect(areaOf(made)).toBeCloseTo(50_000 - (480 + 20 / 2) * 9 * Math.PI, 6);
    const random = randomFrom(5);
    const many = Array.from({ length: 200 }, (_, i) => [
      i % 2 ? disc(100 * random(), 100 * random(), 3 + 5 * random()) : box(100 * random(), 100 * random(), 9, 6),
    ]);
    const united = combined(many, "unite");
    expect(crossingsOf(united.map(({ pieces }) => pieces))).toBe(0);
    expect(areaOf(united)).toBeLessThan(12_000);
  });

  it("arcs as flat as can be are met, measured and walked along as exactly as others", () => {
    const bulge = fc.double({ min: 1e-12, max: 1e-3, noNaN: true });
    const part = fc.double({ min: 0.05, max: 0.95, noNaN: true });
    fc.assert(
      fc.property(bulge, fc.boolean(), part, fc.double({ min: -5, max: 5, noNaN: true }), (b, back, t, off) => {
        const piece = { a: { x: 3, y: 4 }, b: { x: 80, y: -30 }, bulge: back ? -b : b };
        const span = spanOf(piece);
        const at = piecePoint(piece, t);
        const beside = along(at, leftOf(pieceDirection(piece, t)), off);
        expect(Math.abs(offCarrier(span, beside) - off)).toBeLessThan(1e-11);
        expect(Math.abs(positionAlong(span, beside) - t * span.length)).toBeLessThan(1e-10);
        expect(distance(pointAlong(span, t * span.length), at)).toBeLessThan(1e-11);
        const across = { x: 0.6, y: 0.8 };
        const line = spanOf({ a: along(at, across, -10), b: along(at, across, 10), bulge: 0 });
        const found: Point[] = [];
        meetSpans(span, line, 1e-7, (p) => void found.push(p));
        expect(found).toHaveLength(1);
        expect(distance(found[0]!, at)).toBeLessThan(1e-10);
      }),
    );
  });

  /**
   * Edges nearly on one another: two of a kind, one of them moved, turned or grown by so little; beside them a third
   * over their corner. Every true area lies between those of the parts moved by the resolution either way.
   */
  it("edges from 0 to 1e-3 apart: no area is lost, or it is refused", () => {
    const kinds: readonly ((s: number) => readonly Piece[])[] = [
      (s) =>
        roundedCorners(
          box(0, 0, s, s).map(({ a }) => a),
          0.3,
        ),
      (s) => box(0, 0, s, s),
      (s) => disc(s / 2, s / 2, s / 2),
    ];
    let [tried, refused] = [0, 0];
    fc.assert(
      fc.property(
        fc.constantFrom(...kinds),
        fc.double({ min: -9.5, max: -3, noNaN: true }).map((power) => 10 ** power),
        fc.constantFrom("moved", "turned", "grown", "apart"),
        fc.double({ min: 0, max: 6.3, noNaN: true }),
        placements,
        (kind, by, how, angle, m) => {
          const first = kind(20);
          const [c, s] = [Math.cos(by), Math.sin(by)];
          const second = mapped(first, ({ x, y }) => {
            if (how === "moved") return { x: x + by * Math.cos(angle), y: y + by * Math.sin(angle) };
            if (how === "turned") return { x: x * c - y * s, y: x * s + y * c };
            return how === "grown" ? { x: x * (1 + by), y: y * (1 + by) } : { x: x + 20 + by, y };
          });
          const put = (pieces: readonly Piece[]): readonly Piece[] => pieces.map((piece) => transformPiece(m, piece));
          const scale = Math.hypot(m.a, m.b);
          const parts = [first, second, disc(20, 20, 5)].map((pieces) => put(pieces));
          const [p, q, r] = parts.map((pieces) => Math.abs(enclosedArea(pieces))) as [number, number, number];
          const slack =
            4 * Math.max(1e-7, 1e-12 * 1e5, 1e-7 * 64) * 300 * scale + 1e-8 * (p + q + r) + 2500 * scale * scale * by;
          for (const all of [parts.slice(0, 2), parts, parts.slice(1).reverse()]) {
            tried += 1;
            const made = combine(
              all.map((one) => [one]),
              "unite",
            );
            if (!made.ok) {
              refused += 1;
              continue;
            }
            const united = areaOf(made.value);
            const sizes = all.map((pieces) => Math.abs(enclosedArea(pieces)));
            expect(united).toBeGreaterThan(Math.max(...sizes) - slack);
            expect(united).toBeLessThan(sizes.reduce((sum, one) => sum + one, 0) + slack);
            // the first two are one, or side by side
            if (all.length === 2 && all[0] === parts[0])
              expect(Math.abs(united - (how === "apart" ? p + q : p))).toBeLessThan(slack);
            if (all.length === 3) {
              const lens = area("common", [parts[how === "apart" ? 1 : 0]!], [parts[2]!]);
              if (how !== "apart") expect(Math.abs(united - (p + r - lens))).toBeLessThan(2 * slack);
            }
          }
        },
      ),
      { numRuns: 400 },
    );
    expect(refused).toBeLessThan(0.02 * tried);
  });

  // five thousand at random, against a polygon library too: npm run bench -- trials
  it("edges nearly on one another: what is united, common and left adds up", () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 1e9 }), (seed) => {
        const { isRefused, faults } = unionTrial(seed);
        expect(isRefused).toBe(false);
        expect(faults).toEqual([]);
      }),
      { numRuns: 150, seed: 417 },
    );
  });
});
