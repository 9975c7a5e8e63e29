import { describe, expect, it } from "vitest";
import { textPlace } from "../attach/frame.ts";
import { annotationsOf, entitiesOf, newDrawing, settingsOf, type Drawing } from "../drawing/drawing.ts";
import { applyEdit, type Edit } from "../drawing/edit.ts";
import { LAYOUT_LAYER, PROFILE_LAYER } from "../drawing/layer.ts";
import { draftEdit, mirrorEntities, planTrim, tidyEdit, tidyThings } from "../edits/index.ts";
import { tidy } from "../tidy/tidy.ts";
import { indexDrawing } from "../look/drawingIndex.ts";
import { picksAt } from "../look/picking.ts";
import type { Outcome } from "../numeric/outcome.ts";
import { distance, type Point } from "../geometry/point.ts";
import { after as then, mirroring, moving, transformPoint, turning } from "../geometry/transform.ts";
import { addAnnotations, setAnnotations } from "./editAnnotations.ts";
import { measureAnnotation } from "./measure.ts";

const value = <T>(outcome: Outcome<T>): T => {
  if (!outcome.ok) throw new Error(outcome.refusal.code);
  return outcome.value;
};

/** Places in which the same work is done: as drawn, turned, far out. */
const PLACEMENTS = [
  [0, 0],
  [17.3, 0],
  [61.7, 1e5],
] as const;

describe("tidying", () => {
  it.each([0, 1])("of two copies the one that carries the dimension stays, number %s of them", (which) => {
    const start = newDrawing("mm");
    const draft = draftEdit(start, "Draw", "draw");
    const ids = [0, 1].map(() => draft.add({ kind: "circle", centre: { x: 5, y: 5 }, radius: 7 }, PROFILE_LAYER));
    let drawing = applyEdit(start, draft.finish());
    const refs = [{ id: ids[which]! }];
    drawing = applyEdit(
      drawing,
      value(addAnnotations(drawing, [{ kind: "diameter", refs, at: { x: 9, y: 9 } }], "Dimension", "dimension")),
    );
    const things = tidyThings(drawing);
    const edit = tidyEdit(
      drawing,
      things,
      tidy(things, { tolerance: 0.05, ignore: new Set(), sharedEdges: "keep" }),
      "Tidy",
    )!;
    const after = applyEdit(drawing, edit);
    expect([...entitiesOf(after)].filter(({ kind }) => kind === "circle").map(({ id }) => id)).toEqual([ids[which]]);
    expect(annotationsOf(after)[0]).toEqual(annotationsOf(drawing)[0]);
  });
});

describe("a drawing with dimensions, hidden, trimmed to the axis, mirrored and shown again", () => {
  it.each(PLACEMENTS)("turned by %s degrees, %s out: all that is there is still true", (degrees, out) => {
    const by = then(turning({ x: 0, y: 0 }, (degrees * Math.PI) / 180), moving({ x: out, y: -out }));
    const at = (x: number, y: number): Point => transformPoint(by, { x, y });
    // half of a plate and a little over the axis x = 0: 60 wide, 40 high, a hole Ø 12 at (-35, 20)
    const start = newDrawing("mm");
    const draft = draftEdit(start, "Draw", "draw");
    for (const { id } of entitiesOf(start)) draft.remove(id); // the lines through the datum would be cut at, too
    const corners = [at(8, 0), at(-60, 0), at(-60, 40), at(8, 40)].map((p) => ({ id: draft.newId(), at: p, bulge: 0 }));
    const outline = draft.add({ kind: "chain", closed: false, vertices: corners }, PROFILE_LAYER);
    const hole = draft.add({ kind: "circle", centre: at(-35, 20), radius: 6 }, PROFILE_LAYER);
    const angle = (degrees * Math.PI) / 180;
    draft.add({ kind: "endless", through: at(0, 0), angle: angle + Math.PI / 2 }, LAYOUT_LAYER);
    let drawing = applyEdit(start, draft.finish());
    const go = (edit: Edit): void => void (drawing = applyEdit(drawing, edit));
    const [a, b] = [corners[0]!, corners[1]!];
    const edge = { id: outline, vertex: b.id };
    go(
      value(
        addAnnotations(
          drawing,
          [
            { kind: "linear", refs: [edge], at: { x: 0, y: 9 } }, // the side, 40
            { kind: "diameter", refs: [{ id: hole }], at: { x: 12, y: 9 } },
            { kind: "linear", refs: [{ id: hole, place: "centre" }, edge], at: { x: 0, y: 9 } }, // hole to the side, 25
            { kind: "note", refs: [{ id: hole }], at: { x: -20, y: 9 }, text: "ream" },
            { kind: "linear", refs: [{ id: outline, vertex: a.id }], at: { x: 0, y: 12 } }, // the bottom, 68
          ],
          "Dimension",
          "dimension",
        ),
      ),
    );
    const numbers = (of: Drawing): readonly (number | undefined)[] =>
      annotationsOf(of).map((one) => measureAnnotation(of, one)?.most);
    const near = (one: number | undefined): unknown => (one === undefined ? undefined : expect.closeTo(one, 6));
    expect(numbers(drawing)).toEqual([40, 12, 25, undefined, 68].map(near));

    go(setAnnotations(drawing, { hidden: true }));
    // what reaches over the axis goes: the bottom is 60 then, and its dimension, whose end went, is lost
    for (const y of [0, 40]) {
      const index = indexDrawing(drawing);
      go(value(planTrim(index, picksAt(index, at(4, y), 1)[0]!.ref, at(4, y))).edit);
    }
    const mirrored = mirrorEntities(
      drawing,
      [...entitiesOf(drawing)].filter(({ kind }) => kind !== "endless").map(({ id }) => id),
      { at: at(0, 0), angle: angle + Math.PI / 2 },
      true,
    );
    expect(value(mirrored).welded).toBe(1);
    go(value(mirrored).edit);
    go(setAnnotations(drawing, { hidden: false }));
    expect(settingsOf(drawing).annotationsHidden).toBeUndefined();

    const all = annotationsOf(drawing);
    const kept = all.slice(0, 4);
    expect(kept.map((one) => measureAnnotation(drawing, one)?.most)).toEqual([40, 12, 25, undefined].map(near));
    expect(all[4]!.lost).toBeDefined();
    // all of them came with the image of what they hold, as true, and stand where its mirror shows them
    const copies = all.slice(5);
    expect(copies.map(({ kind, text }) => [kind, text])).toEqual(kept.map(({ kind, text }) => [kind, text]));
    expect(copies.map((one) => measureAnnotation(drawing, one)?.most)).toEqual([40, 12, 25, undefined].map(near));
    const m = mirroring(at(0, 0), angle + Math.PI / 2);
    copies.forEach((one, i) => {
      const there = transformPoint(m, textPlace(drawing, kept[i]!)!);
      expect(distance(textPlace(drawing, one)!, there)).toBeLessThan(1e-6);
    });
  });
});
