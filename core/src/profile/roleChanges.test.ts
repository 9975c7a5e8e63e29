import { describe, expect, it } from "vitest";
import { applyEdit, newDrawing, PROFILE_LAYER, type Drawing, type Edit } from "../drawing/index.ts";
import { draftEdit } from "../edits/index.ts";
import type { Point } from "../geometry/index.ts";
import { sayRoleChanges } from "../say/index.ts";
import { profileOf, roleChanges } from "./index.ts";

const adding = (drawing: Drawing, boxes: readonly (readonly [Point, Point])[], holes: readonly Point[] = []): Edit => {
  const draft = draftEdit(drawing, "Draw", "draw");
  for (const [a, b] of boxes) {
    const corners = [a, { x: b.x, y: a.y }, b, { x: a.x, y: b.y }];
    draft.add(
      { kind: "chain", closed: true, vertices: corners.map((at) => ({ id: draft.newId(), at, bulge: 0 })) },
      PROFILE_LAYER,
    );
  }
  for (const centre of holes) draft.add({ kind: "circle", centre, radius: 2 }, PROFILE_LAYER);
  return draft.finish();
};
const said = (before: Drawing, edit: Edit) => {
  const touched = new Set(edit.changes.map(({ id }) => id));
  const changes = roleChanges(profileOf(before), profileOf(applyEdit(before, edit)), touched);
  return { ...changes, words: sayRoleChanges(changes) };
};

describe("roles that a new contour changes", () => {
  const holes = [10, 20, 30].map((x) => ({ x, y: 10 }));
  const plate = applyEdit(
    newDrawing("mm"),
    adding(
      newDrawing("mm"),
      [
        [
          { x: 0, y: 0 },
          { x: 40, y: 20 },
        ],
      ],
      holes,
    ),
  );
  it("a frame round a plate makes discs of its holes, and an inner contour of it", () => {
    const { words, by } = said(
      plate,
      adding(plate, [
        [
          { x: -5, y: -5 },
          { x: 50, y: 30 },
        ],
      ]),
    );
    expect(words).toBe("3 holes became discs, 1 outer contour became an inner one");
    expect(by?.area).toBe(55 * 35);
  });
  it("a plate drawn after its holes makes holes of discs", () => {
    const bare = applyEdit(newDrawing("mm"), adding(newDrawing("mm"), [], holes));
    expect(
      said(
        bare,
        adding(bare, [
          [
            { x: 0, y: 0 },
            { x: 40, y: 20 },
          ],
        ]),
      ).words,
    ).toBe("3 discs became holes");
  });
  it("one hole more, two frames at once, or a hole taken away speak for themselves", () => {
    expect(said(plate, adding(plate, [], [{ x: 35, y: 10 }])).words).toBe("");
    const two = adding(plate, [
      [
        { x: -5, y: -5 },
        { x: 50, y: 30 },
      ],
      [
        { x: -9, y: -9 },
        { x: 60, y: 40 },
      ],
    ]);
    expect([said(plate, two).words, said(plate, two).by]).toEqual(["", undefined]);
  });
});
