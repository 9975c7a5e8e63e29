import fc from "fast-check";
import Papa from "papaparse";
import { expect, it } from "vitest";
import { contourCsv, type ContourRow } from "./index.ts";

it("a table of contours reads back number for number, and no name is taken for a formula", () => {
  const number = fc.double({ noNaN: true, noDefaultInfinity: true });
  const row: fc.Arbitrary<ContourRow> = fc.record({
    closed: fc.boolean(),
    role: fc.constantFrom("outside", "inside", "mark", "open"),
    depth: fc.nat(9),
    area: fc.option(number),
    length: number,
    lines: fc.nat(99),
    arcs: fc.nat(99),
    circle: fc.boolean(),
    layer: fc.oneof(fc.string(), fc.constantFrom("=1+1", "a,b", 'say "x"', "-cut", "two\nlines")),
    bounds: fc.tuple(number, number, number, number),
  });
  fc.assert(
    fc.property(fc.array(row, { minLength: 1 }), (rows) => {
      const { data } = Papa.parse<Record<string, string>>(contourCsv(rows, "in"), {
        header: true,
        skipEmptyLines: true,
      });
      expect(data).toHaveLength(rows.length);
      data.forEach((own, i) => {
        const { length, area, bounds, layer } = rows[i]!;
        expect([own["length in"], own["min x in"]].map(Number)).toEqual([length, bounds[0]].map((n) => n + 0));
        expect(own["area in2"] === "" ? null : Number(own["area in2"])).toEqual(area === null ? null : area + 0);
        expect(own.layer!.replace(/^'/, "")).toBe(layer.replace(/^'/, ""));
        expect(own.layer).not.toMatch(/^[=@]/);
      });
    }),
  );
});
