import AxeBuilder from "@axe-core/playwright";
import { expect, test, type Page } from "@playwright/test";
import { Bench } from "../support/bench.ts";
import { layoutFaults } from "../support/layoutFaults.ts";

/** Serious faults by axe; of some rules, or of all. */
const faultsOf = async (page: Page, rules?: string[]): Promise<string[]> => {
  const axe = new AxeBuilder({ page });
  const { violations } = await (rules ? axe.withRules(rules) : axe).analyze();
  return violations
    .filter(({ impact }) => impact === "serious" || impact === "critical")
    .map(({ id, nodes }) => `${id}: ${nodes.map(({ html }) => html.slice(0, 160)).join(" | ")}`);
};
const inTheme = (page: Page, theme: string): Promise<void> =>
  page.evaluate((name) => void (document.documentElement.dataset.theme = name), theme);

/** A small window; 150 % of 1280 × 800; large ones hold what these do. */
const SIZES = [
  { width: 1024, height: 700 },
  { width: 853, height: 533 },
] as const;

/** Nothing serious for readers and keyboards in both themes, whose colours alone differ, and nothing cut off. */
const look = async (page: Page, { sizes = true } = {}): Promise<void> => {
  expect(await faultsOf(page)).toEqual([]);
  await inTheme(page, "evening");
  expect(await faultsOf(page, ["color-contrast"])).toEqual([]);
  await inTheme(page, "ash");
  if (!sizes) return;
  for (const size of SIZES) {
    await page.setViewportSize(size);
    await expect.poll(() => layoutFaults(page), `at ${size.width} × ${size.height}`).toEqual([]);
  }
  await page.setViewportSize({ width: 1280, height: 800 });
};
const steps = (page: Page) => page.getByRole("navigation", { name: "Steps" });

test("the bench, with what opens on it, holds for readers, in both themes and in small windows", async ({ page }) => {
  const bench = new Bench(page);
  await page.goto("/jobs");
  await page.getByRole("link", { name: "Strainer cover plate" }).click();
  await bench.ready();
  await look(page);
  await bench.click({ x: 0, y: 60 });
  await page.keyboard.press("KeyE");
  await look(page, { sizes: false });
  await page.keyboard.press("KeyE");
  await bench.type("1-3/16");
  await look(page);
  await page.keyboard.press("Escape");
  for (const open of ["Snaps", "Hold", "History", "More for Marks", "Style of dimensions"]) {
    await page.getByRole("button", { name: open, exact: true }).click();
    await look(page, { sizes: false });
    await page.keyboard.press("Escape");
  }
  await page.keyboard.press("Control+k");
  await expect(page.getByRole("dialog", { name: "Finder" })).toBeVisible();
  await look(page);
  await page.keyboard.press("Escape");
  await page.getByRole("button", { name: "Job details" }).click();
  await expect(page.getByRole("dialog", { name: "Job details" })).toBeVisible();
  await look(page);
  await page.keyboard.press("Escape");
  // findings, and panels behind one another
  await page.goto("/jobs");
  await page.getByRole("link", { name: "Valve chest joint" }).click();
  await bench.ready();
  await page.setViewportSize(SIZES[0]);
  await steps(page).getByRole("button", { name: /^Tidy/ }).click();
  await expect(page.getByRole("tab", { name: "Pieces" })).toHaveAttribute("aria-selected", "true");
  await expect(page.getByRole("region", { name: "Findings" })).toBeVisible();
  await look(page);
  await page.setViewportSize(SIZES[0]);
  for (const name of ["Sketch", "Callouts", "Selected", "Layers"]) {
    await page.getByRole("tab", { name }).click();
    expect(await layoutFaults(page)).toEqual([]);
  }
  await page.getByRole("tab", { name: "Layers" }).focus();
  await page.keyboard.press("ArrowLeft");
  await expect(page.getByRole("tab", { name: "Selected" })).toHaveAttribute("aria-selected", "true");
});

test("every other place, with its dialogs, holds for readers, in both themes and in small windows", async ({
  page,
}) => {
  await page.goto("/jobs");
  await expect(page.getByRole("link", { name: "Lamp room nameplate" })).toBeVisible();
  await look(page);
  for (const name of ["New job", "Open a file"]) {
    await page.getByRole("button", { name }).click();
    await expect(page.getByRole("dialog", { name })).toBeVisible();
    await look(page);
    await page.keyboard.press("Escape");
  }
  await page.getByRole("row", { name: /0417/ }).getByRole("button").last().click();
  await look(page, { sizes: false });
  await page.keyboard.press("Escape");
  for (const [place, shows] of [
    ["/tables", "Tables"],
    ["/settings", "Settings"],
    ["/help", "Help"],
  ] as const) {
    await page.goto(place);
    await expect(page.getByRole("heading", { level: 1, name: shows })).toBeVisible();
    await look(page);
  }
  await page.goto("/tables");
  await page.getByRole("radio", { name: "Tools and sheets" }).click();
  await page.getByRole("button", { name: "Add a tool" }).click();
  await look(page);
  await page.goto("/inbox/flange");
  await expect(page.getByRole("img", { name: "flange.jpg" })).toBeVisible();
  await look(page);
  await page.getByRole("button", { name: "Make a job of it" }).click();
  await expect(page.getByRole("checkbox", { name: "flange.jpg" })).toBeVisible();
  await look(page);
  const job = "/jobs/demo-0417";
  await page.goto(`${job}/prove`);
  await expect(page.getByRole("region", { name: "Checks" }).getByRole("heading")).toBeVisible();
  await look(page);
  await page.goto(`${job}/release`);
  await expect(page.getByRole("button", { name: "Write the DXF" })).toBeEnabled();
  await look(page);
  await page.getByRole("button", { name: "Change it" }).click();
  await expect(page.getByRole("dialog")).toBeVisible();
  await look(page);
  for (const [place, shows] of [
    ["sheet", "Save the PDF"],
    ["compare", "With a file …"],
  ] as const) {
    await page.goto(`${job}/${place}`);
    await expect(page.getByRole("button", { name: shows })).toBeVisible();
    await look(page);
  }
  await page.goto(`${job}/run/2`);
  await expect(page.getByRole("region", { name: "Test cutter" })).toContainText("pierces");
  await look(page);
});
