import { expect, test, type Page } from "@playwright/test";
import { execFileSync } from "node:child_process";
import { calloutsOf, newDrawing, type Drawing } from "@ash-edge/core/drawing";
import { partOf, rocker } from "../../core/src/testing/parts.ts";
import { typeOver } from "../support/bench.ts";
import { plateWith } from "../support/plate.ts";
import { openDrawn } from "../support/storedJob.ts";

/** A plate w by h with a hole Ø 30 in its middle, called so, and its lower edge dimensioned. */
const plate = (w: number, h: number): Drawing =>
  plateWith(
    [w, h],
    [[w / 2, h / 2, 15]],
    [{ kind: "diameter", value: 30, name: "bore" }],
    (draft, { outline, lowerEdge, holes: [hole] }, start) => {
      draft.link(calloutsOf(start)[0]!.id, [{ id: hole! }]);
      const id = draft.newId();
      const refs = [{ id: outline, vertex: lowerEdge }];
      draft.set("annotation", id, { id, kind: "linear", refs, at: { x: 0, y: -12 } });
    },
  );

const savePdf = async (page: Page): Promise<string> => {
  const [download] = await Promise.all([
    page.waitForEvent("download"),
    page.getByRole("button", { name: "Save the PDF" }).click(),
  ]);
  return download.path();
};
const wordsOf = (pdf: string): string => execFileSync("pdftotext", ["-layout", pdf, "-"]).toString();

test("a job on paper: what the preview shows is what the PDF holds, moved by the mouse and by keys", async ({
  page,
}) => {
  await openDrawn(page, plate(120, 80));
  await page.getByRole("navigation", { name: "Steps" }).getByRole("button", { name: "Release" }).click();
  await page.getByRole("navigation", { name: "Steps" }).getByRole("link", { name: "Sheet" }).click();
  const paper = page.getByRole("region", { name: "Paper" });
  const shown = page.getByRole("img", { name: "Page 1 of 1" });
  await expect(paper.getByRole("combobox", { name: "Scale" })).toContainText("as it fits, 1 : 1");
  await typeOver(paper.getByRole("textbox", { name: "Shop" }), "Fernhollow works");
  await expect(shown).toContainText("Fernhollow works");
  await expect(shown).toContainText("Ø 30 bore");
  // dragged 60 mm to the left and 20 up; then by keys
  const box = (await shown.boundingBox())!;
  const mm = box.width / 420;
  const start = { x: box.x + 150 * mm, y: box.y + 140 * mm };
  /** Where the dimension's number stands on the page, mm from the left and from the top. */
  const number = async (): Promise<readonly [number, number]> => {
    const at = (await shown.getByText("120", { exact: true }).boundingBox())!;
    return [(at.x + at.width / 2 - box.x) / mm, (at.y - box.y) / mm];
  };
  const before = await number();
  await page.mouse.move(start.x, start.y);
  await page.mouse.down();
  await page.mouse.move(start.x - 30 * mm, start.y - 20 * mm, { steps: 4 });
  await page.mouse.up();
  await expect.poll(async () => (await number())[0]).toBeCloseTo(before[0] - 30, 0);
  await expect.poll(async () => (await number())[1]).toBeCloseTo(before[1] - 20, 0);
  await shown.focus();
  await page.keyboard.press("Shift+ArrowRight");
  await page.keyboard.press("ArrowDown");
  await expect.poll(async () => (await number())[0]).toBeCloseTo(before[0] - 20, 0);
  const moved = await number();
  const pdf = await savePdf(page);
  await expect(paper.getByRole("status")).toContainText("-sheet.pdf was made, 1 page.");
  const boxes = execFileSync("pdftotext", ["-bbox", pdf, "-"]).toString();
  // the same number at the same place of the file, by poppler: points of 1/72 in
  const [, xMin, yMin, xMax] = /xMin="([\d.]+)" yMin="([\d.]+)" xMax="([\d.]+)" yMax="[\d.]+">120</.exec(boxes)!;
  expect(((Number(xMin) + Number(xMax)) / 2 / 72) * 25.4).toBeCloseTo(moved[0], 0);
  expect(Math.abs((Number(yMin) / 72) * 25.4 - moved[1])).toBeLessThan(1.5);
  const words = wordsOf(pdf);
  for (const word of ["Fernhollow works", "Ø 30 bore", "true", "1 : 1"]) expect(words).toContain(word);
  await paper.getByRole("button", { name: "Back to the middle" }).click();
  await expect.poll(async () => (await number())[0]).toBeCloseTo(before[0], 0);
  // what is printed is the page alone, in true size
  const printed = await page.pdf({ preferCSSPageSize: true });
  const info = execFileSync("pdfinfo", ["-"], { input: printed }).toString();
  expect(info).toMatch(/Pages:\s+1\n/);
  expect(info).toMatch(/Page size:\s+119\d\.?\d* x 84\d\.?\d* pts/);
});

test("a scale that does not fit is said with one that does; a template over pages; nothing drawn", async ({ page }) => {
  await openDrawn(page, plate(500, 300));
  const job = new URL(page.url()).pathname;
  await page.goto(`${job}/sheet`);
  const paper = page.getByRole("region", { name: "Paper" });
  await paper.getByRole("combobox", { name: "Scale" }).selectOption("1 : 1");
  await expect(page.getByRole("alert")).toContainText("At 1 : 1 the drawing does not fit on A3. At 1 : 2 it does");
  await expect(paper.getByRole("button", { name: "Save the PDF" })).toBeDisabled();
  await paper.getByRole("combobox", { name: "Paper" }).selectOption("A1");
  await expect(page.getByRole("alert")).toHaveCount(0);
  await expect(page.getByRole("img", { name: "Page 1 of 1" })).toContainText("1 : 1");
  await paper.getByRole("radio", { name: "template in true size" }).click();
  await paper.getByRole("combobox", { name: "Paper" }).selectOption("A4");
  await expect(page.getByRole("img")).toHaveCount(4);
  expect(wordsOf(await savePdf(page))).toContain("row 2 of 2, column 1 of 2");
  // the choice is kept
  await page.reload();
  await expect(page.getByRole("img")).toHaveCount(4);
  await openDrawn(page, newDrawing("mm"), { number: "7302" });
  await page.goto(`${new URL(page.url()).pathname}/sheet`);
  await expect(page.getByRole("alert")).toContainText("Nothing is drawn that could stand on paper.");
});

test("what the customer is to be asked stands on a page of its own, in the PDF, too", async ({ page }) => {
  const plan = rocker();
  await openDrawn(page, partOf({ ...plan, unit: "mm", calls: plan.calls.filter(({ name }) => name !== "tap") }));
  await page.goto(`${new URL(page.url()).pathname}/sheet`);
  const paper = page.getByRole("region", { name: "Paper" });
  await expect(page.getByRole("img")).toHaveCount(1);
  await paper.getByRole("checkbox", { name: "questions for the customer" }).click();
  await expect(page.getByRole("img")).toHaveCount(2);
  const asked = page.getByRole("img", { name: "Page 2 of 2" });
  await expect(asked).toContainText("What is the Ø of the hole? It is drawn as ~ 0.313.");
  await expect(asked).toContainText("What is the x of the hole Ø ~ 0.313? It is drawn as 2.5.");
  expect(wordsOf(await savePdf(page))).toContain("Questions for the customer");
  // with nothing open there is no such page, and it is said
  await openDrawn(page, plate(120, 80), { number: "7303" });
  await page.goto(`${new URL(page.url()).pathname}/sheet`);
  await expect(paper).toContainText(/questions for the customer\s*[1-9]/);
});
