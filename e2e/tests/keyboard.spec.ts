import { expect, test } from "@playwright/test";
import { BANK_KEYS, BANKS } from "@ash-edge/tools";
import { Bench } from "../support/bench.ts";
import { D } from "../support/rockerPlate.ts";
import { contoursOf, newJob, rowsOf } from "../support/drawn.ts";

test("the rocker plate is drawn, joined and released by keys alone", async ({ page }) => {
  test.setTimeout(120_000);
  const bench = new Bench(page);
  await bench.open("Rocker plate");
  // from here on no mouse: a page that heard one would say so
  await page.evaluate(() => {
    for (const type of ["pointerdown", "pointermove", "click"])
      window.addEventListener(type, (event) => {
        if (event.isTrusted && (event as MouseEvent).detail !== 0) document.body.dataset.mouse = type;
      });
  });
  const { keyboard } = page;
  const press = async (...keys: readonly string[]): Promise<void> => {
    for (const key of keys) await keyboard.press(key);
  };
  const made = (revision: number) => expect(bench.board).toHaveAttribute("data-revision", String(revision));
  const said = page.getByRole("status").filter({ hasText: / of \d+: / });
  /** Page Down until what is said is what is meant; the order of what lies near is not the drafter's to know. */
  const goTo = async (words: RegExp): Promise<void> => {
    let last = "";
    for (let n = 0; n < 120; n++) {
      await press("PageDown");
      await expect.poll(async () => (await said.textContent()) ?? "").not.toBe(last);
      last = (await said.textContent()) ?? "";
      if (words.test(last)) return;
    }
    throw new Error(`nothing near is ${words}`);
  };

  const arrows = async (x: number, y: number): Promise<void> => {
    for (let n = 0; n < 80; n++) {
      const text = (await page.getByRole("status", { name: "Read-out" }).textContent())!;
      const [, nowX, nowY] = /x (?:≈ )?(-?[\d./ ]+?)y (?:≈ )?(-?[\d./ ]+?)snap/.exec(text)!;
      const value = (words: string): number =>
        words
          .trim()
          .split(" ")
          .reduce((sum, word) => {
            const [over, under] = word.split("/").map(Number);
            return sum + (under ? over! / under : over!);
          }, 0);
      const [dx, dy] = [x - value(nowX!), y - value(nowY!)];
      if (Math.hypot(dx, dy) < 0.12) return;
      const fine = Math.max(Math.abs(dx), Math.abs(dy)) < 0.5;
      const key =
        Math.abs(dx) > Math.abs(dy) ? (dx > 0 ? "ArrowRight" : "ArrowLeft") : dy > 0 ? "ArrowUp" : "ArrowDown";
      await press(fine ? `Shift+${key}` : key);
    }
    throw new Error(`the cursor does not come to ${x}, ${y}`);
  };

  // the upright layout line through the datum, and its parallel to the right
  await bench.tool("QQ", "Parallel");
  await keyboard.type("6-5/8");
  await press("Enter");
  await goTo(/layout line, at (x 0, y|datum)/);
  // along the line, away from the other one that it crosses, then picked
  await press("ArrowUp", "ArrowUp", "ArrowUp", "Enter");
  await press("ArrowRight", "ArrowRight", "ArrowRight", "Enter");
  await made(1);

  // circles on typed points
  await bench.tool("EE", "Circle");
  for (const [size, at] of [
    ["2-1/4d", "0;0"],
    ["1-3/16d", "0;0"],
    ["1-1/2d", `${D};0`],
    ["5/8d", `${D};0`],
  ] as const) {
    await keyboard.type(size);
    await press("Enter");
    await keyboard.type(at);
    await press("Enter");
  }
  await made(5);

  // the tangent line above and the arc below, on the quarters of the bosses
  await bench.tool("RR", "Tangent line");
  await goTo(/ of .*, at x 0, y 1 1\/8\./);
  await press("Enter");
  await goTo(/ of .*, at x 6 5\/8, y 3\/4\./);
  await press("Enter");
  await made(6);
  await bench.tool("RQ", "Tangent arc");
  await keyboard.type("14r");
  await press("Enter");
  await arrows(-0.3, -1.08);
  await press("Enter");
  await arrows(D + 0.25, -0.7);
  await press("Enter");
  await made(7);

  // what lies inside goes: the cursor in the middle of the plate, the nearest place of each boss
  await bench.tool("AA", "Trim");
  await press("Backquote"); // all but layout
  await arrows(1.04, 0.44);
  await press("Enter");
  await made(8);
  await arrows(D - 0.69, 0.29);
  await press("Enter");
  await made(9);
  await press("Escape", "Escape", "KeyQ", "KeyZ");
  await made(10);
  await bench.tool("GG", "Join");
  await press("Control+Enter");
  await made(11);
  const [outline] = contoursOf(await rowsOf(bench));
  // the same as drawn with the mouse: 4 pieces, two arcs, a line and R 14
  expect(outline!.row.vertices).toHaveLength(4);

  // released: the page by its keys, the button by Tab
  await press("Escape", "Escape", "KeyB", "KeyX");
  const write = page.getByRole("button", { name: /^Write the DXF/ });
  await expect(write).toBeEnabled();
  for (let n = 0; n < 60 && !(await write.evaluate((button) => button === document.activeElement)); n++)
    await press("Tab");
  const [download] = await Promise.all([page.waitForEvent("download"), press("Enter")]);
  expect(download.suggestedFilename()).toMatch(/\.dxf$/);
  expect(await page.evaluate(() => document.body.dataset.mouse)).toBeUndefined();
});

test("no name in the key grid or in a bank is cut off", async ({ page }) => {
  const bench = new Bench(page);
  await newJob(bench, "7302");
  const cutOff = (): Promise<(string | null)[]> =>
    page
      .locator('[data-region="Key grid"] button, [role="group"][aria-label$=" tools"] button')
      .evaluateAll((cells) =>
        cells
          .filter((cell) => cell.scrollWidth > cell.clientWidth || cell.scrollHeight > cell.clientHeight)
          .map((cell) => cell.textContent),
      );
  expect.soft(await cutOff()).toEqual([]);
  for (const bank of BANK_KEYS) {
    await page.keyboard.press(bank);
    await expect(page.getByRole("group", { name: `${BANKS[bank]} tools` })).toBeVisible();
    expect.soft(await cutOff(), BANKS[bank]).toEqual([]);
    await page.keyboard.press("Escape");
  }
});
