import { expect, test, type Page } from "@playwright/test";
import { sheet } from "../support/sheet.ts";
import { Bench, typeOver } from "../support/bench.ts";
import { storeDrawing } from "../support/storedJob.ts";

type P = { readonly x: number; readonly y: number };
type Row = {
  id: number;
  kind: string;
  layer: number;
  a?: P;
  b?: P;
  centre?: P;
  radius?: number;
  line?: string;
  vertices?: { at: P }[];
};
const open = async (page: Page, job = "Strainer cover plate"): Promise<Bench> => {
  const bench = new Bench(page);
  await bench.open(job);
  return bench;
};
const entities = async (bench: Bench): Promise<Row[]> =>
  (JSON.parse(await bench.content()) as { entity: Row[] }).entity;
const last = async (bench: Bench): Promise<Row> => (await entities(bench)).at(-1)!;
const readOut = (page: Page) => page.getByRole("status", { name: "Read-out" });
const run = async (page: Page, name: string): Promise<void> => {
  await page.keyboard.press("Control+k");
  await typeOver(page.getByPlaceholder("Find a tool by its name"), name);
  await page.keyboard.press("Enter");
};
const rectangle = async (bench: Bench, width: string, height: string, at: P): Promise<void> => {
  await bench.tool("TT", "Rectangle");
  await bench.type(width);
  await bench.page.keyboard.press("Tab");
  await bench.page.keyboard.type(height);
  await bench.page.keyboard.press("Enter");
  await bench.click(at);
  await bench.page.keyboard.press("Escape");
  await bench.page.keyboard.press("Escape");
};

test("snaps: Space takes the next, a kind is switched off, one is asked for once, crossings to be", async ({
  page,
}) => {
  const bench = await open(page);
  await rectangle(bench, "60", "40", { x: 0.3, y: 0.3 });
  await bench.tool("WQ", "Line");
  await bench.point({ x: 0.4, y: 0.4 });
  await expect(readOut(page)).toContainText("snap end");
  await bench.point({ x: 30.5, y: 39.6 });
  await expect(readOut(page)).toContainText("snap middle");
  await page.keyboard.press("Space");
  await expect(readOut(page)).toContainText("snap nearest");
  await expect(readOut(page)).toContainText("2 of 2");
  // taken, it holds until the pointer has left its reach
  await bench.point({ x: 30.52, y: 39.58 });
  await expect(readOut(page)).toContainText("snap nearest");
  await bench.point({ x: 31.5, y: 39.4 });
  await expect(readOut(page)).toContainText("snap nearest");
  await page.keyboard.press("Shift+Space");
  await expect(readOut(page)).toContainText("snap middle");
  await expect(readOut(page)).toContainText("1 of 2");
  await page.keyboard.press("Space");
  await bench.point({ x: 30, y: 20 });
  await bench.point({ x: 30.5, y: 39.6 });
  await expect(readOut(page)).toContainText("snap middle");
  await page.getByRole("button", { name: "Snaps" }).click();
  await page.getByRole("checkbox", { name: "middle" }).uncheck();
  await page.getByRole("slider", { name: "Reach" }).fill("20");
  await page.keyboard.press("Escape");
  await bench.point({ x: 30.2, y: 39.8 });
  await expect(readOut(page)).toContainText("snap nearest");
  // asked for once: with none in reach nothing is made, and it is said
  await run(page, "Snap once: centre of area");
  await bench.click({ x: 50, y: 30 });
  await expect(page.getByRole("alert")).toContainText("No centre of area snap is in reach");
  await bench.click({ x: 30.3, y: 20.2 });
  await bench.point({ x: 59.8, y: 39.9 });
  await expect(readOut(page)).toContainText("snap end"); // for one click only
  await page.mouse.down();
  await page.mouse.up();
  const line = await last(bench);
  expect(line.a!.x).toBeCloseTo(30, 9);
  expect(line.a!.y).toBeCloseTo(20, 9);
  expect(line.b).toEqual({ x: 60, y: 40 });
  await page.keyboard.press("Escape");
  await bench.click({ x: 80, y: 60 });
  await bench.click({ x: 80, y: 90 });
  await page.keyboard.press("Escape");
  await bench.point({ x: 80.2, y: 40.2 }); // the upright line and the upper edge would cross here
  await expect(readOut(page)).toContainText("snap crossing if extended");
});

test("a direction is held until it is let go: upright, a typed angle, square to a picked edge", async ({ page }) => {
  const bench = await open(page);
  await bench.tool("WQ", "Line");
  await run(page, "Hold upright");
  await bench.click({ x: 20, y: 20 });
  await bench.click({ x: 33, y: 61 });
  const up = await last(bench);
  expect(up.b!.x).toBe(up.a!.x);
  await page.getByRole("button", { name: "Hold", exact: true }).click();
  await typeOver(page.getByLabel("angle held"), "30");
  await page.keyboard.press("Enter");
  await bench.click({ x: 70, y: 75 });
  const slanted = await last(bench);
  expect(Math.atan2(slanted.b!.y - slanted.a!.y, slanted.b!.x - slanted.a!.x)).toBeCloseTo(Math.PI / 6, 9);
  await run(page, "Hold square to an edge");
  const middle = { x: (slanted.a!.x + slanted.b!.x) / 2, y: (slanted.a!.y + slanted.b!.y) / 2 };
  await bench.click(middle);
  await expect(readOut(page)).toContainText("hold square to an edge");
  await bench.click({ x: 60, y: 110 });
  const square = await last(bench);
  const dot = (square.b!.x - square.a!.x) * Math.cos(Math.PI / 6) + (square.b!.y - square.a!.y) * Math.sin(Math.PI / 6);
  expect(Math.abs(dot)).toBeLessThan(1e-9);
  await run(page, "Let the direction go");
  await expect(readOut(page)).toContainText("hold none");
});

test("what is selected is measured, typed over, put on layers; layers are made, hidden, locked", async ({ page }) => {
  const bench = await open(page);
  await rectangle(bench, "60", "40", { x: 0.3, y: 0.3 });
  const panel = page.getByRole("region", { name: "Selected" });
  const layers = page.getByRole("region", { name: "Layers" });
  await bench.tool("EE", "Circle");
  await bench.type("10");
  await bench.click({ x: 100, y: 20 });
  await bench.click({ x: 100, y: 60 });
  await page.keyboard.press("Escape");
  await bench.click({ x: 105, y: 20 });
  await bench.click({ x: 105, y: 60 }, ["Shift"]);
  await expect(panel).toContainText("2 circles");
  await typeOver(panel.getByLabel("diameter"), "26");
  await page.keyboard.press("Enter");
  expect((await entities(bench)).filter(({ kind }) => kind === "circle").map(({ radius }) => radius)).toEqual([13, 13]);
  await typeOver(panel.getByLabel("radius"), "2x");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("alert")).toContainText("can't be read");
  await page.keyboard.press("Escape");
  // a corner of the chain: stepped to, lit, moved by its number
  await bench.click({ x: 30, y: 0 });
  await panel.getByRole("button", { name: "Next corner" }).click();
  await expect(panel).toContainText("corner 1 of 4");
  await panel.getByRole("button", { name: "Next corner" }).click();
  await typeOver(panel.getByLabel("x", { exact: true }), "65");
  await page.keyboard.press("Enter");
  const chain = (await entities(bench)).find(({ kind }) => kind === "chain")!;
  expect(chain.vertices!.map(({ at }) => at.x)).toEqual([0, 65, 60, 0]);
  // a layer of its own
  await layers.getByRole("button", { name: "New layer" }).click();
  await typeOver(layers.getByLabel("Name of Layer 4"), "Scribed");
  await page.keyboard.press("Enter");
  await layers.getByLabel("Role of Scribed").selectOption("mark");
  await expect(layers).toContainText("drawing on Scribed");
  await panel.getByLabel("layer").selectOption("Scribed");
  await panel.getByLabel("line").selectOption("dotted");
  const scribed = (await entities(bench)).find(({ kind }) => kind === "chain")!;
  expect(scribed.line).toBe("dotted");
  await expect(bench.pieces).toContainText("Mark");
  await bench.tool("EE", "Circle");
  await bench.type("6");
  await bench.click({ x: 30, y: 20 });
  expect((await last(bench)).layer).toBe(scribed.layer); // drawn on the working layer
  await page.keyboard.press("Escape");
  await layers.getByRole("button", { name: "Lock Scribed" }).click();
  await bench.click({ x: 33, y: 20 });
  await expect(panel).toContainText("nothing");
  await layers.getByRole("button", { name: "Unlock Scribed" }).click();
  await layers.getByRole("button", { name: "Hide Scribed" }).click();
  await bench.click({ x: 33, y: 20 });
  await expect(panel).toContainText("nothing");
});

test(
  "Move takes what is selected, or what is clicked, by points or by numbers; a rectangle hangs on its chosen " +
    "place",
  async ({ page }) => {
    const bench = await open(page);
    await bench.tool("EE", "Circle");
    await bench.type("10");
    await bench.click({ x: 20, y: 20 });
    await page.keyboard.press("Escape");
    await bench.tool("DD", "Move");
    await bench.click({ x: 25, y: 20 }); // nothing selected: the first click selects
    await bench.click({ x: 20.2, y: 20.2 });
    await bench.click({ x: 0.2, y: 0.3 });
    expect((await last(bench)).centre).toEqual({ x: 0, y: 0 });
    await typeOver(page.getByLabel("by x"), "12.5");
    await typeOver(page.getByLabel("by y"), "-3");
    await page.keyboard.press("Enter");
    await page.keyboard.press("Enter");
    expect((await last(bench)).centre).toEqual({ x: 12.5, y: -3 });
    await page.keyboard.press("Escape");
    await page.keyboard.press("Escape");
    await bench.tool("TT", "Rectangle");
    await page.getByRole("radio", { name: "centre" }).click();
    await page.getByRole("radio", { name: "round" }).click();
    await typeOver(bench.blank("width"), "80");
    await typeOver(bench.blank("height"), "30");
    await typeOver(bench.blank("radius"), "15"); // exactly half: full round ends
    await page.keyboard.press("Enter");
    await bench.click({ x: 0.2, y: 0.2 });
    const stadium = await last(bench);
    const xs = stadium.vertices!.map(({ at }) => at.x);
    expect([Math.min(...xs), Math.max(...xs), stadium.vertices!.length]).toEqual([-40, 40, 6]);
    await typeOver(bench.blank("radius"), "15.000001");
    await page.keyboard.press("Enter");
    await bench.click({ x: 0.2, y: 60 });
    await expect(page.getByRole("alert")).toContainText("R 15 mm is the largest that works");
  },
);

test("measuring: an angle, a radius, an area; and the job's general tolerance decides what is within", async ({
  page,
}) => {
  const bench = await open(page);
  await rectangle(bench, "60", "40", { x: 0.3, y: 0.3 });
  for (const key of ["KeyC", "KeyE"]) await page.keyboard.press(key);
  await bench.click({ x: 30, y: 0 });
  await expect(page.getByText("Area 2400 mm² · perimeter 200 mm").first()).toBeVisible();
  for (const key of ["KeyC", "KeyQ"]) await page.keyboard.press(key);
  await bench.click({ x: 30, y: 40 });
  await bench.click({ x: 60, y: 20 });
  await expect(page.getByText("Angle 90°").first()).toBeVisible();
  await page.keyboard.press("Escape");
  await page.keyboard.press("Escape");
  await bench.tool("EE", "Circle");
  await bench.callout("Ø 120").click();
  await bench.click({ x: 0.3, y: 60 });
  await page.keyboard.press("Escape");
  await bench.click({ x: 60, y: 60 });
  await typeOver(page.getByRole("region", { name: "Selected" }).getByLabel("diameter"), "120.3");
  await page.keyboard.press("Enter");
  await expect(bench.callout("Ø 120")).toContainText("off by +0.3");
  await typeOver(page.getByLabel("General tolerance"), "0.5");
  await page.keyboard.press("Enter");
  await expect(bench.callout("Ø 120")).toContainText("within the job's tolerance");
});

test("views: fit selection, the view before, the magnifier, signs hidden and shown", async ({ page }) => {
  const bench = await open(page);
  await rectangle(bench, "60", "40", { x: 0.3, y: 0.3 });
  const view = async (): Promise<string> => (await bench.board.getAttribute("data-view"))!;
  const before = await view();
  await bench.click({ x: 30, y: 0 });
  await run(page, "Fit selection");
  await expect.poll(view).not.toBe(before);
  await run(page, "View before");
  await expect.poll(view).toBe(before);
  // without its rim: the rounded corners of the card are blended a level lighter or darker from one frame to another
  const pixels = async (): Promise<string> => {
    const { x, y, width, height } = (await bench.board.boundingBox())!;
    const clip = { x: x + 8, y: y + 8, width: width - 16, height: height - 16 };
    return (await page.screenshot({ clip })).toString("base64");
  };
  await bench.point({ x: 30, y: 20 });
  // after a change of view the last picture is shown scaled until the worker has painted the new one
  let plain = "";
  await expect.poll(async () => plain === (plain = await pixels()), { intervals: [500] }).toBe(true);
  await run(page, "Magnifier");
  await bench.point({ x: 30, y: 20 });
  expect(await pixels()).not.toBe(plain);
  await run(page, "Magnifier");
  await run(page, "Signs shown");
  await bench.point({ x: 30, y: 20 });
  expect(await pixels()).not.toBe(plain); // the layout lines and the datum are gone
  await run(page, "Signs shown");
  await bench.point({ x: 30, y: 20 });
  await expect.poll(pixels).toBe(plain);
});

test("keys of the grid are put on other keys, and every tool's help shows what it makes", async ({ page }) => {
  await page.goto("/settings");
  await page.getByRole("button", { name: "Key of Round" }).click();
  await page.keyboard.press("KeyW");
  await expect(page.getByText("Round is on W now, and Draw on E.")).toBeVisible();
  await page.getByRole("button", { name: "Key of Draw" }).click();
  await page.keyboard.press("KeyP");
  await expect(page.getByText("is none of the fifteen keys")).toBeVisible();
  const bench = await open(page);
  await bench.tool("WW", "Circle");
  await page.keyboard.press("Escape");
  await page.getByRole("button", { name: "Help" }).click();
  await expect(page.getByRole("img", { name: "What Parallel makes" })).toBeVisible();
  await typeOver(page.getByLabel("Search the help"), "tangent arc");
  await expect(page.getByRole("img", { name: "What Tangent arc makes" })).toBeVisible();
  await expect(page.getByRole("img", { name: "What Parallel makes" })).toBeHidden();
});

test("a sheet of 20 000 curves opens, is painted, selected from and edited, and what is derived keeps up", async ({
  page,
}) => {
  const bench = await open(page);
  const { text, nextId } = sheet(20_000);
  await page.goto("/jobs");
  await storeDrawing(page, "demo-0412", text, nextId);
  await bench.open("Strainer cover plate");
  await expect(bench.pieces).toContainText("2223 contours, 2223 holes", { timeout: 30_000 });
  const ink = async (): Promise<number> => {
    const image = (await bench.board.screenshot()).toString("base64");
    return page.evaluate(async (data) => {
      const bitmap = await createImageBitmap(new Blob([Uint8Array.from(atob(data), (one) => one.charCodeAt(0))]));
      const context = new OffscreenCanvas(bitmap.width, bitmap.height).getContext("2d")!;
      context.drawImage(bitmap, 0, 0);
      const { data: bytes } = context.getImageData(0, 0, bitmap.width, bitmap.height);
      let dark = 0;
      for (let i = 0; i < bytes.length; i += 4) if (bytes[i]! < 120) dark += 1;
      return dark;
    }, image);
  };
  await expect.poll(ink, { timeout: 20_000 }).toBeGreaterThan(10_000);
  for (const key of ["KeyV", "KeyV"]) await page.keyboard.press(key);
  for (let i = 0; i < 14; i++) {
    const at = await bench.at({ x: 40, y: 40 });
    await page.mouse.move(at.x, at.y);
    await page.mouse.wheel(0, -240);
    await page.waitForTimeout(30);
  }
  await bench.click({ x: 43, y: 40 }); // the hole of the part in the second row and column: R 3
  await expect(page.getByRole("region", { name: "Selected" })).toContainText("1 circle");
  await page.keyboard.press("Delete");
  await expect(bench.pieces).toContainText("2223 contours, 2222 holes", { timeout: 20_000 });
  await page.keyboard.press("Control+z");
  await expect(bench.pieces).toContainText("2223 contours, 2223 holes", { timeout: 20_000 });
});
