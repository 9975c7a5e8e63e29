import { describe, expect, it } from "vitest";
import { applyEdit, entitiesOf, MARK_LAYER, newDrawing, PROFILE_LAYER } from "../drawing/index.ts";
import { draftEdit, putOnLayer } from "../edits/index.ts";
import { circleHalves } from "../geometry/circle.ts";
import { profileOf } from "../profile/profile.ts";
import { sayFault } from "../say/say.ts";
import { faultsOf, isReady, planRelease, type Severity } from "./index.ts";

describe("what stands against cutting", () => {
  const drawn = (
    shapes: readonly Parameters<ReturnType<typeof draftEdit>["add"]>[0][],
  ): ReturnType<typeof newDrawing> => {
    const drawing = newDrawing("mm");
    const draft = draftEdit(drawing, "Draw", "draw");
    for (const shape of shapes) draft.add(shape, PROFILE_LAYER);
    return applyEdit(drawing, draft.finish());
  };
  const circle = (x: number, radius: number) => ({ kind: "circle" as const, centre: { x, y: 0 }, radius });
  const codes = (drawing: ReturnType<typeof newDrawing>): string[] =>
    faultsOf(profileOf(drawing)).map(({ code, severity }) => `${severity} ${code}`);

  it("sorts contours onto layers by nesting, inside ones first, and never writes layout", () => {
    const plan = planRelease(drawn([circle(0, 50), circle(0, 20), circle(0, 5), circle(200, 3)]));
    expect(plan.ready).toBe(true);
    expect(plan.contours.map((contour) => [contour.layer, contour.kind === "circle" && contour.radius])).toEqual([
      ["OUTSIDE", 5],
      ["INSIDE", 20],
      ["OUTSIDE", 50],
      ["OUTSIDE", 3],
    ]);
  });

  it.each([
    ["nothing", [], ["error nothing-closed"]],
    ["circles that cross", [circle(0, 5), circle(6, 5)], ["error crossing", "error crossing"]],
    ["a circle twice", [circle(0, 5), circle(0, 5)], ["error doubled"]],
    ["circles that touch", [circle(0, 5), circle(10, 5)], ["warning touching"]],
    [
      "a loose line",
      [circle(0, 5), { kind: "piece" as const, a: { x: 20, y: 0 }, b: { x: 30, y: 0 }, bulge: 0 }],
      ["error open"],
    ],
    [
      "a loose line across",
      [circle(0, 5), { kind: "piece" as const, a: { x: 0, y: 0 }, b: { x: 30, y: 0 }, bulge: 0 }],
      ["error open", "error crossing"],
    ],
    [
      "an ellipse",
      [
        { kind: "ellipse" as const, centre: { x: 0, y: 0 }, major: { x: 9, y: 0 }, ratio: 0.5, from: 0, sweep: 6.2 },
        circle(50, 5),
      ],
      ["error not-arcs"],
    ],
    [
      "loose halves that close",
      circleHalves({ centre: { x: 0, y: 0 }, radius: 5 }).map((half) => ({ kind: "piece" as const, ...half })),
      ["error not-joined"],
    ],
  ])("says what stands against cutting: %s", (_, shapes, expected) => {
    const drawing = drawn(shapes);
    expect(codes(drawing)).toEqual(expected);
    expect(planRelease(drawing).ready).toBe(expected.every((fault) => fault.startsWith("warning")));
    for (const fault of faultsOf(profileOf(drawing))) expect(sayFault(fault, "mm")).toMatch(/^[A-Z0-9].*\.$/);
  });

  it("a figure of eight crosses itself; a square does not touch itself at its corners", () => {
    const chain = (points: readonly (readonly [number, number])[]) => ({
      kind: "chain" as const,
      closed: true,
      vertices: points.map(([x, y], i) => ({ id: 50 + i, at: { x, y }, bulge: 0 })),
    });
    expect(
      codes(
        drawn([
          chain([
            [0, 0],
            [10, 10],
            [10, 0],
            [0, 10],
          ]),
        ]),
      ),
    ).toEqual(["error crossing"]);
    expect(
      codes(
        drawn([
          chain([
            [0, 0],
            [10, 0],
            [10, 10],
            [0, 10],
          ]),
        ]),
      ),
    ).toEqual([]);
  });

  it("ready is one question: something closes, and no error is left that was not mended", () => {
    const found = (severity: Severity, fixed?: boolean) => ({ severity, ...(fixed === undefined ? {} : { fixed }) });
    expect(isReady(true, [])).toBe(true);
    expect(isReady(false, [])).toBe(false);
    expect(isReady(true, [found("warning"), found("info"), found("error", true)])).toBe(true);
    expect(isReady(true, [found("error")])).toBe(false);
    expect(isReady(true, [found("error", false)])).toBe(false);
  });

  it("marks are no contours to cut: alone they are nothing that closes", () => {
    const drawing = drawn([circle(0, 5)]);
    const [entity] = [...entitiesOf(drawing)].filter(({ kind }) => kind === "circle");
    const put = putOnLayer(drawing, [entity!.id], MARK_LAYER);
    if (!put.ok) throw new Error(put.refusal.code);
    expect(codes(applyEdit(drawing, put.value))).toEqual(["error nothing-closed"]);
  });
});
