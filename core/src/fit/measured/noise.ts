import { distance, type Point } from "../../geometry/point.ts";

/** How far measured points scatter, how many in a row do alike, and which of them count (1) or strayed (0). */
export type Noise = { readonly sigma: number; readonly alike: number; readonly counts: Uint8Array };

/** A window's points, and the degree of what is taken away in it; a long one sees what is alike. */
const SHORT = { width: 15, degree: 2 };
const SHORTEST = { width: 7, degree: 2 };
/** Where most windows have corners in them, they see so many times what shorter ones do. */
const CORNERED = 3;
const LONG = { width: 61, degree: 4 };
/** So many long windows are needed to tell. */
const LONG_ONES = 6;
/** Scatter that a long window sees and a short one does not, as a ratio: points that scatter alike. */
const SEEN_LONG = 1.25;
/** A window shorter than so many scatters does not tell which way the outline goes. */
const TOO_SHORT = 12;
/** Windows looked at, at most. */
const MOST_WINDOWS = 2000;
/** The median of χ²/n with n degrees of freedom lies below 1: Wilson and Hilferty's (1 - 2/(9n))³. */
const medianOfSquares = (freedom: number): number => (1 - 2 / (9 * freedom)) ** 3;
/** Less scatter than this part of the size is none that could be told. */
const LEAST_PART = 2e-6;
/** A point so many scatters, and so many steps, from the median of its neighbours strayed. */
const [STRAYS_BY, STEPS_OFF] = [8, 2.5];
/** Autocorrelation below this is that of points measured one by one. */
const ALONE = 0.25;
/** And above this nothing could be told apart. */
const MOST_ALIKE = 0.98;

const median = (values: readonly number[]): number => {
  const sorted = [...values].sort((p, q) => p - q);
  const half = sorted.length >> 1;
  return sorted.length === 0 ? 0 : sorted.length % 2 === 1 ? sorted[half]! : (sorted[half - 1]! + sorted[half]!) / 2;
};

/**
 * The scatter of points along an outline, from themselves: what a quadratic leaves in short windows, the median of all
 * of them, so that corners say nothing. At least 15 points; of fewer, the least scatter.
 */
export const noiseOf = (points: readonly Point[], size: number): Noise => {
  const steps = median(points.slice(1).map((p, i) => distance(p, points[i]!)));
  const shortest = { ...windowed(points, SHORTEST), alike: 1 };
  const wider = windowed(points, SHORT);
  const isCornered = shortest.sigma * CORNERED < wider.sigma;
  const short = isCornered ? shortest : wider;
  const long = !isCornered && points.length >= LONG_ONES * LONG.width ? windowed(points, LONG) : short;
  const wanted = steps * SHORT.width < TOO_SHORT * short.sigma || long.sigma > SEEN_LONG * short.sigma;
  const { sigma, alike } = wanted && long.alike > 1 && long.sigma < CORNERED * short.sigma ? long : short;
  const least = Math.max(sigma, LEAST_PART * size);
  return { sigma: least, alike, counts: countsOf(points, STRAYS_BY * least + STEPS_OFF * steps) };
};

type Window = { readonly width: number; readonly degree: number };

const windowed = (
  points: readonly Point[],
  { width, degree }: Window,
): { readonly sigma: number; readonly alike: number } => {
  if (points.length < width) return { sigma: 0, alike: 1 };
  const freedom = width - degree - 1;
  const squares: number[] = [];
  const followings: number[] = [];
  const stride = Math.max(1, Math.floor(points.length / MOST_WINDOWS));
  for (let from = 0; from + width <= points.length; from += stride) {
    const left = leftOver(points.slice(from, from + width), degree);
    if (!left) continue;
    const square = left.reduce((sum, off) => sum + off * off, 0);
    squares.push(square / freedom);
    if (square > 0) followings.push(left.slice(1).reduce((sum, off, i) => sum + off * left[i]!, 0) / square);
  }
  const sigma = Math.sqrt(median(squares) / medianOfSquares(freedom));
  // what is taken away leaves single points alternating a little: about its parameters in the width
  const along = median(followings) + (degree + 1) / width;
  return { sigma, alike: along < ALONE ? 1 : (1 + along) / (1 - Math.min(along, MOST_ALIKE)) };
};

/** How far points lie off the best polynomial over their own chord; undefined where they lie in one place. */
const leftOver = (points: readonly Point[], degree: number): readonly number[] | undefined => {
  const [a, b] = [points[0]!, points.at(-1)!];
  const chord = distance(a, b);
  if (chord === 0) return undefined;
  const [c, s] = [(b.x - a.x) / chord, (b.y - a.y) / chord];
  const along = points.map(({ x, y }) => (2 * ((x - a.x) * c + (y - a.y) * s)) / chord - 1);
  const off = points.map(({ x, y }) => (y - a.y) * c - (x - a.x) * s);
  // orthogonal polynomials over these places: 1, u, u² - ..., by Gram and Schmidt
  const bases: number[][] = [];
  for (let power = 0; power <= degree; power++) {
    const base = along.map((u) => u ** power);
    for (const earlier of bases) takeOff(base, earlier);
    bases.push(base);
  }
  const left = [...off];
  for (const base of bases) takeOff(left, base);
  return left;
};

const takeOff = (values: number[], base: readonly number[]): void => {
  let [dot, square] = [0, 0];
  for (let i = 0; i < base.length; i++) {
    dot += values[i]! * base[i]!;
    square += base[i]! * base[i]!;
  }
  if (square > 0) for (let i = 0; i < base.length; i++) values[i]! -= (dot / square) * base[i]!;
};

const countsOf = (points: readonly Point[], far: number): Uint8Array => {
  const counts = new Uint8Array(points.length).fill(1);
  for (let i = 2; i + 2 < points.length; i++) {
    const near = points.slice(i - 2, i + 3);
    const middle = { x: median(near.map(({ x }) => x)), y: median(near.map(({ y }) => y)) };
    if (distance(points[i]!, middle) > far) counts[i] = 0;
  }
  return counts;
};
