import { describe, expect, it } from "vitest";
import fc from "fast-check";
import {
  applyEdit,
  annotationsOf,
  drawingFromRows,
  drawingText,
  entitiesOf,
  FIRST_STYLE,
  layersOf,
  newDrawing,
  PROFILE_LAYER,
  styleOf,
  type Ref,
} from "../../drawing/index.ts";
import { addAnnotations, displayList, setAnnotationStyle } from "../../annotate/index.ts";
import { draftEdit } from "../../edits/index.ts";
import { sayRefusal } from "../../say/say.ts";
import { readJobFile, writeJobFile } from "./index.ts";

const head = { number: "1", name: "a", customer: "", material: "", thickness: "", quantity: 1, due: "" };

/** A job with two circles, a chain, a callout, dimensions and a note with a style of their own. */
const sound = () => {
  const drawing = newDrawing("mm", [{ kind: "diameter", value: 60, name: "bore" }]);
  const draft = draftEdit(drawing, "Draw", "draw");
  const first = draft.add({ kind: "circle", centre: { x: 0, y: 0 }, radius: 30 }, PROFILE_LAYER);
  const second = draft.add({ kind: "circle", centre: { x: 99, y: 0 }, radius: 5 }, PROFILE_LAYER);
  const corner = (x: number, y: number) => ({ id: draft.newId(), at: { x, y }, bulge: 0 });
  draft.add({ kind: "chain", closed: true, vertices: [corner(0, 0), corner(9, 0), corner(0, 9)] }, PROFILE_LAYER);
  const drawn = applyEdit(drawing, draft.finish());
  const centre = (id: number): Ref => ({ id, place: "centre" });
  const edit = addAnnotations(
    drawn,
    [
      { kind: "linear", refs: [centre(first), centre(second)], at: { x: 0, y: 40 }, angle: 0, flipped: true },
      { kind: "diameter", refs: [{ id: second }], at: { x: 9, y: 9 }, callout: 6 },
      { kind: "note", refs: [{ id: first, place: { along: 0.3 } }], at: { x: 9, y: 9 }, text: "ream", bare: true },
      { kind: "thread mark", refs: [{ id: second }], at: { x: 0, y: 0 }, size: 12 },
    ],
    "Dimension",
    "dimension",
  );
  if (!edit.ok) throw new Error(edit.refusal.code);
  const dimensioned = applyEdit(drawn, edit.value);
  return applyEdit(dimensioned, setAnnotationStyle(dimensioned, { ...FIRST_STYLE, height: 5, sheet: 2 }));
};
// eslint-disable-next-line @typescript-eslint/no-explicit-any -- what is crafted has no type
type Crafted = any;
const crafted = (change: (file: Crafted) => void): string => {
  const file = JSON.parse(writeJobFile(head, sound(), [])) as Crafted;
  file.drawing.entity = file.drawing.entity.filter((row: Crafted) => row.kind !== "endless");
  change(file);
  return JSON.stringify(file);
};
const spline = (degree: number, points: number, more: object = {}) => ({
  id: 900,
  layer: 1,
  kind: "free",
  degree,
  knots: Array.from({ length: points + degree + 1 }, (_, i) => i),
  points: Array.from({ length: points }, (_, i) => ({ x: i, y: i * i })),
  ...more,
});

const RUNS = process.env.HARNESS === "full" ? 20_000 : 1000;

const UNSOUND: readonly (readonly [string, (file: Crafted) => void, RegExp])[] = [
  ["two circles of one number", (f) => (f.drawing.entity[1].id = f.drawing.entity[0].id), /both bear the number/],
  [
    "a vertex that bears a circle's number",
    (f) => (f.drawing.entity[2].vertices[0].id = f.drawing.entity[0].id),
    /both bear/,
  ],
  ["a layer that is not there", (f) => (f.drawing.entity[0].layer = 77), /lies on the layer 77, which is not there/],
  ["a circle without a size", (f) => (f.drawing.entity[0].radius = 0), /entity 1 of 3: radius is not above 0/],
  ["a number that is none", (f) => (f.drawing.entity[0].radius = null), /radius is not a number/],
  ["a place beyond all sheets", (f) => (f.drawing.entity[0].centre.x = 1e300), /reaches further out/],
  ["a kind that is not known", (f) => (f.drawing.entity[0].kind = "blob"), /kind blob is unknown/],
  ["a spline of degree 25 with 2 points", (f) => f.drawing.entity.push(spline(25, 2)), /degree/],
  ["a spline with a knot too few", (f) => f.drawing.entity.push(spline(3, 5, { knots: [0, 1, 2] })), /knots/],
  ["knots that fall", (f) => f.drawing.entity.push(spline(2, 3, { knots: [0, 0, 5, 4, 6, 7] })), /don't rise/],
  ["a spline without length", (f) => f.drawing.entity.push(spline(2, 3, { knots: [0, 0, 0, 0, 0, 0] })), /no length/],
  ["no settings", (f) => (f.drawing.settings = []), /no settings/],
  ["no layers", (f) => (f.drawing.layer = []), /no layers/],
  ["rows that are no list", (f) => (f.drawing.entity = { length: 1e9 }), /entity rows are no list/],
  ["a table that is not known", (f) => (f.drawing.secret = []), /secret/],
  ["a next number that is none", (f) => (f.nextId = 1.5), /nextId/],
  ["a newer version", (f) => (f.version = 99), /newer version/],
  ["a chain of one vertex", (f) => (f.drawing.entity[2].vertices.length = 1), /entity 3 of 3/],
  [
    "a prototype in place of a row",
    (f) => (f.drawing.entity[0] = JSON.parse('{"__proto__":{"kind":"circle"}}')),
    /entity 1/,
  ],
];
const CRAFTED = UNSOUND.length + 2;

describe("job files without sense", () => {
  it.each(UNSOUND)("%s: refused in a sentence that names it", (_, change, words) => {
    const read = readJobFile(crafted(change));
    expect(read.ok ? "taken" : sayRefusal(read.refusal, "mm")).toMatch(words);
  });

  it("a next number that is too low is put right and told: what is drawn next replaces nothing", () => {
    const read = readJobFile(crafted((file) => (file.nextId = 2)));
    if (!read.ok) throw new Error(read.refusal.code);
    expect(read.value.mended.join()).toMatch(/next free number/);
    const drawing = drawingFromRows(read.value.drawing as never, read.value.nextId);
    const draft = draftEdit(drawing, "Draw", "draw");
    draft.add({ kind: "circle", centre: { x: 0, y: 0 }, radius: 1 }, PROFILE_LAYER);
    expect([...entitiesOf(applyEdit(drawing, draft.finish()))]).toHaveLength(4);
  });

  it("dimensions that point at nothing are lost, and told", () => {
    const read = readJobFile(
      crafted((file) => {
        file.drawing.annotation[0].refs[0].id = 4242;
      }),
    );
    if (!read.ok) throw new Error(read.refusal.code);
    expect(read.value.mended).toEqual(["1 dimension pointed at what is not there: lost."]);
    const drawing = drawingFromRows(read.value.drawing as never, read.value.nextId);
    expect(displayList(drawing, styleOf(drawing), 1).map(({ standing }) => standing)[0]).toBe("lost");
  });

  it("callouts that point at nothing are let go of, layer names are cleaned and kept apart; both are told", () => {
    const read = readJobFile(
      crafted((file) => {
        file.drawing.callout[0].links = [{ id: 4242 }];
        file.drawing.layer[0].name = "A\n0\nCIRCLE\u001b[31m";
        file.drawing.layer[1].name = "A 0 CIRCLE [31m";
      }),
    );
    if (!read.ok) throw new Error(read.refusal.code);
    expect(read.value.mended).toEqual([
      "1 callout pointed at what is not there: not placed any more.",
      "2 layer names were cleaned.",
    ]);
    const drawing = drawingFromRows(read.value.drawing as never, read.value.nextId);
    expect(layersOf(drawing).map(({ name }) => name)).toEqual(["A 0 CIRCLE [31m", "A 0 CIRCLE [31m 2", "Marks"]);
  });

  it("any value put anywhere is refused in words or opens as what can be written again; never a throw", () => {
    const whole = JSON.parse(crafted(() => undefined)) as Crafted;
    const places: (readonly string[])[] = [];
    const walk = (value: Crafted, path: readonly string[]): void => {
      places.push(path);
      if (typeof value === "object" && value !== null)
        for (const name of Object.keys(value)) walk(value[name], [...path, name]);
    };
    walk(whole, []);
    const odd = fc.oneof(
      fc.constantFrom(null, -1, 0, 1, 1.5, 1e308, -1e308, 2 ** 53, "", "circle", "\u0000", [], {}, true, [[]], {
        id: 1,
      }),
      fc.jsonValue({ maxDepth: 2 }),
    );
    fc.assert(
      fc.property(fc.constantFrom(...places.slice(1)), odd, (path, value) => {
        const file = structuredClone(whole) as Crafted;
        let at = file;
        for (const name of path.slice(0, -1)) at = at[name];
        at[path.at(-1)!] = value;
        const read = readJobFile(JSON.stringify(file));
        if (!read.ok) return void expect(sayRefusal(read.refusal, "mm").length).toBeGreaterThan(10);
        const { drawing, nextId, sketches } = read.value;
        const opened = drawingFromRows(drawing as never, nextId);
        const again = readJobFile(writeJobFile(read.value.head, opened, sketches));
        if (!again.ok) throw new Error(sayRefusal(again.refusal, "mm"));
        expect(again.value.mended).toEqual([]);
        // what is opened is drawn, whatever its dimensions hold
        expect(displayList(opened, styleOf(opened), 1)).toHaveLength(annotationsOf(opened).length);
        expect(drawingText(drawingFromRows(again.value.drawing as never, again.value.nextId))).toBe(
          drawingText(opened),
        );
      }),
      { numRuns: RUNS },
    );
    console.info(
      `crafted files: ${CRAFTED} by hand and ${RUNS} with any value put anywhere, all read, mended or refused in words`,
    );
  });
});
