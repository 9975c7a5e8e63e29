// Measures ours against libraries in the same run, as ratios, and the first board frame in Chromium; prints a report.
// `npm run bench -- --write` puts it into docs/benchmarks.md. Nothing here is asserted anywhere.
import { readFileSync, readdirSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { gzipSync } from "node:zlib";
import { Helper } from "dxf";
import type { Page } from "@playwright/test";
import DxfParser from "dxf-parser";
import { joinRuns } from "@ash-edge/core/contour";
import {
  applyEdit,
  copyEntities,
  curveAt,
  draftEdit,
  drawingFromRows,
  entitiesOf,
  freeSide,
  indexDrawing,
  mirrorEntities,
  newDrawing,
  picksAt,
  planTrim,
  shiftPiece,
  stretch,
  PROFILE_LAYER,
  reindex,
  reroundCorner,
  snapsAt,
  splitAt,
  takeApart,
  transformEntities,
  type Edit,
  type Entity,
  type Ref,
} from "@ash-edge/core/drawing";
import { curvePoint, moving } from "@ash-edge/core/geometry";
import type { Outcome } from "@ash-edge/core/numeric";
import { shapesOf, thingsOf } from "@ash-edge/core/formats";
import { readDxf, writeDxf, writeShapes } from "@ash-edge/core/formats/dxf";
import type { ReleasedContour } from "@ash-edge/core/prove";
import { tidy, type Thing, type TidyResult } from "@ash-edge/core/tidy";
import { Bench } from "../e2e/support/bench.ts";
import { sheet } from "../e2e/support/sheet.ts";
import { storeDrawing } from "../e2e/support/storedJob.ts";
import { soupOf } from "./soup.ts";
import { withBrowser } from "./withBrowser.ts";
import { drawRockerPlate } from "../e2e/support/rockerPlate.ts";

const RUNS = 5;
const median = (values: readonly number[]): number => [...values].sort((p, q) => p - q)[Math.floor(values.length / 2)]!;

/** Runs several works in turns, so that they share whatever the machine is doing; medians in ms. */
const race = (works: Record<string, () => unknown>): Record<string, number> => {
  const times: Record<string, number[]> = Object.fromEntries(Object.keys(works).map((name) => [name, []]));
  for (let run = 0; run < RUNS; run++)
    for (const [name, work] of Object.entries(works)) {
      const start = performance.now();
      work();
      times[name]!.push(performance.now() - start);
    }
  return Object.fromEntries(Object.entries(times).map(([name, all]) => [name, median(all)]));
};

/** The first arc of a rounded rectangle. */
const roundedCorner = (entity: Entity): Ref => {
  if (entity.kind !== "chain") throw new Error("no chain");
  return { id: entity.id, vertex: entity.vertices.find(({ bulge }) => bulge !== 0)!.id };
};

const lines: string[] = [];
const say = (line = ""): void => {
  lines.push(line);
  console.log(line);
};
const table = (title: string, times: Record<string, number>): void => {
  const [first] = Object.values(times);
  say(`\n## ${title}\n`);
  say("| | median ms | against ours |");
  say("| --- | ---: | ---: |");
  for (const [name, time] of Object.entries(times))
    say(`| ${name} | ${time.toFixed(time < 10 ? 2 : 0)} | ${(time / first!).toFixed(2)} |`);
};

// a sheet of rounded outlines and holes: 100 000 pieces in 20 000 contours
let seed = 7;
const random = (): number => (seed = (seed * 16807) % 2147483647) / 2147483647;
const contours: ReleasedContour[] = Array.from({ length: 20_000 }, (_, i) => {
  const [x, y] = [(i % 200) * 30 + random(), Math.floor(i / 200) * 30 + random()];
  if (i % 5 === 0) return { kind: "circle", layer: "INSIDE", centre: { x, y }, radius: 2 + random() };
  const corners = [0, 1, 2, 3, 4, 5].map((k) => ({
    x: x + 9 * Math.cos((k * Math.PI) / 3),
    y: y + 9 * Math.sin((k * Math.PI) / 3),
  }));
  return {
    kind: "polyline",
    layer: "OUTSIDE",
    pieces: corners.map((a, k) => ({ a, b: corners[(k + 1) % 6]!, bulge: k % 2 ? 0.2 : 0 })),
  };
});
const text = writeDxf(contours, "mm");
const parts = contours.flatMap((contour) =>
  contour.kind === "polyline" ? contour.pieces.map(({ a, b }) => ({ start: a, end: b })) : [],
);

say("# Benchmarks\n");
say(
  "Made by `npm run bench -- --write`: ours against libraries in the same run, in turns, medians of 5. Ratios under 2 mean little.",
);
say(
  `\nNode ${process.version}, ${text.length} bytes of DXF, ${contours.length} contours, ${parts.length} loose pieces.`,
);
table(
  "Reading the DXF",
  race({
    ours: () => readDxf(text),
    "dxf-parser": () => new DxfParser().parseSync(text),
    dxf: () => new Helper(text).parsed,
  }),
);
table(
  "Writing the DXF",
  race({ ours: () => writeDxf(contours, "mm"), "JSON.stringify of the same geometry": () => JSON.stringify(contours) }),
);
table(
  "Joining the loose pieces into contours",
  race({
    ours: () => joinRuns(parts, 1e-7),
    "a string-keyed Map of the ends alone": () => {
      const ends = new Map<string, number>();
      for (const { start, end } of parts)
        for (const { x, y } of [start, end]) ends.set(`${x} ${y}`, (ends.get(`${x} ${y}`) ?? 0) + 1);
      return ends;
    },
  }),
);

const soups = [1_000, 10_000, 100_000].map(soupOf);
const tidied = (things: readonly Thing[]): TidyResult =>
  tidy(things, { tolerance: 0.05, ignore: new Set(["colour"]), sharedEdges: "keep" });
const soup = soups[2]!;
const soupText = writeShapes(
  soup.map(({ shape }) => ({ ...shape, layer: "0" })),
  "mm",
);
say("\n## Tidying a soup of loose lines\n\n| curves | ms | µs a curve |\n| ---: | ---: | ---: |");
for (const things of soups) {
  const time = race({ ours: () => tidied(things) }).ours!;
  say(`| ${things.length} | ${time.toFixed(0)} | ${((1000 * time) / things.length).toFixed(1)} |`);
}
table(
  `Reading, tidying and writing ${soup.length} lines (${(soupText.length / 1e6).toFixed(1)} MB)`,
  race({
    "ours, all three": () => {
      const read = readDxf(soupText);
      if (!read.ok) throw new Error(read.refusal.code);
      return writeShapes(shapesOf(tidied(thingsOf(read.value).things).things), "mm");
    },
    "dxf-parser, reading alone": () => new DxfParser().parseSync(soupText),
  }),
);

let drawing = newDrawing("mm");
const draft = draftEdit(drawing, "Draw", "draw");
for (const contour of contours)
  if (contour.kind === "circle")
    draft.add({ kind: "circle", centre: contour.centre, radius: contour.radius }, PROFILE_LAYER);
  else for (const { a, b, bulge } of contour.pieces) draft.add({ kind: "piece", a, b, bulge }, PROFILE_LAYER);
drawing = applyEdit(drawing, draft.finish());
const index = indexDrawing(drawing);
const asMap = new Map([...Array(drawing.entity.size).keys()].map((id) => [id, id]));
let place = 0;
const one = (): void => {
  const edit = draftEdit(drawing, "One", "one");
  edit.add({ kind: "circle", centre: { x: 0, y: 0 }, radius: 1 }, PROFILE_LAYER);
  applyEdit(drawing, edit.finish());
};
say(`\nA drawing of ${drawing.entity.size} curves:`);
table("One edit applied", race({ ours: one, "a fresh Map of as many": () => new Map(asMap) }));
const at = (): { x: number; y: number } => ({ x: (place = (place + 37.7) % 5900), y: (place * 7.3) % 2900 });
const times = race({
  "index built": () => indexDrawing(drawing),
  "snap answered (mean of 100)": () => Array.from({ length: 100 }, () => snapsAt(index, at(), 2)),
  "pick answered (mean of 100)": () => Array.from({ length: 100 }, () => picksAt(index, at(), 2)),
});
say("\n## Finding things\n\n| | median ms |\n| --- | ---: |");
for (const [name, time] of Object.entries(times))
  say(`| ${name} | ${(name.includes("100") ? time / 100 : time).toFixed(3)} |`);

// one edit each in a sheet of 20 000 curves: planned, applied, and the index brought up to it
const small = sheet(20_000);
const on = drawingFromRows(JSON.parse(small.text), small.nextId);
const found = indexDrawing(on);
const ids = [...entitiesOf(on)];
const chain = ids.find((entity) => entity.kind === "chain")!;
const ring = ids.find((entity) => entity.kind === "circle")!;
const pieceRef = { id: chain.id, vertex: chain.kind === "chain" ? chain.vertices[0]!.id : 0 };
const start = chain.kind === "chain" ? chain.vertices[0]!.at : { x: 0, y: 0 };
const edited = (plan: () => Outcome<Edit | { readonly edit: Edit }>): (() => unknown) => {
  return () => {
    const made = plan();
    if (!made.ok) throw new Error(made.refusal.code);
    const edit = "edit" in made.value ? made.value.edit : made.value;
    return reindex(found, applyEdit(on, edit));
  };
};
const steps = race({
  Trim: edited(() => planTrim(found, pieceRef, curvePoint(curveAt(on, pieceRef)!, 0.5))),
  Split: edited(() => splitAt(on, pieceRef, curvePoint(curveAt(on, pieceRef)!, 0.5))),
  Sharpen: edited(() => reroundCorner(on, roundedCorner(chain), undefined)),
  "Change fillet": edited(() => reroundCorner(on, roundedCorner(chain), 2)),
  "Handle: shift a side": edited(() => shiftPiece(found, { id: chain.id, vertex: chain.vertices[0]!.id }, 0.5, true)),
  "Handle: stretch a corner": edited(() =>
    stretch(on, [{ id: chain.id, vertex: chain.vertices[0]!.id }], { x: start.x - 0.4, y: start.y - 0.3 }, true),
  ),
  "Corner side": () => freeSide(on, chain.id),
  Move: edited(() => transformEntities(on, [ring.id], moving({ x: 1, y: 1 }), "Move", "move")),
  Mirror: edited(() => mirrorEntities(on, [chain.id], { at: start, angle: 1 }, true)),
  "Copy 100 times": edited(() =>
    copyEntities(
      on,
      [ring.id],
      Array.from({ length: 100 }, (_, i) => moving({ x: i, y: 1 })),
      "Copy",
      "copy",
    ),
  ),
  "Take apart": edited(() => takeApart(on, [chain.id])),
});
say(
  `\n## One edit in ${small.curves} curves, planned, applied and indexed\n\n| | median ms (limit 50) |\n| --- | ---: |`,
);
for (const [name, time] of Object.entries(steps)) say(`| ${name} | ${time.toFixed(2)} |`);

// the page
const assets = join(import.meta.dirname, "..", "web", "dist", "assets");
const script = readdirSync(assets).find((name) => /^index-.*\.js$/.test(name))!;
say(
  `\n## The page\n\nMain script: ${(gzipSync(readFileSync(join(assets, script))).length / 1000).toFixed(0)} kB gzipped (limit 500).`,
);

await withBrowser(4329, async (page) => {
  const bench = new Bench(page);
  await bench.open("Rocker plate");
  await drawRockerPlate(bench);
  await bench.saved();
  const session = await page.context().newCDPSession(page);
  await session.send("Network.enable");
  const frames: number[] = [];
  for (let run = 0; run < RUNS; run++) {
    await session.send("Network.clearBrowserCache");
    await page.goto("about:blank");
    await page.goto("/jobs/demo-0414");
    await bench.ready();
    frames.push(await page.evaluate(() => performance.getEntriesByName("first-board-frame")[0]!.startTime));
  }
  say(
    `\nFirst board frame with the rocker plate's geometry, built application, cold cache, median of ${RUNS}: ${median(frames).toFixed(0)} ms (limit 1500).`,
  );
});

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
    `\n## ${great.curves} curves on the board\n\nBuilt application, headless Chromium, software rendering, 1280 x 800, the whole drawing in sight.\n`,
  );
  say("| | ms |\n| --- | ---: |");
  say(
    `| frame while panning and zooming, median of ${whole.length} | ${part(0.5)} |\n| the same, 95th percentile | ${part(0.95)} |`,
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
  say(`| pointer moved with a tool in hand, snap and preview answered, median of 200 | ${handled[100]!.toFixed(1)} |`);
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
if (process.argv.includes("--write"))
  writeFileSync(join(import.meta.dirname, "..", "docs", "benchmarks.md"), `${lines.join("\n")}\n`);
