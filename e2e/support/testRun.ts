import { expect, type Page } from "@playwright/test";
import { PROCESSES } from "@ash-edge/core/cutter";
import type { Bench } from "./bench.ts";

/** A waterjet's way in, which goes before each contour. */
const LEAD_IN = PROCESSES.waterjet.leadIn;

/**
 * From the bench on to a test run, by its steps: proved, released, cut by waterjet. The run must come to what is known
 * of the part: `length`, in mm, of its so many contours, and marks that are not led into.
 */
export const throughToTestRun = async (
  { page }: Bench,
  known: { readonly length: number; readonly contours: number; readonly marks?: number },
): Promise<void> => {
  const steps = page.getByRole("navigation", { name: "Steps" });
  await page.keyboard.press("Escape");
  await page.keyboard.press("Escape");
  await steps.getByRole("button", { name: /^Prove/ }).click();
  await expect(page.getByRole("heading", { name: /^Ready/ })).toBeVisible();
  await steps.getByRole("link", { name: "Release" }).click();
  await page.getByRole("button", { name: "Write the DXF" }).click();
  await expect(page.getByText("holds the same geometry")).toBeVisible();
  await testRun(page, known);
};

/** A released file's test run comes to what is known of it, and is played to its end. */
export const testRun = async (
  page: Page,
  { length, contours, marks = 0 }: { readonly length: number; readonly contours: number; readonly marks?: number },
): Promise<void> => {
  await page.getByRole("link", { name: /^Test run of/ }).click();
  const cutter = page.getByRole("region", { name: "Test cutter" });
  await expect(cutter).toContainText(`cut${(length + contours * LEAD_IN).toFixed(1)} mm`);
  await expect(cutter).toContainText(`pierces${contours + marks}`);
  await cutter.getByRole("radio", { name: "200 ×" }).click();
  await cutter.getByRole("button", { name: "Play" }).click();
  await expect(page.getByRole("img", { name: "The run, at done" })).toBeVisible();
};
