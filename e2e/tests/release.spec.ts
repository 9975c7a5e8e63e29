import { expect, test, type Page } from "@playwright/test";
import { readFileSync } from "node:fs";
import DxfParser from "dxf-parser";
import { unzipSync } from "fflate";
import { applyEdit, drawingText, MARK_LAYER, newDrawing, PROFILE_LAYER, type Drawing } from "@ash-edge/core/drawing";
import { addLayer, changeLayer, draftEdit } from "@ash-edge/core/edits";
import type { Shape } from "@ash-edge/core/shape";
import { Bench, typeOver } from "../support/bench.ts";
import { sheet } from "../support/sheet.ts";
import { storeDrawing } from "../support/storedJob.ts";

const circle = (x: number, radius: number): Shape => ({ kind: "circle", centre: { x, y: 0 }, radius });
const line = (x: number, y: number): Shape => ({ kind: "piece", a: { x, y: -5 }, b: { x, y }, bulge: 0 });
const put = (drawing: Drawing, layer: number, ...shapes: readonly Shape[]): Drawing => {
  const draft = draftEdit(drawing, "Draw", "draw");
  for (const shape of shapes) draft.add(shape, layer);
  return applyEdit(drawing, draft.finish());
};
const withLayer = (
  drawing: Drawing,
  name: string,
  role: "inside" | "profile",
  shown: boolean,
  shape: Shape,
): Drawing => {
  const added = addLayer(drawing, name, role);
  if (!added.ok) throw new Error(added.refusal.code);
  const { id } = added.value.changes[0]!;
  const drawn = put(applyEdit(drawing, added.value), id, shape);
  const hidden = changeLayer(drawn, id, { shown });
  return hidden.ok && hidden.value.changes.length > 0 ? applyEdit(drawn, hidden.value) : drawn;
};

const openRelease = async (page: Page, drawing: Drawing): Promise<Bench> => {
  const bench = new Bench(page);
  await page.goto("/jobs");
  await expect(page.getByRole("link", { name: "Rocker plate" })).toBeVisible();
  await storeDrawing(page, "demo-0414", drawingText(drawing), drawing.nextId);
  await bench.open("Rocker plate");
  return bench;
};
const toRelease = (page: Page) =>
  page.getByRole("navigation", { name: "Steps" }).getByRole("button", { name: "Release" }).click();
const entities = async (page: Page, button = "Write the DXF"): Promise<readonly string[]> => {
  const [download] = await Promise.all([
    page.waitForEvent("download"),
    page.getByRole("button", { name: button }).click(),
  ]);
  const read = new DxfParser().parseSync(readFileSync(await download.path(), "utf8"))!;
  return (read.entities as unknown as { type: string; layer: string }[])
    .map(({ type, layer }) => `${type} ${layer}`)
    .sort();
};

test("what is released: open marks, a layer's role, a hidden layer, only what is selected, layers as drawn", async ({
  page,
}) => {
  let drawing = put(newDrawing("in"), PROFILE_LAYER, circle(0, 20));
  drawing = put(drawing, MARK_LAYER, line(0, 5), circle(0, 2));
  drawing = withLayer(drawing, "Wells", "inside", true, circle(50, 4));
  drawing = withLayer(drawing, "Spare discs", "profile", false, circle(80, 3));
  const bench = await openRelease(page, drawing);
  await bench.click({ x: 20, y: 0 });
  await expect(page.getByText("1 circle selected")).toBeVisible();
  await toRelease(page);
  const checks = page.getByRole("region", { name: "Checks" });
  await expect(checks.getByRole("heading", { name: /^Ready but for \d+ warnings?$/ })).toBeVisible();
  await expect(checks).toContainText("The layer Spare discs is hidden. What lies on it is written all the same (1).");
  // the picture holds all that is written, marks among it
  await expect(page.getByRole("img", { name: "What is released" }).locator("path[stroke-dasharray]")).toHaveCount(1);
  const name = page.getByRole("textbox", { name: "Name" });
  await expect(name).toHaveValue("0414-rocker-plate-r1");
  expect(await entities(page)).toEqual([
    "CIRCLE INSIDE",
    "CIRCLE MARK",
    "CIRCLE OUTSIDE",
    "CIRCLE OUTSIDE",
    "LWPOLYLINE MARK",
  ]);
  // no two files of one name, in whatever letters
  await expect(name).toHaveValue("0414-rocker-plate-r2");
  await typeOver(name, "0414-Rocker-plate-R1");
  await expect(page.getByRole("alert")).toContainText("is the name of release no. 1. Choose another one.");
  await expect(page.getByRole("button", { name: "Write the DXF" })).toBeDisabled();
  await typeOver(name, "x".repeat(130));
  await expect(page.getByRole("alert")).toContainText("at most 120 characters");
  await typeOver(name, "one disc");
  await page.getByRole("radio", { name: "what is selected (1)" }).click();
  await page.getByRole("combobox", { name: "Machine" }).selectOption("Layers as drawn");
  await expect(checks.getByRole("heading", { name: "Ready to cut" })).toBeVisible();
  expect(await entities(page)).toEqual(["CIRCLE Profile"]);
  await page.getByRole("radio", { name: "everything" }).click();
  await page.getByRole("combobox", { name: "Machine" }).selectOption("SVG in true size");
  const [svg] = await Promise.all([
    page.waitForEvent("download"),
    page.getByRole("button", { name: "Write the SVG" }).click(),
  ]);
  expect(svg.suggestedFilename()).toBe("0414-rocker-plate-r3.svg");
  expect(readFileSync(await svg.path(), "utf8")).toContain('id="OUTSIDE"');

  // after an edit it is not what was released any more
  await page.getByRole("link", { name: "Bench", exact: true }).click();
  await bench.ready();
  await bench.click({ x: 20, y: 0 });
  await page.keyboard.press("Delete");
  await bench.saved();
  await toRelease(page);
  await expect(page.getByRole("region", { name: "Released files" })).toContainText("The job was changed since.");
  // a copy of it as it was released has the hole again
  await page.getByRole("button", { name: "A copy of the job as it was at 0414-rocker-plate-r3.svg" }).click();
  await bench.ready();
  await expect(page).not.toHaveURL(/demo-0414/);
  await bench.click({ x: 20, y: 0 });
  await expect(page.getByText("1 circle selected")).toBeVisible();
  await page.keyboard.press("Escape");
  await page.goto("/jobs");
  await page
    .getByRole("row", { name: /0414 .*Rocker plate/ })
    .getByRole("link", { name: "changed since r3" })
    .click();
  await expect(page.getByRole("combobox", { name: "before" })).toHaveValue(/release-3$/);
  await expect(page.getByRole("region", { name: "Differences" })).toContainText("1 went");
});

test("machine profiles: made at the release, kept by the job, duplicated, saved to a file and taken from it", async ({
  page,
}) => {
  let drawing = put(newDrawing("in"), PROFILE_LAYER, circle(2, 1), circle(2, 0.25));
  drawing = put(drawing, MARK_LAYER, line(0, 5));
  await openRelease(page, drawing);
  await toRelease(page);
  const machine = page.getByRole("combobox", { name: "Machine" });
  await expect(machine).toHaveValue("DXF R2000");
  await page.getByRole("button", { name: "New from it …" }).click();
  const form = page.getByRole("dialog", { name: "New machine profile" });
  await expect(form.getByRole("textbox", { name: "Name" })).toBeFocused();
  await page.keyboard.press("Control+A");
  await page.keyboard.type("Our plasma");
  await form.getByRole("radio", { name: "DXF R12" }).click();
  await form.getByRole("radio", { name: "mm", exact: true }).click();
  await form.getByRole("radio", { name: "with decimals" }).click();
  await typeOver(form.getByRole("textbox", { name: /^Decimals/ }), "two");
  await typeOver(form.getByRole("textbox", { name: "Layer of inside contours" }), "outside");
  await form.getByRole("button", { name: "Make it" }).click();
  // everything wrong is said where it is, and what was typed stays
  await expect(form.getByRole("alert")).toHaveText([
    /Decimals are a whole number/,
    /can’t be the name of a layer: R12/,
  ]);
  await expect(form.getByRole("textbox", { name: /^Decimals/ })).toHaveValue("two");
  await typeOver(form.getByRole("textbox", { name: /^Decimals/ }), "2");
  await typeOver(form.getByRole("textbox", { name: "Layer of inside contours" }), "OUTSIDE");
  await expect(form.getByRole("alert")).toContainText("would both lie on OUTSIDE");
  await typeOver(form.getByRole("textbox", { name: "Layer of inside contours" }), "CUT_IN");
  await form.getByRole("radio", { name: "the lower left" }).click();
  await page.keyboard.press("Tab");
  await form.getByRole("button", { name: "Make it" }).click();
  await expect(machine).toHaveValue("Our plasma");
  await expect(page.getByText("DXF R12 · OUTSIDE, CUT_IN, MARK · mm · 2 decimals")).toBeVisible();
  const [download] = await Promise.all([
    page.waitForEvent("download"),
    page.getByRole("button", { name: "Write the DXF" }).click(),
  ]);
  const text = readFileSync(await download.path(), "utf8");
  expect(text).toContain("AC1009");
  const read = new DxfParser().parseSync(text)!;
  const found = read.entities as unknown as {
    type: string;
    layer: string;
    center?: { x: number; y: number };
    radius?: number;
  }[];
  // 1 in = 25.4 mm (ISO 80000-3); the mark begins at x 0, and 5 below
  expect(found.map(({ type, layer, center, radius }) => [type, layer, center?.x, center?.y, radius])).toEqual([
    ["CIRCLE", "CUT_IN", 50.8, 127, 6.35],
    ["CIRCLE", "OUTSIDE", 50.8, 127, 25.4],
    ["POLYLINE", "MARK", undefined, undefined, undefined],
  ]);
  const back = page.getByText("Read back: all 3 the same");
  await back.click();
  await expect(page.getByRole("row", { name: /CUT_IN 1 1/ })).toContainText("39.8982267006");
  await expect(page.getByRole("region", { name: "Released files" })).toContainText("Our plasma · Ready");
  // all of it in one folder: the very file, what stands on paper, the tables, the sketch, the job
  const [folder] = await Promise.all([
    page.waitForEvent("download"),
    page.getByRole("button", { name: "Save the job folder (ZIP)" }).click(),
  ]);
  expect(folder.suggestedFilename()).toBe("0414-Rocker-plate.zip");
  const held = unzipSync(readFileSync(await folder.path()));
  expect(Object.keys(held).sort()).toEqual([
    "0414-Rocker-plate-callouts.csv",
    "0414-Rocker-plate-contours.csv",
    "0414-Rocker-plate-sheet.pdf",
    "0414-Rocker-plate-template.pdf",
    "0414-Rocker-plate.ashedge.json",
    "0414-rocker-plate-r1.dxf",
    "contents.txt",
    expect.stringMatching(/^sketches\/1 .*/),
  ]);
  expect(Buffer.from(held["0414-rocker-plate-r1.dxf"]!).toString()).toBe(text);
  expect(Buffer.from(held["0414-Rocker-plate-sheet.pdf"]!.slice(0, 5)).toString()).toBe("%PDF-");
  expect(Buffer.from(held["contents.txt"]!).toString()).toContain("for Our plasma");
  // the job keeps to it; in Settings it is saved to a file, removed, and taken from the file again
  await page.goto("/settings");
  const card = page.getByRole("region", { name: "Machine profiles" });
  const [saved] = await Promise.all([
    page.waitForEvent("download"),
    card.getByRole("button", { name: "Save Our plasma to a file" }).click(),
  ]);
  const file = readFileSync(await saved.path());
  await card.getByRole("button", { name: "Duplicate Our plasma" }).click();
  await expect(card.getByText("Our plasma 2")).toBeVisible();
  await card.getByRole("button", { name: "Remove Our plasma", exact: true }).click();
  await expect(card.getByText("Our plasma", { exact: true })).toHaveCount(0);
  await page.goto("/jobs/demo-0414/release");
  await expect(page.getByRole("alert")).toContainText(
    "The profile that this job took, Our plasma, is not there any more.",
  );
  await page.goto("/settings");
  const put2 = (name: string, buffer: Buffer) =>
    card.getByLabel("From a file …").setInputFiles({ name, mimeType: "application/json", buffer });
  await put2("none.json", Buffer.from("{}"));
  await expect(card.getByRole("alert")).toContainText("none.json: This is no machine profile.");
  await put2("our.profile.json", file);
  await expect(card.getByText("Our plasma", { exact: true })).toBeVisible();
  await expect(card.getByRole("alert")).toHaveCount(0);
  await page.goto("/jobs/demo-0414/release");
  await expect(machine).toHaveValue("Our plasma");
  // a name that another has is refused
  await page.getByRole("button", { name: "Change it …" }).click();
  await page.keyboard.press("Control+A");
  await page.keyboard.type("our plasma 2");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("dialog").getByRole("alert")).toContainText("There is a profile of that name already.");
  await page.keyboard.press("Escape");
  await expect(machine).toHaveValue("Our plasma");
});

test("a job keeps to the machine it was released for, whatever another one takes since", async ({ page }) => {
  await openRelease(page, put(newDrawing("in"), PROFILE_LAYER, circle(2, 1)));
  await toRelease(page);
  await expect(page.getByRole("combobox", { name: "Machine" })).toHaveValue("DXF R2000");
  expect(await entities(page)).toEqual(["CIRCLE OUTSIDE"]);
  await page.goto("/jobs/demo-0412/release");
  await page.getByRole("combobox", { name: "Machine" }).selectOption("R12, for old machines");
  await expect(page.getByText("DXF R12 · OUTSIDE")).toBeVisible();
  // a job that has chosen none takes what was taken last, one that was released its own
  await page.goto("/jobs/demo-0415/release");
  await expect(page.getByRole("combobox", { name: "Machine" })).toHaveValue("R12, for old machines");
  await page.goto("/jobs/demo-0414/release");
  await expect(page.getByRole("combobox", { name: "Machine" })).toHaveValue("DXF R2000");
});

test("a great drawing is looked over and written away from the page; what was stopped says so", async ({ page }) => {
  test.slow();
  const { text, nextId, curves } = sheet(100_000);
  const bench = new Bench(page);
  await page.goto("/jobs");
  await expect(page.getByRole("link", { name: "Rocker plate" })).toBeVisible();
  await storeDrawing(page, "demo-0414", text, nextId);
  await bench.open("Rocker plate");
  await toRelease(page);
  const checks = page.getByRole("region", { name: "Checks" });
  await checks.getByRole("button", { name: "Stop" }).click();
  await expect(checks).toContainText("Not checked");
  await expect(checks).toContainText("It was stopped.");
  await expect(checks).not.toContainText("Ready");
  await expect(page.getByRole("button", { name: "Write the DXF" })).toBeDisabled();
  await checks.getByRole("button", { name: "Look now" }).click();
  await expect(checks.getByRole("heading", { name: /^Ready/ })).toBeVisible({ timeout: 60_000 });
  await expect(page.getByRole("region", { name: "Contours" })).toContainText("more are written");
  await page.getByRole("button", { name: "Write the DXF" }).click();
  await page.getByRole("status", { name: "Work" }).getByRole("button", { name: "Stop" }).click();
  await expect(page.getByText("Stopped. Nothing was written.")).toBeVisible();
  await expect(page.getByRole("region", { name: "Released files" })).toContainText("None yet.");
  expect((await entities(page)).length).toBeGreaterThan(curves / 5);
});

test("nothing was looked at is not nothing was found: tidying and release that could not start", async ({ page }) => {
  const bench = await openRelease(page, put(newDrawing("mm"), PROFILE_LAYER, circle(0, 20), circle(0, 20)));
  await page.route("**/assets/*.worker*.js", (route) => route.abort());
  await page.getByRole("navigation", { name: "Steps" }).getByRole("button", { name: "Tidy" }).click();
  const findings = page.getByRole("region", { name: "Findings" });
  await expect(findings).toContainText("The drawing was not looked over.");
  await expect(findings).toContainText("not looked over");
  await expect(findings).not.toContainText("Nothing is doubled");
  await toRelease(page);
  const checks = page.getByRole("region", { name: "Checks" });
  await expect(checks).toContainText("Not checked");
  await expect(page.getByRole("button", { name: "Write the DXF" })).toBeDisabled();
  await page.unroute("**/assets/*.worker*.js");
  await checks.getByRole("button", { name: "Look now" }).click();
  await expect(checks.getByRole("heading", { name: "Not ready to cut" })).toBeVisible();
  await page.getByRole("link", { name: "Bench", exact: true }).click();
  await bench.ready();
  await page.getByRole("navigation", { name: "Steps" }).getByRole("button", { name: "Tidy" }).click();
  await expect(findings).toContainText("1 duplicate");
});
