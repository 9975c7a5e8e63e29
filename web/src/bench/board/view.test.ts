import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { holdDirection } from "../hold.ts";
import { clipEndless, traceShape, type Pen } from "./trace.ts";
import { fitted, inSight, toDrawing, toScreen, zoomed, zoomRatio, type View } from "./view.ts";

const size = { width: 800, height: 600 };
const number = (min: number, max: number) => fc.double({ min, max, noNaN: true });
const views: fc.Arbitrary<View> = fc.record({
  scale: number(0.01, 1000),
  originX: number(-1e4, 1e4),
  originY: number(-1e4, 1e4),
});

describe("the view", () => {
  it("goes to the screen and back, and holds still what lies under the pointer when zooming", () => {
    fc.assert(
      fc.property(views, number(0, 800), number(0, 600), number(0.1, 10), (view, x, y, factor) => {
        const p = toDrawing(view, { x, y });
        expect(toScreen(view, p).x).toBeCloseTo(x, 6);
        const zoom = zoomed(view, { x, y }, factor);
        expect(toScreen(zoom, p).x).toBeCloseTo(x, 6);
        expect(toScreen(zoom, p).y).toBeCloseTo(y, 6);
      }),
    );
  });

  it("fits bounds into sight with a margin, and says the zoom as a ratio", () => {
    const box = { minX: -10, minY: 5, maxX: 30, maxY: 15 };
    const seen = inSight(fitted(box, size), size);
    expect(seen.minX).toBeLessThan(-10);
    expect(seen.maxX).toBeGreaterThan(30);
    expect((seen.minX + seen.maxX) / 2).toBeCloseTo(10, 9);
    expect([96, 48, 192].map((scale) => zoomRatio({ scale, originX: 0, originY: 0 }, "in"))).toEqual([
      "1 : 1",
      "1 : 2",
      "2 : 1",
    ]);
  });

  it("shows of an endless line what is in sight", () => {
    const box = { minX: 0, minY: 0, maxX: 10, maxY: 10 };
    expect(clipEndless({ x: -5, y: 5 }, { x: 1, y: 0 }, box)).toEqual([
      { x: 0, y: 5 },
      { x: 10, y: 5 },
    ]);
    expect(clipEndless({ x: 0, y: 50 }, { x: 1, y: 0 }, box)).toBeUndefined();
  });

  it("traces arcs on the screen the way they run in the drawing, y being down there", () => {
    const calls: unknown[][] = [];
    const pen = new Proxy({} as Pen, {
      get:
        (_, name) =>
        (...values: unknown[]) =>
          calls.push([name, ...values]),
    });
    traceShape(
      pen,
      { scale: 10, originX: 0, originY: 0 },
      { kind: "piece", a: { x: 1, y: 0 }, b: { x: -1, y: 0 }, bulge: 1 },
      inSight({ scale: 10, originX: 0, originY: 0 }, size),
    );
    expect(calls[0]).toEqual(["moveTo", 10, 0]);
    const [name, x, y, radius, from, to, backwards] = calls[1]!;
    expect([name, x, radius, backwards]).toEqual(["arc", 0, 10, true]);
    expect([y, from, to].map((value) => Math.abs(value as number).toFixed(6))).toEqual([
      "0.000000",
      "0.000000",
      "3.141593",
    ]);
  });
});

describe("held directions", () => {
  it.each([
    [{ x: 10, y: 1 }, undefined, "level", { x: 10, y: 0 }],
    [{ x: 1, y: -9 }, undefined, "upright", { x: 0, y: -9 }],
    [{ x: 10, y: 9 }, Math.PI / 4, "along", { x: 9.5, y: 9.5 }],
    [{ x: -10, y: 9 }, Math.PI / 4, "square", { x: -9.5, y: 9.5 }],
  ] as const)("%j after a piece at %s: %s", (pointer, last, word, at) => {
    const held = holdDirection({ x: 0, y: 0 }, pointer, last);
    expect(held.word).toBe(word);
    expect(held.at.x).toBeCloseTo(at.x, 12);
    expect(held.at.y).toBeCloseTo(at.y, 12);
  });
});
