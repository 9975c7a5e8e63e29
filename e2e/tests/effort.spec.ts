import { expect, test, type Page } from "@playwright/test";
import { Bench, type Place } from "../support/bench.ts";
import { MARK_LAYER, PROFILE_LAYER } from "@ash-edge/core/drawing";
import { polar } from "../support/demoJobs.ts";
import { closedForm, contoursOf, measured, newJob, rowsOf } from "../support/drawn.ts";

/**
 * Counts what a drafter does: a click, a value typed with its Enter, a tool by its two keys, and a drag are one each.
 */
class Hand {
  readonly bench: Bench;
  readonly page: Page;
  gestures = 0;
  enters = 0;
  constructor(bench: Bench) {
    this.bench = bench;
    this.page = bench.page;
  }
  async tool(keys: string, name: string): Promise<void> {
    this.gestures += 1;
    await this.bench.tool(keys, name);
  }
  async typed(...values: readonly string[]): Promise<void> {
    for (const value of values) {
      this.gestures += 1;
      await this.page.keyboard.type(value);
      await this.page.keyboard.press("Enter");
    }
  }
  async click(place: Place): Promise<void> {
    this.gestures += 1;
    await this.bench.click(place);
  }
  async drag(from: Place, ...to: readonly Place[]): Promise<void> {
    this.gestures += 1;
    await this.bench.point(from);
    await this.page.mouse.down();
    for (const place of to) await this.bench.point(place);
    await this.page.mouse.up();
  }
  async enter(): Promise<void> {
    this.enters += 1;
    await this.page.keyboard.press("Enter");
  }
  /** A side of an outline: where it runs to is shown by the pointer, its length is typed. */
  async side(towards: Place, length: string): Promise<void> {
    await this.bench.point(towards);
    await this.typed(length);
    await this.enter();
  }
}
const started = async (page: Page, number: string, unit: "mm" | "in"): Promise<Hand> => {
  const bench = new Bench(page);
  await newJob(bench, number, unit);
  return new Hand(bench);
};
const rows = (hand: Hand) => rowsOf(hand.bench);
/** Turns the wheel until a place is in sight with some room round it; moving and zooming make nothing. */
const inSight = async ({ bench, page }: Hand, ...places: readonly Place[]): Promise<void> => {
  const box = (await bench.board.boundingBox())!;
  const middle = { x: box.x + box.width / 2, y: box.y + box.height / 2 };
  for (let n = 0; n < 40; n++) {
    const all = await Promise.all(places.map((place) => bench.at(place)));
    const seen = ({ x, y }: Place): boolean =>
      x > box.x + 40 && x < box.x + box.width - 40 && y > box.y + 60 && y < box.y + box.height - 40;
    if (all.every(seen)) return;
    await page.mouse.move(middle.x, middle.y);
    await page.mouse.wheel(0, 240);
    await page.waitForTimeout(30);
  }
};

test("a bar with one round end, a step and two holes: at most 20 gestures", async ({ page }) => {
  const hand = await started(page, "0501", "in");
  await hand.tool("WW", "Outline");
  await hand.typed("0;0");
  await hand.side({ x: 3, y: 0.02 }, "18");
  await inSight(hand, { x: -1, y: -1 }, { x: 19, y: 5 });
  await hand.side({ x: 18.05, y: 1 }, "3.5-1.854");
  await hand.side({ x: 12, y: 1.66 }, "18-7.2837");
  await hand.side({ x: 7.3, y: 2.4 }, "1.854");
  await hand.side({ x: 3, y: 3.52 }, "7.2837");
  await hand.enter();
  await expect(page.getByText("The outline is closed.")).toBeVisible();
  await hand.tool("SS", "Fillet");
  await hand.typed("1.75 1.75 .7813 1/16 1/4");
  for (const at of [
    { x: 0, y: 0 },
    { x: 0, y: 3.5 },
    { x: 7.2837, y: 1.646 },
    { x: 18, y: 1.646 },
    { x: 18, y: 0 },
  ])
    await hand.click(at);
  await hand.tool("XX", "Hole");
  await hand.typed("1.0625d", "1.75;1.75", "10.5;1");
  await expect.poll(async () => (await rows(hand)).filter(({ kind }) => kind === "circle").length).toBe(2);
  const all = await rows(hand);
  const outline = all.find(({ kind }) => kind === "chain")!;
  const holes = all.filter(({ kind }) => kind === "circle");
  // by the closed forms of its rectangles, corners (R² (1 - π/4) each) and holes
  const corner = (r: number): number => r * r * (1 - Math.PI / 4);
  const area =
    18 * 3.5 -
    1.854 * (18 - 7.2837) -
    2 * corner(1.75) -
    corner(1 / 16) -
    corner(1 / 4) +
    corner(0.7813) -
    holes.length * Math.PI * (1.0625 / 2) ** 2;
  const own = measured(outline.vertices!).area - holes.reduce((sum, { radius }) => sum + Math.PI * radius! ** 2, 0);
  expect(own).toBeCloseTo(area, 9);
  // the outline alone, from an independent computation
  expect(measured(outline.vertices!).area).toBeCloseTo(41.934291980188206, 9);
  console.log(`bar: ${hand.gestures} gestures (and ${hand.enters} times Enter alone)`);
  expect(hand.gestures).toBeLessThanOrEqual(20);
});

test("a link of three bosses with tangents and an arc below", async ({ page }) => {
  const hand = await started(page, "0502", "mm");
  await hand.tool("TR", "Ring");
  await hand.typed("20 10", "0;0", "80;0", "27 13.5", "40;25.5");
  await inSight(hand, { x: -20, y: -20 }, { x: 100, y: 50 });
  const away = Math.hypot(40, 25.5);
  const lean = Math.atan2(25.5, 40);
  const turn = Math.PI / 2 + lean + Math.asin(3.5 / away);
  const on = (x: number, y: number, r: number, angle: number): Place => ({
    x: x + r * Math.cos(angle),
    y: y + r * Math.sin(angle),
  });
  await hand.tool("RR", "Tangent line");
  await hand.click(on(0, 0, 10, turn));
  await hand.click(on(40, 25.5, 13.5, turn));
  await hand.click(on(40, 25.5, 13.5, Math.PI - turn));
  await hand.click(on(80, 0, 10, Math.PI - turn));
  await hand.tool("RQ", "Tangent arc");
  await hand.typed("49");
  const below = Math.asin(40 / 59);
  await hand.click(on(0, 0, 10, below - Math.PI / 2));
  await hand.click(on(80, 0, 10, -Math.PI / 2 - below));
  await hand.tool("FQ", "Keep areas");
  await hand.drag(
    { x: -7.5, y: 0.2 },
    { x: 10, y: 4 },
    { x: 40, y: 15 },
    { x: 48.5, y: 22 },
    { x: 70, y: 4 },
    { x: 87.5, y: 0.2 },
  );
  await hand.enter();
  await expect.poll(async () => (await rows(hand)).filter(({ kind }) => kind === "chain").length).toBeGreaterThan(0);
  console.log(`link: ${hand.gestures} gestures (and ${hand.enters} times Enter alone)`);
  expect(hand.gestures).toBeLessThanOrEqual(18);
});

test("a cover with a boss, its corners rounded and grown all round by half an inch", async ({ page }) => {
  const hand = await started(page, "0503", "in");
  await hand.tool("WW", "Outline");
  await hand.typed("7;0", "0;0");
  await inSight(hand, { x: -1, y: -1 }, { x: 10, y: 5.5 });
  await hand.side({ x: 0.01, y: 2 }, "2.5");
  await hand.side({ x: 0.8, y: 2.51 }, "1");
  await hand.side({ x: 1.01, y: 4 }, "2");
  await hand.typed("7.5;4.5");
  // round the boss until it heads for the start, then closed by the straight tangent
  await page.keyboard.press("Backquote");
  await hand.typed("1.5");
  await hand.bench.point({ x: 7, y: 0 });
  await page.keyboard.press("Space");
  await hand.click({ x: 7, y: 0 });
  await page.keyboard.press("Backquote");
  await hand.enter();
  await expect(page.getByText("The outline is closed.")).toBeVisible();
  await hand.tool("SS", "Fillet");
  await hand.typed(".75 .25 1");
  await hand.click({ x: 1, y: 4.5 });
  await hand.click({ x: 1, y: 2.5 });
  await hand.click({ x: 7, y: 0 });
  await hand.tool("FF", "Offset");
  await hand.typed(".5");
  await hand.click({ x: 0, y: 1.2 });
  await hand.bench.point({ x: -0.4, y: 1.2 });
  await hand.enter();
  const grown = async () =>
    (await rows(hand))
      .filter(({ kind, closed }) => kind === "chain" && closed)
      .map(({ vertices }) => measured(vertices!));
  await expect.poll(async () => (await grown()).length).toBe(2);
  console.log(`cover: ${hand.gestures} gestures (and ${hand.enters} times Enter alone)`);
  // Steiner's formula for parallel curves bounds it: less than A + P d + π d², as its hollow corner shares what it
  // grows
  const [made] = (await grown()).sort((p, q) => q.area - p.area);
  const [area, around] = [35.378, 24.53]; // of the outline before, as Pieces shows them
  expect(made!.area).toBeLessThan(area + around * 0.5 + Math.PI * 0.25);
  expect(made!.area).toBeGreaterThan(area + around * 0.5);
  expect(hand.gestures).toBeLessThanOrEqual(22);
});

test("a new drafter's plate: rounded and cut corners, bolt circle, slot, a rounded notch, a mark line inside", async ({
  page,
}) => {
  const hand = await started(page, "0504", "mm");
  await hand.tool("TT", "Rectangle");
  await hand.typed("240", "150", "0;0");
  await inSight(hand, { x: -15, y: -15 }, { x: 255, y: 180 });
  await hand.tool("SS", "Fillet");
  await hand.typed("20");
  for (const at of [
    { x: 0, y: 0 },
    { x: 240, y: 0 },
    { x: 0, y: 150 },
  ])
    await hand.click(at);
  await hand.tool("SQ", "Chamfer");
  await hand.typed("30");
  await hand.click({ x: 240, y: 150 });
  await hand.tool("EE", "Circle");
  await hand.typed("25r", "120;150", "60d", "80;75");
  await hand.tool("FE", "Take away");
  await hand.click({ x: 160, y: 0 });
  await hand.click({ x: 120, y: 125 });
  await hand.tool("SS", "Fillet");
  await hand.typed("6");
  await hand.click({ x: 95, y: 150 });
  await hand.click({ x: 145, y: 150 });
  await hand.tool("XE", "Bolt circle");
  await hand.typed("6", "9", "90", "80;75");
  await hand.typed("15");
  await hand.enter();
  await hand.tool("TW", "Slot");
  await hand.typed("12", "190;50", "190;100");
  await hand.tool("FF", "Offset");
  await page.getByRole("radio", { name: "as a mark" }).click();
  hand.gestures += 1;
  await hand.typed("5");
  await hand.click({ x: 160, y: 0 });
  await hand.click({ x: 160, y: 5 });
  await expect.poll(async () => contoursOf(await rows(hand)).length).toBe(3);
  console.log(`plate: ${hand.gestures + hand.enters} gestures, Enter alone among them`);
  expect(hand.gestures + hand.enters).toBeLessThanOrEqual(45);

  const all = await rows(hand);
  const [outline, mark, slot] = contoursOf(all);
  expect([outline, mark, slot].map((one) => one!.row.layer)).toEqual([PROFILE_LAYER, MARK_LAYER, PROFILE_LAYER]);
  // the R 6 touch the top edge and the R 25 from outside: 31 between their centres, 6 below the edge
  const away = Math.sqrt(31 ** 2 - 6 ** 2);
  const touch = { dx: (25 * away) / 31, dy: (25 * 6) / 31 };
  const known = closedForm(
    [
      { x: 20, y: 0 },
      { x: 220, y: 0 },
      { x: 240, y: 20 },
      { x: 240, y: 120 },
      { x: 210, y: 150 },
      { x: 120 + away, y: 150 },
      { x: 120 + touch.dx, y: 150 - touch.dy },
      { x: 120 - touch.dx, y: 150 - touch.dy },
      { x: 120 - away, y: 150 },
      { x: 20, y: 150 },
      { x: 0, y: 130 },
      { x: 0, y: 20 },
    ],
    [0, 20, 0, 0, 0, 6, -25, 6, 0, 20, 0, 20],
  );
  expect(outline!.area).toBeCloseTo(known.area, 8);
  expect(outline!.length).toBeCloseTo(known.length, 9);
  // Steiner's formula for parallel curves, 5 inwards: arcs turn by 3/4 of a circle in all, two sharp corners by 45°
  const turned = (2 * Math.PI * 3) / 4 / 2 + 2 * Math.tan(Math.PI / 8);
  expect(mark!.area).toBeCloseTo(known.area - 5 * known.length + 25 * turned, 8);
  expect(slot!.area).toBeCloseTo(12 * 50 + 36 * Math.PI, 9);
  const holes = all.filter(({ kind }) => kind === "circle");
  expect(holes.map(({ radius }) => radius)).toEqual([30, ...Array<number>(6).fill(4.5)]);
  holes.slice(1).forEach(({ centre }, i) => {
    const place = polar(45, 15 + 60 * i, { x: 80, y: 75 });
    expect(centre!.x).toBeCloseTo(place.x, 10);
    expect(centre!.y).toBeCloseTo(place.y, 10);
  });
});
