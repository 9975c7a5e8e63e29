import type { Browser } from "@playwright/test";
import type { Bounds } from "@ash-edge/core/geometry";
import type { Hand } from "./pencil.ts";
import { paperPage } from "./paper.ts";
import type { Sketch } from "./sketch.ts";

/** How a sketch came to be a picture: the hand that drew it, the paper, the light, and the camera. */
export type Conditions = {
  readonly hand?: Hand;
  /** Rules or squares so many pixels apart. */
  readonly ruled?: number;
  readonly squared?: number;
  /** The shadow of a hand or a lamp across it; paper that was folded twice. */
  readonly shadow?: boolean;
  readonly folded?: boolean;
  /** Pixels of the picture to one of the sheet. */
  readonly enlarged?: number;
  /** Quality of a JPEG, of 100; a PNG where nothing is said. */
  readonly jpeg?: number;
};

/** A picture of a sketch, and where words stand in it; all in pixels of the sheet, of which it has `per` each way. */
export type Photo = {
  readonly bytes: Buffer;
  readonly type: string;
  readonly per: number;
  readonly lettering: readonly Bounds[];
};

const overlay = ({ ruled, squared, shadow, folded }: Conditions): string => {
  const rule = (apart: number, angle: string): string =>
    `repeating-linear-gradient(${angle}, #7fa3c8 0 1.2px, transparent 1.2px ${apart}px)`;
  const papers = [
    ...(ruled ? [rule(ruled, "180deg")] : []),
    ...(squared ? [rule(squared, "180deg"), rule(squared, "90deg")] : []),
  ];
  const fold = (angle: string): string =>
    `linear-gradient(${angle}, transparent 49.6%, #0003 49.9%, #fff6 50.2%, transparent 50.6%)`;
  const lights = [
    ...(folded ? [fold("90deg"), fold("180deg")] : []),
    ...(shadow ? ["linear-gradient(155deg, #0007 0%, #0005 34%, transparent 36%, transparent 70%, #0003 100%)"] : []),
  ];
  return [papers, lights]
    .filter((images) => images.length > 0)
    .map(
      (images) =>
        `<div style="position:fixed;inset:0;mix-blend-mode:multiply;background-image:${images.join(",")}"></div>`,
    )
    .join("");
};

/** A sketch as a picture of it, taken flat. */
export const photoOf = async (browser: Browser, sketch: Sketch, conditions: Conditions = {}): Promise<Photo> => {
  const { enlarged: per = 1, jpeg } = conditions;
  const viewport = { width: sketch.width, height: sketch.height };
  const tab = await browser.newPage({ viewport, deviceScaleFactor: per });
  await tab.setContent(paperPage(sketch) + overlay(conditions));
  await tab.evaluate(() => document.fonts.ready);
  const bytes = await tab.screenshot(jpeg === undefined ? { type: "png" } : { type: "jpeg", quality: jpeg });
  const lettering = await tab.evaluate(() =>
    [...document.querySelectorAll("svg.paper text")].map((text) => {
      const { left, top, right, bottom } = text.getBoundingClientRect();
      return { minX: left, minY: top, maxX: right, maxY: bottom };
    }),
  );
  await tab.close();
  return { bytes, type: jpeg === undefined ? "image/png" : "image/jpeg", per, lettering };
};
