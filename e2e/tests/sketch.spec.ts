import { expect, test, type Page } from "@playwright/test";
import { jsPDF } from "jspdf";
import { homographyOf, throughHomography } from "@ash-edge/core/picture";
import { Bench, type Place } from "../support/bench.ts";
import { HEARTH_ON_PAPER, hearthCorners, hearthOnPaper, takeStraighten } from "../support/demoJobs.ts";
import { SketchPicture } from "../support/sketchPicture.ts";

type Picture = {
  blob: string;
  scale: number;
  angle: number;
  scaled: boolean;
  shown: boolean;
  opacity: number;
  locked: boolean;
  at: Place;
};
type Row = { kind: string; at?: Place; centre?: Place; radius?: number; layer: number };
type Content = { picture: Picture[]; entity: Row[]; callout: { name: string; pin?: Place & { sketch: string } }[] };
const content = async (bench: Bench): Promise<Content> => JSON.parse(await bench.content()) as Content;

test(
  "job 0412's layout from its sketch: the picture scaled, its numbers taken from the ledger, circles, lines " +
    "and points",
  async ({ page }) => {
    const bench = new Bench(page);
    await bench.open("Strainer cover plate");
    const sketch = await SketchPicture.shown(page);

    const { size } = sketch;
    // to scale by two places 190 apart, on the sketch beside the board
    await page.keyboard.press("KeyB");
    await page.keyboard.press("KeyW");
    await expect(bench.sentence("Scale the picture")).toBeVisible();
    await bench.callout("Ø 190").click(); // a diameter is no length between two places
    await expect(page.getByRole("alert")).toContainText("has no blank for");
    await bench.type("190");
    await page.keyboard.press("Enter");
    const [a, b] = [
      { x: size.width * 0.3, y: size.height * 0.5 },
      { x: size.width * 0.7, y: size.height * 0.5 },
    ];
    await sketch.click(a);
    await sketch.click(b);
    await expect(page.getByText("The picture is to scale")).toBeVisible();
    const [row] = (await content(bench)).picture;
    expect(row).toMatchObject({ scaled: true, shown: false });
    expect(Math.abs(row!.scale * 0.4 * size.width - 190)).toBeLessThan(0.005 * 190);

    // thrown under the drawing as well, and faded
    await page.getByRole("button", { name: "More for the sketch" }).click();
    await page.getByRole("menuitemcheckbox", { name: "Under the drawing" }).click();
    await page.getByRole("button", { name: "More for the sketch" }).click();
    await page.getByRole("menuitemradio", { name: "20 %" }).click();
    await page.keyboard.press("Escape");
    expect((await content(bench)).picture[0]).toMatchObject({ shown: true, opacity: 0.2 });

    // the layout at called values, by keys and callouts
    await bench.tool("QS", "Layout circle");
    await bench.callout("Ø 190").click();
    await bench.click({ x: 0.4, y: 0.4 });
    await bench.tool("QE", "At an angle");
    await bench.type("30");
    await bench.click({ x: 0.4, y: 0.4 });
    await page.keyboard.press("Delete");
    await bench.type("150");
    await bench.click({ x: 0.4, y: 0.4 });
    await bench.tool("QQ", "Parallel");
    await bench.callout("69").click();
    await bench.click({ x: -60, y: 0 });
    await bench.click({ x: -60, y: 20 });
    await expect(bench.callout("69")).toContainText("true");
    await bench.tool("QD", "Point");
    const boss = { x: 95 * Math.cos(Math.PI / 6), y: -95 * Math.sin(Math.PI / 6) };
    const wanted = [{ x: 0, y: 95 }, boss, { x: -boss.x, y: boss.y }, { x: 0, y: 69 }];
    for (const at of wanted) await bench.click({ x: at.x + 0.4, y: at.y + 0.4 });
    const made = (await content(bench)).entity.filter(({ kind }) => kind === "point").map(({ at }) => at!);
    wanted.forEach((at, i) => expect(Math.hypot(made[i]!.x - at.x, made[i]!.y - at.y)).toBeLessThan(1e-7));

    // a place picked on the picture lying under the drawing is the same place
    await page.keyboard.press("KeyC");
    await page.keyboard.press("KeyR");
    await expect(bench.sentence("On the picture")).toBeVisible();
    await bench.click({ x: -50, y: 10 });
    await bench.click({ x: 50, y: 10 });
    await expect(page.getByText(/(99\.\d+|100(\.\d+)?) mm, measured off the picture/).first()).toBeVisible();
  },
);

test("job 0413's photo, straightened by four corners: lengths on it come out within half a per cent", async ({
  page,
}) => {
  const bench = new Bench(page);
  await bench.open("Hearth stone");
  const photo = await takeStraighten(bench);
  const corners = hearthCorners();
  // clicked crossing over first: refused, nothing lost
  for (const i of [0, 2, 1]) await photo.click(corners[i]!, 0);
  await photo.click(corners[3]!, 0);
  await expect(page.getByRole("alert")).toContainText("The corners cross over");
  expect(await bench.revision()).toBe(0);
  await page.keyboard.press("Escape");
  for (const corner of corners) await photo.click(corner);
  await expect(bench.board).toHaveAttribute("data-revision", "1");
  await expect(photo.card).toContainText("2 of 2");

  const { picture, callout } = await content(bench);
  const straight = picture.at(-1)!;
  expect(straight.scaled).toBe(true);
  expect(callout.every(({ pin }) => pin?.sketch === straight.blob)).toBe(true);

  // the strokes themselves: dark pixels of the straight picture, across the two notches and across the stone
  const spans = await photo.card.getByRole("img").evaluate((image: HTMLImageElement) => {
    const canvas = document.createElement("canvas");
    [canvas.width, canvas.height] = [image.naturalWidth, image.naturalHeight];
    const context = canvas.getContext("2d")!;
    context.drawImage(image, 0, 0);
    const { data, width, height } = context.getImageData(0, 0, canvas.width, canvas.height);
    return {
      width,
      height,
      rows: Array.from({ length: height }, (_, y) =>
        Array.from({ length: width }, (__, x) => data[4 * (y * width + x)]!),
      ),
    };
  });
  const darkNear = (y: number, x: number): number => {
    let best = { sum: Infinity, at: 0 };
    for (let at = Math.round(x) - 14; at <= Math.round(x) + 14; at++) {
      let sum = 0;
      for (let row = Math.round(y) - 6; row <= Math.round(y) + 6; row++) sum += spans.rows[row]![at]!;
      if (sum < best.sum) best = { sum, at };
    }
    return best.at;
  };
  // the straight picture's own pixels of places on the stone: its pins tell
  const size = { width: spans.width, height: spans.height };
  const pinned = (name: string): Place => {
    const { pin } = callout.find((one) => one.name === name)!;
    return { x: pin!.x * size.width, y: pin!.y * size.height };
  };
  const toStraight = homographyOf(Object.values(HEARTH_ON_PAPER), Object.keys(HEARTH_ON_PAPER).map(pinned))!;
  const at = (x: number, y: number): Place => throughHomography(toStraight, hearthOnPaper(x, y));
  const span = (y: number, from: number, to: number): number => {
    const [p, q] = [at(from, y), at(to, y)];
    return (darkNear(q.y, q.x) - darkNear(p.y, p.x)) * straight.scale;
  };
  expect(Math.abs(span(38, 110, 1270) - 1160)).toBeLessThan(0.005 * 1160);
  expect(Math.abs(span(250, 0, 1380) - 1380)).toBeLessThan(0.005 * 1380);

  // a fifth known length, by the tool: it says how far the picture is off
  const shown = new SketchPicture(page, size);
  await page.keyboard.press("KeyC");
  await page.keyboard.press("KeyR");
  await bench.type("1160");
  await page.keyboard.press("Enter");
  await shown.click(at(110, 30));
  await shown.click(at(1270, 30));
  const said = await page
    .getByText(/measured off the picture .*off by .* %/)
    .first()
    .textContent();
  expect(Number(/([\d.]+) %/.exec(said!)![1])).toBeLessThan(0.5);

  // undo takes the straight picture out of sight and gives the pins back
  await page.keyboard.press("Escape");
  await page.keyboard.press("Escape");
  await page.keyboard.press("Control+z");
  await expect(photo.card).not.toContainText("of 2");
  expect((await content(bench)).callout.every(({ pin }) => pin?.sketch === "sketch-1")).toBe(true);
});

/** A JPEG made in the page: its size, its ground, and boxes on it, each with its colour and filled or not. */
const photo = async (
  page: Page,
  size: readonly [number, number],
  boxes: readonly { readonly box: readonly [number, number, number, number]; readonly fill?: string }[],
): Promise<Buffer> => {
  const base64 = await page.evaluate(
    async ([[width, height], drawn]) => {
      const canvas = new OffscreenCanvas(width, height);
      const context = canvas.getContext("2d")!;
      context.fillStyle = "#eee";
      context.fillRect(0, 0, width, height);
      for (const { box, fill } of drawn) {
        if (fill) context.fillStyle = fill;
        if (fill) context.fillRect(...(box as [number, number, number, number]));
        else context.strokeRect(...(box as [number, number, number, number]));
      }
      const blob = await canvas.convertToBlob({ type: "image/jpeg" });
      const bytes = new Uint8Array(await blob.arrayBuffer());
      let text = "";
      for (let i = 0; i < bytes.length; i += 0x8000) text += String.fromCharCode(...bytes.subarray(i, i + 0x8000));
      return btoa(text);
    },
    [size, boxes] as const,
  );
  return Buffer.from(base64, "base64");
};

test("a 24-megapixel photo is shown scaled down, kept whole, straightened with progress, and can be stopped", async ({
  page,
}) => {
  const bench = new Bench(page);
  await bench.open("Hearth stone");
  const card = page.getByRole("region", { name: "Sketch card" });
  await card.getByLabel("Pictures of the sketch").setInputFiles({
    name: "big.jpg",
    mimeType: "image/jpeg",
    buffer: await photo(page, [6000, 4000], [{ box: [600, 500, 4800, 3000] }]),
  });
  await expect(card).toContainText("2 of 2");
  const shown = await card.getByRole("img").evaluate((image: HTMLImageElement) => image.naturalWidth);
  expect(shown).toBe(2600);
  const big = new SketchPicture(page, { width: 6000, height: 4000 });
  const corners = [
    { x: 600, y: 500 },
    { x: 5400, y: 500 },
    { x: 5400, y: 3500 },
    { x: 600, y: 3500 },
  ];
  const straighten = async (): Promise<void> => {
    await page.keyboard.press("KeyB");
    await page.keyboard.press("KeyR");
    await bench.type("960");
    await page.keyboard.press("Tab");
    await page.keyboard.type("600");
    await page.keyboard.press("Enter");
    for (const corner of corners) await big.click(corner, 0);
  };
  await straighten();
  const work = page.getByRole("status", { name: "Work" });
  await expect(work.getByRole("progressbar")).toBeVisible();
  await work.getByRole("button", { name: "Stop" }).click();
  await expect(page.getByText("stopped. Nothing was changed.")).toBeVisible();
  expect(await bench.revision()).toBe(0);
  await straighten();
  // what stands against it is said, not waited for
  await expect(page.getByText(/^Straightening.*: done\.$|failed: /)).toHaveText(/done\.$/, { timeout: 30_000 });
  await expect(bench.board).toHaveAttribute("data-revision", "1");
  const { picture } = await content(bench);
  expect(Math.abs(picture.at(-1)!.scale - 0.2)).toBeLessThan(0.002); // 960 over 4800 pixels of the whole photo
});

test("the sketch card is enlarged, docked right and peeked at; a locked picture stays", async ({ page }) => {
  const bench = new Bench(page);
  await bench.open("Rocker plate");
  const card = page.getByRole("region", { name: "Sketch card" });
  const small = (await card.boundingBox())!;
  await page.getByRole("button", { name: "Enlarge the sketch card" }).click();
  await expect.poll(async () => (await card.boundingBox())!.width).toBeGreaterThan(small.width + 150);
  // lines are marked on it as a plan, and taken off by a click on them
  const picture = new SketchPicture(page, { width: 1200, height: 780 });
  await bench.tool("BV", "Mark the plan");
  await picture.click({ x: 120, y: 400 }, 0);
  await picture.click({ x: 1100, y: 400 }, 0);
  await picture.click({ x: 250, y: 120 }, 0);
  await picture.click({ x: 250, y: 700 }, 0);
  const plan = card.getByRole("figure");
  await expect(plan).toHaveAccessibleName("Plan: 2 lines");
  await page.getByRole("radio", { name: "take one off" }).click();
  await picture.click({ x: 252, y: 600 }, 0);
  await expect(plan).toHaveAccessibleName("Plan: 1 line");
  await picture.click({ x: 700, y: 600 }, 0);
  await expect(page.getByRole("alert")).toContainText("No line of the plan lies here.");
  await bench.reload();
  await expect(plan).toHaveAccessibleName("Plan: 1 line");
  // a double click makes it smaller, and larger
  const shown = await picture.at({ x: 600, y: 500 });
  await page.mouse.dblclick(shown.x, shown.y);
  await expect.poll(async () => (await card.boundingBox())!.width).toBeLessThan(small.width + 20);
  await page.getByRole("button", { name: "More for the sketch" }).click();
  await page.getByRole("menuitem", { name: "Dock right" }).click();
  await expect.poll(async () => (await card.boundingBox())!.x).toBeGreaterThan(900);
  const peek = page.getByRole("button", { name: "Hold to peek at the sketch" });
  await peek.hover();
  await page.mouse.down();
  await expect(page.getByRole("img", { name: "The sketch, large" })).toBeVisible();
  await page.mouse.up();
  await expect(page.getByRole("img", { name: "The sketch, large" })).toBeHidden();
  await page.getByRole("button", { name: "More for the sketch" }).click();
  await page.getByRole("menuitemcheckbox", { name: "Under the drawing" }).click();
  await page.getByRole("button", { name: "More for the sketch" }).click();
  await page.getByRole("menuitemcheckbox", { name: "Locked where it lies" }).click();
  await page.keyboard.press("KeyB");
  await page.keyboard.press("KeyE");
  await expect(bench.sentence("Level the picture")).toBeVisible();
  await bench.click({ x: 1, y: 0.5 });
  await bench.click({ x: 3, y: 0.7 });
  await expect(page.getByRole("alert")).toContainText("This picture is locked");
  await page.reload();
  // where the card stands is remembered
  await expect.poll(async () => (await card.boundingBox())!.x).toBeGreaterThan(900);
});

/** A JPEG of 300 by 200 pixels, its left third red, with the camera’s word that it is to be turned a quarter right. */
const turnedPhoto = async (page: Page): Promise<Buffer> => {
  const jpeg = await photo(page, [300, 200], [{ box: [0, 0, 100, 200], fill: "#f00" }]);
  // Exif 2.3: APP1, big endian, one entry 0x0112 (orientation), a short: 6
  const exif = Buffer.from(
    "457869660000" + "4d4d002a00000008" + "0001" + "011200030000000100060000" + "00000000",
    "hex",
  );
  const head = Buffer.from([0xff, 0xe1, 0, exif.length + 2]);
  return Buffer.concat([jpeg.subarray(0, 2), head, exif, jpeg.subarray(2)]);
};

test("a photo stands as the camera was held, on the card and when it is straightened", async ({ page }) => {
  const bench = new Bench(page);
  await bench.open("Hearth stone");
  const card = page.getByRole("region", { name: "Sketch card" });
  const buffer = await turnedPhoto(page);
  await card.getByLabel("Pictures of the sketch").setInputFiles({ name: "held.jpg", mimeType: "image/jpeg", buffer });
  await expect(card).toContainText("2 of 2");
  /** Its size, and how red it is at its top and at its foot. */
  const shown = (): Promise<unknown> =>
    card.getByRole("img").evaluate((image: HTMLImageElement) => {
      const { naturalWidth: width, naturalHeight: height } = image;
      const canvas = new OffscreenCanvas(width, height);
      const context = canvas.getContext("2d")!;
      context.drawImage(image, 0, 0);
      const red = (part: number): boolean => {
        const [r, g] = context.getImageData(width / 2, part * height, 1, 1).data;
        return r! > 200 && g! < 80;
      };
      return [width < height, red(0.1), red(0.9)];
    });
  await expect.poll(shown).toEqual([true, true, false]);
  const held = new SketchPicture(page, { width: 200, height: 300 });
  await page.keyboard.press("KeyB");
  await page.keyboard.press("KeyR");
  await bench.type("100");
  await page.keyboard.press("Tab");
  await page.keyboard.type("150");
  await page.keyboard.press("Enter");
  for (const [x, y] of [
    [10, 10],
    [190, 10],
    [190, 290],
    [10, 290],
  ])
    await held.click({ x: x!, y: y! }, 0);
  await expect(page.getByText(/^Straightening.*: done\.$|failed: /)).toHaveText(/done\.$/);
  await expect(card).toContainText("3 of 3");
  await expect.poll(shown).toEqual([true, true, false]);
});

test("pages of a PDF are sketches, chosen by small pictures, in a new job and on the bench; a broken one", async ({
  page,
}) => {
  const pdf = new jsPDF({ unit: "mm", format: [200, 100], orientation: "landscape" });
  pdf.text("front", 20, 20);
  pdf.addPage([100, 200], "portrait");
  pdf.setFillColor(255, 0, 0);
  pdf.rect(0, 0, 100, 60, "F");
  pdf.addPage([100, 100], "portrait");
  const file = { name: "order.pdf", mimeType: "application/pdf", buffer: Buffer.from(pdf.output("arraybuffer")) };
  await page.goto("/jobs");
  await page.getByRole("button", { name: "New job" }).click();
  const form = page.getByRole("dialog", { name: "New job" });
  await form.locator("input[type=file]").setInputFiles(file);
  const pages = page.getByRole("dialog", { name: "Pages of order.pdf" });
  await expect(pages.getByRole("button", { name: "page 3" })).toBeVisible();
  await expect(pages.getByRole("button", { name: "page 1" })).toHaveAttribute("aria-pressed", "true");
  await pages.getByRole("button", { name: "page 1" }).click();
  await expect(pages.getByRole("button", { name: "Take 0 pages" })).toBeDisabled();
  await pages.getByRole("button", { name: "page 2" }).click();
  await pages.getByRole("button", { name: "Take the page" }).click();
  await expect(pages).toHaveCount(0);
  await expect(form).toContainText("order page 2.png");
  await form.getByLabel("Part").click();
  await page.keyboard.type("From a PDF");
  await form.getByRole("button", { name: "Make the job" }).click();
  const bench = new Bench(page);
  await bench.ready();
  const card = page.getByRole("region", { name: "Sketch card" });
  /** Its shape, and whether its top is red. */
  const shown = (): Promise<unknown> =>
    card.getByRole("img").evaluate((image: HTMLImageElement) => {
      const { naturalWidth: width, naturalHeight: height } = image;
      const canvas = new OffscreenCanvas(width, height);
      const context = canvas.getContext("2d")!;
      context.drawImage(image, 0, 0);
      const [r, g] = context.getImageData(width / 2, height / 10, 1, 1).data;
      return [(height / width).toFixed(2), r! > 200 && g! < 60];
    });
  await expect.poll(shown).toEqual(["2.00", true]);
  // on the bench two pages at once
  await card.getByLabel("Pictures of the sketch").setInputFiles(file);
  await pages.getByRole("button", { name: "page 3" }).click();
  await pages.getByRole("button", { name: "Take 2 pages" }).click();
  await expect(card).toContainText("3 of 3");
  await card
    .getByLabel("Pictures of the sketch")
    .setInputFiles({ ...file, name: "broken.pdf", buffer: Buffer.from("%PDF-1.7 nothing more") });
  await expect(page.getByText("broken.pdf is damaged, or no PDF that can be read.")).toBeVisible();
  await expect(page.getByRole("dialog")).toHaveCount(0);
  await expect(card).toContainText("3 of 3");
});
