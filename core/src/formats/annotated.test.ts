import { Helper } from "dxf";
import DxfParser from "dxf-parser";
import { describe, expect, it } from "vitest";
import { addAnnotations, displayOf, measureAnnotation, type NewAnnotation } from "../annotate/index.ts";
import { annotationsOf, FIRST_STYLE, layerOf, newDrawing, PROFILE_LAYER, type Drawing } from "../drawing/index.ts";
import { DATUM } from "../drawing/ref.ts";
import { applyEdit } from "../drawing/edit.ts";
import { draftEdit } from "../edits/index.ts";
import { writeForPeople, type PeopleFormat } from "./annotated.ts";
import { readDxf } from "./dxf/index.ts";
import { importReport, openDrawing } from "./openDrawing.ts";
import { planRelease } from "../checks/index.ts";
import { writeDxf } from "./dxf/writeDxf.ts";

/** A plate 120 by 60 with a hole Ø 14 and an arc, with one annotation of each kind. */
const plate = (): Drawing => {
  const start = newDrawing("mm");
  const draft = draftEdit(start, "Draw", "draw");
  const side = (ax: number, ay: number, bx: number, by: number): number =>
    draft.add({ kind: "piece", a: { x: ax, y: ay }, b: { x: bx, y: by }, bulge: 0 }, PROFILE_LAYER);
  const bottom = side(0, 0, 120, 0);
  const slope = side(120, 0, 90, 60);
  side(90, 60, 0, 60);
  side(0, 60, 0, 0);
  const hole = draft.add({ kind: "circle", centre: { x: 40, y: 30 }, radius: 7 }, PROFILE_LAYER);
  const arc = draft.add({ kind: "piece", a: { x: 60, y: 20 }, b: { x: 80, y: 20 }, bulge: 1 }, PROFILE_LAYER);
  const drawing = applyEdit(start, draft.finish());
  const at = { x: 0, y: 0 };
  const all: readonly NewAnnotation[] = [
    { kind: "linear", refs: [{ id: slope }], at: { x: 0, y: 12 } },
    { kind: "linear", refs: [{ id: slope }], at: { x: 0, y: 20 }, angle: Math.PI / 2 },
    { kind: "radius", refs: [{ id: arc }], at: { x: 5, y: -20 } },
    { kind: "diameter", refs: [{ id: hole }], at: { x: 20, y: 10 } },
    { kind: "angle", refs: [{ id: bottom }, { id: slope }], at: { x: -20, y: 8 } },
    { kind: "ordinate", refs: [DATUM, { id: hole, place: "centre" }], at: { x: 0, y: 40 } },
    { kind: "arc length", refs: [{ id: arc }], at: { x: 0, y: -16 } },
    { kind: "note", refs: [{ id: slope }], at: { x: 30, y: 4 }, text: "2 × R 1 ± 0.1°\n<ä & б>" },
    { kind: "centre mark", refs: [{ id: hole }], at },
    { kind: "thread mark", refs: [{ id: hole }], at, size: 16 },
  ];
  const edit = addAnnotations(drawing, all, "Dimension", "dimension");
  if (!edit.ok) throw new Error(edit.refusal.code);
  return applyEdit(drawing, edit.value);
};
const written = (format: PeopleFormat): string => {
  const text = writeForPeople(plate(), format);
  if (!text.ok) throw new Error(text.refusal.code);
  return text.value;
};

type Parsed = {
  readonly type: string;
  readonly layer: string;
  readonly block?: string;
  readonly actualMeasurement?: number;
  readonly dimensionType?: number;
  readonly text?: string;
};

describe("a drawing with its dimensions, for people", () => {
  it("has a DIMENSION with its block for each that the format knows, by dxf-parser and dxf", () => {
    const text = written("R2000");
    const found = new DxfParser().parseSync(text)!;
    const dimensions = (found.entities as unknown as Parsed[]).filter(({ type }) => type === "DIMENSION");
    expect(dimensions.map(({ layer }) => layer)).toEqual(dimensions.map(() => "DIMENSIONS"));
    // 30 by 60: √4500 long, at 180° - atan2(60, 30) to the bottom edge
    expect(dimensions.map(({ actualMeasurement }) => actualMeasurement)).toEqual(
      [Math.hypot(30, 60), 60, 10, 14, Math.atan2(60, 30), 40].map((one) => expect.closeTo(one, 12) as unknown),
    );
    // aligned, rotated, radius, diameter, angle of two lines, ordinate of x; 32: with a block of its own
    expect(dimensions.map(({ dimensionType }) => dimensionType)).toEqual([33, 32, 36, 35, 34, 102]);
    const blocks = found.blocks as unknown as Record<string, { entities?: readonly Parsed[] }>;
    for (const { block } of dimensions) {
      const types = blocks[block!]!.entities!.map(({ type }) => type);
      expect(types).toContain("TEXT");
      expect(types.some((type) => type === "LINE" || type === "ARC")).toBe(true);
    }
    expect(dimensions.map((one) => one.text)).toEqual(dimensions.map(() => "<>"));
    const other = new Helper(text).parsed as unknown as {
      entities: readonly { type: string; dimensionType?: number }[];
      blocks: readonly { name: string }[];
    };
    expect(other.entities.filter(({ type }) => type === "DIMENSION")).toHaveLength(6);
    expect(other.blocks.filter(({ name }) => name.startsWith("*D"))).toHaveLength(6);
  });

  it("is read in again: each dimension on what it measured, with the same number, at the same place", () => {
    for (const round of [1, 10]) {
      const text = round === 1 ? written("R2000") : written("R2000").replace("$INSUNITS\n 70\n4", "$INSUNITS\n 70\n5");
      const read = readDxf(new TextEncoder().encode(text));
      if (!read.ok) throw new Error(read.refusal.code);
      const opened = openDrawing(read.value, "mm");
      const [was, is] = [plate(), opened].map((drawing) =>
        annotationsOf(drawing).map((one) => [
          one.kind,
          measureAnnotation(drawing, one)?.most,
          displayOf(drawing, one, { ...FIRST_STYLE }, round).drawn.find(({ kind }) => kind === "text"),
        ]),
      );
      expect(is!.map(([kind]) => kind)).toEqual(was!.slice(0, 6).map(([kind]) => kind));
      is!.forEach(([kind, measures], i) =>
        expect(measures).toBeCloseTo((was![i]![1] as number) * (kind === "angle" ? 1 : round), 6),
      );
      expect(importReport(read.value)).toContain("6 dimensions on what they measure.");
    }
    // moved off, they lie on nothing: left out, and said
    const off = written("R2000").replaceAll("AcDbLine\n 10\n", "AcDbLine\n 10\n9");
    const read = readDxf(new TextEncoder().encode(off));
    if (!read.ok) throw new Error(read.refusal.code);
    expect(importReport(read.value).join(" ")).toMatch(/Left out: \d dimensions? whose points lie on nothing/);
  });

  it("is plain lines and letters in the oldest version, and our own reader finds the same geometry in both", () => {
    const old = new DxfParser().parseSync(written("R12"))!.entities as unknown as Parsed[];
    expect(old.some(({ type }) => type === "DIMENSION")).toBe(false);
    expect(old.filter(({ type }) => type === "TEXT").map(({ text }) => text)).toEqual(
      expect.arrayContaining(["60", "R 10", "%%c 14", "40", "2 \\U+00D7 R 1 %%p 0.1%%d", "<\\U+00E4 & \\U+0431>"]),
    );
    for (const format of ["R2000", "R12"] as const) {
      const read = readDxf(new TextEncoder().encode(written(format)));
      if (!read.ok) throw new Error(read.refusal.code);
      expect(read.value.shapes.filter(({ layer }) => layer === "Profile")).toHaveLength(6);
      expect(read.value.degenerate).toEqual([]);
    }
  });

  it("has what lies on hidden layers, as the machine's file has: what is cut is never missing", () => {
    const start = plate();
    const draft = draftEdit(start, "Hide", "layers");
    draft.set("layer", PROFILE_LAYER, { ...layerOf(start, PROFILE_LAYER)!, shown: false });
    const text = writeForPeople(applyEdit(start, draft.finish()), "R2000");
    if (!text.ok) throw new Error(text.refusal.code);
    const read = readDxf(new TextEncoder().encode(text.value));
    expect(read.ok && read.value.shapes.filter(({ layer }) => layer === "Profile")).toHaveLength(6);
  });

  it("is never in the machine's file", () => {
    const { contours, unit, layers } = planRelease(plate());
    const text = writeDxf(contours, unit, "R2000", layers);
    expect(text).not.toMatch(/DIMENSION|TEXT|%%c/);
    expect(contours.map(({ kind }) => kind)).toEqual(["circle"]);
  });

  it("is SVG with its letters as letters, whatever they are", () => {
    const text = written("SVG");
    expect(text.match(/<text /g)).toHaveLength(9);
    expect(text).toContain(">&lt;ä &amp; б&gt;</text>");
    expect(text).toContain(">Ø 14</text>");
  });
});
