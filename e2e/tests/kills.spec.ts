import { spawn } from "node:child_process";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { chromium, expect, test, type Browser, type Page } from "@playwright/test";
import { Bench } from "../support/bench.ts";
import { rowsOf } from "../support/drawn.ts";

/** So many times the browser is killed; all of them with `npm run harness`. */
const KILLS = Number(process.env.KILLS ?? 5);

type Running = { readonly browser: Browser; readonly kill: () => Promise<void> };

/** A browser of its own with its data in `folder`, which can be killed as a crash or a power cut would. */
const start = async (folder: string, { executablePath, args = [] }: LaunchOptions): Promise<Running> => {
  const child = spawn(
    executablePath!,
    [...args, "--headless=new", "--remote-debugging-port=0", `--user-data-dir=${folder}`, "--window-size=1280,900"],
    { detached: true, stdio: ["ignore", "ignore", "pipe"] },
  );
  const ended = new Promise<void>((done) => child.once("exit", () => done()));
  const address = await new Promise<string>((found, none) => {
    let said = "";
    child.stderr.on("data", (part: Buffer) => {
      said += part.toString();
      const line = /DevTools listening on (ws:\S+)/.exec(said);
      if (line) found(line[1]!);
    });
    child.once("exit", () => none(new Error(`the browser did not start: ${said.slice(0, 500)}`)));
  });
  const kill = async (): Promise<void> => {
    process.kill(-child.pid!, "SIGKILL"); // the whole group, which is this browser alone
    await ended;
  };
  try {
    return { browser: await chromium.connectOverCDP(address, { timeout: 10_000 }), kill };
  } catch (reason) {
    await kill();
    throw reason;
  }
};

/** A browser that was just killed leaves a lock behind that a new one may stumble over: it is tried again. */
const startSurely = async (folder: string, options: LaunchOptions): Promise<Running> => {
  for (let tries = 1; ; tries++) {
    try {
      return await start(folder, options);
    } catch (reason) {
      if (tries === 4) throw reason;
    }
  }
};

type LaunchOptions = { readonly executablePath?: string; readonly args?: readonly string[] };

/** What the head says of what is shown: how many steps, and whether all are saved. */
const shown = (page: Page): Promise<{ revision: number; saved: boolean }> =>
  page.evaluate(() => {
    const board = document.querySelector("[data-revision]")!;
    const head = document.querySelector('[aria-label="Place"]')!.textContent;
    return { revision: Number(board.getAttribute("data-revision")), saved: / · saved$/.test(head) };
  });

const SAVED = "said saved ";
/** Tells each time the head says that what is shown is saved, as it says it. */
const listen = (page: Page, told: (revision: number) => void): Promise<void> => {
  page.on("console", (message) => {
    if (message.text().startsWith(SAVED)) told(Number(message.text().slice(SAVED.length)));
  });
  return page.evaluate((prefix) => {
    const board = document.querySelector("[data-revision]")!;
    const head = document.querySelector('[aria-label="Place"]')!;
    new MutationObserver(() => {
      if (/ · saved$/.test(head.textContent)) console.debug(prefix + board.getAttribute("data-revision"));
    }).observe(head, { subtree: true, childList: true, characterData: true });
  }, SAVED);
};

test(`${KILLS} times the browser is killed while a drafter draws: what was said saved is there`, async ({ baseURL }, {
  project,
}) => {
  test.setTimeout(60_000 + KILLS * 15_000);
  const folder = mkdtempSync(join(tmpdir(), "ash-edge-kills-"));
  const options = project.use.launchOptions as LaunchOptions;
  // circles: said saved, drawn at most; and how often the browser came back without its database
  let [said, drawn, amid, reset] = [0, 0, 0, 0];
  try {
    for (let kill = 0; kill <= KILLS; kill++) {
      const running = await startSurely(folder, options);
      const page = await running.browser.contexts()[0]!.newPage();
      await page.setViewportSize({ width: 1280, height: 800 });
      const bench = new Bench(page);
      await page.goto(`${baseURL!}/jobs`);
      await page.getByRole("link", { name: "Rocker plate" }).click();
      await bench.ready();
      // nothing that was said saved is missing, and what is there is whole
      const opened = await shown(page);
      const circles = (await rowsOf(bench)).filter(({ kind }) => kind === "circle");
      const [standing, told] = [circles.length, page.getByText("The browser had lost its data")];
      expect(opened.saved).toBe(true);
      expect(standing).toBeGreaterThanOrEqual(said);
      expect(standing).toBeLessThanOrEqual(drawn);
      expect(new Set(circles.map(({ id }) => id)).size).toBe(standing);
      // steps and circles go apart only where the reserve had to put the job back, which is said
      const before = standing - opened.revision;
      if (await told.isVisible()) reset += 1;
      expect(before === 0 || reset > 0).toBe(true);
      drawn = said = standing;
      if (kill === KILLS) {
        await running.kill();
        break;
      }
      await listen(page, (revision) => (said = Math.max(said, before + revision)));
      await bench.tool("EE", "Circle");
      await bench.type("1");
      await page.keyboard.press("Enter");
      // a burst of circles, cut off anywhere in it
      const burst = (async (): Promise<void> => {
        for (let i = 0; i < 40; i++) {
          await bench.point({ x: (i % 5) / 10, y: 0 });
          drawn += 1;
          await page.mouse.down();
          await page.mouse.up();
        }
      })().catch(() => undefined);
      await new Promise((done) => setTimeout(done, 50 + ((kill * 131) % 900)));
      await running.kill();
      await burst;
      await running.browser.close();
      if (said < drawn) amid += 1;
    }
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
  const resets =
    reset === 0 ? "never found its database damaged" : `deleted its database ${reset} times and it was put back`;
  console.info(
    `kills: ${KILLS}, ${amid} of them amid a step not yet said saved; the browser ${resets}; ${drawn} circles stand`,
  );
});
