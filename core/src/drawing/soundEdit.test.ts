import { describe, expect, it } from "vitest";
import { draftEdit, joinPieces } from "../edits/index.ts";
import { drawingRowsSchema, editSchema } from "../formats/job/index.ts";
import type { Shape } from "../shape/index.ts";
import { SHAPE_KINDS } from "../shape/index.ts";
import { drawingText, newDrawing } from "./drawing.ts";
import { applyEdit } from "./edit.ts";
import type { Entity } from "./entity.ts";
import { unsoundRow } from "./rows.ts";
import { unsoundEdit } from "./soundEdit.ts";

const at = (x: number, y: number): { x: number; y: number } => ({ x, y });
const square = [at(0, 0), at(4, 0), at(4, 4)].map((place, i) => ({ id: 7 + i, at: place, bulge: 0 }));
const BASE = { id: 5, layer: 1 };

/** One of each kind that is sound. */
const SOUND: readonly Entity[] = [
  { ...BASE, kind: "point", at: at(1, 2) },
  { ...BASE, kind: "piece", a: at(0, 0), b: at(3, 4), bulge: 0.5, line: "dashed" },
  { ...BASE, kind: "circle", centre: at(0, 0), radius: 2 },
  { ...BASE, kind: "chain", closed: true, vertices: square },
  { ...BASE, kind: "endless", through: at(0, 0), angle: 1 },
  { ...BASE, kind: "ellipse", centre: at(0, 0), major: at(3, 0), ratio: 0.5, from: 0, sweep: 6 },
  {
    ...BASE,
    kind: "free",
    degree: 3,
    knots: [0, 0, 0, 0, 1, 1, 1, 1],
    points: [at(0, 0), at(1, 1), at(2, 0), at(3, 1)],
  },
];
const by = <K extends Entity["kind"]>(kind: K): Entity => SOUND.find((one) => one.kind === kind)!;

/** What must never be stored, and a word of why. */
const UNSOUND: readonly (readonly [unknown, RegExp])[] = [
  [{ ...by("chain"), vertices: square.slice(0, 1) }, /vertices has fewer than 2/],
  [{ ...by("chain"), vertices: [square[0], square[0]] }, /one id/],
  [{ ...by("circle"), radius: 0 }, /radius is not above 0/],
  [{ ...by("circle"), radius: NaN }, /radius is not a number/],
  [{ ...by("circle"), centre: at(Infinity, 0) }, /centre: x is not a number/],
  [{ ...by("piece"), bulge: undefined }, /bulge is missing/],
  [{ ...by("piece"), weight: 2 }, /weight is unknown/],
  [{ ...by("free"), degree: 25 }, /degree 25 has only 4 points/],
  [{ ...by("free"), knots: [0, 0, 0, 1, 1, 1] }, /number of knots/],
  [{ ...by("free"), knots: [0, 0, 0, 0, 0, 0, 0, 0] }, /no length/],
  [{ ...by("ellipse"), major: at(0, 0) }, /no size/],
  [{ ...by("point"), kind: "blob" }, /kind blob is unknown/],
  [{ ...by("point"), kind: "toString" }, /is unknown/],
];

describe("rows", () => {
  it("one of every kind is sound, made and read back alike", () => {
    expect(SOUND.map(({ kind }) => kind).sort()).toEqual([...SHAPE_KINDS].sort());
    const rows = JSON.parse(drawingText(newDrawing("mm"))) as Record<string, unknown>;
    for (const row of SOUND) {
      expect(unsoundRow("entity", row)).toBeUndefined();
      expect(drawingRowsSchema.validate({ ...rows, entity: [row] }, { convert: false }).error).toBeUndefined();
    }
  });

  it.each(UNSOUND)("%j is neither made nor read", (row, why) => {
    expect(unsoundRow("entity", row)).toMatch(why);
    const rows = JSON.parse(drawingText(newDrawing("mm"))) as Record<string, unknown>;
    expect(drawingRowsSchema.validate({ ...rows, entity: [row] }, { convert: false }).error).toBeDefined();
    const edit = {
      label: "x",
      gesture: "x",
      changes: [{ table: "entity", id: 5, after: row }],
      lineage: [],
      cutLoose: [],
    };
    expect(editSchema.validate(edit, { convert: false }).error).toBeDefined();
  });

  it("an edit that makes one, or uses an id again, is not made", () => {
    const drawing = newDrawing("mm");
    const bad = draftEdit(drawing, "Circle", "circle");
    bad.add({ kind: "circle", centre: at(0, 0), radius: -1 }, 1);
    expect(() => bad.finish()).toThrow(/radius is not above 0/);
    const again = draftEdit(drawing, "Circle", "circle");
    again.set("entity", 4, undefined);
    again.set("entity", 2, { kind: "circle", centre: at(0, 0), radius: 1, id: 2, layer: 1 });
    expect(() => again.finish()).toThrow(/the id 2 was used before/);
  });

  it("100 000 rows are checked on the way", () => {
    const draft = draftEdit(newDrawing("mm"), "Many", "many");
    for (let i = 0; i < 100_000; i++) draft.add({ kind: "circle", centre: at(i, 0), radius: 1 }, 1);
    expect(unsoundEdit(draft.finish())).toBeUndefined();
  });
});

describe("a short line whose ends a gap could close", () => {
  it.each([
    [[[0, 0, 2, 0]]],
    [
      [
        [0, 0, 2, 0],
        [2, 0, 0, 0],
      ],
    ],
  ] as readonly (readonly [readonly number[][]])[])("%j makes no contour of itself", (lines) => {
    const draft = draftEdit(newDrawing("mm"), "Lines", "line");
    for (const [x, y, u, v] of lines) draft.add({ kind: "piece", a: at(x!, y!), b: at(u!, v!), bulge: 0 } as Shape, 1);
    const drawing = applyEdit(newDrawing("mm"), draft.finish());
    expect(joinPieces(drawing, undefined, 3)).toMatchObject({ refusal: { code: "already-joined" } });
  });
});
