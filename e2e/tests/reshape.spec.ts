import { expect, test, type Page } from "@playwright/test";
import { Bench, type Place, typeOver } from "../support/bench.ts";
import { drawHourHand, drawMinuteHand, fill, fitView, uniteMinuteHand } from "../support/demoJobs.ts";
import { closedForm, contoursOf, newJob, rowsOf, typePoint } from "../support/drawn.ts";
import { throughToTestRun } from "../support/testRun.ts";

const bound = (size: number): number => 1e-9 * size + 8 * 2 ** -40;
const started = async (page: Page, number: string, unit: "mm" | "in" = "mm"): Promise<Bench> => {
  const bench = new Bench(page);
  await newJob(bench, number, unit);
  return bench;
};
/** A rectangle from the datum, and the whole of it in sight. */
const rectangle = async (bench: Bench, width: string, height: string): Promise<void> => {
  await bench.tool("TT", "Rectangle");
  await fill(bench, { width, height });
  await typePoint(bench, "point", { x: 0, y: 0 });
  await bench.page.keyboard.press("Escape");
  await fitView(bench);
};
/** Lines by their numbers: start, angle and length. */
const lines = async (bench: Bench, all: readonly (readonly [at: Place, angle: string, length: string])[]) => {
  await bench.tool("WE", "Line at an angle");
  for (const [at, angle, length] of all) {
    await fill(bench, { angle, length });
    await bench.click(at);
    await bench.page.keyboard.press("Enter");
  }
  await bench.page.keyboard.press("Escape");
};
const drag = async (bench: Bench, from: Place, to: Place): Promise<void> => {
  await bench.point(from);
  await bench.page.mouse.down();
  await bench.point(to);
  await bench.page.mouse.up();
};
const undo = (bench: Bench): Promise<void> => bench.page.keyboard.press("Control+z");

test(
  "a bar 18 by 3.5: corners of exactly half its height make a full round end, a trace more is refused with " +
    "the largest",
  async ({ page }) => {
    const bench = await started(page, "7101", "in");
    await rectangle(bench, "18", "3.5");
    await bench.tool("SS", "Fillet");
    await bench.type("1.75");
    await bench.click({ x: 18, y: 0 });
    await bench.click({ x: 18, y: 3.5 });
    const [bar] = contoursOf(await rowsOf(bench));
    expect(bar!.row.vertices).toHaveLength(5); // nothing is left of the edge between the arcs
    expect(Math.abs(bar!.area - (16.25 * 3.5 + (Math.PI * 1.75 ** 2) / 2))).toBeLessThan(bound(64));
    await undo(bench);
    await page.keyboard.press("Delete");
    await bench.type("1.750001");
    await bench.click({ x: 18, y: 3.5 });
    await expect(page.getByRole("alert")).toContainText("1.75");
    expect(contoursOf(await rowsOf(bench))[0]!.row.vertices).toHaveLength(5);
    // the largest is offered, and works
    await page.getByRole("button", { name: "Take R 1 3/4" }).click();
    await bench.click({ x: 18, y: 3.5 });
    const [again] = contoursOf(await rowsOf(bench));
    expect(again!.row.vertices).toHaveLength(5);
    expect(again!.area).toBe(bar!.area);
  },
);

test("fillets: a box of two contours, edges kept, and one that goes on to the arc beside its edge", async ({
  page,
}) => {
  const bench = await started(page, "7105");
  await rectangle(bench, "50", "40");
  await bench.tool("TT", "Rectangle");
  await fill(bench, { width: "30", height: "40" });
  await typePoint(bench, "point", { x: 60, y: 0 });
  await page.keyboard.press("Escape");
  await page.keyboard.press("Escape");
  await fitView(bench);
  const areas = async (): Promise<readonly number[]> => contoursOf(await rowsOf(bench)).map(({ area }) => area);
  const arcs = async (): Promise<number> =>
    (await rowsOf(bench)).filter(({ kind, bulge }) => kind === "piece" && bulge !== 0).length;
  await bench.tool("SS", "Fillet");
  await bench.type("3");
  await page.keyboard.press("Enter");
  await page.getByRole("radio", { name: "keep", exact: true }).click();
  await drag(bench, { x: -6, y: -6 }, { x: 96, y: 6 });
  await expect(page.getByText("4 corners rounded.")).toBeVisible();
  expect(await arcs()).toBe(4);
  expect((await areas()).map((area) => Math.round(area))).toEqual([2000, 1200]);
  await undo(bench);
  await page.getByRole("radio", { name: "trim the edges" }).click();
  await drag(bench, { x: -6, y: -6 }, { x: 96, y: 6 });
  await expect.poll(async () => (await areas())[0]).toBeCloseTo(2000 - (2 - Math.PI / 2) * 9, 9);
  expect((await areas())[1]).toBeCloseTo(1200 - (2 - Math.PI / 2) * 9, 9);
  await undo(bench);
  // an edge of 40 with a rounding of 25 at its top is 15 long; one of 18 at its foot goes on to that arc
  for (const [radius, y] of [
    ["25", 40],
    ["18", 0],
  ] as const) {
    await page.keyboard.press("Escape");
    await page.keyboard.press("Escape");
    await bench.tool("SS", "Fillet");
    await bench.type(radius);
    await page.keyboard.press("Enter");
    await bench.click({ x: 50, y });
  }
  const chain = (await rowsOf(bench)).filter(({ kind }) => kind === "chain").sort((p, q) => p.id - q.id)[0]!;
  // by hand: its middle is 18 above the bottom, and 25 - 18 from that of the other, at (25, 15)
  const x = 25 + Math.sqrt(7 ** 2 - 3 ** 2);
  const foot = chain.vertices!.find(({ at }) => Math.abs(at.y) < 1e-9 && at.x > 1)!;
  expect(foot.at.x).toBeCloseTo(x, 6);
});

test("corners: the whole contour rounded, one changed, one sharpened, a box of them cut off, each one undo", async ({
  page,
}) => {
  const bench = await started(page, "7102");
  await rectangle(bench, "120", "80");
  const area = async (): Promise<number> => contoursOf(await rowsOf(bench))[0]!.area;
  const lost = (r: number): number => r * r * (1 - Math.PI / 4);
  await bench.tool("SS", "Fillet");
  await bench.type("10");
  await page.keyboard.press("Enter");
  await page.getByRole("radio", { name: "whole contour" }).click();
  await bench.click({ x: 60, y: 0 });
  await expect(page.getByText("4 corners rounded.")).toBeVisible();
  expect(await area()).toBeCloseTo(9600 - 4 * lost(10), 6);
  await bench.tool("SR", "Change fillet");
  await bench.type("30");
  const mid = (r: number): number => r * (1 - Math.SQRT1_2);
  await bench.click({ x: 120 - mid(10), y: 80 - mid(10) });
  expect(await area()).toBeCloseTo(9600 - 3 * lost(10) - lost(30), 6);
  await bench.tool("ST", "Sharpen");
  await bench.click({ x: mid(10), y: mid(10) });
  expect(await area()).toBeCloseTo(9600 - 2 * lost(10) - lost(30), 6);
  for (let i = 0; i < 3; i++) await undo(bench);
  expect(await area()).toBeCloseTo(9600, 9);
  await bench.tool("SQ", "Chamfer");
  await bench.type("12");
  await page.keyboard.press("Enter");
  await drag(bench, { x: 105, y: -12 }, { x: 132, y: 92 });
  await expect(page.getByText("2 corners cut off.")).toBeVisible();
  expect(await area()).toBeCloseTo(9600 - 144, 9);
  // the history names the steps and goes to any of them, and a reload keeps that place
  await page.getByRole("button", { name: "History", exact: true }).click();
  const steps = page.getByRole("listbox", { name: "Steps made" }).getByRole("option");
  await expect(steps).toHaveText([/As it was at first/, /Rectangle/, /Chamfer/]);
  await steps.filter({ hasText: "As it was at first" }).click();
  await expect(page.getByText("Undone: 2 steps.")).toBeVisible();
  await bench.saved();
  await bench.reload();
  expect(contoursOf(await rowsOf(bench))).toHaveLength(0);
  await page.getByRole("button", { name: "History", exact: true }).click();
  await steps.filter({ hasText: "Chamfer" }).click();
  expect(await area()).toBeCloseTo(9600 - 144, 9);
});

test("a wedge cut out of a disc, or kept", async ({ page }) => {
  const bench = await started(page, "7103");
  await bench.tool("EE", "Circle");
  await bench.type("40r");
  await typePoint(bench, "centre", { x: 0, y: 0 });
  await fitView(bench);
  await lines(bench, [
    [{ x: 0.2, y: 0.2 }, "20", "40"],
    [{ x: 0.2, y: 0.2 }, "80", "40"],
  ]);
  const on = (degrees: number): Place => ({
    x: 40 * Math.cos((degrees * Math.PI) / 180),
    y: 40 * Math.sin((degrees * Math.PI) / 180),
  });
  const joined = async (): Promise<number> => {
    await bench.tool("GG", "Join");
    await page.keyboard.press("Enter");
    await expect(page.getByText("Joined: 1 contour from 3 pieces.")).toBeVisible();
    return contoursOf(await rowsOf(bench))[0]!.area;
  };
  await bench.tool("AA", "Trim");
  await page.getByRole("radio", { name: "all but layout" }).click(); // the datum's axes are layout
  await bench.click(on(50));
  expect(await joined()).toBeCloseTo(Math.PI * 1600 * (300 / 360), 6);
  for (let i = 0; i < 2; i++) await undo(bench);
  await bench.tool("AA", "Trim");
  await bench.click(on(140));
  expect(await joined()).toBeCloseTo(Math.PI * 1600 * (60 / 360), 6);
});

test("a drag trims what runs over, another brings ends to one line; what nothing crosses goes whole", async ({
  page,
}) => {
  const bench = await started(page, "7104");
  await rectangle(bench, "100", "60");
  await lines(
    bench,
    [20, 50, 80].map((x) => [{ x, y: 0 }, "270", "15"] as const),
  );
  await fitView(bench);
  const stubs = async (): Promise<readonly number[]> =>
    (await rowsOf(bench)).flatMap(({ kind, a, b }) => (kind === "piece" ? [Math.abs(a!.y - b!.y)] : []));
  expect(await stubs()).toHaveLength(3);
  await bench.tool("AA", "Trim");
  await drag(bench, { x: 10, y: -8 }, { x: 62, y: -8 });
  await expect(page.getByText("2 removed whole: nothing crossed them.")).toBeVisible();
  expect(await stubs()).toHaveLength(1);
  await undo(bench);
  expect(await stubs()).toHaveLength(3);
  await bench.tool("AQ", "Extend");
  await drag(bench, { x: 10, y: -1 }, { x: 90, y: -1 });
  await expect(page.getByText("3 ends moved.")).toBeVisible();
  for (const length of await stubs()) expect(length).toBeCloseTo(75, 9);
  await bench.tool("EE", "Circle");
  await bench.type("8r");
  await typePoint(bench, "centre", { x: 100, y: 70 });
  await bench.tool("AA", "Trim");
  await bench.click({ x: 100, y: 78 });
  await expect(page.getByText("Nothing crossed it, so the whole piece was removed.")).toBeVisible();
});

test("a part drawn half and mirrored is one closed contour; the line it lies on is not doubled", async ({ page }) => {
  const bench = await started(page, "7105");
  await lines(bench, [
    [{ x: 0.2, y: 0.2 }, "0", "30"],
    [{ x: 30, y: 0 }, "90", "20"],
    [{ x: 30, y: 20 }, "150", "34.64101615137755"],
  ]);
  await bench.tool("GG", "Join");
  await page.keyboard.press("Enter");
  await expect(page.getByText(/1 open chain from 3 pieces · 2 ends open/)).toBeVisible();
  await page.keyboard.press("Escape");
  await bench.click({ x: 30, y: 10 });
  await bench.tool("DR", "Mirror");
  await page.getByRole("radio", { name: "two points" }).click();
  await bench.click({ x: 0.2, y: 0.2 });
  await bench.click({ x: 0.1, y: 37.1 });
  const rows = await rowsOf(bench);
  const [whole] = contoursOf(rows);
  // trapezium 30 wide, 20 and 20 + 34.641 sin 30° high, on both sides
  expect(whole!.area).toBeCloseTo(2 * ((20 + 20 + 34.64101615137755 / 2) / 2) * 30, 6);
  expect(rows.filter(({ kind }) => kind === "chain" || kind === "piece")).toHaveLength(1);
});

test("rows with some left out by their numbers", async ({ page }) => {
  const bench = await started(page, "7106");
  await bench.tool("EE", "Circle");
  await bench.type("4r");
  await typePoint(bench, "centre", { x: 0, y: 0 });
  await page.keyboard.press("Escape");
  await fitView(bench);
  await bench.click({ x: 4, y: 0 });
  await bench.tool("DA", "Rows");
  await fill(bench, { columns: "4", rows: "2", across: "20", up: "15" });
  await typeOver(bench.blank("leave out"), "6, x");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("alert")).toContainText("“x” is no number or range");
  await fill(bench, { "leave out": "6-7" });
  await expect(page.getByText("6 in all · click or Enter makes them")).toBeVisible();
  await page.keyboard.press("Enter");
  await expect(page.getByText("5 copies made.")).toBeVisible();
  const centres = (await rowsOf(bench)).flatMap(({ centre }) =>
    centre ? [[Math.round(centre.x), Math.round(centre.y)]] : [],
  );
  expect(centres).toEqual([
    [0, 0],
    [20, 0],
    [40, 0],
    [60, 0],
    [0, 15],
    [60, 15],
  ]);
  await undo(bench);
  expect(await rowsOf(bench).then((rows) => rows.filter(({ kind }) => kind === "circle"))).toHaveLength(1);
});

test("a hand: a line tapering from 20 to 8 with round ends becomes one contour", async ({ page }) => {
  const bench = await started(page, "7107");
  await lines(bench, [[{ x: 0.2, y: 0.2 }, "0", "90"]]);
  await fitView(bench);
  await bench.tool("FT", "Give width");
  await fill(bench, { width: "20", "width at the end": "8" });
  await page.getByRole("radio", { name: "round" }).first().click();
  await bench.click({ x: 45, y: 0 });
  const [hand] = contoursOf(await rowsOf(bench));
  // the ends are arcs that touch both sides: circles of half the width over cos α, whose slope tan α is 6 in 90
  const slope = Math.atan(6 / 90);
  const [big, small] = [10, 4].map((half) => half / Math.cos(slope)) as [number, number];
  const segment = (r: number, sweep: number): number => ((sweep - Math.sin(sweep)) * r * r) / 2;
  const area = (90 * 28) / 2 + segment(big, Math.PI + 2 * slope) + segment(small, Math.PI - 2 * slope);
  expect(Math.abs(hand!.area - area)).toBeLessThan(bound(area));
  expect(hand!.row.vertices).toHaveLength(4);
  expect((await rowsOf(bench)).filter(({ kind }) => kind === "piece")).toHaveLength(0);
});

test("job 0417: a hand drawn with its widths, another given them piece by piece; each one contour", async ({
  page,
}) => {
  test.setTimeout(120_000);
  const bench = new Bench(page);
  await bench.open("Station clock hands");
  await drawMinuteHand(bench);
  await expect(page.getByText("Not placed any more: 300 minute hand")).toBeVisible(); // its line is gone
  // a strip, a trapezoid, a half circle at the tail, and the arc that touches both sides at the tip
  const slope = Math.atan(8 / 300);
  const tip = (half: number, turn: number): number => {
    const r = half / Math.cos(turn);
    const sweep = Math.PI - 2 * turn;
    return ((sweep - Math.sin(sweep)) * r * r) / 2;
  };
  const area = 90 * 18 + 300 * 18 + (Math.PI * 81) / 2 + tip(5, slope);
  const [minute] = contoursOf(await rowsOf(bench));
  expect(Math.abs(minute!.area - area)).toBeLessThan(bound(area));
  // one piece taken back at a time, and done again
  await page.keyboard.press("Escape");
  await page.keyboard.press("Control+z");
  expect((await rowsOf(bench)).filter(({ kind, closed }) => kind === "chain" && closed)).toHaveLength(0);
  await page.keyboard.press("Control+y");

  await drawHourHand(bench);
  const hour = contoursOf(await rowsOf(bench)).find(({ row }) => row.vertices!.some(({ at }) => at.y < -100))!;
  const hourArea = 90 * 18 + 200 * 24 + (Math.PI * 81) / 2 + tip(7, Math.atan(10 / 200));
  expect(Math.abs(hour.area - hourArea)).toBeLessThan(bound(hourArea));

  await uniteMinuteHand(bench);
  const m = 8 / 300;
  await expect.poll(async () => (await rowsOf(bench)).filter(({ kind }) => kind === "circle").length).toBe(1);
  // discs, the strip between them, and the trapezoid outside the hub: closed forms
  const chord = (r: number, h: number): number => h * Math.sqrt(r * r - h * h) + r * r * Math.asin(h / r);
  const strip = 18 * 90 - chord(30, 9) - chord(20, 9);
  const x = (13 * m + Math.sqrt(900 * (1 + m * m) - 169)) / (1 + m * m); // where its side leaves the hub
  const within = 2 * (13 * x - (m * x * x) / 2) + (chord(30, 30) - chord(30, x));
  const whole = 900 * Math.PI + 400 * Math.PI + strip + (300 * 18 - within) + tip(5, slope);
  const united = contoursOf(await rowsOf(bench)).find(({ row }) => row.vertices!.every(({ at }) => at.y > -100))!;
  expect(Math.abs(united.area - whole)).toBeLessThan(bound(whole));
  const hands = contoursOf(await rowsOf(bench));
  const length = hands.reduce((sum, one) => sum + one.length, 24 * Math.PI);
  await throughToTestRun(bench, { length, contours: 3 });
});

test(
  "a cover, from layout to one contour: steps on one side, a straight top to a boss, a tangent down to the " +
    "base, fillets",
  async ({ page }) => {
    test.setTimeout(120_000);
    const bench = await started(page, "7110", "in");
    // common practice: 1, 2.5, 1 and 2 in steps, a R 1.5 boss at 7.5, a base of 7, fillets .75, .25 and 1
    await bench.tool("QQ", "Parallel");
    const parallel = async (distance: string, edge: Place, side: Place): Promise<void> => {
      await page.keyboard.press("Delete");
      await bench.type(distance);
      await bench.click(edge);
      await bench.click(side);
    };
    await parallel("7.5", { x: 0, y: -0.4 }, { x: 1, y: -0.4 });
    await fitView(bench);
    await parallel("7", { x: 0, y: -0.2 }, { x: 1, y: -0.2 });
    await parallel("2.5", { x: -0.3, y: 0 }, { x: -0.3, y: 1 });
    await page.keyboard.press("Escape");
    await page.keyboard.press("Escape");
    await bench.tool("WW", "Outline");
    await page.getByRole("radio", { name: "leave open" }).click();
    await typePoint(bench, "point or end", { x: 7, y: 0 });
    for (const [length, angle] of [
      ["7", "180"],
      ["1", "90"],
      ["2.5", "0"],
      ["1", "90"],
      ["2", "180"],
      ["2", "90"],
      ["7", "0"],
    ] as const) {
      // prettier-ignore
      await fill(bench, { length, angle });
      await page.keyboard.press("Enter");
    }
    await page.keyboard.press("Escape");
    await page.keyboard.press("Escape");
    await fitView(bench);
    await bench.tool("EE", "Circle");
    await bench.type("1.5r");
    await bench.click({ x: 7.52, y: 2.52 }); // the crossing of the layout
    await fitView(bench);
    await bench.tool("RR", "Tangent line");
    await bench.click({ x: 7.02, y: 0.02 });
    await bench.click({ x: 8.95, y: 2.3 });
    for (const key of ["KeyQ", "KeyZ"]) await page.keyboard.press(key); // the layout goes
    await bench.tool("AA", "Trim");
    await bench.click({ x: 6, y: 2.45 });
    await bench.tool("GG", "Join");
    await page.keyboard.press("Enter");
    await expect(page.getByText("Joined: 1 contour from")).toBeVisible();
    await page.keyboard.press("Escape");
    await bench.tool("SS", "Fillet");
    await page.getByRole("radio", { name: "one corner" }).click();
    for (const [radius, corners] of [
      [".75", [{ x: 0.5, y: 4 }]],
      [
        ".25",
        [
          { x: 2.5, y: 1 },
          { x: 2.5, y: 2 },
        ],
      ],
      ["1", [{ x: 7, y: 0 }]],
    ] as const) {
      await page.keyboard.press("Delete");
      await bench.type(`${radius}r`);
      for (const corner of corners) await bench.click(corner);
    }
    // the tangent from 7, 0: as long as the power of that point, and it leaves at an angle that the boss gives
    const [dx, dy, r] = [0.5, 2.5, 1.5];
    const away = Math.hypot(dx, dy);
    const long = Math.sqrt(away * away - r * r);
    const heading = Math.atan2(dy, dx) - Math.asin(r / away); // to the right of the boss
    const touch = { x: 7 + long * Math.cos(heading), y: long * Math.sin(heading) };
    // the fillet of 1 between base and tangent: R / tan(half the angle between them) from the corner
    const back = 1 / Math.tan((Math.PI - heading) / 2);
    const { area, length } = closedForm(
      [
        { x: 0, y: 0 },
        { x: 7 - back, y: 0 },
        { x: 7 + back * Math.cos(heading), y: back * Math.sin(heading) },
        touch,
        { x: 7.5, y: 4 },
        { x: 1.25, y: 4 },
        { x: 0.5, y: 3.25 },
        { x: 0.5, y: 2 },
        { x: 2.25, y: 2 },
        { x: 2.5, y: 1.75 },
        { x: 2.5, y: 1.25 },
        { x: 2.25, y: 1 },
        { x: 0, y: 1 },
      ],
      [0, 1, 0, 1.5, 0, 0.75, 0, 0, -0.25, 0, -0.25, 0, 0],
    );
    const [cover] = contoursOf(await rowsOf(bench));
    expect(cover!.row.vertices).toHaveLength(13);
    expect(Math.abs(cover!.area - area)).toBeLessThan(bound(area));
    expect(Math.abs(cover!.length - length)).toBeLessThan(bound(length));
  },
);
