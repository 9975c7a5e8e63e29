import { expect, test, type Page } from "@playwright/test";
import { putRecords } from "../support/storedJob.ts";
import { Bench, typeOver } from "../support/bench.ts";
import { sketchedOnly } from "../support/demo.ts";
import { drawRockerPlate, D } from "../support/rockerPlate.ts";

type Row = { readonly kind: string; readonly radius?: number; readonly centre?: { x: number; y: number } };

const open = async (page: Page, job = "Rocker plate"): Promise<Bench> => {
  const bench = new Bench(page);
  await bench.open(job);
  return bench;
};
const circles = async (bench: Bench): Promise<readonly Row[]> =>
  (JSON.parse(await bench.content()) as { entity: Row[] }).entity.filter(({ kind }) => kind === "circle");

test("a diameter typed with its mark, and typed with Ø lit, gives the same circle", async ({ page }) => {
  const bench = await open(page);
  await bench.tool("EE", "Circle");
  await page.keyboard.press("Backquote"); // R is lit now; the mark in the text wins
  await bench.type("1-3/16d");
  await bench.click({ x: 0.02, y: 0.02 });
  await expect(page.getByRole("radio", { name: "Ø" })).toBeChecked();
  await page.keyboard.press("Delete");
  await bench.type("1-3/16");
  await bench.click({ x: 0.02, y: 0.02 });
  const made = await circles(bench);
  expect(made.map(({ radius, centre }) => ({ radius, centre }))).toEqual(
    Array(2).fill({ radius: 1.1875 / 2, centre: { x: 0, y: 0 } }),
  );
});

test("a click never loses a typed value and makes nothing by it alone", async ({ page }) => {
  const bench = await open(page);
  await bench.tool("QQ", "Parallel");
  await bench.type("8");
  await bench.click({ x: 4, y: 1.5 });
  await expect(bench.blank("distance")).toHaveValue("8");
  await expect(page.getByLabel("held")).toBeVisible();
  expect(await bench.revision()).toBe(0);
  // picked away from the pointer's side: what is typed wins over the pointer
  await bench.click({ x: 4, y: 0 });
  await bench.click({ x: 4, y: 0.7 });
  expect(JSON.parse(await bench.content()).entity.at(-1)).toMatchObject({
    kind: "endless",
    through: { x: 0, y: 8 },
    angle: 0,
  });
  await expect(bench.blank("distance")).toHaveValue("8");
});

test("a number that the sketch calls as the other size is said before the click", async ({ page }) => {
  const bench = await open(page);
  await bench.tool("EE", "Circle");
  await page.getByRole("radio", { name: "R", exact: true }).click();
  await bench.type("1-3/16");
  await expect(page.getByText("The sketch calls Ø 1 3/16 for the big hole, not R 1 3/16.")).toBeVisible();
  await page.keyboard.press("Escape");
  await expect(page.getByText("The sketch calls")).toBeHidden();
  expect(await bench.revision()).toBe(0);
});

test("unreadable and impossible values are refused in a sentence, the drawing untouched, the text kept", async ({
  page,
}) => {
  const bench = await open(page);
  await bench.tool("EE", "Circle");
  await bench.type("1-3/");
  await bench.click({ x: 2, y: 1 });
  await expect(page.getByRole("alert")).toContainText("“1-3/” stops too early");
  await expect(bench.blank("diameter")).toHaveValue("1-3/");
  expect(await bench.revision()).toBe(0);
  await page.keyboard.press("Escape");

  await bench.tool("QQ", "Parallel");
  await bench.type("5");
  await bench.click({ x: 0, y: 2 });
  await bench.click({ x: 1, y: 2 });
  await bench.tool("EE", "Circle");
  await bench.type("2-1/4");
  await bench.click({ x: 0, y: 0 });
  await bench.tool("EE", "Circle");
  await bench.type("1-1/2");
  await bench.click({ x: 5.01, y: 0.01 });
  // apart by 5 - 1.125 - 0.75: no circle below half of that touches both
  await bench.tool("RQ", "Tangent arc");
  await bench.type("1.5");
  await page.keyboard.press("Enter");
  await bench.click({ x: 0.8, y: 0.79 });
  await bench.click({ x: 4.4, y: 0.45 });
  await expect(page.getByRole("alert")).toContainText("R 1 9/16 in is the smallest that works");
  expect(await bench.revision()).toBe(3);
  await page.keyboard.press("Escape");
  await page.keyboard.press("Escape");

  await bench.tool("RR", "Tangent line");
  await bench.click({ x: 0.4, y: 0.3 });
  await bench.click({ x: 1.125, y: 0.02 });
  await expect(page.getByRole("alert")).toContainText("The point lies inside the circle");
  expect(await bench.revision()).toBe(3);
});

test("Space takes the next solution and the count says which", async ({ page }) => {
  const bench = await open(page);
  await bench.tool("EE", "Circle");
  await bench.type("1");
  await bench.click({ x: 0, y: 0 });
  await bench.click({ x: 4, y: 0 });
  await bench.tool("RR", "Tangent line");
  await bench.click({ x: 0.1, y: 0.49 });
  await bench.point({ x: 4.1, y: 0.49 });
  await expect(page.getByText("1 of 4 · Space for the next")).toBeVisible();
  for (const which of [2, 3, 4, 1, 2]) {
    await page.keyboard.press("Space");
    await expect(page.getByText(`${which} of 4`)).toBeVisible();
  }
  await page.mouse.down();
  await page.mouse.up();
  const made = JSON.parse(await bench.content()).entity.at(-1) as {
    a: { x: number; y: number };
    b: { x: number; y: number };
  };
  // the second nearest is a crossed one: it ends on the other side of the centre line
  expect(Math.sign(made.a.y)).toBe(-Math.sign(made.b.y));
});

test("Backspace, Esc and undo take back one thing at a time", async ({ page }) => {
  const bench = await open(page);
  await bench.tool("WQ", "Line");
  await bench.click({ x: 1, y: 1 });
  await bench.type("2");
  await page.keyboard.press("Tab");
  await bench.type("90");
  await page.keyboard.press("Enter");
  await page.keyboard.press("Enter"); // typed values are waiting: Enter makes the piece
  await expect(bench.board).toHaveAttribute("data-revision", "1");
  const line = JSON.parse(await bench.content()).entity.at(-1) as {
    a: { x: number; y: number };
    b: { x: number; y: number };
  };
  expect(line.b.x - line.a.x).toBe(0);
  expect(line.b.y - line.a.y).toBeCloseTo(2, 12);
  await expect(bench.blank("length")).toHaveValue(""); // a length is released with its piece
  await bench.click({ x: 3, y: 2 });
  await expect(bench.board).toHaveAttribute("data-revision", "2"); // chained from the last end
  await bench.click({ x: 4, y: 2 });
  await expect(bench.board).toHaveAttribute("data-revision", "3");
  await page.keyboard.press("Backspace"); // the last piece of the run; the next one starts where it did
  await expect(bench.board).toHaveAttribute("data-revision", "2");
  await page.keyboard.press("Control+z"); // the running start point first
  await expect(bench.board).toHaveAttribute("data-revision", "2");
  await page.keyboard.press("Control+z");
  await expect(bench.board).toHaveAttribute("data-revision", "1");
  await page.keyboard.press("Escape");
  await expect(bench.sentence("Select")).toBeVisible();
  await page.keyboard.press("Enter"); // the last tool again
  await expect(bench.sentence("Line")).toBeVisible();
});

test("Shift holds the direction, Ctrl+click takes a value, Alt lets go of snaps", async ({ page }) => {
  const bench = await open(page);
  await bench.tool("WQ", "Line");
  await bench.click({ x: 1, y: 1 });
  await bench.point({ x: 1.05, y: 0.04 });
  await expect(page.getByRole("status", { name: "Read-out" })).toContainText("snap perpendicular");
  await page.keyboard.down("Shift");
  await bench.point({ x: 3, y: 1.3 });
  await expect(page.getByRole("status", { name: "Read-out" })).toContainText("hold level");
  await page.mouse.down();
  await page.mouse.up();
  await page.keyboard.up("Shift");
  const line = JSON.parse(await bench.content()).entity.at(-1) as {
    a: { x: number; y: number };
    b: { x: number; y: number };
  };
  expect(line.b.y).toBe(line.a.y);
  await page.keyboard.press("Escape");
  await page.keyboard.press("Escape");

  await bench.tool("EE", "Circle");
  await bench.type("1-1/2");
  await bench.click({ x: D, y: 0 });
  await bench.tool("EE", "Circle");
  await bench.click({ x: D + 0.75, y: 0.02 }, ["Control"]);
  await expect(bench.blank("diameter")).toHaveValue("1 1/2");
  await page.keyboard.down("Alt");
  await bench.point({ x: 0.03, y: 0.03 });
  await expect(page.getByRole("status", { name: "Read-out" })).toContainText("snap none");
  await page.keyboard.up("Alt");
  await bench.point({ x: 0.04, y: 0.03 });
  await expect(page.getByRole("status", { name: "Read-out" })).toContainText("snap crossing");
});

test("a measured distance answers the callout that is clicked", async ({ page }) => {
  const bench = await open(page);
  await bench.tool("EE", "Circle");
  await bench.type("1");
  await bench.click({ x: 0.01, y: 0.01 });
  await bench.tool("QQ", "Parallel");
  await bench.type("2-1/2");
  await bench.click({ x: 0, y: 2 });
  await bench.click({ x: 1, y: 2 });
  await bench.tool("EE", "Circle");
  await bench.type("3/8");
  await bench.click({ x: 2.49, y: 0.01 });
  await bench.tool("CC", "Distance");
  await bench.click({ x: 0.01, y: -0.01 });
  await bench.click({ x: 2.51, y: 0.01 });
  await expect(page.getByText("Distance 2 1/2 in")).toBeVisible();
  await bench.callout("2 1/2 tapped hole").click();
  await expect(bench.callout("2 1/2 tapped hole")).toContainText("true");
});

test("a called length stays what it was through a split; trimmed off it is said, and put back by a click", async ({
  page,
}) => {
  const bench = await open(page);
  const called = bench.callout("6 5/8 boss centres");
  await bench.tool("WQ", "Line");
  await called.click();
  await bench.click({ x: 0.5, y: 3 });
  await bench.click({ x: 9, y: 3 });
  await expect(called).toContainText("true");
  await page.keyboard.press("Escape");
  await bench.click({ x: 4, y: 2.5 });
  await bench.type("1");
  await bench.click({ x: 4, y: 4 });
  await page.keyboard.press("Escape");
  await page.keyboard.press("Escape");
  await bench.tool("AE", "Split");
  await bench.click({ x: 2.2, y: 3 });
  await expect(called).toContainText("true");
  await bench.tool("AA", "Trim");
  await bench.click({ x: 6.2, y: 3 });
  await expect(page.getByText("Not placed any more: 6 5/8 boss centres")).toBeVisible();
  await expect(called).toContainText("not placed");
  await page.getByRole("button", { name: /^Put it on ≈ 3\.5/ }).click();
  await expect(called).toContainText("off by −3.12");
  await page.keyboard.press("Control+z");
  await page.keyboard.press("Control+z");
  await expect(called).toContainText("true");
  await bench.reload();
  await expect(called).toContainText("true");
});

test("what blocks a release is said and can be gone to", async ({ page }) => {
  const bench = await open(page);
  await page.getByRole("navigation", { name: "Steps" }).getByRole("button", { name: "Release" }).click();
  await expect(page.getByText("Nothing is closed yet.")).toBeVisible();
  await expect(page.getByRole("button", { name: "Write the DXF" })).toBeDisabled();
  await page.getByRole("link", { name: "Bench", exact: true }).click();
  await bench.ready();
  await bench.tool("EE", "Circle");
  await bench.type("2");
  await bench.click({ x: 0, y: 0 });
  await bench.click({ x: 1.5, y: 0.3 });
  await bench.tool("WQ", "Line");
  await bench.click({ x: 4, y: 1 });
  await bench.click({ x: 5, y: 1.5 });
  await bench.saved();
  await page.getByRole("navigation", { name: "Steps" }).getByRole("button", { name: "Release" }).click();
  const checks = page.getByRole("region", { name: "Checks" });
  await expect(checks.getByText("A chain is open")).toBeVisible();
  await expect(checks.getByText("Two contours cross here")).toHaveCount(2);
  await checks
    .getByRole("listitem")
    .filter({ hasText: "A chain is open" })
    .getByRole("button", { name: "Go to it" })
    .click();
  await expect(page.getByText("1 line selected")).toBeVisible();
  await page.keyboard.press("Delete");
  await expect(bench.pieces).not.toContainText("open");
});

test("the wheel zooms at the pointer, the middle button pans, Fit brings all back, right click offers", async ({
  page,
}) => {
  const bench = await open(page);
  await bench.tool("EE", "Circle");
  await bench.type("2");
  await bench.click({ x: 3, y: 1 });
  const exact = await bench.at({ x: 3, y: 1 });
  const here = { x: Math.round(exact.x), y: Math.round(exact.y) }; // the wheel's events come in whole pixels
  const under = await bench.placeAt(here);
  await page.mouse.move(here.x, here.y);
  await page.mouse.wheel(0, -400);
  await expect(async () =>
    expect(Number((await bench.board.getAttribute("data-view"))!.split(" ")[0])).toBeGreaterThan(90),
  ).toPass();
  const still = await bench.at(under);
  expect(Math.hypot(still.x - here.x, still.y - here.y)).toBeLessThan(1e-6);
  await page.mouse.down({ button: "middle" });
  await page.mouse.move(here.x + 60, here.y - 40);
  await page.mouse.up({ button: "middle" });
  const moved = await bench.at(under);
  expect([Math.round(moved.x - here.x), Math.round(moved.y - here.y)]).toEqual([60, -40]);
  for (const key of ["KeyV", "KeyV"]) await page.keyboard.press(key);
  const box = (await bench.board.boundingBox())!;
  await expect(async () => {
    const centre = await bench.at({ x: 3, y: 1 });
    expect(Math.hypot(centre.x - box.x - box.width / 2, centre.y - box.y - box.height / 2)).toBeLessThan(1);
  }).toPass();
  await page.keyboard.press("Escape");
  const rim = await bench.at({ x: 4, y: 1 });
  await page.mouse.move(rim.x, rim.y);
  await page.mouse.click(rim.x, rim.y, { button: "right" });
  await page.getByRole("menuitem", { name: "Delete circle Ø 2" }).click();
  await expect(bench.pieces).toContainText("nothing to cut yet");
  await page.keyboard.press("Control+z");
  await expect(bench.pieces).toContainText("1 contour");
});

test("the other demo jobs open with their sketch and their callouts, not drawn", async ({ page }) => {
  const bench = await open(page, "Hearth stone");
  await expect(page.getByRole("img", { name: /sketch of Hearth stone/ })).toBeVisible();
  await expect(page.getByRole("region", { name: "Ledger" })).toContainText("0 of 9 placed");
  await bench.open("Strainer cover plate");
  await expect(bench.callout("R 25 ring to boss")).toContainText("not placed");
});

test("the finder takes a tool by its name; a callout with no tool offers what fits it", async ({ page }) => {
  const bench = await open(page);
  await page.keyboard.press("Control+k");
  await typeOver(page.getByPlaceholder("Find a tool by its name"), "tangent l");
  await page.keyboard.press("Enter");
  await expect(bench.sentence("Tangent line")).toBeVisible();
  await page.keyboard.press("Escape");
  await bench.callout("R 14 belly").click();
  await page.getByRole("group", { name: "Tools for R 14" }).getByRole("button", { name: "Tangent arc" }).click();
  await expect(bench.blank("radius")).toHaveValue("14");
});

test("a job that does not exist, a job with a damaged record, and the rest still working", async ({ page }) => {
  const bench = await open(page);
  await sketchedOnly(page);
  await page.goto("/jobs");
  await expect(page.getByRole("link", { name: "Hearth stone" })).toBeVisible();
  await page.goto("/jobs/none");
  await expect(page.getByRole("heading", { name: "This job does not exist" })).toBeVisible();
  await putRecords(page, {
    jobs: [{ id: "demo-0412", unit: "furlong" }],
    snapshots: [{ job: "demo-0413", n: 0, text: "{", nextId: 1 }],
  });
  await page.goto("/jobs");
  await expect(page.getByText("This job’s record is damaged")).toBeVisible();
  const [raw] = await Promise.all([
    page.waitForEvent("download"),
    page.getByRole("button", { name: "Export raw" }).click(),
  ]);
  expect(raw.suggestedFilename()).toBe("demo-0412-raw.json");
  await page.getByRole("link", { name: "Hearth stone" }).click();
  await expect(page.getByRole("heading", { name: "This job can’t be opened" })).toBeVisible();
  await expect(page.getByRole("button", { name: "Export raw" })).toBeVisible();
  await page.getByRole("link", { name: "Show all jobs" }).click();
  await page.getByRole("link", { name: "Rocker plate" }).click();
  await expect(bench.board).toBeVisible();
});

test("a new job asks for what it needs and opens on an empty board", async ({ page }) => {
  await page.goto("/jobs");
  await page.getByRole("button", { name: "New job" }).click();
  const dialog = page.getByRole("dialog", { name: "New job" });
  await dialog.getByRole("button", { name: "Make the job" }).click();
  await expect(dialog.getByRole("alert")).toContainText("A job needs a name");
  await typeOver(dialog.getByLabel("Part"), "Test washer");
  await typeOver(dialog.getByLabel("Job number"), "0414");
  await dialog.getByRole("button", { name: "Make the job" }).click();
  await expect(dialog.getByRole("alert")).toContainText("There is a job 0414 already. 0419 is free.");
  await typeOver(dialog.getByLabel("Job number"), "0419");
  await dialog.getByRole("radio", { name: "in" }).click();
  await dialog.getByRole("button", { name: "Make the job" }).click();
  const bench = new Bench(page);
  await bench.ready();
  await expect(page.getByText("0419 Test washer")).toBeVisible();
  await bench.tool("EE", "Circle");
  await bench.type("10mm"); // the other unit, in place
  await bench.click({ x: 0, y: 0 });
  expect((await circles(bench))[0]!.radius).toBeCloseTo(10 / 25.4 / 2, 15);
  await page.goto("/jobs");
  await expect(page.getByRole("link", { name: "Test washer" })).toBeVisible();
});

test("panels and rows light what they speak of, and the drawn plate survives both themes", async ({ page }) => {
  const bench = await open(page);
  await drawRockerPlate(bench);
  await bench.pieces.getByRole("button", { name: /Outer contour/ }).click();
  await expect(page.getByText("1 contour selected")).toBeVisible();
  await page.getByRole("button", { name: "Evening theme" }).click();
  await expect(page.locator("html")).toHaveAttribute("data-theme", "evening");
  await page.reload();
  await expect(page.locator("html")).toHaveAttribute("data-theme", "evening");
});

test("a box encloses or touches, Space swaps that while it is drawn; a double click takes the whole chain", async ({
  page,
}) => {
  const bench = await open(page);
  await bench.tool("EE", "Circle");
  await bench.type("1");
  for (const x of [1, 3, 5]) await bench.click({ x, y: 1.5 });
  await bench.tool("WQ", "Line");
  for (const [x, y] of [
    [1, -1],
    [3, -1],
    [3, -2],
  ] as const)
    await bench.click({ x, y });
  await page.keyboard.press("Escape");
  await page.keyboard.press("Escape");
  const readOut = page.getByRole("status", { name: "Read-out" });
  const drag = async (
    from: { x: number; y: number },
    to: { x: number; y: number },
    middle: () => Promise<void> = async () => undefined,
  ): Promise<void> => {
    await bench.point(from);
    await page.mouse.down();
    await bench.point(to);
    await middle();
    await page.mouse.up();
  };
  await drag({ x: 0.2, y: 2.3 }, { x: 3, y: 0.8 });
  await expect(readOut).toContainText("1 circle selected");
  await drag({ x: 3, y: 0.8 }, { x: 0.2, y: 2.3 }); // the direction means nothing
  await expect(readOut).toContainText("1 circle selected");
  await drag({ x: 0.2, y: 2.3 }, { x: 3, y: 0.8 }, async () => page.keyboard.press("Space"));
  await expect(readOut).toContainText("2 circles selected");
  await expect(page.getByRole("radio", { name: "touches" })).toBeChecked();
  const corner = await bench.at({ x: 2, y: -1 });
  await page.mouse.dblclick(corner.x, corner.y);
  await expect(readOut).toContainText("2 lines selected");
  await page.getByRole("radio", { name: "same size" }).click();
  await bench.click({ x: 3.5, y: 1.5 });
  await expect(readOut).toContainText("3 circles selected");
  await page.keyboard.press("Delete");
  await expect(bench.pieces).toContainText("1 open chain");
});
