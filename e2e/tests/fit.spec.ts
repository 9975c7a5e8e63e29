import { expect, test } from "@playwright/test";
import { freeThrough } from "@ash-edge/core/construct";
import { smoothOf } from "@ash-edge/core/geometry";
import { Bench } from "../support/bench.ts";
import { BASIN, drawOpening, drawTapHole, fitView, layoutPoints } from "../support/demoJobs.ts";
import { contoursOf, newJob, rowsOf, typePoint } from "../support/drawn.ts";

test("job 0415: an opening through points, fitted to arcs with its chart, its rebate offset, released", async ({
  page,
}) => {
  test.setTimeout(120_000);
  const bench = new Bench(page);
  await bench.open("Basin opening template");
  await drawOpening(bench);
  expect((await rowsOf(bench)).filter(({ kind }) => kind === "free")).toHaveLength(1);

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
  const made = freeThrough(BASIN, {}, true);
  if (!made.ok) throw new Error(made.refusal.code);
  const curve = smoothOf({ kind: "free", ...made.value });
  const places = Array.from({ length: 40_000 }, (_, i) => curve.at(i / 40_000));
  const doubled = places.reduce(
    (sum, p, i) => sum + p.x * places[(i + 1) % places.length]!.y - p.y * places[(i + 1) % places.length]!.x,
    0,
  );
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
  await drawTapHole(bench);
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
  const places = [
    [50, 0],
    [60, 10.02],
    [70, 0],
    [60, -10.02],
  ].map(([x, y]) => ({ x: x!, y: y! }));
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

  // points picked by eye about a line and an arc of R 20, off it by up to 0.1: no straight piece from each to the next
  const along = [
    [40, 0],
    [50, 0.06],
    [60, 0],
    ...[0.3, 0.6, 0.9, 1.2, 1.5, 1.8].map((turn, i) => {
      const radius = 20 + (i % 2 === 0 ? 0.08 : -0.08);
      return [60 + radius * Math.sin(turn), 20 - radius * Math.cos(turn)];
    }),
  ].map(([x, y]) => ({ x: x!, y: y! }));
  await layoutPoints(bench, along);
  await bench.tool("GZ", "Fit to points");
  await page.getByRole("radio", { name: "arcs and lines" }).click();
  for (const at of along) await bench.click(at);
  await expect(
    page.getByText(/^9 points · 2 pieces, off by .* at most, within ≈? ?0\.[12]\d* mm · Enter makes it/),
  ).toBeVisible();
  await page.keyboard.press("Enter");
  await expect(page.getByText(/^Fitted: 2 pieces, off by ≈ 0\.[012]\d* mm at most/)).toBeVisible();
  const chained = (await rowsOf(bench)).find(({ kind }) => kind === "chain")!;
  expect(chained.vertices!.map(({ bulge }) => bulge !== 0)).toEqual([false, true, false]);
  for (let i = 0; i < 1 + along.length; i++) await page.keyboard.press("Control+z");
  await page.keyboard.press("Escape");
  await page.keyboard.press("Escape");

  await bench.tool("EE", "Circle");
  await bench.type("30r");
  await typePoint(bench, "centre", { x: 0, y: 0 });
  await page.keyboard.press("Escape");
  await page.keyboard.press("Escape");
  await fitView(bench);
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

/**
 * The worst angle, in radians, between a piece and the next of an open chain; directions at the ends lie half the sweep
 * off the chord.
 */
const worstJoint = (vertices: readonly { at: { x: number; y: number }; bulge: number }[]): number => {
  const leaning = vertices.slice(0, -1).map(({ at, bulge }, i) => {
    const to = vertices[i + 1]!.at;
    const chord = Math.atan2(to.y - at.y, to.x - at.x);
    const half = 2 * Math.atan(bulge);
    return { start: chord - half, end: chord + half };
  });
  return Math.max(...leaning.slice(1).map(({ start }, i) => Math.abs(Math.sin(start - leaning[i]!.end))));
};

test("a chain made smooth through its corners, and a joint of its arcs slid: tangent all along", async ({ page }) => {
  const bench = new Bench(page);
  await newJob(bench, "7302");
  const corners = [
    [0, 10],
    [30, 32],
    [60, 12],
    [95, 40],
  ].map(([x, y]) => ({ x: x!, y: y! }));
  await layoutPoints(bench, corners);
  await bench.tool("WW", "Outline");
  for (const at of corners) await bench.click(at);
  await page.keyboard.press("Escape");
  await page.keyboard.press("Escape");
  await bench.tool("GS", "Smooth");
  await bench.click({ x: 15, y: 21 });
  const vertices = async () => (await rowsOf(bench)).find(({ kind }) => kind === "chain")!.vertices!;
  await expect.poll(async () => (await vertices()).length).toBe(5); // one arc to each end, two between inner corners
  const smooth = await vertices();
  for (const corner of corners)
    expect(Math.min(...smooth.map(({ at }) => Math.hypot(at.x - corner.x, at.y - corner.y)))).toBeLessThan(1e-9);
  expect(worstJoint(smooth)).toBeLessThan(1e-6);
  await page.keyboard.press("Escape");
  await page.keyboard.press("Escape");

  const joint = smooth[2]!.at;
  const to = { x: joint.x - 4, y: joint.y + 2 };
  await bench.tool("GX", "Slide a joint");
  await bench.click({ x: joint.x + 0.2, y: joint.y });
  await bench.click(to);
  const away = (at: { x: number; y: number }): number => Math.hypot(at.x - to.x, at.y - to.y);
  await expect.poll(async () => away((await vertices())[2]!.at) < away(joint) - 1).toBe(true);
  const slid = await vertices();
  expect(worstJoint(slid)).toBeLessThan(1e-6);
  expect(slid.map(({ at }) => at).toSpliced(2, 1)).toEqual(smooth.map(({ at }) => at).toSpliced(2, 1));
  // dragged back by the mouse
  await bench.point(slid[2]!.at);
  await page.mouse.down();
  const back = await bench.at(joint);
  await page.mouse.move(back.x, back.y, { steps: 6 });
  await page.mouse.up();
  await expect.poll(async () => away((await vertices())[2]!.at) > away(joint) - 1).toBe(true);
  expect(worstJoint(await vertices())).toBeLessThan(1e-6);
});
