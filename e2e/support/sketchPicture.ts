import { expect, type Locator, type Page } from "@playwright/test";
import type { Place } from "./bench.ts";

/** The picture in the sketch card, clicked at places given in its own pixels, zoomed in on first as a drafter would. */
export class SketchPicture {
  readonly page: Page;
  readonly size: { readonly width: number; readonly height: number };
  constructor(page: Page, size: { readonly width: number; readonly height: number }) {
    this.page = page;
    this.size = size;
  }

  /** The one that is shown, once it is. */
  static async shown(page: Page): Promise<SketchPicture> {
    const image = page.getByRole("region", { name: "Sketch card" }).getByRole("img");
    await expect.poll(() => image.evaluate((one: HTMLImageElement) => one.naturalWidth)).toBeGreaterThan(0);
    const size = await image.evaluate((one: HTMLImageElement) => ({
      width: one.naturalWidth,
      height: one.naturalHeight,
    }));
    return new SketchPicture(page, size);
  }

  get card(): Locator {
    return this.page.getByRole("region", { name: "Sketch card" });
  }

  /** Where a place of the picture is on the page now; the picture must not be turned. */
  async at({ x, y }: Place): Promise<Place> {
    const box = (await this.card.getByRole("img").boundingBox())!;
    return { x: box.x + (x / this.size.width) * box.width, y: box.y + (y / this.size.height) * box.height };
  }

  async click(place: Place, zoomed = 8): Promise<void> {
    for (let i = 0; i < zoomed; i++) {
      const at = await this.at(place);
      const { width } = (await this.card.getByRole("img").boundingBox())!;
      await this.page.mouse.move(at.x, at.y);
      await this.page.mouse.wheel(0, -100);
      // the next turn waits until this one is shown: a late one would zoom about the next place
      await expect
        .poll(async () => (await this.card.getByRole("img").boundingBox())!.width)
        .toBeGreaterThan(1.2 * width);
      const now = await this.at(place);
      expect(Math.hypot(now.x - at.x, now.y - at.y)).toBeLessThan(3);
    }
    const at = await this.at(place);
    await this.page.mouse.move(at.x, at.y);
    await this.page.mouse.down();
    await this.page.mouse.up();
    if (zoomed === 0) return;
    const whole = this.card.getByRole("button", { name: "Show the whole sketch" });
    await whole.click();
    await expect(whole).toBeDisabled();
  }
}
