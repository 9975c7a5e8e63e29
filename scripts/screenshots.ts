// Makes docs/screenshots/ from the demo data: one current picture of each main view. Needs a built application.
import { join } from "node:path";
import { Bench } from "../e2e/support/bench.ts";
import { withBrowser } from "./withBrowser.ts";
import { D, drawRockerPlate } from "../e2e/support/rockerPlate.ts";

const folder = join(import.meta.dirname, "..", "docs", "screenshots");
await withBrowser(4339, async (page) => {
  const shoot = async (name: string): Promise<void> => {
    await page.evaluate(() => document.fonts.ready);
    await page.waitForTimeout(250);
    await page.screenshot({ path: join(folder, `${name}.png`) });
  };
  const theme = async (name: string): Promise<void> => page.getByRole("button", { name }).click();
  const bench = new Bench(page);
  /** A job of the demo as it stands. */
  const open = async (name: string): Promise<void> => {
    await page.goto("/jobs");
    await page.getByRole("link", { name }).click();
    await bench.ready();
  };
  await page.goto("/jobs");
  await page.getByRole("link", { name: "Lamp room nameplate" }).waitFor();
  await page.waitForTimeout(1500);
  await shoot("jobs");
  await open("Rocker plate");
  let step = 0;
  await drawRockerPlate(bench, async () => {
    if (++step !== 8) return; // the tangent line is drawn
    await bench.tool("RQ", "Tangent arc");
    await bench.callout("R 14 belly").click();
    await bench.click({ x: -0.3, y: -1.085 });
    await bench.point({ x: D + 0.25, y: -0.707 });
    await shoot("bench-at-work");
    await theme("Evening theme");
    await bench.point({ x: D + 0.25, y: -0.707 });
    await shoot("bench-at-work-evening");
    await theme("Light theme");
    await page.keyboard.press("Escape");
    await page.keyboard.press("Escape");
  });
  await page.getByRole("button", { name: "Undo" }).last().waitFor({ state: "visible" });
  await page.waitForTimeout(4500); // the toasts are gone
  // the customer rings: R 14 becomes 15
  await bench.callout("R 14 belly").hover();
  await page.getByRole("button", { name: "More for R 14 belly" }).click();
  await page.getByRole("menuitem", { name: "Change" }).click();
  await page.waitForTimeout(300);
  await page.keyboard.press("Control+a");
  await page.keyboard.type("R 10 belly");
  await page.keyboard.press("Enter");
  await page.getByText("2 corners move").waitFor();
  await bench.point({ x: 3, y: 1.8 });
  await shoot("make-true");
  await page.keyboard.press("Escape");
  await page.keyboard.press("Control+z");
  for (const key of ["KeyZ", "KeyG", "KeyV", "KeyV"]) await page.keyboard.press(key);
  await page.getByText("dimensions placed.").waitFor();
  await bench.point({ x: 3, y: 1.8 });
  await shoot("dimensions");
  const steps = page.getByRole("navigation", { name: "Steps" });
  await steps.getByRole("button", { name: /^Prove/ }).click();
  await page.getByRole("combobox", { name: "Tool" }).selectOption("a bit of 1/4 in");
  await page.getByRole("row", { name: /big boss/ }).focus();
  for (const key of ["Enter", "ArrowDown", "Enter", "ArrowDown", "ArrowDown", "ArrowDown", "ArrowDown"])
    await page.keyboard.press(key);
  await page.waitForTimeout(4500);
  await shoot("prove");
  await steps.getByRole("link", { name: "Compare" }).click();
  const before = page.getByRole("combobox", { name: "before" });
  await page
    .getByText(/the same/i)
    .first()
    .waitFor();
  const labels = await before.getByRole("option").allTextContents();
  await before.selectOption(labels.find((label) => label.includes("Tangent arc"))!);
  await page.getByText(/the same, .*came/).waitFor();
  await shoot("compare");
  await steps.getByRole("link", { name: "Release" }).click();
  await page.getByRole("button", { name: "Write the DXF" }).click();
  await page.getByText("holds the same geometry").waitFor();
  await page.evaluate(() => window.scrollTo(0, 0));
  await shoot("release");
  await steps.getByRole("link", { name: "Sheet" }).click();
  await page.getByRole("img", { name: "Page 1 of 1" }).waitFor();
  await page.getByRole("checkbox", { name: /sketch/ }).click();
  await page.waitForTimeout(1000);
  await shoot("sheet");
  await steps.getByRole("link", { name: "Release" }).click();
  await page.getByRole("link", { name: /^Test run of/ }).click();
  await page.getByRole("radio", { name: "50 ×" }).click();
  await page.getByRole("slider", { name: "Time of the run" }).focus();
  for (let i = 0; i < 6; i++) await page.keyboard.press("PageUp");
  await page.waitForTimeout(600);
  await shoot("run");
  for (const [name, heading] of [
    ["help", "Help"],
    ["tables", "Tables"],
  ] as const) {
    await page.goto(name === "help" ? "/help#fillet" : `/${name}`);
    await page.getByRole("heading", { name: heading }).first().waitFor();
    await shoot(name);
  }
  // a straightened photo traced, one proposal picked
  await open("Hearth stone");
  for (const key of ["KeyB", "KeyC"]) await page.keyboard.press(key);
  const outline = page.getByRole("list", { name: "Outline" }).getByRole("listitem");
  await outline.first().waitFor({ timeout: 60_000 });
  await outline.first().getByRole("button", { name: /^arc/ }).click();
  await page.waitForTimeout(500);
  await shoot("traced");
  await page.keyboard.press("Escape");
  await page.goto("/jobs");
  await page.getByRole("link", { name: /^Inbox/ }).click();
  await page.getByRole("link", { name: /Sight glass flange/ }).click();
  await page.getByRole("button", { name: "Make a job of it" }).click();
  await page.getByRole("checkbox", { name: "flange.jpg" }).waitFor();
  await shoot("inbox");
  await page.keyboard.press("Escape");
  // a customer's file with its findings, one of them lit
  await open("Valve chest joint");
  for (const key of ["KeyV", "KeyV"]) await page.keyboard.press(key);
  await page.getByRole("navigation", { name: "Steps" }).getByRole("button", { name: /^Tidy/ }).click();
  await page
    .getByRole("article", { name: /^duplicate/ })
    .first()
    .hover();
  await page.waitForTimeout(1500);
  await shoot("findings");
  // tidied, the outline selected, a side being shifted by its handle
  await page.getByRole("button", { name: /^Mend all/ }).click();
  await page.getByText("nothing found").waitFor();
  await page.getByRole("button", { name: "Back to the pieces" }).click();
  await bench.click({ x: 60, y: 120 });
  await bench.click({ x: 180, y: 60 });
  await bench.point({ x: 196, y: 70 });
  await shoot("handles");
  // an opening through points: fitted to arcs with its chart, then its rebate being offset
  await open("Basin opening template");
  for (const key of ["KeyV", "KeyV"]) await page.keyboard.press(key);
  await bench.tool("GF", "Arc fit");
  await bench.type("0.05");
  await page.keyboard.press("Enter");
  await bench.point({ x: 100, y: 156 });
  await page.waitForTimeout(2500);
  await shoot("arc-fit");
  await bench.click({ x: 0, y: 165 });
  await page.keyboard.press("Escape");
  await page.keyboard.press("Escape");
  await bench.tool("FF", "Offset");
  await bench.callout("12").click();
  await bench.click({ x: 0, y: 165 });
  await bench.point({ x: 20, y: 190 });
  await page.waitForTimeout(4500);
  await shoot("offset");
  await page.goto("/help");
  await page.getByRole("button", { name: "Draw the rocker plate" }).click();
  await bench.ready();
  const example = page.getByRole("region", { name: "Worked example" });
  for (let done = 0; done < 5; done++) await example.getByRole("button", { name: "Do it for me" }).click();
  await bench.callout("Ø 1 1/2").hover();
  await page.waitForTimeout(4500); // the toasts are gone
  await bench.tool("EE", "Circle");
  await bench.type("1-3/16d");
  await bench.point({ x: 0.5, y: 0.3 });
  await shoot("worked-example");
});
