import { readFileSync } from "node:fs";
import { expect, test, type Page } from "@playwright/test";
import { LAYOUT_LAYER, MARK_LAYER } from "@ash-edge/core/drawing";
import { Bench, type Place, typeOver } from "../support/bench.ts";
import { contoursOf, newJob, rowsOf, typePoint } from "../support/drawn.ts";

const bound = (size: number): number => 1e-9 * size + 8 * 2 ** -40;
const started = async (page: Page, number: string): Promise<Bench> => {
  const bench = new Bench(page);
  await newJob(bench, number);
  return bench;
};
const circles = async (bench: Bench, ...all: readonly (readonly [size: string, at: Place])[]): Promise<void> => {
  await bench.tool("EE", "Circle");
  for (const [size, at] of all) {
    await bench.page.keyboard.press("Delete");
    await bench.type(size);
    await typePoint(bench, "centre", at);
  }
  await bench.page.keyboard.press("Escape");
  await bench.page.keyboard.press("Escape");
  for (const key of ["KeyV", "KeyV"]) await bench.page.keyboard.press(key);
};
/** A chain of lines from place to place, left open. */
const lines = async (bench: Bench, ...places: readonly Place[]): Promise<void> => {
  const { page } = bench;
  await bench.tool("WQ", "Line");
  for (const [i, at] of places.entries()) await typePoint(bench, i === 0 ? "point" : "end", at);
  await page.keyboard.press("Escape");
  await page.keyboard.press("Escape");
  for (const key of ["KeyV", "KeyV"]) await page.keyboard.press(key);
};
/** Area of the lens of two circles of radius `r`, `d` apart: closed form from circular segments. */
const lens = (r: number, d: number): number =>
  2 * r * r * Math.acos(d / 2 / r) - (d / 2) * Math.sqrt(4 * r * r - d * d);

test("areas among what crosses: hovered, taken, let go, dragged across; the outline is one clean contour", async ({
  page,
}) => {
  const bench = await started(page, "7201");
  await circles(bench, ["20r", { x: 0, y: 0 }], ["20r", { x: 24, y: 0 }], ["5r", { x: -8, y: 0 }]);
  await bench.tool("FQ", "Keep areas");
  await bench.click({ x: -8, y: 12 });
  await bench.click({ x: 36, y: 3 });
  await bench.click({ x: 36, y: -3 }); // lets the second go
  await page.keyboard.press("Enter");
  await expect(page.getByText("2 contours kept.")).toBeVisible();
  const rows = await rowsOf(bench);
  const [moon] = contoursOf(rows);
  expect(moon!.row.vertices).toHaveLength(2);
  expect(Math.abs(moon!.area - (400 * Math.PI - lens(20, 24)))).toBeLessThan(bound(400));
  // the hole in it stays one; of the rest nothing is left
  expect(rows.filter(({ kind }) => kind === "circle").map(({ radius }) => radius)).toEqual([5]);
  await page.keyboard.press("Control+z");
  const path = [
    { x: -8, y: 14 },
    { x: 12, y: 10 },
    { x: 34, y: 10 },
  ] as const;
  const [from, ...rest] = await Promise.all(path.map((place) => bench.at(place)));
  await page.mouse.move(from!.x, from!.y);
  await page.mouse.down();
  for (const { x, y } of rest) await page.mouse.move(x, y, { steps: 6 });
  await page.mouse.up();
  await expect.poll(async () => contoursOf(await rowsOf(bench)).length).toBe(1);
  expect(Math.abs(contoursOf(await rowsOf(bench))[0]!.area - (800 * Math.PI - lens(20, 24)))).toBeLessThan(bound(800));
});

test("an area that leaks says where and how wide; bridging gaps closes it", async ({ page }) => {
  const bench = await started(page, "7202");
  await lines(bench, { x: 0, y: 0.04 }, { x: 0, y: 30 }, { x: 50, y: 30 }, { x: 50, y: 0 }, { x: 0, y: 0 });
  await bench.tool("FQ", "Keep areas");
  await bench.click({ x: 20, y: 12 });
  await expect(page.getByText(/This area leaks at 0 mm, 0(.04)? mm, through a gap of 0.04 mm/)).toBeVisible();
  await page.getByRole("radio", { name: "bridge gaps" }).click();
  await bench.click({ x: 20, y: 12 });
  await page.keyboard.press("Enter");
  await expect(page.getByText("1 contour kept.")).toBeVisible();
  expect(contoursOf(await rowsOf(bench))[0]!.area).toBeCloseTo(1500, 6);
  await page.keyboard.press("Control+z");
  await bench.click({ x: 20, y: -5 });
  await expect(page.getByText("Nothing closes round this place.")).toBeVisible();
});

test("contours united, one taken from another, their common part; undone each in one step", async ({ page }) => {
  const bench = await started(page, "7203");
  await circles(bench, ["20r", { x: 0, y: 0 }], ["20r", { x: 24, y: 0 }]);
  const both = lens(20, 24);
  for (const [keys, name, area] of [
    ["FW", "Unite", 800 * Math.PI - both],
    ["FE", "Take away", 400 * Math.PI - both],
    ["FR", "Common part", both],
  ] as const) {
    await bench.tool(keys, name);
    await bench.click({ x: -20, y: 0 });
    await bench.click({ x: 44, y: 0 });
    await expect.poll(async () => contoursOf(await rowsOf(bench)).length).toBe(1);
    const rows = await rowsOf(bench);
    expect(Math.abs(contoursOf(rows)[0]!.area - area)).toBeLessThan(bound(area));
    expect(rows.filter(({ kind }) => kind === "circle")).toHaveLength(0);
    await page.keyboard.press("Escape");
    await page.keyboard.press("Escape");
    await page.keyboard.press("Control+z");
  }
});

test("offsets: pieces that meet as one, through a point, both sides, corners, a band, nothing left", async ({
  page,
}) => {
  const bench = await started(page, "7204");
  await lines(bench, { x: 0, y: 0 }, { x: 60, y: 0 }, { x: 60, y: 40 });
  await bench.tool("FF", "Offset");
  await bench.type("5");
  await bench.click({ x: 30, y: 0 });
  await expect(page.getByText("2 pieces that meet, taken as one")).toBeVisible();
  await bench.click({ x: 30, y: -8 });
  const bent = async () => (await rowsOf(bench)).filter(({ kind }) => kind === "chain");
  await expect.poll(async () => (await bent()).length).toBe(1);
  expect((await bent())[0]!.vertices!.map(({ at }) => at)).toEqual([
    { x: 0, y: -5 },
    { x: 60, y: -5 },
    { x: 65, y: 0 },
    { x: 65, y: 40 },
  ]);
  await page.keyboard.press("Control+z");

  await page.getByRole("radio", { name: "sharp" }).click();
  await page.getByRole("radio", { name: "both sides" }).click();
  await page.getByRole("radio", { name: "square" }).click();
  await bench.click({ x: 30, y: 0 });
  await bench.click({ x: 30, y: -8 });
  await expect.poll(async () => contoursOf(await rowsOf(bench)).length).toBe(1);
  // 60 and 40 long, 10 wide, 5 more at both ends, the corner squared
  expect(contoursOf(await rowsOf(bench))[0]!.area).toBeCloseTo(110 * 10, 9);
  await page.keyboard.press("Escape");
  await page.keyboard.press("Escape");

  await circles(bench, ["12r", { x: 20, y: 70 }]);
  await bench.tool("FF", "Offset");
  await page.getByRole("radio", { name: "this side" }).click();
  await bench.type("13");
  await bench.click({ x: 20, y: 82 });
  await bench.click({ x: 20, y: 72 });
  await expect(page.getByText("Nothing is left at 13 mm: at 12 mm the widest place closes.")).toBeVisible();
  await page.keyboard.press("Delete");
  await bench.click({ x: 20, y: 86 }); // through a point: what is not typed comes from the pointer
  const rounds = async () => (await rowsOf(bench)).filter(({ kind }) => kind === "circle");
  await expect.poll(async () => (await rounds()).length).toBe(2);
  // as a mark it lies on the marks, as layout on the layout, whatever is drawn on
  for (const [as, n] of [
    ["as a mark", 3],
    ["as layout", 4],
  ] as const) {
    await page.getByRole("radio", { name: as }).click();
    await bench.click({ x: 20, y: 82 });
    await bench.click({ x: 20, y: 86 });
    await expect.poll(async () => (await rounds()).length).toBe(n);
  }
  expect((await rounds()).map(({ layer }) => layer)).toEqual([1, 1, MARK_LAYER, LAYOUT_LAYER]);
  // on a hidden layer it is said, on a locked one refused
  const layers = page.getByRole("region", { name: "Layers" });
  await page.getByRole("radio", { name: "as a mark" }).click();
  await layers.getByRole("button", { name: "Hide Marks" }).click();
  await bench.click({ x: 20, y: 82 });
  await bench.click({ x: 20, y: 76 });
  await expect(page.getByText("Now on Marks, which is hidden")).toBeVisible();
  await expect.poll(async () => (await rounds()).length).toBe(5);
  await layers.getByRole("button", { name: "Lock Marks" }).click();
  await bench.click({ x: 20, y: 82 });
  await bench.click({ x: 20, y: 77 });
  await expect(page.getByRole("alert")).toContainText("Marks is locked");
  expect((await rounds()).length).toBe(5);
});

test("a cutter allowed for: by the tool, and at release with what it can't get into", async ({ page }) => {
  const bench = await started(page, "7205");
  await bench.tool("TT", "Rectangle");
  await typeOver(bench.blank("width"), "80");
  await typeOver(bench.blank("height"), "50");
  await page.keyboard.press("Enter");
  await typePoint(bench, "point", { x: 0, y: 0 });
  await page.keyboard.press("Escape");
  await page.keyboard.press("Escape");
  const corners = contoursOf(await rowsOf(bench))[0]!.row.vertices!.map(({ at }) => at);
  const middle = (of: (at: Place) => number): number =>
    (Math.min(...corners.map(of)) + Math.max(...corners.map(of))) / 2;
  await circles(bench, ["20d", { x: middle(({ x }) => x), y: middle(({ y }) => y) }]);
  await bench.tool("FS", "Cutter allowance");
  await bench.type("6d");
  await page.keyboard.press("Enter"); // holds it
  await page.keyboard.press("Enter");
  await expect(page.getByText("2 contours.")).toBeVisible();
  const [way] = contoursOf(await rowsOf(bench));
  expect(way!.area).toBeCloseTo(86 * 56 - (4 - Math.PI) * 9, 9);
  await page.keyboard.press("Escape");
  await page.keyboard.press("Escape");
  await page.keyboard.press("Control+z");
  // the hole alone: its way lies inside of it all the same
  await bench.click({ x: middle(({ x }) => x) + 10, y: middle(({ y }) => y) });
  await bench.tool("FS", "Cutter allowance");
  await page.getByRole("radio", { name: "what is selected" }).click();
  await bench.type("6d");
  await page.keyboard.press("Enter");
  await page.keyboard.press("Enter");
  await expect
    .poll(async () => (await rowsOf(bench)).flatMap(({ radius }) => radius ?? []).sort((p, q) => p - q))
    .toEqual([7, 10]);
  await page.keyboard.press("Escape");
  await page.keyboard.press("Escape");
  await page.keyboard.press("Control+z");
  await bench.saved();
  await page.getByRole("navigation", { name: "Steps" }).getByRole("button", { name: "Release" }).click();
  const cutter = page.getByRole("textbox", { name: "Allow for a cutter of Ø" });
  await typeOver(cutter, "six");
  await expect(page.getByRole("alert")).toContainText("can't be read");
  await expect(page.getByRole("button", { name: "Write the DXF" })).toBeDisabled();
  await typeOver(cutter, "22");
  await expect(page.getByText("A cutter of Ø 22 doesn't get into this contour. Take a smaller one.")).toBeVisible();
  await typeOver(cutter, "6");
  await expect(page.getByRole("region", { name: "Contours" })).toContainText("Circle Ø 14");
  const [download] = await Promise.all([
    page.waitForEvent("download"),
    page.getByRole("button", { name: "Write the DXF" }).click(),
  ]);
  await expect(page.getByText("holds the same geometry")).toBeVisible();
  const text = readFileSync((await download.path())!, "utf8");
  expect(text).toMatch(/\n\s*40\n7\.0\n/);
  expect(text.match(/^LWPOLYLINE$/gm)).toHaveLength(1);
});
