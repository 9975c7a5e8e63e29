import type { Grid } from "./grey.ts";
import { maskOf } from "./ink.ts";

/** Paper is looked at in so many bands, so that rules may lie a little aslant. */
const BANDS = 6;
/** A rule stands out by so much ink, and by so many times what rows scatter. */
const [LEAST, SCATTERS] = [0.012, 5];
/** So many rules, over so much of the paper, one after the other: it is ruled. */
const [FEWEST, OVER] = [5, 0.75];
/** So much of them is met, and so many may be missed one after the other, where strokes lie on them. */
const [MET, MISSED] = [0.75, 2];
/** Rules are so far apart at least, and each lies where it is due but for so much, px; so many may lie between two. */
const [LEAST_STEP, SLACK, NEXT] = [8, 1.5, 6];
/** In so many bands, but for so much of how far they are apart. */
const [BANDS_RULED, ALIKE] = [5, 0.03];
/** A rule's ink lies within so many pixels, or so much of what lies between two. */
const [WIDE, PART] = [4, 0.3];
/** They are no more than this part as dark as strokes. */
const FAINTER = 0.85;
/** What is so many times as dark as rules are is drawn along one. */
const DARKER = 1.7;

const median = (values: readonly number[]): number => [...values].sort((p, q) => p - q)[values.length >> 1] ?? 0;

/** How far apart rows stand out where they do so evenly, and how dark; undefined where they don't. */
const rulingOf = (rows: readonly number[]): { readonly apart: number; readonly dark: number } | undefined => {
  const middle = median(rows);
  const scatter = 1.4826 * median(rows.map((one) => Math.abs(one - middle)));
  const least = middle + Math.max(LEAST, SCATTERS * scatter);
  const peaks: number[] = [];
  rows.forEach((value, y) => {
    if (value < least || value < (rows[y - 1] ?? 0) || value < (rows[y + 1] ?? 0)) return;
    const last = peaks.at(-1);
    if (last !== undefined && y - last < WIDE) {
      if (value > rows[last]!) peaks[peaks.length - 1] = y;
    } else peaks.push(y);
  });
  if (peaks.length < FEWEST) return undefined;
  // of all steps between two, that by which most is met; strokes along rows stand out, too
  let best: Met = { at: [], steps: 0 };
  for (const [i, from] of peaks.entries())
    for (const next of peaks.slice(i + 1, i + 1 + NEXT)) {
      const met = metBy(peaks, from, next - from);
      if (met.at.length > best.at.length) best = met;
    }
  const span = (best.at.at(-1) ?? 0) - (best.at[0] ?? 0);
  if (best.at.length < FEWEST || best.at.length < MET * best.steps || span < OVER * rows.length) return undefined;
  return { apart: span / best.steps, dark: median(best.at.map((y) => rows[y]!)) - middle };
};

type Met = { readonly at: readonly number[]; readonly steps: number };

/** Which places are met by going on in steps, each within a pixel or two of where it is due; and in how many steps. */
const metBy = (places: readonly number[], from: number, step: number): Met => {
  const at = [from];
  let steps = 0;
  if (step >= LEAST_STEP)
    for (const place of places) {
      if (place <= from) continue;
      const far = place - from;
      const apart = steps > 0 ? (at.at(-1)! - from) / steps : step;
      const own = Math.round(far / apart);
      if (own - steps > MISSED + 1) break;
      if (own <= steps || Math.abs(far - own * apart) > SLACK) continue;
      at.push(place);
      steps = own;
    }
  return { at, steps };
};

/** Where rules lie that are so far apart: from the place at which rows are the darkest in all. */
const rulesIn = (rows: readonly number[], apart: number): readonly number[] => {
  const at = (from: number): readonly number[] =>
    Array.from({ length: Math.ceil((rows.length - from) / apart) }, (_, k) => from + k * apart);
  let [best, dark] = [0, -Infinity];
  for (let from = 0; from < apart; from += 0.5) {
    // the middle of three tells nothing of a stroke along one of them
    const own = median(at(from).map((y) => rows[Math.min(rows.length - 1, Math.round(y))]!));
    if (own > dark) [best, dark] = [from, own];
  }
  return at(best).map((y) => {
    const near = [-2, -1, 0, 1, 2].map((off) => Math.round(y) + off).filter((row) => row >= 0 && row < rows.length);
    return near.reduce((darkest, row) => (rows[row]! > rows[darkest]! ? row : darkest), near[0]!);
  });
};

/** Ink without that of rules along its rows, and how dark they are; as it is where it has none. */
const withoutRows = (ink: Grid): { readonly ink: Grid; readonly dark: number } => {
  const { width, height, data } = ink;
  const bands = Array.from({ length: BANDS }, (_, k) => {
    const [from, to] = [k, k + 1].map((one) => Math.round((one * width) / BANDS)) as [number, number];
    const rows = Array.from({ length: height }, (__, y) => {
      const own = data.slice(y * width + from, y * width + to).sort();
      return own[own.length >> 1] ?? 0;
    });
    return { from, to, rows, ruling: rulingOf(rows) };
  });
  const found = bands.flatMap(({ ruling }) => ruling ?? []);
  const apart = median(found.map((one) => one.apart));
  const alike = found.filter((one) => Math.abs(one.apart - apart) <= Math.max(0.5, ALIKE * apart));
  if (alike.length < BANDS_RULED) return { ink, dark: 0 };
  const wide = Math.max(1, Math.min(WIDE, Math.floor(PART * apart)));
  const dark = median(alike.map((one) => one.dark));
  const out = data.slice();
  for (const { from, to, rows } of bands) {
    const paper = median(rows);
    for (const at of rulesIn(rows, apart))
      for (let y = Math.max(0, at - wide); y <= Math.min(height - 1, at + wide); y++) {
        // ink upon ink lets through what both let through; what is darker than rules are is drawn along one
        const rule = rows[y]! - paper;
        const own = rows[at]! - paper > DARKER * dark ? Math.min(rule, y === at ? dark : dark / 2) : rule;
        const [first, last] = [y * width + from, y * width + to];
        if (own > 0) for (let i = first; i < last; i++) out[i] = Math.max(0, 1 - (1 - data[i]!) / (1 - own));
      }
  }
  return { ink: { width, height, data: out }, dark };
};

const turned = ({ width, height, data }: Grid): Grid => {
  const out = new Float32Array(data.length);
  for (let y = 0; y < height; y++) for (let x = 0; x < width; x++) out[x * height + y] = data[y * width + x]!;
  return { width: height, height: width, data: out };
};

/**
 * Ink without that of the rules or squares which paper is printed with: where it is drawn over, what is drawn stays.
 * What is as dark as strokes are is none of them: bars of a grating are drawn.
 */
export const withoutRules = (ink: Grid): Grid => {
  const level = withoutRows(ink);
  const upright = withoutRows(turned(level.ink));
  const dark = Math.max(level.dark, upright.dark);
  if (dark === 0) return ink;
  const bare = turned(upright.ink);
  return dark <= FAINTER * (maskOf(bare)?.strong ?? 0) ? bare : ink;
};
