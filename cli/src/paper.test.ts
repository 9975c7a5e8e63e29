import { execFileSync } from "node:child_process";
import { existsSync, readdirSync, readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import DxfParser from "dxf-parser";
import { afterEach, describe, expect, it, vi } from "vitest";
import { applyEdit, calloutsOf, newDrawing, PROFILE_LAYER, type NewCallout } from "@ash-edge/core/drawing";
import { draftEdit } from "@ash-edge/core/edits";
import { writeJobFile } from "@ash-edge/core/formats/job";
import { PLAIN_PROFILE, writeProfileFile } from "@ash-edge/core/release";
import type { Unit } from "@ash-edge/core/numeric";
import { folder, run } from "./testing/calls.ts";

afterEach(() => void vi.restoreAllMocks());

const HEAD = {
  number: "0912",
  name: "Cover plate",
  customer: "Fernhollow mill",
  material: "slate",
  quantity: 3,
  due: "",
};
const CALLOUTS: readonly NewCallout[] = [{ kind: "diameter", value: 40, name: "bore" }];

/** A plate of w by h with a round hole in its middle, whose callout is placed, and a dimension of its lower edge. */
const job = (w: number, h: number, unit: Unit = "mm", callouts = CALLOUTS): string => {
  const start = newDrawing(unit, callouts);
  const draft = draftEdit(start, "Draw", "draw");
  const vertices = (
    [
      [0, 0],
      [w, 0],
      [w, h],
      [0, h],
    ] as const
  ).map(([x, y]) => ({ id: draft.newId(), at: { x, y }, bulge: 0 }));
  const plate = draft.add({ kind: "chain", closed: true, vertices }, PROFILE_LAYER);
  const hole = draft.add(
    { kind: "circle", centre: { x: w / 2, y: h / 2 }, radius: Math.min(20, h / 3) },
    PROFILE_LAYER,
  );
  const id = draft.newId();
  draft.set("annotation", id, {
    id,
    kind: "linear",
    refs: [{ id: plate, vertex: vertices[0]!.id }],
    at: { x: 0, y: unit === "mm" ? -12 : -0.5 },
  });
  for (const { id: callout, kind } of calloutsOf(start)) if (kind === "diameter") draft.link(callout, [{ id: hole }]);
  const path = join(folder(), "plate.ashedge.json");
  writeFileSync(path, writeJobFile({ ...HEAD, thickness: "20" }, applyEdit(start, draft.finish()), []));
  return path;
};

/** A page as grey values, from poppler at 300 dots to the inch. */
const raster = (pdf: string, page = 1): { dark: (x: number, y: number) => boolean; width: number; height: number } => {
  const data = execFileSync("pdftoppm", ["-r", "300", "-gray", "-f", String(page), "-l", String(page), pdf], {
    maxBuffer: 1e9,
  });
  const [head, width, height] = /^P5\s+(\d+)\s+(\d+)\s+255\s/.exec(data.subarray(0, 40).toString("latin1"))!;
  const [w, h, start] = [Number(width), Number(height), head!.length];
  return { width: w, height: h, dark: (x, y) => data[start + Math.round(y) * w + Math.round(x)]! < 128 };
};
const MM = 300 / 25.4;

/** The middles of the dark stretches along a row, mm from the left; or along a column, mm from the top. */
const lines = (page: ReturnType<typeof raster>, at: number, along: "row" | "column"): readonly number[] => {
  const found: number[] = [];
  let from = -1;
  const length = along === "row" ? page.width : page.height;
  for (let k = 0; k <= length; k++) {
    const dark = k < length && (along === "row" ? page.dark(k, at * MM) : page.dark(at * MM, k));
    if (dark && from < 0) from = k;
    if (!dark && from >= 0) {
      found.push((from + k) / 2 / MM);
      from = -1;
    }
  }
  return found;
};
const hasPair = (found: readonly number[], apart: number, within: number): boolean =>
  found.some((p, i) => found.slice(i + 1).some((q) => Math.abs(q - p - apart) <= within));

const words = (pdf: string): string => execFileSync("pdftotext", ["-layout", pdf, "-"]).toString();

describe("ash-edge sheet", () => {
  it("100 mm are 100 mm on paper, texts are texts, and the font is embedded: by poppler", async () => {
    const out = join(folder(), "sheet.pdf");
    expect(await run("sheet", job(100, 60), "-o", out, "--scale", "1:1")).toMatchObject({ code: 0, err: "" });
    const page = raster(out);
    expect([page.width, page.height]).toEqual([Math.round(420 * MM), Math.round(297 * MM)]);
    // somewhere the two edges of the plate stand 100 apart along a row, and 60 along a column; a bore of 40
    const rows = Array.from({ length: 140 }, (_, i) => 2 * i + 8).map((y) => lines(page, y, "row"));
    const columns = Array.from({ length: 200 }, (_, i) => 2 * i + 8).map((x) => lines(page, x, "column"));
    expect(rows.filter((found) => hasPair(found, 100, 0.1)).length).toBeGreaterThan(20);
    expect(columns.filter((found) => hasPair(found, 60, 0.1)).length).toBeGreaterThan(40);
    expect(rows.some((found) => hasPair(found, 40, 0.1))).toBe(true);
    expect(columns.some((found) => hasPair(found, 40, 0.1))).toBe(true);
    const text = words(out);
    for (const word of [
      "Cover plate",
      "0912",
      "Fernhollow mill",
      "slate",
      "1 : 1",
      "Ø 40 bore",
      "true",
      "1 of 1",
      "100",
    ])
      expect(text).toContain(word);
    const fonts = execFileSync("pdffonts", [out]).toString();
    // one font, and that is embedded with what its codes mean
    expect(fonts.trim().split("\n").slice(2)).toEqual([
      expect.stringMatching(/CID TrueType\s+Identity-H\s+yes \w+ +yes/),
    ]);
  });

  it("a scale that does not fit is refused with one that does; inches come out in true size", async () => {
    const out = join(folder(), "sheet.pdf");
    const large = await run("sheet", job(900, 500), "-o", out, "--scale", "1:1");
    expect(large).toMatchObject({ code: 2, out: "" });
    expect(large.err).toContain("At 1 : 1 the drawing does not fit on A3. At 1 : 5 it does; or take a larger sheet.");
    expect(existsSync(out)).toBe(false);
    expect(await run("sheet", job(900, 500), "-o", out)).toMatchObject({ code: 0 });
    expect(words(out)).toContain("1 : 5");
    const inches = job(8, 4, "in", []);
    expect((await run("sheet", inches, "-o", out, "--scale", "1:1", "--paper", "ANSI C")).code).toBe(0);
    const page = raster(out);
    const rows = Array.from({ length: 180 }, (_, i) => 2 * i + 8).map((y) => lines(page, y, "row"));
    expect(rows.some((found) => hasPair(found, 203.2, 0.1))).toBe(true);
  });

  it("what no machine cuts yet stands on paper all the same: ellipses, open runs, points", async () => {
    const start = newDrawing("mm");
    const draft = draftEdit(start, "Draw", "draw");
    const centre = { x: 60, y: 40 };
    draft.add(
      { kind: "ellipse", centre, major: { x: 45, y: 0 }, ratio: 0.5, from: 0, sweep: 2 * Math.PI },
      PROFILE_LAYER,
    );
    draft.add({ kind: "piece", a: { x: 0, y: 0 }, b: { x: 120, y: 0 }, bulge: 0 }, PROFILE_LAYER);
    draft.add({ kind: "point", at: { x: 60, y: 90 } }, PROFILE_LAYER);
    const path = join(folder(), "odd.ashedge.json");
    writeFileSync(path, writeJobFile({ ...HEAD, thickness: "" }, applyEdit(start, draft.finish()), []));
    const out = join(folder(), "odd.pdf");
    for (const more of [["--template"], ["--scale", "1:1"]]) {
      expect((await run("sheet", path, "-o", out, ...more)).code).toBe(0);
      const page = raster(out);
      const across = (along: "row" | "column", apart: number): boolean =>
        Array.from({ length: 800 }, (_, i) => i / 2 + 1)
          .filter((at) => at < (along === "row" ? page.height : page.width) / MM - 1)
          .some((at) => hasPair(lines(page, at, along), apart, 0.1));
      expect([across("row", 90), across("column", 45)]).toEqual([true, true]);
      // the point's cross lies 90 over the line
      expect(across("column", 90)).toBe(true);
    }
  });

  it("more callouts than find room go on to further pages, none is left out", async () => {
    const many = Array.from({ length: 160 }, (_, i): NewCallout => ({
      kind: "length",
      value: i + 1,
      name: `size ${i + 1}.`,
    }));
    const out = join(folder(), "sheet.pdf");
    expect((await run("sheet", job(100, 60, "mm", many), "-o", out)).code).toBe(0);
    const text = words(out);
    for (let i = 1; i <= 160; i++) expect(text).toContain(`size ${i}.`);
    expect(text).toContain("2 of 2");
  });

  it("questions for the customer stand on pages of their own, numbered, each with a line for its answer", async () => {
    const out = join(folder(), "sheet.pdf");
    const open = Array.from({ length: 12 }, (_, k) => ({ kind: "length", value: 7, name: `slope ${k}` }) as const);
    // of a plate that nothing calls but its bore: two sizes and where the bore lies
    expect(await run("sheet", job(100, 60, "mm", CALLOUTS), "-o", out, "--questions")).toMatchObject({ code: 0 });
    const text = words(out);
    expect(text).toContain("Questions for the customer");
    expect(text).toMatch(/1\s+What is the .*\? It is drawn as/);
    expect(text).toContain("2 of 2");
    // none of it where none is asked for
    await run("sheet", job(100, 60, "mm", open), "-o", out);
    expect(words(out)).not.toContain("Questions");
  });

  it("a template lies over pages in true size, each with a bar of 100 mm", async () => {
    const out = join(folder(), "template.pdf");
    const { code, out: said } = await run("sheet", job(500, 300), "-o", out, "--template", "--paper", "A4");
    // 267 of each page's 277 mm, and 168 of 178, are new: 2 columns, 2 rows
    expect([code, said]).toEqual([0, `${out}, 4 pages\n`]);
    const text = words(out);
    for (const place of ["row 1 of 2, column 1 of 2", "row 2 of 2, column 2 of 2"]) expect(text).toContain(place);
    let [left, right] = [NaN, NaN];
    for (let n = 1; n <= 4; n++) {
      const page = raster(out, n);
      const bar = lines(page, 210 - 13 - 1.5, "row");
      expect(hasPair(bar, 100, 0.1), String(n)).toBe(true);
      const middle = lines(page, 60, "row");
      if (n === 1) left = middle.find((x) => x > 10 && x < 20)!;
      if (n === 2) right = middle.findLast((x) => x > 50)!;
    }
    // the plate's edges on the two pages of a row: 267 apart from page to page
    expect(right + 267 - left).toBeCloseTo(500, 0);
    expect(Math.abs(right + 267 - left - 500)).toBeLessThan(0.1);
    const all = await run("sheet", job(9000, 3000), "-o", out, "--template", "--paper", "A4");
    expect(all.err).toContain("pages; up to 100 are made");
  });

  it("what is no job, nothing drawn and bad arguments are refused in a line", async () => {
    const out = join(folder(), "sheet.pdf");
    const empty = join(folder(), "empty.ashedge.json");
    writeFileSync(empty, writeJobFile({ ...HEAD, thickness: "" }, newDrawing("mm"), []));
    const good = job(100, 60);
    for (const [call, says] of [
      [[empty, "-o", out], "Nothing is drawn that could stand on paper."],
      [["part.dxf", "-o", out], "a saved job is wanted"],
      [[good, "-o", "sheet.png"], "a sheet is a file ending in .pdf"],
      [[good, "-o", out, "--scale", "1:0"], "--scale takes a number above 0"],
      [[good, "-o", out, "--scale", "2"], "--scale takes a scale such as 1:2"],
      [[good, "-o", out, "--paper", "B4"], "--paper takes A4 or A3"],
      [[good, "-o", out, "--json"], "--json is no option of sheet"],
      [[good, "-o", "-"], "writes a file of its own"],
      [[good], "sheet needs -o"],
    ] as const) {
      const { code, err } = await run("sheet", ...call);
      expect([code, err.trim().split("\n").length]).toEqual([2, 1]);
      expect(err).toContain(says);
    }
    expect(existsSync(out)).toBe(false);
  });
});

describe("ash-edge release", () => {
  it("writes a job by a machine's profile under a free name, or says why not and writes nothing", async () => {
    const into = join(folder(), "made");
    const plain = await run("release", job(100, 60), "-o", into);
    expect(plain).toMatchObject({ code: 0, err: "" });
    expect(plain.out).toContain("read back and the same");
    const profile = join(folder(), "our.profile.json");
    writeFileSync(
      profile,
      writeProfileFile({ ...PLAIN_PROFILE, name: "Ours", format: "R12", unit: "in", chains: "loose" }),
    );
    const { code, out } = await run("release", job(100, 60), "--profile", profile, "-o", into, "--json");
    expect(code).toBe(0);
    const told = JSON.parse(out) as {
      file: string;
      profile: string;
      layers: { layer: string; read: { length: number } }[];
    };
    expect(readdirSync(into).sort()).toEqual(["0912-cover-plate-r1.dxf", "0912-cover-plate-r2.dxf"]);
    expect([told.file, told.profile]).toEqual([join(into, "0912-cover-plate-r2.dxf"), "Ours"]);
    // 320 mm round, 1 in = 25.4 mm (ISO 80000-3)
    expect(told.layers.find(({ layer }) => layer === "OUTSIDE")!.read.length).toBeCloseTo(320 / 25.4, 9);
    const read = new DxfParser().parseSync(readFileSync(told.file, "utf8"))!;
    expect(read.entities.map(({ type }) => type).sort()).toEqual(["CIRCLE", "LINE", "LINE", "LINE", "LINE"]);

    const open = job(100, 60);
    const text = readFileSync(open, "utf8");
    writeFileSync(open, text.replace(/"closed":\s*true/, '"closed":false'));
    const stood = await run("release", open, "-o", into);
    expect(stood.code).toBe(1);
    expect(stood.out).toMatch(/error open: .*\n(.*\n)*Not ready to cut\nnothing was written\n/);
    writeFileSync(profile, "{}");
    const broken = await run("release", job(100, 60), "--profile", profile, "-o", into);
    expect([broken.code, broken.err]).toEqual([2, expect.stringContaining("This is no machine profile.")]);
    expect(readdirSync(into)).toHaveLength(2);
  });
});
