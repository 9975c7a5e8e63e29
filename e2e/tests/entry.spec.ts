import { expect, test, type Page } from "@playwright/test";
import { REGISTRY, typedParts, startTool } from "@ash-edge/tools";
import { Bench } from "../support/bench.ts";
import { measured, newJob, rowsOf, type Row } from "../support/drawn.ts";

/** How the keys come: at once, as fast as a hand can, slowly, and each while the page is busy for 150 ms. */
const PACES = [
  ["at once", 0, false],
  ["fast", 15, false],
  ["slowly", 60, false],
  ["while the page is busy", 0, true],
] as const;

const emptyJob = async (page: Page): Promise<Bench> => {
  const bench = new Bench(page);
  await newJob(bench, "0499");
  return bench;
};
const keepBusy = (page: Page): Promise<void> =>
  page.evaluate(() => {
    const block = (): void => {
      const until = performance.now() + 150;
      while (performance.now() < until);
    };
    for (const type of ["keydown", "focusin", "pointerup"])
      window.addEventListener(type, () => setTimeout(block, 0), { capture: true });
  });

/** Types keys by name or text, all in one go: `26d Enter Tab 80`. */
const press = async (page: Page, keys: string, delay: number): Promise<void> => {
  for (const word of keys.split(" "))
    if (/^(Enter|Tab|Shift\+Tab|Escape|Space|Backspace|Delete)$/.test(word)) await page.keyboard.press(word, { delay });
    else await page.keyboard.type(word, { delay });
};
const shapes = async (bench: Bench): Promise<readonly Row[]> =>
  (await rowsOf(bench)).filter(({ kind }) => kind !== "endless");
const circleAt = (x: number, y: number, radius: number) => ({ kind: "circle", centre: { x, y }, radius });

for (const [pace, delay, busy] of PACES)
  test(`a size and a point by keys alone, ${pace}: each number where it was meant`, async ({ page }) => {
    const bench = await emptyJob(page);
    if (busy) await keepBusy(page);
    // Circle: after Enter the point is lit, Tab goes into it; Tab alone goes from the size to the point
    for (const keys of [
      "26d Enter Tab 80 Tab 75 Enter Enter",
      "26d Tab 80 Tab 75 Enter Enter",
      "26d Enter 80;75 Enter",
    ]) {
      await bench.tool("EE", "Circle");
      await press(page, keys, delay);
      await expect.poll(async () => (await shapes(bench)).at(-1)).toMatchObject(circleAt(80, 75, 13));
      await press(page, "Escape Escape", delay);
      await page.keyboard.press("Control+z");
      await expect(bench.board).toHaveAttribute("data-revision", "0");
    }
    // Hole: the same; Ring: two sizes first
    await bench.tool("XX", "Hole");
    await press(page, "15 Enter Tab -20 Tab 30 Enter Enter", delay);
    await expect.poll(async () => (await shapes(bench)).at(-1)).toMatchObject(circleAt(-20, 30, 7.5));
    await press(page, "Escape Escape", delay);
    await bench.tool("TR", "Ring");
    await press(page, "60 Enter 40 Enter Tab 10 Tab 20 Enter Enter", delay);
    await expect.poll(async () => (await shapes(bench)).length).toBe(3);
    expect((await shapes(bench)).slice(-2)).toMatchObject([circleAt(10, 20, 30), circleAt(10, 20, 20)]);
    await press(page, "Escape Escape", delay);
    // Rectangle: width, height, then on to its corner's point; the radius stays empty
    await bench.tool("TT", "Rectangle");
    await press(page, "80 Tab 50 Tab", delay);
    for (let n = 0; n < 6 && !(await bench.blank("x").isVisible()); n++) await page.keyboard.press("Tab");
    await press(page, "100 Tab -5 Enter Enter", delay);
    await expect.poll(async () => (await shapes(bench)).length).toBe(4);
    const corners = (await shapes(bench)).at(-1)!.vertices!.map(({ at }) => at);
    const across = (of: "x" | "y"): number =>
      Math.max(...corners.map((p) => p[of])) - Math.min(...corners.map((p) => p[of]));
    expect([across("x"), across("y")]).toEqual([80, 50]);
    await press(page, "Escape Escape", delay);
    // Line: length and angle, then where from
    await bench.tool("WQ", "Line");
    await press(page, "40 Enter 90 Enter 7;8 Enter", delay);
    await expect(bench.blank("length")).toHaveValue("40");
    await press(page, "Enter", delay);
    await expect
      .poll(async () => (await shapes(bench)).at(-1))
      .toMatchObject({ a: { x: 7, y: 8 }, b: { x: 7, y: 48 } });
    await press(page, "Escape Escape", delay);
    // Slot: its width and length typed, then a point by the mouse on its chip
    await bench.tool("TW", "Slot");
    await press(page, "8 Enter", delay);
    await page.getByRole("textbox", { name: "centre", exact: true }).click();
    await press(page, "5 Tab 6 Enter Enter 25;6 Enter", delay);
    await expect.poll(async () => (await shapes(bench)).length).toBe(6);
    const slot = measured((await shapes(bench)).at(-1)!.vertices!);
    expect(slot.area).toBeCloseTo(8 * 20 + Math.PI * 16, 9);
    await expect(bench.blank("width")).toHaveValue("8");
  });

test("what opens and closes never touches an entry: popovers, menus, choices", async ({ page }) => {
  const bench = await emptyJob(page);
  await keepBusy(page);
  const made = async (): Promise<void> => {
    await expect(bench.blank("diameter")).toHaveValue("26d");
    await page.keyboard.press("Enter");
    await bench.click({ x: 10, y: 10 });
    await expect.poll(async () => (await shapes(bench)).at(-1)?.radius).toBe(13);
    await page.keyboard.press("Escape");
    await page.keyboard.press("Escape");
    await page.keyboard.press("Control+z");
  };
  for (const name of ["Hold", "Snaps"]) {
    await bench.tool("EE", "Circle");
    await page.getByRole("button", { name, exact: true }).click();
    await expect(page.getByRole("dialog", { name })).toBeVisible();
    await page.keyboard.type("26d");
    await expect(page.getByRole("dialog", { name })).toBeHidden();
    await made();
  }
  // a menu that closes while it is typed gives the focus away late
  await bench.tool("EE", "Circle");
  await bench.point({ x: 30, y: 30 });
  await page.mouse.down({ button: "right" });
  await page.mouse.up({ button: "right" });
  await expect(page.getByRole("menu")).toBeVisible();
  await page.keyboard.type("26d");
  await expect(page.getByRole("menu")).toBeHidden();
  await made();
  // the focus taken away in the middle of an entry
  await bench.tool("EE", "Circle");
  await page.keyboard.type("2");
  await page.evaluate(() => (document.activeElement as HTMLElement).blur());
  await page.keyboard.type("6d");
  await made();
  // a choice clicked by the mouse leaves Space and Enter with the board
  await bench.tool("RQ", "Tangent arc");
  await bench.sentence("Tangent arc").getByRole("radio").last().click();
  await page.keyboard.type("12");
  await page.keyboard.press("Enter");
  await expect(bench.sentence("Tangent arc").locator("input").first()).toHaveValue("12");
});

test("callouts clicked one after another fill width and height; the row of a filled blank says so", async ({
  page,
}) => {
  const bench = await emptyJob(page);
  for (const text of ["80 wide", "50 high", "R 4 corners", "12 deep"]) {
    await page.getByRole("textbox", { name: "Write a callout" }).click();
    await page.keyboard.type(text);
    await page.keyboard.press("Enter");
  }
  await page.keyboard.press("Escape");
  await bench.tool("TT", "Rectangle");
  await bench.callout("80").click();
  await bench.callout("50").click();
  await expect(bench.blank("width")).toHaveValue("80");
  await expect(bench.blank("height")).toHaveValue("50");
  await bench.callout("12").click();
  await expect(page.getByRole("alert")).toContainText("are filled. Light the one that it should replace.");
  await expect(bench.blank("width")).toHaveValue("80");
  await bench.blank("height").click();
  await bench.callout("12").click();
  await expect(bench.blank("height")).toHaveValue("12");
});

test("every tool's first blank takes the digits typed once the tool is taken", async ({ page }) => {
  const bench = await emptyJob(page);
  const wrong: string[] = [];
  for (const tool of REGISTRY) {
    if (tool.kind !== "tool") continue;
    const [first] = typedParts(tool, startTool(tool).choices);
    if (!first || first.kind === "thread") continue;
    await bench.tool(tool.bank.slice(3) + tool.place.slice(3), tool.name);
    await page.keyboard.type("7");
    const shown = await bench
      .sentence(tool.name)
      .locator("input[data-blank]")
      .evaluateAll((inputs) =>
        inputs.map((input) => `${(input as HTMLElement).dataset.blank}=${(input as HTMLInputElement).value}`),
      );
    if (!shown.includes(`${first.name}=7`)) wrong.push(`${tool.name}: ${shown.join(" ")}`);
    await press(page, "Escape Escape Escape Escape", 0);
  }
  expect(wrong).toEqual([]);
});

test("the ledger reads a line before Enter, asks where it can be two, takes many pasted at once", async ({ page }) => {
  const bench = await emptyJob(page);
  const line = page.getByRole("textbox", { name: "Write a callout" });
  const reading = page.getByRole("status", { name: "Reading" });
  const write = async (text: string, read: string): Promise<void> => {
    await line.click();
    await page.keyboard.type(text);
    await expect(reading).toContainText(read);
    await page.keyboard.press("Enter");
    await expect(line).toHaveValue("");
  };
  await write("25 +0.1 key", "= length 25 +0.1 −0 “key”");
  await write("6x Ø9 holes", "= diameter 6 × Ø 9 “holes”");
  await write("slot 8 x 30", "= length 8 “slot width” and length 30 “slot length”");
  await write("17.3..17.7 core", "17.3..17.7");
  await expect(bench.callout("17.3..17.7")).toBeVisible();
  // a thousand or one and a quarter: both stand there, one key takes one
  await line.click();
  await page.keyboard.type("1,250 long");
  await page.keyboard.press("Enter");
  await expect(line).toHaveValue("1,250 long");
  await page.keyboard.press("ArrowDown");
  await expect(bench.callout("1.25")).toContainText("long");
  // the thickness belongs to the job and is asked for
  await write("6 thk", "the job’s thickness, 6 mm");
  await page.getByRole("group", { name: "Thickness" }).getByRole("button", { name: "Put it" }).click();
  await expect(page.getByText("thickness 6 mm")).toBeVisible();

  await line.click();
  await page.evaluate(async () => {
    const data = new DataTransfer();
    data.setData("text", "40 c/c\nno number here\n2 x 45° chamfer\n26 bore 30 deep");
    document.activeElement!.dispatchEvent(
      new ClipboardEvent("paste", { clipboardData: data, bubbles: true, cancelable: true }),
    );
  });
  const pasted = page.getByRole("group", { name: "Pasted lines" });
  await expect(pasted).toContainText("= centres 40");
  await expect(pasted).toContainText("= chamfer 2 × 45°");
  await expect(pasted).toContainText("Look at it");
  const before = await bench.revision();
  await pasted.getByRole("button", { name: "Write 3 of 4" }).click();
  expect(await bench.revision()).toBe(before + 1);
  await expect(pasted.getByRole("textbox")).toHaveCount(1);
  await pasted.getByRole("textbox").click();
  await page.keyboard.press("Control+A");
  await page.keyboard.type("R3 all corners");
  await pasted.getByRole("button", { name: "Write 1 of 1" }).click();
  await expect(pasted).toBeHidden();
  await expect(bench.callout("R 3")).toContainText("all corners");
});

test("a number that can be read two ways is asked for in a blank too, and feet are read as shops write them", async ({
  page,
}) => {
  const bench = await emptyJob(page);
  await bench.tool("TT", "Rectangle");
  await page.keyboard.type("1,250");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("alert")).toContainText("can be read two ways: 1250 or 1.250?");
  await page.keyboard.press("ArrowUp");
  await expect(bench.blank("width")).toHaveValue("1250");
  await page.keyboard.type("3'-6 1/2\"");
  await expect(bench.sentence("Rectangle")).toContainText("= 1079.5 mm");
  await page.keyboard.press("Tab");
  await expect(bench.blank("height")).toHaveValue("3'-6 1/2\"");
});

test("a number that one callout calls is tied to it with a key; x and y are taken of what is picked", async ({
  page,
}) => {
  const bench = await emptyJob(page);
  for (const text of ["80 wide", "50 high", "50 deep"]) {
    await page.getByRole("textbox", { name: "Write a callout" }).click();
    await page.keyboard.type(text);
    await page.keyboard.press("Enter");
  }
  await page.keyboard.press("Escape");
  await bench.tool("TT", "Rectangle");
  await page.keyboard.type("80");
  await expect(page.getByRole("button", { name: "Tie it to 80 wide" })).toBeVisible();
  await page.keyboard.press("ArrowDown");
  await page.keyboard.type("50");
  await expect(page.getByRole("button", { name: /^Tie it to/ })).toHaveCount(0); // two call it
  await press(page, "Enter 20;10 Enter", 15);
  await expect.poll(async () => (await shapes(bench)).length).toBe(1);
  await expect(bench.callout("80")).toContainText("true");
  await page.keyboard.press("Escape");
  await page.keyboard.press("Escape");
  // a hole straight above the rectangle's right end: its x by Ctrl+click, its y typed
  await bench.tool("XX", "Hole");
  await press(page, "9 Enter Tab", 15);
  await bench.click({ x: 100, y: 10 }, ["Control"]);
  await expect(page.getByLabel("x", { exact: true })).toHaveValue("100");
  await press(page, "90 Enter Enter", 15);
  await expect.poll(async () => (await shapes(bench)).at(-1)).toMatchObject(circleAt(100, 90, 4.5));
});
