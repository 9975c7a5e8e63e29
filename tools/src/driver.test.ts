import { describe, it, expect } from "vitest";
import { measureCallout } from "@ash-edge/core/callouts";
import {
  PROFILE_LAYER,
  annotationsOf,
  applyEdit,
  entitiesOf,
  newDrawing,
  calloutsOf,
  type Drawing,
} from "@ash-edge/core/drawing";
import { draftEdit } from "@ash-edge/core/edits";
import type { Point } from "@ash-edge/core/geometry";
import { indexDrawing } from "@ash-edge/core/look";
import type { Shape } from "@ash-edge/core/shape";
import { underPoint, stepTool, type ToolEvent, type Step } from "./driver.ts";
import { proposalOf } from "./proposing.ts";
import { offeredCallout } from "./lit.ts";
import { startTool, type Hover, type ToolState } from "./toolState.ts";
import { toolById } from "./registry.ts";
import type { ToolContext, Tool } from "./tool.ts";

const contextOf = (drawing: Drawing): ToolContext => ({
  drawing,
  index: indexDrawing(drawing),
  unit: "in",
  selection: new Set(),
  layer: PROFILE_LAYER,
});
const hover = (context: ToolContext, x: number, y: number): Hover => ({
  at: { x, y },
  under: underPoint(context, { x, y }, 0.2),
});
const at = (p: Point): Partial<Shape> => ({ centre: p }) as Partial<Shape>;

/** A tool at work on a drawing, event by event, as the bench drives it. */
const work = (id: string, start: Drawing) => {
  const tool = toolById(id) as Tool;
  let drawing = start;
  let state: ToolState = startTool(tool);
  const send = (event: ToolEvent): Step => {
    const step = stepTool(tool, state, event, contextOf(drawing));
    state = step.state;
    if (step.edit) drawing = applyEdit(drawing, step.edit);
    return step;
  };
  return {
    send,
    type: (blank: string, text: string) => send({ type: "type", blank, text }),
    click: (x: number, y: number) => send({ type: "click", hover: hover(contextOf(drawing), x, y) }),
    look: (x: number, y: number) => proposalOf(tool, state, hover(contextOf(drawing), x, y), contextOf(drawing)),
    state: () => state,
    drawing: () => drawing,
    last: () => [...entitiesOf(drawing)].at(-1)!,
  };
};
const withShapes = (...shapes: Shape[]): Drawing => {
  const drawing = newDrawing("in");
  const draft = draftEdit(drawing, "Draw", "draw");
  for (const shape of shapes) draft.add(shape, PROFILE_LAYER);
  return applyEdit(drawing, draft.finish());
};

/** A box of 70 by 40, with its lower left corner on the datum. */
const boxEdit = (drawing: Drawing): ReturnType<ReturnType<typeof draftEdit>["finish"]> => {
  const draft = draftEdit(drawing, "Draw", "draw");
  const corners = [
    { x: 0, y: 0 },
    { x: 70, y: 0 },
    { x: 70, y: 40 },
    { x: 0, y: 40 },
  ];
  const vertices = corners.map((p) => ({ id: draft.newId(), at: p, bulge: 0 }));
  draft.add({ kind: "chain", closed: true, vertices }, PROFILE_LAYER);
  return draft.finish();
};

describe("the tools' driver", () => {
  it("holds what is typed when the board is clicked, and keeps sizes but not lengths afterwards", () => {
    const circle = work("circle", newDrawing("in"));
    circle.type("size", "1-3/16d");
    expect(circle.click(2, 3).edit?.label).toBe("Circle");
    expect(circle.last()).toMatchObject({ ...at({ x: 2, y: 3 }), radius: 1.1875 / 2 });
    expect(circle.state().entries.size?.text).toBe("1-3/16d");
    circle.click(5, 5);
    expect(circle.last()).toMatchObject({ radius: 1.1875 / 2 });

    const line = work("line", newDrawing("in"));
    line.click(0, 0);
    line.type("length", "2");
    line.click(9, 9);
    expect(line.state().entries).toEqual({});
    expect(line.state().picks.from?.snap).toBe("end"); // the next one starts there
  });

  it("keeps the picks and says why when a click can't make anything", () => {
    const arc = work(
      "tangent-arc",
      withShapes(
        { kind: "circle", centre: { x: 0, y: 0 }, radius: 1 },
        { kind: "circle", centre: { x: 6, y: 0 }, radius: 1 },
      ),
    );
    arc.type("size", "1");
    arc.send({ type: "hold" });
    arc.click(0.98, 0);
    const step = arc.click(5.02, 0);
    expect(step.refusal).toMatchObject({ code: "radius-too-small", values: { limit: 2 } });
    expect(Object.keys(arc.state().picks)).toEqual(["from"]);
    expect(arc.state().entries.size?.value).toBe(1);
    arc.type("size", "2");
    arc.send({ type: "hold" });
    expect(arc.click(5.02, 0).edit?.label).toBe("Tangent arc"); // exactly at the limit: the half turn between them
    expect(Math.abs((arc.last() as { bulge: number }).bulge)).toBeCloseTo(1, 12);
  });

  it("previews what a click makes, and Space goes through all of it", () => {
    const tangent = work(
      "tangent-line",
      withShapes(
        { kind: "circle", centre: { x: 0, y: 0 }, radius: 1 },
        { kind: "circle", centre: { x: 6, y: 0 }, radius: 2 },
      ),
    );
    tangent.click(0, 1);
    const shown = [0, 1, 2, 3].map(() => {
      const { way, which, ways } = tangent.look(6, 2);
      expect(ways).toHaveLength(4);
      tangent.send({ type: "next" });
      return `${which} ${JSON.stringify(way!.preview)}`;
    });
    expect(new Set(shown).size).toBe(4);
    expect(tangent.look(6, 2).which).toBe(0);
    const { way } = tangent.look(6, 2);
    tangent.click(6, 2);
    expect(tangent.last()).toMatchObject(way!.preview[0]!.shape);
  });

  it("trims single lines to a tangent arc, or keeps them as chosen; the choice stays", () => {
    const corner = withShapes(
      { kind: "piece", a: { x: 0, y: 0 }, b: { x: 5, y: 0 }, bulge: 0 },
      { kind: "piece", a: { x: 0, y: 0 }, b: { x: 0, y: 5 }, bulge: 0 },
    );
    for (const trim of ["trim", "keep"] as const) {
      const arc = work("tangent-arc", corner);
      arc.send({ type: "choice", name: "trim", to: trim });
      arc.type("size", "1");
      arc.send({ type: "hold" });
      arc.click(3, 0.001);
      arc.click(0.001, 3);
      const lines = [...entitiesOf(arc.drawing())].filter((entity) => entity.kind === "piece" && entity.bulge === 0);
      expect(lines).toMatchObject([
        { a: { x: trim === "trim" ? 1 : 0, y: 0 } },
        { a: { x: 0, y: trim === "trim" ? 1 : 0 } },
      ]);
      expect(arc.state().choices.trim).toBe(trim);
    }
  });

  it("links what a callout's value made: a clicked one, or a typed size that only one callout calls", () => {
    const circle = work(
      "circle",
      newDrawing("in", [
        { kind: "diameter", value: 0.625, name: "hole" },
        { kind: "diameter", value: 2, name: "boss" },
        { kind: "diameter", value: 2, name: "other boss" },
      ]),
    );
    const [hole, boss] = calloutsOf(circle.drawing());
    circle.type("size", "5/8");
    circle.click(1, 1);
    expect(measureCallout(circle.drawing(), calloutsOf(circle.drawing())[0]!)).toMatchObject({
      state: "true",
      measured: 0.625,
    });
    circle.type("size", "2");
    circle.click(5, 1);
    // two call Ø 2: which one is not guessed
    expect(calloutsOf(circle.drawing()).map(({ links }) => links.length)).toEqual([1, 0, 0]);
    circle.send({ type: "fill", blank: "size", entry: { text: "2", value: 2, callout: boss!.id }, kind: "Ø" });
    circle.click(9, 1);
    expect(calloutsOf(circle.drawing()).map(({ links }) => links.length)).toEqual([1, 1, 0]);
    circle.send({ type: "choice", name: "size", to: "R" });
    // it means R 2 now and answers the callout no more
    expect(circle.state().entries.size).toEqual({ text: "2", value: 2 });
    expect(hole!.id).not.toBe(boss!.id);
  });

  it("takes a straight layout line for no circle: a tangent line from a point near one starts at the point", () => {
    const tangent = work("tangent-line", withShapes({ kind: "circle", centre: { x: 4, y: 0 }, radius: 1 }));
    tangent.click(0, 0.05);
    expect(tangent.state().picks.from?.ref).toBeUndefined();
    expect(tangent.look(4, 1).ways).toHaveLength(2);
  });

  it("goes back one pick at a time", () => {
    const line = work("line", newDrawing("in"));
    line.click(1, 1);
    line.send({ type: "back" });
    expect(line.state().picks).toEqual({});
    line.send({ type: "back" });
    expect(line.state().picks).toEqual({});
  });
});

describe("what fills a blank is tied to what the tool makes", () => {
  const called = (...list: readonly (readonly ["length" | "diameter" | "angle" | "radius" | "count", number])[]) =>
    newDrawing(
      "mm",
      list.map(([kind, value]) => ({ kind, value, name: `${kind} ${value}` })),
    );
  /** Fills blanks from the callouts in order, picks a place by its numbers, and says how each callout stands. */
  const answered = (
    id: string,
    drawing: Drawing,
    fills: Readonly<Record<string, number>>,
    at: readonly [string, string] = ["10", "20"],
  ) => {
    const tool = work(id, drawing);
    const callouts = calloutsOf(drawing);
    for (const [blank, which] of Object.entries(fills)) {
      const callout = callouts[which]!;
      if (blank.startsWith("place")) tool.send({ type: "place", placing: { as: "xy", from: "datum" } });
      tool.send({
        type: "fill",
        blank,
        entry: { text: String(callout.value), value: callout.value, callout: callout.id },
      });
    }
    if (!("place x" in fills)) tool.type("place x", at[0]);
    tool.send({ type: "place", placing: { as: "xy", from: "datum" } });
    if (!("place x" in fills)) {
      tool.type("place x", at[0]);
      tool.send({ type: "hold" });
    }
    tool.type("place y", at[1]);
    tool.send({ type: "hold" });
    tool.send({ type: "finish", hover: undefined });
    return calloutsOf(tool.drawing()).map((callout) => measureCallout(tool.drawing(), callout).state);
  };

  it("a rectangle's width and height, rounded or not", () => {
    const sizes = called(["length", 190], ["length", 150]);
    expect(answered("rectangle", sizes, { width: 0, height: 1 })).toEqual(["true", "true"]);
  });

  it("a bolt circle's size, its first angle and how many", () => {
    const drawing = called(["diameter", 90], ["angle", 15], ["count", 6], ["diameter", 9]);
    const done = answered("bolt-circle", drawing, { circle: 0, first: 1, count: 2, size: 3 }, ["0", "0"]);
    expect(done).toEqual(["true", "true", "true", "true"]);
  });

  it("80 from left: a coordinate from the datum, measured along its axis", () => {
    const drawing = called(["length", 80], ["diameter", 26]);
    expect(answered("circle", drawing, { size: 1, "place x": 0 }, ["", "75"])).toEqual(["true", "true"]);
  });

  it("a distance and a direction from the datum, and from the point before", () => {
    const drawing = called(["length", 50], ["angle", 30], ["length", 20]);
    const [reach, way, on] = calloutsOf(drawing);
    const line = work("line", drawing);
    const fill = (blank: string, { value, id }: NonNullable<typeof reach>): void =>
      void line.send({ type: "fill", blank, entry: { text: String(value), value, callout: id } });
    line.send({ type: "place", placing: { as: "polar", from: "datum" } });
    fill("place distance", reach!);
    fill("place angle", way!);
    line.send({ type: "finish", hover: undefined });
    line.send({ type: "place", placing: { as: "polar", from: "last" } });
    fill("place distance", on!);
    line.type("place angle", "0");
    line.send({ type: "hold" });
    line.send({ type: "finish", hover: undefined });
    const states = calloutsOf(line.drawing()).map((callout) => measureCallout(line.drawing(), callout).state);
    expect(states).toEqual(["true", "true", "not placed"]); // the start was a bare place: nothing to count from
  });

  it("a chamfer by its length and its angle, or by two lengths: all that it says is filled", () => {
    for (const [says, legs] of [
      [{ angle: 30 }, [12, 12 * Math.tan(Math.PI / 6)]],
      [{ other: 5 }, [12, 5]],
      [{ angle: 45 }, [12, 12]],
    ] as const) {
      const row = { kind: "chamfer", value: 12, name: "cut corner", ...says } as const;
      const box = toolById("chamfer") as Tool;
      const start = applyEdit(newDrawing("mm", [row]), boxEdit(newDrawing("mm", [row])));
      const tool = work("chamfer", start);
      const also = box.alsoSays!({ ...calloutsOf(start)[0]! })!;
      const entries = Object.fromEntries(
        Object.entries(also.values).map(([name, value]) => [name, { text: String(value), value }]),
      );
      tool.send({
        type: "fill",
        blank: "a",
        entry: { text: "12", value: 12, callout: calloutsOf(start)[0]!.id },
        also: { choices: also.choices, entries },
      });
      tool.click(60, 40);
      tool.click(70, 30); // the length lies along the edge that was clicked first
      const callout = calloutsOf(tool.drawing())[0]!;
      expect(measureCallout(tool.drawing(), callout).state).toBe("true");
      const { vertices } = tool.last() as { vertices: readonly { at: Point }[] };
      const [top, right] = [
        vertices.find((v) => v.at.y === 40 && v.at.x > 0),
        vertices.find((v) => v.at.x === 70 && v.at.y > 0),
      ];
      expect(top!.at.x).toBeCloseTo(70 - legs[0], 9);
      expect(right!.at.y).toBeCloseTo(40 - legs[1], 9);
    }
  });

  it("a number being typed that just one callout calls is offered, never one of two, nor one that is placed", () => {
    const drawing = called(["length", 190], ["length", 150], ["length", 150], ["diameter", 190]);
    const offered = (text: string, blank = "width", on = drawing): number | undefined => {
      const tool = toolById("rectangle") as Tool;
      const state: ToolState = { ...startTool(tool), open: { blank, text } };
      return offeredCallout(tool, state, contextOf(on))?.callout.value;
    };
    expect([offered("190"), offered("380/2"), offered("19"), offered("150"), offered("")]).toEqual([
      190,
      190,
      undefined,
      undefined,
      undefined,
    ]);
    expect(offered("190", "corner")).toBeUndefined();
  });

  it("is not said to answer what it does not measure", () => {
    const drawing = called(["length", 80], ["diameter", 26]);
    // the number was changed after it was taken: nothing that is made measures 80
    const circle = work("circle", drawing);
    circle.send({
      type: "fill",
      blank: "size",
      entry: { text: "30", value: 30, callout: calloutsOf(drawing)[0]!.id },
      kind: "Ø",
    });
    circle.click(3, 4);
    expect(measureCallout(circle.drawing(), calloutsOf(circle.drawing())[0]!).state).toBe("not placed");
  });
});

describe("a thread mark", () => {
  it("takes the place of the one that its hole bears, and of no other's", () => {
    let drawing = withShapes(
      { kind: "circle", centre: { x: 0, y: 0 }, radius: 0.1 },
      { kind: "circle", centre: { x: 2, y: 0 }, radius: 0.1 },
    );
    for (const [thread, x] of [
      ["M6", 0.1],
      ["M6", 2.1],
      ["M8", 0.1],
    ] as const) {
      const mark = work("thread-mark", drawing);
      mark.type("thread", thread);
      mark.click(x, 0);
      drawing = mark.drawing();
    }
    const holes = [...entitiesOf(drawing)].filter(({ kind }) => kind === "circle").map(({ id }) => id);
    expect(annotationsOf(drawing).map(({ text, refs }) => [text, refs[0]!.id])).toEqual([
      ["M8", holes[0]],
      ["M6", holes[1]],
    ]);
  });
});
