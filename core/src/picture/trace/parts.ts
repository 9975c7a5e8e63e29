import type { Mask } from "./ink.ts";

/** A connected part of a mask. */
export type Part = {
  readonly pixels: readonly number[];
  readonly minX: number;
  readonly minY: number;
  readonly maxX: number;
  readonly maxY: number;
};

/** Connected parts of what has a value: strokes (1) over corners as well, the paper between them (0) by sides only. */
export const partsOf = ({ width, height, data }: Mask, value: 0 | 1): readonly Part[] => {
  const seen = new Uint8Array(data.length);
  const parts: Part[] = [];
  for (let i = 0; i < data.length; i++) {
    if (seen[i] === 1 || data[i] !== value) continue;
    const pixels = [i];
    seen[i] = 1;
    let [minX, minY, maxX, maxY] = [width, height, 0, 0];
    for (let k = 0; k < pixels.length; k++) {
      const at = pixels[k]!;
      const [x, y] = [at % width, Math.floor(at / width)];
      minX = Math.min(minX, x);
      minY = Math.min(minY, y);
      maxX = Math.max(maxX, x);
      maxY = Math.max(maxY, y);
      for (let dy = -1; dy <= 1; dy++)
        for (let dx = -1; dx <= 1; dx++) {
          if (value === 0 && dx !== 0 && dy !== 0) continue;
          const [u, v] = [x + dx, y + dy];
          const next = v * width + u;
          if (u < 0 || v < 0 || u >= width || v >= height || seen[next] === 1 || data[next] !== value) continue;
          seen[next] = 1;
          pixels.push(next);
        }
    }
    parts.push({ pixels, minX, minY, maxX, maxY });
  }
  return parts;
};

/** Sides between a part's pixels and others. */
const sidesOf = ({ pixels }: Part, { width, height, data }: Mask): number => {
  let sides = 0;
  for (const at of pixels) {
    const [x, y] = [at % width, Math.floor(at / width)];
    for (const [u, v] of [
      [x - 1, y],
      [x + 1, y],
      [x, y - 1],
      [x, y + 1],
    ] as const)
      if (u < 0 || v < 0 || u >= width || v >= height || data[v * width + u] !== data[at]) sides++;
  }
  return sides;
};

/** A boundary in all directions is so many times shorter than the sides of its pixels. */
const ROUND = Math.PI / 4;

/** How wide what is drawn out is: its area by half its boundary. */
export const widthOf = (parts: readonly Part[], mask: Mask): number => {
  let [area, sides] = [0, 0];
  for (const part of parts) {
    area += part.pixels.length;
    sides += sidesOf(part, mask);
  }
  return sides === 0 ? 0 : (2 * area) / (sides * ROUND);
};
