import type { Grid } from "./grey.ts";

/** Half of the window over which paper is looked for: wider than any stroke. */
const REACH = 9;
/** Of strong ink this part of all is weaker, and what counts is this part of it: to begin with, and beside that. */
const STRONG = 0.85;
const [BEGINS, GOES_ON] = [0.45, 0.25];
/** Ink is so many times what scatters on paper, at least. */
const [BEGINS_NOISE, GOES_ON_NOISE] = [7, 5];
/** And paper is never so even that less than this would be ink. */
const LEAST_INK = 0.02;
/** Steps in which ink is counted. */
const STEPS = 4096;

/** The greatest (or least) value of a window along each row, which comes out as a column. Van Herk's way: three steps a
 * value, however wide. */
const slideRows = ({ width, height, data }: Grid, reach: number, greatest: boolean): Grid => {
  const out = new Float32Array(width * height);
  const span = 2 * reach + 1;
  const sign = greatest ? 1 : -1;
  const count = Math.ceil((width + 2 * reach) / span) * span;
  const [row, left, right] = [0, 0, 0].map(() => new Float32Array(count)) as [Float32Array, Float32Array, Float32Array];
  for (let y = 0; y < height; y++) {
    row.fill(-Infinity);
    for (let x = 0; x < width; x++) row[x + reach] = sign * data[y * width + x]!;
    for (let i = 0; i < count; i++) left[i] = i % span === 0 ? row[i]! : Math.max(left[i - 1]!, row[i]!);
    for (let i = count - 1; i >= 0; i--)
      right[i] = i % span === span - 1 || i === count - 1 ? row[i]! : Math.max(right[i + 1]!, row[i]!);
    for (let x = 0; x < width; x++) out[x * height + y] = sign * Math.max(right[x]!, left[x + span - 1]!);
  }
  return { width: height, height: width, data: out };
};

const slide = (grid: Grid, greatest: boolean): Grid => slideRows(slideRows(grid, REACH, greatest), REACH, greatest);

/**
 * How much darker than the paper about it each pixel is, as part of that: a grey closing is the paper, so that the edge
 * of a hard shadow is no ink.
 */
export const inkOf = (grey: Grid): Grid => {
  const paper = slide(slide(grey, true), false);
  const data = new Float32Array(grey.data.length);
  for (let i = 0; i < data.length; i++) data[i] = paper.data[i]! > 0 ? 1 - grey.data[i]! / paper.data[i]! : 0;
  return { ...grey, data };
};

/** How much is below each step of 0 to 1, as parts of all that is at or above `from`. */
const partBelow = (data: Float32Array, from: number, part: number): number => {
  const counts = new Uint32Array(STEPS + 1);
  let all = 0;
  for (const value of data) {
    if (value < from) continue;
    counts[Math.min(STEPS, Math.max(0, Math.floor(value * STEPS)))]!++;
    all++;
  }
  let sum = 0;
  for (let k = 0; k <= STEPS; k++) {
    sum += counts[k]!;
    if (sum >= part * all) return k / STEPS;
  }
  return 1;
};

/** What is ink (1), taken from where it is plain on through where it is faint. */
export type Mask = { readonly width: number; readonly height: number; readonly data: Uint8Array };

/** The strokes in how dark pixels are; undefined where nothing stands out from the paper. */
export const maskOf = ({ width, height, data }: Grid): { readonly mask: Mask; readonly strong: number } | undefined => {
  const paper = partBelow(data, 0, 0.5);
  const off = Float32Array.from(data, (value) => Math.abs(value - paper));
  const noise = 1.4826 * partBelow(off, 0, 0.5);
  const least = paper + Math.max(GOES_ON_NOISE * noise, LEAST_INK);
  const strong = partBelow(data, least, STRONG) - paper;
  const low = Math.max(least, paper + GOES_ON * strong);
  const high = Math.max(least, paper + BEGINS_NOISE * noise, paper + BEGINS * strong);
  const out = new Uint8Array(data.length);
  const stack: number[] = [];
  for (let i = 0; i < data.length; i++) {
    if (out[i] === 1 || data[i]! < high) continue;
    out[i] = 1;
    stack.push(i);
    while (stack.length > 0) {
      const at = stack.pop()!;
      const [x, y] = [at % width, Math.floor(at / width)];
      for (let dy = -1; dy <= 1; dy++)
        for (let dx = -1; dx <= 1; dx++) {
          const [u, v] = [x + dx, y + dy];
          const next = v * width + u;
          if (u < 0 || v < 0 || u >= width || v >= height || out[next] === 1 || data[next]! < low) continue;
          out[next] = 1;
          stack.push(next);
        }
    }
  }
  return out.includes(1) ? { mask: { width, height, data: out }, strong } : undefined;
};
