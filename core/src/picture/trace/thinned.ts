import type { Mask } from "./ink.ts";
import { partsOf, widthOf } from "./parts.ts";

/** Gaps between strokes that were gone over, narrower than so many strokes and so many times as long, are no gaps. */
const [NARROW, DRAWN_OUT] = [1.8, 2.5];
/** What is smaller than so many strokes across is no gap either. */
const TINY = 0.8;

/** A mask without the holes that lie between two strokes of one line. */
export const filled = (mask: Mask, stroke: number): Mask => {
  const data = mask.data.slice();
  for (const part of partsOf(mask, 0)) {
    const wide = widthOf([part], mask);
    const long = Math.hypot(part.maxX - part.minX + 1, part.maxY - part.minY + 1);
    if (wide >= NARROW * stroke || (wide >= TINY * stroke && long < DRAWN_OUT * wide)) continue;
    for (const at of part.pixels) data[at] = 1;
  }
  return { ...mask, data };
};

/** The middle lines of strokes, one pixel wide (Zhang and Suen, CACM 27, 1984). */
export const thinned = ({ width, height, data }: Mask): Mask => {
  const out = data.slice();
  for (let x = 0; x < width; x++) out[x] = out[(height - 1) * width + x] = 0;
  for (let y = 0; y < height; y++) out[y * width] = out[y * width + width - 1] = 0;
  let border: number[] = [];
  for (let i = 0; i < out.length; i++) if (out[i] === 1) border.push(i);
  // neighbours clockwise from above
  const around = [-width, 1 - width, 1, width + 1, width, width - 1, -1, -width - 1];
  for (let changed = true; changed;) {
    changed = false;
    for (const first of [true, false]) {
      const gone: number[] = [];
      const kept: number[] = [];
      for (const at of border) {
        if (out[at] === 0) continue;
        let [count, turns] = [0, 0];
        for (let k = 0; k < 8; k++) {
          const own = out[at + around[k]!]!;
          count += own;
          if (own === 0 && out[at + around[(k + 1) % 8]!] === 1) turns++;
        }
        const [up, right, down, left] = [0, 2, 4, 6].map((k) => out[at + around[k]!]!) as [
          number,
          number,
          number,
          number,
        ];
        const goes =
          count >= 2 &&
          count <= 6 &&
          turns === 1 &&
          (first
            ? up * right * down === 0 && right * down * left === 0
            : up * right * left === 0 && up * down * left === 0);
        if (goes) gone.push(at);
        else kept.push(at);
      }
      for (const at of gone) out[at] = 0;
      if (gone.length > 0) changed = true;
      border = kept;
    }
  }
  return { width, height, data: out };
};
