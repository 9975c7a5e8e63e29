import { join } from "node:path";
import { expect, test, type Page } from "@playwright/test";
import { answerCallout, measureCallout } from "@ash-edge/core/callouts";
import { applyEdit, calloutsOf, entitiesOf, type Drawing } from "@ash-edge/core/drawing";
import { profileOf } from "@ash-edge/core/profile";
import { randomFrom } from "../../core/src/testing/contours.ts";
import { partOf, rack, rocker, roughened, stepped } from "../../core/src/testing/parts.ts";
import { drawingOf } from "../support/annotated.ts";
import { Bench, typeOver } from "../support/bench.ts";
import { noDemo } from "../support/demo.ts";
import { drawRockerPlate } from "../support/rockerPlate.ts";
import { openDrawn } from "../support/storedJob.ts";

const panel = (page: Page) => page.getByRole("region", { name: "Numbers" });
const ledger = (page: Page) => page.getByRole("region", { name: "Ledger" });

/** Types a callout over in the ledger, by its menu and real keys. */
const revise = async (bench: Bench, row: string, text: string): Promise<void> => {
  const { page } = bench;
  await bench.callout(row).hover();
  await ledger(page)
    .getByRole("button", { name: new RegExp(`^More for ${row}`) })
    .click();
  await page.getByRole("menuitem", { name: "Change" }).click();
  await expect(page.getByRole("textbox", { name: "Change the callout" })).toBeFocused();
  await page.keyboard.press("Control+a");
  await page.keyboard.type(text);
  await page.keyboard.press("Enter");
};
const write = async (page: Page, text: string): Promise<void> => {
  await page.getByRole("textbox", { name: "Write a callout" }).click();
  await page.keyboard.type(text);
  await page.keyboard.press("Enter");
  await page.keyboard.press("Escape");
};
const outline = (drawing: Drawing): number => profileOf(drawing).contours[0]!.area;
const states = (drawing: Drawing): readonly string[] =>
  calloutsOf(drawing).map((one) => measureCallout(drawing, one).state);

test("job 0414: the customer rings, two numbers are typed over and made true; exact, and undone to the byte", async ({
  page,
}) => {
  const bench = new Bench(page);
  await bench.open("Rocker plate");
  await drawRockerPlate(bench, async () => undefined);
  const drawn = await bench.content();
  const before = await bench.revision();
  await revise(bench, "R 14", "R 15 belly");
  // what would move is shown before it is taken; Enter takes it
  await expect(panel(page).getByRole("status", { name: "What would move" })).toHaveText(/^2 corners move\./);
  await expect(panel(page)).toContainText("4 tangent joints");
  expect(await bench.revision()).toBe(before + 1);
  await page.keyboard.press("Enter");
  await expect.poll(() => bench.revision()).toBe(before + 2);
  await expect(page.getByText("Made true: R 15 belly.")).toBeVisible();
  await expect(panel(page)).toContainText("No placed number is off.");
  await revise(bench, "6 5/8", "6 3/4 boss centres");
  await expect(panel(page).getByRole("status", { name: "What would move" })).toContainText("corners move");
  await page.keyboard.press("Enter");
  await expect.poll(() => bench.revision()).toBe(before + 4);
  const made = await drawingOf(bench);
  expect(new Set(states(made))).toEqual(new Set(["true"]));
  // tangent line and belly by their closed forms
  const exact = outline(partOf(rocker({ belly: 15, centres: 6.75 })));
  expect(Math.abs(outline(made) / exact - 1)).toBeLessThan(1e-12);
  await bench.reload();
  for (let i = 0; i < 4; i++) await page.keyboard.press("Control+z");
  expect(await bench.content()).toBe(drawn);
});

test("numbers that fight are shown, one is left out or what holds is let go; how far one goes is said", async ({
  page,
}) => {
  const bench = await openDrawn(page, partOf(stepped(160, 130, 30)));
  await revise(bench, "30 other", "40 other");
  const alert = panel(page).getByRole("alert", { name: "Can’t be true" });
  await expect(alert).toContainText("These three can’t all be true: 160 whole, 130 one and 40 other.");
  const before = await bench.revision();
  await page.keyboard.press("Enter");
  await page.keyboard.press("Escape");
  expect(await bench.revision()).toBe(before);
  // with another of the three revised as well they agree again
  await revise(bench, "130 one", "120 one");
  await expect(ledger(page)).toContainText("2 numbers are off");
  await ledger(page).getByRole("button", { name: "Make all true" }).click();
  await expect(panel(page).getByRole("status", { name: "What would move" })).toContainText("move");
  // the left side stays by a click
  await panel(page).getByRole("button", { name: "this side stays" }).click();
  await bench.click({ x: 160, y: 20 });
  await expect(panel(page)).toContainText("Stays: line 40");
  await panel(page).getByRole("button", { name: "Make true" }).click();
  await expect.poll(() => bench.revision()).toBe(before + 2);
  expect(outline(await drawingOf(bench))).toBeCloseTo(160 * 80 - 40 * 40, 9);
  await expect(panel(page).getByRole("list", { name: "Said twice" })).toContainText("40 other follows from");
  await page.keyboard.press("Escape");
  await expect(panel(page)).toHaveCount(0);
});

test("what is left open is listed and written down; a number that goes no farther says its limit", async ({ page }) => {
  const plan = rocker();
  const bench = await openDrawn(
    page,
    partOf({ ...plan, unit: "mm", calls: plan.calls.filter(({ name }) => name !== "tap") }),
  );
  await revise(bench, "R 14 belly", "R 3 belly");
  const alert = panel(page).getByRole("alert", { name: "Can’t be true" });
  await expect(alert).toContainText(/It goes to ≈ 4\.2/);
  await page.keyboard.press("Control+z");
  const open = panel(page).getByRole("list", { name: "Left open" });
  await expect(open.getByRole("listitem")).toHaveCount(2);
  await expect(open).toContainText("Ø of the hole, now ≈ 0.313");
  await expect(open).toContainText("x of the hole Ø ≈ 0.313, now 2.5");
  await open.getByRole("listitem").filter({ hasText: "x of" }).getByRole("button", { name: "as drawn" }).click();
  await expect(open.getByRole("listitem")).toHaveCount(1);
  expect(calloutsOf(await drawingOf(bench)).at(-1)).toMatchObject({ kind: "length", value: 2.5, axis: "x" });
});

test("job 0416, opened and tidied: two numbers are written for it and it is made true", async ({ page }) => {
  await noDemo(page);
  await page.goto("/jobs");
  await page.getByRole("button", { name: "Open a file" }).click();
  const dialog = page.getByRole("dialog", { name: "Open a file" });
  await dialog
    .locator("input[type=file]")
    .setInputFiles(join(import.meta.dirname, "../../server/demo/0416-valve-chest-joint.dxf"));
  await typeOver(dialog.getByLabel("Job number"), "0416");
  await dialog.getByRole("button", { name: "Make the job" }).click();
  const bench = new Bench(page);
  await bench.ready();
  await page.getByRole("navigation", { name: "Steps" }).getByRole("button", { name: /^Tidy/ }).click();
  await page.getByLabel("copies on other layers too").check();
  await page.getByRole("button", { name: /^Mend all/ }).click();
  await expect(page.getByRole("region", { name: "Findings" })).toContainText("nothing found");
  await write(page, "R 18 corners");
  await write(page, "50 slot centres");
  const chains = [...entitiesOf(await drawingOf(bench))].filter((one) => one.kind === "chain");
  for (const [row, edges, round] of [
    ["R 18", 8, 16],
    ["50", 4, 6],
  ] as const) {
    const chain = chains.find((one) => one.vertices.length === edges && radiusIn(one) === round)!;
    const [p, q] = [chain.vertices[0]!, chain.vertices[1]!];
    const straight = p.bulge === 0 ? [p, q] : [q, chain.vertices[2]!];
    await bench.click({
      x: (straight[0]!.at.x + straight[1]!.at.x) / 2,
      y: (straight[0]!.at.y + straight[1]!.at.y) / 2,
    });
    await bench.callout(row).hover();
    await ledger(page)
      .getByRole("button", { name: new RegExp(`^More for ${row}`) })
      .click();
    await page.getByRole("menuitem", { name: "Answer with what is selected" }).click();
    await page.keyboard.press("Escape");
  }
  await ledger(page).getByRole("button", { name: "Make all true" }).click();
  await expect(panel(page).getByRole("status", { name: "What would move" })).toContainText("move");
  await panel(page).getByRole("button", { name: "Make true" }).click();
  await expect(panel(page)).toContainText("No placed number is off.");
  const areas = profileOf(await drawingOf(bench)).contours.map(({ area }) => area);
  const corner = 4 - Math.PI;
  expect(areas[0]!).toBeCloseTo(180 * 120 - corner * 18 * 18, 6);
  expect(areas.some((area) => Math.abs(area - (12 * 50 + Math.PI * 36)) < 1e-6)).toBe(true);
});

test("a part drawn by hand: callouts are put where they belong, or asked for, and it is made true", async ({
  page,
}) => {
  const plan = rocker();
  const drawn = roughened(partOf({ ...plan, unit: "mm" }), randomFrom(3));
  const bare = calloutsOf(drawn).reduce((now, { id }) => applyEdit(now, answerCallout(now, id, [])!), drawn);
  const bench = await openDrawn(page, bare);
  await ledger(page).getByRole("button", { name: "Look at them" }).click();
  const plain = panel(page).getByRole("list", { name: "Where they belong" });
  await expect(plain).toContainText("R 14 belly is arc R");
  const count = await plain.getByRole("listitem").count();
  // one is left where it is: not placed
  await plain.getByRole("listitem").filter({ hasText: "R 14 belly" }).getByRole("checkbox").click();
  await panel(page)
    .getByRole("button", { name: `Place these ${count - 1}` })
    .click();
  await expect(page.getByText(`${count - 1} callouts placed.`)).toBeVisible();
  const placed = async () => calloutsOf(await drawingOf(bench)).filter(({ links }) => links.length > 0).length;
  expect(await placed()).toBe(count - 1);
  await panel(page).getByRole("button", { name: "Place it" }).click();
  await expect.poll(placed).toBe(count);
  // the others are asked: the one that it is, is lit and clicked
  const which = panel(page).getByRole("list", { name: "Which is it" }).getByRole("listitem");
  while ((await which.count()) > 0) {
    const before = await placed();
    await which.first().getByRole("button").first().click();
    await expect.poll(placed).toBe(before + 1);
  }
  await expect(panel(page)).toContainText("It is not exact yet");
  // taken as it is drawn nothing is levelled or made tangent; and back
  await panel(page).getByRole("button", { name: "as it is drawn" }).click();
  await expect(panel(page)).toContainText("Taken as it is drawn");
  await panel(page).getByRole("button", { name: "as it is meant" }).click();
  await expect(panel(page)).toContainText("It is not exact yet");
  await panel(page).getByRole("button", { name: "Make true" }).click();
  await expect(panel(page)).toContainText("No placed number is off.");
  const exact = outline(partOf(plan));
  expect(Math.abs(outline(await drawingOf(bench)) / exact - 1)).toBeLessThan(1e-10);
});

test("a number that is far from what is drawn by hand is asked about before it is taken", async ({ page }) => {
  const bench = await openDrawn(page, roughened(partOf({ ...rocker(), unit: "mm" }), randomFrom(3)));
  await revise(bench, "Ø ≈ 1.188", "Ø 1.8175 bore");
  await expect(panel(page)).toContainText("Is Ø ≈ 1.817 bore right? It is far from what is drawn.");
});

test("on a chain of 600 pieces the page stays live while it is worked out, and stop stops it", async ({ page }) => {
  const drawing = partOf(rack(600));
  const bench = await openDrawn(page, drawing);
  await revise(bench, "10 low 0", "12 low 0");
  const busy = panel(page).getByRole("progressbar", { name: "Working it out" });
  await expect(busy).toBeVisible();
  await panel(page).getByRole("button", { name: "Stop" }).click();
  await expect(busy).toHaveCount(0);
  await expect(panel(page).getByRole("alert")).toContainText("It was not looked what would move.");
  const before = await bench.revision();
  await panel(page).getByRole("button", { name: "Look now" }).click();
  // while it works the page draws: so many frames before it is done
  const frames = await busy.evaluate(
    (bar) =>
      new Promise<number>((resolve) => {
        let count = 0;
        const frame = (): void => {
          if (!bar.isConnected) resolve(count);
          else requestAnimationFrame(frame);
          count++;
        };
        requestAnimationFrame(frame);
      }),
  );
  expect(frames).toBeGreaterThan(20);
  await expect(panel(page).getByRole("status", { name: "What would move" })).toContainText("move", { timeout: 30_000 });
  await panel(page).getByRole("button", { name: "Make true" }).click();
  await expect.poll(() => bench.revision()).toBe(before + 1);
  // two more of what is 30 high
  expect(outline(await drawingOf(bench)) - outline(drawing)).toBeCloseTo(60, 8);
});

/** The radius of a chain's first arc, to three decimals. */
const radiusIn = ({ vertices }: { vertices: readonly { at: { x: number; y: number }; bulge: number }[] }): number => {
  const i = vertices.findIndex(({ bulge }) => bulge !== 0);
  const [a, b] = [vertices[i]!, vertices[(i + 1) % vertices.length]!];
  const chord = Math.hypot(b.at.x - a.at.x, b.at.y - a.at.y);
  return Math.round(((chord * (1 + a.bulge * a.bulge)) / (4 * Math.abs(a.bulge))) * 1000) / 1000;
};
