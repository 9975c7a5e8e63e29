import { expect, test, type Page } from "@playwright/test";
import { measureAnnotation } from "@ash-edge/core/annotate";
import { annotationsOf, calloutsOf } from "@ash-edge/core/drawing";
import { annotationsIn, drawingOf } from "../support/annotated.ts";
import { Bench, type Place, typeOver } from "../support/bench.ts";
import { clearAndJoin, COVER, COVER_TOUCH, drawCoverPlate, polar } from "../support/demoJobs.ts";
import { closedForm, contoursOf, newJob, rowsOf, typePoint, type Row } from "../support/drawn.ts";
import { throughToTestRun } from "../support/testRun.ts";

const bound = (size: number): number => 1e-9 * size + 8 * 2 ** -40;
const deg = (radians: number): number => (radians * 180) / Math.PI;
const started = async (page: Page, number: string, unit: "mm" | "in" = "mm"): Promise<Bench> => {
  const bench = new Bench(page);
  await newJob(bench, number, unit);
  return bench;
};
test("job 0412 drawn whole: ring, bosses, R 25 on both sides of each, bore, holes on the bolt circle, slot", async ({
  page,
}) => {
  test.setTimeout(150_000);
  const bench = new Bench(page);
  await bench.open("Strainer cover plate");
  await drawCoverPlate(bench);
  const [{ ring, boss, out, fillet, turns }, { atRing, atBoss }] = [COVER, COVER_TOUCH];

  for (const row of ["Ø 120", "R 78", "R 18", "R 25", "Ø 14", "8 slot width"])
    await expect(bench.callout(row)).toContainText("true");
  const rows = await rowsOf(bench);
  const [outer, slot] = contoursOf(rows);
  const [a, b] = [(atRing * Math.PI) / 180, (atBoss * Math.PI) / 180];
  const c = Math.PI - a - b;
  // sectors of ring and bosses, and triangles of the three centres less the sectors of the R 25 (all closed forms)
  const length = 3 * ring * ((2 * Math.PI) / 3 - 2 * a) + 3 * boss * (2 * Math.PI - 2 * b) + 6 * fillet * c;
  const area =
    (3 / 2) * ring ** 2 * ((2 * Math.PI) / 3 - 2 * a) +
    (3 / 2) * boss ** 2 * (2 * Math.PI - 2 * b) +
    3 * (out * (ring + fillet) * Math.sin(a) - fillet ** 2 * c);
  expect(outer!.row.vertices).toHaveLength(12);
  expect(Math.abs(outer!.length - length)).toBeLessThan(bound(length));
  expect(Math.abs(outer!.area - area)).toBeLessThan(bound(area));
  expect(Math.abs(slot!.area - (8 * 30 + Math.PI * 16))).toBeLessThan(bound(300));
  const circles = rows.filter(({ kind }) => kind === "circle");
  expect(circles.map(({ radius }) => radius)).toEqual([60, 7, 7, 7]);
  turns.forEach((turn, i) => {
    const at = polar(out, turn);
    expect(Math.hypot(circles[i + 1]!.centre!.x - at.x, circles[i + 1]!.centre!.y - at.y)).toBeLessThan(bound(out));
  });
  await expect(bench.pieces).toContainText("1 contour, 5 holes");

  // dimensioned by its ledger, and its bolt circle by hand: every number is the one that is called, then all is undone
  for (const key of ["Escape", "Escape", "KeyZ", "KeyG"]) await page.keyboard.press(key);
  await expect(page.getByText(/^\d+ dimensions placed\.$/)).toBeVisible();
  await bench.tool("ZD", "Centre line");
  await page.getByRole("radio", { name: "round a bolt circle" }).click();
  for (const turn of turns) await bench.click(polar(7, turn + 90, polar(out, turn)));
  await page.keyboard.press("Enter");
  await expect.poll(async () => (await annotationsIn(bench)).at(-1)!.kind).toBe("centre line");
  const dimensioned = await drawingOf(bench);
  const numbers = annotationsOf(dimensioned).flatMap((one) => {
    const callout = calloutsOf(dimensioned).find(({ id }) => id === one.callout);
    return callout ? [[callout.kind, callout.value, measureAnnotation(dimensioned, one)!] as const] : [];
  });
  expect(numbers.length).toBeGreaterThanOrEqual(6);
  for (const [kind, value, { least, most }] of numbers)
    expect([kind, least, most]).toEqual([kind, expect.closeTo(value, 9), expect.closeTo(value, 9)]);
  for (const key of ["Escape", "Escape", "Control+z", "Control+z"]) await page.keyboard.press(key);
  expect(await annotationsIn(bench)).toEqual([]);

  // the 12 mm land round it: Steiner's formula, for no hollow is as small as that
  await bench.tool("FF", "Offset");
  await bench.type("12");
  await bench.click(polar(ring, 30));
  await bench.click(polar(ring + 14, 30));
  await expect.poll(async () => contoursOf(await rowsOf(bench)).length).toBe(3);
  const [land] = contoursOf(await rowsOf(bench));
  expect(land!.row.vertices).toHaveLength(12);
  expect(Math.abs(land!.length - (length + 24 * Math.PI))).toBeLessThan(bound(length));
  expect(Math.abs(land!.area - (area + 12 * length + 144 * Math.PI))).toBeLessThan(bound(area));
  // the land is another part's: taken back, and the cover goes its way
  for (const key of ["Escape", "Escape", "Control+z"]) await page.keyboard.press(key);
  const round = Math.PI * (120 + 3 * 14);
  await throughToTestRun(bench, { length: length + round + slot!.length, contours: 6 });
});

test("job 0413 drawn whole: bowed front through three points, R 40 corners against the bow, notches, vent", async ({
  page,
}) => {
  const bench = new Bench(page);
  await bench.open("Hearth stone");
  await bench.tool("WQ", "Line");
  await bench.click({ x: 2, y: 2 }); // the datum
  for (const [length, turn] of [
    ["460-75", "90"],
    ["110", "0"],
    ["75", "90"],
    ["1380-2*110", "0"],
    ["75", "-90"],
    ["110", "0"],
    ["385", "-90"],
  ] as const) {
    await bench.type(length);
    await page.keyboard.press("Tab");
    await page.keyboard.type(turn);
    await page.keyboard.press("Enter");
    await page.keyboard.press("Enter");
  }
  await expect(bench.board).toHaveAttribute("data-revision", "7");
  await page.keyboard.press("Escape");
  await page.keyboard.press("Escape");
  for (const key of ["KeyV", "KeyV"]) await page.keyboard.press(key);
  await bench.tool("EA", "Arc by three points");
  await bench.click({ x: 1379, y: 1 });
  await typePoint(bench, "through", { x: 690, y: -60 });
  await bench.click({ x: 1, y: 1 });
  await expect(bench.board).toHaveAttribute("data-revision", "8");
  await bench.tool("RQ", "Tangent arc");
  await bench.callout("R 40").click();
  const bow = (690 * 690 + 60 * 60) / 120; // circular segment: r = (c²/4 + h²) / 2h
  const onBow = (x: number): Place => ({ x, y: bow - 60 - Math.sqrt(bow * bow - (x - 690) ** 2) });
  await bench.click({ x: 0, y: 40 });
  await bench.click(onBow(60));
  await bench.click({ x: 1380, y: 40 });
  await bench.click(onBow(1320));
  await expect(bench.callout("R 40")).toContainText("true");
  await bench.tool("TW", "Slot");
  await page.getByRole("radio", { name: "overall length" }).click();
  await typeOver(bench.blank("width"), "40");
  await typeOver(bench.blank("overall length"), "200");
  await page.keyboard.press("Enter");
  await typePoint(bench, "middle", { x: 690, y: 460 - 150 });
  await page.keyboard.press("Escape");
  await clearAndJoin(bench, "Joined: 1 contour from 10 pieces.");

  // the R 40 circle: 40 from the side, bow - 40 from the bow's centre
  const y = bow - 60 - Math.sqrt((bow - 40) ** 2 - 650 ** 2);
  const part = bow / (bow - 40);
  const touch = { x: 690 - 650 * part, y: bow - 60 - (bow - 60 - y) * part };
  const corners: Place[] = [
    { x: 0, y },
    touch,
    { x: 1380 - touch.x, y: touch.y },
    { x: 1380, y },
    { x: 1380, y: 385 },
    { x: 1270, y: 385 },
    { x: 1270, y: 460 },
    { x: 110, y: 460 },
    { x: 110, y: 385 },
    { x: 0, y: 385 },
  ];
  const known = closedForm(corners, [40, bow, 40, 0, 0, 0, 0, 0, 0, 0]);
  const [outer, vent] = contoursOf(await rowsOf(bench));
  expect(outer!.row.vertices).toHaveLength(10);
  expect(Math.abs(outer!.length - known.length)).toBeLessThan(bound(known.length));
  expect(Math.abs(outer!.area - known.area)).toBeLessThan(bound(known.area));
  expect(Math.abs(vent!.area - (160 * 40 + Math.PI * 400))).toBeLessThan(bound(8000));
  // slate, 30 mm thick, at 2800 kg/m³
  const weight = (known.area - (160 * 40 + Math.PI * 400)) * 30 * 2800e-9;
  await expect(bench.pieces).toContainText(`1 contour, 1 hole, ${Number(weight.toPrecision(3))} kg`);
  await throughToTestRun(bench, { length: known.length + 2 * 160 + 40 * Math.PI, contours: 2 });
});

test("a link: three bosses, tangent lines to the high one, an R 49 arc below with its hollow side down", async ({
  page,
}) => {
  const bench = await started(page, "0601");
  await bench.tool("QQ", "Parallel");
  await bench.type("80");
  await bench.click({ x: 0, y: 30 });
  await bench.click({ x: 10, y: 30 });
  await page.keyboard.press("Delete");
  await bench.type("40");
  await bench.click({ x: 0, y: 30 });
  await bench.click({ x: 10, y: 30 });
  await page.keyboard.press("Delete");
  await bench.type("25.5");
  await bench.click({ x: 60, y: 0 });
  await bench.click({ x: 60, y: 10 });
  await bench.tool("EE", "Circle");
  const circle = async (size: string, at: Place): Promise<void> => {
    await page.keyboard.press("Delete");
    await bench.type(size);
    await bench.click({ x: at.x + 0.3, y: at.y + 0.3 });
  };
  const [left, right, high] = [
    { x: 0, y: 0 },
    { x: 80, y: 0 },
    { x: 40, y: 25.5 },
  ];
  for (const [size, at] of [
    ["10r", left],
    ["10r", right],
    ["13.5r", high],
    ["10d", left],
    ["10d", right],
    ["13.5d", high],
  ] as const)
    await circle(size, at);
  // outer tangent: the radius at the touching point leans by asin((R - r) / d) beyond the normal of the centre line
  // (belt formula)
  const d = Math.hypot(40, 25.5);
  const rise = deg(Math.atan2(25.5, 40));
  const lean = deg(Math.asin(3.5 / d));
  const normal = rise + 90 + lean;
  await bench.tool("RR", "Tangent line");
  await bench.click(polar(10, normal, left));
  await bench.click(polar(13.5, normal, high));
  await bench.click(polar(10, 180 - normal, right));
  await bench.click(polar(13.5, 180 - normal, high));
  await bench.tool("RQ", "Tangent arc");
  await bench.type("49");
  await page.keyboard.press("Enter");
  const down = deg(Math.acos(40 / 59)); // centres 10 + 49 apart, 40 across
  await bench.click(polar(10, -down, left));
  await bench.click(polar(10, 180 + down, right));
  await expect(bench.board).toHaveAttribute("data-revision", "12");
  await bench.tool("AA", "Trim");
  await page.getByRole("radio", { name: "all but layout" }).click();
  await bench.click(polar(10, 20, left));
  await bench.click(polar(10, 160, right));
  await bench.click(polar(13.5, -90, high));
  await clearAndJoin(bench, "Joined: 1 contour from 6 pieces.");
  const [p, q, r, s] = [
    polar(10, -down, left),
    polar(10, 180 + down, right),
    polar(10, 180 - normal, right),
    polar(13.5, 180 - normal, high),
  ];
  const [t, u] = [polar(13.5, normal, high), polar(10, normal, left)];
  const turn = (sweep: number, radius: number): { length: number; segment: number } => ({
    length: radius * sweep,
    segment: (radius * radius * (sweep - Math.sin(sweep))) / 2,
  });
  const low = turn(((180 - normal + 180 - down) * Math.PI) / 180, 10); // round a low boss, from the arc to the tangent
  const top = turn(((2 * normal - 180) * Math.PI) / 180, 13.5);
  const belly = turn(((180 - 2 * down) * Math.PI) / 180, 49);
  const corners = [p, q, r, s, t, u];
  const shoelace = corners.reduce(
    (sum, one, i) => sum + (one.x * corners[(i + 1) % 6]!.y - one.y * corners[(i + 1) % 6]!.x) / 2,
    0,
  );
  const tangent = Math.sqrt(d * d - 3.5 * 3.5);
  const [outer] = contoursOf(await rowsOf(bench));
  expect(Math.abs(outer!.length - (2 * low.length + top.length + belly.length + 2 * tangent))).toBeLessThan(bound(300));
  expect(Math.abs(outer!.area - (shoelace + 2 * low.segment + top.segment - belly.segment))).toBeLessThan(bound(3000));
  await expect(bench.pieces).toContainText("1 contour, 3 holes");
});

test("a tapped hole: M20 in a 40 by 60 plate drills 17.5 and marks Ø 20 three quarters round", async ({ page }) => {
  const bench = await started(page, "0602");
  await bench.tool("TT", "Rectangle");
  await bench.type("40");
  await page.keyboard.press("Tab");
  await page.keyboard.type("60");
  await page.keyboard.press("Enter");
  await bench.click({ x: 0.2, y: 0.2 });
  await bench.tool("XQ", "Tapped hole");
  await page.keyboard.type("M21"); // letters go into the thread's own blank
  await page.keyboard.press("Enter");
  await expect(page.getByRole("alert")).toContainText("“M21” is in none of the thread tables");
  await typeOver(bench.blank("thread"), "M20x2.5");
  await page.keyboard.press("Enter");
  await bench.point({ x: 20.3, y: 30.2 });
  await expect(page.getByText("drill Ø 17.5 mm (6H: 17.294 mm to 17.744 mm)")).toBeVisible();
  await bench.click({ x: 20.3, y: 30.2 }); // the centre of area of the plate
  const rows = await rowsOf(bench);
  const hole = rows.find(({ kind }) => kind === "circle")!;
  expect([hole.radius, hole.layer]).toEqual([8.75, 1]);
  expect(Math.hypot(hole.centre!.x - 20, hole.centre!.y - 30)).toBeLessThan(1e-9);
  // its thread's mark belongs to it, and is no geometry that would be cut
  expect(await annotationsIn(bench)).toMatchObject([
    { kind: "thread mark", refs: [{ id: hole.id }], size: 20, text: "M20" },
  ]);
  await page.keyboard.press("Escape");
  // clearance, by the offered list
  await bench.tool("XW", "Clearance hole");
  await page.keyboard.type("M12");
  await page.getByRole("button", { name: "M12 metric coarse" }).click();
  await page.getByRole("radio", { name: "coarse" }).click();
  await bench.click({ x: 60, y: 70 });
  expect((await rowsOf(bench)).at(-1)!.radius).toBe(14.5 / 2);
  await page.goto("/tables");
  await typeOver(page.getByLabel("Search the threads"), "M12");
  await expect(page.getByRole("row", { name: /^M12 / })).toContainText("10.2");
  await expect(page.getByText("ISO 261")).toBeVisible();
});

test("the rocker plate's tapped hole answers its thread", async ({ page }) => {
  const bench = new Bench(page);
  await bench.open("Rocker plate");
  await bench.callout("3/8-16 tapped hole").click();
  await page.getByRole("group", { name: "Tools for 3/8-16" }).getByRole("button", { name: "Tapped hole" }).click();
  await bench.click({ x: 2.5, y: 0.4 });
  await expect(bench.callout("3/8-16 tapped hole")).toContainText("true");
  expect((await rowsOf(bench)).find(({ kind }) => kind === "circle")!.radius).toBe(0.3125 / 2);
});

test(
  "Outline: lines and arcs in one chain, typed and picked, steps back, closes tangent at both ends, goes on " +
    "from an end",
  async ({ page }) => {
    const bench = await started(page, "0603");
    await bench.tool("WW", "Outline");
    await bench.click({ x: 0.2, y: 0.2 });
    await page.keyboard.press("Tab");
    await typeOver(page.getByRole("textbox", { name: "length", exact: true }), "40");
    await typeOver(page.getByRole("textbox", { name: "angle", exact: true }), "0");
    await page.keyboard.press("Enter");
    await page.keyboard.press("Enter");
    await expect(bench.board).toHaveAttribute("data-revision", "1");
    await expect(bench.blank("length")).toHaveValue(""); // released with its piece
    await page.keyboard.press("Backquote"); // an arc next, tangent on
    await bench.type("10r");
    await page.keyboard.press("Tab");
    await page.keyboard.type("180");
    await page.keyboard.press("Enter");
    await bench.point({ x: 45, y: 30 }); // only the side counts
    await page.keyboard.press("Enter");
    await expect(bench.board).toHaveAttribute("data-revision", "2");
    await page.keyboard.press("Backquote");
    await bench.click({ x: 10, y: 33 }); // a slip
    await expect(bench.board).toHaveAttribute("data-revision", "3");
    await page.keyboard.press("Backspace");
    await expect(bench.board).toHaveAttribute("data-revision", "2");
    await page.keyboard.press("Backspace");
    await page.keyboard.press("Backspace"); // all the way to its first point
    await expect(bench.board).toHaveAttribute("data-revision", "0");
    for (let i = 0; i < 2; i++) await page.keyboard.press("Control+y");
    await page.keyboard.press("Escape");
    // on from the end of the open chain
    await bench.click({ x: 40.2, y: 20.2 });
    await typeOver(page.getByRole("textbox", { name: "length", exact: true }), "40");
    await page.keyboard.press("Enter");
    await page.keyboard.down("Shift");
    await bench.click({ x: 12, y: 20.5 }); // length typed, the direction held level
    await page.keyboard.up("Shift");
    await expect(bench.board).toHaveAttribute("data-revision", "3");
    await page.keyboard.press("Backquote");
    await bench.point({ x: 0.2, y: 0.1 });
    await expect(page.getByText("closes, tangent at both ends")).toBeVisible();
    await bench.point({ x: -30, y: 40 });
    await page.keyboard.press("Delete");
    await expect(page.getByRole("textbox", { name: "radius", exact: true })).toHaveValue("");
    await page.keyboard.press("Enter"); // close
    await expect(page.getByText("The outline is closed.")).toBeVisible();
    const rows = await rowsOf(bench);
    const [stadium] = contoursOf(rows);
    expect(rows.filter(({ kind }) => kind === "chain")).toHaveLength(1);
    expect(Math.abs(stadium!.area - (800 + Math.PI * 100))).toBeLessThan(bound(2000));
  },
);

test("a tangent arc touches an arc only where it is, or on its circle when that is chosen", async ({ page }) => {
  const bench = await started(page, "0607");
  await bench.tool("EA", "Arc by three points"); // the lower quarter of the circle about 0, 0 with R 30
  for (const [blank, x, y] of [
    ["point", -18, -24],
    ["through", 0, -30],
    ["end", 18, -24],
  ] as const)
    // prettier-ignore
    await typePoint(bench, blank, { x, y });
  await bench.tool("WQ", "Line");
  await typePoint(bench, "point", { x: -60, y: 50 });
  await typePoint(bench, "end", { x: 60, y: 50 });
  await page.keyboard.press("Escape");
  for (const key of ["KeyV", "KeyV"]) await page.keyboard.press(key);
  await bench.tool("RQ", "Tangent arc");
  await bench.type("15r");
  await bench.click({ x: 17.2, y: -24.6 });
  await bench.point({ x: 50, y: 50 });
  await expect(page.getByText("It would touch only beyond the end of what is picked.")).toBeVisible();
  await bench.sentence("Tangent arc").getByRole("radio", { name: "on its circle" }).click();
  await bench.click({ x: 50, y: 50 });
  // outside both: the centre is 45 from the origin and 15 below the line
  const [base, , made] = (await rowsOf(bench)).filter(({ kind }) => kind === "piece");
  const touch = [made!.a!, made!.b!].find(({ y }) => y !== 50)!;
  expect(touch.x).toBeCloseTo((30 * Math.sqrt(45 ** 2 - 35 ** 2)) / 45, 9);
  expect(touch.y).toBeCloseTo((30 * 35) / 45, 9);
  // and the arc was run on along its circle to it
  expect([base!.a, base!.b]).toContainEqual(touch);
  const radius = ({ a, b, bulge }: Row): number =>
    (Math.hypot(b!.x - a!.x, b!.y - a!.y) * (1 + bulge! ** 2)) / (4 * Math.abs(bulge!));
  expect([radius(base!), radius(made!)]).toEqual([expect.closeTo(30, 9), expect.closeTo(15, 9)]);
});

test("arcs of every kind, an ellipse by three points, the shortest line, a polygon on two points, an arc slot", async ({
  page,
}) => {
  test.setTimeout(120_000);
  const bench = await started(page, "0606");
  const put = async (...points: readonly (readonly [blank: string, x: number, y: number])[]): Promise<void> => {
    for (const [blank, x, y] of points) await typePoint(bench, blank, { x, y });
  };
  const made = async (): Promise<Row> => (await rowsOf(bench)).at(-1)!;
  /**
   * Centre and radius of a row's arc: the centre stands off the middle of the chord by c (1 - b²) / 4b, to its left.
   */
  const about = ({ a, b, bulge }: Row): { centre: Place; radius: number; sweep: number } => {
    const off = (1 - bulge! ** 2) / (4 * bulge!);
    const centre = { x: (a!.x + b!.x) / 2 - (b!.y - a!.y) * off, y: (a!.y + b!.y) / 2 + (b!.x - a!.x) * off };
    return { centre, radius: Math.hypot(a!.x - centre.x, a!.y - centre.y), sweep: deg(4 * Math.atan(bulge!)) };
  };
  const near = (p: Place, x: number, y: number): void => expect(Math.hypot(p.x - x, p.y - y)).toBeLessThan(bound(100));

  await bench.tool("EA", "Arc by three points"); // of the circle about 30, 40 with R 50
  await put(["point", 0, 0], ["through", 30, -10], ["end", 80, 40]);
  const through = about(await made());
  near(through.centre, 30, 40);
  expect(through.radius).toBeCloseTo(50, 9);

  await bench.tool("ES", "Arc by centre");
  await put(["centre", 30, 40], ["start", 60, 40], ["end", 30, 70]);
  expect(about(await made())).toMatchObject({ radius: 30, sweep: expect.closeTo(90, 9) });
  await bench.tool("ES", "Arc by centre");
  await typeOver(bench.blank("sweep"), "270");
  await put(["centre", 30, 40], ["start", 50, 40]);
  expect(Math.abs(about(await made()).sweep)).toBeCloseTo(270, 9);

  await bench.tool("ED", "Arc by its ends");
  for (const [by, blank, typed, radius] of [
    ["R", "radius", "25", 25],
    ["sweep", "sweep", "180", 20],
    ["height", "height", "10", 25], // h/2 + c²/8h
    ["direction", "start direction", "45", 20 * Math.SQRT2],
  ] as const) {
    await bench.sentence("Arc by its ends").getByLabel("by", { exact: true }).getByText(by, { exact: true }).click();
    await typeOver(bench.blank(blank), typed);
    await put(["point", 0, -40], ["end", 40, -40]);
    expect(about(await made()).radius).toBeCloseTo(radius, 9);
  }

  await bench.tool("EE", "Circle");
  await bench.type("20r");
  await put(["centre", 120, 120]);
  for (const key of ["KeyV", "KeyV"]) await page.keyboard.press(key);
  await bench.tool("EG", "Ellipse"); // half axes 50 and 20: 30 along, 16 across is on it
  await put(["centre", 0, 120], ["end of the half axis", 50, 120]);
  await bench.click({ x: 30, y: 136 });
  const ellipse = (await made()) as unknown as { kind: string; major: Place; ratio: number };
  expect(ellipse).toMatchObject({ kind: "ellipse", major: { x: 50, y: 0 }, ratio: expect.closeTo(0.4, 3) });

  await bench.tool("WA", "Shortest line");
  await bench.click({ x: 50, y: 120.4 });
  await bench.click({ x: 100.3, y: 120.4 });
  const { a, b } = await made();
  for (const [p, x] of [
    [a!, 50],
    [b!, 100],
  ] as const)
    near(p, x, 120);

  await bench.tool("TQ", "Polygon");
  await bench.sentence("Polygon").getByRole("radio", { name: "on two points" }).click();
  await typeOver(bench.blank("sides"), "5");
  await put(["centre", 100, 0]);
  await bench.click({ x: 130, y: 0 });

  await bench.tool("TE", "Arc slot");
  await typeOver(bench.blank("width"), "12");
  await typeOver(bench.blank("sweep"), "100");
  await put(["centre", 200, 60], ["end centre", 240, 60]);
  const [pentagon, slot] = contoursOf(await rowsOf(bench));
  expect(pentagon!.row.vertices![0]!.at).toEqual({ x: 100, y: 0 });
  const side = pentagon!.length / 5;
  expect(side).toBeCloseTo(30, 3);
  expect(pentagon!.area).toBeCloseTo((side * side * Math.sqrt(25 + 10 * Math.sqrt(5))) / 4, 8); // a regular pentagon
  const sweep = (100 * Math.PI) / 180;
  expect(slot!.area).toBeCloseTo(12 * 40 * sweep + Math.PI * 36, 8); // a part of an annulus, and both half ends
  expect(slot!.length).toBeCloseTo(2 * 40 * sweep + 2 * Math.PI * 6, 8);
});

test("every circle that touches three is in reach; what is not made of arcs blocks the release", async ({ page }) => {
  const bench = await started(page, "0604");
  await bench.tool("EE", "Circle");
  for (const [size, at] of [
    ["20", { x: -20, y: 0 }],
    ["30", { x: 50, y: 0 }],
    ["24", { x: 10, y: 45 }],
  ] as const) {
    await page.keyboard.press("Delete");
    await bench.type(size);
    await bench.click(at);
  }
  await bench.tool("ET", "Circle touching three");
  await bench.click({ x: -10.1, y: 0.5 });
  await bench.click({ x: 35.1, y: 0.5 });
  await bench.point({ x: 10, y: 33.1 });
  await expect(page.getByText("1 of 8 · Space for the next")).toBeVisible();
  await bench.click({ x: 10, y: 33.1 });
  const circles = (await rowsOf(bench)).filter(({ kind }) => kind === "circle");
  const made = circles.at(-1)!;
  for (const { centre, radius } of circles.slice(0, 3)) {
    const away = Math.hypot(made.centre!.x - centre!.x, made.centre!.y - centre!.y);
    // the nearest to the picks: all from outside
    expect(Math.abs(away - radius! - made.radius!)).toBeLessThan(bound(50));
  }
  await bench.tool("WS", "Free curve");
  for (const at of [
    { x: -45, y: -40 },
    { x: -20, y: -60 },
    { x: 30, y: -35 },
    { x: 70, y: -55 },
  ])
    await bench.click(at);
  await page.keyboard.press("Enter");
  await expect(bench.board).toHaveAttribute("data-revision", "5");
  await expect(bench.pieces).toContainText("not made of arcs yet");
  // its points are moved, and it runs through the rest as before
  await bench.tool("WD", "Free curve points");
  await bench.click({ x: 29, y: -35.3 });
  await expect(page.getByText("point 3 of 4")).toBeVisible();
  await bench.click({ x: 25, y: -25 });
  const free = (await rowsOf(bench)).find(({ kind }) => kind === "free") as unknown as { points: Place[] };
  const through = free.points.filter((_, i) => i % 3 === 0);
  expect(through.map(({ x, y }) => [Math.round(x), Math.round(y)])).toEqual([
    [-45, -40],
    [-20, -60],
    [25, -25],
    [70, -55],
  ]);
  await page.keyboard.press("Escape");
  await bench.saved();
  await page.getByRole("navigation", { name: "Steps" }).getByRole("button", { name: "Release" }).click();
  await expect(page.getByRole("region", { name: "Checks" })).toContainText("not made of arcs yet");
  await expect(page.getByRole("button", { name: "Write the DXF" })).toBeDisabled();
});
