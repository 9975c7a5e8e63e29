import { expect, test, type Page } from "@playwright/test";
import { ROCKER_PLATE } from "@ash-edge/tools/worked/rockerPlate";
import { Bench } from "../support/bench.ts";
import { noDemo } from "../support/demo.ts";
import { carryOutStep, D, MADE } from "../support/rockerPlate.ts";

const { steps } = ROCKER_PLATE;
const example = (page: Page) => page.getByRole("region", { name: "Worked example" });
const isAt = (page: Page, n: number): Promise<void> =>
  expect(example(page)).toContainText(n < steps.length ? `${n + 1}/${steps.length}` : "done");

const begun = async (page: Page): Promise<Bench> => {
  await noDemo(page);
  await page.goto("/help");
  await page.getByRole("button", { name: "Draw the rocker plate" }).click();
  const bench = new Bench(page);
  await bench.ready();
  await isAt(page, 0);
  return bench;
};

test("the worked example is followed by mouse and keys, from Help on, and notices every step", async ({ page }) => {
  const bench = await begun(page);
  await expect(page.getByRole("region", { name: "Sketch card" }).getByRole("img")).toBeVisible();
  for (const [i, step] of steps.entries()) {
    await isAt(page, i);
    // where the first click is due, the ring is there before it
    const [first] = step.gestures;
    if (first && "click" in first) {
      const ring = (await page.getByRole("img", { name: "Click here" }).boundingBox())!;
      const { x, y } = await bench.at(first.click);
      expect(ring.x + ring.width / 2).toBeCloseTo(x, 0);
      expect(ring.y + ring.height / 2).toBeCloseTo(y, 0);
    }
    await carryOutStep(bench, step);
  }
  await isAt(page, steps.length);
  await expect(bench.pieces).toContainText("1 contour, 3 holes");
  const ledger = page.getByRole("region", { name: "Ledger" });
  await expect(ledger.getByText("not placed")).toHaveCount(0);
  await example(page).getByRole("button", { name: "Prove it" }).click();
  await expect(page.getByRole("heading", { name: "Ready to cut" })).toBeVisible();
});

test("each step is done for the drafter, taken back, done another way; kept over a reload; begun again, left", async ({
  page,
}) => {
  const bench = await begun(page);
  const doIt = example(page).getByRole("button", { name: "Do it for me" });
  const back = example(page).getByRole("button", { name: "Back" });
  await expect(back).toBeDisabled();
  await doIt.click();
  await doIt.click();
  await isAt(page, 2);
  // back takes back what the step made, and the tool
  await back.click();
  await isAt(page, 1);
  await expect(bench.board).toHaveAttribute("data-revision", "0");
  await back.click();
  await isAt(page, 0);
  // the layout line another way: through two typed points
  await bench.tool("QW", "Through two points");
  for (const y of [0, 2]) {
    await bench.type(`${D};${y}`);
    await page.keyboard.press("Enter");
  }
  await isAt(page, 2);
  // undone it is to be done again, and not when it is done again
  await page.keyboard.press("Control+z");
  await isAt(page, 0);
  await page.keyboard.press("Control+y");
  await isAt(page, 2);
  await bench.reload();
  await isAt(page, 2);
  // what was chosen in a tool before does not stand in the way of what is done for the drafter
  await bench.tool("GG", "Join");
  await page.getByRole("radio", { name: "what is selected" }).click();
  await page.keyboard.press("Escape");
  // from far off what is clicked for the drafter is brought into sight
  await page.mouse.move(700, 400);
  for (let i = 0; i < 8; i++) await page.mouse.wheel(0, -600);
  for (let i = 2; i < steps.length; i++) {
    await isAt(page, i);
    await doIt.click();
  }
  await isAt(page, steps.length);
  await expect(bench.board).toHaveAttribute("data-revision", String(MADE));
  await expect(bench.pieces).toContainText("1 contour, 3 holes");
  // that all of it is there is said only while it is
  await expect(example(page)).toContainText("three holes");
  await page.keyboard.press("Escape");
  await page.keyboard.press("Escape");
  await page.keyboard.press("KeyV");
  await page.keyboard.press("KeyV");
  await bench.click({ x: 0, y: 1.1875 / 2 });
  await page.keyboard.press("Delete");
  await expect(example(page)).toContainText("not there any more");
  await page.keyboard.press("Control+z");
  await expect(example(page)).toContainText("three holes");
  // opened again from Help it is the same job; begun again it is empty
  await bench.saved();
  await page.goto("/help");
  await page.getByRole("button", { name: "Draw the rocker plate" }).click();
  await isAt(page, steps.length);
  await example(page).getByRole("button", { name: "Begin again" }).click();
  await isAt(page, 0);
  await expect(bench.board).toHaveAttribute("data-revision", "0");
  await page.getByRole("button", { name: "Leave the worked example" }).click();
  await expect(example(page)).toHaveCount(0);
  await bench.reload();
  await expect(example(page)).toHaveCount(0);
  await page.goto("/jobs");
  await expect(page.getByRole("row", { name: /Rocker plate, worked example/ })).toHaveCount(1);
});

test("without a server's answer Help says so, and makes no job", async ({ page }) => {
  await noDemo(page);
  await page.route("**/api/example", (route) => route.abort());
  await page.goto("/help");
  await page.getByRole("button", { name: "Draw the rocker plate" }).click();
  await expect(page.getByRole("alert")).toContainText("comes from the server");
  await page.goto("/jobs");
  await expect(page.getByText("No jobs yet.")).toBeVisible();
  await page.route("**/api/example", (route) => route.fulfill({ json: { unit: "cubit" } }));
  await page.getByRole("button", { name: "Draw the rocker plate" }).click();
  await expect(page.getByRole("alert")).toBeVisible();
});
