import type { Page } from "@playwright/test";
import { writeDxf } from "@ash-edge/core/formats/dxf";
import { Bench } from "../../e2e/support/bench.ts";
import { manyJobs } from "../../e2e/support/manyJobs.ts";
import { drawRockerPlate } from "../../e2e/support/rockerPlate.ts";
import { sheet } from "../../e2e/support/sheet.ts";
import { putRecords, storeDrawing } from "../../e2e/support/storedJob.ts";
import { withBrowser } from "../withBrowser.ts";
import { contours } from "./contours.ts";
import { median, say } from "./report.ts";

const GREAT = 100_000;
const MANY = 500;
const RUNS = 5;
const LONG_MS = 100;

/** Clicks a link and waits, frame by frame, for what it leads to: ms from the click to the frame after it is there. */
const fromClick = (page: Page, link: string, shows: string): Promise<number> =>
  page.evaluate(
    ([from, there]) =>
      new Promise<number>((resolve) => {
        const start = performance.now();
        document.querySelector<HTMLElement>(from!)!.click();
        const look = (): void => {
          if (!document.querySelector(there!)) return void requestAnimationFrame(look);
          requestAnimationFrame(() => resolve(performance.now() - start));
        };
        look();
      }),
    [link, shows],
  );

/** From a click until a job's geometry is on the board, in ms. */
const onBoard = (page: Page, clicked: string): Promise<number> =>
  page.evaluate(
    (place) =>
      new Promise<number>((resolve) => {
        performance.clearMarks("first-board-frame");
        const start = performance.now();
        document.querySelector<HTMLElement>(place)!.click();
        const look = (): void => {
          const [mark] = performance.getEntriesByName("first-board-frame");
          if (mark) resolve(mark.startTime - start);
          else requestAnimationFrame(look);
        };
        look();
      }),
    clicked,
  );

/** More than 200 keys, clicks and moves of a drafter: tools, numbers, picks, zooms, views, undone and done again. */
const actions = async (bench: Bench): Promise<void> => {
  const { page } = bench;
  await drawRockerPlate(bench); // 50 of them
  for (let i = 0; i < 25; i++) {
    await bench.click({ x: (i % 5) * 1.5, y: 0.8 });
    await page.keyboard.press("Escape");
    await page.mouse.wheel(0, i % 2 === 0 ? -120 : 120);
    await page.keyboard.press(i % 2 === 0 ? "Control+z" : "Control+y");
    await bench.point({ x: 3, y: 0.2 * (i % 4) });
    for (const key of ["KeyV", "KeyV"]) await page.keyboard.press(key);
  }
};

/** What is felt at the page: how soon a job stands on the board, the list is there, and how long it is held up. */
export const felt = async (): Promise<void> => {
  say("\n## Felt at the page\n\nBuilt application, headless Chromium, software rendering, 1280 x 800.\n");
  say("| | ms |\n| --- | ---: |");
  await withBrowser(4335, async (page) => {
    const bench = new Bench(page);
    await bench.open("Strainer cover plate");
    const great = sheet(GREAT);
    const times: number[] = [];
    for (let run = 0; run < RUNS; run++) {
      await page.goto("/jobs");
      await storeDrawing(page, "demo-0412", great.text, great.nextId);
      await page.reload();
      await page.locator('a[href="/jobs/demo-0412"]').first().waitFor();
      await page.waitForTimeout(1000);
      times.push(await onBoard(page, 'a[href="/jobs/demo-0412"]'));
    }
    say(
      `| a job of ${great.curves} curves, from the click in the list until it is on the board, median of ${RUNS} ` +
        `(limit 2500) | ${median(times).toFixed(0)} |`,
    );
  });
  await withBrowser(4338, async (page) => {
    const text = writeDxf(contours, "mm");
    const times: number[] = [];
    for (let run = 0; run < RUNS; run++) {
      await page.goto("/jobs");
      await page.getByRole("link", { name: "Rocker plate" }).waitFor();
      await page.getByRole("button", { name: "Open a file" }).click();
      const dialog = page.getByRole("dialog", { name: "Open a file" });
      await dialog
        .locator("input[type=file]")
        .setInputFiles({ name: "sheet.dxf", mimeType: "application/dxf", buffer: Buffer.from(text) });
      await dialog.locator("button[type=submit]:enabled").waitFor({ timeout: 60_000 });
      await page.waitForTimeout(500);
      times.push(await onBoard(page, '[role="dialog"] button[type="submit"]'));
    }
    say(
      `| a DXF of 100 000 curves read, from the click that makes its job until it is on the board, median of ${RUNS} ` +
        `(limit 2500) | ${median(times).toFixed(0)} |`,
    );
  });
  await withBrowser(4336, async (page) => {
    await page.goto("/jobs");
    await page.getByRole("link", { name: "Rocker plate" }).waitFor();
    await putRecords(page, { jobs: manyJobs(MANY) });
    const times: number[] = [];
    for (let run = 0; run < RUNS; run++) {
      await page.goto("/help");
      await page.waitForTimeout(800);
      times.push(await fromClick(page, 'a[href="/jobs"]', 'a[href^="/jobs/"]'));
    }
    say(
      `| the list of ${MANY} jobs, from the click until its rows are there, median of ${RUNS} (limit 300) | ` +
        `${median(times).toFixed(0)} |`,
    );
  });
  await withBrowser(4337, async (page) => {
    const bench = new Bench(page);
    await bench.open("Rocker plate");
    await page.waitForTimeout(1500);
    await page.evaluate(() => {
      const long: number[] = [];
      new PerformanceObserver((list) => list.getEntries().forEach(({ duration }) => long.push(duration))).observe({
        type: "longtask",
      });
      Object.assign(globalThis, { long });
    });
    await actions(bench);
    await page.waitForTimeout(500);
    const seen = (): Promise<number[]> => page.evaluate(() => (globalThis as unknown as { long: number[] }).long);
    const long = await seen();
    // that it sees what is long is seen, too
    await page.evaluate(
      () =>
        void setTimeout(() => {
          for (const end = performance.now() + 150; performance.now() < end;);
        }),
    );
    await page.waitForTimeout(500);
    if ((await seen()).length !== long.length + 1) throw new Error("The watch on long tasks sees nothing.");
    const over = long.filter((ms) => ms > LONG_MS).length;
    say(
      `| more than 200 actions of a drafter: longest task of the page (limit ${LONG_MS}); over that: ${over} | ` +
        `${Math.max(0, ...long).toFixed(0)} |`,
    );
  });
};
