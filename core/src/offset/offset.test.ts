import fc from "fast-check";
import Coordinate from "jsts/org/locationtech/jts/geom/Coordinate.js";
import GeometryFactory from "jsts/org/locationtech/jts/geom/GeometryFactory.js";
import BufferOp from "jsts/org/locationtech/jts/operation/buffer/BufferOp.js";
import { describe, expect, it } from "vitest";
import { enclosedArea } from "../contour/chainMeasure.ts";
import { circleHalves } from "../geometry/circle.ts";
import { pieceLength, pieceRadius, type Piece } from "../geometry/piece.ts";
import { blob, comb, cover, dumbbell, gear, polygon, randomFrom, roundedCorners } from "../testing/contours.ts";
import { flattened } from "../testing/flattened.ts";
import { crossingsOf, distanceError, distanceTo, isWelded } from "../testing/offsetChecks.ts";
import { offsetTrial } from "../testing/offsetTrial.ts";
import { allowanceFor, lastDistance, offset, offsetBand, offsetRegion, type Corners, type OffsetRun } from "./index.ts";

const areaOf = (runs: readonly OffsetRun[]): number => runs.reduce((sum, { pieces }) => sum + enclosedArea(pieces), 0);
const lengthOf = (runs: readonly { pieces: readonly Piece[] }[]): number =>
  runs.reduce((sum, { pieces }) => sum + pieces.reduce((all, piece) => all + pieceLength(piece), 0), 0);
const round = (pieces: readonly Piece[], by: number): readonly OffsetRun[] =>
  offset([{ pieces, closed: true }], by, { corners: "round" });
const circle = (radius: number, x = 0): readonly Piece[] => circleHalves({ centre: { x, y: 0 }, radius });
const KINDS: readonly Corners[] = ["round", "sharp", "flat"];
const box = polygon([
  [0, 0],
  [20, 0],
  [20, 10],
  [0, 10],
]);

describe("offset", () => {
  // seeds at random, and two polygon libraries beside: npm run bench -- trials
  it("holds in every family of contours, both ways, with every corner", () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 1e9 }), (seed) => {
        expect(offsetTrial(seed).faults).toEqual([]);
      }),
      { numRuns: 500, seed: 2712, examples: [[84655400], [84660840]] },
    );
  });

  // Steiner's formula for parallel curves: A + P d + π d², P + 2 π d
  it("outside a convex or smooth contour area and length are Steiner's", () => {
    const smooth = roundedCorners(
      [
        { x: 0, y: 0 },
        { x: 60, y: 5 },
        { x: 70, y: 40 },
        { x: 10, y: 50 },
      ],
      0.6,
    );
    for (const pieces of [box, smooth, circle(7), blob(12, 40, 0, randomFrom(3))])
      for (const d of [0.001, 1, 12.5]) {
        const [area, length] = [enclosedArea(pieces), lengthOf([{ pieces }])];
        const made = round(pieces, -d);
        expect(made).toHaveLength(1);
        expect(Math.abs(areaOf(made) / (area + length * d + Math.PI * d * d) - 1)).toBeLessThan(1e-9);
        expect(Math.abs(lengthOf(made) / (length + 2 * Math.PI * d) - 1)).toBeLessThan(1e-9);
      }
  });

  it("agrees with jsts' buffer (arcs within 1e-5) where that agrees with the distance itself", () => {
    for (const [pieces, by] of [
      [comb(20), 0.5],
      [comb(20), 1.2],
      [comb(20), -0.75],
      [comb(20), -3],
      [gear(24), 1],
      [gear(24), -3],
      [dumbbell(3), 2],
      [blob(20, 50, 0.2, randomFrom(1)), 2],
      [blob(20, 50, 0.2, randomFrom(1)), -2],
    ] as const) {
      // prettier-ignore
      const factory = new GeometryFactory();
      const ring = pieces.flatMap((piece) => flattened(piece, 1e-5)).map(({ x, y }) => new Coordinate(x, y));
      const theirs = BufferOp.bufferOp(
        factory.createPolygon(factory.createLinearRing([...ring, ring[0]!]), []),
        -by,
        400,
      );
      const made = round(pieces, by);
      expect(made).toHaveLength(theirs.getNumGeometries() as number);
      expect(Math.abs(areaOf(made) - (theirs.getArea() as number))).toBeLessThan(4e-5 * lengthOf(made));
      expect(
        distanceError(
          made.map((run) => run.pieces),
          distanceTo(pieces),
          Math.abs(by),
          20,
        ),
      ).toBeLessThan(1e-11);
    }
  });

  it("arcs stay arcs, of the radius more or less the distance to 1e-12, also far from the origin", () => {
    for (const far of [0, 1e5]) {
      const slot = [
        [20, 0],
        [80, 0],
        [80, 20],
        [20, 20],
      ].map(([x, y]) => ({ x: x! + far, y: y! }));
      const pieces = slot.map((a, i): Piece => ({ a, b: slot[(i + 1) % 4]!, bulge: i % 2 }));
      for (const d of [3, -3]) {
        const [made] = round(pieces, d);
        const radii = made!.pieces.filter(({ bulge }) => bulge !== 0).map(pieceRadius);
        expect(made!.pieces).toHaveLength(4);
        for (const radius of radii) expect(Math.abs(radius - (10 - d)) / (10 - d)).toBeLessThan(far ? 1e-11 : 1e-12);
      }
    }
    expect(round(circle(10), 4)[0]!.circle).toEqual({ centre: { x: 0, y: 0 }, radius: 6 });
    expect(round(circle(10), -4)[0]!.circle).toEqual({ centre: { x: 0, y: 0 }, radius: 14 });
  });

  it("vanishes at half the widest place and not before, and says where that is", () => {
    const cases: readonly (readonly [readonly Piece[], number])[] = [
      [box, 5],
      [circle(7), 7],
      [dumbbell(3), 10],
      [
        polygon([
          [0, 0],
          [4, 0],
          [0, 3],
        ]),
        1,
      ], // the incircle of the 3 4 5 triangle
      [
        roundedCorners(
          [
            { x: 0, y: 0 },
            { x: 30, y: 0 },
            { x: 30, y: 8 },
            { x: 0, y: 8 },
          ],
          0.9,
        ),
        4,
      ],
    ];
    for (const [pieces, last] of cases) {
      expect(round(pieces, last - 1e-6).length, `${last}`).toBeGreaterThan(0);
      expect(round(pieces, last)).toEqual([]);
      expect(round(pieces, last * 1.5)).toEqual([]);
      const found = lastDistance([{ pieces, closed: true }], last * 1.5, { corners: "round" });
      expect(Math.abs(found - last)).toBeLessThan(1e-6);
    }
  });

  it("splits into what is left: a dumbbell at half its neck, a comb into its teeth, a gear into one", () => {
    for (const neck of [3, 3 + 1e-9, 3 - 1e-9]) expect(round(dumbbell(neck), 1.5)).toHaveLength(2);
    expect(round(dumbbell(3), 1.4999)).toHaveLength(1);
    expect(round(comb(50), 1.1)).toHaveLength(50);
    expect(round(gear(60), 2)).toHaveLength(1);
  });

  it("sharp corners end where the edges meet, flat ones join their ends, beyond the limit sharp is flat", () => {
    const made = (corners: Corners, limit?: number): readonly OffsetRun[] =>
      offset([{ pieces: box, closed: true }], -2, { corners, ...(limit === undefined ? {} : { limit }) });
    expect(areaOf(made("sharp"))).toBeCloseTo(24 * 14, 12);
    expect(made("sharp")[0]!.pieces).toHaveLength(4);
    expect(areaOf(made("flat"))).toBeCloseTo(24 * 14 - 4 * 2, 12);
    expect(areaOf(made("sharp", 1.4))).toBeCloseTo(24 * 14 - 4 * 2, 12); // the corner is 2 √2 away
    expect(areaOf(made("round"))).toBeCloseTo(24 * 14 - (4 - Math.PI) * 4, 12);
  });

  it(
    "the cover of common practice by half an inch, both ways and with each corner: one contour that crosses " +
      "nothing",
    () => {
      const pieces = cover();
      for (const by of [0.5, -0.5])
        for (const corners of KINDS) {
          const made = offset([{ pieces, closed: true }], by, { corners });
          expect(made.map(({ closed, pieces: own }) => closed && isWelded(own))).toEqual([true]);
          expect(crossingsOf(made.map((run) => run.pieces))).toBe(0);
        }
      expect(
        distanceError(
          round(pieces, -0.5).map((run) => run.pieces),
          distanceTo(pieces),
          0.5,
          50,
        ),
      ).toBeLessThan(1e-12);
    },
  );

  it("material grows and shrinks with its holes, neighbours run into one another, thin rings vanish", () => {
    const outer = polygon([
      [0, -20],
      [0, 20],
      [-50, 20],
      [-50, -20],
    ]);
    const inner = polygon([
      [-10, -10],
      [-40, -10],
      [-40, 10],
      [-10, 10],
    ]);
    const plate = [outer, inner];
    const area = (grow: number, corners: Corners = "sharp"): number =>
      areaOf(offsetRegion(plate, grow, { corners }).runs);
    expect(area(2)).toBeCloseTo(54 * 44 - 26 * 16, 9);
    expect(area(-2)).toBeCloseTo(46 * 36 - 34 * 24, 9);
    expect(area(12)).toBeCloseTo(74 * 64, 9); // the hole is gone
    expect(offsetRegion(plate, 12, { corners: "round" }).vanished).toEqual([1]);
    const gone = offsetRegion([circle(20), circle(10)], -5, { corners: "round" });
    expect([gone.runs, gone.vanished]).toEqual([[], [0, 1]]);
    const two = offsetRegion([circle(10), circle(10, 25)], 3, { corners: "round" });
    expect(two.merged).toEqual([[0, 1]]);
    // two discs of 13 at 25: area by the closed form of the lens (circular segments)
    const half = 12.5 / 13;
    const lens = 2 * 169 * Math.acos(half) - 12.5 * 2 * Math.sqrt(169 - 156.25);
    expect(areaOf(two.runs)).toBeCloseTo(2 * Math.PI * 169 - lens, 8);
  });

  it("an open chain: on one side, cut off where its end comes near; round it with each kind of end", () => {
    const line: Piece[] = [{ a: { x: 0, y: 0 }, b: { x: 30, y: 0 }, bulge: 0 }];
    expect(offset([{ pieces: line, closed: false }], 4, { corners: "round" })[0]).toMatchObject({
      closed: false,
      pieces: [{ a: { x: 0, y: 4 }, b: { x: 30, y: 4 } }],
    });
    // formulas: 2 d L, and the ends: none, half discs, half squares
    for (const [ends, more] of [
      ["flat", 0],
      ["round", Math.PI * 16],
      ["square", 2 * 32],
    ] as const)
      // prettier-ignore
      expect(areaOf(offsetBand(line, 4, ends, { corners: "round" }))).toBeCloseTo(240 + more, 10);
    const hook = [
      [0, 0],
      [40, 0],
      [40, 20],
      [10, 20],
      [10, 5],
    ].map(([x, y]) => ({ x: x!, y: y! }));
    const chain = hook.slice(1).map((b, i): Piece => ({ a: hook[i]!, b, bulge: 0 }));
    const away = distanceTo(chain);
    for (const by of [3, -3, 6]) {
      const made = offset([{ pieces: chain, closed: false }], by, { corners: "round" });
      expect(made.length).toBeGreaterThan(0);
      expect(
        distanceError(
          made.map((run) => run.pieces),
          away,
          Math.abs(by),
          20,
        ),
      ).toBeLessThan(1e-9);
    }
    const bands = offsetBand(chain, 3, "round", { corners: "round" });
    expect(bands.map(({ closed }) => closed)).toEqual([true, true]); // it runs into itself: an outside and a hole
    expect(
      distanceError(
        bands.map((run) => run.pieces),
        away,
        3,
        20,
      ),
    ).toBeLessThan(1e-9);
  });

  it("a plate with 500 holes, their edges grown into one another; ten thousand pieces", () => {
    const outer = polygon([
      [-10, -10],
      [260, -10],
      [260, 210],
      [-10, 210],
    ]);
    const holes = Array.from({ length: 500 }, (_, i) =>
      circleHalves({ centre: { x: (i % 25) * 10, y: Math.floor(i / 25) * 10 }, radius: 3 }),
    );
    const apart = offsetRegion([outer, ...holes], 1, { corners: "round" });
    expect(apart.runs).toHaveLength(501);
    const one = offsetRegion([outer, ...holes], -2.5, { corners: "round" });
    expect(crossingsOf(one.runs.map(({ pieces }) => pieces))).toBe(0);
    expect(
      distanceError(
        one.runs.map(({ pieces }) => pieces),
        distanceTo([outer, ...holes].flat()),
        2.5,
      ),
    ).toBeLessThan(1e-9);
    const great = blob(5000, 5000, 0.001, randomFrom(1));
    const made = round(great, -3);
    expect(
      distanceError(
        made.map((run) => run.pieces),
        distanceTo(great),
        3,
        2,
      ),
    ).toBeLessThan(1e-9);
  });

  it(
    "a cutter goes outside of outer contours and inside of holes, and tells the corners and slots it can't get " +
      "into",
    () => {
      const outer = polygon([
        [0, 0],
        [100, 0],
        [100, 60],
        [60, 60],
        [60, 30],
        [56, 30],
        [56, 60],
        [0, 60],
      ]); // a slot 4 wide
      const hole = polygon([
        [10, 10],
        [40, 10],
        [40, 40],
        [10, 40],
      ]);
      const bore = circleHalves({ centre: { x: 80, y: 30 }, radius: 2.5 });
      const { runs, unreached, vanished } = allowanceFor([outer, hole, bore], 3);
      expect(vanished).toEqual([2]);
      expect(unreached.filter(({ contour, kind }) => contour === 1 && kind === "corner")).toHaveLength(4);
      expect(unreached.filter(({ contour, kind }) => contour === 0 && kind === "narrow").length).toBeGreaterThan(0);
      const [way, inside] = [...runs].sort(
        (p, q) => Math.abs(enclosedArea(q.pieces)) - Math.abs(enclosedArea(p.pieces)),
      );
      expect(Math.abs(enclosedArea(inside!.pieces))).toBeCloseTo(24 * 24, 10);
      expect(distanceError([way!.pieces, inside!.pieces], distanceTo([outer, hole, bore].flat()), 3)).toBeLessThan(
        1e-9,
      );
      expect(allowanceFor([circle(20)], 3).unreached).toEqual([]);
      expect(allowanceFor([circle(10), circle(10, 25)], 3).merged).toEqual([[0, 1]]); // 5 between them, the cutter is 6
      expect(allowanceFor([circle(10), circle(10, 27)], 3).merged).toEqual([]);
    },
  );
});
