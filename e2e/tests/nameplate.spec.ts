import { expect, test } from "@playwright/test";
import { Bench } from "../support/bench.ts";
import { drawNameplate } from "../support/demoJobs.ts";
import { contoursOf, rowsOf } from "../support/drawn.ts";
import { throughToTestRun } from "../support/testRun.ts";

test("job 0418 drawn whole: contours three deep, scribed lines, tapped holes on a grid; on to its test run", async ({
  page,
}) => {
  const bench = new Bench(page);
  await bench.open("Lamp room nameplate");
  await drawNameplate(bench);
  for (const row of ["260 wide", "140 high", "R 12", "120 opening long", "60 opening wide", "Ø 40", "8 × M6"])
    await expect(bench.callout(row)).toContainText("true");
  const rows = await rowsOf(bench);
  const [plate, opening] = contoursOf(rows);
  const known = { plate: 2 * 400 - 8 * 12 + 24 * Math.PI, opening: 120 + 60 * Math.PI };
  expect(plate!.length).toBeCloseTo(known.plate, 9);
  expect(opening!.length).toBeCloseTo(known.opening, 9);
  expect(plate!.area).toBeCloseTo(260 * 140 - (4 - Math.PI) * 144, 8);
  // M6 is drilled 5 (ISO 261 less the pitch)
  expect(rows.flatMap(({ radius }) => radius ?? []).sort((p, q) => p - q)).toEqual([...Array(8).fill(2.5), 20]);
  await expect(bench.pieces).toContainText("2 contours, 9 holes");
  await throughToTestRun(bench, {
    length: known.plate + known.opening + (40 + 8 * 5) * Math.PI + 2 * 200,
    contours: 11,
    marks: 2,
  });
});
