import { expect, test, type Page } from "@playwright/test";
import { calloutsOf, entitiesOf, type Drawing } from "@ash-edge/core/drawing";
import { profileOf } from "@ash-edge/core/profile";
import { partOf, rocker } from "../../core/src/testing/parts.ts";
import { drawingOf } from "../support/annotated.ts";
import { Bench } from "../support/bench.ts";
import { SketchPicture } from "../support/sketchPicture.ts";

const panel = (page: Page) => page.getByRole("region", { name: "Traced" });
const numbers = (page: Page) => page.getByRole("region", { name: "Numbers" });
const kinds = (drawing: Drawing): readonly string[] =>
  [...entitiesOf(drawing)].map(({ kind }) => kind).filter((kind) => kind !== "endless");

/** The rocker plate's sketch to scale: its two bosses' centres are 6 5/8 apart. Five gestures. */
const scaled = async (bench: Bench): Promise<void> => {
  const { page } = bench;
  const sketch = await SketchPicture.shown(page);
  await page.keyboard.press("KeyB");
  await page.keyboard.press("KeyW");
  await bench.callout("6 5/8").click();
  await sketch.click({ x: 250, y: 400 });
  await sketch.click({ x: 952, y: 400 });
  await expect(page.getByText("The picture is to scale")).toBeVisible();
  await page.keyboard.press("Escape");
};

test("job 0414: from its picture to the exact profile in at most 12 gestures", async ({ page }) => {
  const bench = new Bench(page);
  await bench.open("Rocker plate");
  await scaled(bench); // 5
  // a chord of the key grid: 6; what is proposed is there: Enter accepts the outline: 7
  await page.keyboard.press("KeyB");
  await page.keyboard.press("KeyC");
  await expect(panel(page).getByRole("progressbar")).toBeVisible();
  await expect(panel(page).getByRole("list", { name: "Outline" }).getByRole("listitem")).toHaveCount(7, {
    timeout: 60_000,
  });
  await page.keyboard.press("Enter");
  await expect.poll(async () => kinds(await drawingOf(bench))).toHaveLength(4);
  const [chain] = [...entitiesOf(await drawingOf(bench))].flatMap((one) => (one.kind === "chain" ? [one] : []));
  expect(chain).toMatchObject({ closed: true });
  expect(chain!.vertices).toHaveLength(4);
  // the numbers that belong to it, looked through and placed: 8 and 9; made true: 10
  await page.getByRole("region", { name: "Ledger" }).getByRole("button", { name: "Look at them" }).click();
  await numbers(page).getByRole("button", { name: "Place these 7" }).click();
  await numbers(page).getByRole("button", { name: "Make true" }).click();
  await expect(numbers(page)).toContainText("No placed number is off.");
  const made = await drawingOf(bench);
  const contours = profileOf(made).contours.map(({ area }) => area);
  const exact = profileOf(partOf(rocker())).contours.map(({ area }) => area);
  for (const k of [0, 1, 2]) expect(Math.abs(contours[k]! / exact[k]! - 1)).toBeLessThan(1e-10);
  expect(calloutsOf(made).filter(({ links }) => links.length > 0)).toHaveLength(7);
});

test("what is proposed is picked, moved, rejected and accepted; undone it is proposed again", async ({ page }) => {
  const bench = new Bench(page);
  await bench.open("Rocker plate");
  // without a scale there is nothing to trace
  await page.keyboard.press("KeyB");
  await page.keyboard.press("KeyC");
  await expect(page.getByText(/There is no sketch to trace|The picture has no scale yet/)).toBeVisible();
  await page.keyboard.press("Escape");
  await scaled(bench);
  await page.keyboard.press("KeyB");
  await page.keyboard.press("KeyC");
  // stopped, nothing is proposed, and it can be begun again
  await panel(page).getByRole("button", { name: "Stop" }).click();
  await expect(panel(page).getByRole("alert")).toContainText("Nothing was traced.");
  await panel(page).getByRole("button", { name: "Again" }).click();
  const outline = panel(page).getByRole("list", { name: "Outline" }).getByRole("listitem");
  await expect(outline).toHaveCount(7, { timeout: 60_000 });
  // thin lines are off at first; shown they are listed
  await expect(panel(page).getByRole("list", { name: "Thin" })).toHaveCount(0);
  await panel(page).getByRole("checkbox", { name: "Show thin" }).click();
  expect(await panel(page).getByRole("list", { name: "Thin" }).getByRole("listitem").count()).toBeGreaterThan(3);
  // one is rejected, one moved by what is picked on the board, the rest accepted
  await outline
    .filter({ hasText: "circle" })
    .first()
    .getByRole("button", { name: /^Reject/ })
    .click();
  await expect(outline).toHaveCount(6);
  await outline
    .filter({ hasText: "circle" })
    .first()
    .getByRole("button", { name: /^Accept/ })
    .click();
  await expect(outline).toHaveCount(5);
  expect(kinds(await drawingOf(bench))).toEqual(["circle"]);
  await page.keyboard.press("Control+z");
  await expect(outline).toHaveCount(6);
  await panel(page).getByRole("button", { name: "Accept the outline 6" }).click();
  await expect(outline).toHaveCount(0);
  expect(kinds(await drawingOf(bench))).toHaveLength(3);
  await page.keyboard.press("Escape");
  await expect(panel(page)).toHaveCount(0);
});
