import { expect, test } from "@playwright/test";
import { Bench, typeOver } from "../support/bench.ts";
import { newJob } from "../support/drawn.ts";

test(
  "a job's details: its weight follows material and thickness, what is no thickness is said, and all of it is " +
    "undone",
  async ({ page }) => {
    const bench = new Bench(page);
    await newJob(bench, "0412");
    await newJob(bench, "7400");
    await bench.tool("TT", "Rectangle");
    await bench.type("100");
    await page.keyboard.press("Tab");
    await page.keyboard.type("50");
    await page.keyboard.press("Enter");
    await bench.click({ x: 0.2, y: 0.2 });
    await bench.tool("EE", "Circle");
    await bench.type("20d");
    await bench.click({ x: 50.3, y: 25.2 });
    await page.keyboard.press("Escape");
    await page.keyboard.press("Escape");
    await expect(bench.pieces).toContainText("1 contour, 1 hole");
    await expect(bench.pieces).not.toContainText(" g");

    await page.getByRole("button", { name: "Job details" }).click();
    const dialog = page.getByRole("dialog", { name: "Job details" });
    await typeOver(dialog.getByLabel("Material"), "granite");
    await typeOver(dialog.getByLabel("Thickness"), "thick");
    await dialog.getByRole("button", { name: "Keep" }).click();
    await expect(dialog.getByRole("alert")).toContainText("“thick” is no thickness: 6, 6 mm or 3/8 in would be one.");
    await typeOver(dialog.getByLabel("Thickness"), "30 mm");
    await dialog.getByRole("button", { name: "Keep" }).click();
    await expect(dialog).toBeHidden();
    // (100 · 50 - π 10²) mm² by 30 mm at 2700 kg/m³
    const grams = (100 * 50 - Math.PI * 10 ** 2) * 30 * 2700e-6;
    await expect(bench.pieces).toContainText(`1 contour, 1 hole, ${Number(grams.toPrecision(3))} g`);

    await page.goto("/jobs");
    const row = page.getByRole("row", { name: /7400/ });
    await expect(row).toContainText("30 mm granite");
    await row.getByRole("button", { name: /^Actions for 7400/ }).click();
    await page.getByRole("menuitem", { name: "Details …" }).click();
    await typeOver(dialog.getByLabel("Job number"), "0412");
    await dialog.getByRole("button", { name: "Keep" }).click();
    await expect(dialog.getByRole("alert")).toContainText("There is another job 0412.");
    await typeOver(dialog.getByLabel("Job number"), "7401");
    await typeOver(dialog.getByLabel("Customer"), "Quayside Masons");
    await typeOver(dialog.getByLabel("Quantity"), "0");
    await dialog.getByRole("button", { name: "Keep" }).click();
    await expect(dialog.getByRole("alert")).toContainText("The quantity is a whole number, 1 or more.");
    await typeOver(dialog.getByLabel("Quantity"), "3");
    await dialog.getByRole("button", { name: "Keep" }).click();
    const changed = page.getByRole("row", { name: /7401/ });
    await expect(changed).toContainText("Quayside Masons");
    await expect(changed).toContainText("3 ×");
    await page.getByRole("button", { name: "Undo" }).click();
    await expect(page.getByRole("row", { name: /7400/ })).toContainText("1 ×");
  },
);
