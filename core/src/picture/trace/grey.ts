import type { Pixels } from "../straighten.ts";

/** A number a pixel, row by row from the top left. */
export type Grid = { readonly width: number; readonly height: number; readonly data: Float32Array };

/** Parts of red, green and blue in how light a pixel looks (ITU-R BT.709). */
const [RED, GREEN, BLUE] = [0.2126, 0.7152, 0.0722];

/** How light each pixel is, 0 to 1; what is clear counts as white. */
const lightness = ({ width, height, data }: Pixels): Grid => {
  const out = new Float32Array(width * height);
  for (let i = 0, k = 0; i < out.length; i++, k += 4) {
    const opaque = data[k + 3]! / 255;
    const light = (RED * data[k]! + GREEN * data[k + 1]! + BLUE * data[k + 2]!) / 255;
    out[i] = 1 - opaque + opaque * light;
  }
  return { width, height, data: out };
};

/** Means over so many values along rows, which come out as columns: twice is a smaller picture. */
const shrunkRows = ({ width, height, data }: Grid, count: number): Grid => {
  const out = new Float32Array(count * height);
  const step = width / count;
  for (let x = 0; x < count; x++) {
    const [from, to] = [x * step, (x + 1) * step];
    const [first, last] = [Math.floor(from), Math.min(width - 1, Math.ceil(to) - 1)];
    for (let y = 0; y < height; y++) {
      let sum = 0;
      for (let i = first; i <= last; i++) sum += data[y * width + i]! * (Math.min(to, i + 1) - Math.max(from, i));
      out[x * height + y] = sum / step;
    }
  }
  return { width: height, height: count, data: out };
};

/**
 * How light each pixel of a picture is, 0 to 1, made smaller by means where it is longer than `longest`; and how many
 * pixels of the picture one of its own is.
 */
export const greyOf = (pixels: Pixels, longest: number): { readonly grey: Grid; readonly per: number } => {
  const own = lightness(pixels);
  const per = Math.max(1, Math.max(own.width, own.height) / longest);
  if (per === 1) return { grey: own, per };
  const across = Math.max(1, Math.round(own.width / per));
  const down = Math.max(1, Math.round(own.height / per));
  return { grey: shrunkRows(shrunkRows(own, across), down), per: own.width / across };
};
