import { describe, expect, it } from "vitest";
import {
  applyEdit,
  entitiesOf,
  LAYOUT_LAYER,
  layersOf,
  MARK_LAYER,
  newDrawing,
  PROFILE_LAYER,
  type Callout,
  type CutRole,
  type Drawing,
} from "../drawing/index.ts";
import { addLayer, changeLayer, draftEdit, putOnLayer } from "../edits/index.ts";
import { circleHalves } from "../geometry/circle.ts";
import { profileOf } from "../profile/profile.ts";
import { sayFault } from "../say/say.ts";
import type { Outcome } from "../numeric/outcome.ts";
import type { Piece } from "../geometry/piece.ts";
import type { Shape } from "../shape/shape.ts";
import {
  faultRows,
  fileLayerNames,
  faultsOf,
  isReady,
  planRelease,
  releaseVerdict,
  standingOf,
  subjectOf,
  type Severity,
} from "./index.ts";
import type { CalloutState } from "../callouts/index.ts";

const value = <T>(outcome: Outcome<T>): T => {
  if (!outcome.ok) throw new Error(outcome.refusal.code);
  return outcome.value;
};
const loose = (piece: Piece): Shape => ({ kind: "piece", ...piece });

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
    faultsOf(subjectOf(drawing, profileOf(drawing))).flatMap(({ code, severity }) =>
      severity === "info" ? [] : `${severity} ${code}`,
    );

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
    for (const fault of faultsOf(subjectOf(drawing, profileOf(drawing))))
      expect(sayFault(fault, "mm")).toMatch(/^[A-Z0-9].*\.$/);
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

  it("what encloses something on a layout layer is told, and on another than the first warned of", () => {
    const added = value(addLayer(newDrawing("mm"), "Guides", "layout"));
    const drawing = applyEdit(newDrawing("mm"), added);
    const guides = layersOf(drawing).at(-1)!.id;
    const square = [0, 1, 2, 3].map((i) => ({ id: 50 + i, at: { x: i % 3 ? 9 : 0, y: i > 1 ? 9 : 0 }, bulge: 0 }));
    const on = (layer: number): readonly string[] => {
      const draft = draftEdit(drawing, "Draw", "draw");
      draft.add(circle(40, 5), PROFILE_LAYER);
      draft.add({ kind: "chain", closed: true, vertices: square }, layer);
      draft.add({ kind: "chain", closed: false, vertices: square }, layer);
      draft.add(circle(80, 5), layer);
      const found = applyEdit(drawing, draft.finish());
      return faultsOf(subjectOf(found, profileOf(found)))
        .filter(({ code }) => code === "left-out")
        .map((fault) => `${fault.severity}: ${sayFault(fault, "mm")}`);
    };
    expect(on(LAYOUT_LAYER)).toEqual(["info: One closed contour lies on the layout layer Layout, and is not cut."]);
    expect(on(guides)).toEqual(["warning: 2 closed contours lie on the layout layer Guides, and are not cut."]);
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

  describe("what is written", () => {
    /** Shapes on layers of the roles named, hidden or not. */
    const onLayers = (
      layers: Readonly<Record<string, { role?: CutRole; shown?: boolean; shapes: readonly Shape[] }>>,
    ): Drawing => {
      let drawing = newDrawing("mm");
      for (const [name, { role = "profile", shown = true, shapes }] of Object.entries(layers)) {
        const added = value(addLayer(drawing, name, role));
        const { id } = added.changes[0]!;
        drawing = applyEdit(drawing, added);
        const draft = draftEdit(drawing, "Draw", "draw");
        for (const shape of shapes) draft.add(shape, id);
        drawing = applyEdit(drawing, draft.finish());
        if (!shown) drawing = applyEdit(drawing, value(changeLayer(drawing, id, { shown })));
      }
      return drawing;
    };
    const line = (y: number): Shape => ({ kind: "piece", a: { x: -9, y }, b: { x: 9, y }, bulge: 0 });
    const radii = (plan: ReturnType<typeof planRelease>): readonly unknown[] =>
      plan.contours.map((one) => [one.layer, one.kind === "circle" ? one.radius : one.closed]);

    it("marks are written, open or closed, joined or not; points are said to be left out", () => {
      const plan = planRelease(
        onLayers({
          Plate: { shapes: [circle(0, 50), { kind: "point", at: { x: 1, y: 1 } }] },
          Scribed: {
            role: "mark",
            shapes: [line(0), line(5), circle(0, 3), ...circleHalves(circle(20, 2)).map(loose)],
          },
        }),
      );
      expect(radii(plan)).toEqual([
        ["OUTSIDE", 50],
        ["MARK", 3],
        ["MARK", true],
        ["MARK", false],
        ["MARK", false],
      ]);
      expect(plan.faults.map(({ code, values }) => [code, values])).toEqual([["points", { points: 1 }]]);
      expect(plan.ready).toBe(true);
    });

    it.each([0, 1])("a layer's role is obeyed against the nesting, by the way of a cutter too: Ø %d", (cutter) => {
      const drawing = onLayers({
        Holes: { role: "inside", shapes: [circle(0, 10)] },
        Discs: { role: "outside", shapes: [circle(100, 4)] },
        Rest: { shapes: [circle(100, 20), circle(0, 3)] },
      });
      const r = cutter / 2;
      const plan = planRelease(drawing, { cutter });
      expect(radii(plan)).toEqual(
        expect.arrayContaining([
          ["INSIDE", 10 - r],
          ["OUTSIDE", 4 + r],
          ["OUTSIDE", 20 + r],
        ]),
      );
    });

    it("only what is selected; hidden and locked layers are said; layers as the drawing names them", () => {
      const drawing = onLayers({
        "Top: cut/1": { shapes: [circle(0, 10)] },
        Spare: { shown: false, shapes: [circle(50, 5), circle(70, 5)] },
      });
      const all = planRelease(drawing, { layers: "own" });
      expect(radii(all)).toEqual([
        ["Top_ cut_1", 10],
        ["Spare", 5],
        ["Spare", 5],
      ]);
      expect(all.faults.map((fault) => sayFault(fault, "mm"))).toEqual([
        "The layer Spare is hidden. What lies on it is written all the same (2).",
        "3 separate parts: none lies in another.",
      ]);
      const [first] = [...entitiesOf(drawing)].filter(({ kind }) => kind === "circle");
      const some = planRelease(drawing, { among: new Set([first!.id]) });
      expect(radii(some)).toEqual([["OUTSIDE", 10]]);
      expect(some.faults).toEqual([]);
      expect(planRelease(drawing, { among: new Set() }).ready).toBe(false);
    });

    it("layers' own names as DXF may hold them, none two alike; for old readers shorter and in capitals", () => {
      const names = ["Ø 5 holes", "O 5 holes", "Façade", "外", "A/B", "a_b", "", "x".repeat(40), "X".repeat(40)];
      expect(fileLayerNames(names.slice(0, 7))).toEqual([
        "O 5 holes",
        "O 5 holes_2",
        "Facade",
        "_",
        "A_B",
        "a_b_2",
        "0",
      ]);
      const old = fileLayerNames(names, "old");
      expect(new Set(old).size).toBe(names.length);
      expect(old.every((name) => /^[A-Z0-9$_-]{1,31}$/.test(name))).toBe(true);
    });

    it("a waiver stands for what was waived: another number measured, or a place found, asks again", () => {
      const callout: Callout = { id: 1, kind: "diameter", value: 12, name: "hole", links: [] };
      const off = (measured: number): CalloutState => ({ state: "off", measured, by: measured - 12 });
      const none: CalloutState = { state: "not placed" };
      const waived = (at?: number): Callout => ({
        ...callout,
        waived: { reason: "rang", on: "2027-01-11", ...(at === undefined ? {} : { measured: at }) },
      });
      const words = (one: Callout, state: CalloutState): string =>
        releaseVerdict({ ready: true, faults: [] }, standingOf([{ callout: one, state }])).words;
      expect(words(waived(10), off(10))).toBe("Ready to cut, 1 callout waived");
      expect(words(waived(10), off(7))).toBe("Ready but for 1 callout off");
      expect(words(waived(10), none)).toBe("Ready but for 1 callout not placed");
      expect(words(waived(), none)).toBe("Ready to cut, 1 callout waived");
      expect(words(waived(), off(10))).toBe("Ready but for 1 callout off");
      expect(words(waived(10), { state: "true", measured: 12, by: 0 })).toBe("Ready to cut");
    });

    it("many faults of a kind are one row; the verdict never says ready while something is left to say", () => {
      const plan = planRelease(drawn(Array.from({ length: 300 }, (_, i) => line(i))));
      const rows = faultRows(plan.faults);
      expect(rows.map(({ fault, count }) => [fault.code, count])).toEqual([
        ["nothing-closed", 1],
        ["open", 300],
      ]);
      expect(rows[1]!.ids.length).toBe(300);
      const sound = { ready: true, faults: [] };
      const warned = planRelease(drawn([circle(0, 5), circle(10, 5)]));
      expect(releaseVerdict(sound, { called: 9, notPlaced: 0, off: 0, waived: 0 })).toEqual({
        state: "ready",
        words: "Ready to cut",
      });
      expect(releaseVerdict(sound, { called: 9, notPlaced: 8, off: 1, waived: 0 }).words).toBe(
        "Ready but for 1 callout off, 8 callouts not placed",
      );
      expect(releaseVerdict(warned, { called: 0, notPlaced: 0, off: 0, waived: 0 }).words).toBe(
        "Ready but for 1 warning",
      );
      expect(releaseVerdict(plan, { called: 0, notPlaced: 0, off: 0, waived: 0 }).state).toBe("not ready");
    });
  });
});
