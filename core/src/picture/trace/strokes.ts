import { distance, type Point } from "../../geometry/point.ts";
import { lineRss, momentsOf, roundOf, type Moments, type Sums } from "../../fit/measured/moments.ts";
import { isOneCircle, lookedAgain } from "../../fit/measured/secondLook.ts";
import { segmented, type Costs, type Segment } from "../../fit/measured/segments.ts";
import type { Centred } from "./centred.ts";

/** A path of ink: its points in pixels, what any run of them says in the picture's frame, and the ink across it. */
export type Line = {
  readonly points: readonly Point[];
  readonly moments: Moments;
  readonly mass: readonly number[];
};

/** Some points of a path one after the other, from and up to but without to. */
export type Run = { readonly line: Line; readonly from: number; readonly to: number };

/** What is straight or round in the ink: its runs, several where it was merged, their sums, and the ink across it. */
export type Stroke = {
  readonly kind: "line" | "arc";
  readonly runs: readonly Run[];
  readonly sums: Sums;
  readonly length: number;
  readonly mass: number;
};

export const pointsOf = ({ line, from, to }: Run): readonly Point[] => line.points.slice(from, to);

/** All points of a stroke. */
export const pointsIn = ({ runs }: Stroke): readonly Point[] => runs.flatMap(pointsOf);

/** Coordinates about the middle of a picture, half of whose longer side is 1, and what strokes are reckoned with. */
export type Frame = {
  readonly middle: Point;
  readonly size: number;
  /** The variance of points over a piece so many pixels long, in the frame; with how many in a row scatter alike. */
  readonly varianceFor: (length: number, strays?: number) => number;
  /** What a parameter costs to tell of a run of so many points. */
  readonly priceFor: (points: number) => number;
  readonly stroke: number;
};

/** Points of a hand's line scatter by so much of its stroke, so many strokes in a row alike; it strays with length. */
const [SCATTER, ALIKE, STRAYS] = [0.3, 2.5, 0.004];
/** Less of that while a path is cut: a corner is no straying. */
const CUT_STRAYS = 0.001;
/** Over so many strokes at its ends a piece goes its own way, but for so much (radians). */
export const [ENDS, LEAVES] = [5, 0.26];
/** A parameter's price in Λ, and how few pieces of evidence are reckoned as. */
const FEWEST = 8;
/** What a line and an arc cost in prices. */
export const [LINE_PRICE, ARC_PRICE] = [3, 4];

export const frameFor = (width: number, height: number, stroke: number): Frame => {
  const size = Math.max(width, height) / 2;
  const alike = ALIKE * stroke;
  return {
    middle: { x: width / 2, y: height / 2 },
    size,
    varianceFor: (length, strays = STRAYS) => (((SCATTER * stroke) ** 2 + (strays * length) ** 2) * alike) / size ** 2,
    priceFor: (points) => Math.log(Math.max(FEWEST, points / alike)),
    stroke,
  };
};

export const intoFrame = ({ middle, size }: Frame, { x, y }: Point): Point => ({
  x: (x - middle.x) / size,
  y: (y - middle.y) / size,
});
export const outOfFrame = ({ middle, size }: Frame, { x, y }: Point): Point => ({
  x: middle.x + x * size,
  y: middle.y + y * size,
});

/** What some sums cost as a line or as an arc over so many pixels. */
export const costOf = (frame: Frame, kind: Stroke["kind"], sums: Sums, length: number): number => {
  const rss = kind === "line" ? lineRss(sums) : (roundOf(sums)?.rss ?? Infinity);
  return rss / frame.varianceFor(length) + (kind === "line" ? LINE_PRICE : ARC_PRICE) * frame.priceFor(sums[0]!);
};

const median = (values: readonly number[]): number => [...values].sort((p, q) => p - q)[values.length >> 1] ?? 0;

/** A path cut into the fewest straight and round runs that a hand would make of it. */
export const strokesOn = (path: Centred, frame: Frame): readonly Stroke[] => {
  let { points, mass } = path;
  const framed = (): Costs => {
    const own = points.map((p) => intoFrame(frame, p));
    const along = [0];
    for (let i = 1; i < points.length; i++) along.push(along[i - 1]! + distance(points[i - 1]!, points[i]!));
    return {
      points: own,
      moments: momentsOf(own, new Uint8Array(own.length).fill(1)),
      varianceOf: (from, to) => frame.varianceFor(along[to - 1]! - along[from]!, CUT_STRAYS),
      even: false,
      along: { points: Math.round(ENDS * frame.stroke), most: LEAVES },
      price: frame.priceFor(points.length),
      shares: false,
    };
  };
  if (points.length < 2) return [];
  let costs = framed();
  let segments: readonly Segment[] = segmented(costs);
  if (path.closed) {
    if (isOneCircle(segments, costs)) segments = [{ from: 0, to: points.length, kind: "arc" }];
    else {
      // begun within the longest piece, whose halves become one again: all true breaks lie inside
      const longest = segments.reduce((best, one) => (one.to - one.from > best.to - best.from ? one : best));
      const start = (longest.from + longest.to) >> 1;
      points = [...points.slice(start), ...points.slice(0, start)];
      mass = [...mass.slice(start), ...mass.slice(0, start)];
      costs = framed();
      segments = segmented(costs);
    }
  }
  const line: Line = { points, moments: costs.moments, mass };
  return lookedAgain(segments, costs).map(({ from, to }) => strokeOf(frame, [{ line, from, to }]));
};

/** Some runs as one stroke, of the cheaper kind, as long as all of them unless it is told. */
export const strokeOf = (frame: Frame, runs: readonly Run[], long?: number): Stroke => {
  const sums = runs
    .map(({ line, from, to }) => line.moments.sums(from, to))
    .reduce((total, own) => total.map((value, k) => value + own[k]!));
  const lengths = runs.map((run) => runLength(run));
  const length = long ?? lengths.reduce((total, own) => total + own, 0);
  const mass = median(runs.flatMap(({ line, from, to }) => line.mass.slice(from, to)));
  return { kind: kindOf(frame, sums, length), runs, sums, length, mass };
};

/** A hand's line bows by less than this part of its length, or so many strokes. */
const [BOWS, BOWS_STROKES] = [0.012, 0.4];

const kindOf = (frame: Frame, sums: Sums, length: number): Stroke["kind"] => {
  const round = roundOf(sums);
  if (!round || costOf(frame, "arc", sums, length) >= costOf(frame, "line", sums, length)) return "line";
  const bow = length ** 2 / (8 * round.radius * frame.size);
  return bow < Math.max(BOWS * length, BOWS_STROKES * frame.stroke) ? "line" : "arc";
};

const runLength = ({ line: { points }, from, to }: Run): number => {
  let sum = 0;
  for (let i = from + 1; i < to; i++) sum += distance(points[i - 1]!, points[i]!);
  return sum;
};
