import { expect, test } from "@playwright/test";
import { Bench } from "../support/bench.ts";

test("the demo opens in the states in which its jobs are: each goes on from where it stands", async ({ page }) => {
  await page.goto("/jobs");
  const table = page.getByRole("table", { name: "Jobs" });
  for (const [job, state] of [
    ["0412 Strainer cover plate", "drawn"],
    ["0413 Hearth stone", "sketched"],
    ["0414 Rocker plate", "sketched"],
    ["0415 Basin opening template", "drawn"],
    ["0416 Valve chest joint", "sketched"],
    ["0417 Station clock hands", "released"],
    ["0418 Lamp room nameplate", "proved"],
  ])
    await expect(table.getByRole("row", { name: new RegExp(job!) })).toContainText(state!);
  await expect(table.getByRole("row", { name: /0418/ })).toContainText("Ready to cut");
  const bench = new Bench(page);
  const open = async (name: string): Promise<void> => {
    await page.goto("/jobs");
    await page.getByRole("link", { name }).click();
    await bench.ready();
  };
  const now = page.getByRole("status", { name: "What now" });
  const card = page.getByRole("region", { name: "Sketch card" });

  await open("Strainer cover plate");
  await expect(page.getByRole("region", { name: "Ledger" })).toContainText("7 of 9 placed");
  await expect(bench.callout("Ø 14")).toContainText("off by −0.5");
  await expect(now).toContainText("1 callout off");
  await now.getByRole("button", { name: "Show" }).click();
  await expect(page.getByRole("group", { name: "Tools for Ø 14" })).toBeVisible();
  const revision = await bench.revision();
  await page.keyboard.press("Control+z"); // its history came with it
  await expect.poll(() => bench.revision()).toBe(revision - 1);
  await page.keyboard.press("Control+y");

  await open("Hearth stone");
  await expect(card).toContainText("2 of 2");
  await expect(card.getByRole("img")).toBeVisible();
  await expect(page.getByRole("region", { name: "Ledger" })).toContainText("5 of 9 placed");
  await expect(now).toContainText("Laid out. Go on with");
  await now.getByRole("button", { name: "Rectangle" }).click();
  await expect(bench.sentence("Rectangle")).toBeVisible();
  await expect(now).toHaveCount(0);

  await open("Rocker plate");
  await expect(now).toContainText("Scale the sketch by a length on it, or begin with");
  await now.getByRole("button", { name: "Scale it" }).click();
  await expect(bench.sentence("Scale the picture")).toBeVisible();

  await open("Valve chest joint");
  await expect(now).toContainText("Some lines lie twice");
  // what Pieces shows it also does: loose pieces that close are joined, an open chain is shown at its gap
  await bench.pieces.hover();
  await page.mouse.wheel(0, 5000);
  await bench.pieces.getByRole("button", { name: "Show where it is open" }).last().click();
  await expect(page.getByRole("region", { name: "Selected" })).not.toContainText("nothing");
  await bench.pieces.hover();
  await page.mouse.wheel(0, -5000);
  const before = await bench.revision();
  await bench.pieces
    .getByRole("button", { name: /^Join its \d+ pieces$/ })
    .first()
    .click();
  await expect(page.getByText(/^Joined: /)).toBeVisible();
  await expect.poll(() => bench.revision()).toBe(before + 1);
  await page.keyboard.press("Control+z");
  await now.getByRole("button", { name: "Tidy" }).click();
  await expect(page.getByRole("region", { name: "Findings" })).toContainText("5 duplicate");

  await open("Station clock hands");
  await page
    .getByRole("navigation", { name: "Steps" })
    .getByRole("button", { name: /^Release/ })
    .click();
  const files = page.getByRole("region", { name: "Released files" });
  await expect(files).toContainText("0417-station-clock-hands-r2.dxf");
  await expect(files).toContainText("0417-station-clock-hands-r1.dxf");
  await expect(files).toContainText("Test run by waterjet:");

  await open("Lamp room nameplate");
  await expect(now).toContainText("Every callout holds");
  await now.getByRole("button", { name: "Prove" }).click();
  await expect(page.getByRole("region", { name: "Callouts" })).toContainText("11 of 11 looked at");
  await expect(page.getByRole("region", { name: "Checks" }).getByRole("heading")).toHaveText("Ready to cut");
});
