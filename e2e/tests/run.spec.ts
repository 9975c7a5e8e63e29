import { expect, test, type Page } from "@playwright/test";
import { PROCESSES, readCut, runOf } from "@ash-edge/core/cutter";
import type { Drawing } from "@ash-edge/core/drawing";
import { readFileSync } from "node:fs";
import { plateWith } from "../support/plate.ts";
import { openDrawn } from "../support/storedJob.ts";

/** A plate w by h with two holes Ø 20. */
const plate = (w: number, h: number): Drawing =>
  plateWith(
    [w, h],
    [
      [0.25 * w, h / 2, 10],
      [0.75 * w, h / 2, 10],
    ],
  );

/** Releases the drawing, and goes to the test run of the file; its text. */
const released = async (page: Page, drawing: Drawing, number: string): Promise<string> => {
  await openDrawn(page, drawing, { number });
  await page.getByRole("navigation", { name: "Steps" }).getByRole("button", { name: "Release" }).click();
  const [download] = await Promise.all([
    page.waitForEvent("download"),
    page.getByRole("button", { name: "Write the DXF" }).click(),
  ]);
  await page.getByRole("link", { name: /^Test run of/ }).click();
  return readFileSync(await download.path(), "utf8");
};

test("a released file on the test cutter: order, times, played by the server's events, kept with the release", async ({
  page,
}) => {
  const text = await released(page, plate(200, 100), "7311");
  const cutter = page.getByRole("region", { name: "Test cutter" });
  await expect(cutter).toContainText("Run by the server.");
  // what is said is what the file comes to, worked out here from its bytes
  const layers = { OUTSIDE: "outside", INSIDE: "inside" } as const;
  const read = readCut(text, PROCESSES.waterjet, layers);
  const run = runOf(read.ok ? read.value : [], PROCESSES.waterjet);
  expect(run.steps.map(({ use }) => use)).toEqual(["inside", "inside", "outside"]);
  await expect(cutter).toContainText(`${run.cut.toFixed(1)} mm`);
  await expect(cutter).toContainText(`${run.travel.toFixed(1)} mm`);
  await expect(page.getByRole("img", { name: "The run, at travel" })).toContainText("123");
  await cutter.getByRole("radio", { name: "200 ×" }).click();
  await cutter.getByRole("button", { name: "Play" }).click();
  await expect(page.getByRole("img", { name: "The run, at cut" })).toBeVisible();
  await expect(page.getByRole("img", { name: "The run, at done" })).toBeVisible();
  await expect(cutter.getByRole("button", { name: "Play" })).toBeVisible();
  const slider = cutter.getByRole("slider", { name: "Time of the run" });
  await slider.focus();
  await page.keyboard.press("Home");
  await expect(page.getByRole("img", { name: "The run, at travel" })).toBeVisible();
  await expect(cutter.getByRole("img", { name: "Time by contour" })).toBeVisible();
  // another process, and kept
  await cutter.getByRole("radio", { name: "plasma" }).click();
  await expect(cutter).toContainText("2500 mm/min");
  await cutter.getByRole("link", { name: "Back to the releases" }).click();
  await expect(page.getByRole("region", { name: "Released files" })).toContainText("Test run by plasma:");
});

test("without a server the page runs it; one that stops in the middle is gone on from; refusals are said", async ({
  page,
}) => {
  await page.route("**/api/cutter/**", (route) => route.abort());
  await released(page, plate(200, 100), "7312");
  const cutter = page.getByRole("region", { name: "Test cutter" });
  await expect(cutter).toContainText("No server is there: run in this page, by the same code.");
  await cutter.getByRole("radio", { name: "200 ×" }).click();
  await cutter.getByRole("button", { name: "Play" }).click();
  await expect(page.getByRole("img", { name: "The run, at done" })).toBeVisible();
  // the server has the run, and is gone when it is to be watched
  await page.unroute("**/api/cutter/**");
  await page.route("**/events*", (route) => route.abort());
  await page.reload();
  await expect(cutter).toContainText("Run by the server.");
  await cutter.getByRole("radio", { name: "200 ×" }).click();
  await cutter.getByRole("button", { name: "Play" }).click();
  await expect(page.getByRole("img", { name: "The run, at done" })).toBeVisible();
  // larger than the bed of the drag knife
  await page.unroute("**/events*");
  await released(page, plate(2000, 1000), "7313");
  await expect(cutter).toContainText("Run by the server.");
  await cutter.getByRole("radio", { name: "drag knife" }).click();
  await expect(cutter.getByRole("alert")).toContainText("It does not start. It needs 2000 mm × 1000 mm");
  await page.goto(page.url().replace(/run\/\d+$/, "run/9"));
  await expect(page.getByRole("alert")).toContainText("There is no such release of this job.");
});
