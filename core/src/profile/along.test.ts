import { describe, expect, it } from "vitest";
import { applyEdit, newDrawing, PROFILE_LAYER } from "../drawing/index.ts";
import { draftEdit } from "../edits/index.ts";
import { line, type Piece } from "../geometry/index.ts";
import type { Shape } from "../shape/index.ts";
import { headingsOf, profileOf, thicknessAlong } from "./index.ts";

const profileWith = (shapes: readonly Shape[]): ReturnType<typeof profileOf> => {
  const drawing = newDrawing("mm");
  const draft = draftEdit(drawing, "Draw", "draw");
  for (const shape of shapes) draft.add(shape, PROFILE_LAYER);
  return profileOf(applyEdit(drawing, draft.finish()));
};

describe("along a contour", () => {
  it("the direction runs on: a slot turns by 180° on each end, a kink is a step", () => {
    const slot: readonly Piece[] = [
      line({ x: 0, y: 0 }, { x: 20, y: 0 }),
      { a: { x: 20, y: 0 }, b: { x: 20, y: 10 }, bulge: 1 },
      line({ x: 20, y: 10 }, { x: 0, y: 10 }),
      { a: { x: 0, y: 10 }, b: { x: 0, y: 0 }, bulge: 1 },
    ];
    const half = 5 * Math.PI;
    const found = headingsOf(slot).map(({ along, value }) => [along, value]);
    const near = (value: number): unknown => expect.closeTo(value, 9);
    const expected = [
      0,
      0,
      20,
      0,
      20,
      0,
      20 + half,
      180,
      20 + half,
      180,
      40 + half,
      180,
      40 + half,
      180,
      40 + 2 * half,
      360,
    ];
    expect(found.flat()).toEqual(expected.map(near));
    const corner = headingsOf([line({ x: 0, y: 0 }, { x: 10, y: 0 }), line({ x: 10, y: 0 }, { x: 10, y: -5 })]);
    expect(corner.map(({ value }) => value)).toEqual([0, 0, near(-90), near(-90)]);
  });

  it("the thickness of a ring off its centre is from its thinnest to its thickest; of a plate its two sides", () => {
    const circle = (x: number, radius: number): Shape => ({ kind: "circle", centre: { x, y: 0 }, radius });
    const { contours } = profileWith([circle(0, 20), circle(3, 12)]);
    for (const which of [0, 1]) {
      const values = thicknessAlong(contours, which).map(({ value }) => value);
      expect(values.length).toBeGreaterThan(100);
      // 20 - 12 - 3 and 20 - 12 + 3, from outside inwards only where a ray towards the middle meets the hole
      expect(Math.min(...values)).toBeCloseTo(5, 2);
      if (which === 1) expect(Math.max(...values)).toBeCloseTo(11, 2);
    }
    const plate = profileWith([
      {
        kind: "chain",
        closed: true,
        vertices: [
          [0, 0],
          [50, 0],
          [50, 8],
          [0, 8],
        ].map(([x, y], i) => ({ id: 900 + i, at: { x: x!, y: y! }, bulge: 0 })),
      },
    ]).contours;
    const values = thicknessAlong(plate, 0).map(({ value }) => Number(value.toFixed(6)));
    expect(new Set(values)).toEqual(new Set([8, 50]));
  });
});
