import { describe, expect, it } from "vitest";
import { applyEdit, calloutsOf, DATUM, newDrawing, PROFILE_LAYER, type Drawing, type Ref } from "../drawing/index.ts";
import { draftEdit } from "../edits/index.ts";
import { turning, type Point } from "../geometry/index.ts";
import type { Shape } from "../shape/index.ts";
import { transformShape } from "../shape/index.ts";
import { measureCallout, readLedgerLine, stateText, type CalloutState } from "./index.ts";

/** Turned by an odd angle, far off, and tiny: what is measured must not depend on where it lies. */
const PLACEMENTS = [
  { angle: 0, about: { x: 0, y: 0 } },
  { angle: 0.7123, about: { x: 0, y: 0 } },
  { angle: 2.2, about: { x: 1e5, y: -3e4 } },
];

/** A line of a sketch, what is drawn, and which of it answers the line. */
const standing = (
  line: string,
  shapes: readonly Shape[],
  links: (ids: readonly number[], drawing: Drawing) => readonly Ref[],
) => {
  const read = readLedgerLine(line, "mm");
  if (!read.ok) throw new Error(read.refusal.code);
  let drawing = newDrawing("mm", read.value.callouts);
  const draft = draftEdit(drawing, "Draw", "draw");
  const ids = shapes.map((shape) => draft.add(shape, PROFILE_LAYER));
  drawing = applyEdit(drawing, draft.finish());
  const callout = { ...calloutsOf(drawing)[0]!, links: links(ids, drawing) };
  return { callout, drawing, state: measureCallout(drawing, callout) };
};
const circle = (x: number, y: number, radius: number): Shape => ({ kind: "circle", centre: { x, y }, radius });
const whole = (ids: readonly number[]): readonly Ref[] => ids.map((id) => ({ id }));
const centres = (ids: readonly number[]): readonly Ref[] => ids.map((id) => ({ id, place: "centre" }));

/** A square of 40 with its first corner cut `a` along the bottom and `b` along the side. */
const cutSquare = (a: number, b: number): Shape => ({
  kind: "chain",
  closed: true,
  vertices: [
    [a, 0],
    [40, 0],
    [40, 40],
    [0, 40],
    [0, b],
  ].map(([x, y], i) => ({ id: 900 + i, at: { x: x!, y: y! }, bulge: 0 })),
});

describe("how a callout stands", () => {
  it.each([
    [2.5, "true"],
    [2.99, "true"],
    [3, "true"], // a bare circle as wide as the thread stands for it
    [3.2, "off"], // nothing is left to tap
  ] as const)("a thread M6 marked on a hole of radius %d is %s", (radius, expected) => {
    const { callout, drawing } = standing("M6", [circle(0, 0, radius)], whole);
    const draft = draftEdit(drawing, "Thread", "thread");
    const id = draft.newId();
    const refs = callout.links;
    draft.set("annotation", id, { id, kind: "thread mark", refs, at: { x: 0, y: 0 }, size: 6, text: "M6" });
    expect(measureCallout(applyEdit(drawing, draft.finish()), callout).state).toBe(expected);
  });

  it.each([
    ["2 x 45°", 2, 2, "true"],
    ["2 x 45°", 2, 2.2, "off"],
    ["30 x 30 cut corner", 30, 30, "true"],
    ["20 x 35 corner", 35, 20, "true"], // whichever side is which
    ["20 x 35 corner", 20, 34, "off"],
    ["10 x 30°", 10, 10 * Math.tan(Math.PI / 6), "true"],
    ["2 x 45°", 2 * Math.SQRT2, 0.5, "off"], // as long a cut, at another angle
  ] as const)("%s cut %d by %d is %s, wherever it lies", (line, a, b, expected) => {
    for (const { angle, about } of PLACEMENTS) {
      const shape = transformShape(turning(about, angle), cutSquare(a, b));
      const { state } = standing(line, [shape], ([id]) => [{ id: id!, vertex: 904 }]);
      expect([about.x, state.state]).toEqual([about.x, expected]);
    }
  });

  it("a size for six holes is placed when six answer it, and true when all of them are", () => {
    const holes = (n: number, last = 4.5): Shape[] =>
      Array.from({ length: n }, (_, i) => circle(20 * i, 0, i === n - 1 ? last : 4.5));
    const of = (n: number, last?: number): CalloutState => standing("6x Ø9 holes", holes(n, last), whole).state;
    expect(of(5)).toEqual({ state: "not placed", placed: 5 });
    expect(of(6).state).toBe("true");
    expect(of(6, 4.4)).toMatchObject({ state: "off", measured: 8.8 });
    const { callout, state } = standing("6x Ø9 holes", holes(5), whole);
    expect(stateText(state, callout)).toBe("5 of 6 placed");
  });

  it("the most and the least: within as long as they are kept", () => {
    const of = (line: string, radius: number): string => standing(line, [circle(0, 0, radius)], whole).state.state;
    expect([11.9, 12, 12.1].map((size) => of("Ø12 max", size / 2))).toEqual(["within", "true", "off"]);
    expect([2.9, 3, 3.1].map((size) => of("R 3 min", size))).toEqual(["off", "true", "within"]);
  });

  it("a fit by its limits, a hole and a shaft", () => {
    const of = (line: string, size: number): string => standing(line, [circle(0, 0, size / 2)], whole).state.state;
    // ISO 286-2, 26 H7: 0 to +0.021; 20 g6: -0.020 to -0.007 (from memory)
    expect([26, 26.01, 26.03, 25.99].map((size) => of("Ø26 H7", size))).toEqual(["true", "within", "off", "off"]);
    expect([19.99, 20.001, 19.97].map((size) => of("Ø20 g6", size))).toEqual(["within", "off", "off"]);
  });

  it("the circle that holes lie on, by the one that lies farthest off it", () => {
    const ring = (n: number, r: number, off = 0): Shape[] =>
      Array.from({ length: n }, (_, i): Shape => {
        const angle = (2 * Math.PI * i) / n + 0.3;
        const away = i === n - 1 ? r + off : r;
        return circle(7 + away * Math.cos(angle), -3 + away * Math.sin(angle), 4);
      });
    expect(standing("Ø90", ring(6, 45), centres).state.state).toBe("true");
    expect(standing("Ø90", ring(6, 45, 0.1), centres).state).toMatchObject({
      state: "off",
      by: expect.closeTo(0.2, 6),
    });
  });

  it("a distance along an axis and a direction from the datum", () => {
    const at: Point = { x: 80, y: 75 };
    const { callout } = standing("80 from left", [circle(at.x, at.y, 5)], centres);
    const drawing = applyEdit(newDrawing("mm"), {
      ...(() => {
        const draft = draftEdit(newDrawing("mm"), "Draw", "draw");
        draft.add(circle(at.x, at.y, 5), PROFILE_LAYER);
        return draft.finish();
      })(),
    });
    const id = [...drawing.entity.pages.flat()].filter(Boolean).at(-1)!.id;
    const links: Ref[] = [DATUM, { id, place: "centre" }];
    expect(measureCallout(drawing, { ...callout, links, axis: "x" }).state).toBe("true");
    expect(measureCallout(drawing, { ...callout, links, axis: "y" })).toMatchObject({ measured: 75 });
    const angle = { ...callout, kind: "angle" as const, value: 360 + (Math.atan2(75, 80) * 180) / Math.PI, links };
    expect(measureCallout(drawing, angle).state).toBe("true");
  });
});
