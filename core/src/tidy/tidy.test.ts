import fc from "fast-check";
import Coordinate from "jsts/org/locationtech/jts/geom/Coordinate.js";
import GeometryFactory from "jsts/org/locationtech/jts/geom/GeometryFactory.js";
import Polygonizer from "jsts/org/locationtech/jts/operation/polygonize/Polygonizer.js";
import { describe, expect, it } from "vitest";
import { endedAt } from "../construct/cornerCuts.ts";
import { filletCorner } from "../construct/fillet.ts";
import { rectangleOf } from "../construct/rectangle.ts";
import { enclosedArea } from "../contour/chainMeasure.ts";
import { enclosesNothing } from "../contour/joining.ts";
import { circleHalves } from "../geometry/circle.ts";
import {
  line,
  partOfPiece,
  pieceLength,
  pieceNearest,
  piecePoint,
  reversePiece,
  transformPiece,
  type Piece,
} from "../geometry/piece.ts";
import { distance, type Point } from "../geometry/point.ts";
import { moving, turning, type Similarity } from "../geometry/transform.ts";
import { arcsRound } from "../testing/contours.ts";
import { flattened } from "../testing/flattened.ts";
import { between } from "../testing/placements.ts";
import { tidy, type Thing, type Tidied, type TidyOptions, type TidyResult } from "./index.ts";

const TOLERANCE = 0.05;
const options = (rest: Partial<TidyOptions> = {}): TidyOptions => ({
  tolerance: TOLERANCE,
  ignore: new Set(["colour"]),
  sharedEdges: "keep",
  ...rest,
});
const thingsOf = (shapes: readonly Thing["shape"][], layer = "0"): Thing[] =>
  shapes.map((shape, id) => ({ id, shape, layer }));
const loose = (...pieces: readonly Piece[]): Thing["shape"][] => pieces.map((piece) => ({ kind: "piece", ...piece }));
const point = (x: number, y: number): Point => ({ x, y });
const box = (w: number, h: number, at: Point = point(0, 0)): readonly Piece[] => {
  const made = rectangleOf(w, h, { across: 0, up: 0 }, at);
  if (!made.ok) throw new Error(made.refusal.code);
  return made.value;
};
const chain = (pieces: readonly Piece[], closed = true): Thing["shape"] => ({ kind: "chain", closed, pieces });
const codes = ({ findings }: TidyResult): string[] => findings.map(({ code }) => code).sort();
const areaOf = ({ shape }: Tidied): number =>
  shape.kind === "circle"
    ? Math.PI * shape.radius ** 2
    : shape.kind === "chain" && shape.closed
      ? Math.abs(enclosedArea(shape.pieces))
      : NaN;
const areas = ({ things }: TidyResult): number[] => things.map(areaOf).sort((p, q) => p - q);

/** A rectangle whose corners are rounded, piece by piece. */
const rounded = (w: number, h: number, r: number): readonly Piece[] => {
  const sides = [...box(w, h)];
  const arcs: Piece[] = [];
  for (let i = 0; i < 4; i++) {
    const made = filletCorner(sides[i]!, sides[(i + 1) % 4]!, r);
    if (!made.ok) throw new Error(made.refusal.code);
    sides[i] = made.value.before!;
    sides[(i + 1) % 4] = made.value.after!;
    arcs.push(made.value.arc);
  }
  return sides.flatMap((side, i) => [side, arcs[i]!]);
};

/** How one piece of a sound outline is spoilt. */
type Spoil = "no" | "double" | "reversed" | "thrice" | "overlap" | "fragment" | "gap" | "tail";
const spoilt = (piece: Piece, how: Spoil, amount: number): readonly Piece[] => {
  const length = pieceLength(piece);
  const by = amount * TOLERANCE * 0.45;
  const run = (t: number): Piece => endedAt(piece, partOfPiece(piece, 0, t).b);
  switch (how) {
    case "no":
      return [piece];
    case "double":
      return [piece, piece];
    case "reversed":
      return [reversePiece(piece), piece];
    case "thrice":
      return [piece, reversePiece(piece), piece];
    case "overlap":
      return [partOfPiece(piece, 0, 0.7), partOfPiece(piece, 0.4, 1)];
    case "fragment":
      return [partOfPiece(piece, 0, 0.3), partOfPiece(piece, 0.3, 1)];
    case "gap":
      return [run(1 - by / length)];
    case "tail": {
      // only lines: an arc that runs on leaves the corner of its neighbours
      if (piece.bulge !== 0) return [piece];
      const u = { x: (piece.b.x - piece.a.x) / length, y: (piece.b.y - piece.a.y) / length };
      return [{ ...piece, b: { x: piece.b.x + u.x * by, y: piece.b.y + u.y * by } }];
    }
  }
};
const spoils = fc.constantFrom<Spoil>("no", "no", "double", "reversed", "thrice", "overlap", "fragment", "gap", "tail");
const placed: fc.Arbitrary<Similarity[]> = fc
  .record({
    turn: fc.double({ min: 0, max: 6.28, noNaN: true }),
    x: fc.constantFrom(0, 1e5, -3e4),
    y: fc.constantFrom(0, 7e4),
  })
  .map(({ turn, x, y }) => [turning({ x: 0, y: 0 }, turn), moving({ x, y })]);

const piecesIn = (things: readonly Pick<Thing, "shape">[]): readonly Piece[] =>
  things.flatMap(({ shape }) =>
    shape.kind === "chain" ? shape.pieces : shape.kind === "piece" ? [shape] : circleHalves(shape),
  );

/**
 * Lines, arcs, circles and chains of two looks at random between places of a grid, a little off it, some twice; with
 * scraps as short as the tolerance.
 */
const drawings = (off: number, scraps: boolean): fc.Arbitrary<readonly Thing[]> => {
  const place = fc
    .tuple(fc.nat(4), fc.nat(4), between(-off, off), between(-off, off), fc.nat(3))
    .map(([x, y, u, v, sharp]) => point(10 * x + (sharp ? 0 : u), 10 * y + (sharp ? 0 : v)));
  const bulge = fc.constantFrom(0, 0, 0, 0.4, -0.4, 1, -1);
  const piece = fc
    .record({ a: place, b: place, bulge: fc.oneof(bulge, fc.constant(3)) })
    .filter(({ a, b }) => distance(a, b) > 1);
  const chained = fc
    .tuple(fc.array(fc.tuple(place, bulge), { minLength: 3, maxLength: 6 }), fc.boolean())
    .map(([corners, closed]) =>
      chain(
        corners.flatMap(([a, bulge], i): Piece[] =>
          i + 1 < corners.length || closed ? [{ a, b: corners[(i + 1) % corners.length]![0], bulge }] : [],
        ),
        closed,
      ),
    );
  const circle = fc
    .tuple(place, fc.constantFrom(5, 10))
    .map(([centre, radius]) => ({ kind: "circle", centre, radius }) as const);
  const scrap = fc
    .tuple(place, between(-0.06, 0.06), between(-0.06, 0.06), bulge)
    .map(([a, x, y, bulge]) => ({ a, b: point(a.x + x, a.y + y), bulge }));
  const single = (one: Piece): Thing["shape"] => ({ kind: "piece", ...one });
  const shape = fc.oneof(
    { weight: 4, arbitrary: piece.map(single) },
    chained,
    circle,
    ...(scraps ? [scrap.map(single)] : []),
  );
  return fc
    .array(fc.tuple(shape, fc.nat(3), fc.nat(3)), { minLength: 1, maxLength: 12 })
    .map((drawn) =>
      drawn
        .flatMap(([one, twice, look]) =>
          thingsOf(twice ? [one] : [one, one]).map((thing): Thing => (look ? thing : { ...thing, line: "dashed" })),
        )
        .map((thing, id) => ({ ...thing, id })),
    );
};

describe("tidy", () => {
  it("gives back the outlines that a spoilt soup came from: their number and their areas", () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(spoils, fc.double({ min: 0.05, max: 1, noNaN: true })), { minLength: 16, maxLength: 16 }),
        fc.array(fc.nat(), { minLength: 60, maxLength: 60 }),
        fc.integer({ min: 0, max: 6 }),
        placed,
        (how, shuffle, r, m) => {
          const outlines = [r === 0 ? box(60, 40) : rounded(60, 40, r), box(20, 10, point(20, 15))];
          const pieces = outlines.flat().flatMap((piece, i) => spoilt(piece, how[i % 16]![0], how[i % 16]![1]));
          const soup = pieces
            .map((piece) => m.reduce((one, step) => transformPiece(step, one), piece))
            .map((piece, i) => ({ piece, key: shuffle[i % 60]! }))
            .sort((p, q) => p.key - q.key)
            .map(({ piece }) => piece);
          const result = tidy(thingsOf(loose(...soup)), options());
          const expected = outlines.map((outline) => Math.abs(enclosedArea(outline))).sort((p, q) => p - q);
          expect(areas(result)).toHaveLength(2);
          areas(result).forEach((area, i) => expect(Math.abs(area - expected[i]!)).toBeLessThan(1e-5 * expected[i]!));
          expect(result.findings.filter(({ fixed, severity }) => !fixed && severity === "error")).toEqual([]);
          // twice is once, number for number
          const again = tidy(
            result.things.map((thing, id) => ({ id, ...thing })),
            options(),
          );
          expect(again.findings).toEqual([]);
          expect(again.things.map(({ shape }) => shape)).toEqual(result.things.map(({ shape }) => shape));
        },
      ),
      { numRuns: 300 },
    );
  });

  it(
    "tells arcs that only share ends from overlaps: a lens, two arcs that go on from one another, one bulging " +
      "more",
    () => {
      const [a, b, c] = [point(6, 0), point(1.8541019662496847, 5.706339097770921), point(-4.854101966249684, 3.52671)];
      const clean: readonly (readonly Piece[])[] = [
        [{ a, b, bulge: 0.2 }, { a: b, b: c, bulge: -0.15 }, line(c, a)],
        [
          { a, b, bulge: 0.2 },
          { a: b, b: a, bulge: 0.2 },
        ],
        [
          { a, b, bulge: 0.2 },
          { a, b, bulge: 0.25 },
        ],
        [
          { a, b, bulge: 0.9 },
          { a: b, b: c, bulge: 0.9 },
          { a: c, b: a, bulge: 0.9 },
        ],
      ];
      for (const pieces of clean) {
        const result = tidy(thingsOf(loose(...pieces)), options());
        expect([codes(result), areas(result).length]).toEqual([[], 1]);
      }
    },
  );

  it("joins a soup of lines and arcs into the areas that jsts' Polygonizer finds, arcs flattened within 1e-4", () => {
    const outline = fc
      .array(fc.record({ r: between(6, 10), bulge: fc.constantFrom(0, 0, 0.2, -0.15) }), {
        minLength: 4,
        maxLength: 12,
      })
      .map((corners) => {
        const at = corners.map(({ r }, i) => {
          const angle = (2 * Math.PI * i) / corners.length;
          return point(r * Math.cos(angle), r * Math.sin(angle));
        });
        return corners.map(({ bulge }, i): Piece => ({ a: at[i]!, b: at[(i + 1) % at.length]!, bulge }));
      });
    const factory = new GeometryFactory();
    const polygonArea = (pieces: readonly Piece[]): number => {
      const polygonizer = new Polygonizer();
      for (const piece of pieces) {
        const along = [...flattened(piece, 1e-4), piece.b].map(({ x, y }) => new Coordinate(x, y));
        polygonizer.add(factory.createLineString(along));
      }
      const found = polygonizer.getPolygons().toArray() as { getArea: () => number }[];
      return found.reduce((sum, polygon) => sum + polygon.getArea(), 0);
    };
    fc.assert(
      fc.property(
        fc.array(outline, { minLength: 1, maxLength: 6 }),
        fc.array(fc.tuple(fc.nat(), fc.nat(3)), { minLength: 90, maxLength: 90 }),
        (outlines, chance) => {
          const pieces = outlines.flatMap((own, i) =>
            own.map((piece) => transformPiece(moving(point(30 * i, 0)), piece)),
          );
          const soup = pieces
            .flatMap((piece, i) => {
              const how = chance[i % 90]![1];
              return how === 0 ? [piece, reversePiece(piece)] : how === 1 ? [reversePiece(piece)] : [piece];
            })
            .map((piece, i) => ({ piece, key: chance[(7 * i) % 90]![0] }))
            .sort((p, q) => p.key - q.key)
            .map(({ piece }) => piece);
          // a corner less than the tolerance off a straight line is no corner: the areas agree within both tolerances
          const found = areas(tidy(thingsOf(loose(...soup)), options({ tolerance: 1e-4 })));
          expect(found).toHaveLength(outlines.length);
          const length = pieces.reduce((sum, piece) => sum + pieceLength(piece), 0);
          const total = found.reduce((sum, area) => sum + area, 0);
          expect(Math.abs(total - polygonArea(pieces))).toBeLessThan(2e-4 * length);
        },
      ),
      { numRuns: 100 },
    );
  });

  it("counts each surplus copy, whatever its direction; an outline twice is one; two half arcs are a circle", () => {
    const [base] = box(30, 20);
    expect(codes(tidy(thingsOf([...loose(...box(30, 20)), ...loose(base!, reversePiece(base!))]), options()))).toEqual([
      "duplicate",
      "duplicate",
    ]);
    const twice = tidy(thingsOf([chain(box(30, 20)), chain(box(30, 20))]), options());
    expect(codes(twice)).toEqual(["duplicate"]);
    expect(twice.things).toMatchObject([{ same: 0 }]);
    const circle = { centre: point(5, 5), radius: 8 };
    const halves = tidy(thingsOf(loose(...circleHalves(circle))), options());
    expect(halves.things.map(({ shape }) => shape)).toMatchObject([{ kind: "circle", radius: 8 }]);
    expect(codes(halves)).toEqual(["fragment"]);
    const onTop = tidy(
      thingsOf([
        { kind: "circle", ...circle },
        { kind: "circle", ...circle },
        ...loose(partOfPiece(circleHalves(circle)[0], 0.2, 0.9)),
      ]),
      options(),
    );
    expect(codes(onTop)).toEqual(["duplicate", "overlap"]);
    expect(onTop.things).toMatchObject([{ same: 0 }]);
  });

  it("a line in 150 000 bits end to end, or in 20 000 that half overlap, is one line again", () => {
    const bits = (count: number, step: number): Thing[] =>
      Array.from({ length: count }, (_, id) => ({
        id,
        layer: "0",
        shape: { kind: "piece", ...line(point(id * step, 0), point(id * step + 1, 0)) },
      }));
    for (const [count, step] of [
      [150_000, 1],
      [20_000, 0.5],
    ] as const)
      // prettier-ignore
      expect(tidy(bits(count, step), options()).things.map(({ shape }) => shape)).toEqual([
        { kind: "piece", a: point(0, 0), b: point((count - 1) * step + 1, 0), bulge: 0 },
      ]);
  });

  it(
    "of thousands of copies one stays, as of two: the one that something is attached to; left alone all stay as " +
      "they are",
    () => {
      const [one] = loose(line(point(0, 0), point(9, 3)));
      const disc = { kind: "circle", centre: point(40, 0), radius: 7 } as const;
      const frame = chain(box(5, 5, point(80, 0)));
      const turned = chain(box(5, 5, point(80, 0)).map(reversePiece).toReversed());
      const shapes = Array.from({ length: 12000 }, (_, i) => [one!, disc, i % 2 ? frame : turned][i % 3]!);
      const pile = thingsOf(shapes).map((thing): Thing => (thing.id === 9000 ? { ...thing, attached: true } : thing));
      const { things, findings, absorbed } = tidy(pile, options());
      expect(things.map(({ same }) => same).sort()).toEqual([1, 2, 9000]);
      expect(findings.filter(({ code, fixed }) => code === "duplicate" && fixed)).toHaveLength(11997);
      expect(findings.filter(({ code }) => code !== "duplicate").map(({ code, ids }) => [code, ids])).toEqual([
        ["open", [9000]],
      ]);
      expect(new Set(absorbed.map(([, stays]) => stays.id))).toEqual(new Set([1, 2, 9000]));
      const left = tidy(pile, options({ accept: () => false }));
      expect(left.things.map(({ same }) => same)).toEqual(pile.map(({ id }) => id));
      expect(left.findings.filter(({ code }) => code === "duplicate")).toHaveLength(11997);
    },
  );

  it("another layer makes them different, another colour does not, and either can be asked for", () => {
    const [one, other] = thingsOf([...loose(line(point(0, 0), point(9, 0)), line(point(9, 0), point(0, 0)))]);
    const on = (layer: string, colour: string): Thing[] => [one!, { ...other!, layer, colour }];
    const duplicates = (things: readonly Thing[], ignore: TidyOptions["ignore"]): number =>
      codes(tidy(things, options({ ignore }))).filter((code) => code === "duplicate").length;
    expect(duplicates(on("1", ""), new Set(["colour"]))).toBe(0);
    expect(duplicates(on("1", ""), new Set(["colour", "layer"]))).toBe(1);
    expect(duplicates(on("0", "red"), new Set(["colour"]))).toBe(1);
    expect(duplicates(on("0", "red"), new Set())).toBe(0);
    // told apart, each is joined with its like alone
    const red = thingsOf(loose(...box(30, 20))).map((thing): Thing => ({ ...thing, colour: "red" }));
    const both = tidy(
      [...thingsOf(loose(...box(30, 20))), ...red].map((thing, id) => ({ ...thing, id })),
      options({ ignore: new Set() }),
    );
    expect(both.findings).toEqual([]);
    expect(both.things.map(({ colour, shape }) => [colour, shape.kind === "chain" && shape.closed])).toEqual([
      [undefined, true],
      ["red", true],
    ]);
    // where they may be joined, what they differ in is no one's
    const mixed = thingsOf(loose(...box(30, 20))).map((thing): Thing => ({
      ...thing,
      colour: thing.id === 0 ? "red" : "blue",
      line: "dashed",
    }));
    expect(
      tidy(mixed, options({ ignore: new Set(["colour"]) })).things.map(({ colour, line }) => [colour, line]),
    ).toEqual([[undefined, "dashed"]]);
    // a line of another layer that ends at a corner does not keep the corner from closing
    const gaping = [line(point(0, 0), point(30, 0.02)), ...box(30, 20).slice(1)];
    const marked = tidy(
      [...thingsOf(loose(...gaping)), { id: 9, layer: "mark", shape: loose(line(point(30, 0.02), point(50, 9)))[0]! }],
      options(),
    );
    expect(marked.things.map(({ layer, shape }) => [layer, shape.kind === "chain" && shape.closed])).toEqual([
      ["0", true],
      ["mark", false],
    ]);
  });

  it(
    "an edge of two outlines is shared: kept with a warning, one copy dropped, or both outlines merged; also in " +
      "part",
    () => {
      const left = [chain(box(30, 20))];
      for (const right of [box(10, 20, point(30, 0)), box(10, 12, point(30, 4))])
        for (const things of [
          thingsOf([...left, chain(right)]),
          thingsOf(loose(...box(30, 20), ...right)),
          thingsOf([chain(right), ...left]),
        ]) {
          const kept = tidy(things, options());
          expect(codes(kept).filter((code) => code !== "fragment")).toContain("shared-edge");
          if (things.length === 2) {
            expect(codes(kept)).toEqual(["shared-edge"]);
            expect(kept.things.map(({ same }) => same)).toEqual([0, 1]);
          }
          expect(areas(kept)).toEqual(
            [Math.abs(enclosedArea(right)), 600].map((area) => expect.closeTo(area, 6) as number),
          );
          const merged = tidy(things, options({ sharedEdges: "merge" }));
          const whole = 600 + Math.abs(enclosedArea(right));
          expect(areas(merged)).toEqual([expect.closeTo(whole, 6)]);
          const dropped = tidy(things, options({ sharedEdges: "drop" }));
          expect(dropped.things.filter(({ shape }) => shape.kind === "chain" && shape.closed)).toHaveLength(1);
          expect(dropped.findings.filter(({ code }) => code === "open")).toMatchObject([{ severity: "warning" }]);
        }
    },
  );

  it(
    "closes at the true corner where both ends are near it, half way where not, and moves nothing farther than " +
      "allowed",
    () => {
      const corner = tidy(
        thingsOf(loose(line(point(0, 0), point(10.03, 0)), line(point(10, -0.02), point(10, 8)))),
        options(),
      );
      expect(codes(corner)).toEqual(["open", "tail"]);
      expect(corner.things[0]!.shape).toMatchObject({ pieces: [{ b: point(10, 0) }, { a: point(10, 0) }] });
      const apart = tidy(
        thingsOf(loose(line(point(0, 0), point(10, 0)), line(point(10.04, 0.01), point(30, 0.4)))),
        options(),
      );
      expect(codes(apart)).toEqual(["gap", "open"]);
      const far = tidy(
        thingsOf(loose(line(point(0, 0), point(10, 0)), line(point(10.051, 0), point(10.051, 9)))),
        options(),
      );
      expect(codes(far)).toEqual(["open", "open"]);
      expect(far.things.map(({ same }) => same)).toEqual([0, 1]);
    },
  );

  it("an arc that goes nearly all the way round becomes the circle that it lies on, and never nothing", () => {
    fc.assert(
      fc.property(between(0.5, 200), between(0, 6), fc.constantFrom(0, 1e-7, 1e-6, 1e-4, 0.04), (radius, from, gap) => {
        const centre = point(7, -3);
        const at = (angle: number): Point => ({ x: 7 + radius * Math.cos(angle), y: -3 + radius * Math.sin(angle) });
        const sweep = 2 * Math.PI - Math.max(gap / radius, 1e-9);
        const arc: Piece = { a: at(from), b: at(from + sweep), bulge: Math.tan(sweep / 4) };
        for (const piece of [arc, reversePiece(arc)]) {
          const { things } = tidy(thingsOf(loose(piece)), options());
          expect(things).toMatchObject([{ shape: { kind: "circle" } }]);
          // a chord of a few last places says little of its circle
          if (gap >= 1e-4 && things[0]!.shape.kind === "circle") {
            expect(things[0]!.shape.radius).toBeCloseTo(radius, 6);
            expect(distance(things[0]!.shape.centre, centre)).toBeLessThan(1e-6);
          }
        }
      }),
    );
  });

  it("a closed chain that goes round one circle is that circle, however many arcs it has; others stay chains", () => {
    for (const [count, at] of [
      [2, point(0, 0)],
      [3, point(1e5, -3e4)],
      [5, point(7, 7)],
    ] as const) {
      const arcs = arcsRound(12.5, count, 0.3).map((piece) => transformPiece(moving(at), piece));
      for (const own of [arcs, arcs.map(reversePiece).reverse()]) {
        const made = tidy(thingsOf([chain(own)]), options());
        const { shape } = made.things[0]!;
        if (shape.kind !== "circle") throw new Error(shape.kind);
        expect([distance(shape.centre, at), shape.radius - 12.5].every((off) => Math.abs(off) < 1e-9)).toBe(true);
        expect(codes(made)).toEqual(["fragment"]);
        expect(made.things[0]!.origins).toEqual([own.map((_, piece) => ({ id: 0, piece }))]);
        expect(tidy(thingsOf([shape]), options()).findings).toEqual([]);
        // left as it is where that is asked for
        expect(tidy(thingsOf([chain(own)]), options({ accept: () => false })).things[0]!.same).toBe(0);
      }
      const off = arcs.map((piece, i) => (i === 0 ? { ...piece, bulge: piece.bulge * 1.001 } : piece));
      expect(tidy(thingsOf([chain(off)]), options()).things[0]!.shape.kind).toBe("chain");
    }
  });
  it("outlines side by side and four round one corner: all stay, or become one without the corners between", () => {
    fc.assert(
      fc.property(between(0, 6.3), fc.constantFrom(0, 1e4), fc.constantFrom(1, 2), (turn, far, rows) => {
        const place = [turning(point(0, 0), turn), moving(point(far, far))] as const;
        const tiles = [0, 1].flatMap((column) =>
          Array.from({ length: rows }, (_, row) =>
            box(40, 30, point(40 * column, 30 * row)).map((piece) =>
              place.reduce((own, move) => transformPiece(move, own), piece),
            ),
          ),
        );
        const things = thingsOf(tiles.map((pieces) => chain(pieces)));
        const kept = tidy(things, options());
        expect(areas(kept).map((area) => Math.round(area))).toEqual(tiles.map(() => 1200));
        const merged = tidy(things, options({ sharedEdges: "merge" }));
        expect(areas(merged).map((area) => Math.round(area))).toEqual([1200 * tiles.length]);
        const { shape, origins } = merged.things[0]!;
        if (shape.kind !== "chain") throw new Error(shape.kind);
        expect([shape.pieces.length, origins.length]).toEqual([4, 4]);
      }),
      { numRuns: 60 },
    );
  });
  it("fields of tiles in loose lines keep the edges that two share; what was drawn twice has no such border", () => {
    const placed = fc.tuple(between(0, 6.3), fc.constantFrom(0, 1e4));
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 4 }),
        fc.integer({ min: 1, max: 3 }),
        fc.nat(),
        placed,
        (columns, rows, seed, [turn, far]) => {
          const put = (piece: Piece): Piece =>
            [turning(point(0, 0), turn), moving(point(far, far))].reduce(
              (own, move) => transformPiece(move, own),
              piece,
            );
          const tiles = Array.from({ length: columns * rows }, (_, i) =>
            box(40, 30, point(40 * (i % columns), 30 * Math.floor(i / columns))).map(put),
          );
          const lines = tiles.flat().map((piece, i) => ((i * 7 + seed) % 3 === 0 ? reversePiece(piece) : piece));
          const order = lines.map((_, i) => i).sort((p, q) => ((p * 7919 + seed) % 31) - ((q * 7919 + seed) % 31));
          const drawn = thingsOf(loose(...order.map((i) => lines[i]!)));
          const kept = tidy(drawn, options());
          expect(areas(kept).map((area) => Math.round(area))).toEqual(tiles.map(() => 1200));
          expect(kept.findings.every(({ code, fixed }) => code === "shared-edge" && !fixed)).toBe(true);
          const merged = tidy(drawn, options({ sharedEdges: "merge" }));
          expect(areas(merged).map((area) => Math.round(area))).toEqual([1200 * tiles.length]);
          const again = tidy(
            kept.things.map((thing, id) => ({ ...thing, id })),
            options(),
          );
          expect(again.things.map(({ shape }) => shape)).toEqual(kept.things.map(({ shape }) => shape));
        },
      ),
      { numRuns: 80 },
    );
    // diamonds in a row that touch at their corners, each drawn twice
    const diamonds = [0, 1, 2].flatMap((i) => {
      const corners = [point(20 * i, 0), point(20 * i + 10, 6), point(20 * i + 20, 0), point(20 * i + 10, -6)];
      const sides = corners.map((a, k) => line(a, corners[(k + 1) % 4]!));
      return [...sides, ...sides];
    });
    const single = tidy(thingsOf(loose(...diamonds)), options());
    expect(areas(single).map((area) => Math.round(area))).toEqual([120, 120, 120]);
  });
  it("an outline and another version of it over the same edges are never two outlines to be cut", () => {
    for (const [w, h] of [
      [100, 61],
      [101, 61],
      [100, 59.8],
    ] as const)
      for (const sharedEdges of ["keep", "merge", "drop"] as const) {
        const made = tidy(thingsOf([chain(box(100, 60)), chain(box(w, h))]), options({ sharedEdges }));
        expect(made.things.filter(({ shape }) => shape.kind === "chain" && shape.closed)).toHaveLength(1);
        expect(made.findings.some(({ severity, fixed }) => severity === "error" && !fixed)).toBe(true);
      }
  });
  it("an outline stays closed whatever else ends at its corners; stubs go, whiskers and bridges alone are open", () => {
    const corner = fc.integer({ min: 0, max: 7 });
    const whiskers = fc.array(fc.tuple(corner, fc.option(corner, { nil: undefined }), between(-0.5, 0.5)), {
      maxLength: 5,
    });
    const stubs = fc.array(fc.tuple(corner, between(0, 6.3), between(0.001, 0.049)), { maxLength: 3 });
    const placed = fc.tuple(between(0, 6.3), fc.constantFrom(0, 1e4));
    fc.assert(
      fc.property(whiskers, stubs, placed, fc.boolean(), fc.boolean(), (long, short, [turn, far], chained, twice) => {
        const put = (piece: Piece): Piece =>
          [turning(point(0, 0), turn), moving(point(far, far))].reduce((own, move) => transformPiece(move, own), piece);
        const tiles = [box(100, 60), box(50, 42, point(300, 10))];
        const corners = tiles.flat().map(({ a }) => a);
        const outlines = chained
          ? tiles.map(([first, ...more]) => chain([first!, line(first!.b, first!.b), ...more].map(put)))
          : loose(...tiles.flat().map(put));
        const ends = long.map(([from, to, bulge], i): Piece => {
          const a = corners[from]!;
          // one bridge at most: two would close a loop of their own; a diagonal leaves a single chain closed
          const whole = chained && !twice;
          const across = to !== undefined && to !== from && (whole || (i === 0 && to >> 2 !== from >> 2));
          const b = across ? corners[to]! : point(a.x - 70 + 17 * i, a.y + 90 - 11 * i);
          return { a, b, bulge: across ? 0.37 + i / 50 : bulge };
        });
        const tiny = short.map(([from, angle, length]) => {
          const a = corners[from]!;
          return line(a, point(a.x + length * Math.cos(angle), a.y + length * Math.sin(angle)));
        });
        const drawn = [...loose(...[...tiny, ...ends].map(put)), ...outlines, ...(twice ? outlines : [])];
        const made = tidy(thingsOf(drawn), options());
        const closed = made.things.filter(({ shape }) => shape.kind === "chain" && shape.closed);
        const areasOfTiles = closed
          .map(areaOf)
          .filter((area) => Math.abs(area - 6000) < 1e-3 || Math.abs(area - 2100) < 1e-3);
        expect(areasOfTiles).toHaveLength(2);
        const straight = piecesIn(made.things).filter((piece) => pieceLength(piece) < TOLERANCE);
        expect(straight).toEqual([]);
        expect(piecesIn(made.things)).toHaveLength(8 + ends.length);
      }),
      { numRuns: 300 },
    );
  });
  it("a stub stays where something is attached to it, and where it lies on a layer of its own", () => {
    const corner = point(100, 60);
    const stub = line(corner, point(100.02, 60.02));
    const plate = thingsOf(loose(...box(100, 60)));
    const stubs = (rest: Partial<Thing>): TidyResult =>
      tidy([...plate, { id: 9, layer: "0", shape: { kind: "piece", ...stub }, ...rest }], options());
    expect(stubs({}).things).toHaveLength(1);
    expect(codes(stubs({}))).toEqual(["tail"]);
    for (const rest of [{ attached: true }, { layer: "notes" }]) {
      const { things } = stubs(rest);
      expect(things).toHaveLength(2);
      expect(areas({ ...stubs(rest), things }).filter((area) => !Number.isNaN(area))).toEqual([6000]);
    }
  });
  it("a short piece that leads on over a gap is no stub, whatever else ends at its corner", () => {
    const drawn = [
      line(point(0, 0), point(100, 0)),
      line(point(100, 0), point(100, 60)),
      line(point(100, 60), point(99.98, 60.03)),
      line(point(99.96, 60.045), point(0, 60)),
      line(point(0, 60), point(0, 0)),
      line(point(100, 60), point(140, 90)),
    ];
    const made = tidy(thingsOf(loose(...drawn)), options());
    const closed = made.things.filter(({ shape }) => shape.kind === "chain" && shape.closed);
    expect(closed.map(areaOf).map((area) => Math.round(area / 10))).toEqual([600]);
    expect(codes(made)).toEqual(["gap", "open"]);
  });
  it("two scraps there and back close nothing", () => {
    const scraps = loose(line(point(0, 0), point(0.03, 0.02)), line(point(0.03, 0.02), point(0.002, 0.001)));
    const { things } = tidy(thingsOf(scraps), options());
    for (const { shape } of things) expect(shape.kind === "chain" && shape.closed).toBe(false);
    // nor an arc there and back; a flat arc over its chord does, however thin
    const arc: Piece = { a: point(0, 0), b: point(40, 0), bulge: 0.4 };
    const back = [reversePiece(arc), { ...reversePiece(arc), bulge: -0.40000001 }];
    for (const other of back) expect(enclosesNothing([arc, other])).toBe(true);
    const flat: Piece = { a: point(0, 0), b: point(1000, 0), bulge: 0.001 };
    expect(enclosesNothing([flat, line(flat.b, flat.a)])).toBe(false);
    const made = tidy(thingsOf(loose(flat, line(flat.b, flat.a))), options());
    expect(made.things).toMatchObject([{ shape: { kind: "chain", closed: true } }]);
  });
  it("a tracing in short loose lines keeps its corners, two half circles with a line at their joint stay", () => {
    const corner = (i: number): Point => point(20 * Math.cos((Math.PI * i) / 100), 20 * Math.sin((Math.PI * i) / 100));
    const chords = Array.from({ length: 200 }, (_, i) => line(corner(i), corner(i + 1)));
    const traced = tidy(thingsOf(loose(...chords)), options());
    expect(traced.findings).toEqual([]);
    expect(traced.things).toMatchObject([{ shape: { kind: "chain", closed: true } }]);
    expect(areas(traced)[0]).toBeCloseTo(100 * 400 * Math.sin(Math.PI / 100), 6);
    // corners so small that chords become one: their directions stay within 2e-3, so what is off stays under 1000 ·
    // 2e-3² / 2
    const fine = (i: number): Point =>
      point(1000 * Math.cos((Math.PI * i) / 10000), 1000 * Math.sin((Math.PI * i) / 10000));
    const fewer = tidy(
      thingsOf(loose(...Array.from({ length: 20000 }, (_, i) => line(fine(i), fine(i + 1))))),
      options(),
    );
    expect(fewer.things).toMatchObject([{ shape: { kind: "chain", closed: true } }]);
    for (const { a, b } of piecesIn(fewer.things))
      expect(1000 - Math.hypot((a.x + b.x) / 2, (a.y + b.y) / 2)).toBeLessThan(2.1e-3);
    const halves = circleHalves({ centre: point(0, 0), radius: 10 });
    const joined = tidy(thingsOf(loose(...halves, line(point(10, 0), point(30, 0)))), options());
    expect(joined.findings.filter(({ fixed }) => fixed)).toEqual([]);
    // the left half of a circle as part of an outline: the right half stays
    const left: Piece = { a: point(0, 10), b: point(0, -10), bulge: 1 };
    const cut = [left, line(left.b, point(0, -30)), line(point(0, -30), left.a)];
    const circled = tidy(thingsOf([{ kind: "circle", centre: point(0, 0), radius: 10 }, chain(cut)]), options());
    const lengths = circled.things.flatMap(({ shape }) =>
      shape.kind === "chain" ? shape.pieces : shape.kind === "piece" ? [shape] : circleHalves(shape),
    );
    expect(lengths.filter(({ bulge }) => bulge !== 0).reduce((sum, piece) => sum + pieceLength(piece), 0)).toBeCloseTo(
      20 * Math.PI,
      6,
    );
  });

  it(
    "nothing that is drawn is lost, and nothing comes where nothing was: lines, arcs, circles and chains at " +
      "random, scraps among them",
    () => {
      // met at random: both became a circle, and the arc's other part was lost
      const scrap: Piece = { a: point(10, 30), b: point(10, 29.9546883302162), bulge: 0.4 };
      const arc: Piece = { a: point(10, 30), b: point(0, 0), bulge: -0.4 };
      const scrapsOnAnArc = thingsOf([...loose(scrap, scrap), chain([arc], false), chain([arc], false)]);
      const short: Piece = {
        a: point(2.0392267221581317, 6.003519311716556),
        b: point(1.9737797195901068, 6.035747150925801),
        bulge: -1,
      };
      const outline = chain([
        short,
        line(short.b, point(6, 8)),
        line(point(6, 8), point(2, 4)),
        line(point(2, 4), short.a),
      ]);
      const circleOnAScrap = thingsOf([{ kind: "circle", centre: point(2, 4), radius: 2 }, outline]);
      const far = (from: readonly Piece[], to: readonly Piece[]): number =>
        Math.max(
          0,
          ...from.flatMap((piece) =>
            [0.03, 0.27, 0.5, 0.71, 0.97].map((t) =>
              Math.min(...to.map((other) => pieceNearest(other, piecePoint(piece, t)).distance)),
            ),
          ),
        );
      fc.assert(
        fc.property(drawings(0.04, true), (drawn) => {
          const soup = piecesIn(drawn);
          const { things, absorbed, findings } = tidy(drawn, options());
          const standing = piecesIn(things);
          const tails = new Set(findings.flatMap(({ code, fixed, ids }) => (code === "tail" && fixed ? ids : [])));
          // for every piece one that stands is known, to which what is attached to it goes
          const known = new Set(
            things.flatMap(({ origins }) => origins.flat().map(({ id, piece }) => `${id} ${piece}`)),
          );
          for (const [went, stays] of absorbed)
            if (known.has(`${stays.id} ${stays.piece}`)) known.add(`${went.id} ${went.piece}`);
          for (const { id, shape } of drawn)
            (shape.kind === "circle" ? [circleHalves(shape)[0]] : piecesIn([{ shape }])).forEach((piece, place) => {
              // a stub goes for good
              const isTail = tails.has(id) && pieceLength(piece) <= TOLERANCE;
              if (distance(piece.a, piece.b) > 1e-5 && !isTail) expect(known).toContain(`${id} ${place}`);
            });
          expect(
            far(
              soup.filter(({ a, b }) => distance(a, b) > 1e-5),
              standing,
            ),
          ).toBeLessThan(4 * TOLERANCE);
          expect(far(standing, soup)).toBeLessThan(4 * TOLERANCE);
        }),
        { numRuns: 1000, examples: [[scrapsOnAnArc], [circleOnAScrap]] },
      );
    },
  );

  /** A disc with a doubled vertex where an arc ends, and just beside that a line. */
  const discBesideAnEnd: readonly Thing[] = thingsOf([
    { kind: "piece", a: point(10, 20), b: point(0, 0), bulge: -1 },
    { kind: "piece", a: point(0, 0), b: point(10, 20.000001), bulge: 0 },
    chain(
      [
        { a: point(0, 40), b: point(0, 40), bulge: 0 },
        { a: point(0, 40), b: point(10, 20), bulge: -1 },
        { a: point(10, 20), b: point(0, 40), bulge: -1 },
      ],
      true,
    ),
  ]);
  it("twice is the same as once, number for number: lines, arcs, circles and chains at random", () => {
    const same = (things: readonly Tidied[]): readonly Thing[] => things.map((thing, id) => ({ ...thing, id }));
    fc.assert(
      fc.property(drawings(0.03, false), fc.constantFrom("keep", "drop" as const), (drawn, sharedEdges) => {
        const first = tidy(drawn, options({ sharedEdges }));
        const again = tidy(same(first.things), options({ sharedEdges }));
        expect(again.findings.filter(({ fixed, code }) => fixed && code !== "shared-edge")).toEqual([]);
        expect(again.things.map(({ shape }) => shape)).toEqual(first.things.map(({ shape }) => shape));
      }),
      { numRuns: 500, examples: [[discBesideAnEnd, "keep"]] },
    );
  });

  it("a corner of a chain that is smaller than the tolerance is left, where closing would leave nothing of it", () => {
    // found by random drawings: both ends of a scrap were brought to one place
    const corners = [
      point(7.97471291024923, 4.039882558807676),
      point(8.000702233147203, -0.03756749495750642),
      point(0, 0),
      point(-0.018613067333871997, -0.029822680386632064),
      point(-0.026424190768238244, -0.03137424178019829),
    ];
    const pieces = corners.map((a, i): Piece => ({ a, b: corners[(i + 1) % 5]!, bulge: i === 3 ? 0.4 : 0 }));
    const [held, ...others] = thingsOf([
      ...loose(
        { a: point(0, 8), b: point(0, 0), bulge: -0.4 },
        { a: point(0, 8), b: point(8, 0), bulge: -0.4 },
        {
          a: point(-0.02426320622873642, -0.031707086372984146),
          b: point(8.001726795975923, -0.017740032662516475),
          bulge: 0.4,
        },
      ),
      chain(pieces),
    ]);
    const { things } = tidy([{ ...held!, attached: true }, ...others], options({ sharedEdges: "merge" }));
    for (const { shape } of things)
      if (shape.kind === "chain") expect(shape.pieces.length).toBeGreaterThan(0);
      else expect(shape.kind === "circle" || pieceLength(shape) > 0).toBe(true);
  });

  it("what is clean comes back number for number with no finding; what is left as it is stays", () => {
    const clean = thingsOf([
      chain(rounded(60, 40, 5)),
      { kind: "circle", centre: point(30, 20), radius: 4 },
      chain(box(5, 5, point(5, 5))),
    ]);
    const result = tidy(clean, options());
    expect(result.findings).toEqual([]);
    result.things.forEach(({ shape, same }, i) => {
      expect(same).toBe(i);
      expect(shape).toBe(clean[i]!.shape);
    });
    const [base] = box(30, 20);
    const spoiltThings = thingsOf(loose(...box(30, 20), base!));
    const left = tidy(spoiltThings, options({ accept: ({ code }) => code !== "duplicate" }));
    expect(left.findings.find(({ code }) => code === "duplicate")).toMatchObject({ fixed: false, mendable: true });
    // with nothing accepted nothing comes or goes, whatever is wrong
    fc.assert(
      fc.property(fc.array(spoils, { minLength: 8, maxLength: 8 }), (how) => {
        const soup = rounded(60, 40, 6).flatMap((piece, i) => spoilt(piece, how[i]!, 0.7));
        const length = (pieces: readonly Piece[]): number => pieces.reduce((sum, piece) => sum + pieceLength(piece), 0);
        const { things } = tidy(thingsOf(loose(...soup)), options({ accept: () => false }));
        const standing = things.flatMap(({ shape }) =>
          shape.kind === "chain" ? shape.pieces : shape.kind === "piece" ? [shape] : circleHalves(shape),
        );
        expect(length(standing)).toBeCloseTo(length(soup), 6);
      }),
    );
  });

  it("says what stays in the way: crossings once each, pieces shorter than the tolerance, what does not close", () => {
    const crossed = tidy(thingsOf([chain(box(30, 20)), chain(box(30, 20, point(10, 7)))]), options());
    expect(codes(crossed)).toEqual(["crossing", "crossing"]);
    const eight = [point(0, 0), point(10, 10), point(10, 0), point(0, 10)];
    expect(codes(tidy(thingsOf([chain(eight.map((a, i) => line(a, eight[(i + 1) % 4]!)))]), options()))).toEqual([
      "crossing",
    ]);
    const tiny = [point(0, 0), point(20, 0), point(20, 0.03), point(20, 9)];
    expect(codes(tidy(thingsOf([chain(tiny.map((a, i) => line(a, tiny[(i + 1) % 4]!)))]), options()))).toEqual([
      "tiny",
    ]);
    const none = [point(0, 0), point(20, 0), point(20, 0), point(20, 9)];
    const mended = tidy(thingsOf([chain(none.map((a, i) => line(a, none[(i + 1) % 4]!)))]), options());
    expect(mended.findings).toMatchObject([{ code: "tiny", fixed: true }]);
    expect(areas(mended)).toEqual([90]);
  });

  it("of two copies keeps the one that something is attached to", () => {
    const [p, q] = thingsOf(loose(line(point(0, 0), point(9, 0)), line(point(9, 0), point(0, 0))));
    expect(tidy([p!, { ...q!, attached: true }], options()).things).toMatchObject([{ same: 1 }]);
  });

  it("what would close but for its layers says on which they lie; what is open by itself says how far", () => {
    const [first, ...rest] = loose(...box(40, 20));
    const things = [...thingsOf([first!], "cut"), ...thingsOf(rest).map((one) => ({ ...one, id: one.id + 10 }))];
    const { findings } = tidy(things, options());
    expect(findings.map(({ code, values, ids }) => [code, values.layer, values.other, ids.length])).toEqual([
      ["open", "cut", "0", 4],
      ["open", "0", "cut", 4],
    ]);
    const { findings: alone } = tidy(thingsOf(rest), options());
    expect(alone.map(({ code, values }) => [code, values])).toEqual([["open", { apart: 40 }]]);
  });
});
