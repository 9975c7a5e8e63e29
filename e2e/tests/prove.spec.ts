import { expect, test, type Page } from "@playwright/test";
import { FAULT_SENTENCES, faultRows, surveyOf } from "@ash-edge/core/checks";
import {
  applyEdit,
  calloutsOf,
  layersOf,
  newDrawing,
  PROFILE_LAYER,
  settingsOf,
  type Drawing,
  type Making,
} from "@ash-edge/core/drawing";
import { addLayer, draftEdit } from "@ash-edge/core/edits";
import { sayFault } from "@ash-edge/core/say";
import { drawingOf } from "../support/annotated.ts";
import { typeOver, type Bench } from "../support/bench.ts";
import { rowsOf } from "../support/drawn.ts";
import { openDrawn } from "../support/storedJob.ts";

/** A plate 100 by 60 with a pocket of 20 by 15 in its top edge, and two holes Ø 10 whose callouts are placed. */
const plate = (): Drawing => {
  const drawing = newDrawing("mm", [
    { kind: "diameter", value: 10, name: "left hole" },
    { kind: "diameter", value: 12, name: "right hole" },
    { kind: "radius", value: 6, name: "corners" },
  ]);
  const draft = draftEdit(drawing, "Draw", "draw");
  const corners = [
    [0, 0],
    [100, 0],
    [100, 60],
    [60, 60],
    [60, 45],
    [40, 45],
    [40, 60],
    [0, 60],
  ];
  const vertices = corners.map(([x, y]) => ({ id: draft.newId(), at: { x: x!, y: y! }, bulge: 0 }));
  draft.add({ kind: "chain", closed: true, vertices }, PROFILE_LAYER);
  const holes = [25, 75].map((x) => draft.add({ kind: "circle", centre: { x, y: 25 }, radius: 5 }, PROFILE_LAYER));
  calloutsOf(drawing).forEach((callout, i) => {
    const hole = holes[i];
    if (hole !== undefined) draft.set("callout", callout.id, { ...callout, links: [{ id: hole }] });
  });
  return applyEdit(drawing, draft.finish());
};

const steps = (page: Page) => page.getByRole("navigation", { name: "Steps" });
const openProve = async (bench: Bench): Promise<void> => {
  await steps(bench.page)
    .getByRole("button", { name: /^Prove/ })
    .click();
  await expect(steps(bench.page).getByRole("link", { name: "Prove" })).toHaveAttribute("aria-current", "page");
};
const verdict = (page: Page) => page.getByRole("region", { name: "Checks" }).getByRole("heading");

test("a job is proved: looked at row by row by keys, one number waived, and the verdict is Release's", async ({
  page,
}) => {
  const bench = await openDrawn(page, plate());
  await openProve(bench);
  await expect(verdict(page)).toHaveText("Ready but for 1 callout off, 1 callout not placed");
  const callouts = page.getByRole("region", { name: "Callouts" });
  const row = (name: string) => callouts.getByRole("row", { name: new RegExp(name) });
  await expect(row("left hole")).toContainText("true");
  await expect(row("right hole")).toContainText("−2");
  // by keys alone: the first is looked at, the one below it too, and nothing can be of what is not placed
  await row("left hole").focus();
  await page.keyboard.press("Enter");
  await expect(callouts).toContainText("1 of 3 looked at");
  await page.keyboard.press("ArrowDown");
  await page.keyboard.press("Enter");
  await expect(callouts).toContainText("2 of 3 looked at");
  await page.keyboard.press("ArrowDown");
  await page.keyboard.press("Enter");
  await expect(callouts).toContainText("2 of 3 looked at");
  await page.keyboard.press("ArrowUp");
  await page.keyboard.press("Enter");
  await expect(callouts).toContainText("1 of 3 looked at");
  // under "to look at" what is ticked goes, and Enter goes on with the next
  await callouts.getByRole("radio", { name: "to look at" }).click();
  await row("right hole").focus();
  await page.keyboard.press("Enter");
  await expect(callouts).toContainText("2 of 3 looked at");
  await expect(row("right hole")).toHaveCount(0);
  await expect(row("corners")).toBeFocused();
  await callouts.getByRole("radio", { name: "all" }).click();
  await row("right hole").getByRole("checkbox").click();
  await expect(callouts).toContainText("1 of 3 looked at");
  // a waiver needs a reason
  await row("right hole").getByRole("button", { name: "Waive …" }).click();
  await page.keyboard.press("Enter");
  await expect(page.getByRole("alert")).toContainText("A waiver says why");
  await page.keyboard.type("Customer rang: 10 will do");
  await page.keyboard.press("Enter");
  await expect(row("right hole")).toContainText("Customer rang: 10 will do");
  await expect(verdict(page)).toHaveText("Ready but for 1 callout not placed");
  await callouts.getByRole("radio", { name: "not placed" }).click();
  await expect(callouts.getByRole("row")).toHaveCount(2);
  await row("corners").getByRole("button", { name: "Waive …" }).click();
  await page.keyboard.type("No corner is rounded");
  await page.keyboard.press("Enter");
  await expect(verdict(page)).toHaveText("Ready to cut, 2 callouts waived");
  // charts along the contour: the wall below the holes is 20; a click shows its place
  const along = page.getByRole("region", { name: "Along the contour" });
  await along.getByRole("radio", { name: "direction" }).click();
  await expect(along.getByRole("img", { name: "Direction along the contour" })).toBeVisible();
  await along.getByRole("radio", { name: "wall" }).click();
  await expect(along).toContainText(/drawn 20(\.0\d*)? mm/);
  const mark = (await along.locator("path.point").nth(20).boundingBox())!;
  await page.mouse.click(mark.x + mark.width / 2, mark.y + mark.height / 2);
  await expect(page.getByRole("img", { name: "What is chosen, near" })).toBeVisible();
  // by keys from there to the next place
  const near = page.getByRole("img", { name: "What is chosen, near" });
  const seen = await near.getAttribute("viewBox");
  await along.getByRole("figure").focus();
  await page.keyboard.press("ArrowRight");
  await expect(near).not.toHaveAttribute("viewBox", seen!);
  // gone and come back: it goes on from what was stored
  await steps(page).getByRole("link", { name: "Compare" }).click();
  await expect(page.getByRole("region", { name: "Differences" })).toContainText("The same: 10 pieces");
  await steps(page).getByRole("link", { name: "Prove" }).click();
  await row("right hole").focus();
  await page.keyboard.press("Enter");
  await expect(callouts).toContainText("2 of 3 looked at");
  await page.keyboard.press("Enter");
  await expect(callouts).toContainText("1 of 3 looked at");
  // the same verdict at the release; there and back on the bench, where each was a step of the history
  await steps(page).getByRole("link", { name: "Release" }).click();
  await expect(verdict(page)).toHaveText("Ready to cut, 2 callouts waived");
  await steps(page).getByRole("link", { name: "Bench" }).click();
  await bench.ready();
  const waived = async () =>
    calloutsOf(await drawingOf(bench)).map((one) => [one.waived?.reason ?? "", one.looked ?? 0] as const);
  expect(await waived()).toEqual([
    ["", 10],
    ["Customer rang: 10 will do", 0],
    ["No corner is rounded", 0],
  ]);
  // the step to the release says what was said, as long as it is so
  const said = steps(page).getByRole("img", { name: "Ready to cut, 2 callouts waived" });
  await expect(said).toBeVisible();
  // two ticks, and the waiver before them
  for (let n = 0; n < 3; n++) await page.keyboard.press("Control+z");
  expect((await waived())[2]).toEqual(["", 0]);
  await expect(said).toHaveCount(0);
});

test("a waiver stands for the number that it was given for: another one is asked again", async ({ page }) => {
  const bench = await openDrawn(page, plate());
  await openProve(bench);
  const callouts = page.getByRole("region", { name: "Callouts" });
  const right = callouts.getByRole("row", { name: /right hole/ });
  await right.getByRole("button", { name: "Waive …" }).click();
  await page.keyboard.type("10 will do");
  await page.keyboard.press("Enter");
  await expect(right).toContainText("10 will do");
  await expect(verdict(page)).toHaveText("Ready but for 1 callout not placed");
  // the hole is made smaller: nobody waived that
  await steps(page).getByRole("link", { name: "Bench" }).click();
  await bench.ready();
  await bench.click({ x: 75, y: 30 });
  const size = page.getByRole("region", { name: "Selected" }).getByLabel("diameter");
  await typeOver(size, "7");
  await page.keyboard.press("Enter");
  await bench.saved();
  await openProve(bench);
  await expect(right).toContainText("off");
  await expect(right).not.toContainText("10 will do");
  await expect(verdict(page)).toHaveText("Ready but for 1 callout off, 1 callout not placed");
});

test("a callout is pointed at other geometry by the mouse; how it would stand is said before it is taken", async ({
  page,
}) => {
  const bench = await openDrawn(page, plate());
  await openProve(bench);
  const callouts = page.getByRole("region", { name: "Callouts" });
  await callouts.getByRole("button", { name: "Point R 6 corners at something else" }).click();
  const bar = page.getByRole("region", { name: "Point R 6 corners at" });
  const picture = page.getByRole("img", { name: "Drawing to point at" });
  /** Clicks a place of the drawing. */
  const click = async (x: number, y: number): Promise<void> => {
    const at = await picture.evaluate(
      (svg, [u, v]) => {
        const matrix = (svg as unknown as SVGSVGElement).getScreenCTM()!;
        const { x, y } = new DOMPoint(u, -v!).matrixTransform(matrix);
        return { x, y };
      },
      [x, y] as const,
    );
    await page.mouse.click(at.x, at.y);
  };
  await click(50, 0);
  await expect(bar.getByRole("alert")).toContainText("A circle or an arc would do.");
  await expect(bar.getByRole("button", { name: "Take it" })).toBeDisabled();
  await click(30, 25);
  await expect(bar).toContainText("one thing, off by −1.");
  await page.keyboard.press("Escape");
  await expect(bar).toHaveCount(0);
  await expect(callouts.getByRole("row", { name: /corners/ })).toContainText("not placed");
  // the number of the right hole is called at the left one: it goes to the right one, by Enter
  await callouts.getByRole("button", { name: "Point Ø 12 right hole at something else" }).click();
  await picture.hover();
  await page.mouse.wheel(0, -300);
  await click(20, 25);
  await page.keyboard.press("Enter");
  await expect(page.getByText("Ø 12 points there now")).toBeVisible();
  await steps(page).getByRole("link", { name: "Bench" }).click();
  await bench.ready();
  const links = calloutsOf(await drawingOf(bench)).map(({ links: [first] }) => first?.id);
  expect(links[1]).toBe(links[0]);
  expect(links[2]).toBeUndefined();
});

test("the shop's own tool and sheet are put in Tables, kept, and offered where a job is proved", async ({ page }) => {
  const bench = await openDrawn(page, plate());
  await page.goto("/tables");
  await page.getByRole("radio", { name: "Tools and sheets" }).click();
  const table = page.getByRole("region", { name: "Tools and sheets" });
  await page.getByRole("button", { name: "Add a tool" }).click();
  await page.keyboard.type("7,5 x");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("alert")).toBeVisible();
  await typeOver(page.getByRole("textbox", { name: "Its Ø, mm" }), "7.5");
  await page.keyboard.press("Enter");
  await expect(table.getByRole("row", { name: /a bit of 7.5 mm/ })).toContainText("7.5");
  // a name that is there already is asked for another
  await page.getByRole("button", { name: "Add a tool" }).click();
  await page.keyboard.type("7.50");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("alert")).toContainText("There is a tool of that name already");
  await page.keyboard.press("Escape");
  await table.getByRole("button", { name: "Change a sheet of 1000 × 2000, mm" }).click();
  await typeOver(page.getByRole("textbox", { name: "Name" }), "half a sheet");
  await page.keyboard.press("Enter");
  await table.getByRole("button", { name: "Remove a bit of 2 mm, mm" }).click();
  await expect(table.getByRole("row", { name: /a bit of 2 mm/ })).toHaveCount(0);
  await page.goto("/tables");
  await page.goto(`${new URL(bench.page.url()).origin}/jobs`);
  await page.getByRole("link", { name: "Part 7301" }).first().click();
  await bench.ready();
  await openProve(bench);
  const made = page.getByRole("region", { name: "Made with" });
  const offered = made.getByRole("combobox", { name: "Tool" }).getByRole("option");
  expect(await offered.allTextContents()).toContain("a bit of 7.5 mm");
  expect(await offered.allTextContents()).not.toContain("a bit of 2 mm");
  await made.getByRole("combobox", { name: "Tool" }).selectOption("a bit of 7.5 mm");
  await made.getByRole("combobox", { name: "Sheet" }).selectOption("half a sheet");
  const checks = page.getByRole("region", { name: "Checks" });
  await expect(checks).toContainText("A sharp inside corner: a bit of 7.5 mm leaves it round by R 3.75.");
  // what was said of it stands in the list of jobs, until something is changed
  await expect(verdict(page)).toHaveText("Not ready to cut");
  await page.getByRole("link", { name: "Jobs", exact: true }).first().click();
  const row = page.getByRole("row", { name: /7301/ });
  await expect(row).toContainText("Not ready to cut");
  await row.getByRole("link").first().click();
  await bench.ready();
  await bench.click({ x: 75, y: 30 });
  await page.keyboard.press("Delete");
  await bench.saved();
  await page.goto("/jobs");
  await expect(row).toContainText("drawn");
  await expect(row).not.toContainText("Not ready to cut");
});

test("what it is made with is checked: corners, room, walls and the sheet; a repair takes up its tool", async ({
  page,
}) => {
  const bench = await openDrawn(page, plate());
  await openProve(bench);
  const checks = page.getByRole("region", { name: "Checks" });
  const made = page.getByRole("region", { name: "Made with" });
  await made.getByRole("combobox", { name: "Tool" }).selectOption("a bit of 12 mm");
  await expect(checks).toContainText("A hole of Ø 10 is smaller than a bit of 12 mm (Ø 12).");
  await expect(verdict(page)).toHaveText("Not ready to cut");
  // another tool by its size, typed; what is none is said, and stays
  await made.getByRole("textbox", { name: "Another tool’s Ø" }).click();
  await page.keyboard.type("-3");
  await page.keyboard.press("Enter");
  await expect(made.getByRole("alert")).toBeVisible();
  await page.keyboard.press("Escape");
  await page.keyboard.type("6");
  await page.keyboard.press("Enter");
  await expect(checks).toContainText("A sharp inside corner: a bit of 6 mm leaves it round by R 3.");
  await expect(checks).not.toContainText("is smaller than");
  await made.getByRole("textbox", { name: "Thinnest wall" }).click();
  await page.keyboard.type("21");
  await page.keyboard.press("Enter");
  // the holes end 20 from the edges beside and below them
  await expect(checks).toContainText("A wall is only 20 mm thick; 21 is asked for.");
  // one after another of many: each is shown near
  await checks.getByRole("button", { name: "Next of 6" }).click();
  await expect(page.getByRole("img", { name: "What is chosen, near" })).toBeVisible();
  await made.getByRole("textbox", { name: "Another sheet’s sizes" }).click();
  await page.keyboard.type("90 x 70");
  await page.keyboard.press("Enter");
  await expect(checks).toContainText("100 × 60 mm does not fit on a sheet of 90 × 70, however it is turned.");
  // the release says the same
  const said = await checks.locator("li .said").allTextContents();
  await steps(page).getByRole("link", { name: "Release" }).click();
  await expect(page.getByRole("region", { name: "File", exact: true })).toBeVisible();
  await expect(verdict(page)).toHaveText("Not ready to cut");
  expect(await checks.locator("li .said").allTextContents()).toEqual(said);
  await steps(page).getByRole("link", { name: "Prove" }).click();
  await checks.getByRole("button", { name: "Corner relief" }).first().click();
  await bench.ready();
  await expect(bench.sentence("Corner relief")).toBeVisible();
  // its corner is picked and the tool's Ø is in it: Enter makes it
  const corners = async (): Promise<number | undefined> =>
    (await rowsOf(bench)).find(({ kind }) => kind === "chain")?.vertices?.length;
  const was = (await corners())!;
  await page.keyboard.press("Enter");
  await expect.poll(corners).toBeGreaterThan(was);
});

test("what changed is compared: a step before, a release, a file; in words, over one another, swiped", async ({
  page,
}) => {
  const bench = await openDrawn(page, plate());
  // a hole moved by 5, another made larger
  await bench.click({ x: 75, y: 30 });
  await page.keyboard.press("Delete");
  await bench.tool("EE", "Circle");
  await bench.type("7");
  await page.keyboard.press("Enter");
  await bench.type("75;25");
  await page.keyboard.press("Enter");
  await page.keyboard.press("Escape");
  await page.keyboard.press("Escape");
  await bench.saved();
  await openProve(bench);
  await steps(page).getByRole("link", { name: "Compare" }).click();
  const found = page.getByRole("region", { name: "Differences" });
  // the state before the last step has no hole there
  await expect(found).toContainText("9 pieces the same, 1 came.");
  const before = page.getByRole("combobox", { name: "before" });
  const labels = await before.getByRole("option").allTextContents();
  await before.selectOption(labels.find((label) => label.startsWith("before step 1:"))!);
  await expect(found).toContainText("9 pieces the same, 1 came, 1 went.");
  await page.getByRole("radio", { name: "swiped" }).click();
  await page.getByRole("slider").focus();
  await page.keyboard.press("Home");
  await expect(page.getByRole("img", { name: "Before to the left, after to the right" })).toBeVisible();
  await page.getByRole("radio", { name: "over one another" }).click();
  // a file: one that is none is said, and another can be taken
  const file = (name: string, text: string) => ({ name, mimeType: "text/plain", buffer: Buffer.from(text) });
  await page.getByLabel("With a file …").setInputFiles(file("broken.dxf", "no drawing"));
  await expect(found.getByRole("alert")).toContainText("Not compared:");
  const svg =
    '<svg xmlns="http://www.w3.org/2000/svg" width="100mm" height="60mm" viewBox="0 -60 100 60">' +
    '<circle cx="25" cy="-25" r="5"/></svg>';
  await page.getByLabel("With a file …").setInputFiles(file("one hole.svg", svg));
  await expect(found).toContainText("1 piece the same, 9 came.");
  await found.getByRole("button", { name: "Go there" }).first().click();
  await bench.ready();
});

/** Drawings with one of every fault that the list knows, made with one tool or another. */
const faulty = (making: Making): Drawing => {
  const start = newDrawing("mm", [
    { kind: "diameter", value: 9 / 25.4, name: "hole in inches" },
    { kind: "length", value: 9, name: "pinned", pin: { sketch: "none", x: 0.5, y: 0.5 } },
  ]);
  let layers = start;
  for (const [name, role] of [
    ["Inside", "inside"],
    ["Outside", "outside"],
    ["Hidden", "profile"],
    ["Locked", "profile"],
    ["Guides", "layout"],
  ] as const) {
    const added = addLayer(layers, name, role);
    if (added.ok) layers = applyEdit(layers, added.value);
  }
  const [insideLayer, outsideLayer, hidden, locked, guides] = layersOf(layers).slice(-5);
  const draft = draftEdit(layers, "Draw", "draw");
  draft.set("layer", hidden!.id, { ...hidden!, shown: false });
  draft.set("layer", locked!.id, { ...locked!, locked: true });
  draft.set("settings", 0, { ...settingsOf(layers), making });
  const chain = (corners: readonly (readonly [number, number, number?])[]): number =>
    draft.add(
      {
        kind: "chain",
        closed: true,
        vertices: corners.map(([x, y, bulge = 0]) => ({ id: draft.newId(), at: { x, y }, bulge })),
      },
      PROFILE_LAYER,
    );
  const disc = (x: number, y: number, radius: number, layer = PROFILE_LAYER, traced?: true): number =>
    draft.add({ kind: "circle", centre: { x, y }, radius, ...(traced && { traced }) }, layer);
  const line = (x: number, y: number, u: number, v: number, layer = PROFILE_LAYER): number =>
    draft.add({ kind: "piece", a: { x, y }, b: { x: u, y: v }, bulge: 0 }, layer);
  chain([
    [0, 0],
    [300, 0],
    [300, 200],
    [250, 200],
    [250, 150],
    [220, 150, -Math.tan(Math.PI / 8)],
    [216, 154],
    [216, 200],
    [0, 200],
  ]);
  const small = disc(6, 100, 4.5); // near an edge, behind a thin wall, too small for plasma and for a bit of 12
  disc(60, 100, 20);
  disc(75, 100, 20); // across the one before
  disc(150, 60, 15);
  disc(150, 60, 15); // twice
  disc(150, 120, 15);
  disc(180, 120, 15, PROFILE_LAYER, true); // touching, and traced
  for (const radius of [30, 20, 10]) disc(255, 60, radius); // islands
  chain([
    [20, 20],
    [40, 20],
    [40, 39.98],
    [39.98, 40],
    [20, 40],
  ]); // a tiny piece
  chain([
    [60, 20],
    [80, 20],
    [80, 40, Math.tan((Math.PI - 0.02) / 4)],
    [60, 40],
  ]); // kinks
  chain([
    [320, 0],
    [420, 0],
    [420, 40],
    [376, 40],
    [376, 10],
    [370, 10],
    [370, 40],
    [320, 40],
  ]); // a slot of 6
  disc(500, 0, 20, insideLayer!.id);
  disc(110, 170, 5, outsideLayer!.id);
  disc(560, 0, 20, hidden!.id);
  disc(620, 0, 20, locked!.id);
  disc(660, 0, 5, guides!.id);
  line(500, 60, 560, 60);
  for (const [x, y, u, v] of [
    [500, 100, 540, 100],
    [540, 100, 540, 140],
    [540, 140, 500, 100],
  ] as const)
    line(x, y, u, v);
  line(600, 60, 640, 60);
  line(640, 60, 640, 90, hidden!.id); // meets it on another layer
  draft.add(
    { kind: "ellipse", centre: { x: 700, y: 0 }, major: { x: 20, y: 0 }, ratio: 0.5, from: 0, sweep: 6 },
    PROFILE_LAYER,
  );
  draft.add({ kind: "point", at: { x: 700, y: 60 } }, PROFILE_LAYER);
  const [first] = calloutsOf(layers);
  draft.set("callout", first!.id, { ...first!, links: [{ id: small }] });
  return applyEdit(layers, draft.finish());
};

test("every check is said on Prove and Release as the list says it, whatever the tool", async ({ page }) => {
  const codes = new Set<string>();
  let bench: Bench | undefined;
  for (const making of [
    {
      tool: { name: "a bit of 12 mm", kind: "cutter", diameter: 12 },
      sheet: { name: "a sheet of 400 × 300", width: 400, height: 300 },
    },
    {
      tool: { name: "the plasma torch", kind: "plasma", diameter: 9 },
      wall: 3,
      sheet: { name: "a strip", width: 40, height: 30 },
    },
  ] satisfies Making[]) {
    const drawing = faulty(making);
    const { plan, verdict: words } = surveyOf(drawing, { stock: { material: "", thickness: 12 } });
    for (const { code } of plan.faults) codes.add(code);
    const said = faultRows(plan.faults).map(
      ({ fault, count }) => sayFault(fault, "mm") + (count > 1 ? `And ${count - 1} more like it.` : ""),
    );
    bench = await openDrawn(page, drawing, { thickness: "12", number: `${7400 + codes.size}` });
    await openProve(bench);
    const shown = page.getByRole("region", { name: "Checks" }).locator("li .said");
    await expect(verdict(page)).toHaveText(words.words);
    expect(await shown.allTextContents()).toEqual(said);
    await steps(page).getByRole("link", { name: "Release" }).click();
    await expect(page.getByRole("region", { name: "File", exact: true })).toBeVisible();
    await expect(verdict(page)).toHaveText(words.words);
    expect(await shown.allTextContents()).toEqual(said);
  }
  // those that a release alone finds, by the way of a cutter; and drawings without anything, or with too much
  const others = new Set(["nothing-closed", "too-many", "not-scaled", "unit-by-callout", "tapped-odd"]);
  const missing = Object.keys(FAULT_SENTENCES).filter(
    (code) => !codes.has(code) && !code.startsWith("cutter-") && !others.has(code),
  );
  expect(missing).toEqual([]);
  // each repair takes up its tool at the place
  for (const [repair, tool] of [
    ["Join", "Join"],
    ["Arc fit", "Arc fit"],
    ["Change fillet", "Change fillet"],
    ["To layer", "To layer"],
  ] as const) {
    await page.getByRole("region", { name: "Checks" }).getByRole("button", { name: repair }).first().click();
    await bench!.ready();
    await expect(bench!.sentence(tool)).toBeVisible();
    await openProve(bench!);
  }
});
