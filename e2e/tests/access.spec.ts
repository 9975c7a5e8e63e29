import AxeBuilder from "@axe-core/playwright";
import { expect, test, type Page } from "@playwright/test";
import { Bench } from "../support/bench.ts";

/** Serious faults by axe; of some rules, or of all. */
const faultsOf = async (page: Page, rules?: string[]): Promise<string[]> => {
  const axe = new AxeBuilder({ page });
  const { violations } = await (rules ? axe.withRules(rules) : axe).analyze();
  return violations
    .filter(({ impact }) => impact === "serious" || impact === "critical")
    .map(({ id, nodes }) => `${id}: ${nodes.map(({ html }) => html.slice(0, 160)).join(" | ")}`);
};

for (const theme of ["ash", "evening"]) {
  // the other theme changes colours alone
  const faults = (page: Page): Promise<string[]> => faultsOf(page, theme === "ash" ? undefined : ["color-contrast"]);
  test(`no serious fault for readers and keyboards on any screen, ${theme}`, async ({ page }) => {
    await page.addInitScript((name) => localStorage.setItem("ash-edge-theme", name), theme);
    const bench = new Bench(page);
    await bench.open("Rocker plate");
    await bench.tool("EE", "Circle");
    await bench.type("1-3/16");
    await bench.click({ x: 0, y: 0 });
    expect(await faults(page)).toEqual([]);
    await page.keyboard.press("Control+k");
    await expect(page.getByRole("dialog", { name: "Finder" })).toBeVisible();
    expect(await faults(page)).toEqual([]);
    await page.keyboard.press("Escape");
    await page.getByRole("navigation", { name: "Steps" }).getByRole("button", { name: "Release" }).click();
    await expect(page.getByRole("button", { name: "Write the DXF" })).toBeVisible();
    expect(await faults(page)).toEqual([]);
    await page.getByRole("navigation", { name: "Steps" }).getByRole("link", { name: "Prove" }).click();
    await expect(page.getByRole("region", { name: "Made with" })).toBeVisible();
    await expect(page.getByRole("region", { name: "Checks" }).getByRole("heading")).toBeVisible();
    expect(await faults(page)).toEqual([]);
    await page.goto("/jobs");
    await expect(page.getByRole("link", { name: "Rocker plate" })).toBeVisible();
    expect(await faults(page)).toEqual([]);
    await page.getByRole("button", { name: "New job" }).click();
    expect(await faults(page)).toEqual([]);
    for (const place of ["/tables", "/settings", "/help"]) {
      await page.goto(place);
      await expect(page.getByRole("heading", { level: 1 })).toBeVisible();
      expect(await faults(page)).toEqual([]);
    }
    await page.goto("/inbox/flange");
    await expect(page.getByRole("img", { name: "flange.jpg" })).toBeVisible();
    expect(await faults(page)).toEqual([]);
    await page.getByRole("button", { name: "Make a job of it" }).click();
    await expect(page.getByRole("checkbox", { name: "flange.jpg" })).toBeVisible();
    expect(await faults(page)).toEqual([]);
    await bench.open("Hearth stone");
    await page.getByRole("button", { name: "Snaps" }).click();
    expect(await faults(page)).toEqual([]);
  });
}
