import { rgbOf, type Rgb } from "@ash-edge/core/drawing";

/** What graphics need against what lies behind them (WCAG 2.2, 1.4.11). */
const LEAST_CONTRAST = 3;
const STEPS = 20;

/** Relative luminance (WCAG 2.2). */
const luminance = (rgb: Rgb): number => {
  const [r, g, b] = rgb.map((part) => {
    const share = part / 255;
    return share <= 0.04045 ? share / 12.92 : ((share + 0.055) / 1.055) ** 2.4;
  }) as unknown as Rgb;
  return 0.2126 * r + 0.7152 * g + 0.0722 * b;
};

export const contrastOf = (one: Rgb, other: Rgb): number => {
  const [p, q] = [luminance(one), luminance(other)];
  return (Math.max(p, q) + 0.05) / (Math.min(p, q) + 0.05);
};

/**
 * A colour as a file names it, as it is shown: so much nearer to the ink that it can be told from the board. Undefined
 * where the pen's own is meant.
 */
export const fileColour = (colour: string, board: string, ink: string): string | undefined => {
  const own = rgbOf(colour);
  const [behind, pen] = [rgbOf(board), rgbOf(ink)];
  if (!own || !behind || !pen) return undefined;
  for (let step = 0; step <= STEPS; step++) {
    const mixed = own.map((part, i) => Math.round(part + ((pen[i]! - part) * step) / STEPS)) as unknown as Rgb;
    if (contrastOf(mixed, behind) >= LEAST_CONTRAST) return `rgb(${mixed.join(" ")})`;
  }
  return ink;
};
