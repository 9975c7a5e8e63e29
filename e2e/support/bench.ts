import { expect, type Locator, type Page } from "@playwright/test";
import { sketchedOnly } from "./demo.ts";

export type Place = { readonly x: number; readonly y: number };

/** Types over what stands in a field with the mouse and real keys, as a drafter does; nothing is entered yet. */
export const typeOver = async (field: Locator, text: string): Promise<void> => {
  await field.click();
  const { keyboard } = field.page();
  await keyboard.press("Control+A");
  if (text === "") await keyboard.press("Delete");
  else await keyboard.type(text);
};

/** The bench as a drafter uses it: keys, the mouse on the board at drawing coordinates, and what the panels say. */
export class Bench {
  readonly page: Page;
  readonly board: Locator;
  constructor(page: Page) {
    this.page = page;
    this.board = page.getByRole("application", { name: "Board" });
  }

  /** A job of the demo as it came from its customer. */
  async open(job: string): Promise<void> {
    await sketchedOnly(this.page, job);
    await this.page.goto("/jobs");
    await this.page.getByRole("link", { name: job }).click();
    await this.ready();
  }

  /** The board stands and shows its drawing. */
  async ready(): Promise<void> {
    await expect(this.board).toHaveAttribute("data-view", /^(?!0 |1 0 0$).+/);
    await this.page.evaluate(() => document.fonts.ready);
  }

  /** Where a place of the drawing is on the page. */
  async at({ x, y }: Place): Promise<Place> {
    const [scale, originX, originY] = (await this.board.getAttribute("data-view"))!.split(" ").map(Number) as [
      number,
      number,
      number,
    ];
    const box = (await this.board.boundingBox())!;
    return { x: box.x + originX + scale * x, y: box.y + originY - scale * y };
  }

  /** Which place of the drawing is at a place of the page. */
  async placeAt({ x, y }: Place): Promise<Place> {
    const [scale, originX, originY] = await this.view();
    const box = (await this.board.boundingBox())!;
    return { x: (x - box.x - originX) / scale, y: (originY - y + box.y) / scale };
  }

  private async view(): Promise<[number, number, number]> {
    return (await this.board.getAttribute("data-view"))!.split(" ").map(Number) as [number, number, number];
  }

  async point(place: Place): Promise<void> {
    const { x, y } = await this.at(place);
    await this.page.mouse.move(x, y, { steps: 3 });
  }

  async click(place: Place, modifiers: readonly ("Shift" | "Control" | "Alt")[] = []): Promise<void> {
    await this.point(place);
    for (const key of modifiers) await this.page.keyboard.down(key);
    await this.page.mouse.down();
    await this.page.mouse.up();
    for (const key of modifiers) await this.page.keyboard.up(key);
  }

  /** Two strokes on the key grid: the bank, then the tool's place. */
  async tool(keys: string, name: string): Promise<void> {
    for (const key of keys) await this.page.keyboard.press(`Key${key}`);
    await expect(this.sentence(name)).toBeVisible();
  }

  async type(text: string): Promise<void> {
    await this.page.keyboard.type(text);
  }

  sentence(name: string): Locator {
    return this.page.getByRole("group", { name, exact: true });
  }

  blank(name: string): Locator {
    return this.page.getByRole("textbox", { name, exact: true });
  }

  /** The row of a callout; the button that opens its actions has a name of its own. */
  callout(text: string): Locator {
    const start = new RegExp(`^${text.replace(/[.*+?^${}()|[\]\\]/g, "\\$&")}`);
    return this.page.getByRole("region", { name: "Ledger" }).getByRole("button", { name: start });
  }

  get pieces(): Locator {
    return this.page.getByRole("region", { name: "Pieces" });
  }

  async revision(): Promise<number> {
    return Number(await this.board.getAttribute("data-revision"));
  }

  /** Everything shown is stored. */
  async saved(): Promise<void> {
    await expect(async () =>
      expect(await this.board.getAttribute("data-saved")).toBe(await this.board.getAttribute("data-revision")),
    ).toPass();
  }

  /** Reloads in the middle of the work, as a crash would. */
  async reload(): Promise<void> {
    await this.saved();
    const before = await this.board.getAttribute("data-revision");
    await this.page.reload();
    await expect(this.board).toHaveAttribute("data-revision", before!);
  }

  /** The content of the drawing as it is saved to a file. */
  async content(): Promise<string> {
    const [download] = await Promise.all([this.page.waitForEvent("download"), this.page.keyboard.press("Control+s")]);
    const chunks: Buffer[] = [];
    for await (const chunk of await download.createReadStream()) chunks.push(chunk as Buffer);
    return JSON.stringify((JSON.parse(Buffer.concat(chunks).toString("utf8")) as { drawing: unknown }).drawing);
  }
}
