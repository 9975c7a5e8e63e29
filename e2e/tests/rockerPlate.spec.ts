import { readFileSync } from "node:fs";
import { expect, test } from "@playwright/test";
import DxfParser from "dxf-parser";
import { Helper } from "dxf";
import { ROCKER } from "@ash-edge/tools/worked/rockerPlate";
import { Bench } from "../support/bench.ts";
import { testRun } from "../support/testRun.ts";
import { BELLY, BIG, D, drawRockerPlate, MADE, SMALL } from "../support/rockerPlate.ts";

/** The drill for 3/8-16 UNC (Machinery's Handbook, tap drill sizes). */
const DRILL = 5 / 16;

type Vertex = { readonly x: number; readonly y: number; readonly bulge?: number };

/** 1e-9 of the size of what is involved, plus 8 units in the last place of the largest coordinate. */
const bound = (size: number): number => 1e-9 * size + 8 * 2 ** -50;

test("the rocker plate, from its sketch to a released DXF, by mouse and keyboard alone", async ({ page }) => {
  const bench = new Bench(page);
  const complaints: string[] = [];
  page.on("console", (message) => message.type() === "error" && complaints.push(message.text()));
  page.on("pageerror", (error) => complaints.push(error.message));
  await bench.open("Rocker plate");
  await expect(page.getByRole("region", { name: "Sketch card" }).getByRole("img")).toBeVisible();
  await drawRockerPlate(bench);

  await expect(bench.pieces).toContainText("1 contour, 3 holes");
  for (const row of [
    "Ø 2 1/4 big boss",
    "Ø 1 1/2 small boss",
    "6 5/8 boss centres",
    "Ø 1 3/16 big hole",
    "Ø 5/8 small hole",
    "R 14 belly",
    "2 1/2 tapped hole",
    "3/8-16 tapped hole",
  ])
    await expect(bench.callout(row)).toContainText("true");

  await page.getByRole("navigation", { name: "Steps" }).getByRole("button", { name: "Release" }).click();
  await expect(page.getByRole("heading", { name: "Ready to cut" })).toBeVisible();
  const [download] = await Promise.all([
    page.waitForEvent("download"),
    page.getByRole("button", { name: "Write the DXF" }).click(),
  ]);
  expect(download.suggestedFilename()).toBe("0414-rocker-plate-r1.dxf");
  await expect(page.getByText("holds the same geometry")).toBeVisible();
  await expect(page.getByRole("region", { name: "Released files" })).toContainText("SHA-256");

  expect(complaints).toEqual([]); // the content security policy among them

  // read by two readers that are not ours
  const text = readFileSync(await download.path(), "utf8");
  const read = new DxfParser().parseSync(text)!;
  expect(read.header.$INSUNITS).toBe(1);
  const entities = read.entities as unknown as {
    type: string;
    layer: string;
    shape?: boolean;
    vertices?: Vertex[];
    center?: Vertex;
    radius?: number;
  }[];
  expect(entities.map(({ type, layer }) => `${type} ${layer}`).sort()).toEqual([
    "CIRCLE INSIDE",
    "CIRCLE INSIDE",
    "CIRCLE INSIDE",
    "LWPOLYLINE OUTSIDE",
  ]);
  const other = new Helper(text).parsed.entities;
  expect(other.map(({ type, layer }) => `${type} ${layer}`).sort()).toEqual([
    "CIRCLE INSIDE",
    "CIRCLE INSIDE",
    "CIRCLE INSIDE",
    "LWPOLYLINE OUTSIDE",
  ]);
  const circles = entities.filter(({ type }) => type === "CIRCLE").sort((p, q) => p.center!.x - q.center!.x);
  expect(circles.map(({ center, radius }) => [center!.x, center!.y, radius])).toEqual([
    [0, 0, 1.1875 / 2],
    [ROCKER.tapped, 0, DRILL / 2],
    [D, 0, 0.625 / 2],
  ]);
  const outline = entities.find(({ type }) => type === "LWPOLYLINE")!;
  expect(outline.shape).toBe(true);
  const vertices = outline.vertices!;
  expect(vertices).toHaveLength(4);
  expect(other.find(({ type }) => type === "LWPOLYLINE")!.vertices!.map(({ x, y }) => [x, y])).toEqual(
    vertices.map(({ x, y }) => [x, y]),
  );

  // Each side by the circular segment (Machinery's Handbook): sweep = 4 atan bulge, r = c (1 + b²) / 4|b|.
  const sides = vertices.map((a, i) => {
    const b = vertices[(i + 1) % 4]!;
    const [chord, bulge] = [Math.hypot(b.x - a.x, b.y - a.y), a.bulge ?? 0];
    const sweep = 4 * Math.atan(bulge);
    const radius = bulge === 0 ? Infinity : (chord * (1 + bulge * bulge)) / (4 * Math.abs(bulge));
    const length = bulge === 0 ? chord : radius * Math.abs(sweep);
    const area = (a.x * b.y - a.y * b.x) / 2 + (bulge === 0 ? 0 : ((radius * radius) / 2) * (sweep - Math.sin(sweep)));
    const heading = Math.atan2(b.y - a.y, b.x - a.x);
    return { a, b, radius, length, area, out: heading - sweep / 2, into: heading + sweep / 2 };
  });
  const radii = sides.map(({ radius }) => radius).sort((p, q) => p - q);
  [SMALL, BIG, BELLY].forEach((radius, i) => expect(Math.abs(radii[i]! - radius)).toBeLessThanOrEqual(bound(radius)));
  sides.forEach((side, i) => {
    const kink = side.into - sides[(i + 1) % 4]!.out;
    expect(Math.abs(Math.atan2(Math.sin(kink), Math.cos(kink)))).toBeLessThanOrEqual(1e-9);
  });

  // Open belt over two pulleys (Machinery's Handbook): the tangent is √(d² - (R - r)²), leaning by asin((R - r) / d).
  // The belly's
  // centre lies 14 - R and 14 - r from the bosses' centres; the rest is the cosine rule and sectors.
  const lean = Math.asin((BIG - SMALL) / D);
  const tangent = Math.sqrt(D * D - (BIG - SMALL) ** 2);
  const [p, q] = [BELLY - BIG, BELLY - SMALL];
  const atBig = Math.acos((D * D + p * p - q * q) / (2 * D * p));
  const atSmall = Math.acos((D * D + q * q - p * p) / (2 * D * q));
  const sweeps = [Math.PI / 2 + atBig + lean, Math.PI / 2 - lean + atSmall, Math.PI - atBig - atSmall] as const;
  const length = tangent + BIG * sweeps[0] + SMALL * sweeps[1] + BELLY * sweeps[2];
  const area =
    ((BIG + SMALL) / 2) * tangent +
    (BIG ** 2 * sweeps[0] + SMALL ** 2 * sweeps[1] + BELLY ** 2 * sweeps[2] - p * q * Math.sin(sweeps[2])) / 2;
  const total = (of: "length" | "area"): number => Math.abs(sides.reduce((sum, side) => sum + side[of], 0));
  expect(Math.abs(total("length") - length)).toBeLessThanOrEqual(bound(length));
  expect(Math.abs(total("area") - area)).toBeLessThanOrEqual(bound(area));
  const touch = sides.find(({ radius }) => Math.abs(radius - BELLY) < 1)!;
  const centre = { x: p * Math.cos(atBig), y: p * Math.sin(atBig) };
  for (const { x, y } of [touch.a, touch.b])
    expect(Math.abs(Math.hypot(x - centre.x, y - centre.y) - BELLY)).toBeLessThanOrEqual(bound(BELLY));

  await testRun(page, {
    length: 25.4 * (length + Math.PI * (1.1875 + 0.625 + DRILL)),
    contours: 4,
  });
});

test("a reload after every step loses nothing, and undo and redo run across it to the byte", async ({ page }) => {
  const bench = new Bench(page);
  await bench.open("Rocker plate");
  const start = await bench.content();
  await drawRockerPlate(bench, () => bench.reload());
  const end = await bench.content();
  for (let n = MADE - 1; n >= 0; n--) {
    await page.keyboard.press("Control+z");
    await expect(bench.board).toHaveAttribute("data-revision", String(n));
  }
  expect(await bench.content()).toBe(start);
  await bench.reload();
  for (let n = 1; n <= MADE; n++) {
    await page.keyboard.press("Control+y");
    await expect(bench.board).toHaveAttribute("data-revision", String(n));
  }
  expect(await bench.content()).toBe(end);
});
