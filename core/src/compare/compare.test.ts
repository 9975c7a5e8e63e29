import fc from "fast-check";
import { describe, expect, it } from "vitest";
import {
  applyEdit,
  layerOf,
  MARK_LAYER,
  newDrawing,
  PROFILE_LAYER,
  type CutRole,
  type Drawing,
  type Edit,
  type NewCallout,
} from "../drawing/index.ts";
import { draftEdit, putOnLayer, transformEntities } from "../edits/index.ts";
import { reversePiece } from "../geometry/index.ts";
import type { Shape } from "../shape/index.ts";
import { compareDrawings, isSame, sayComparison } from "./index.ts";

const drawn = (shapes: readonly Shape[], callouts: readonly NewCallout[] = []): Drawing => {
  const drawing = newDrawing("mm", callouts);
  const draft = draftEdit(drawing, "Draw", "draw");
  for (const shape of shapes) draft.add(shape, PROFILE_LAYER);
  return applyEdit(drawing, draft.finish());
};
const changeRole = (drawing: Drawing, layer: number, role: CutRole): Edit => {
  const draft = draftEdit(drawing, "Role", "layers");
  draft.set("layer", layer, { ...layerOf(drawing, layer)!, role });
  return draft.finish();
};
const piece = (ax: number, ay: number, bx: number, by: number, bulge = 0): Shape => ({
  kind: "piece",
  a: { x: ax, y: ay },
  b: { x: bx, y: by },
  bulge,
});
const circle = (x: number, y: number, radius: number): Shape => ({ kind: "circle", centre: { x, y }, radius });
const plate = [piece(0, 0, 90, 0), piece(90, 0, 90, 50), piece(90, 50, 0, 50), piece(0, 50, 0, 0, -0.2)];
const chained: Shape = {
  kind: "chain",
  closed: true,
  vertices: [
    [0, 0, 0],
    [90, 0, 0],
    [90, 50, 0],
    [0, 50, -0.2],
  ].map(([x, y, bulge], i) => ({ id: 900 + i, at: { x: x!, y: y! }, bulge: bulge! })),
};
const holes = [circle(20, 20, 5), circle(40, 20, 5), circle(70, 20, 8)];
const ellipse: Shape = {
  kind: "ellipse",
  centre: { x: 45, y: 40 },
  major: { x: 6, y: 1 },
  ratio: 0.5,
  from: 0,
  sweep: 2 * Math.PI,
};

describe("comparing", () => {
  it("finds the same whatever the ids, the order, the directions, joined or loose", () => {
    const turned = [...plate]
      .reverse()
      .map((one) => (one.kind === "piece" ? { kind: "piece" as const, ...reversePiece(one) } : one));
    const found = compareDrawings(drawn([...plate, ...holes, ellipse]), drawn([ellipse, ...holes, ...turned]));
    expect([isSame(found), found.same]).toEqual([true, 8]);
    expect(compareDrawings(drawn(plate), drawn([chained]))).toMatchObject({ same: 4, came: [], went: [], moved: [] });
  });

  it("tells what came, went, moved, and what became of areas and callouts", () => {
    const before = drawn(
      [chained, ...holes],
      [
        { kind: "radius", value: 14, name: "belly" },
        { kind: "diameter", value: 10, name: "holes" },
      ],
    );
    const after = drawn(
      [chained, circle(20.5, 20, 5), circle(40, 20, 5), circle(70, 20, 9)],
      [{ kind: "radius", value: 15, name: "belly" }],
    );
    const found = compareDrawings(before, after);
    expect([found.same, found.came.length, found.went.length, found.moved.map(({ by }) => by.x)]).toEqual([
      5,
      1,
      1,
      [expect.closeTo(0.5, 9)],
    ]);
    // a larger hole: π (9² - 8²) less
    expect(found.area[0] - found.area[1]).toBeCloseTo(17 * Math.PI, 9);
    expect(sayComparison(found, "mm")).toEqual([
      "5 pieces the same, 1 came, 1 went, 1 moved by 0.5 mm.",
      expect.stringMatching(/^The area was \d+\.\d+ mm², and is \d+\.\d+ mm²\.$/),
      "R 14 belly became R 15 belly.",
      "Ø 10 holes is called no more.",
    ]);
  });

  it("a whole that moved is told as that, also farther than its holes lie apart; 1e-9 is no move", () => {
    const grid = Array.from({ length: 60 }, (_, i) => circle(20 * (i % 10), 20 * Math.floor(i / 10), 4));
    const before = drawn([chained, ...grid]);
    for (const by of [
      { x: 5, y: 0 },
      { x: 20, y: 40 },
      { x: -333.25, y: 1e4 },
    ]) {
      const ids = [...before.entity.pages.flat()].filter(Boolean).map((entity) => entity!.id);
      const moved = transformEntities(before, ids, { a: 1, b: 0, c: 0, d: 1, e: by.x, f: by.y }, "Move", "move");
      if (!moved.ok) throw new Error(moved.refusal.code);
      const found = compareDrawings(before, applyEdit(before, moved.value));
      expect([found.came.length, found.went.length, found.same + found.moved.length]).toEqual([0, 0, 64]);
      if (by.x !== 20) expect(sayComparison(found, "mm")[0]).toMatch(/^0 pieces the same, 64 moved by /);
    }
    const shifted = drawn(
      grid.map((one) => (one.kind === "circle" ? circle(one.centre.x + 1e-9, one.centre.y, 4) : one)),
    );
    expect(isSame(compareDrawings(drawn(grid), shifted))).toBe(true);
  });

  it("what is marked now and was cut is not the same, and neither is a hole that is cut as a disc", () => {
    const before = drawn([chained, ...holes]);
    const hole = [...before.entity.pages.flat()].find((entity) => entity?.kind === "circle")!;
    const onMarks = putOnLayer(before, [hole.id], MARK_LAYER);
    if (!onMarks.ok) throw new Error(onMarks.refusal.code);
    const marked = compareDrawings(before, applyEdit(before, onMarks.value));
    expect([isSame(marked), marked.same, marked.came.length, marked.went.length]).toEqual([false, 6, 1, 1]);
    const disc = applyEdit(before, changeRole(before, PROFILE_LAYER, "outside"));
    const roles = compareDrawings(before, disc);
    expect([isSame(roles), roles.same]).toEqual([false, 7]);
    expect(sayComparison(roles, "mm")[1]).toMatch(/^The area was/);
  });

  it("what is taken out and put in is just what went and came, in any drawing", () => {
    const any = fc.array(
      fc.record({
        x: fc.integer({ min: -500, max: 500 }),
        y: fc.integer({ min: -500, max: 500 }),
        r: fc.integer({ min: 1, max: 9 }),
      }),
      { minLength: 4, maxLength: 40 },
    );
    fc.assert(
      fc.property(any, fc.nat(), fc.nat(), (all, gone, new_) => {
        const shapes = all.map(({ x, y, r }) => circle(x, y, r));
        const out = gone % shapes.length;
        const rest = shapes.filter((_, i) => i !== out);
        const other = piece(0, 0, 1 + (new_ % 50), 7);
        const found = compareDrawings(drawn(shapes), drawn([...rest, other]));
        expect([found.same, found.went.length, found.came.length, found.moved.length]).toEqual([rest.length, 1, 1, 0]);
      }),
      { numRuns: 60, seed: 1130 },
    );
  });
});
