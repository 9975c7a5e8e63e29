import { expect, test, type Page } from "@playwright/test";
import { applyEdit, calloutsOf, newDrawing, PROFILE_LAYER, type Drawing } from "@ash-edge/core/drawing";
import { draftEdit } from "@ash-edge/core/edits";
import { drawingOf } from "../support/annotated.ts";
import type { Bench } from "../support/bench.ts";
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
  await page.keyboard.press("Control+z");
  expect((await waived())[2]).toEqual(["", 0]);
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
