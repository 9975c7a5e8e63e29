import { spawn } from "node:child_process";
import { mkdtempSync, readdirSync, readFileSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterEach, describe, expect, it, vi } from "vitest";
import { writeDxf, writeShapes } from "@ash-edge/core/formats/dxf";
import { randomFrom } from "../../core/src/testing/contours.ts";
import { measuredPoints, TRACED_SHAPES } from "../../core/src/testing/tracings.ts";
import { file, run } from "./testing/calls.ts";

afterEach(() => void vi.restoreAllMocks());

describe("ash-edge", () => {
  it("inspects a disc: area π r² and length 2 π r, ready, exit 0", async () => {
    const { code, out, err } = await run(
      "inspect",
      file(writeDxf([{ kind: "circle", layer: "OUTSIDE", centre: { x: 0, y: 0 }, radius: 50 }], "mm")),
      "--json",
    );
    const report = JSON.parse(out);
    expect([code, err, report.units, report.ready]).toEqual([0, "", "mm", true]);
    expect(report.contours).toMatchObject([
      { closed: true, role: "outside", circle: true, layer: "OUTSIDE", bounds: [-50, -50, 50, 50] },
    ]);
    expect(report.contours[0].area).toBeCloseTo(7853.981633974483, 10);
    expect(report.contours[0].length).toBeCloseTo(314.1592653589793, 11);
  });

  const circleGroups = (x: number, ...more: readonly (string | number)[]): string =>
    ["0", "CIRCLE", "8", "cut", "10", x, "20", "0", "40", "5", ...more, ""].join("\n");
  it.each([
    ["a hole askew in space", circleGroups(30, 210, 0.5, 230, 0.8), ["error left-out"], false],
    ["a kind that is not known", "0\nMLINE\n8\ncut\n", ["error left-out"], false],
    ["an ellipse", "0\nELLIPSE\n8\ncut\n10\n40\n20\n0\n11\n5\n21\n0\n40\n0.5\n", ["error not-arcs"], false],
    ["a circle marked invisible", circleGroups(30, 60, 1), ["info invisible"], true],
    ["a circle on a sheet of paper", circleGroups(30, 67, 1), ["info stray"], true],
    ["a hatch and a dimension", "0\nHATCH\n0\nDIMENSION\n", ["info stray", "info stray"], true],
  ])(
    "tidies a disc with %s: said, not in the file, and ready only where nothing that is cut is missing",
    async (_, more, found, ready) => {
      const input = file(`0\nSECTION\n2\nENTITIES\n${circleGroups(0)}${more}0\nENDSEC\n0\nEOF\n`);
      const output = file("", "out.dxf");
      const { code, out } = await run("tidy", input, "-o", output, "--units", "mm", "--json");
      const report = JSON.parse(out);
      expect(report.findings.map((one: { severity: string; code: string }) => `${one.severity} ${one.code}`)).toEqual(
        found,
      );
      expect([code, report.ready]).toEqual([ready ? 0 : 1, ready]);
      expect(readFileSync(output, "utf8").match(/\nCIRCLE\n/g)).toHaveLength(1);
    },
  );

  it("puts the roles of whatever closes, loose lines too, and gives no two files of a folder one name", async () => {
    const box = (x: number, y: number, w: number): string =>
      [
        [x, y, x + w, y],
        [x + w, y + w, x + w, y],
        [x + w, y + w, x, y + w],
        [x, y, x, y + w],
      ]
        .map(([a, b, c, d]) => ["0", "LINE", "8", "0", "10", a, "20", b, "11", c, "21", d, ""].join("\n"))
        .join("");
    const hole = circleGroups(50).replace("\n20\n0\n", "\n20\n50\n");
    const shapes = box(0, 0, 100) + hole + box(10, 10, 5);
    const text = `0\nSECTION\n2\nENTITIES\n${shapes}0\nENDSEC\n0\nEOF\n`;
    const [one, other, folder] = [file(text), file(text, "PART.dxf"), mkdtempSync(join(tmpdir(), "ash-edge-"))];
    const { code } = await run("convert", one, other, "-o", folder, "--roles", "--units", "mm");
    expect(readdirSync(folder).sort()).toEqual(["PART-2.dxf", "part.dxf"]);
    const written = readFileSync(join(folder, "part.dxf"), "utf8").split("ENTITIES")[1]!;
    const layers = [...written.matchAll(/AcDbEntity\n +8\n(\S+)/g)].map(([, layer]) => layer);
    expect(layers.sort()).toEqual([...Array<string>(5).fill("INSIDE"), ...Array<string>(4).fill("OUTSIDE")]);
    expect(code).toBe(0);
  });

  it("goes on to its end where what reads its output stops, and says nothing of that", async () => {
    const discs = Array.from(
      { length: 3000 },
      (_, i) => ({ kind: "circle", layer: "0", centre: { x: 9 * i, y: 0 }, radius: 4 }) as const,
    );
    const [input, output] = [file(writeShapes(discs, "mm")), file("", "out.dxf")];
    const child = spawn(process.execPath, [
      join(import.meta.dirname, "../bin/ash-edge.mjs"),
      "tidy",
      input,
      "-o",
      output,
    ]);
    child.stdout.destroy();
    let err = "";
    child.stderr.on("data", (part) => void (err += String(part)));
    const code = await new Promise((resolve) => child.on("close", resolve));
    expect([code, err]).toEqual([0, ""]);
    expect(readFileSync(output, "utf8").match(/^CIRCLE$/gm)).toHaveLength(3000);
  });

  it("joins and tells duplicates whatever their line style: a dashed side of an outline, twice", async () => {
    const corners = [
      { x: 0, y: 0 },
      { x: 30, y: 0 },
      { x: 30, y: 20 },
      { x: 0, y: 20 },
    ];
    const sides = corners.map(
      (a, i) => ({ kind: "piece", layer: "0", a, b: corners[(i + 1) % 4]!, bulge: 0 }) as const,
    );
    const dashed = { ...sides[1]!, line: "DASHED" };
    for (const [drawn, found] of [
      [[sides[0]!, dashed, sides[2]!, sides[3]!], 0],
      [[...sides, dashed], 1],
    ] as const) {
      const { code, out } = await run("tidy", file(writeShapes(drawn, "mm")), "-o", file("", "out.dxf"), "--json");
      const { contours, findings } = JSON.parse(out);
      expect([code, contours.map(({ area }: { area: number }) => area), findings.length]).toEqual([0, [600], found]);
    }
  });

  it("names the file and the line of what can't be read, on one line, exit 2", async () => {
    const bad = file("  0\nSECTION\n  x\n");
    const { code, out, err } = await run("inspect", bad);
    expect([code, out]).toEqual([2, ""]);
    expect(err).toBe(`ash-edge: ${bad}: Line 3: “x” is no group code. This is no DXF, or it is damaged there.\n`);
  });

  it.each([
    [[]],
    [["inspect"]],
    [["inspect", "none.dxf"]],
    [["inspect", "part.txt"]],
    [["inspect", "a.dxf", "--units", "ft"]],
    [["inspect", "a.dxf", "--loud"]],
    [["inspect", "a.dxf", "--by", "2"]],
    [["offset", "a.dxf", "-o", "b.dxf", "--side", "out"]],
    [["offset", "a.dxf", "-o", "b.dxf", "--by", "2"]],
    ...["0", "-1", "nan", "1e999", ""].map((by) => [["offset", "a.dxf", "-o", "b.dxf", "--side", "in", "--by", by]]),
    [["offset", "a.dxf", "-o", "b.dxf", "--side", "in", "--by", "2", "--times", "1.5"]],
  ])("refuses %j with one line and exit 2", async (words) => {
    const { code, out, err } = await run(...words);
    expect([code, out]).toEqual([2, ""]);
    expect(err).toMatch(/^ash-edge: [^\n]+\n$/);
  });

  it("reports an open chain and exits 1", async () => {
    const line = "0\nSECTION\n2\nENTITIES\n0\nLINE\n8\n0\n10\n0\n20\n0\n11\n10\n21\n0\n0\nENDSEC\n0\nEOF\n";
    const { code, out } = await run("inspect", file(line), "--json");
    const report = JSON.parse(out);
    expect(code).toBe(1);
    expect(report.findings.map(({ code }: { code: string }) => code)).toEqual(["units", "open"]);
    expect(report.contours).toMatchObject([{ closed: false, role: "open", area: null, length: 10 }]);
  });
});

describe("ash-edge tidy and convert", () => {
  const square = (x: number, skip = 0): Parameters<typeof writeShapes>[0] =>
    [
      [0, 0],
      [20, 0],
      [20, 10],
      [0, 10],
    ].map(([u, v], i, all) => {
      const [p, q] = all[(i + 1) % 4]!;
      return {
        kind: "piece" as const,
        layer: "cut",
        a: { x: x + u!, y: v! },
        b: { x: x + p! - (i === 0 ? skip : 0), y: q! },
        bulge: 0,
      };
    });

  it("mends what is mended and writes it; twice changes nothing; exit 0", async () => {
    const input = file(writeShapes([...square(0, 0.03), ...square(0).slice(1, 3)], "mm"));
    const out = input.replace("part.dxf", "out.dxf");
    const { code, out: told, err } = await run("tidy", input, "-o", out, "--json", "--roles");
    const report = JSON.parse(told);
    expect([code, err]).toEqual([0, ""]);
    expect(
      report.findings.map(({ code, fixed }: { code: string; fixed: boolean }) => `${code} ${fixed}`).sort(),
    ).toEqual(["duplicate true", "duplicate true", "gap true"]);
    expect(report.contours).toMatchObject([{ closed: true, role: "outside", area: 200, lines: 4, layer: "OUTSIDE" }]);
    const again = join(out, "..", "again.dxf");
    expect((await run("tidy", out, "-o", again)).code).toBe(0);
    expect(readFileSync(again, "utf8")).toBe(readFileSync(out, "utf8"));
    expect(JSON.parse((await run("inspect", again, "--json")).out).findings).toEqual([]);
  });

  it("what lies twice on different layers is told once the layers are those of roles", async () => {
    const hole = (layer: string) => ({ kind: "circle", centre: { x: 10, y: 5 }, radius: 2, layer }) as const;
    const input = file(writeShapes([...square(0), hole("0"), hole("DRILL")], "mm"));
    const tidied = async (...more: string[]): Promise<[number, string[]]> => {
      const { code, out } = await run("tidy", input, "-o", `${input}.dxf`, "--json", ...more);
      const { findings } = JSON.parse(out) as { findings: { code: string; fixed: boolean }[] };
      return [code, findings.map((one) => `${one.code} ${one.fixed}`)];
    };
    expect(await tidied()).toEqual([0, []]);
    expect(await tidied("--roles")).toEqual([1, ["duplicate false"]]);
    expect(await tidied("--roles", "--ignore", "layer")).toEqual([0, ["duplicate true"]]);
    const { code, out } = await run("convert", input, "-o", `${input}.dxf`, "--json", "--roles");
    expect([
      code,
      JSON.parse(out).findings.filter(({ code }: { code: string }) => code === "duplicate").length,
    ]).toEqual([1, 1]);
  });

  it("shared edges as asked for; exit 1 while errors remain", async () => {
    const input = file(writeShapes([...square(0), ...square(20)], "mm"));
    const ends = async (shared: string): Promise<[number, number]> => {
      const { code, out } = await run("tidy", input, "-o", `${input}.dxf`, "--json", "--shared-edges", shared);
      return [code, JSON.parse(out).contours.filter(({ closed }: { closed: boolean }) => closed).length];
    };
    expect(await ends("merge")).toEqual([0, 1]);
    expect(await ends("drop")).toEqual([0, 1]);
    const higher = square(7).map((side) =>
      side.kind === "piece"
        ? { ...side, a: { x: side.a.x, y: side.a.y + 3 }, b: { x: side.b.x, y: side.b.y + 3 } }
        : side,
    );
    const crossed = file(writeShapes([...square(0), ...higher], "mm"));
    expect((await run("tidy", crossed, "-o", `${crossed}.dxf`)).code).toBe(1);
  });

  it("converts to the oldest version on standard output; several files and folders, each on its own", async () => {
    const input = file(writeShapes(square(0), "in"));
    const { code, out } = await run("convert", input, "-o", "-", "--dxf", "R12");
    // loose lines that meet are read as joined, and written as they are
    expect([code, out.includes("AC1009")]).toEqual([0, true]);
    const folder = join(input, "..");
    writeFileSync(join(folder, "bad.dxf"), "0\nSECTION\n");
    const all = await run("inspect", folder, "--json");
    expect(all.code).toBe(2);
    expect(all.err).toMatch(/^ash-edge: .*bad\.dxf: [^\n]+\n$/);
    expect(JSON.parse(all.out)).toMatchObject([{ units: "in", contours: [{ area: 200 }] }]);
    const target = join(folder, "made");
    expect((await run("tidy", folder, "-o", target)).code).toBe(2);
    expect(readdirSync(target)).toEqual(["part.dxf"]);
  });

  it("goes to SVG and back: the same contours, to 1e-9", async () => {
    const input = file(
      writeShapes([...square(0), { kind: "circle", layer: "holes", centre: { x: 8, y: 5 }, radius: 2.5 }], "mm"),
    );
    const between = input.replace("part.dxf", "part.svg");
    expect((await run("tidy", input, "-o", between)).code).toBe(0);
    const back = join(between, "..", "back.dxf");
    const { code, out } = await run("convert", between, "-o", back, "--json");
    expect(code).toBe(0);
    expect(JSON.parse(out)).toMatchObject({
      units: "mm",
      contours: [
        { role: "outside", layer: "cut", area: expect.closeTo(200, 9) as number },
        { role: "inside", layer: "holes", circle: true, area: expect.closeTo(Math.PI * 6.25, 9) as number },
      ],
    });
    expect((await run("inspect", back, "--json")).code).toBe(0);
  });

  it.each([
    [["tidy", "a.dxf"]],
    [["inspect", "a.dxf", "-o", "b.dxf"]],
    [["tidy", "a.dxf", "-o", "-", "--json"]],
    [["tidy", "a.dxf", "-o", "b.dxf", "--tolerance", "0"]],
    [["tidy", "a.dxf", "-o", "b.dxf", "--ignore", "size"]],
    [["tidy", "a.dxf", "-o", "b.dxf", "--shared-edges", "cut"]],
  ])("refuses %j with one line and exit 2", async (words) => {
    const { code, out, err } = await run(...words);
    expect([code, out]).toEqual([2, ""]);
    expect(err).toMatch(/^ash-edge: [^\n]+\n$/);
  });

  it("offsets a closed ellipse and a path with one in it by way of arcs, and says so", async () => {
    const half = '<path d="M100 0 A30 15 0 0 1 160 0 L160 40 L100 40 Z"/>';
    const size = 'width="200mm" height="100mm" viewBox="0 0 200 100"';
    const drawn = file(`<svg ${size}><ellipse cx="40" cy="30" rx="30" ry="15"/>${half}</svg>`, "round.svg");
    const done = join(mkdtempSync(join(tmpdir(), "ash-edge-")), "round.dxf");
    const { code, out } = await run("offset", drawn, "-o", done, "--json", "--by", "2", "--side", "out");
    const { contours, findings } = JSON.parse(out) as {
      contours: { area: number; closed: boolean }[];
      findings: { code: string; fixed: boolean; message: string }[];
    };
    expect(code).toBe(0);
    expect(findings.filter((one) => one.code === "not-arcs").map(({ fixed }) => fixed)).toEqual([true, true]);
    expect(findings.find((one) => one.code === "not-arcs")!.message).toMatch(
      /^An ellipse was taken as \d+ arcs, off by/,
    );
    // Steiner's formula for parallel curves, with the ellipse's perimeter by Ramanujan's second approximation (1914)
    const h = ((30 - 15) / (30 + 15)) ** 2;
    const around = Math.PI * 45 * (1 + (3 * h) / (10 + Math.sqrt(4 - 3 * h)));
    const grown = Math.PI * 30 * 15 + 2 * around + 4 * Math.PI;
    expect(Math.min(...contours.map(({ area }) => Math.abs(area - grown)))).toBeLessThan(0.01 * around);
    expect(contours.map(({ closed }) => closed)).toEqual([true, true]);
  });

  it("offsets every closed contour: material grows or shrinks, several times, united, nothing left", async () => {
    const ring = (x: number, radius: number, layer: string) =>
      ({ kind: "circle", layer, centre: { x, y: 0 }, radius }) as const;
    const plate = file(writeDxf([ring(0, 50, "OUTSIDE"), ring(0, 10, "INSIDE"), ring(104, 50, "OUTSIDE")], "mm"));
    const done = join(mkdtempSync(join(tmpdir(), "ash-edge-")), "out.dxf");
    const offset = async (...words: string[]) => {
      const { code, out } = await run("offset", plate, "-o", done, "--json", ...words);
      const report = JSON.parse(out) as { contours: { area: number; layer: string }[]; findings: { code: string }[] };
      return {
        code,
        found: report.findings.map((one) => one.code),
        areas: report.contours.map(({ area }) => area),
        layers: report.contours.map(({ layer }) => layer),
      };
    };
    const disc = (r: number): number => Math.PI * r * r;
    const out = await offset("--by", "1", "--side", "out");
    expect([out.code, out.found, out.layers]).toEqual([0, [], ["OUTSIDE", "OUTSIDE", "INSIDE"]]);
    [disc(51), disc(51), disc(9)].forEach((area, i) => expect(out.areas[i]).toBeCloseTo(area, 8));
    const twice = await offset("--by", "1", "--side", "in", "--times", "2");
    expect(twice.areas).toHaveLength(6);
    expect(twice.areas[0]).toBeCloseTo(disc(49), 8);
    const merged = await offset("--by", "12", "--side", "out");
    expect([merged.code, merged.found, merged.areas.length]).toEqual([0, ["vanished", "merged"], 1]);
    // two discs of 62, 104 apart: area by the closed form of the lens (circular segments)
    const lens = 2 * 62 ** 2 * Math.acos(52 / 62) - 104 * Math.sqrt(62 ** 2 - 52 ** 2);
    expect(merged.areas[0]).toBeCloseTo(2 * disc(62) - lens, 7);
    const gone = await offset("--by", "50", "--side", "in");
    expect([gone.code, gone.areas, gone.found]).toEqual([1, [], ["vanished", "vanished", "vanished"]]);
    expect(readFileSync(done, "utf8")).not.toContain("CIRCLE");
    const square = file(
      writeShapes(
        [
          [0, 0, 8, 0],
          [8, 0, 8, 8],
          [8, 8, 0, 8],
          [0, 8, 0, 0.01],
        ].map(
          ([x, y, u, v]) =>
            ({ kind: "piece", layer: "0", a: { x: x!, y: y! }, b: { x: u!, y: v! }, bulge: 0 }) as const,
        ),
        "mm",
      ),
    );
    for (const [corner, area] of [
      ["sharp", 100],
      ["flat", 98],
      ["round", 96 + Math.PI],
    ] as const) {
      const { out: text } = await run(
        "offset",
        square,
        "-o",
        done,
        "--json",
        "--by",
        "1",
        "--side",
        "out",
        "--corner",
        corner,
      );
      expect((JSON.parse(text) as { contours: { area: number }[] }).contours[0]!.area).toBeCloseTo(area, 9);
    }
  });

  it("converts smooth curves and tiny pieces to arcs within the tolerance; without it they are not ready", async () => {
    const ellipse = {
      kind: "ellipse",
      layer: "0",
      centre: { x: 0, y: 0 },
      major: { x: 100, y: 0 },
      ratio: 0.5,
      from: 0,
      sweep: 2 * Math.PI,
    } as const;
    const place = (i: number) => ({
      x: 300 + 30 * Math.cos((i * Math.PI) / 100),
      y: 30 * Math.sin((i * Math.PI) / 100),
    });
    const tiny = Array.from(
      { length: 200 },
      (_, i) => ({ kind: "piece", layer: "0", a: place(i), b: place(i === 199 ? 0 : i + 1), bulge: 0 }) as const,
    );
    const source = file(writeShapes([ellipse, ...tiny], "mm"));
    const done = join(mkdtempSync(join(tmpdir(), "ash-edge-")), "out.dxf");
    const plain = await run("convert", source, "-o", done, "--json");
    expect(JSON.parse(plain.out).findings).toContainEqual(
      expect.objectContaining({ code: "not-arcs", severity: "error" }),
    );
    expect([plain.code, (JSON.parse(plain.out) as { ready: boolean }).ready]).toEqual([1, false]);
    const { code, out } = await run("convert", source, "-o", done, "--json", "--arcs", "0.01");
    const { contours, entities } = JSON.parse(out) as {
      contours: { area: number; arcs: number }[];
      entities: Record<string, number>;
    };
    expect([code, entities.ellipse, contours.length]).toEqual([0, 0, 2]);
    expect(contours[0]!.arcs).toBeLessThanOrEqual(40);
    expect(Math.abs(contours[0]!.area - Math.PI * 100 * 50)).toBeLessThan(0.01 * 485); // within 0.01 all round
    expect(contours[1]!.arcs).toBeLessThanOrEqual(4);
    expect(Math.abs(contours[1]!.area - Math.PI * 900)).toBeLessThan(0.02 * 189);
  });

  it("converts a noisy tracing to the outline's own lines and arcs, and says how far off it lies", async () => {
    const points = measuredPoints(TRACED_SHAPES["rounded rectangle"]!, 0.5, 0.05, randomFrom(77));
    const vertices = points.map((at) => ({ at, bulge: 0 }));
    const plate = [0, 1, 2, 3].map((i) => ({ at: { x: [300, 400, 400, 300][i]!, y: i < 2 ? 0 : 50 }, bulge: 0 }));
    const sawn = Array.from({ length: 60 }, (_, i) => ({ at: { x: 500 + 3 * i, y: (i % 2) * 40 }, bulge: 0 }));
    const chain = (at: readonly { at: { x: number; y: number }; bulge: number }[], closed: boolean) =>
      ({
        kind: "chain",
        layer: "0",
        closed,
        pieces: at
          .slice(0, closed ? undefined : -1)
          .map((one, i) => ({ a: one.at, b: at[(i + 1) % at.length]!.at, bulge: 0 })),
      }) as const;
    const done = join(mkdtempSync(join(tmpdir(), "ash-edge-")), "out.dxf");
    const drawn = file(writeShapes([chain(vertices, true), chain(plate, true)], "mm"));
    const { code, out } = await run("convert", drawn, "-o", done, "--json", "--arcs", "0.3", "--traced");
    const { contours, findings } = JSON.parse(out) as {
      contours: { lines: number; arcs: number; area: number }[];
      findings: { code: string; severity: string; message: string }[];
    };
    expect(code).toBe(0);
    expect(contours.map(({ lines, arcs }) => [lines, arcs])).toEqual([
      [4, 4],
      [4, 0],
    ]);
    // 160 × 90 with corners of 18: the corners lack (4 - π) r²
    expect(Math.abs(contours[0]!.area - (160 * 90 - (4 - Math.PI) * 18 ** 2))).toBeLessThan(6);
    expect(findings).toMatchObject([{ code: "traced", severity: "info" }]);
    expect(findings[0]!.message).toMatch(
      /^An outline of \d+ measured points became 4 lines and 4 arcs: scatter ≈ 0\.05/,
    );
    const near = await run("convert", drawn, "-o", done, "--json", "--arcs", "0.05", "--traced");
    expect(JSON.parse(near.out).findings).toMatchObject([
      { code: "traced", severity: "warning", message: expect.stringContaining("off the nearest lines and arcs") },
    ]);
    const rough = await run(
      "convert",
      file(writeShapes([chain(sawn, false)], "mm")),
      "-o",
      done,
      "--json",
      "--arcs",
      "0.3",
      "--traced",
    );
    expect(JSON.parse(rough.out).findings).toContainEqual(
      expect.objectContaining({
        code: "traced",
        severity: "warning",
        message: expect.stringContaining("does not tell"),
      }),
    );
    expect(await run("convert", drawn, "-o", done, "--traced")).toMatchObject({
      code: 2,
      err: expect.stringContaining("--arcs 0.2"),
    });
  });
});
