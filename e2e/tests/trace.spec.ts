import { readFileSync } from "node:fs";
import DxfParser from "dxf-parser";
import { expect, test, type Locator, type Page } from "@playwright/test";
import { calloutsOf, entitiesOf, type Drawing } from "@ash-edge/core/drawing";
import { profileOf } from "@ash-edge/core/profile";
import { hearth, link, partOf, rocker, strainer } from "../../core/src/testing/parts.ts";
import { brakeLink } from "../../scripts/sketches/link.ts";
import { photoOf, type Conditions } from "../../scripts/sketches/photo.ts";
import { drawingOf } from "../support/annotated.ts";
import { Bench, type Place } from "../support/bench.ts";
import { newJob } from "../support/drawn.ts";
import { fitView, hearthCorners, takeStraighten } from "../support/demoJobs.ts";
import { SketchPicture } from "../support/sketchPicture.ts";

const panel = (page: Page) => page.getByRole("region", { name: "Traced" });
const numbers = (page: Page) => page.getByRole("region", { name: "Numbers" });
const kinds = (drawing: Drawing): readonly string[] =>
  [...entitiesOf(drawing)].map(({ kind }) => kind).filter((kind) => kind !== "endless");

/** Its sketch to scale by a called length between two places. Five gestures. */
const scaledBy = async (bench: Bench, callout: string, a: Place, b: Place): Promise<SketchPicture> => {
  const { page } = bench;
  const sketch = await SketchPicture.shown(page);
  await page.keyboard.press("KeyB");
  await page.keyboard.press("KeyW");
  await bench.callout(callout).click();
  await sketch.click(a);
  await sketch.click(b);
  await expect(page.getByText("The picture is to scale")).toBeVisible();
  await page.keyboard.press("Escape");
  return sketch;
};
/** A chord of the key grid, and what is proposed is there. */
const traced = async (page: Page, outline: number): Promise<Locator> => {
  await page.keyboard.press("KeyB");
  await page.keyboard.press("KeyC");
  await expect(panel(page).getByRole("progressbar")).toBeVisible();
  const rows = panel(page).getByRole("list", { name: "Outline" }).getByRole("listitem");
  await expect(rows).toHaveCount(outline, { timeout: 60_000 });
  return rows;
};
/** Pressed at a place of the board, moved to another in steps, let go. */
const drag = async (bench: Bench, from: Place, to: Place): Promise<void> => {
  await bench.point(from);
  await bench.page.mouse.down();
  const at = await bench.at(to);
  await bench.page.mouse.move(at.x, at.y, { steps: 6 });
  await bench.page.mouse.up();
};
/** The numbers that belong to it looked through, placed and made true. Three gestures. */
const madeTrue = async (page: Page, count: number): Promise<void> => {
  await page.getByRole("region", { name: "Ledger" }).getByRole("button", { name: "Look at them" }).click();
  await numbers(page)
    .getByRole("button", { name: `Place these ${count}` })
    .click({ timeout: 15000 });
  await numbers(page).getByRole("button", { name: "Make true" }).click();
  await expect(numbers(page)).toContainText("No placed number is off.");
};
/** All contours as those of the exact part, by their areas. */
const expectPart = async (bench: Bench, part: Drawing): Promise<void> => {
  const areas = (drawing: Drawing): readonly number[] => profileOf(drawing).contours.map(({ area }) => area);
  const [found, exact] = [areas(await drawingOf(bench)), areas(part)];
  expect(found).toHaveLength(exact.length);
  found.forEach((area, k) => expect(Math.abs(area / exact[k]! - 1)).toBeLessThan(1e-10));
};
const scaled = (bench: Bench): Promise<SketchPicture> =>
  scaledBy(bench, "6 5/8", { x: 250, y: 400 }, { x: 952, y: 400 });

test("job 0414: from its picture to the exact profile in at most 12 gestures", async ({ page }) => {
  const bench = new Bench(page);
  await bench.open("Rocker plate");
  await scaled(bench); // 5
  await traced(page, 7); // 6
  await page.keyboard.press("Enter"); // 7
  await expect.poll(async () => kinds(await drawingOf(bench))).toHaveLength(4);
  const [chain] = [...entitiesOf(await drawingOf(bench))].flatMap((one) => (one.kind === "chain" ? [one] : []));
  expect(chain).toMatchObject({ closed: true });
  expect(chain!.vertices).toHaveLength(4);
  await madeTrue(page, 7); // 10
  // the tapped hole's own size is told by its thread alone
  const areas = (drawing: Drawing): readonly number[] => profileOf(drawing).contours.map(({ area }) => area);
  const [made, exact] = [areas(await drawingOf(bench)), areas(partOf(rocker()))];
  for (const k of [0, 1, 2]) expect(Math.abs(made[k]! / exact[k]! - 1)).toBeLessThan(1e-10);
  expect(calloutsOf(await drawingOf(bench)).filter(({ links }) => links.length > 0)).toHaveLength(7);
});

/** The area of a polyline of a file, by the shoelace and the circle's segments over its bulges. */
const areaOf = (vertices: readonly { readonly x: number; readonly y: number; readonly bulge?: number }[]): number =>
  Math.abs(
    vertices.reduce((sum, p, i) => {
      const q = vertices[(i + 1) % vertices.length]!;
      const [sweep, chord] = [4 * Math.atan(p.bulge ?? 0), Math.hypot(q.x - p.x, q.y - p.y)];
      const radius = sweep === 0 ? 0 : chord / 2 / Math.sin(sweep / 2);
      return sum + (p.x * q.y - q.x * p.y) / 2 + (radius * radius * (sweep - Math.sin(sweep))) / 2;
    }, 0),
  );

test("job 0413: its photo straightened, traced, made true and released; its areas those of the part", async ({
  page,
}) => {
  const bench = new Bench(page);
  await bench.open("Hearth stone");
  const photo = await takeStraighten(bench);
  for (const corner of hearthCorners()) await photo.click(corner);
  await expect(photo.card).toContainText("2 of 2");
  await page.keyboard.press("Escape");
  await traced(page, 14);
  await page.keyboard.press("Enter");
  await expect.poll(async () => profileOf(await drawingOf(bench)).contours.length).toBe(2);
  // what is plain is placed, what is not is asked
  await page.getByRole("region", { name: "Ledger" }).getByRole("button", { name: "Look at them" }).click();
  await numbers(page)
    .getByRole("button", { name: /^Place these/ })
    .click({ timeout: 15000 });
  const asked = numbers(page).getByRole("list", { name: "Which is it" }).getByRole("listitem");
  await asked.filter({ hasText: "75 notch deep" }).getByRole("button", { name: "line ≈ 111" }).click();
  // the rest are measured: from the datum, the outer corner of the left notch
  await bench.tool("CC", "Distance");
  await page.getByRole("radio", { name: "upright" }).click();
  await page
    .getByRole("button", { name: /the sketch card/ })
    .first()
    .click();
  await fitView(bench);
  for (const [callout, from, to] of [
    ["460", { x: 110, y: 75 }, { x: 0, y: -385 }],
    ["60", { x: 0, y: -385 }, { x: 690, y: -445 }],
    ["150", { x: 110, y: 75 }, { x: 610, y: -75 }],
  ] as const) {
    await bench.click(from);
    await bench.click(to);
    await bench.callout(callout).click();
  }
  await bench.tool("CW", "Radius");
  for (const corner of [
    { x: 11, y: -374 },
    { x: 1369, y: -374 },
  ]) {
    await bench.click(corner);
    await bench.callout("R 40").click();
  }
  await page.keyboard.press("Escape");
  await page.keyboard.press("Escape");
  await expect(page.getByRole("region", { name: "Ledger" })).toContainText("9 of 9 placed");
  await page.getByRole("region", { name: "Ledger" }).getByRole("button", { name: "Make all true" }).click();
  await numbers(page).getByRole("button", { name: "Make true" }).click();
  await expect(numbers(page)).toContainText("No placed number is off.");
  await expect(numbers(page)).toContainText("nothing, the numbers tell all of it.");
  await expectPart(bench, partOf(hearth()));
  await page.getByRole("navigation", { name: "Steps" }).getByRole("button", { name: "Release" }).click();
  await expect(page.getByRole("heading", { name: "Ready to cut" })).toBeVisible();
  const [download] = await Promise.all([
    page.waitForEvent("download"),
    page.getByRole("button", { name: "Write the DXF" }).click(),
  ]);
  await expect(page.getByText("holds the same geometry")).toBeVisible();
  const file = new DxfParser().parseSync(readFileSync(await download.path(), "utf8"))!;
  const sorted = (areas: readonly number[]): readonly number[] => areas.map(Math.abs).sort((p, q) => p - q);
  const polylines = file.entities as unknown as { vertices: Parameters<typeof areaOf>[0] }[];
  const written = sorted(polylines.map(({ vertices }) => areaOf(vertices)));
  const exact = sorted(profileOf(partOf(hearth())).contours.map(({ area }) => area));
  expect(written).toHaveLength(2);
  written.forEach((area, k) => expect(Math.abs(area / exact[k]! - 1)).toBeLessThan(1e-9));
});

/** The job of the link as the demo's, with a picture of its sketch as it was taken. */
const openLink = async (page: Page, conditions: Conditions): Promise<{ bench: Bench; across: number }> => {
  const sketch = brakeLink();
  const { bytes, type } = await photoOf(page.context().browser()!, sketch, conditions);
  const { id, unit, head, width, height } = sketch;
  const callouts = sketch.callouts.map((one) => ({
    ...one,
    pin: { sketch: `${id}-sketch-1`, x: one.pin.x / width, y: one.pin.y / height },
  }));
  await page.route("**/api/demo/sketch-0420.png", (route) => route.fulfill({ body: bytes, contentType: type }));
  await page.route("**/api/demo", (route) =>
    route.fulfill({ json: { jobs: [{ id, unit, head, callouts, sketch: "/api/demo/sketch-0420.png" }] } }),
  );
  const bench = new Bench(page);
  await page.goto("/jobs");
  await page.getByRole("link", { name: "Brake link" }).click();
  await bench.ready();
  return { bench, across: width };
};

test("the link: from its picture to the exact profile in at most 12 gestures", async ({ page }) => {
  const { bench } = await openLink(page, {});
  await scaledBy(bench, "80", { x: 240, y: 470 }, { x: 880, y: 470 }); // 5
  await traced(page, 9); // 6
  await page.keyboard.press("Enter"); // 7
  await madeTrue(page, 7); // 10
  await expectPart(bench, partOf(link()));
});

test("a photo of 24 megapixels is traced while the page is worked with; its scale is that of the whole photo", async ({
  page,
}) => {
  const { bench, across } = await openLink(page, { enlarged: 5.1, jpeg: 80, shadow: true });
  const { size } = await SketchPicture.shown(page);
  expect(size.width).toBe(2600); // shown smaller, kept whole
  const shown = (x: number): Place => ({ x: (x / across) * 2600, y: (470 / across) * 2600 });
  await scaledBy(bench, "80", shown(240), shown(880));
  await page.keyboard.press("KeyB");
  await page.keyboard.press("KeyC");
  const progress = panel(page).getByRole("progressbar");
  await expect(progress).toBeVisible();
  // a line is drawn meanwhile
  await bench.tool("WQ", "Line");
  await bench.click({ x: 10, y: 60 });
  await bench.click({ x: 40, y: 60 });
  await expect.poll(async () => kinds(await drawingOf(bench))).toEqual(["piece"]);
  await expect(progress).toBeVisible();
  const holes = panel(page).getByRole("list", { name: "Outline" }).getByRole("listitem").filter({ hasText: "circle" });
  // Ø 10, twice, and Ø 13.5, to what a hand draws them
  await expect(holes.filter({ hasText: /Ø (9|1[01345])/ })).toHaveCount(3, { timeout: 90_000 });
});

test("job 0412: from its picture to the exact profile in at most 12 gestures", async ({ page }) => {
  const bench = new Bench(page);
  await bench.open("Strainer cover plate");
  await scaledBy(bench, "69", { x: 560, y: 520 }, { x: 560, y: 302.65 }); // 5
  await traced(page, 20); // 6
  await page.keyboard.press("Enter"); // 7
  await madeTrue(page, 9); // 10
  await expect(numbers(page)).toContainText("nothing, the numbers tell all of it.");
  await expectPart(bench, partOf(strainer()));
});

test("what is proposed is picked, moved, rejected and accepted; undone it is proposed again", async ({ page }) => {
  const bench = new Bench(page);
  await bench.open("Rocker plate");
  // without a scale there is nothing to trace
  await page.keyboard.press("KeyB");
  await page.keyboard.press("KeyC");
  await expect(page.getByText("No picture of the sketch is to scale yet")).toBeVisible();
  await page.keyboard.press("Escape");
  await scaled(bench);
  await page.keyboard.press("KeyB");
  await page.keyboard.press("KeyC");
  // stopped, nothing is proposed, and it can be begun again
  await panel(page).getByRole("button", { name: "Stop" }).click();
  await expect(panel(page).getByRole("alert")).toContainText("Nothing was traced.");
  await panel(page).getByRole("button", { name: "Again" }).click();
  const outline = panel(page).getByRole("list", { name: "Outline" }).getByRole("listitem");
  await expect(outline).toHaveCount(7, { timeout: 60_000 });
  // thin lines are off at first; shown they are listed
  await expect(panel(page).getByRole("list", { name: "Thin" })).toHaveCount(0);
  await panel(page).getByRole("checkbox", { name: "Show thin" }).click();
  expect(await panel(page).getByRole("list", { name: "Thin" }).getByRole("listitem").count()).toBeGreaterThan(3);
  // one is rejected, one moved by what is picked on the board, the rest accepted
  await outline
    .filter({ hasText: "circle" })
    .first()
    .getByRole("button", { name: /^Reject/ })
    .click();
  await expect(outline).toHaveCount(6);
  await outline
    .filter({ hasText: "circle" })
    .first()
    .getByRole("button", { name: /^Accept/ })
    .click();
  await expect(outline).toHaveCount(5);
  expect(kinds(await drawingOf(bench))).toEqual(["circle"]);
  await page.keyboard.press("Control+z");
  await expect(outline).toHaveCount(6);
  await panel(page).getByRole("button", { name: "Accept the outline 6" }).click();
  await expect(outline).toHaveCount(0);
  expect(kinds(await drawingOf(bench))).toHaveLength(3);
  await page.keyboard.press("Escape");
  await expect(panel(page)).toHaveCount(0);
});

test("what is proposed is changed by hand: split, merged, another kind, joined, pulled, taken back", async ({
  page,
}) => {
  const bench = new Bench(page);
  await bench.open("Rocker plate");
  await scaled(bench);
  const outline = await traced(page, 7);
  const picked = panel(page).getByRole("group", { name: "What is picked" });
  const holds = picked.getByRole("list", { name: "What holds" }).getByRole("listitem");
  const press = (name: string) => picked.getByRole("button", { name, exact: true }).click();
  const takeBack = panel(page).getByRole("button", { name: "Take back" });
  const lines = outline.filter({ hasText: /^line/ });
  // the line above touches both bosses: there it lies at so much over the datum
  const above = (x: number): Place => ({ x, y: 1.125 - 0.0566 * x });
  await bench.click(above(3.4));
  await expect(picked.getByRole("button", { name: "Accept 1" })).toBeVisible();
  await expect(holds).toHaveText([/^touches arc R/, /^touches arc R/]);
  // parted where it is clicked, and one again
  await press("Split");
  await bench.click(above(2));
  await expect(outline).toHaveCount(8);
  await expect(lines).toHaveCount(2);
  await bench.click(above(5));
  await press("Merge");
  await expect(outline).toHaveCount(7);
  await expect(lines).toHaveCount(1);
  await expect(lines.first()).toContainText(/line 6\.[56]/);
  // another kind through its ink; taken back
  await press("as arc");
  await expect(lines).toHaveCount(0);
  await takeBack.click();
  await expect(lines).toHaveCount(1);
  // made to touch the boss that is picked after it
  await bench.click(above(3.4));
  await bench.click({ x: -1.057, y: -0.385 });
  await press("Touch");
  await bench.click({ x: -1.057, y: -0.385 });
  await expect(holds.filter({ hasText: /touches arc R 1\.1/ })).toHaveCount(1);
  await picked.getByRole("button", { name: /^Let go: touches arc R 1\.1/ }).click();
  await expect(holds.filter({ hasText: /touches arc R 1\.1/ })).toHaveCount(0);
  await takeBack.click();
  // a corner of the two, and what can't be one
  await bench.click(above(3.4));
  await bench.click({ x: 2.5, y: 0.19 });
  await press("To a corner");
  await expect(page.getByRole("alert")).toContainText("does not meet anywhere");
  await page.keyboard.press("Escape");
  // the place where the line meets the small boss is pulled along it
  await drag(bench, above(6.66), above(6.2));
  await bench.click(above(3.4));
  await expect(lines.first()).toContainText(/line 6\.[012]/);
  await takeBack.click();
  // into another group, and back
  await bench.click(above(3.4));
  await press("to Thin");
  await expect(outline).toHaveCount(6);
  await takeBack.click();
  await expect(outline).toHaveCount(7);
  // what is shown and lies in a box is picked; Enter accepts it
  await panel(page).getByRole("checkbox", { name: "Show doubtful" }).click();
  await drag(bench, { x: 2.1, y: 0.5 }, { x: 2.9, y: -0.5 });
  await expect(picked.getByRole("button", { name: "Accept 1" })).toBeVisible();
  await page.keyboard.press("Enter");
  await expect(outline).toHaveCount(6);
  const [hole] = [...entitiesOf(await drawingOf(bench))].filter(({ kind }) => kind === "circle");
  expect(hole).toMatchObject({ kind: "circle", traced: true });
  // what is split after that is two still; undo takes back the change, then what was accepted
  await bench.click(above(3.4));
  await press("Split");
  await bench.click(above(2));
  await expect(lines).toHaveCount(2);
  await expect(outline).toHaveCount(7);
  await page.keyboard.press("Control+z");
  await expect(lines).toHaveCount(1);
  await page.keyboard.press("Control+z");
  await expect(outline).toHaveCount(7);
  expect(kinds(await drawingOf(bench))).toEqual([]);
  // asked for once more it stays; Escape closes it, and what was changed is there again
  await bench.click(above(3.4));
  await press("to Thin");
  await expect(outline).toHaveCount(6);
  await page.keyboard.press("KeyB");
  await page.keyboard.press("KeyC");
  await expect(outline).toHaveCount(6);
  await page.keyboard.press("Escape");
  await expect(panel(page)).toHaveCount(0);
  await page.keyboard.press("KeyB");
  await page.keyboard.press("KeyC");
  await expect(outline).toHaveCount(6);
  await takeBack.click();
  await expect(outline).toHaveCount(7);
  // words of the picture are places for callouts: the title is the first that has none
  await panel(page)
    .getByRole("button", { name: /^Write its \d+ words/ })
    .click();
  await page.keyboard.type("2 4 off");
  await page.keyboard.press("Enter");
  await expect(page.getByText("pinned")).toBeVisible();
  await page.keyboard.press("Escape");
  const pins = calloutsOf(await drawingOf(bench)).map(({ pin }) => pin);
  expect(pins).toHaveLength(9);
  expect(pins.at(-1)!.y).toBeLessThan(0.15);
});

/** A picture of 1200 by 800: its ground, strokes by their width, and how many of them. */
const pictureOf = async (
  page: Page,
  { ground = "#fff", width = 0, strokes = [] as readonly (readonly [number, number, number, number])[] },
): Promise<Buffer> => {
  const url = await page.evaluate(
    ([fill, line, all]) => {
      const canvas = document.createElement("canvas");
      [canvas.width, canvas.height] = [1200, 800];
      const context = canvas.getContext("2d")!;
      context.fillStyle = fill;
      context.fillRect(0, 0, 1200, 800);
      context.lineWidth = line;
      for (const [x, y, dx, dy] of all) {
        context.beginPath();
        context.moveTo(x, y);
        context.lineTo(x + dx, y + dy);
        context.stroke();
      }
      return canvas.toDataURL("image/png");
    },
    [ground, width, strokes] as const,
  );
  return Buffer.from(url.split(",")[1]!, "base64");
};
const FRAME = [
  [200, 200, 700, 0],
  [900, 200, 0, 400],
  [900, 600, -700, 0],
  [200, 600, 0, -400],
] as const;

test("what can't be traced is said; a picture taken off, put back and scaled anew meanwhile", async ({ page }) => {
  const bench = new Bench(page);
  await newJob(bench, "7302");
  const card = page.getByRole("region", { name: "Sketch card" });
  const sketch = new SketchPicture(page, { width: 1200, height: 800 });
  let count = 0;
  const put = async (buffer: Buffer): Promise<void> => {
    await card
      .getByLabel("Pictures of the sketch")
      .setInputFiles({ name: `p${++count}.png`, mimeType: "image/png", buffer });
    if (count > 1) await expect(card).toContainText(`${count} of ${count}`);
    await expect(card.getByRole("img")).toBeVisible();
  };
  const scale = async (length: string): Promise<void> => {
    await page.keyboard.press("KeyB");
    await page.keyboard.press("KeyW");
    await bench.type(length);
    await page.keyboard.press("Enter");
    for (const x of [200, 900]) await sketch.click({ x, y: 600 }, 0);
    await expect(page.getByText("The picture is to scale")).toBeVisible();
    await page.keyboard.press("Escape");
  };
  const trace = async (): Promise<void> => {
    await page.keyboard.press("KeyB");
    await page.keyboard.press("KeyC");
  };
  const scattered = Array.from(
    { length: 700 },
    (_, k) => [20 + 38 * (k % 30), 15 + 33 * Math.floor(k / 30), 25 - 7 * (k % 4), 6 * (k % 5)] as const,
  );
  const zigzags = Array.from({ length: 520 }, (_, k) => {
    const [i, row] = [k % 26, Math.floor(k / 26)];
    const down = i % 2 === 0;
    return [40 + 43 * i, 30 + 37 * row + (down ? 0 : 22), 43, down ? 22 : -22] as const;
  });
  for (const [picture, said] of [
    [{}, "There are no strokes on this picture"],
    [{ width: 14, strokes: scattered }, "This does not look like a drawing"],
    [{ width: 1, strokes: FRAME.map(([x, y, dx, dy]) => [x + 0.5, y + 0.5, dx, dy] as const) }, "too thin"],
    [{ width: 3, strokes: scattered }, "All that stands out on this picture is small"],
    [{ width: 3, strokes: zigzags }, "There is too much on it"],
  ] as const) {
    await put(await pictureOf(page, picture));
    await trace();
    await expect(page.getByText("No picture of the sketch is to scale yet").or(panel(page))).toBeVisible();
    await page.keyboard.press("Escape");
    await scale("700");
    await trace();
    await expect(panel(page).getByRole("alert")).toContainText(said, { timeout: 60_000 });
    await page.keyboard.press("Escape");
    await expect(panel(page)).toHaveCount(0);
  }
  // one that can: scaled anew, what is proposed goes with it; taken off and put back
  await put(await pictureOf(page, { width: 3, strokes: FRAME }));
  await scale("700");
  const rows = await traced(page, 4);
  await expect(rows.filter({ hasText: /line (699|70[01])/ })).toHaveCount(2);
  await scale("350");
  await expect(rows.filter({ hasText: /line (349|35[01])/ })).toHaveCount(2);
  await card.getByRole("button", { name: "More for the sketch" }).click();
  await page.getByRole("menuitem", { name: "Take this picture off the job" }).click();
  await panel(page).getByRole("button", { name: "Anew" }).click();
  await expect(panel(page).getByRole("alert")).toContainText("The picture is not stored any more.");
  await page.getByRole("button", { name: "Undo" }).last().click();
  await expect(card).toContainText(`${count} of ${count}`);
  await panel(page).getByRole("button", { name: "Again" }).click();
  await expect(rows).toHaveCount(4, { timeout: 60_000 });
  await panel(page).getByRole("button", { name: "Accept the outline 4" }).click();
  await expect.poll(async () => profileOf(await drawingOf(bench)).contours.map(({ area }) => area)).toHaveLength(1);
});
