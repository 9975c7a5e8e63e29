import { expect, it } from "vitest";
import { applyEdit, DATUM, newDrawing, PROFILE_LAYER, type CalloutKind, type Ref } from "../drawing/index.ts";
import { draftEdit } from "../edits/draftEdit.ts";
import { indexDrawing } from "../look/drawingIndex.ts";
import { calloutsOf } from "../drawing/index.ts";
import { measureCallout, refPointed, withPointed } from "./index.ts";

/** A slot 40 by 20 about (100, 50) and a circle R 7 at (30, 40). */
const drawing = (() => {
  const kinds = ["radius", "diameter", "length", "centres", "angle", "count", "chamfer"] as const;
  const start = newDrawing(
    "mm",
    kinds.map((kind) => ({ kind, value: 10, name: kind })),
  );
  const draft = draftEdit(start, "Draw", "draw");
  const vertices = (
    [
      [90, 40, 0],
      [110, 40, 1],
      [110, 60, 0],
      [90, 60, 1],
    ] as const
  ).map(([x, y, bulge]) => ({ id: draft.newId(), at: { x, y }, bulge }));
  draft.add({ kind: "chain", closed: true, vertices }, PROFILE_LAYER);
  draft.add({ kind: "circle", centre: { x: 30, y: 40 }, radius: 7 }, PROFILE_LAYER);
  return applyEdit(start, draft.finish());
})();
const index = indexDrawing(drawing);

const measured = (kind: CalloutKind, ...clicks: readonly (readonly [number, number])[]): number | undefined => {
  const callout = calloutsOf(drawing).find((one) => one.kind === kind)!;
  const links = clicks.reduce<readonly Ref[]>((refs, [x, y]) => {
    const ref = refPointed(index, kind, { x, y }, 1);
    return ref ? withPointed({ kind }, refs, ref) : refs;
  }, []);
  const state = measureCallout(drawing, { ...callout, links });
  return state.state === "not placed" ? undefined : state.measured;
};

it.each([
  ["a circle's radius", "radius", [[37.4, 40]], 7],
  ["an arc's, though its line is as near", "radius", [[110.2, 60.1]], 10],
  ["a hole's diameter", "diameter", [[30, 47.3]], 14],
  ["an edge's length", "length", [[100, 40.5]], 20],
  [
    "between two edges",
    "length",
    [
      [100, 40.5],
      [100, 59.8],
    ],
    20,
  ],
  [
    "from the datum to a centre",
    "centres",
    [
      [0.3, 0.3],
      [30.2, 39.9],
    ],
    50,
  ],
  [
    "between two centres",
    "centres",
    [
      [30, 40],
      [110, 50.2],
    ],
    Math.hypot(80, 10),
  ],
  [
    "a third begins anew",
    "length",
    [
      [30, 40],
      [110, 50],
      [100, 59.8],
    ],
    20,
  ],
  [
    "again on the same lets it go",
    "length",
    [
      [30, 40],
      [100, 59.8],
      [30, 40],
    ],
    20,
  ],
  ["an edge's direction", "angle", [[100, 40.4]], 0],
  [
    "counted, one of them let go",
    "count",
    [
      [37, 40],
      [100, 40],
      [100, 60],
      [100, 60],
    ],
    2,
  ],
  ["nothing round there", "radius", [[100, 40]], undefined],
  ["nothing there", "length", [[60, 10]], undefined],
] as const)("%s", (_, kind, clicks, expected) => {
  const found = measured(kind, ...clicks);
  if (expected === undefined) expect(found).toBeUndefined();
  else expect(found).toBeCloseTo(expected, 12);
});

it("the datum is pointed at rather than the layout lines through it", () => {
  expect(refPointed(index, "centres", { x: 0.2, y: 0 }, 1)).toBe(DATUM);
});
