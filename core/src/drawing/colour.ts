/** A colour in parts of 255. */
export type Rgb = readonly [red: number, green: number, blue: number];

/** Numbers 1 to 9 of the DXF reference's standard palette; 7 is the pen's own, black or white. */
const FIRST: readonly (Rgb | undefined)[] = [
  [255, 0, 0],
  [255, 255, 0],
  [0, 255, 0],
  [0, 255, 255],
  [0, 0, 255],
  [255, 0, 255],
  undefined,
  [128, 128, 128],
  [192, 192, 192],
];
/** How bright the five pairs of each hue of numbers 10 to 249 are, and the greys of 250 to 255; from memory. */
const BRIGHT = [1, 0.65, 0.5, 0.3, 0.15];
const GREYS = [51, 91, 132, 173, 214, 255];

/** True of a number of the standard palette, 1 to 255, and of `#rrggbb`. */
export const isColour = (text: string): boolean =>
  /^#[0-9a-f]{6}$/i.test(text) || (/^[1-9]\d{0,2}$/.test(text) && Number(text) < 256);

/**
 * What a colour as a file names it looks like: a number of the standard palette, or `#rrggbb`. Undefined for the pen's
 * own (0, 7, by layer) and for what is no colour.
 */
export const rgbOf = (colour: string): Rgb | undefined => {
  if (!isColour(colour)) return undefined;
  if (colour.startsWith("#")) return [1, 3, 5].map((at) => parseInt(colour.slice(at, at + 2), 16)) as unknown as Rgb;
  const number = Number(colour);
  if (number < 10) return FIRST[number - 1];
  if (number >= 250) return [GREYS[number - 250]!, GREYS[number - 250]!, GREYS[number - 250]!];
  // 24 hues 15° apart, each full and half as strong in turn
  const hue = Math.floor((number - 10) / 10) / 4; // sixths of the circle
  const bright = 255 * BRIGHT[Math.floor((number % 10) / 2)]!;
  const pale = number % 2 === 1 ? bright / 2 : 0;
  return [0, 4, 2].map((turn) => {
    const away = Math.abs(((hue + turn + 3) % 6) - 3); // sixths from this part's own hue
    return Math.round(pale + (bright - pale) * Math.min(1, Math.max(0, 2 - away)));
  }) as unknown as Rgb;
};
