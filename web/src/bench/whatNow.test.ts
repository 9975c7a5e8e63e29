import { describe, expect, it } from "vitest";
import { waiveCallout } from "@ash-edge/core/callouts";
import {
  applyEdit,
  calloutsOf,
  layersOf,
  newDrawing,
  PROFILE_LAYER,
  type Drawing,
  type NewCallout,
} from "@ash-edge/core/drawing";
import { addLayer, draftEdit } from "@ash-edge/core/edits";
import type { Shape } from "@ash-edge/core/shape";
import { noteDerived } from "./derived.ts";
import { LARGE } from "./mass.ts";
import { whatNow } from "./whatNow.ts";

const circle = (x: number, radius = 5): Shape => ({ kind: "circle", centre: { x, y: 0 }, radius });
const drawn = (
  shapes: readonly Shape[],
  callouts: readonly NewCallout[] = [],
  layer = PROFILE_LAYER,
  start = newDrawing("mm", callouts),
): Drawing => {
  const draft = draftEdit(start, "Draw", "draw");
  for (const shape of shapes) draft.add(shape, layer);
  return applyEdit(start, draft.finish());
};
/** Two circles in one place, on two layers. */
const apart = (): Drawing => {
  const start = drawn([circle(0)]);
  const added = addLayer(start, "Other", "profile");
  if (!added.ok) throw new Error(added.refusal.code);
  const layered = applyEdit(start, added.value);
  return drawn([circle(0)], [], layersOf(layered).at(-1)!.id, layered);
};
const line = (x: number, y: number, u: number, v: number): Shape => ({
  kind: "piece",
  a: { x, y },
  b: { x: u, y: v },
  bulge: 0,
});
const words = (drawing: Drawing, hasSketch = false): string => whatNow(drawing, hasSketch).words;

describe("what now", () => {
  const bore: NewCallout = { kind: "diameter", value: 10, name: "bore" };
  const triangle = [line(0, 0, 10, 0), line(10, 0, 0, 10), line(0, 10, 0, 0)];
  const cases: readonly (readonly [string, Drawing, boolean?])[] = [
    ["Begin with", drawn([])],
    ["Write down the numbers of the sketch", drawn([]), true],
    ["Scale the sketch by a length on it, or begin with", drawn([], [bore]), true],
    ["Nothing is closed yet. Go on with", drawn([{ kind: "point", at: { x: 0, y: 0 } }])],
    ["Nothing is closed yet. Go on with", drawn([line(0, 0, 9, 0)], [], 3)], // a mark alone
    ["3 pieces to join", drawn(triangle)],
    ["1 chain open", drawn([line(0, 0, 9, 0)])],
    ["Some lines lie twice", drawn([circle(0), circle(0)])],
    ["Something stands against cutting", apart()], // Tidy would find nothing there
    ["Something stands against cutting", drawn([circle(0), circle(6)])],
    ["1 callout not placed", drawn([circle(0)], [bore])],
    ["Closed and joined", drawn([circle(0)])],
  ];
  it.each(cases.map(([said, ...rest]) => ({ said, rest })))("$said", ({ said, rest: [drawing, hasSketch] }) =>
    expect(words(drawing, hasSketch)).toBe(said),
  );

  it("does not say that all holds where something is waived, nor that all is closed where nothing is known", () => {
    const open = drawn([circle(0)], [bore]);
    const { id } = calloutsOf(open)[0]!;
    const waived = applyEdit(open, waiveCallout(open, id, { reason: "rang", on: "2026-12-01" } as never)!);
    expect(words(waived)).toBe("Every callout holds or is waived");
    noteDerived(undefined);
    const great = drawn(Array.from({ length: LARGE + 10 }, (_, i) => line(i, 0, i, 1)));
    expect(words(great)).toBe("Being looked over …");
    noteDerived({ contours: [], open: [], marks: [], smooth: [], faults: [] });
    expect(words(great)).toBe("Nothing is closed yet. Go on with");
  });
});
