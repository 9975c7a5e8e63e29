import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { enclosedArea } from "../contour/index.ts";
import { offsetRegion } from "../offset/index.ts";
import { applyEdit, newDrawing, PROFILE_LAYER, settingsOf, type Drawing, type Making } from "../drawing/index.ts";
import { draftEdit } from "../edits/index.ts";
import { transformPiece, type Piece } from "../geometry/index.ts";
import { profileOf } from "../profile/index.ts";
import type { Shape } from "../shape/index.ts";
import { faultsOf, fitsTurned, subjectOf, type Stock } from "./index.ts";

const drawn = (shapes: readonly Shape[], making: Making = {}): Drawing => {
  const drawing = newDrawing("mm");
  const draft = draftEdit(drawing, "Draw", "draw");
  for (const shape of shapes) draft.add(shape, PROFILE_LAYER);
  draft.set("settings", 0, { ...settingsOf(drawing), making });
  return applyEdit(drawing, draft.finish());
};
const found = (drawing: Drawing, stock?: Stock): readonly (readonly [string, string, number | undefined])[] =>
  faultsOf(subjectOf(drawing, profileOf(drawing), stock)).map(({ severity, code, values }) => [
    severity,
    code,
    Object.values(values).find((value): value is number => typeof value === "number"),
  ]);
const near = (value: number): unknown => expect.closeTo(value, 9);

type Corner = readonly [x: number, y: number, bulge?: number];
const chain = (...corners: readonly Corner[]): Shape => ({
  kind: "chain",
  closed: true,
  vertices: corners.map(([x, y, bulge = 0], i) => ({ id: 900 + i, at: { x, y }, bulge })),
});
const circle = (x: number, y: number, radius: number): Shape => ({ kind: "circle", centre: { x, y }, radius });
const plate = (w: number, h: number): Shape => chain([0, 0], [w, 0], [w, h], [0, h]);
// a plate 60 by 40 with a pocket in its top edge, 20 wide and 15 deep, whose left inside corner is rounded by 4
const QUARTER = Math.tan(Math.PI / 8);
const pocketed = chain([0, 0], [60, 0], [60, 40], [40, 40], [40, 25], [24, 25, -QUARTER], [20, 29], [20, 40], [0, 40]);

const cutter = (diameter: number): Making => ({ tool: { name: `a bit of ${diameter}`, kind: "cutter", diameter } });

describe("what a job is made with", () => {
  it("inside corners and arcs against the tool, outside and in a hole; the other corners are none", () => {
    // the pocket has one sharp inside corner, and an inside arc of R 4
    expect(found(drawn([pocketed], cutter(6)))).toEqual([["error", "inside-corner", 0]]);
    expect(found(drawn([pocketed], cutter(10)))).toEqual([
      ["error", "inside-corner", 0],
      ["error", "inside-radius", near(4)],
    ]);
    expect(found(drawn([pocketed], cutter(8))).map(([, code]) => code)).toEqual(["inside-corner"]);
    const slit = chain([20, 20], [40, 20], [40, 30], [20, 30]);
    const inHole = found(drawn([plate(60, 50), slit], cutter(4)));
    expect(inHole.map(([, code]) => code)).toEqual(Array.from({ length: 4 }, () => "inside-corner"));
    // a jet leaves them as round as its kerf is: told, no fault
    const jet: Making = { tool: { name: "a jet", kind: "waterjet", diameter: 0.9 } };
    expect(found(drawn([pocketed], jet))).toEqual([["info", "inside-corner", 0]]);
    expect(found(drawn([plate(60, 50)], cutter(20)))).toEqual([]);
  });

  it("what stays in a square corner is outlined: 1 - π/4 of the squares of both radii, in any placement", () => {
    for (const [scale, turn, x, y] of [
      [1, 0, 0, 0],
      [10, 0.7, 3, -2],
      [1, 2.5, 1e5, -1e5],
    ] as const) {
      const [c, s] = [scale * Math.cos(turn), scale * Math.sin(turn)];
      const turned = pocketed.kind === "chain" ? pocketed.vertices : [];
      const shape = chain(
        ...turned.map(({ at, bulge }): Corner => [c * at.x - s * at.y + x, s * at.x + c * at.y + y, bulge]),
      );
      const drawing = drawn([shape], cutter(10 * scale));
      const areas = faultsOf(subjectOf(drawing, profileOf(drawing)))
        .flatMap(({ region }) => (region ? Math.abs(enclosedArea(region)) / scale ** 2 : []))
        .sort((p, q) => p - q);
      const [round, sharp] = [(1 - Math.PI / 4) * (25 - 16), (1 - Math.PI / 4) * 25];
      expect(areas).toHaveLength(2);
      expect(areas[0]).toBeCloseTo(round, 4);
      expect(areas[1]).toBeCloseTo(sharp, 4);
    }
  });

  it("a joint that is off by rounding is no corner; a curve of tiny lines that is tighter than the tool is", () => {
    // a pocket with corners of R 4, their ends moved by what three decimals leave
    const rounded = chain(
      [0, 0],
      [60, 0],
      [60, 40],
      [44, 40],
      [44, 29, -QUARTER],
      [40, 25.0003],
      [24, 25.0004, -QUARTER],
      [20.0004, 29],
      [20, 40],
      [0, 40],
    );
    const tight = (tool: number): readonly unknown[] =>
      found(drawn([rounded], cutter(tool))).filter(([severity]) => severity === "error");
    expect(tight(8)).toEqual([]);
    expect(tight(10).map((one) => (one as string[])[1])).toEqual(["inside-radius", "inside-radius"]);
    const smooth = (radius: number): Shape => {
      // a pocket whose two corners are arcs of so much, drawn as lines of 3°
      const round = (x: number, from: number): Corner[] =>
        Array.from({ length: 31 }, (_, k): Corner => {
          const angle = ((from - 3 * k) * Math.PI) / 180;
          return [x + radius * Math.cos(angle), 20 + radius + radius * Math.sin(angle)];
        });
      return chain(
        [0, 0],
        [80, 0],
        [80, 60],
        [60, 60],
        ...round(60 - radius, 0),
        ...round(20 + radius, -90),
        [20, 60],
        [0, 60],
      );
    };
    const errors = (shape: Shape, tool: number): readonly string[] =>
      found(drawn([shape], cutter(tool))).flatMap(([severity, code]) => (severity === "error" ? [code] : []));
    expect(errors(smooth(6), 10)).toEqual([]);
    expect(errors(smooth(6), 14)).not.toEqual([]);
    expect(errors(smooth(2), 10)).not.toEqual([]);
  });

  it("says that a tool leaves material just where growing by its radius and shrinking again leaves more", () => {
    const lobed = fc.record({
      lobes: fc.integer({ min: 2, max: 9 }),
      deep: fc.double({ min: 0.02, max: 0.5, noNaN: true }),
      places: fc.integer({ min: 24, max: 400 }),
      tool: fc.double({ min: 1, max: 16, noNaN: true }),
    });
    let [left, none] = [0, 0];
    fc.assert(
      fc.property(lobed, ({ lobes, deep, places, tool }) => {
        const shape = chain(
          ...Array.from({ length: places }, (_, k): Corner => {
            const angle = (2 * Math.PI * k) / places;
            const r = 40 * (1 + deep * Math.sin(lobes * angle));
            return [Number((r * Math.cos(angle)).toFixed(3)), Number((r * Math.sin(angle)).toFixed(3))];
          }),
        );
        const drawing = drawn([shape], cutter(tool));
        const { pieces } = profileOf(drawing).contours[0]!;
        const grown = offsetRegion([pieces], tool / 2, { corners: "round" }).runs.map((one) => one.pieces);
        const back = offsetRegion(grown, -tool / 2, { corners: "round" }).runs;
        const more = back.reduce((sum, one) => sum + enclosedArea(one.pieces), 0) - Math.abs(enclosedArea(pieces));
        const said = found(drawing).some(([severity]) => severity === "error");
        // between the two it is a question of what is let pass
        if (more > 0.5) left += 1;
        else if (more < 1e-3) none += 1;
        if (more > 0.5) expect(said).toBe(true);
        if (more < 1e-3) expect(said).toBe(false);
      }),
      { numRuns: 80, seed: 1130 },
    );
    expect(Math.min(left, none)).toBeGreaterThan(10);
  });

  it("a hole of two arcs is a hole", () => {
    const halves = (x: number, y: number, r: number): Shape => chain([x - r, y, 1], [x + r, y, 1]);
    const shapes = [plate(60, 40), halves(10, 20, 4)];
    const plasma: Making = { tool: { name: "it", kind: "plasma", diameter: 0.5 } };
    expect(found(drawn(shapes, plasma), { material: "steel", thickness: 6 }).map(([, code]) => code)).toContain(
      "small-hole",
    );
    expect(found(drawn(shapes, cutter(9)))).toEqual([["error", "hole-below-tool", 8]]);
  });

  it("room for the tool: between parts, in a pocket, in a hole", () => {
    const parts = drawn([plate(20, 20), chain([27, 0], [40, 0], [40, 20], [27, 20])], cutter(8));
    expect(found(parts).filter(([severity]) => severity === "error")).toEqual([["error", "narrow-slot", near(7)]]);
    const holes = drawn([plate(60, 40), circle(30, 20, 3)], cutter(8));
    expect(found(holes)).toEqual([["error", "hole-below-tool", 6]]);
    expect(found(drawn([plate(60, 40), circle(30, 20, 4)], cutter(8)))).toEqual([]);
  });

  it("walls by material and thickness, or as the job says", () => {
    const shapes = [plate(60, 40), circle(12, 20, 7), circle(31, 20, 7)];
    // 5 between the holes and to the left edge
    const walls = (stock?: Stock, wall?: number): readonly unknown[] =>
      found(drawn(shapes, wall === undefined ? {} : { wall }), stock).filter(([, code]) => code === "thin-wall");
    expect(walls()).toEqual([]);
    expect(walls({ material: "steel", thickness: 5 })).toEqual([]);
    expect(walls({ material: "steel", thickness: 6 })).toEqual([
      ["warning", "thin-wall", near(5)],
      ["warning", "thin-wall", near(5)],
    ]);
    expect(walls({ material: "slate", thickness: 3 })).toHaveLength(2);
    expect(walls({ material: "rubber", thickness: 6 })).toEqual([]);
    expect(walls({ material: "steel", thickness: 6 }, 4)).toEqual([]);
  });

  it("holes against the thickness by the process, and how near they are to an edge", () => {
    const shapes = [plate(60, 40), circle(10, 20, 4), circle(40, 20, 7)];
    const by = (kind: "plasma" | "laser"): readonly unknown[] =>
      found(drawn(shapes, { tool: { name: "it", kind, diameter: 0.5 } }), { material: "steel", thickness: 6 }).filter(
        ([, code]) => code === "small-hole",
      );
    expect(by("plasma")).toEqual([["warning", "small-hole", 8]]);
    expect(by("laser")).toEqual([]);
    expect(found(drawn([plate(60, 40), circle(7, 20, 4)]))).toEqual([["info", "near-edge", near(3)]]);
    expect(found(drawn([plate(60, 40), circle(8, 20, 4)]))).toEqual([]);
  });

  it("joints with an arc that are nearly smooth; corners and straight joints are none", () => {
    const off = (degrees: number): Shape => {
      // an arc R 10 over a line 20 long, half a turn and so much less
      const bulge = Math.tan((Math.PI - (2 * degrees * Math.PI) / 180) / 4);
      return chain([0, 0], [20, 0], [20, 10, bulge], [0, 10]);
    };
    const kinksIn = (shape: Shape): readonly unknown[] => found(drawn([shape])).filter(([, code]) => code === "kink");
    expect(kinksIn(off(0))).toEqual([]);
    expect(kinksIn(off(0.5))).toEqual([
      ["warning", "kink", expect.closeTo(0.5, 6)],
      ["warning", "kink", expect.closeTo(0.5, 6)],
    ]);
    expect(kinksIn(off(6))).toEqual([]);
    expect(kinksIn(chain([0, 0], [50, 1], [100, 0], [50, 60]))).toEqual([]);
  });

  it("tiny pieces", () => {
    const chipped = chain([0, 0], [60, 0], [60, 39.98], [59.98, 40], [0, 40]);
    expect(found(drawn([chipped]))).toEqual([["warning", "tiny", expect.closeTo(Math.hypot(0.02, 0.02), 9)]]);
  });

  it("the sheet, in any turn; and whether the unit is right", () => {
    const sheet = { name: "a sheet of 100 × 50", width: 100, height: 50 };
    const on = (w: number, h: number): readonly string[] =>
      found(drawn([plate(w, h)], { sheet })).map(([, code]) => code);
    expect([on(100, 50), on(50, 100), on(100.1, 50), on(60, 60)]).toEqual([[], [], ["too-large"], ["too-large"]]);
    expect(on(2000, 900)).toEqual(["unit-by-sheet"]);
    // a strip fits only on a slant: it wants w cos a + 4 sin a of width and w sin a + 4 cos a of height
    const fits = [103, 104, 107, 109, 112].map((w) => on(w, 4).length === 0);
    const slanted = [103, 104, 107, 109, 112].map((w) =>
      Array.from({ length: 9000 }, (_, k) => (k * Math.PI) / 18000).some(
        (a) => w * Math.cos(a) + 4 * Math.sin(a) <= 100 && w * Math.sin(a) + 4 * Math.cos(a) <= 50,
      ),
    );
    expect(fits).toEqual(slanted);
    expect(fits).toContain(true);
    expect(fits).toContain(false);
    // a disc is as wide in every turn
    const half = (a: number, b: number): Piece => ({ a: { x: a, y: 0 }, b: { x: b, y: 0 }, bulge: 1 });
    const disc = [half(-25, 25), half(25, -25)];
    const turn = { a: Math.cos(1), b: Math.sin(1), c: -Math.sin(1), d: Math.cos(1), e: 1e4, f: -3 };
    for (const pieces of [disc, disc.map((piece) => transformPiece(turn, piece))])
      expect([fitsTurned(pieces, 50, 50), fitsTurned(pieces, 49.9, 60)]).toEqual([true, false]);
  });

  it("a role that its layer sets against the nesting, and islands three deep", () => {
    const rings = drawn([circle(0, 0, 50), circle(0, 0, 40), circle(0, 0, 30), circle(0, 0, 20)]);
    expect(found(rings)).toContainEqual(["info", "deep", 3]);
  });
});
