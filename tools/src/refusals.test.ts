import { describe, expect, it } from "vitest";
import { applyEdit, entitiesOf, newDrawing, PROFILE_LAYER, type Drawing, type Entity } from "@ash-edge/core/drawing";
import { draftEdit } from "@ash-edge/core/edits";
import { pieceLength, pieceRadius, type Piece, type Point } from "@ash-edge/core/geometry";
import { indexDrawing, snapsAt } from "@ash-edge/core/look";
import { sayRefusal } from "@ash-edge/core/say";
import type { Shape } from "@ash-edge/core/shape";
import { stepTool, underPoint, type Step, type ToolEvent } from "./driver.ts";
import { draggedOf } from "./proposing.ts";
import { toolById } from "./registry.ts";
import type { ToolContext } from "./tool.ts";
import { startTool, type ToolState } from "./toolState.ts";

const drawn = (...shapes: Shape[]): Drawing => {
  const drawing = newDrawing("mm");
  const draft = draftEdit(drawing, "Draw", "draw");
  for (const shape of shapes) draft.add(shape, PROFILE_LAYER);
  return applyEdit(drawing, draft.finish());
};
const line = (a: readonly [number, number], b: readonly [number, number]): Shape => ({
  kind: "piece",
  a: { x: a[0], y: a[1] },
  b: { x: b[0], y: b[1] },
  bulge: 0,
});
const chain = (...corners: readonly (readonly [number, number])[]): Shape => ({
  kind: "chain",
  closed: true,
  vertices: corners.map(([x, y], i) => ({ id: 900 + i, at: { x, y }, bulge: 0 })),
});
/** The end that a place lies on, as the bench snaps to it. */
const snapAt = ({ index }: ToolContext, at: Point) => {
  const [snap] = snapsAt(index, at, 0.1).filter(({ kind }) => kind === "end");
  return snap ? { snap: { kind: snap.kind, ...(snap.ref ? { ref: snap.ref } : {}) } } : {};
};
/** A tool at work with things selected; what was refused is kept as it is said. */
const work = (
  id: string,
  drawing: Drawing,
  choices: Record<string, string> = {},
  selection: readonly number[] = [],
) => {
  const tool = toolById(id)!;
  let now = drawing;
  let state: ToolState = startTool(tool, { choices });
  let refused: string | undefined;
  const context = (): ToolContext => ({
    drawing: now,
    index: indexDrawing(now),
    unit: "mm",
    selection: new Set(selection),
    layer: PROFILE_LAYER,
  });
  const send = (event: ToolEvent): Step => {
    const step = stepTool(tool, state, event, context());
    state = step.state;
    if (step.edit) now = applyEdit(now, step.edit);
    refused = step.refusal && sayRefusal(step.refusal, "mm");
    return step;
  };
  return {
    type: (text: string) => {
      for (const character of text) send({ type: "key", text: character });
      return send({ type: "finish", hover: undefined });
    },
    fill: (blank: string, text: string) => {
      send({ type: "type", blank, text });
      return send({ type: "hold" });
    },
    click: (x: number, y: number) =>
      send({
        type: "click",
        hover: { at: { x, y }, under: underPoint(context(), { x, y }, 0.5), ...snapAt(context(), { x, y }) },
      }),
    enter: () => send({ type: "finish", hover: undefined }),
    drag: (...path: Point[]) => draggedOf(tool, state, path, context()),
    refused: () => refused,
    state: () => state,
    entities: (): readonly Entity[] => [...entitiesOf(now)].filter(({ kind }) => kind !== "endless"),
  };
};

describe("what is refused says what is so", () => {
  it("a ring without a wall", () => {
    const ring = work("ring", drawn());
    ring.type("60");
    ring.type("60");
    ring.click(0, 0);
    expect(ring.refused()).toBe(
      "Between Ø 60 mm inside and Ø 60 mm outside nothing is left of the ring. The inner one must be smaller.",
    );
  });

  it("a size that was typed as Ø is refused as Ø, with its limit", () => {
    const box = drawn(chain([0, 0], [60, 0], [60, 40], [0, 40]));
    for (const [typed, said] of [
      ["90d", "Ø 90 mm is too large here: Ø 80 mm is the largest that works."],
      ["45r", "R 45 mm is too large here: R 40 mm is the largest that works."],
    ] as const) {
      const fillet = work("fillet", box);
      fillet.type(typed);
      fillet.click(0, 0);
      expect(fillet.refused()).toBe(said);
    }
  });

  it("a whole contour whose edges are too short for two corners: no two of four, and numbers that differ", () => {
    const size = 40 - 1e-6;
    const fillet = work("fillet", drawn(chain([0, 0], [60, 0], [60, size], [0, size])), { how: "whole" });
    fillet.type("20");
    fillet.click(30, 0);
    expect(fillet.refused()).toMatch(/^R 20 mm is too large here: R 19\.9999995\d* mm is the largest that works\.$/);
    expect(fillet.entities()).toHaveLength(1);
    expect(fillet.state().lit).toBe("size"); // what must change is lit
    fillet.type("19.9999995");
    expect(fillet.click(30, 0).edit?.label).toContain("whole contour");
    // corners that fit are rounded beside a step that is too small for any
    const stepped = work("fillet", drawn(chain([0, 0], [60, 0], [60, 40], [30, 40], [30, 38], [0, 38])), {
      how: "whole",
    });
    stepped.type("5");
    const made = stepped.click(15, 0);
    expect(made.state.said).toMatch(/^4 corners rounded. 2 left as they were/);
  });

  it("fillet that keeps the edges of a chain's corner adds its arc loose", () => {
    const fillet = work("fillet", drawn(chain([0, 0], [60, 0], [60, 40], [0, 40])), { edges: "keep" });
    fillet.type("5");
    expect(fillet.click(60, 40).edit).toBeDefined();
    expect(fillet.entities().map(({ kind }) => kind)).toEqual(["chain", "piece"]);
    expect(fillet.entities()[0]).toMatchObject({ vertices: { length: 4 } });
  });

  it("Change fillet takes a loose arc between loose lines, whichever way each was drawn", () => {
    const bulge = Math.tan(Math.PI / 8);
    for (const [first, last] of [
      [line([0, 0], [50, 0]), line([60, 10], [60, 40])],
      [line([50, 0], [0, 0]), line([60, 40], [60, 10])],
    ] as const) {
      const change = work(
        "change-fillet",
        drawn(first, { kind: "piece", a: { x: 50, y: 0 }, b: { x: 60, y: 10 }, bulge }, last),
      );
      change.type("20");
      change.click(50 + 10 * Math.SQRT1_2, 10 - 10 * Math.SQRT1_2);
      const pieces = change.entities() as (Entity & Piece)[];
      expect(pieceRadius(pieces.find((one) => one.bulge !== 0)!)).toBeCloseTo(20, 9);
      expect(pieces.filter((one) => one.bulge === 0).map(pieceLength)).toEqual([
        expect.closeTo(40, 9),
        expect.closeTo(20, 9),
      ]);
    }
  });

  it("Trim with nothing selected to cut says so; pieces removed whole are not called trimmed", () => {
    const lines = drawn(line([0, 0], [40, 0]), line([0, 10], [40, 10]));
    const trim = work("trim", lines, { cutters: "selected" });
    trim.click(20, 0);
    expect(trim.refused()).toContain("Nothing is selected that could cut");
    expect(trim.entities()).toHaveLength(2);
    const swept = work("trim", lines).drag({ x: 20, y: -5 }, { x: 20, y: 15 });
    expect(swept.ways[0]!.said).toBe("2 removed whole: nothing crossed them.");
  });

  it("Rows refuse to leave out a copy that there is not", () => {
    const [circle] = [{ kind: "circle", centre: { x: 0, y: 0 }, radius: 5 } as const];
    const drawing = drawn(circle);
    const rows = work("rows", drawing, {}, [[...entitiesOf(drawing)].at(-1)!.id]);
    rows.fill("columns", "6");
    rows.fill("dx", "20");
    rows.fill("dy", "20");
    rows.fill("skip", "99");
    rows.enter();
    expect(rows.refused()).toContain("There is no number 99 to leave out");
  });

  it("Divide: by one is refused; the side of a contour is divided, its shape stays", () => {
    const box = drawn(chain([0, 0], [60, 0], [60, 40], [0, 40]));
    const one = work("divide", box);
    one.fill("parts", "1");
    one.click(30, 0);
    expect(one.refused()).toContain("Divide into 2 or more");
    const pieces = work("divide", box, { by: "pieces" });
    pieces.fill("parts", "3");
    expect(pieces.click(30, 0).edit).toBeDefined();
    const [made] = pieces.entities();
    expect(made?.kind === "chain" && made.vertices.map(({ at }) => [at.x, at.y])).toEqual([
      [0, 0],
      [20, 0],
      [40, 0],
      [60, 0],
      [60, 40],
      [0, 40],
    ]);
  });

  it("Meet runs a line to a layout line, and to a circle, which stay as they are", () => {
    const drawing = drawn(line([0, 5], [20, 5]), { kind: "endless", through: { x: 30, y: 0 }, angle: Math.PI / 2 });
    const meet = work("meet", drawing);
    meet.click(5, 5);
    meet.click(30, 40);
    expect(meet.entities()[0]).toMatchObject({ a: { x: 0, y: 5 }, b: { x: expect.closeTo(30, 9), y: 5 } });
  });

  it("Area takes a click inside a contour: the innermost", () => {
    const area = work(
      "area",
      drawn(chain([0, 0], [60, 0], [60, 40], [0, 40]), chain([10, 10], [20, 10], [20, 20], [10, 20])),
    );
    expect(area.click(40, 30).state.said).toContain("Area 2400 mm²");
    expect(area.click(15, 15).state.said).toContain("Area 100 mm²");
    area.click(100, 100);
    expect(area.refused()).toBeDefined();
  });

  it("Fit to points takes its first click, and its second", () => {
    for (const what of ["line", "arc", "circle", "arcs"]) {
      const fit = work("fit-to-points", drawn(), { what });
      for (const [x, y] of [
        [0, 0],
        [10, 5],
        [20, 1],
      ] as const)
        fit.click(x, y);
      expect([what, Object.keys(fit.state().picks).length]).toEqual([what, 3]);
    }
  });

  it("To layer takes any layer of the drawing", () => {
    const drawing = drawn(line([0, 0], [10, 0]));
    const id = [...entitiesOf(drawing)].at(-1)!.id;
    const to = work("to-layer", drawing, {}, [id]);
    const [, , marks] = [...drawing.layer.pages.flat()].filter(Boolean) as { id: number }[];
    const chosen = stepTool(
      toolById("to-layer")!,
      to.state(),
      { type: "choice", name: "layer", to: String(marks!.id) },
      {
        drawing,
        index: indexDrawing(drawing),
        unit: "mm",
        selection: new Set([id]),
        layer: PROFILE_LAYER,
      },
    );
    expect(chosen.state.choices.layer).toBe(String(marks!.id));
  });
});
