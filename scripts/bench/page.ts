import type { Page } from "@playwright/test";
import { readFileSync, readdirSync } from "node:fs";
import { join } from "node:path";
import { gzipSync } from "node:zlib";
import { applyEdit, drawingText, newDrawing, PROFILE_LAYER } from "@ash-edge/core/drawing";
import { draftEdit } from "@ash-edge/core/edits";
import { Bench } from "../../e2e/support/bench.ts";
import { drawRockerPlate } from "../../e2e/support/rockerPlate.ts";
import { sheet } from "../../e2e/support/sheet.ts";
import { storeDrawing } from "../../e2e/support/storedJob.ts";
import { withBrowser } from "../withBrowser.ts";
import { median, say } from "./report.ts";
import { soupOf } from "./soup.ts";

/** What a page is asked to do frame by frame, and how long each frame took. */
const frameTimes = (page: Page, what: "pan" | "zoom"): Promise<number[]> =>
  page.evaluate(
    (kind) =>
      new Promise<number[]>((resolve) => {
        const board = document.querySelector('[data-region="Board"]')!;
        const { left, top, width, height } = board.getBoundingClientRect();
        const at = { clientX: left + width / 2, clientY: top + height / 2, bubbles: true, cancelable: true };
        const times: number[] = [];
        let before = performance.now();
        let frame = 0;
        const step = (): void => {
          const now = performance.now();
          if (frame > 0) times.push(now - before);
          before = now;
          if (++frame > 150) return resolve(times);
          const away = Math.floor(frame / 25) % 2 === 0 ? 1 : -1;
          board.dispatchEvent(
            kind === "pan"
              ? new WheelEvent("wheel", { ...at, shiftKey: true, deltaY: 30 * away })
              : new WheelEvent("wheel", { ...at, deltaY: -40 * away }),
          );
          requestAnimationFrame(step);
        };
        requestAnimationFrame(step);
      }),
    what,
  );

const GREAT = 100_000;
const LOADS = 9;
const SETTLED_MS = 3000;

/** The built application in a browser: what it weighs, its first frame, and a great drawing under way. */
export const page = async (): Promise<void> => {
  const assets = join("web", "dist", "assets");
  const script = readdirSync(assets).find((name) => /^index-.*\.js$/.test(name))!;
  say(
    `\n## The page\n\nMain script: ${(gzipSync(readFileSync(join(assets, script))).length / 1000).toFixed(0)} kB ` +
      "gzipped (limit 500).",
  );

  await withBrowser(4329, async (page) => {
    const bench = new Bench(page);
    await bench.open("Rocker plate");
    await drawRockerPlate(bench);
    await bench.saved();
    const session = await page.context().newCDPSession(page);
    await session.send("Network.enable");
    const frames: number[] = [];
    for (let run = 0; run < LOADS; run++) {
      await session.send("Network.clearBrowserCache");
      await page.goto("about:blank");
      // left to itself: whoever asks whether it is there yet slows it
      await page.goto("/jobs/demo-0414", { waitUntil: "commit" });
      await page.waitForTimeout(SETTLED_MS);
      frames.push(await page.evaluate(() => performance.getEntriesByName("first-board-frame")[0]!.startTime));
    }
    say(
      `\nFirst board frame with the rocker plate's geometry, built application, cold cache, median of ${LOADS}: ` +
        `${median(frames).toFixed(0)} ms (limit 800).`,
    );
  });

  await withBrowser(4331, async (page) => {
    const bench = new Bench(page);
    await bench.open("Strainer cover plate");
    await page.goto("/jobs");
    const great = sheet(GREAT);
    await storeDrawing(page, "demo-0412", great.text, great.nextId);
    await bench.open("Strainer cover plate");
    await page.getByRole("region", { name: "Pieces" }).getByText("contours").waitFor({ timeout: 60_000 });
    for (const key of ["KeyV", "KeyV"]) await page.keyboard.press(key);
    await page.waitForTimeout(3000);
    const whole = [...(await frameTimes(page, "pan")), ...(await frameTimes(page, "zoom"))];
    const sorted = [...whole].sort((p, q) => p - q);
    const part = (of: number): string => sorted[Math.floor(of * (sorted.length - 1))]!.toFixed(1);
    say(
      `\n## ${great.curves} curves on the board\n\nBuilt application, headless Chromium, software rendering, ` +
        "1280 x 800, the whole drawing in sight.\n",
    );
    say("| | ms |\n| --- | ---: |");
    say(
      `| frame while panning and zooming, median of ${whole.length} | ${part(0.5)} |\n| the same, 95th ` +
        `percentile | ${part(0.95)} |`,
    );
    await page.keyboard.press("KeyW");
    await page.keyboard.press("KeyQ");
    const handled = await page.evaluate(() => {
      const board = document.querySelector('[data-region="Board"]')!;
      const { left, top, width, height } = board.getBoundingClientRect();
      return Array.from({ length: 200 }, (_, i) => {
        const start = performance.now();
        const at = { clientX: left + ((i * 37) % width), clientY: top + ((i * 23) % height), bubbles: true };
        board.dispatchEvent(new PointerEvent("pointermove", at));
        return performance.now() - start;
      });
    });
    handled.sort((p, q) => p - q);
    say(
      `| pointer moved with a tool in hand, snap and preview answered, median of 200 | ${handled[100]!.toFixed(1)} |`,
    );
    say(`| the same, 95th percentile | ${handled[190]!.toFixed(1)} |`);
    await page.keyboard.press("Escape");
    const select = await page.evaluate(() => {
      const board = document.querySelector('[data-region="Board"]')!;
      const { left, top, width, height } = board.getBoundingClientRect();
      const at = (x: number, y: number) => ({
        clientX: left + x,
        clientY: top + y,
        button: 0,
        bubbles: true,
        pointerId: 1,
      });
      board.setPointerCapture = () => undefined;
      const start = performance.now();
      board.dispatchEvent(new PointerEvent("pointerdown", at(20, 20)));
      board.dispatchEvent(new PointerEvent("pointermove", at(width - 20, height - 20)));
      board.dispatchEvent(new PointerEvent("pointerup", at(width - 20, height - 20)));
      return performance.now() - start;
    });
    say(`| a box round everything, selected | ${select.toFixed(0)} |`);
  });
  await tidyingOnThePage();
};

/** A soup being tidied: how long the page is held up at most while the worker works, and how soon it stops. */
const tidyingOnThePage = (): Promise<void> =>
  withBrowser(4333, async (page) => {
    const bench = new Bench(page);
    await bench.open("Strainer cover plate");
    await page.goto("/jobs");
    const draft = draftEdit(newDrawing("mm"), "Soup", "soup");
    for (const { shape } of soupOf(GREAT)) draft.add(shape, PROFILE_LAYER);
    const drawing = applyEdit(newDrawing("mm"), draft.finish());
    await storeDrawing(page, "demo-0412", drawingText(drawing), drawing.nextId);
    await bench.open("Strainer cover plate");
    await page
      .getByRole("region", { name: "Pieces" })
      .getByText(/contour|open/)
      .first()
      .waitFor({ timeout: 60_000 });
    await page.waitForTimeout(5000);
    await page.getByRole("navigation", { name: "Steps" }).getByRole("button", { name: /^Tidy/ }).click();
    await page.getByRole("progressbar", { name: "How far" }).waitFor();
    const [held, stopped] = await page.evaluate(async () => {
      const frame = (): Promise<number> => new Promise(requestAnimationFrame);
      const gaps: number[] = [];
      let before = await frame();
      const until = before + 1000;
      while (before < until) {
        const now = await frame();
        gaps.push(now - before);
        before = now;
      }
      const stop = [...document.querySelectorAll("button")].find(({ textContent }) => textContent === "Stop")!;
      const start = performance.now();
      stop.click();
      while (!document.body.textContent.includes("Stopped.")) await frame();
      return [Math.max(...gaps), performance.now() - start];
    });
    say(`| tidying ${GREAT} loose lines: longest time between frames meanwhile | ${held!.toFixed(0)} |`);
    say(`| the same, Stop clicked until it has stopped (limit 200) | ${stopped!.toFixed(0)} |`);
  });
