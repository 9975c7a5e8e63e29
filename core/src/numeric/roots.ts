import { SETTLED } from "./tolerance.ts";
/** Steps after which a bracket is as narrow as doubles get, halving at worst every other one. */
const STEPS = 120;

/**
 * The root of `f` between `a` and `b`, where its signs differ: secant steps as long as they shrink the bracket, halving
 * else. To the last bits of the argument. Source: bracketing with the Illinois rule (Dowell and Jarratt 1971, from
 * memory), halving as its guard.
 */
export const bracketedRoot = (f: (t: number) => number, a: number, b: number, fa = f(a), fb = f(b)): number => {
  if (fa === 0) return a;
  if (fb === 0) return b;
  let [low, high, fLow, fHigh] = [a, b, fa, fb];
  let side = 0;
  for (let i = 0; i < STEPS; i++) {
    const middle = (low + high) / 2;
    if (middle === low || middle === high) break;
    const secant = (low * fHigh - high * fLow) / (fHigh - fLow);
    const isInside = secant > Math.min(low, high) && secant < Math.max(low, high);
    const t = isInside && i % 3 !== 2 ? secant : middle;
    const ft = f(t);
    if (ft === 0) return t;
    if (ft > 0 === fHigh > 0) {
      [high, fHigh] = [t, ft];
      if (side === 1) fLow /= 2;
      side = 1;
    } else {
      [low, fLow] = [t, ft];
      if (side === -1) fHigh /= 2;
      side = -1;
    }
  }
  return Math.abs(fLow) < Math.abs(fHigh) ? low : high;
};

/** Where `f` changes its sign between neighbouring places of `grid` (rising), each root once. */
export const rootsOn = (f: (t: number) => number, grid: readonly number[]): readonly number[] => {
  const roots: number[] = [];
  let before = f(grid[0]!);
  if (before === 0) roots.push(grid[0]!);
  for (let i = 1; i < grid.length; i++) {
    const now = f(grid[i]!);
    if (now === 0) roots.push(grid[i]!);
    else if (before !== 0 && now > 0 !== before > 0) roots.push(bracketedRoot(f, grid[i - 1]!, grid[i]!, before, now));
    before = now;
  }
  return roots;
};

/** `grid` with each step cut into `n`. */
export const refined = (grid: readonly number[], n: number): readonly number[] => [
  ...grid
    .slice(0, -1)
    .flatMap((from, i) => Array.from({ length: n }, (_, k) => from + ((grid[i + 1]! - from) * k) / n)),
  grid.at(-1)!,
];

/** Nodes and weights of Gauss and Legendre's rule of eight points on [-1, 1] (Abramowitz and Stegun, table 25.4). */
const GAUSS: readonly (readonly [number, number])[] = [
  [0.1834346424956498, 0.362683783378362],
  [0.525532409916329, 0.3137066458778873],
  [0.7966664774136267, 0.2223810344533745],
  [0.9602898564975363, 0.1012285362903763],
];

const gauss = (f: (t: number) => number, from: number, to: number): number => {
  const [middle, half] = [(from + to) / 2, (to - from) / 2];
  return (
    half * GAUSS.reduce((sum, [node, weight]) => sum + weight * (f(middle - half * node) + f(middle + half * node)), 0)
  );
};

/**
 * Halvings after which a step is taken as it is: a curve that turns right back has a corner there that no rule gets
 * over.
 */
const DEEPEST = 24;

/**
 * The integral of `f` over the steps of `grid`: eight points each, halved until both halves agree with the whole to
 * 1e-13 of it.
 */
export const integral = (f: (t: number) => number, grid: readonly number[]): number => {
  const over = (from: number, to: number, whole: number, depth: number): number => {
    const middle = (from + to) / 2;
    const [left, right] = [gauss(f, from, middle), gauss(f, middle, to)];
    if (depth >= DEEPEST || Math.abs(left + right - whole) <= SETTLED * Math.abs(whole)) return left + right;
    return over(from, middle, left, depth + 1) + over(middle, to, right, depth + 1);
  };
  let sum = 0;
  for (let i = 1; i < grid.length; i++) sum += over(grid[i - 1]!, grid[i]!, gauss(f, grid[i - 1]!, grid[i]!), 0);
  return sum;
};
