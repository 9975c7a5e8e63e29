import { expect, test, type Page } from "@playwright/test";
import { freeThrough } from "@ash-edge/core/construct";
import { smoothOf } from "@ash-edge/core/geometry";
import { Bench } from "../support/bench.ts";
import { contoursOf, newJob, rowsOf, typePoint } from "../support/drawn.ts";

const POINTS = [[-210, 0], [-150, 120], [0, 165], [170, 130], [240, 10], [180, -110], [20, -150], [-140, -105]].map(([x, y]) => ({ x: x!, y: y! })); // prettier-ignore
/** Layout points, so that a click takes their very places. */
const layoutPoints = async (bench: Bench, places: readonly { x: number; y: number }[]): Promise<void> => {
  await bench.tool("QD", "Point");
  for (const at of places) await typePoint(bench, "point", at);
  await bench.page.keyboard.press("Escape");
  await bench.page.keyboard.press("Escape");
  await fitView(bench.page);
};
const fitView = async (page: Page): Promise<void> => {
  for (const key of ["KeyV", "KeyV"]) await page.keyboard.press(key);
};

test("job 0415: an opening through points, fitted to arcs with its chart, its rebate offset, released", async ({
  page,
}) => {
  test.setTimeout(120_000);
  const bench = new Bench(page);
  await bench.open("Basin opening template");
  await layoutPoints(bench, POINTS);
  await bench.tool("WS", "Free curve");
  for (const at of [...POINTS, POINTS[0]!]) await bench.click(at);
  await expect.poll(async () => (await rowsOf(bench)).filter(({ kind }) => kind === "free").length).toBe(1);
  await page.keyboard.press("Escape");
  await page.keyboard.press("Escape");
  await fitView(page);

  await bench.tool("GF", "Arc fit");
  await bench.type("0.01");
  await bench.point({ x: 0, y: 165 });
  const chart = page.getByRole("img", { name: /^Deviation along the curve, at most .* mm$/ });
  await expect(chart).toBeVisible();
  await expect(chart.locator("svg path.js-line").first()).toBeAttached(); // the line of the deviation is drawn
  await expect(bench.sentence("Arc fit")).toContainText(/\d+ pieces, off by .* mm at most/);
  await bench.click({ x: 0, y: 165 });
  await expect.poll(async () => contoursOf(await rowsOf(bench)).length).toBe(1);
  const [opening] = contoursOf(await rowsOf(bench));
  // the true curve's area by Green's formula over many places; the fit lies within 0.01 of it all round
  const made = freeThrough(POINTS, {}, true);
  if (!made.ok) throw new Error(made.refusal.code);
  const curve = smoothOf({ kind: "free", ...made.value });
  const places = Array.from({ length: 40_000 }, (_, i) => curve.at(i / 40_000));
  const doubled = places.reduce((sum, p, i) => sum + p.x * places[(i + 1) % places.length]!.y - p.y * places[(i + 1) % places.length]!.x, 0); // prettier-ignore
  expect(Math.abs(opening!.area - Math.abs(doubled) / 2)).toBeLessThan(0.01 * opening!.length);

  await page.keyboard.press("Escape");
  await page.keyboard.press("Escape");
  await bench.tool("FF", "Offset");
  await bench.blank("distance").click();
  await bench.callout("12").click();
  await bench.click({ x: 0, y: 165 });
  await bench.click({ x: 0, y: 190 });
  await expect.poll(async () => contoursOf(await rowsOf(bench)).length).toBe(2);
  await expect(bench.callout("12")).toContainText("true");
  // the opening is convex: Steiner's formula
  const [rebate] = contoursOf(await rowsOf(bench));
  const { area, length } = opening!;
  expect(Math.abs(rebate!.area - (area + 12 * length + 144 * Math.PI))).toBeLessThan(1e-9 * area);
  await bench.tool("EE", "Circle");
  await bench.callout("Ø 35").click();
  await typePoint(bench, "centre", { x: 0, y: 235 });
  await page.keyboard.press("Escape");
  await page.keyboard.press("Escape");
  await bench.saved();
  await page.getByRole("navigation", { name: "Steps" }).getByRole("button", { name: "Release" }).click();
  await page.getByRole("button", { name: "Write the DXF" }).click();
  await expect(page.getByText("holds the same geometry")).toBeVisible();
});

test("fits: a chain of small pieces, smooth and straight again, a circle through points with its residuals", async ({
  page,
}) => {
  const bench = new Bench(page);
  await newJob(bench, "7301");
  const places = [[50, 0], [60, 10.02], [70, 0], [60, -10.02]].map(([x, y]) => ({ x: x!, y: y! })); // prettier-ignore
  await layoutPoints(bench, places);
  await bench.tool("GZ", "Fit to points");
  for (const at of places) await bench.click(at);
  await page.keyboard.press("Enter");
  await expect(page.getByText(/^Fitted: R .* off by ≈ 0.01 mm at most/)).toBeVisible();
  const circle = (await rowsOf(bench)).find(({ kind }) => kind === "circle")!;
  expect(circle.centre!.x).toBeCloseTo(60, 9);
  expect(circle.radius).toBeCloseTo(10.01, 6); // the mean of 10 and 10.02, by symmetry
  for (let i = 0; i < 5; i++) await page.keyboard.press("Control+z");
  await page.keyboard.press("Escape");
  await page.keyboard.press("Escape");

  await bench.tool("EE", "Circle");
  await bench.type("30r");
  await typePoint(bench, "centre", { x: 0, y: 0 });
  await page.keyboard.press("Escape");
  await page.keyboard.press("Escape");
  await fitView(page);
  await bench.tool("GD", "To straight pieces");
  await bench.type("0.01");
  await bench.click({ x: 0, y: 30 });
  const chain = async () => (await rowsOf(bench)).find(({ kind }) => kind === "chain");
  // sagitta r (1 - cos(step / 2)) within 0.01
  const count = 2 * Math.ceil(Math.PI / (2 * Math.acos(1 - 0.01 / 30)));
  await expect.poll(async () => (await chain())?.vertices?.length).toBe(count);
  await page.keyboard.press("Escape");
  await page.keyboard.press("Escape");
  await bench.tool("GF", "Arc fit");
  await page.keyboard.press("Delete");
  await bench.type("0.02");
  await bench.click({ x: 0, y: 30 });
  await expect(page.getByText(new RegExp(`^${count} pieces to \\d, off by`))).toBeVisible();
  expect((await chain())!.vertices!.length).toBeLessThanOrEqual(4);
  await page.keyboard.press("Escape");
  await page.keyboard.press("Escape");
});
