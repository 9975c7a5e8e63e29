import { describe, expect, it } from "vitest";
import DxfParser from "dxf-parser";
import { plainName } from "../numeric/plainName.ts";
import { contourCsv } from "./csv/index.ts";
import { readDxf, writeShapes } from "./dxf/index.ts";
import { readSvg, writeSvg } from "./svg/index.ts";
import type { Outcome } from "../numeric/outcome.ts";

const value = <T>(outcome: Outcome<T>): T => {
  if (!outcome.ok) throw new Error(outcome.refusal.code);
  return outcome.value;
};
/** A group that would write a circle of its own into a DXF, were its line breaks kept. */
const GROUPS = "0\nCIRCLE\n8\ncut\n10\n5\n20\n5\n40\n2.5";
const NAMES = [
  `A\n${GROUPS}`,
  `A\r\n${GROUPS.replaceAll("\n", "\r\n")}`,
  `A\u0085${GROUPS.replaceAll("\n", "\u0085")}`,
  `A\u2028${GROUPS.replaceAll("\n", "\u2028")}`,
  "A\u001b[2J\u001b]0;title\u0007",
  "A\u009b31m",
  "A\u0000B\u007f",
  "A\u202etxt.exe",
  "x".repeat(5000),
];
// eslint-disable-next-line no-control-regex
const UNSEEN = /[\u0000-\u0009\u000b-\u001f\u007f-\u009f\u2028\u2029\u202e]/;
const svgOf = (id: string): string => {
  const written = [...id].map((char) => `&#${char.codePointAt(0)};`).join("");
  const root = 'xmlns="http://www.w3.org/2000/svg" width="20mm" viewBox="0 0 20 20"';
  return `<svg ${root}><g id="${written}"><circle r="4"/></g></svg>`;
};
const circles = (dxf: string): number => new DxfParser().parseSync(dxf)!.entities.length;

describe("names that come from outside", () => {
  it.each(NAMES.map((name) => [JSON.stringify(name).slice(0, 40), name] as const))(
    "%s: one line, nothing unseen, in every file that is written with it",
    (_, name) => {
      const shape = { kind: "circle", layer: name, centre: { x: 0, y: 0 }, radius: 4 } as const;
      // the writers are a door of their own, whatever gets as far as them
      for (const version of ["R12", "R2000"] as const) {
        const text = writeShapes([shape], "mm", { version });
        expect([circles(text), UNSEEN.test(text)]).toEqual([1, false]);
        const read = value(readDxf(text));
        expect(read.shapes.map(({ kind, layer }) => [kind, UNSEEN.test(layer)])).toEqual([["circle", false]]);
      }
      const read = value(readSvg(svgOf(name)));
      expect(
        read.shapes.map(({ layer }) => [layer.length > 0, layer.length <= 255, layer === plainName(layer)]),
      ).toEqual([[true, true, true]]);
      const text = writeShapes(read.shapes, "mm");
      expect([circles(text), UNSEEN.test(text)]).toEqual([1, false]);
      const svg = value(writeSvg(read.shapes, "mm"));
      expect(value(readSvg(svg)).shapes).toHaveLength(1);
      expect(UNSEEN.test(svg)).toBe(false);
    },
  );

  it("a cell that a spreadsheet would run is made a text; plain numbers stay numbers (OWASP, CSV injection)", () => {
    const row = (layer: string) =>
      contourCsv(
        [
          {
            closed: true,
            role: "outside",
            depth: 0,
            area: 1,
            length: 1,
            lines: 0,
            arcs: 0,
            circle: true,
            layer,
            bounds: [-1, -2.5, 1, 2],
          },
        ],
        "mm",
      ).split("\r\n")[1]!;
    for (const layer of ["-2+3+cmd|' /C calc'!A0", "=1+1", "+1+1", "@SUM(A1)", "-1e9+cmd", "+cmd", "--1", "-1.2.3"])
      expect(row(layer)).toContain(`"'${layer.replaceAll('"', '""')}"`);
    for (const layer of ["-2", "+3.5", "-.5", "12", "Profile"]) expect(row(layer)).toContain(`1,${layer},outside`);
    expect(row("x")).toContain("-1,-2.5,1,2");
  });
});
