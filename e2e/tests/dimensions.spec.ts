import { readFileSync } from "node:fs";
import { expect, test, type Page } from "@playwright/test";
import { measureAnnotation } from "@ash-edge/core/annotate";
import { textPlace } from "@ash-edge/core/attach";
import {
  annotationsOf,
  applyEdit,
  calloutsOf,
  newDrawing,
  PROFILE_LAYER,
  settingsOf,
  type Drawing,
} from "@ash-edge/core/drawing";
import { draftEdit } from "@ash-edge/core/edits";
import type { Shape } from "@ash-edge/core/shape";
import { annotationsIn, drawingOf } from "../support/annotated.ts";
import { Bench, typeOver, type Place } from "../support/bench.ts";
import { newJob } from "../support/drawn.ts";
import { drawRockerPlate } from "../support/rockerPlate.ts";
import { openDrawn } from "../support/storedJob.ts";

/**
 * A plate 160 by 100 with one corner rounded by 20 and one cut off by 40 and 30, three holes Ø 14 in a row, and one Ø
 * 5 for a thread.
 */
const plate = () => {
  const drawing = newDrawing("mm");
  const draft = draftEdit(drawing, "Draw", "draw");
  const corners = [
    [0, 0, 0],
    [160, 0, 0],
    [160, 80, Math.tan(Math.PI / 8)],
    [140, 100, 0],
    [40, 100, 0],
    [0, 70, 0],
  ] as const;
  draft.add(
    {
      kind: "chain",
      closed: true,
      vertices: corners.map(([x, y, bulge]) => ({ id: draft.newId(), at: { x, y }, bulge })),
    },
    PROFILE_LAYER,
  );
  for (const x of [30, 70, 130]) draft.add({ kind: "circle", centre: { x, y: 30 }, radius: 7 }, PROFILE_LAYER);
  draft.add({ kind: "circle", centre: { x: 80, y: 75 }, radius: 2.5 }, PROFILE_LAYER);
  return applyEdit(drawing, draft.finish());
};

const openPlate = (page: Page): Promise<Bench> => openDrawn(page, plate());

/** Shapes on the profile layer of a new drawing. */
const drawnOf = (shapes: readonly Shape[]): Drawing => {
  const drawing = newDrawing("mm");
  const draft = draftEdit(drawing, "Draw", "draw");
  for (const shape of shapes) draft.add(shape, PROFILE_LAYER);
  return applyEdit(drawing, draft.finish());
};

const near = (value: number | undefined): unknown => (value === undefined ? undefined : expect.closeTo(value, 9));

type Work = { readonly choices?: readonly string[]; readonly typed?: string; readonly clicks: string };
const placeOf = (text: string): Place => {
  const [x, y] = text.split(",").map(Number) as [number, number];
  return { x, y };
};

/**
 * Takes a tool, makes choices by their words, types, clicks (`x,y` or `Enter`, one after another), and goes on: what is
 * said before the last click.
 */
const make = async (bench: Bench, keys: string, name: string, work: Work): Promise<string> => {
  const { page } = bench;
  await bench.tool(keys, name);
  for (const choice of work.choices ?? [])
    await bench.sentence(name).getByRole("radio", { name: choice, exact: true }).click();
  if (work.typed) await bench.type(work.typed);
  const steps = work.clicks.split(" ");
  for (const step of steps.slice(0, -1))
    if (step === "Enter") await page.keyboard.press("Enter");
    else await bench.click(placeOf(step));
  await bench.point(placeOf(steps.at(-1)!));
  const words = await bench.sentence(name).innerText();
  await bench.click(placeOf(steps.at(-1)!));
  await page.keyboard.press("Escape");
  await page.keyboard.press("Escape");
  return words;
};

type Row = readonly [keys: string, name: string, work: Work, shown: string, measures?: readonly (number | undefined)[]];

/** Makes each row's annotations by real input, each one step; then holds all that was made against their numbers. */
const makeAll = async (bench: Bench, rows: readonly Row[]): Promise<void> => {
  for (const [keys, name, work, shown] of rows) {
    const before = await bench.revision();
    expect.soft(await make(bench, keys, name, work), `${name} ${shown}`).toContain(shown);
    expect.soft(await bench.revision(), `${name} ${shown}`).toBe(before + 1);
  }
  const drawing = await drawingOf(bench);
  const measured = annotationsOf(drawing).map((one) => measureAnnotation(drawing, one)?.most);
  expect(measured).toEqual(rows.flatMap(([, , , , measures = [undefined]]) => measures.map(near)));
};

// closed forms: the sloping edge is 40 by 30, so 50 long and at atan(30/40); the rounded corner a quarter of R 20
const SLOPE = (Math.atan2(30, 40) * 180) / Math.PI;
const MADE: readonly Row[] = [
  ["ZZ", "Dimension", { clicks: "50,0 50,-20" }, "160", [160]],
  ["ZZ", "Dimension", { clicks: "20,85 0,105" }, "50", [50]],
  ["ZZ", "Dimension", { choices: ["level"], clicks: "20,85 20,118" }, "40", [40]],
  ["ZZ", "Dimension", { choices: ["upright"], clicks: "20,85 -18,85" }, "30", [30]],
  ["ZZ", "Dimension", { choices: ["at an angle"], typed: "90", clicks: "20,85 -8,85" }, "30", [30]],
  ["ZZ", "Dimension", { choices: ["along"], clicks: "30,37 130,37 80,48" }, "100", [100]],
  ["ZZ", "Dimension", { clicks: "50,0 90,100 168,50" }, "100", [100]], // two parallel edges
  ["ZZ", "Dimension", { clicks: "0,0 90,100 -14,46" }, "100", [100]], // a corner and an edge
  ["ZZ", "Dimension", { clicks: "82.5,75 100,84" }, "Ø 5", [5]], // a circle alone
  ["ZQ", "Angle dimension", { clicks: "90,100 20,85 50,88" }, "~143.13°", [180 - SLOPE]],
  ["ZQ", "Angle dimension", { clicks: "90,100 20,85 20,98" }, "~36.87°", [SLOPE]],
  [
    "ZQ",
    "Angle dimension",
    { choices: ["three points"], clicks: "0,0 160,0 40,100 24,14" },
    "~68.199°",
    [(Math.atan2(100, 40) * 180) / Math.PI],
  ],
  ["ZW", "Radius or diameter", { choices: ["all that are equal"], clicks: "77,30 96,40" }, "3 × Ø 14", [14]],
  ["ZW", "Radius or diameter", { choices: ["this one", "R"], clicks: "154.142,94.142 150,112" }, "R 20", [20]],
  ["ZE", "Arc length", { clicks: "154.142,94.142 164,106" }, "~31.416", [10 * Math.PI]],
  ["ZR", "Ordinate", { clicks: "137,30 130,58" }, "130", [130]],
  ["ZR", "Ordinate", { choices: ["y"], clicks: "137,30 174,26" }, "30", [30]],
  ["ZT", "Run", { clicks: "37,30 77,30 137,30 Enter 80,-8" }, "40 · 60", [40, 60]],
  ["ZT", "Run", { choices: ["all from the first"], clicks: "37,30 77,30 137,30 Enter 80,56" }, "40 · 100", [40, 100]],
  ["ZA", "Note", { typed: "deburr|all round", clicks: "160,20 170,12" }, "deburr"],
  ["ZA", "Note", { typed: "ream", choices: ["several", "without"], clicks: "37,30 77,30 Enter 50,14" }, "ream"],
  ["ZA", "Note", { typed: "2 off", choices: ["nothing"], clicks: "100,70" }, "2 off"],
  [
    "ZS",
    "Centre mark",
    { choices: ["all that are equal"], clicks: "37,30" },
    "3 centre marks",
    [undefined, undefined, undefined],
  ],
  ["ZD", "Centre line", { clicks: "50,0 90,100" }, "Centre line"],
  ["ZF", "Thread mark", { typed: "M6", clicks: "82.5,75" }, "Thread mark"],
];

test("a plate is dimensioned in every way by mouse and keys, each number by its closed form", async ({ page }) => {
  test.setTimeout(180_000);
  await makeAll(await openPlate(page), MADE);
});

/** The link's hollow R 49 touches both bosses R 10 from outside: its centre lies 59 from theirs. */
const DEEP = Math.sqrt(59 * 59 - 40 * 40);
const touch = (side: 1 | -1): Place => ({ x: (side * 40 * 49) / 59, y: -DEEP + (DEEP * 49) / 59 });
const round = (x: number, y: number, radius: number): Shape => ({ kind: "circle", centre: { x, y }, radius });
const straight = (ax: number, ay: number, bx: number, by: number): Shape => ({
  kind: "piece",
  a: { x: ax, y: ay },
  b: { x: bx, y: by },
  bulge: 0,
});
const PARTS: readonly (readonly [part: string, shapes: readonly Shape[], rows: readonly Row[]])[] = [
  [
    "a bar of 18 by 3.5 with one round end and two holes, in inches as lengths",
    [
      straight(0, 0, 16.25, 0),
      { kind: "piece", a: { x: 16.25, y: 0 }, b: { x: 16.25, y: 3.5 }, bulge: 1 },
      straight(16.25, 3.5, 0, 3.5),
      straight(0, 3.5, 0, 0),
      round(2, 1.75, 1.0625 / 2),
      round(16.25, 1.75, 1.0625 / 2),
    ],
    [
      ["ZZ", "Dimension", { clicks: "0,2.5 -1.5,2.5" }, "3.5", [3.5]],
      ["ZZ", "Dimension", { clicks: "2,2.28 16.25,2.28 9,5" }, "14.25", [14.25]],
      ["ZW", "Radius or diameter", { clicks: "18,1.75 17,5" }, "R 1.75", [1.75]],
      [
        "ZW",
        "Radius or diameter",
        { choices: ["all that are equal"], clicks: "2,2.28 5,1.9" },
        "2 × Ø ~1.063",
        [1.0625],
      ],
      ["ZR", "Ordinate", { clicks: "18,1.75 16.25,-2" }, "16.25", [16.25]],
    ],
  ],
  [
    "a link of two bosses R 10, 80 apart, a third R 13.5 above their middle by 25.5, and a hollow R 49",
    [
      ...[-40, 40].flatMap((x) => [round(x, 0, 10), round(x, 0, 5)]),
      round(0, 25.5, 13.5),
      round(0, 25.5, 6.75),
      {
        kind: "piece",
        a: touch(-1),
        b: touch(1),
        bulge: -Math.tan(Math.asin(40 / 59) / 2),
      },
    ],
    [
      ["ZZ", "Dimension", { clicks: "-35,0 45,0 0,-30" }, "80", [80]],
      ["ZZ", "Dimension", { choices: ["upright"], clicks: "45,0 6.75,25.5 66,12" }, "25.5", [25.5]],
      ["ZW", "Radius or diameter", { choices: ["R"], clicks: "0,39 30,44" }, "R 13.5", [13.5]],
      ["ZW", "Radius or diameter", { choices: ["Ø"], clicks: "0,32.25 -34,40" }, "Ø 13.5", [13.5]],
      ["ZW", "Radius or diameter", { choices: ["R"], clicks: `0,${49 - DEEP} 14,-14` }, "R 49", [49]],
      ["ZE", "Arc length", { clicks: `0,${49 - DEEP} 0,15` }, "~73.", [2 * 49 * Math.asin(40 / 59)]],
    ],
  ],
  [
    "a cover's steps of 1, 2.5, 1 and 2",
    [straight(0, 0, 1, 0), straight(1, 0, 1, 2.5), straight(1, 2.5, 2, 2.5), straight(2, 2.5, 2, 4.5)],
    [
      ["ZT", "Run", { clicks: "0,0 1,0 2,2.5 Enter 1,-1" }, "1 · 1", [1, 1]],
      ["ZT", "Run", { choices: ["upright"], clicks: "1,0 1,2.5 2,4.5 Enter 4,2" }, "2.5 · 2", [2.5, 2]],
    ],
  ],
  [
    "a plate of 40 by 60 with M20 drilled 17.5 in its middle",
    [
      straight(0, 0, 40, 0),
      straight(40, 0, 40, 60),
      straight(40, 60, 0, 60),
      straight(0, 60, 0, 0),
      round(20, 30, 8.75),
    ],
    [
      ["ZZ", "Dimension", { clicks: "10,0 20,-12" }, "40", [40]],
      ["ZZ", "Dimension", { clicks: "0,10 -10,30" }, "60", [60]],
      ["ZW", "Radius or diameter", { clicks: "28.75,30 50,48" }, "Ø 17.5", [17.5]],
      ["ZZ", "Dimension", { clicks: "28.75,30 0,50 10,38" }, "20", [20]], // the hole to the edge
      ["ZF", "Thread mark", { typed: "M20", clicks: "28.75,30" }, "Thread mark"],
    ],
  ],
];
for (const [part, shapes, rows] of PARTS)
  test(`by real input every number is that of the closed form: ${part}`, async ({ page }) => {
    test.setTimeout(120_000);
    await makeAll(await openDrawn(page, drawnOf(shapes)), rows);
  });

test("the shop's style is that of jobs made from then on, and a job has its own", async ({ page }) => {
  await page.goto("/settings");
  const card = page.getByRole("region", { name: "Dimensions" });
  await card.getByRole("radio", { name: "5 mm", exact: true }).click();
  await card.getByRole("radio", { name: "oblique" }).click();
  await typeOver(card.getByRole("textbox", { name: "gap" }), "far");
  await expect(card.getByRole("textbox", { name: "gap" })).toHaveAttribute("aria-invalid", "true");
  await typeOver(card.getByRole("textbox", { name: "overhang" }), "2,5");
  await page.keyboard.press("Enter");
  await expect(card.getByRole("textbox", { name: "overhang" })).toHaveValue("2.5");
  await expect(card.getByRole("radio", { name: "5 mm", exact: true })).toBeChecked();
  const bench = new Bench(page);
  await newJob(bench, "7320");
  const style = async () => settingsOf(await drawingOf(bench)).annotationStyle;
  expect(await style()).toMatchObject({ height: 5, arrow: "tick", gap: 1, overhang: 2.5 });
  await page.getByRole("button", { name: "Style of dimensions" }).click();
  const dialog = page.getByRole("dialog", { name: "Dimensions of this job" });
  await dialog.getByRole("radio", { name: "7 mm", exact: true }).click();
  await dialog.getByRole("radio", { name: "1 : 5", exact: true }).click();
  await page.keyboard.press("Escape");
  expect(await style()).toMatchObject({ height: 7, arrow: "tick", sheet: 5 });
  await page.keyboard.press("Control+z");
  await page.keyboard.press("Control+z");
  expect(await style()).toMatchObject({ height: 5 });
});

test("dimensions are picked, moved, flipped and hidden, go with copies, are lost and put on again", async ({
  page,
}) => {
  test.setTimeout(180_000);
  const bench = await openPlate(page);
  const selected = page.getByRole("region", { name: "Selected" });
  await make(bench, "ZZ", "Dimension", {
    clicks: "50,0 50,-20",
  });
  await make(bench, "ZZ", "Dimension", {
    clicks: "30,37 130,37 80,48",
  });
  await make(bench, "ZA", "Note", {
    typed: "ream",
    clicks: "130,37 150,62",
  });
  const all = async () => {
    const drawing = await drawingOf(bench);
    return annotationsOf(drawing).map((one) => ({ ...one, measures: measureAnnotation(drawing, one)?.most }));
  };

  // picked on its line and on its text; its handles pull the text, and its line out; its arrows flip
  await bench.click({ x: 20, y: -20 });
  await expect(selected).toContainText("measures160 mm");
  await bench.point({ x: 80, y: -20 });
  await page.mouse.down();
  await bench.point({ x: 80, y: -30 });
  await page.mouse.up();
  await expect.poll(async () => (await all())[0]!.at.y).toBeCloseTo(-30, 1);
  await bench.click({ x: 80, y: -28 });
  await bench.click({ x: 120, y: -27 }); // above the card of the handle
  await expect.poll(async () => (await all())[0]!.at.x).toBeCloseTo(40, 0);
  const handles = selected.getByRole("button", { name: "Handles" });
  await handles.click();
  await page.getByRole("menuitem", { name: /^line/ }).click();
  await page.getByRole("radio", { name: "flip the arrows" }).click();
  await expect.poll(async () => (await all())[0]!.flipped).toBe(true);

  // an end is put on another place: the number is the new one, the line stays
  await handles.click();
  await page.getByRole("menuitem", { name: /^line/ }).click();
  await page.keyboard.press("Escape");
  await page.keyboard.press("Escape");
  await bench.click({ x: 60, y: 48 });
  await expect(selected).toContainText("measures100 mm");
  await bench.point({ x: 130, y: 30 });
  await page.mouse.down();
  await bench.point({ x: 77, y: 30 });
  await page.mouse.up();
  await expect.poll(async () => (await all())[1]!.measures).toBeCloseTo(40, 9);
  expect((await all())[1]!.at.y).toBeCloseTo(18, 0);
  await page.keyboard.press("Control+z");
  await expect.poll(async () => (await all())[1]!.measures).toBeCloseTo(100, 9);

  // out of the way, the outline cut to an axis and mirrored whole; shown again all of it is true
  await page.keyboard.press("Escape");
  await page.keyboard.press("Escape");
  await page.keyboard.press("KeyZ");
  await page.keyboard.press("KeyX");
  await expect(page.getByText("Dimensions and notes are out of the way.")).toBeVisible();
  await bench.click({ x: 60, y: 48 });
  await expect(selected).toContainText("nothing");
  await bench.click({ x: 70, y: 37 });
  await bench.click({ x: 130, y: 37 }, ["Shift"]);
  await bench.click({ x: 30, y: 37 }, ["Shift"]);
  await bench.tool("DR", "Mirror");
  await bench.click({ x: 160, y: 40 });
  await page.keyboard.press("Escape");
  await page.keyboard.press("Escape");
  await page.keyboard.press("KeyZ");
  await page.keyboard.press("KeyX");
  await expect(page.getByText("Dimensions and notes are shown.")).toBeVisible();
  const mirrored = await all();
  // the dimension of two holes and the note were copied with them; that of the outline was not
  expect(mirrored.map(({ kind }) => kind)).toEqual(["linear", "linear", "note", "linear", "note"]);
  expect(mirrored.map(({ measures }) => measures)).toEqual([160, 100, undefined, 100, undefined].map(near));
  expect(mirrored[4]!.text).toBe("ream");

  // what it measured is deleted: it says so, is put on something else, or deleted; undone, all is as it was
  await bench.click({ x: 30, y: 37 });
  await page.keyboard.press("Delete");
  await expect(page.getByText("Lost what they measured: 1 dimension")).toBeVisible();
  await bench.click({ x: 80, y: 49 });
  await expect(selected).toContainText("It lost what it measured");
  await selected.getByRole("button", { name: "Put it on something" }).click();
  await bench.click({ x: 70, y: 37 });
  await bench.click({ x: 130, y: 37 });
  await bench.click({ x: 100, y: 50 });
  await page.keyboard.press("Escape");
  await expect.poll(async () => (await all())[1]!.measures).toBeCloseTo(60, 9);
  expect((await all())[1]!.lost).toBeUndefined();
  await page.keyboard.press("Control+z");
  await page.keyboard.press("Control+z");
  await expect.poll(async () => (await all())[1]!.measures).toBeCloseTo(100, 9);

  // locked they are neither picked nor added to
  const layers = page.getByRole("region", { name: "Layers" });
  await layers.getByRole("button", { name: "Lock dimensions and notes" }).click();
  await bench.click({ x: 60, y: 48 });
  await expect(selected).toContainText("nothing");
  await bench.tool("ZS", "Centre mark");
  await bench.click({ x: 70, y: 37 });
  await expect(page.getByText(/Dimensions and notes are locked/)).toBeVisible();
  await page.keyboard.press("Escape");
  await page.keyboard.press("Escape");
  await layers.getByRole("button", { name: "Unlock dimensions and notes" }).click();

  // of two that lie over one another each can be taken
  await make(bench, "ZZ", "Dimension", {
    clicks: "30,37 130,37 80,48",
  });
  await bench.click({ x: 55, y: 48 });
  await expect(page.getByText(/^2 lie here over one another: dimension 100, dimension 100/)).toBeVisible();
  const deleted = async (): Promise<number> => {
    const before = (await annotationsIn(bench)).map(({ id }) => id);
    await page.keyboard.press("Delete");
    const after = new Set((await annotationsIn(bench)).map(({ id }) => id));
    await page.keyboard.press("Control+z");
    return before.find((id) => !after.has(id))!;
  };
  const first = await deleted();
  await bench.click({ x: 55, y: 48 });
  await page.keyboard.press("Shift+Space");
  expect(await deleted()).not.toBe(first);
  await page.keyboard.press("Control+z");

  // all of a kind, deleted and undone, and there after a reload
  await bench.click({ x: 60, y: 48 });
  await page.keyboard.press("Escape");
  await page.getByRole("radio", { name: "same kind" }).click();
  await bench.click({ x: 60, y: 48 });
  await expect(selected).toContainText("3 dimensions");
  await page.keyboard.press("Delete");
  await expect.poll(async () => (await annotationsIn(bench)).length).toBe(2);
  await page.keyboard.press("Control+z");
  await expect.poll(async () => (await annotationsIn(bench)).length).toBe(5);
  await bench.reload();
  expect(await all()).toEqual(mirrored);
});

test("the rocker plate's callouts are dimensioned in one step, each true, and undone in one", async ({ page }) => {
  test.setTimeout(180_000);
  const bench = new Bench(page);
  await bench.open("Rocker plate");
  await drawRockerPlate(bench);
  for (const key of ["Escape", "Escape", "KeyV", "KeyV", "KeyZ", "KeyG"]) await page.keyboard.press(key);
  await expect(page.getByText(/^\d+ dimensions placed\.$/)).toBeVisible();
  const placed = await drawingOf(bench);
  // the thread is named by its mark, which is no dimension
  const isDimension = ({ kind }: { kind: string }): boolean => kind !== "thread mark";
  const dimensions = async () => (await annotationsIn(bench)).filter(isDimension);
  const measured = annotationsOf(placed)
    .filter(isDimension)
    .map((one) => [one.kind, measureAnnotation(placed, one)!.most, one.callout]);
  const called = calloutsOf(placed).flatMap(({ id, kind, value, links }) =>
    links.length > 0 && kind !== "thread"
      ? [[kind === "centres" || kind === "length" ? "linear" : kind, near(value), id]]
      : [],
  );
  expect(measured).toHaveLength(7);
  expect(measured).toEqual(expect.arrayContaining(called));
  // each by itself: a row with a dimension has none again, and one that is not placed says so
  await page.keyboard.press("KeyZ");
  await page.keyboard.press("KeyG");
  await expect(page.getByText("No callout that is placed is without a dimension.")).toBeVisible();
  await page.keyboard.press("Control+z");
  await expect.poll(async () => (await dimensions()).length).toBe(0);
  await bench.callout("R 14").click();
  await page.getByRole("group", { name: "Tools for R 14" }).getByRole("button", { name: "Dimension it" }).click();
  await bench.click({ x: 3.4, y: -1.8 });
  await expect.poll(async () => (await dimensions()).map(({ kind }) => kind)).toEqual(["radius"]);
  // what is put on a thing that a callout answers takes that callout
  await bench.tool("ZW", "Radius or diameter");
  await bench.click({ x: 0, y: 0.594 });
  await bench.click({ x: -1, y: 1.8 });
  await page.keyboard.press("Escape");
  await page.keyboard.press("Escape");
  const selected = page.getByRole("region", { name: "Selected" });
  await bench.click({ x: -1.2, y: 1.85 });
  await expect(selected).toContainText("calledØ 1 3/16");
  // a row dragged onto the board: its dimension stands where it is let go
  await page.keyboard.press("Escape");
  const row = (await bench.callout("R 14").boundingBox())!;
  const to = await bench.at({ x: 3, y: -1.5 });
  await page.mouse.move(row.x + 30, row.y + 8);
  await page.mouse.down();
  await page.mouse.move(row.x + 60, row.y + 30, { steps: 3 });
  await page.mouse.move(to.x, to.y, { steps: 5 });
  await page.mouse.up();
  await expect.poll(async () => (await dimensions()).length).toBe(3);
  const after = await drawingOf(bench);
  const text = textPlace(after, annotationsOf(after).at(-1)!)!;
  expect(annotationsOf(after).at(-1)).toMatchObject({
    kind: "radius",
    callout: annotationsOf(after).find(isDimension)!.callout,
  });
  expect(Math.hypot(text.x - 3, text.y + 1.5)).toBeLessThan(0.05);
});

test("a dimension lights what it holds, and that lights its dimension; its place is typed; the list shows it", async ({
  page,
}) => {
  const bench = await openPlate(page);
  await make(bench, "ZZ", "Dimension", { clicks: "50,0 50,-20" });
  /** How a small part of the board looks. */
  const look = async (place: Place): Promise<string> => {
    const { x, y } = await bench.at(place);
    const shot = await page.screenshot({ clip: { x: x - 4, y: y - 4, width: 8, height: 8 } });
    return shot.toString("base64");
  };
  const [held, other, line] = [
    { x: 110, y: 0 },
    { x: 0, y: 50 },
    { x: 110, y: -20 },
  ];
  const aside = { x: 60, y: 55 };
  await bench.point(aside);
  const dark = [await look(held), await look(other), await look(line)];
  await bench.point({ x: 30, y: -20 });
  await expect.poll(() => look(held)).not.toBe(dark[0]);
  expect(await look(other)).toBe(dark[1]);
  await bench.point(aside);
  await expect.poll(() => look(held)).toBe(dark[0]);
  await bench.point({ x: 30, y: 0 });
  await expect.poll(() => look(line)).not.toBe(dark[2]);
  await bench.point({ x: 0, y: 40 });
  await expect.poll(() => look(line)).toBe(dark[2]);

  await bench.tool("ZZ", "Dimension");
  await bench.click({ x: 160, y: 30 });
  await page.keyboard.type("185;12");
  await page.keyboard.press("Enter");
  await expect.poll(async () => (await annotationsIn(bench)).map(({ at }) => Math.abs(at.y))[1]).toBe(25);
  await page.keyboard.press("Escape");
  await bench.saved();
  await page.getByRole("link", { name: "Jobs" }).first().click();
  const picture = page.getByRole("row", { name: /7301/ }).locator("svg").first();
  // outlines, the outside, the inside, what is open; and the dimensions, which lie beyond the plate
  await expect
    .poll(async () => (await picture.getAttribute("viewBox"))!.split(" ").map(Number)[2])
    .toBeGreaterThan(180);
  await expect(picture.locator("path")).toHaveCount(5);
});

test("a dimension is written into the ledger, answered there by what it measures, in one step", async ({ page }) => {
  const bench = await openPlate(page);
  await make(bench, "ZZ", "Dimension", {
    clicks: "50,0 50,-20",
  });
  await bench.click({ x: 20, y: -20 });
  const selected = page.getByRole("region", { name: "Selected" });
  await selected.getByRole("button", { name: "Write into the ledger" }).click();
  await expect(bench.callout("160")).toContainText("true");
  await expect(selected).toContainText("called160 true");
  await bench.click({ x: 160, y: 40 });
  await page.keyboard.press("Control+z");
  await expect(bench.callout("160")).toHaveCount(0);
});

test("the drawing with its dimensions is saved for people, and the browser's own engine draws it so", async ({
  page,
}) => {
  const bench = await openPlate(page);
  await make(bench, "ZZ", "Dimension", {
    clicks: "20,85 0,105",
  });
  await make(bench, "ZA", "Note", {
    typed: "ream Ø 14 & <deburr>",
    clicks: "130,37 140,62",
  });
  await bench.saved();
  await page.getByRole("navigation", { name: "Steps" }).getByRole("button", { name: "Release" }).click();
  const card = page.getByRole("region", { name: "Drawing with dimensions" });
  await expect(card).toContainText("with 2 dimensions, notes and marks");
  await expect(card.getByRole("img", { name: "The drawing with its dimensions" })).toContainText("50");
  const saved = async (): Promise<string> => {
    const [download] = await Promise.all([
      page.waitForEvent("download"),
      card.getByRole("button", { name: "Save the drawing" }).click(),
    ]);
    return readFileSync((await download.path())!, "utf8");
  };
  const svg = await saved();
  await card.getByRole("radio", { name: "DXF", exact: true }).click();
  expect(await saved()).toContain("AcDbAlignedDimension");
  // the machine's file is written beside it, and knows nothing of dimensions
  await expect(page.getByRole("combobox", { name: "Machine" })).toHaveValue("DXF R2000");
  const [download] = await Promise.all([
    page.waitForEvent("download"),
    page.getByRole("button", { name: "Write the DXF" }).click(),
  ]);
  expect(readFileSync((await download.path())!, "utf8")).not.toMatch(/DIMENSION|TEXT/);

  // by the browser: what is written is there, read along the edge that it measures, as wide as was reckoned
  await page.setContent(svg);
  const texts = await page.evaluate(() =>
    [...document.querySelectorAll("text")].map((one) => {
      const m = one.getCTM()!;
      const { width } = one.getBBox();
      return {
        words: one.textContent,
        angle: (Math.atan2(-m.b, m.a) * 180) / Math.PI,
        width,
        size: one.getAttribute("font-size"),
      };
    }),
  );
  expect(texts.map(({ words }) => words)).toEqual(["50", "ream Ø 14 & <deburr>"]);
  expect(texts[0]!.angle).toBeCloseTo((Math.atan2(30, 40) * 180) / Math.PI, 3);
  expect(texts[1]!.angle).toBeCloseTo(0, 6);
  // fixed-width letters are 0.6 of the font's size wide, in whatever such font is there
  expect(texts[1]!.width / Number(texts[1]!.size) / 20).toBeCloseTo(0.6, 1);
});
