import { cpSync, mkdtempSync, readFileSync, writeFileSync } from "node:fs";
import type { AddressInfo } from "node:net";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { fileURLToPath } from "node:url";
import { expect, test, type Page } from "@playwright/test";
import { Bench, typeOver } from "../support/bench.ts";
import { drawingText, newDrawing } from "@ash-edge/core/drawing";
import { makeApp } from "@ash-edge/server";
import { contoursOf, rowsOf, type Row } from "../support/drawn.ts";
import { putRecords, storeDrawing } from "../support/storedJob.ts";

const circles = async (bench: Bench): Promise<readonly Row[]> =>
  (await rowsOf(bench)).filter(({ kind }) => kind === "circle");

const circle = async (bench: Bench, diameter: string, x: number): Promise<void> => {
  await bench.tool("EE", "Circle");
  await bench.type(diameter);
  await bench.page.keyboard.press("Enter");
  await bench.click({ x, y: 0 });
  await bench.page.keyboard.press("Escape");
};
/** The rocker plate opened, with circles of these diameters on the datum, all stored. */
const openedWith = async (page: Page, ...diameters: readonly string[]): Promise<Bench> => {
  const bench = new Bench(page);
  await bench.open("Rocker plate");
  for (const diameter of diameters) await circle(bench, diameter, 0);
  await bench.saved();
  return bench;
};
const head = (page: Page) => page.getByRole("navigation", { name: "Place" });
const bar = (page: Page) => page.getByRole("alert").filter({ hasText: "read only" });

test("two tabs on one job: the second is told, takes over, and no circle and no number is lost or given twice", async ({
  page,
  context,
}) => {
  const first = await openedWith(page, "1", "2");
  const second = new Bench(await context.newPage());
  await second.open("Rocker plate");
  await expect(bar(second.page)).toContainText("Open in another tab");
  await expect(head(second.page)).toContainText("read only");
  await second.tool("EE", "Circle");
  await second.type("3");
  await second.page.keyboard.press("Enter");
  await second.click({ x: 0, y: 0 });
  await expect(second.page.getByText("This job is open in another tab, so it is read only here.")).toBeVisible();
  await expect(second.board).toHaveAttribute("data-revision", "2");
  await second.page.keyboard.press("Escape");

  // the first goes on meanwhile, one step back and another on, which the second must not lose
  await page.bringToFront();
  await page.keyboard.press("Control+z");
  await circle(first, "1.5", 0);
  await first.saved();
  await expect(bar(second.page)).toContainText("It was changed there since");
  await second.page.bringToFront();
  await second.page.getByRole("button", { name: "Take over" }).click();
  await expect(bar(second.page)).toHaveCount(0);
  await second.ready();
  await expect(bar(page)).toContainText("Open in another tab");
  await circle(second, "3", 0);
  await second.saved();
  const there = await circles(second);
  expect(there.map(({ radius }) => radius)).toEqual([0.5, 0.75, 1.5]);
  expect(new Set(there.map(({ id }) => id)).size).toBe(3);
  // the circle taken back had a number: it is given to nothing else
  expect(there.map(({ id }) => id)).toEqual([there[0]!.id, there[0]!.id + 2, there[0]!.id + 3]);

  await page.bringToFront();
  await circle(first, "0.5", 0);
  await expect(first.board).toHaveAttribute("data-revision", "2");
  await second.page.close();
  await page.getByRole("button", { name: "Take over" }).click();
  await expect(bar(page)).toHaveCount(0);
  await expect(first.board).toHaveAttribute("data-revision", "3");
  expect((await circles(first)).length).toBe(3);
});

test("details edited in two tabs: each field stays its own, and a clash shows both values", async ({
  page,
  context,
}) => {
  const bench = new Bench(page);
  await bench.open("Rocker plate");
  const other = await context.newPage();
  await new Bench(other).open("Rocker plate");
  const dialogs = [page, other].map((tab) => tab.getByRole("dialog", { name: "Job details" }));
  for (const tab of [page, other]) {
    await tab.bringToFront();
    await tab.getByRole("button", { name: "Job details" }).click();
  }
  await typeOver(dialogs[1]!.getByLabel("Customer"), "Hollin forge");
  await typeOver(dialogs[1]!.getByLabel("Quantity"), "7");
  await dialogs[1]!.getByRole("button", { name: "Keep" }).click();
  await expect(dialogs[1]!).toHaveCount(0);
  await page.bringToFront();
  await typeOver(dialogs[0]!.getByLabel("Material"), "bronze plate");
  await typeOver(dialogs[0]!.getByLabel("Quantity"), "9");
  await dialogs[0]!.getByRole("button", { name: "Keep" }).click();
  await expect(dialogs[0]!.getByRole("alert")).toContainText("Another tab made it “7”. Keep again puts “9” there.");
  await dialogs[0]!.getByRole("button", { name: "Keep" }).click();
  await expect(dialogs[0]!).toHaveCount(0);
  await page.reload();
  await page.getByRole("button", { name: "Job details" }).click();
  await expect(dialogs[0]!.getByLabel("Customer")).toHaveValue("Hollin forge");
  await expect(dialogs[0]!.getByLabel("Material")).toHaveValue("bronze plate");
  await expect(dialogs[0]!.getByLabel("Quantity")).toHaveValue("9");
});

test("a full store is said in words, the job is saved to a file from memory, and storing resumes by itself", async ({
  page,
}) => {
  await page.addInitScript(() => {
    const { put, add } = IDBObjectStore.prototype;
    const refusing = <T extends unknown[]>(of: (...args: T) => IDBRequest<IDBValidKey>) =>
      function (this: IDBObjectStore, ...args: T) {
        if ((window as { full?: boolean }).full) throw new DOMException("", "QuotaExceededError");
        return of.apply(this, args);
      };
    IDBObjectStore.prototype.put = refusing(put);
    IDBObjectStore.prototype.add = refusing(add);
    const { transaction } = IDBDatabase.prototype;
    IDBDatabase.prototype.transaction = function (...args) {
      if ((window as { gone?: boolean }).gone) throw new DOMException("", "InvalidStateError");
      return transaction.apply(this, args);
    };
  });
  const bench = new Bench(page);
  await bench.open("Rocker plate");
  await circle(bench, "1", 0);
  await bench.saved();
  await page.evaluate(() => ((window as { full?: boolean }).full = true));
  await circle(bench, "2", 0);
  const alert = page.getByRole("alert").filter({ hasText: "not stored" });
  await expect(alert).toContainText("The browser has no room left to store it.");
  await expect(head(page)).toContainText("not saved");
  await circle(bench, "3", 0);
  expect((await circles(bench)).map(({ radius }) => radius)).toEqual([0.5, 1, 1.5]);
  // going back to a stored place is no storing either: it waits with the rest
  await page.keyboard.press("Control+z");
  await page.keyboard.press("Control+z");
  await expect(head(page)).toContainText("not saved");

  // not even to be read: the drawing is in memory
  await page.evaluate(() => ((window as { gone?: boolean }).gone = true));
  const [download] = await Promise.all([
    page.waitForEvent("download"),
    alert.getByRole("button", { name: "Save to a file now" }).click(),
  ]);
  expect(download.suggestedFilename()).toBe("0414-Rocker-plate.ashedge.json");
  await expect(page.getByText("but without its pictures")).toBeVisible();

  await page.evaluate(() => Object.assign(window, { gone: false, full: false }));
  await bench.saved();
  await expect(alert).toHaveCount(0);
  await expect(head(page)).toContainText("· saved");
  await bench.reload();
  expect((await circles(bench)).map(({ radius }) => radius)).toEqual([0.5]);
  await page.keyboard.press("Control+y");
  await page.keyboard.press("Control+y");
  expect((await circles(bench)).map(({ radius }) => radius)).toEqual([0.5, 1, 1.5]);
});

test("after one visit everything works without a network, also after a reload and in places never visited", async ({
  browser,
  baseURL,
}) => {
  const context = await browser.newContext({ baseURL: baseURL!, serviceWorkers: "allow" });
  const page = await context.newPage();
  const bench = new Bench(page);
  await bench.open("Rocker plate");
  await page.evaluate(async () => void (await navigator.serviceWorker.ready));
  await context.setOffline(true);
  await page.reload();
  await bench.ready();
  await circle(bench, "1", 0);
  await bench.saved();
  await expect(page.getByRole("img", { name: /sketch of Rocker plate/ })).toBeVisible();
  await page.getByRole("navigation", { name: "Steps" }).getByRole("button", { name: "Release" }).click();
  await expect(page.getByRole("heading", { name: "Release Rocker plate" })).toBeVisible();
  const [download] = await Promise.all([
    page.waitForEvent("download"),
    page.getByRole("button", { name: "Write the DXF" }).click(),
  ]);
  expect(download.suggestedFilename()).toMatch(/\.dxf$/);
  const steps = page.getByRole("navigation", { name: "Steps" });
  await steps.getByRole("link", { name: "Prove" }).click();
  await page.getByRole("radio", { name: "wall" }).click();
  await expect(page.getByRole("img", { name: "Thickness along the contour" })).toBeVisible();
  await steps.getByRole("link", { name: "Compare" }).click();
  await expect(page.getByRole("region", { name: "Differences" })).toContainText("The same");
  // on paper, with its lettering; on the test cutter, which is in the page as well
  await steps.getByRole("link", { name: "Sheet" }).click();
  const [pdf] = await Promise.all([
    page.waitForEvent("download"),
    page.getByRole("button", { name: "Save the PDF" }).click(),
  ]);
  expect(pdf.suggestedFilename()).toMatch(/-sheet\.pdf$/);
  await steps.getByRole("link", { name: "Release" }).click();
  await page.getByRole("link", { name: /^Test run of/ }).click();
  await expect(page.getByText("No server is there: run in this page, by the same code.")).toBeVisible();
  for (const place of ["/jobs", "/tables", "/settings", "/help"]) {
    await page.goto(place);
    await expect(page.getByRole("main")).toBeVisible();
  }
  await page.goto("/jobs");
  await page.getByRole("link", { name: "Rocker plate" }).click();
  await bench.ready();
  expect((await circles(bench)).map(({ radius }) => radius)).toEqual([0.5]);
  // a server that never answers holds up nothing that is here
  await context.setOffline(false);
  await page.route("**/api/demo", () => undefined);
  await page.reload();
  await bench.ready();
  expect((await circles(bench)).map(({ radius }) => radius)).toEqual([0.5]);
  await context.close();
});

test("a newer version is offered, waits while one works, and is loaded when it is taken, with nothing lost", async ({
  browser,
}) => {
  const site = mkdtempSync(join(tmpdir(), "site-"));
  cpSync(new URL("../../web/dist", import.meta.url), site, { recursive: true });
  const server = makeApp({ site, demo: fileURLToPath(new URL("../../server/demo", import.meta.url)) }).listen(0);
  const { port } = server.address() as AddressInfo;
  const context = await browser.newContext({ baseURL: `http://localhost:${port}`, serviceWorkers: "allow" });
  const page = await context.newPage();
  const bench = new Bench(page);
  const version = page.locator("meta[name=second]");
  await bench.open("Rocker plate");
  await page.evaluate(async () => void (await navigator.serviceWorker.ready));
  // the page is looked after from its second visit on
  await page.reload();
  await bench.ready();
  // a second build: another page, and the list of what is kept with its new checksum
  const [index, keeper] = [join(site, "index.html"), join(site, "sw.js")];
  writeFileSync(index, readFileSync(index, "utf8").replace("<head>", '<head><meta name="second">'));
  writeFileSync(keeper, readFileSync(keeper, "utf8").replace(/("?index\.html"?,revision:")\w+/, "$1second"));
  await page.evaluate(async () => void (await (await navigator.serviceWorker.ready).update()));
  await expect(page.getByText("A newer version of Ash Edge is ready.")).toBeVisible();
  await circle(bench, "1", 0);
  await bench.saved();
  await expect(version).toHaveCount(0);
  await page.getByRole("button", { name: "Load it" }).click();
  await expect(version).toHaveCount(1);
  await bench.ready();
  expect((await circles(bench)).map(({ radius }) => radius)).toEqual([0.5]);
  await expect(page.getByText("A newer version of Ash Edge is ready.")).toHaveCount(0);
  await context.close();
  server.close();
});

test("a fault takes no more than its place or its panel, and has ways out", async ({ page }) => {
  const bench = await openedWith(page, "1", "2");

  // a panel: the roles of the layers can't be looked up any more
  await page.evaluate(() => {
    const { some } = Array.prototype;
    Array.prototype.some = function (this: { role?: string }[], ...args: Parameters<typeof some>) {
      if (this[0]?.role && (window as { broken?: boolean }).broken) throw new Error("made for the test");
      return some.apply(this, args);
    } as typeof some;
    (window as { broken?: boolean }).broken = true;
  });
  await circle(bench, "3", 0);
  const panel = page.getByRole("alert", { name: "The layers" });
  await expect(panel).toContainText("The layers can’t be shown.");
  await circle(bench, "4", 0);
  await page.evaluate(() => ((window as { broken?: boolean }).broken = false));
  await panel.getByRole("button", { name: "Show it again" }).click();
  await expect(page.getByRole("region", { name: "Layers" })).toBeVisible();
  expect((await circles(bench)).length).toBe(4);

  // the bench itself
  await page.evaluate(() => {
    const Whole = window.ResizeObserver;
    Object.assign(window, {
      mend: () => (window.ResizeObserver = Whole),
      ResizeObserver: function () {
        throw new Error("made for the test");
      },
    });
  });
  await page.getByRole("button", { name: "History", exact: true }).click();
  const fault = page.getByRole("alert");
  await expect(fault).toContainText("Something went wrong");
  await page.evaluate(() => (window as unknown as { mend: () => void }).mend());
  const [download] = await Promise.all([
    page.waitForEvent("download"),
    fault.getByRole("button", { name: "Save this job to a file" }).click(),
  ]);
  expect(download.suggestedFilename()).toBe("0414-Rocker-plate.ashedge.json");
  await fault.getByRole("button", { name: "Undo the last step" }).click();
  await bench.ready();
  expect((await circles(bench)).length).toBe(3);
  await bench.saved();

  // a place that can't be loaded
  await page.route("**/assets/Tables*.js", (route) => route.abort());
  await page.goto("/tables");
  await expect(page.getByRole("alert")).toContainText("This place could not be loaded");
  await page.getByRole("link", { name: "Show all jobs" }).click();
  await page.getByRole("link", { name: "Rocker plate" }).click();
  await bench.ready();
  expect((await circles(bench)).length).toBe(3);
});

/** A job with a grid of holes that were meant to be 6 wide. */
const withGrid = async (page: Page, columns: string, rows: string): Promise<Bench> => {
  const bench = new Bench(page);
  await page.goto("/jobs");
  await expect(page.getByRole("link", { name: "Rocker plate" })).toBeVisible();
  const drawing = newDrawing("mm");
  await storeDrawing(page, "demo-0414", drawingText(drawing), drawing.nextId);
  await bench.open("Rocker plate");
  await bench.tool("XR", "Hole grid");
  for (const [name, text] of [
    ["columns", columns],
    ["rows", rows],
    ["diameter", "600"],
    ["apart across", "10"],
    ["apart up", "10"],
  ] as const)
    await typeOver(bench.blank(name), text);
  await page.keyboard.press("Enter");
  await bench.click({ x: 0, y: 0 });
  await expect(bench.board).toHaveAttribute("data-revision", "1");
  await expect(bench.pieces).toContainText("More than 10000 places where contours cross or touch");
  await page.keyboard.press("Escape");
  await page.keyboard.press("Escape");
  return bench;
};

test("a hole grid with a slip in its diameter: said, worked out aside, stopped, undone after a reload", async ({
  page,
}) => {
  const bench = await withGrid(page, "25", "20");
  await bench.tool("FS", "Cutter allowance");
  await bench.type("6");
  await page.keyboard.press("Enter");
  await page.keyboard.press("Enter");
  const work = page.getByRole("status", { name: "Work" });
  await expect(work).toContainText(/Cutter allowance: [1-9]\d* \d{3} crossings/);
  // the page is live meanwhile
  await page.keyboard.press("Control+a");
  await expect(page.getByText("500 circles selected").first()).toBeVisible();
  await work.getByRole("button", { name: "Stop" }).click();
  await expect(page.getByText("Cutter allowance: stopped. Nothing was changed.").first()).toBeVisible();
  await expect(work).toHaveCount(0);
  await expect(bench.board).toHaveAttribute("data-revision", "1");
  await page.keyboard.press("Escape");
  await page.keyboard.press("Escape");
  await bench.reload();
  await expect(bench.pieces).toContainText("More than 10000 places");
  await page.keyboard.press("Control+z");
  await expect(bench.board).toHaveAttribute("data-revision", "0");
  await expect(bench.pieces).not.toContainText("10000");
  expect((await circles(bench)).length).toBe(0);
});

test("what meets too often for the page is made aside, and only where the drawing stayed as it was", async ({
  page,
}) => {
  const bench = await withGrid(page, "12", "14");
  await bench.tool("FW", "Unite");
  await page.keyboard.press("Control+a");
  await page.keyboard.press("Enter");
  await expect(page.getByText("1 contour made.").first()).toBeVisible({ timeout: 30_000 });
  const [made, ...others] = contoursOf(await rowsOf(bench));
  expect(others).toEqual([]);
  // Steiner's formula for the rectangle of the centres grown by R; each gap s between two of them lacks < s³ / (12 R)
  const [s, R, p, q] = [10, 300, 110, 130];
  const grown = p * q + 2 * (p + q) * R + Math.PI * R * R;
  expect(made!.area).toBeLessThan(grown);
  expect(made!.area).toBeGreaterThan(grown - ((2 * (p + q)) / s) * (s ** 3 / (12 * R)));
  await page.keyboard.press("Escape");
  await page.keyboard.press("Control+z");
  await bench.tool("FW", "Unite");
  await page.keyboard.press("Control+a");
  await page.keyboard.press("Enter");
  await page.keyboard.press("Control+z");
  await expect(page.getByText("the drawing was changed while this was worked out").first()).toBeVisible();
  expect((await circles(bench)).length).toBe(0);
});

/** Gives a file to the dialog that opens one. */
const openFile = async (page: Page, name: string, text: string) => {
  await page.goto("/jobs");
  await page.getByRole("button", { name: "Open a file" }).click();
  const dialog = page.getByRole("dialog", { name: "Open a file" });
  await dialog.locator("input[type=file]").setInputFiles({ name, mimeType: "text/plain", buffer: Buffer.from(text) });
  return dialog;
};

test("what was saved to a file opens with its pins; a damaged job exported raw opens as what is sound of it", async ({
  page,
}) => {
  const bench = await openedWith(page, "1", "2");
  const [saved] = await Promise.all([page.waitForEvent("download"), page.keyboard.press("Control+s")]);
  const text = readFileSync(await saved.path(), "utf8");
  const dialog = await openFile(page, "0414.ashedge.json", text);
  await dialog.getByRole("button", { name: "Make the job" }).click();
  await bench.ready();
  const pin = page.getByRole("button", { name: "Callout Ø 2 1/4 on the sketch" });
  await expect(pin).toBeVisible();
  await expect(page.getByRole("img", { name: /sketch of Rocker plate/ })).toBeVisible();

  // its last step is damaged: shown as before it, exported, and gone on from
  await page.goto("/jobs");
  await putRecords(page, { journal: [{ job: "demo-0414", n: 1, edit: { label: "?" }, token: 2 }] });
  await page.getByRole("link", { name: "Rocker plate" }).first().click();
  await bench.ready();
  await expect(page.getByRole("alert")).toContainText("Part of this job can’t be read.");
  const [raw] = await Promise.all([
    page.waitForEvent("download"),
    page.getByRole("button", { name: "Export raw" }).click(),
  ]);
  await page.getByRole("button", { name: "Go on from here" }).click();
  await expect(page.getByRole("alert")).toHaveCount(0);
  await bench.ready();
  await circle(bench, "3", 0);
  await bench.reload();
  expect((await circles(bench)).map(({ radius }) => radius)).toEqual([0.5, 1.5]);

  const again = await openFile(page, "demo-0414-raw.json", readFileSync(await raw.path(), "utf8"));
  const came = again.getByRole("list", { name: "What came" });
  await expect(came).toContainText("The drawing is as it was before that.");
  await again.getByRole("button", { name: "Make the job" }).click();
  await bench.ready();
  await expect(pin).toBeVisible();
  expect((await circles(bench)).map(({ radius }) => radius)).toEqual([0.5]);

  const wrong = JSON.parse(text) as { nextId: number; drawing: { entity: { id: number }[] } };
  wrong.nextId = 1;
  await expect((await openFile(page, "a.json", JSON.stringify(wrong))).getByRole("list")).toContainText("put right");
  wrong.drawing.entity[3]!.id = wrong.drawing.entity[2]!.id;
  await expect((await openFile(page, "a.json", JSON.stringify(wrong))).getByRole("alert")).toContainText("both bear");
});

test("a browser that gives no storage: said in words, and drawing goes on in memory, to be saved to a file", async ({
  page,
}) => {
  await page.addInitScript(() =>
    Object.defineProperty(window, "indexedDB", {
      configurable: true, // as the browser's own is
      get: () => {
        throw new DOMException("", "SecurityError");
      },
    }),
  );
  await page.addInitScript(() =>
    Object.defineProperty(window, "localStorage", {
      get: () => {
        throw new DOMException("", "SecurityError");
      },
    }),
  );
  for (const place of ["/jobs", "/jobs/demo-0414", "/jobs/demo-0414/release", "/settings"]) {
    await page.goto(place);
    await expect(page.getByRole("main").or(page.getByRole("application"))).toBeVisible();
    await expect(page.locator("body")).not.toContainText(/\w+Error|undefined|tinyurl/);
  }
  await page.goto("/jobs");
  await expect(page.getByText("This browser gives the application no storage").first()).toBeVisible();
  const bench = new Bench(page);
  await page.getByRole("link", { name: "Rocker plate" }).click();
  await bench.ready();
  await expect(page.getByRole("img", { name: /sketch of Rocker plate/ })).toBeVisible();
  await circle(bench, "1", 0);
  await expect(head(page)).toContainText("in memory alone");
  await expect(head(page)).not.toContainText("saved");
  const [file] = await Promise.all([page.waitForEvent("download"), page.keyboard.press("Control+s")]);
  const written = JSON.parse(readFileSync(await file.path(), "utf8")) as { drawing: { entity: Row[] }; sketches: [] };
  expect(written.drawing.entity.filter(({ radius }) => radius === 0.5).length).toBe(1);
  expect(written.sketches.length).toBe(1);
  // the browser asks before it lets go of it
  const asked = page.waitForEvent("dialog");
  void page.reload().catch(() => undefined);
  const dialog = await asked;
  expect(dialog.type()).toBe("beforeunload");
  await dialog.dismiss();
  expect((await circles(bench)).length).toBe(1);
});

test("a browser that deletes its database, as it can after a crash: all said saved is put back", async ({ page }) => {
  const bench = new Bench(page);
  await bench.open("Rocker plate");
  await circle(bench, "1", 0);
  await circle(bench, "2", 0);
  await page.keyboard.press("Control+z");
  // the page before may hold its files for a moment still
  await bench.reload();
  await circle(bench, "3", 0);
  await bench.reload();
  await circle(bench, "5", 0);
  await bench.saved();
  await page.goto("/help");
  await page.evaluate(
    () =>
      new Promise<void>((done, no) => {
        const asked = indexedDB.deleteDatabase("ash-edge");
        asked.onsuccess = () => done();
        asked.onblocked = asked.onerror = () => no(new Error("not deleted"));
      }),
  );
  await page.goto("/jobs/demo-0414");
  await bench.ready();
  const lost = page.getByText("The browser had lost its data");
  await expect(lost).toContainText("0414 Rocker plate");
  // it stands, wherever one goes, until it is closed
  await page.getByRole("link", { name: "Jobs" }).click();
  await page.getByRole("link", { name: "Rocker plate" }).click();
  await bench.ready();
  await expect(lost).toBeVisible();
  await page.getByRole("button", { name: "Close toast" }).click();
  await expect(lost).toHaveCount(0);
  expect((await circles(bench)).map(({ radius }) => radius)).toEqual([0.5, 1.5, 2.5]);
  await expect(page.getByRole("img", { name: /sketch of Rocker plate/ })).toBeVisible();
  await expect(page.getByRole("button", { name: "Callout Ø 2 1/4 on the sketch" })).toBeVisible();
  await circle(bench, "4", 0);
  await bench.reload();
  expect((await circles(bench)).map(({ radius }) => radius)).toEqual([0.5, 1.5, 2.5, 2]);
  await expect(lost).toHaveCount(0);
});
