// Brings the demo's jobs into the states in which they open, by mouse and keys on the page, and writes what the page
// then has stored of each: server/demo/demo-*.json with its files beside it. Needs a built application.
import { readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import type { Page } from "@playwright/test";
import { Bench, typeOver, type Place } from "../e2e/support/bench.ts";
import { sketchedOnly } from "../e2e/support/demo.ts";
import { typePoint } from "../e2e/support/drawn.ts";
import {
  drawCoverPlate,
  drawHourHand,
  drawMinuteHand,
  drawNameplate,
  drawOpening,
  drawTapHole,
  fitView,
  hearthCorners,
  takeStraighten,
  uniteMinuteHand,
} from "../e2e/support/demoJobs.ts";
import { withBrowser } from "./withBrowser.ts";

const target = join(import.meta.dirname, "..", "server", "demo");
const steps = (page: Page) => page.getByRole("navigation", { name: "Steps" });
const idle = async ({ page }: Bench): Promise<void> => {
  await page.keyboard.press("Escape");
  await page.keyboard.press("Escape");
};

/** 0412: drawn whole; its holes 13.5 instead of 14; two callouts not placed; its dimensions on. */
const coverPlate = async (bench: Bench): Promise<void> => {
  const { page } = bench;
  await drawCoverPlate(bench);
  await idle(bench);
  const panel = page.getByRole("region", { name: "Selected" });
  const out = 95;
  for (const [i, turn] of [90, 210, 330].entries()) {
    const [x, y] = [out * Math.cos((turn * Math.PI) / 180), out * Math.sin((turn * Math.PI) / 180)];
    await bench.click({ x: x + 7, y }, i === 0 ? [] : ["Shift"]);
  }
  await typeOver(panel.getByLabel("diameter"), "13.5");
  await page.keyboard.press("Enter");
  await idle(bench);
  for (const key of ["KeyZ", "KeyG"]) await page.keyboard.press(key);
  await page.getByText(/^\d+ dimensions placed\.$/).waitFor();
  await idle(bench);
};

/** 0413: its photo straightened, and what is called laid out: the width, the depth, the notches, the vent's line. */
const hearthStone = async (bench: Bench): Promise<void> => {
  const { page } = bench;
  const photo = await takeStraighten(bench);
  for (const corner of hearthCorners()) await photo.click(corner);
  await photo.card.getByText("2 of 2").waitFor();
  await idle(bench);
  await page.getByRole("button", { name: "Make the sketch card smaller" }).click();
  await fitView(bench);
  await bench.tool("QQ", "Parallel");
  for (const [callout, line, side] of [
    ["1380 width", { x: 0, y: 300 }, { x: 300, y: 300 }],
    ["460 depth", { x: 300, y: 0 }, { x: 300, y: 300 }],
    ["110 notch", { x: 0, y: 200 }, { x: 300, y: 200 }],
    ["75 notch", { x: 300, y: 460 }, { x: 300, y: 230 }],
    ["150 vent", { x: 300, y: 460 }, { x: 300, y: 230 }],
  ] as const) {
    await page.keyboard.press("Delete");
    await bench.callout(callout).click();
    await bench.click(line);
    await bench.click(side);
    await fitView(bench);
  }
  await idle(bench);
};

/** 0415: drawn, its free curve not yet arcs. */
const basin = async (bench: Bench): Promise<void> => {
  await drawOpening(bench);
  await drawTapHole(bench);
};

/** 0417: released twice, the bore revised in between; the second run by the test cutter. */
const clockHands = async (bench: Bench): Promise<void> => {
  const { page } = bench;
  await drawMinuteHand(bench);
  await idle(bench);
  await drawHourHand(bench);
  await uniteMinuteHand(bench);
  await idle(bench);
  await hourHub(bench);
  await measured(bench, "18 tails wide", { x: -50, y: 9 }, { x: -50, y: -9 });
  await measured(bench, "90 tails", { x: 0.3, y: 0.3 }, { x: -90.3, y: 0.3 });
  await release(bench);
  await steps(page).getByRole("link", { name: "Bench" }).click();
  await bench.ready();
  await fitView(bench);
  // the customer's revision: the bores are 25
  await bench.callout("Ø 24").hover();
  await page.getByRole("button", { name: /^More for Ø 24/ }).click();
  await page.getByRole("menuitem", { name: "Change" }).click();
  await typeOver(page.getByLabel("Change the callout"), "25 d bores, 2 off");
  await page.keyboard.press("Enter");
  await idle(bench);
  await bench.click({ x: 12, y: 0 });
  await bench.click({ x: 12, y: -120 }, ["Shift"]);
  await typeOver(page.getByRole("region", { name: "Selected" }).getByLabel("diameter"), "25");
  await page.keyboard.press("Enter");
  await idle(bench);
  await release(bench);
  await page
    .getByRole("link", { name: /^Test run of/ })
    .first()
    .click();
  await page.getByRole("region", { name: "Test cutter" }).getByText("Run by the server.").waitFor();
};
/** The hour hand's hub, bore and counterweight, as the minute hand's. */
const hourHub = async (bench: Bench): Promise<void> => {
  const { page } = bench;
  await bench.tool("EE", "Circle");
  for (const [size, x] of [
    ["60", 0],
    ["52", -90],
    ["24", 0],
  ] as const) {
    await typeOver(bench.blank("diameter"), size);
    await typePoint(bench, "centre", { x, y: -120 });
  }
  await idle(bench);
  await bench.tool("FW", "Unite");
  await bench.click({ x: 150, y: -120 + 17 - (150 * 10) / 200 });
  await bench.click({ x: 0, y: -90 });
  await page.getByText("1 contour made.").waitFor();
  await bench.click({ x: -90, y: -94 });
  await idle(bench);
};

/** A distance measured between two clicks answers a callout. */
const measured = async (bench: Bench, callout: string, from: Place, to: Place): Promise<void> => {
  await bench.tool("CC", "Distance");
  await bench.click(from);
  await bench.click(to);
  await bench.callout(callout).click();
  await idle(bench);
};

const release = async ({ page }: Bench): Promise<void> => {
  await steps(page).getByRole("button", { name: "Release" }).click();
  await page.getByRole("button", { name: "Write the DXF" }).click();
  await page.getByText("holds the same geometry").waitFor();
};

/** 0418: drawn and proved, each callout looked at. */
const nameplate = async (bench: Bench): Promise<void> => {
  const { page } = bench;
  await drawNameplate(bench);
  await idle(bench);
  await measured(bench, "8 scribed line in", { x: 40, y: 70 }, { x: 40, y: 62 });
  await steps(page)
    .getByRole("button", { name: /^Prove/ })
    .click();
  const callouts = page.getByRole("region", { name: "Callouts" });
  await callouts.getByRole("row", { name: /wide/ }).first().focus();
  for (let i = 0; i < 11; i++) {
    await page.keyboard.press("Enter");
    await page.keyboard.press("ArrowDown");
  }
  await page.getByRole("region", { name: "Checks" }).getByRole("heading").waitFor();
};

/** 0416: the customer's file as it came; its job's record names it as the others. */
const valveChest = async (page: Page): Promise<string> => {
  await page.getByRole("button", { name: "Open a file" }).click();
  const dialog = page.getByRole("dialog", { name: "Open a file" });
  await dialog.locator("input[type=file]").setInputFiles(join(target, "0416-valve-chest-joint.dxf"));
  await typeOver(dialog.getByLabel("Part"), "Valve chest joint");
  await typeOver(dialog.getByLabel("Job number"), "0416");
  await dialog.getByRole("button", { name: "Make the job" }).click();
  const bench = new Bench(page);
  await bench.ready();
  await bench.saved();
  return new URL(page.url()).pathname.split("/")[2]!;
};

/** Everything that the page has stored of a job; bytes as base64. */
const storedOf = (page: Page, job: string): Promise<Stored> =>
  page.evaluate(async (id) => {
    const opened = await new Promise<IDBDatabase>((resolve) => {
      const asked = indexedDB.open("ash-edge");
      asked.onsuccess = () => resolve(asked.result);
    });
    const all = (table: string): Promise<Record<string, unknown>[]> =>
      new Promise((resolve) => {
        const asked = opened.transaction(table).objectStore(table).getAll();
        asked.onsuccess = () => resolve(asked.result as Record<string, unknown>[]);
      });
    const base64 = (bytes: Uint8Array): string => {
      let text = "";
      for (let i = 0; i < bytes.length; i += 0x8000) text += String.fromCharCode(...bytes.subarray(i, i + 0x8000));
      return btoa(text);
    };
    const own = async (table: string, key = "job"): Promise<Record<string, unknown>[]> =>
      (await all(table)).filter((row) => row[key] === id);
    const [record] = await own("jobs", "id");
    const [head] = await own("heads");
    const [kept] = (await all("settings")).filter(({ key }) => key === `verdict ${id}`);
    const stored = {
      job: record!,
      head: head!,
      journal: (await own("journal")).map(({ packed, ...row }) =>
        packed ? { ...row, packed64: base64(packed as Uint8Array) } : row,
      ),
      snapshots: await own("snapshots"),
      blobs: (await own("blobs")).map(({ bytes, ...row }) => ({ ...row, bytes64: base64(bytes as Uint8Array) })),
      ...(kept ? { verdict: kept.value } : {}),
    };
    opened.close();
    return stored;
  }, job) as Promise<Stored>;

type Stored = {
  readonly job: Record<string, unknown>;
  readonly blobs: readonly (Record<string, unknown> & { readonly bytes64: string })[];
};

/** Writes a state under its demo id, its files beside it; sketches as they came are there already. */
const write = (stored: Stored, id: string): void => {
  const known = String(stored.job.id);
  const blobs = stored.blobs.map(({ bytes64, ...blob }) => {
    const name = String(blob.name);
    const isOwn = /^sketch-\d+\.png$/.test(name);
    const file = isOwn ? name : `${id}-${name.replace(/[^\w.]+/g, "-")}`;
    if (!isOwn) writeFileSync(join(target, file), Buffer.from(bytes64, "base64"));
    return { ...blob, file: `/api/demo/${file}` };
  });
  const text = JSON.stringify({ ...stored, blobs }).replaceAll(known, id);
  writeFileSync(join(target, `${id}.json`), `${text}\n`);
};

await withBrowser(4341, async (page) => {
  await sketchedOnly(page);
  const bench = new Bench(page);
  const made: string[] = [];
  const bring = async (id: string, name: string, to: (bench: Bench) => Promise<void>): Promise<void> => {
    await bench.open(name);
    await to(bench);
    await page.waitForTimeout(1500); // a thumbnail and a verdict are stored a little later
    write(await storedOf(page, id), id);
    made.push(id);
    console.log(id);
  };
  await bring("demo-0412", "Strainer cover plate", coverPlate);
  await bring("demo-0413", "Hearth stone", hearthStone);
  await bring("demo-0415", "Basin opening template", basin);
  await bring("demo-0417", "Station clock hands", clockHands);
  await bring("demo-0418", "Lamp room nameplate", nameplate);
  await page.goto("/jobs");
  const id = await valveChest(page);
  await page.waitForTimeout(1500);
  write(await storedOf(page, id), "demo-0416");
  made.push("demo-0416");
  const jobs = join(target, "jobs.json");
  const listed = JSON.parse(readFileSync(jobs, "utf8")) as { jobs: { id: string }[] };
  const stated = listed.jobs
    .filter(({ id }) => id !== "demo-0416")
    .map((job) => (made.includes(job.id) ? { ...job, state: `/api/demo/${job.id}.json` } : job));
  const chest = JSON.parse(readFileSync(join(target, "demo-0416.json"), "utf8")) as { job: Record<string, unknown> };
  const { number, name, customer, material, thickness, quantity, due } = chest.job;
  stated.push({
    id: "demo-0416",
    unit: "mm",
    head: { number, name, customer, material, thickness, quantity, due },
    callouts: [],
    state: "/api/demo/demo-0416.json",
  } as never);
  writeFileSync(jobs, `${JSON.stringify({ jobs: stated }, null, 2)}\n`);
});
