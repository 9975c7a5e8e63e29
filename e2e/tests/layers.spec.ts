import { expect, test, type Locator } from "@playwright/test";
import { entitiesOf, layersOf } from "@ash-edge/core/drawing";
import { drawingOf } from "../support/annotated.ts";
import { plateWith } from "../support/plate.ts";
import { openDrawn } from "../support/storedJob.ts";

test("a contour's role is chosen, what a new one changes is said; layers are dragged onto, coloured, ordered", async ({
  page,
}) => {
  const holes = [20, 55, 90].map((x) => [x, 25, 5] as const);
  const bench = await openDrawn(page, plateWith([110, 50], holes));
  const layers = page.getByRole("region", { name: "Layers" });
  const names = () =>
    layers.getByRole("textbox").evaluateAll((all) => all.map((one) => (one as HTMLInputElement).value));
  const menu = async (layer: string, ...items: readonly (string | RegExp)[]): Promise<void> => {
    await layers.getByRole("button", { name: `More for ${layer}` }).click();
    for (const name of items)
      await page.getByRole("menuitem", { name }).or(page.getByRole("menuitemradio", { name })).click();
  };
  const layerOf = async (kind: string): Promise<string | undefined> => {
    const drawing = await drawingOf(bench);
    const entity = [...entitiesOf(drawing)].find((one) => one.kind === kind)!;
    return layersOf(drawing).find(({ id }) => id === entity.layer)?.name;
  };
  // a contour's role is chosen where it is listed
  await bench.pieces.getByRole("button", { name: /^Hole/ }).first().click();
  await bench.pieces.getByRole("combobox", { name: "role" }).selectOption("outside");
  await expect.poll(names).toContain("Outside");
  expect(await layerOf("circle")).toBe("Outside");
  await page.keyboard.press("Control+z");
  await page.keyboard.press("Escape");
  // a frame round everything makes discs of holes: said, and the frame put on the marks
  await bench.tool("TT", "Rectangle");
  await bench.click({ x: -15, y: -15 });
  await bench.click({ x: 125, y: 70 });
  await page.keyboard.press("Escape");
  await page.keyboard.press("Escape");
  const said = page.getByText(/holes? became (a disc|discs), 1 outer contour became an inner one/);
  await expect(said).toBeVisible();
  // the note that says so gives way to a pointer with a tool in hand, and takes clicks again without one
  await bench.tool("EE", "Circle");
  // a note that still slides in is met by the pointer as it goes on
  let moved = 0;
  const under = async (): Promise<boolean> => {
    const note = (await said.boundingBox())!;
    const over = [note.x + 20 + (moved++ % 2), note.y + note.height / 2] as const;
    await page.mouse.move(...over);
    return page.evaluate(([x, y]) => Boolean(document.elementFromPoint(x, y)?.closest('[data-region="Board"]')), over);
  };
  await expect.poll(under).toBe(true);
  await page.keyboard.press("Escape");
  await expect.poll(under).toBe(false);
  await page.getByRole("button", { name: "Put the new one on Marks" }).click();
  await expect(bench.pieces.getByRole("button", { name: /^Hole/ }).first()).toBeVisible();
  await expect(bench.pieces.getByRole("button", { name: /^Mark/ })).toHaveCount(1);
  // pieces are dragged from their list onto a layer, and what is selected by its head
  await layers.getByRole("button", { name: "New layer" }).click();
  const drag = async (from: Locator, layer: string): Promise<void> => {
    await from.scrollIntoViewIfNeeded();
    const [a, b] = [(await from.boundingBox())!, (await layers.getByLabel(`Name of ${layer}`).boundingBox())!];
    await page.mouse.move(a.x + 40, a.y + 10);
    await page.mouse.down();
    await page.mouse.move(a.x + 60, a.y + 40, { steps: 3 });
    await page.mouse.move(b.x + 10, b.y + 8, { steps: 4 });
    await page.mouse.up();
  };
  await drag(bench.pieces.getByRole("button", { name: /^Hole/ }).first(), "Layer 4");
  expect(await layerOf("circle")).toBe("Layer 4");
  await bench.pieces.getByRole("button", { name: /^Hole/ }).first().click();
  await drag(page.getByRole("region", { name: "Selected" }).getByText("Selected"), "Marks");
  expect(await layerOf("circle")).toBe("Marks");
  await page.keyboard.press("Control+z");
  // colour, order, shown alone
  await menu("Layer 4", "blue");
  await menu("Layer 4", "Move up");
  expect(await names()).toEqual(["Profile", "Layout", "Layer 4", "Marks"]);
  const drawing = await drawingOf(bench);
  expect(layersOf(drawing).map(({ colour }) => colour)).toEqual([undefined, undefined, "5", undefined]);
  await menu("Layer 4", "Show it alone");
  await expect(layers.getByRole("button", { name: /^Show / })).toHaveCount(3);
  await menu("Layer 4", "Show all layers");
  await expect(layers.getByRole("button", { name: /^Show / })).toHaveCount(0);
  // what is put where it can't be seen is said
  await layers.getByRole("button", { name: "Hide Layer 4" }).click();
  await drag(bench.pieces.getByRole("button", { name: /^Hole/ }).last(), "Layer 4");
  await expect(page.getByText("Now on Layer 4, which is hidden")).toBeVisible();
  await page.keyboard.press("Control+z");
  await layers.getByRole("button", { name: "Show Layer 4" }).click();
  // a click that closes a menu makes nothing, even with a tool in hand
  await bench.tool("EE", "Circle");
  await bench.type("3");
  await page.keyboard.press("Enter");
  await layers.getByRole("button", { name: "More for Layer 4" }).click();
  const before = await bench.revision();
  await bench.click({ x: 60, y: 40 });
  await expect(page.getByRole("menu")).toHaveCount(0);
  expect(await bench.revision()).toBe(before);
  await bench.click({ x: 60, y: 40 });
  await expect.poll(() => bench.revision()).toBe(before + 1);
  await page.keyboard.press("Control+z");
  await page.keyboard.press("Escape");
  await page.keyboard.press("Escape");
  // taken away: what lies on it goes elsewhere or with it, and comes back with one undo
  await menu("Layer 4", /^Remove it, put the 1 on it on Profile/);
  expect(await layerOf("circle")).toBe("Profile");
  await page.keyboard.press("Control+z");
  await menu("Layer 4", /^Remove it with the 1 on it/);
  await expect(page.getByText("Layer Layer 4 removed, with the 1 on it")).toBeVisible();
  expect(await names()).not.toContain("Layer 4");
  await page.keyboard.press("Control+z");
  expect(await layerOf("circle")).toBe("Layer 4");
  await bench.reload();
  expect(await names()).toEqual(["Profile", "Layout", "Layer 4", "Marks"]);
});
