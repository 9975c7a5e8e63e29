import { mkdtempSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterEach, describe, expect, it, vi } from "vitest";
import { writeDxf } from "@ash-edge/core/formats/dxf";
import { main } from "./main.ts";

const run = async (...words: string[]): Promise<{ code: number; out: string; err: string }> => {
  const [out, err] = [vi.spyOn(process.stdout, "write"), vi.spyOn(process.stderr, "write")].map((spy) =>
    spy.mockReturnValue(true),
  );
  const code = await main(words);
  return {
    code,
    out: out!.mock.calls.map(([text]) => text).join(""),
    err: err!.mock.calls.map(([text]) => text).join(""),
  };
};
const file = (text: string, name = "part.dxf"): string => {
  const path = join(mkdtempSync(join(tmpdir(), "ash-edge-")), name);
  writeFileSync(path, text);
  return path;
};
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
