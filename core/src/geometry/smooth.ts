import { bracketedRoot, integral, refined, rootsOn } from "../numeric/roots.ts";
import { line, type Piece } from "./piece.ts";
import { distance, dot, norm, subtract, type Point } from "./point.ts";

/** A curve by its parameter t in [0, 1]: its points and derivatives, and where it is best cut up for searching. */
export type Smooth = {
  readonly at: (t: number) => Point;
  readonly first: (t: number) => Point;
  readonly second: (t: number) => Point;
  /** No second derivative is longer than this between two parameters that lie between two neighbouring breaks. */
  readonly bend: (from: number, to: number) => number;
  readonly breaks: readonly number[];
  /** It ends where it starts. */
  readonly closed: boolean;
};

/** Places looked at between two breaks: between them at most one foot of a point is taken for granted. */
const LOOKS = 6;

/** The nearest place to `p`: every foot of `p` found by bracketing, and the ends. To the last bits of the parameter. */
export const smoothNearest = (smooth: Smooth, p: Point): { t: number; at: Point; distance: number } => {
  const feet = feetOn(smooth, p);
  let best = { t: 0, at: smooth.at(0), distance: Infinity };
  for (const t of [0, 1, ...feet]) {
    const at = smooth.at(t);
    const away = distance(at, p);
    if (away < best.distance) best = { t, at, distance: away };
  }
  return best;
};

/** The parameters at which the way to `p` is square to the curve. */
export const feetOn = ({ at, first, breaks }: Smooth, p: Point): readonly number[] =>
  rootsOn((t) => dot(subtract(at(t), p), first(t)), refined(breaks, LOOKS));

/** Length by Gauss's rule between the breaks, halved until it holds to about 1e-12 of the length. */
export const smoothLength = ({ first, breaks }: Smooth): number => integral((t) => norm(first(t)), breaks);

/**
 * The n + 1 points that cut the curve into n parts of equal length, its ends among them. Newton on the length from the
 * start.
 */
export const equalParts = (smooth: Smooth, n: number): readonly Point[] => {
  const total = smoothLength(smooth);
  const lengthTo = (t: number): number =>
    integral((s) => norm(smooth.first(s)), [0, ...smooth.breaks.filter((b) => b > 0 && b < t), t]);
  return Array.from({ length: n + 1 }, (_, i) => {
    if (i === 0 || i === n) return smooth.at(i / n);
    const wanted = (total * i) / n;
    return smooth.at(bracketedRoot((t) => lengthTo(t) - wanted, 0, 1, -wanted, total - wanted));
  });
};

/** The curve by chords no farther than `sagitta` from it, as parameters: for showing and for coarse searching. */
export const chordsOf = ({ at, breaks }: Smooth, sagitta: number): readonly number[] => {
  const made = [0];
  const cut = (from: number, to: number, depth: number): void => {
    const middle = (from + to) / 2;
    const [a, b] = [at(from), at(to)];
    const off = [0.25, 0.5, 0.75].some((part) => {
      const p = at(from + (to - from) * part);
      const straight = { x: a.x + (b.x - a.x) * part, y: a.y + (b.y - a.y) * part };
      return distance(p, straight) > 4 * sagitta || offChord(a, b, p) > sagitta;
    });
    if (off && depth < 12) {
      cut(from, middle, depth + 1);
      cut(middle, to, depth + 1);
    } else made.push(to);
  };
  for (let i = 1; i < breaks.length; i++) cut(breaks[i - 1]!, breaks[i]!, 0);
  return made;
};

/** The chords themselves, end to end, within `sagitta` of the curve: for pictures and paper, not for cutting. */
export const chordPieces = (smooth: Smooth, sagitta: number): readonly Piece[] => {
  const places = chordsOf(smooth, sagitta).map(smooth.at);
  return places.slice(1).map((b, i) => line(places[i]!, b));
};

const offChord = (a: Point, b: Point, p: Point): number => {
  const chord = subtract(b, a);
  const length = norm(chord);
  if (length === 0) return distance(a, p);
  return Math.abs(chord.x * (p.y - a.y) - chord.y * (p.x - a.x)) / length;
};
