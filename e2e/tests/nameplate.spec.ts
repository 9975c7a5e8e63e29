import { expect, test } from "@playwright/test";
import { Bench, typeOver } from "../support/bench.ts";
import { contoursOf, rowsOf, typePoint } from "../support/drawn.ts";
import { throughToTestRun } from "../support/testRun.ts";

test("job 0418 drawn whole: contours three deep, scribed lines, tapped holes on a grid; on to its test run", async ({
  page,
}) => {
  const bench = new Bench(page);
  await bench.open("Lamp room nameplate");
  await bench.tool("TT", "Rectangle");
  await bench.blank("width").click();
  await bench.callout("260 wide").click();
  await bench.blank("height").click();
  await bench.callout("140 high").click();
  await page.getByRole("radio", { name: "centre", exact: true }).click();
  await page.getByRole("radio", { name: "round" }).click();
  await bench.callout("R 12 corners").click();
  await typePoint(bench, "point", { x: 0, y: 0 });
  for (const key of ["KeyV", "KeyV"]) await page.keyboard.press(key);
  await bench.tool("TW", "Slot");
  await page.getByRole("radio", { name: "overall length" }).click();
  await bench.blank("width").click();
  await bench.callout("60 opening wide").click();
  await bench.blank("overall length").click();
  await bench.callout("120 opening long").click();
  await typePoint(bench, "middle", { x: 0, y: 0 });
  await bench.tool("EE", "Circle");
  await bench.callout("Ø 40 disc").click();
  await typePoint(bench, "centre", { x: 0, y: 0 });
  await bench.tool("XR", "Hole grid");
  await page.getByRole("radio", { name: "tapped" }).click();
  await bench.blank("thread").click();
  await bench.callout("8 × M6").click();
  for (const [name, text] of [
    ["columns", "4"],
    ["rows", "2"],
    ["apart across", "70"],
    ["apart up", "100"],
  ] as const)
    await typeOver(bench.blank(name), text);
  await typePoint(bench, "first hole", { x: -105, y: -50 });
  await page.keyboard.press("Escape");
  await page.keyboard.press("Escape");
  // the scribed lines lie on the layer of marks
  await page.getByRole("radio", { name: "Draw on Marks" }).click();
  await bench.tool("WQ", "Line");
  for (const y of [62, -62]) {
    await typePoint(bench, "point", { x: -100, y });
    await bench.blank("length").click();
    await bench.callout("200 scribed line").click();
    await typeOver(bench.blank("angle"), "0");
    await page.keyboard.press("Enter");
    await page.keyboard.press("Enter");
    await page.keyboard.press("Escape");
  }
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
