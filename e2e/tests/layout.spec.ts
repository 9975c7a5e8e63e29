import { readFileSync } from "node:fs";
import { join } from "node:path";
import { expect, test, type Page } from "@playwright/test";
import { Bench, typeOver } from "../support/bench.ts";

type Row = {
  readonly kind: string;
  readonly layer: number;
  readonly through?: Place;
  readonly angle?: number;
  readonly centre?: Place;
  readonly radius?: number;
  readonly at?: Place;
  readonly a?: Place;
  readonly b?: Place;
};
type Place = { readonly x: number; readonly y: number };
type Content = {
  readonly entity: readonly Row[];
  readonly callout: readonly { kind: string; value: number; name: string; pin?: Place; links: unknown[] }[];
};

const sketch = join(import.meta.dirname, "..", "..", "server", "demo", "sketch-0412.png");
const content = async (bench: Bench): Promise<Content> => JSON.parse(await bench.content()) as Content;

/** A new millimetre job, from the cover plate's sketch. */
const fromSketch = async (page: Page, number: string): Promise<Bench> => {
  await page.goto("/jobs");
  await page.getByRole("button", { name: "New job" }).click();
  const dialog = page.getByRole("dialog", { name: "New job" });
  await typeOver(dialog.getByLabel("Part"), "Cover plate");
  await typeOver(dialog.getByLabel("Job number"), number);
  await dialog.getByLabel(/Pictures of the sketch/).setInputFiles(sketch);
  await expect(dialog.getByText("sketch-0412.png")).toBeVisible();
  await dialog.getByRole("button", { name: "Make the job" }).click();
  const bench = new Bench(page);
  await bench.ready();
  await expect(page.getByRole("img", { name: /sketch of Cover plate/ })).toBeVisible();
  return bench;
};

test("a sketch's numbers are written down in one go, pinned, and its layout is drawn at the called values", async ({
  page,
}) => {
  const bench = await fromSketch(page, "0500");
  // all the numbers, one after another, by the keyboard; the first two pinned on the sketch
  for (const key of ["KeyB", "KeyB"]) await page.keyboard.press(key);
  const line = page.getByLabel("Write a callout");
  await expect(line).toBeFocused();
  const picture = (await page.getByRole("img", { name: /sketch of/ }).boundingBox())!;
  const lines = [
    "120 d bore",
    "r78 outer ring",
    "18 r bosses, 3 off",
    "d190 boss circle",
    "r25 ring to boss",
    "14d holes, 3 off",
    "8 ±0.05 slot width",
    "30 slot centres",
    "69 slot above centre",
  ];
  for (const [i, text] of lines.entries()) {
    await page.keyboard.type(text);
    if (i < 2) await page.mouse.click(picture.x + picture.width * (0.5 + 0.2 * i), picture.y + picture.height * 0.55);
    await page.keyboard.press("Enter");
  }
  await page.keyboard.type("no number");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("alert")).toContainText("can't be read");
  await expect(line).toHaveValue("no number");
  await page.keyboard.press("Escape");
  await expect(page.getByRole("region", { name: "Ledger" })).toContainText("0 of 9 placed");
  const { callout } = await content(bench);
  expect(callout.map(({ kind, value }) => `${kind} ${value}`)).toEqual([
    "diameter 120",
    "radius 78",
    "radius 18",
    "diameter 190",
    "radius 25",
    "diameter 14",
    "length 8",
    "centres 30",
    "centres 69",
  ]);
  expect(callout[0]!.pin!.x).toBeCloseTo(0.5, 1);
  expect(callout[1]!.pin!.y).toBeCloseTo(0.55, 1);
  expect(callout[2]!.pin).toBeUndefined();

  for (const key of ["KeyV", "KeyV"]) await page.keyboard.press(key); // room for the largest number called
  // the boss circle at its called value, and the spokes at 90, 210 and 330 degrees through the centre
  await bench.tool("QS", "Layout circle");
  await bench.callout("Ø 190 boss circle").click();
  await bench.click({ x: 0.5, y: 0.5 });
  await expect(bench.callout("Ø 190 boss circle")).toContainText("true");
  await bench.tool("QE", "At an angle");
  for (const angle of ["30", "150"]) {
    await page.keyboard.press("Delete");
    await bench.type(angle);
    await bench.click({ x: 0.5, y: 0.5 });
  }
  // the slot's centre line, at its called distance above the level line, and its two ends
  await bench.tool("QQ", "Parallel");
  await bench.callout("69 slot above centre").click();
  await bench.click({ x: -80, y: 0 });
  await bench.click({ x: -80, y: 20 });
  await page.keyboard.press("Delete");
  await bench.type("15");
  for (const side of [10, -10]) {
    await bench.click({ x: 0, y: -60 });
    await bench.click({ x: side, y: -60 });
  }
  await expect(bench.callout("69 slot above centre")).toContainText("true");
  // points at the crossings
  await bench.tool("QD", "Point");
  const boss = { x: 95 * Math.cos(Math.PI / 6), y: -95 * Math.sin(Math.PI / 6) };
  for (const at of [{ x: 0, y: 95 }, boss, { x: -boss.x, y: boss.y }, { x: 15, y: 69 }, { x: -15, y: 69 }])
    await bench.click({ x: at.x + 0.4, y: at.y + 0.4 });
  const { entity } = await content(bench);
  const points = entity.filter(({ kind }) => kind === "point").map(({ at }) => at!);
  [{ x: 0, y: 95 }, boss, { x: -boss.x, y: boss.y }, { x: 15, y: 69 }, { x: -15, y: 69 }].forEach((at, i) => {
    expect(Math.hypot(points[i]!.x - at.x, points[i]!.y - at.y)).toBeLessThan(1e-9 * 95);
  });
  expect(entity.every(({ layer }) => layer === 2)).toBe(true); // all of it is layout
});

test("the other layout tools: through two points, square to, bisector, divide, layout into cut", async ({ page }) => {
  const bench = await fromSketch(page, "0501");
  const last = async (): Promise<Row> => (await content(bench)).entity.at(-1)!;
  await bench.tool("QS", "Layout circle");
  await bench.type("100");
  await bench.click({ x: 0.5, y: 0.5 });
  await bench.tool("QF", "Divide");
  await bench.type("6");
  await bench.click({ x: 50, y: 0.5 });
  const sixths = (await content(bench)).entity.filter(({ kind }) => kind === "point").map(({ at }) => at!);
  expect(sixths).toHaveLength(6);
  for (const at of sixths) expect(Math.hypot(at.x, at.y)).toBeCloseTo(50, 9);
  await bench.tool("QW", "Through two points");
  await bench.click({ x: 50.3, y: 0.3 });
  await bench.click({ x: 25.2, y: 43.5 });
  const through = await last();
  // the divided circle starts where the drafter clicked
  expect(Math.abs(Math.sin(through.angle! - (2 * Math.PI) / 3))).toBeLessThan(1e-6);
  await bench.tool("QR", "Square to");
  await bench.click({ x: 37.5, y: 21.65 });
  await bench.click({ x: 0.3, y: 0.3 });
  const square = await last();
  expect(Math.abs(Math.cos(square.angle! - through.angle!))).toBeLessThan(1e-12);
  expect(square.through).toEqual({ x: 0, y: 0 });
  await bench.tool("QT", "Bisector");
  await bench.click({ x: 90, y: 0.2 });
  await bench.click({ x: 0.2, y: 66 });
  expect((await last()).angle).toBeCloseTo(Math.PI / 4, 12);
  await bench.tool("QA", "Layout line");
  await bench.click({ x: -40, y: -40 });
  await bench.type("25");
  await page.keyboard.press("Tab");
  await bench.type("0");
  await page.keyboard.press("Enter");
  await page.keyboard.press("Enter");
  const drawn = await last();
  expect([drawn.layer, drawn.b!.x - drawn.a!.x, drawn.b!.y - drawn.a!.y]).toEqual([2, 25, 0]);
  await bench.tool("QG", "Layout to cut");
  await bench.click({ x: -40 + 8, y: drawn.a!.y });
  await expect(bench.pieces).toContainText("1 open chain");
  await page.getByRole("radio", { name: "cut to layout" }).click();
  await bench.click({ x: -40 + 8, y: drawn.a!.y });
  await expect(bench.pieces).not.toContainText("open chain");
});

test("a callout is changed, answered by what is selected, let go and removed, and undo covers it", async ({ page }) => {
  const bench = await fromSketch(page, "0502");
  const line = page.getByLabel("Write a callout");
  await typeOver(line, "26 d bore");
  await line.press("Enter");
  await line.press("Escape");
  const row = bench.callout("Ø 26 bore");
  const menu = async (name: string): Promise<void> => {
    await row.hover();
    await page.getByRole("button", { name: "More for Ø 26 bore" }).click();
    await page.getByRole("menuitem", { name }).click();
  };
  await bench.tool("EE", "Circle");
  await bench.type("12.9r"); // the drafter's slip
  await bench.click({ x: 20, y: 10 });
  await page.keyboard.press("Escape");
  await bench.click({ x: 20 + 12.9, y: 10 });
  await menu("Answer with what is selected");
  await expect(row).toContainText("off by −0.2");
  await menu("Let go");
  await expect(row).toContainText("not placed");
  await page.keyboard.press("Control+z");
  await expect(row).toContainText("off by −0.2");
  await menu("Change");
  await expect(page.getByLabel("Change the callout")).toHaveValue("26 d bore");
  await typeOver(page.getByLabel("Change the callout"), "25.8 d ±0.05 bore");
  await page.keyboard.press("Enter");
  await expect(bench.callout("Ø 25.8 bore")).toContainText("true");
  await page.keyboard.press("Control+z");
  await expect(row).toContainText("off by −0.2");
  await menu("Remove");
  await expect(row).toBeHidden();
  await page.getByRole("button", { name: "Undo" }).last().click();
  await expect(row).toContainText("off by −0.2");
});

test("several pictures stand beside one board; what is no picture is refused in a sentence", async ({ page }) => {
  const bench = await fromSketch(page, "0503");
  const card = page.getByRole("region", { name: "Sketch card" });
  const files = card.getByLabel("Pictures of the sketch");
  await files.setInputFiles({
    name: "more.svg",
    mimeType: "image/svg+xml",
    buffer: Buffer.from(
      '<svg xmlns="http://www.w3.org/2000/svg" width="80" height="40"><path d="M0 0L80 40" stroke="black"/></svg>',
    ),
  });
  await expect(card).toContainText("2 of 2");
  await card.getByRole("button", { name: "Sketch before" }).click();
  await expect(card).toContainText("1 of 2");
  for (const [name, mimeType, buffer, reason] of [
    ["torn.png", "image/png", readFileSync(sketch).subarray(0, 30), "torn.png is no picture that can be shown"],
    ["notes.txt", "text/plain", Buffer.from("12 d"), "notes.txt is no picture that can be shown"],
    ["empty.png", "image/png", Buffer.alloc(0), "empty.png is empty"],
  ] as const) {
    await files.setInputFiles({ name, mimeType, buffer: Buffer.from(buffer) });
    await expect(page.getByText(reason)).toBeVisible();
  }
  await expect(card).toContainText("1 of 2");
  await card.getByRole("button", { name: "More for the sketch" }).click();
  await page.getByRole("menuitem", { name: "Take this picture off the job" }).click();
  await expect(card).not.toContainText("of 2");
  await page.getByText("taken off the job").locator("..").locator("..").getByRole("button", { name: "Undo" }).click();
  await expect(card).toContainText("of 2");
  expect(await bench.revision()).toBe(0);
});

test("points by numbers: from the datum, from the last point, polar, and mixed with the pointer", async ({ page }) => {
  const bench = await fromSketch(page, "0504");
  const points = async (): Promise<Place[]> =>
    (await content(bench)).entity.filter(({ kind }) => kind === "point").map(({ at }) => at!);
  await bench.tool("QD", "Point");
  await bench.type("30"); // nothing else takes a digit here: it opens x
  await page.keyboard.press("Enter");
  await bench.type("-12.5"); // and goes on to y
  await page.keyboard.press("Enter");
  await page.keyboard.press("Enter");
  expect(await points()).toEqual([{ x: 30, y: -12.5 }]);
  // x typed, y from the pointer
  await bench.type("50");
  await bench.click({ x: 10, y: 20 });
  const mixed = (await points())[1]!;
  expect(mixed.x).toBe(50);
  expect(Math.abs(mixed.y - 20)).toBeLessThan(0.5);

  // the datum on a snap: coordinates count from there
  await bench.tool("BA", "Set the datum");
  await bench.click({ x: 30.2, y: -12.3 });
  await bench.tool("QD", "Point");
  await bench.type("5");
  await page.keyboard.press("Tab");
  await page.keyboard.type("0");
  await page.keyboard.press("Enter");
  await page.keyboard.press("Enter");
  expect((await points())[2]).toEqual({ x: 35, y: -12.5 });

  // a line whose end is 40 from its start, straight up: polar from the last point
  await bench.tool("WQ", "Line");
  await page.keyboard.press("Shift+Tab"); // back from the length to the point
  await bench.type("0");
  await page.keyboard.press("Tab");
  await page.keyboard.type("0");
  await page.keyboard.press("Enter");
  await page.keyboard.press("Enter");
  await page.keyboard.press("Shift+Tab");
  await bench.type("1");
  await page.getByRole("radio", { name: "polar" }).click();
  await page.getByRole("radio", { name: "last point" }).click();
  await typeOver(page.getByLabel("distance"), "40");
  await typeOver(page.getByLabel("direction"), "90");
  await page.keyboard.press("Enter");
  await page.keyboard.press("Enter");
  const line = (await content(bench)).entity.at(-1)!;
  expect(line).toMatchObject({ kind: "piece", a: { x: 30, y: -12.5 }, b: { x: 30, y: 27.5 } });
});
