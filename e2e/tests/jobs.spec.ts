import { expect, test, type Page } from "@playwright/test";
import { manyJobs } from "../support/manyJobs.ts";
import { sketchedOnly } from "../support/demo.ts";
import { typeOver } from "../support/bench.ts";
import { putRecords } from "../support/storedJob.ts";

const rows = (page: Page) => page.getByRole("table", { name: "Jobs" }).getByRole("link");
const act = async (page: Page, job: string, action: string): Promise<void> => {
  await page.getByRole("button", { name: `Actions for ${job}` }).click();
  await page.getByRole("menuitem", { name: action }).click();
};

/** The demo's jobs, as they are listed. */
const DEMO = [
  "Strainer cover plate",
  "Hearth stone",
  "Rocker plate",
  "Basin opening template",
  "Station clock hands",
  "Lamp room nameplate",
];

test.beforeEach(async ({ page }) => {
  await sketchedOnly(page);
  await page.goto("/jobs");
  await expect(rows(page)).toHaveCount(DEMO.length);
});

test("jobs are searched, sorted and filtered, and the table stays as it was left", async ({ page }) => {
  await typeOver(page.getByLabel("Search the jobs"), "plate pump");
  await expect(rows(page)).toHaveText(["Strainer cover plate", "Rocker plate"]);
  await page.getByRole("button", { name: "Part" }).click();
  await expect(rows(page)).toHaveText(["Rocker plate", "Strainer cover plate"]);
  await page.reload();
  await expect(page.getByLabel("Search the jobs")).toHaveValue("plate pump");
  await expect(rows(page)).toHaveText(["Rocker plate", "Strainer cover plate"]);
  await page.getByRole("radio", { name: "released" }).click();
  await expect(page.getByText("No job fits what is asked for.")).toBeVisible();
});

test("a job is duplicated, archived and deleted, each with undo", async ({ page }) => {
  await act(page, "0414 Rocker plate", "Duplicate");
  await expect(rows(page)).toHaveText([...DEMO, "Rocker plate"]);
  await rows(page).last().click();
  await expect(page.getByRole("img", { name: /sketch of Rocker plate/ })).toBeVisible();
  await expect(page.getByRole("region", { name: "Ledger" })).toContainText("0 of 8 placed");
  await page.goto("/jobs");
  await act(page, "0419 Rocker plate", "Delete");
  await expect(rows(page)).toHaveCount(DEMO.length);
  await page.getByRole("button", { name: "Undo" }).click();
  await expect(rows(page)).toHaveCount(DEMO.length + 1);
  await act(page, "0419 Rocker plate", "Delete");
  await expect(rows(page)).toHaveCount(DEMO.length);
  await page.reload();
  await expect(rows(page)).toHaveCount(DEMO.length);
  await page.getByRole("button", { name: "Bin" }).click();
  await page.getByRole("button", { name: "Put 0419 Rocker plate back" }).click();
  await expect(rows(page)).toHaveCount(DEMO.length + 1);
  await act(page, "0413 Hearth stone", "Archive");
  await expect(rows(page)).toHaveCount(DEMO.length);
  await page.getByLabel("archived").check();
  await expect(rows(page)).toHaveText(["Hearth stone"]);
  await act(page, "0413 Hearth stone", "Back to the list");
  await expect(rows(page)).toHaveCount(0);
});

test("with 500 jobs only the rows in sight are in the page, and any one is found", async ({ page }) => {
  await putRecords(page, { jobs: manyJobs(500) });
  await page.reload();
  await expect(page.getByRole("heading", { name: `Jobs ${500 + DEMO.length}` })).toBeVisible();
  // only the rows in sight and a few beside them are there, whatever the count: the last is reached by scrolling
  const shown = await rows(page).count();
  expect(shown).toBeGreaterThan(DEMO.length);
  expect(shown).toBeLessThan(60);
  await expect(page.getByText("Gasket 499")).toHaveCount(0);
  await typeOver(page.getByLabel("Search the jobs"), "gasket 377");
  await expect(rows(page)).toHaveText(["Gasket 377"]);
});

test("a new job asks before what was typed is thrown away; pictures and files dropped or pasted begin one", async ({
  page,
}) => {
  const dialog = page.getByRole("dialog", { name: "New job" });
  await page.getByRole("button", { name: "New job" }).click();
  await page.keyboard.press("Escape"); // nothing is typed: it goes
  await expect(dialog).toHaveCount(0);
  await page.getByRole("button", { name: "New job" }).click();
  await page.keyboard.type("Hatch cover");
  await page.keyboard.press("Escape");
  await expect(dialog.getByRole("alert")).toContainText("Throw away what is typed here?");
  await page.keyboard.press("Enter"); // goes on with it
  await expect(dialog.getByRole("alert")).toHaveCount(0);
  await expect(dialog.getByLabel("Part")).toHaveValue("Hatch cover");
  await dialog.getByRole("button", { name: "Cancel" }).click();
  await dialog.getByRole("button", { name: "Throw it away" }).click();
  await expect(dialog).toHaveCount(0);

  /** A picture made in the page, or a text, handed over as a drop or a paste. */
  const hand = (how: "drop" | "paste", name: string, text?: string, second?: string): Promise<void> =>
    page.evaluate(
      async ([how, name, text, second]) => {
        const canvas = new OffscreenCanvas(40, 30);
        canvas.getContext("2d")!.fillRect(5, 5, 20, 10);
        const bytes = text === undefined ? await canvas.convertToBlob({ type: "image/png" }) : new Blob([text]);
        const data = new DataTransfer();
        data.items.add(new File([bytes], name, { type: text === undefined ? "image/png" : "" }));
        if (second) data.items.add(new File(["more"], second));
        const event =
          how === "drop"
            ? new DragEvent("drop", { dataTransfer: data, bubbles: true, cancelable: true })
            : new ClipboardEvent("paste", { clipboardData: data, bubbles: true });
        document.querySelector("h1")!.dispatchEvent(event);
      },
      [how, name, text, second] as const,
    );
  await hand("paste", "pasted.png");
  await expect(dialog).toContainText("pasted.png");
  await page.keyboard.press("Escape");
  await dialog.getByRole("button", { name: "Throw it away" }).click();
  const dxf = "0\nSECTION\n2\nENTITIES\n0\nCIRCLE\n8\n0\n10\n1\n20\n2\n40\n3\n0\nENDSEC\n0\nEOF\n";
  await hand("drop", "bracket.dxf", dxf, "lid.dxf");
  await expect(page.getByText("so bracket.dxf is opened. Not taken: lid.dxf.")).toBeVisible();
  const opened = page.getByRole("dialog", { name: "Open a file" });
  await expect(opened.getByRole("list", { name: "What came" })).toContainText("1 circle");
  await page.keyboard.press("Escape");
  await hand("drop", "dropped.png");
  await expect(dialog).toContainText("dropped.png");
  await dialog.getByLabel("Part").click();
  await page.keyboard.type("Dropped");
  await dialog.getByRole("button", { name: "Make the job" }).click();
  await expect(page.getByRole("img", { name: /sketch of Dropped/ })).toBeVisible();
});
