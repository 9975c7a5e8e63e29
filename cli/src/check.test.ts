import { afterEach, describe, expect, it, vi } from "vitest";
import { surveyOf } from "@ash-edge/core/checks";
import {
  applyEdit,
  newDrawing,
  PROFILE_LAYER,
  settingsOf,
  type Drawing,
  type Making,
  type NewCallout,
} from "@ash-edge/core/drawing";
import { draftEdit } from "@ash-edge/core/edits";
import { writeDxf } from "@ash-edge/core/formats/dxf";
import { writeJobFile } from "@ash-edge/core/formats/job";
import { sayFault } from "@ash-edge/core/say";
import type { Shape } from "@ash-edge/core/shape";
import { file, run } from "./testing/calls.ts";

afterEach(() => void vi.restoreAllMocks());

const circle = (x: number, y: number, radius: number): Shape => ({ kind: "circle", centre: { x, y }, radius });
const plate = (x: number, y: number, w: number, h: number): Shape => ({
  kind: "chain",
  closed: true,
  vertices: [
    [x, y],
    [x + w, y],
    [x + w, y + h],
    [x, y + h],
  ].map(([u, v], i) => ({ id: 900 + 10 * x + i, at: { x: u!, y: v! }, bulge: 0 })),
});
const line = (x: number, y: number, u: number, v: number): Shape => ({
  kind: "piece",
  a: { x, y },
  b: { x: u, y: v },
  bulge: 0,
});

/** What can be wrong with a drawing: shapes, and what it is made with. */
const FAULTS: readonly { readonly shapes: readonly Shape[]; readonly making?: Making }[] = [
  { shapes: [] },
  { shapes: [circle(20, 20, 5), circle(24, 20, 5)] },
  { shapes: [circle(60, 20, 4), circle(60, 20, 4)] },
  { shapes: [line(10, 40, 30, 40)] },
  { shapes: [circle(3, 30, 2)] },
  { shapes: [plate(70, 10, 10, 20)], making: { tool: { name: "a bit of 6", kind: "cutter", diameter: 6 } } },
  { shapes: [circle(40, 20, 3)], making: { tool: { name: "plasma", kind: "plasma", diameter: 1.5 } } },
  { shapes: [circle(40, 20, 3), circle(48, 20, 3)], making: { wall: 4 } },
  { shapes: [], making: { sheet: { name: "a slab", width: 80, height: 60 } } },
  { shapes: [{ kind: "ellipse", centre: { x: 50, y: 25 }, major: { x: 9, y: 0 }, ratio: 0.5, from: 0, sweep: 6 }] },
];
const CALLOUTS: readonly NewCallout[] = [{ kind: "diameter", value: 8, name: "hole" }];

const drawingWith = (faults: readonly (typeof FAULTS)[number][], callouts: readonly NewCallout[]): Drawing => {
  const drawing = newDrawing("mm", callouts);
  const draft = draftEdit(drawing, "Draw", "draw");
  draft.add(plate(0, 0, 100, 50), PROFILE_LAYER);
  for (const shape of faults.flatMap(({ shapes }) => shapes)) draft.add(shape, PROFILE_LAYER);
  const making = Object.assign({}, ...faults.map((one) => one.making ?? {})) as Making;
  draft.set("settings", 0, { ...settingsOf(drawing), making });
  return applyEdit(drawing, draft.finish());
};
const HEAD = { number: "0900", name: "Plate", customer: "", material: "granite", quantity: 1, due: "" };

describe("ash-edge check", () => {
  it("says of a saved job what Prove and Release say, in the same words, on every pair of faults", async () => {
    let looked = 0;
    for (const [i, one] of FAULTS.entries())
      for (const other of FAULTS.slice(i)) {
        const drawing = drawingWith(one === other ? [one] : [one, other], looked % 2 ? CALLOUTS : []);
        const thickness = looked % 3 ? "3" : "";
        const input = file(writeJobFile({ ...HEAD, thickness }, drawing, []), "job.ashedge.json");
        const { code, out } = await run("check", input, "--json");
        const stock = { material: "granite", thickness: thickness ? 3 : undefined };
        const { plan, verdict, standing } = surveyOf(drawing, { stock });
        const report = JSON.parse(out) as { verdict: string; findings: { message: string }[] };
        expect(report.verdict).toBe(verdict.words);
        expect(report.findings.map(({ message }) => message)).toEqual(
          plan.faults.map((fault) => sayFault(fault, "mm")),
        );
        expect(code).toBe(plan.ready && standing.notPlaced === 0 ? 0 : 1);
        looked += 1;
      }
    expect(looked).toBe(55);
  });

  it("takes the tool, the wall and the thickness, and says what is meant where they are none", async () => {
    const dxf = file(
      writeDxf(
        [
          { kind: "circle", layer: "OUTSIDE", centre: { x: 0, y: 0 }, radius: 50 },
          { kind: "circle", layer: "INSIDE", centre: { x: 0, y: 0 }, radius: 45 },
          { kind: "circle", layer: "OUTSIDE", centre: { x: 0, y: 0 }, radius: 42 },
        ],
        "mm",
      ),
      "ring.dxf",
    );
    const nothing =
      "not looked at: inside corners and slots (no tool), walls (no thickness), whether it fits (no sheet)";
    expect(await run("check", dxf)).toMatchObject({ code: 0, out: `unit mm\n${nothing}\nReady to cut\n` });
    // 5 of material, 3 of room
    expect((await run("check", dxf, "--wall", "5.5")).out).toContain("warning thin-wall: A wall is only 5 mm thick");
    const five = await run("check", dxf, "--thickness", "5");
    expect([five.code, five.out]).toEqual([0, expect.not.stringContaining("thin-wall")]);
    expect((await run("check", dxf, "--thickness", "5", "--material", "slate")).out).toContain("thin-wall");
    const tight = await run("check", dxf, "--tool", "4");
    expect(tight.code).toBe(1);
    expect(tight.out).toMatch(/error narrow-slot: Only 3 mm of room here: .*\n(.*\n)*Not ready to cut\n$/);
    expect(await run("check", dxf, "--tool", "3")).toMatchObject({ code: 0 });
    for (const [words, said] of [
      [["--tool", "0"], "--tool takes a number above 0"],
      [["--wall"], "--wall takes a value"],
      [["--roles"], "--roles is no option of check"],
      [["-o", "x.dxf"], "check writes nothing"],
    ] as const)
      expect(await run("check", dxf, ...words)).toMatchObject({
        code: 2,
        err: expect.stringContaining(said) as string,
      });
    expect((await run("inspect", dxf, "--tool", "3")).err).toContain("--tool belongs to check");
    expect((await run("check", file("{}", "x.ashedge.json"))).code).toBe(2);
  });

  it("compares two files: the same in other words, in another format, or what differs", async () => {
    const disc = (x: number, radius: number) => ({
      kind: "circle" as const,
      layer: "OUTSIDE",
      centre: { x, y: 0 },
      radius,
    });
    const [one, two, three] = [
      [disc(0, 50), disc(120, 5)],
      [disc(120, 5), disc(0, 50)],
      [disc(0, 50), disc(120.5, 5), disc(200, 3)],
    ].map((all, i) => file(writeDxf(all, "mm"), `${i}.dxf`)) as [string, string, string];
    expect(await run("compare", one, two)).toMatchObject({ code: 0, out: "The same: 2 pieces.\n" });
    const saved = file(writeJobFile({ ...HEAD, thickness: "" }, drawingWith([], []), []), "a.ashedge.json");
    expect((await run("compare", saved, saved)).code).toBe(0);
    const called = file(writeJobFile({ ...HEAD, thickness: "" }, drawingWith([], CALLOUTS), []), "b.ashedge.json");
    expect((await run("compare", saved, called)).out).toContain("Ø 8 hole was called anew.");
    const differs = await run("compare", one, three);
    expect(differs.code).toBe(1);
    expect(differs.out).toMatch(/^1 piece the same, 1 came, 1 moved by 0.5 mm\.\nThe area was /);
    const json = JSON.parse((await run("compare", one, three, "--json")).out) as object;
    expect(json).toMatchObject({ same: 1, came: [[200, 0]], went: [], moved: [[0.5, 0]], units: ["mm", "mm"] });
    expect((await run("compare", one)).err).toContain("compare takes two files");
    expect((await run("compare", one, two, "--tool", "3")).code).toBe(2);
  });

  it("geometry that could not be read stands against cutting", async () => {
    const askew = "0\nSECTION\n2\nENTITIES\n0\nCIRCLE\n8\n0\n10\n0\n20\n0\n40\n9\n0\nMLINE\n8\n0\n0\nENDSEC\n0\nEOF\n";
    const { code, out } = await run("check", file(askew, "askew.dxf"), "--units", "mm");
    expect([code, out]).toEqual([1, expect.stringMatching(/error left-out: .*\n(.*\n)*Not ready to cut\n$/)]);
  });
});
