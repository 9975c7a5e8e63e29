import { enclosesNothing } from "../../contour/joining.ts";
import type { Circle } from "../../geometry/circle.ts";
import { pieceNearest, type Piece } from "../../geometry/piece.ts";
import { equalPoint, type Point } from "../../geometry/point.ts";
import { least } from "../../numeric/greatest.ts";
import { piecesOn } from "./joints.ts";
import { isOneCircle, lookedAgain, withoutOne } from "./secondLook.ts";
import { momentsOf } from "./moments.ts";
import { noiseOf, type Noise } from "./noise.ts";
import { segmented, type Costs, type Segment } from "./segments.ts";
import { solved } from "./solve.ts";

/** Lines and arcs, or one circle, for measured points. */
export type Measured = {
  readonly closed: boolean;
  readonly pieces: readonly Piece[];
  /** The standard error of each piece's radius; NaN for lines, and where there are too many pieces to tell. */
  readonly radiusErrors: readonly number[];
  /** Where all of it is one circle; there are no pieces then. */
  readonly circle?: Circle;
  /** The points' own scatter that was reckoned with (standard deviation), and how many strayed and were left aside. */
  readonly scatter: number;
  readonly strayed: number;
  /** How far the points that count lie off it: the farthest, and the root mean square. */
  readonly largest: number;
  readonly rms: number;
};

/** What a parameter costs in Λ, the logarithm of how many points there are; they are reckoned as eight at least. */
const [PRICE, FEWEST] = [1.4, 8];
/** Fewer points than this say nothing of their scatter. */
export const TRACED_POINTS = 25;
/** Scatter above this part of half the size is none: the points lie too far apart to tell it from the shape. */
const MOST_SCATTER = 0.01;

/**
 * The fewest lines and arcs for points measured one after the other along an outline, under a scatter that is told or,
 * for 25 points and more, estimated from the points themselves: least description length over all ways to cut the run,
 * then least squares under what holds (tangent, level, upright, one centre, equal radii). Points are never exact data:
 * corners lie between them, but for an open run whose scatter is told: there corners are among the points. Undefined
 * for fewer than two points, and where they say nothing of their scatter.
 */
export const fitMeasured = (given: readonly Point[], closed: boolean, scatter?: number): Measured | undefined => {
  const distinct = given.filter((p, i) => i === 0 || !equalPoint(p, given[i - 1]!));
  while (closed && distinct.length > 1 && equalPoint(distinct[0]!, distinct.at(-1)!)) distinct.pop();
  if (distinct.length < 2) return undefined;
  const frame = frameOf(distinct);
  const points = distinct.map(frame.into);
  if (scatter === undefined && points.length < TRACED_POINTS) return undefined;
  const noise: Noise =
    scatter === undefined
      ? noiseOf(points, 1)
      : { sigma: scatter / frame.size, alike: 1, counts: new Uint8Array(points.length).fill(1) };
  if (scatter === undefined && noise.sigma > MOST_SCATTER) return undefined;
  const fitted = closed ? roundFit(points, noise) : runFit(points, noise, false, scatter !== undefined);
  const out = {
    scatter: noise.sigma * frame.size,
    strayed: noise.counts.reduce((sum, one) => sum - one, points.length),
  };
  if (fitted.circle) {
    const { centre, radius } = fitted.circle;
    const offs = fitted.points.map(({ x, y }) => Math.hypot(x - centre.x, y - centre.y) - radius);
    const circle = { centre: frame.back(centre), radius: radius * frame.size };
    return { closed, pieces: [], radiusErrors: [], circle, ...out, ...offOf(offs, fitted.counts, frame.size) };
  }
  const { pieces, segments, errors } = fitted;
  const offs = segments.flatMap(({ from, to }, i) => {
    const near = [pieces[i]!, pieces.at(i - 1)!, pieces[(i + 1) % pieces.length]!];
    return fitted.points.slice(from, to).map((p) => least(near.map((piece) => pieceNearest(piece, p).distance)));
  });
  const placed = pieces.map(({ a, b, bulge }) => ({ a: frame.back(a), b: frame.back(b), bulge }));
  if (closed && enclosesNothing(placed)) return undefined;
  const radiusErrors = errors.map((error) => error * frame.size);
  return {
    closed,
    pieces: joinedEnds(placed, closed),
    radiusErrors,
    ...out,
    ...offOf(offs, fitted.counts, frame.size),
  };
};

type Fit = {
  readonly points: readonly Point[];
  readonly counts: Uint8Array;
  readonly segments: readonly Segment[];
  readonly pieces: readonly Piece[];
  readonly errors: readonly number[];
  readonly circle?: Circle;
};

/** Lengths about 1 and the middle at the origin: sums of fourth powers keep their digits. */
const frameOf = (
  points: readonly Point[],
): { readonly size: number; readonly into: (p: Point) => Point; readonly back: (p: Point) => Point } => {
  let [left, right, low, high] = [Infinity, -Infinity, Infinity, -Infinity];
  for (const { x, y } of points) {
    left = Math.min(left, x);
    right = Math.max(right, x);
    low = Math.min(low, y);
    high = Math.max(high, y);
  }
  const [x, y] = [(left + right) / 2, (low + high) / 2];
  const size = Math.max(right - left, high - low) / 2;
  return {
    size,
    into: (p) => ({ x: (p.x - x) / size, y: (p.y - y) / size }),
    back: (p) => ({ x: x + p.x * size, y: y + p.y * size }),
  };
};

const costsOf = (points: readonly Point[], { sigma, alike, counts }: Noise, shares = false): Costs => ({
  points,
  moments: momentsOf(points, counts),
  // points that scatter alike say as much as fewer
  varianceOf: () => sigma * sigma * alike,
  even: true,
  price: PRICE * Math.log(Math.max(FEWEST, points.length / alike)),
  shares,
});

const runFit = (points: readonly Point[], noise: Noise, closed: boolean, shares = false): Fit => {
  const costs = costsOf(points, noise, shares);
  const { counts } = noise;
  const { moments } = costs;
  const variance = costs.varianceOf(0, points.length);
  for (let segments = lookedAgain(segmented(costs), costs); ;) {
    const found = solved({ points, counts, moments, segments, closed, weightOf: () => 1 / variance });
    const pieces = piecesOn(points, segments, found, closed);
    const back = pieces.findIndex((piece, i) => runsBack(piece, points, segments[i]!));
    if (back < 0 || segments.length < 3) return { points, counts, segments, pieces, errors: found.errors };
    segments = withoutOne(segments, back, costs);
  }
};

/** True of a straight piece that its neighbours cut beyond each other: it runs against its points, and is too short. */
const runsBack = ({ a, b, bulge }: Piece, points: readonly Point[], { from, to }: Segment): boolean => {
  const [p, q] = [points[from]!, points[to - 1]!];
  return bulge === 0 && (b.x - a.x) * (q.x - p.x) + (b.y - a.y) * (q.y - p.y) < 0;
};

/** A run that comes round, begun at its sharpest break: what it is cut into does not depend on where it was begun. */
const roundFit = (points: readonly Point[], noise: Noise): Fit => {
  const costs = costsOf(points, noise);
  const first = segmented(costs);
  const { counts } = noise;
  if (isOneCircle(first, costs)) {
    const { centre, radius } = costs.moments.round(0, points.length)!;
    return { points, counts, segments: [], pieces: [], errors: [], circle: { centre, radius } };
  }
  const start = sharpestBreak(first, points);
  const rotated = <T>(values: readonly T[]): readonly T[] => [...values.slice(start), ...values.slice(0, start)];
  return runFit(rotated(points), { ...noise, counts: Uint8Array.from(rotated(Array.from(counts))) }, true);
};

/** Where the run turns most from one piece to the next, away from where it was begun. */
const sharpestBreak = (segments: readonly Segment[], points: readonly Point[]): number => {
  const inner = segments.slice(1).filter(({ from }) => from > ASIDE && from < points.length - ASIDE);
  const turn = ({ from }: Segment): number => {
    const [p, q, r] = [points[from - ASIDE]!, points[from]!, points[from + ASIDE]!];
    return Math.abs(
      Math.atan2(
        (q.x - p.x) * (r.y - q.y) - (q.y - p.y) * (r.x - q.x),
        (q.x - p.x) * (r.x - q.x) + (q.y - p.y) * (r.y - q.y),
      ),
    );
  };
  return inner.reduce((best, one) => (best && turn(best) >= turn(one) ? best : one), inner[0])?.from ?? 0;
};

/** Points away from a break between which its turn is seen. */
const ASIDE = 4;

const offOf = (offs: readonly number[], counts: Uint8Array, size: number): Pick<Measured, "largest" | "rms"> => {
  let [largest, sum, count] = [0, 0, 0];
  offs.forEach((off, i) => {
    if (counts[i] === 0) return;
    largest = Math.max(largest, Math.abs(off));
    sum += off * off;
    count += 1;
  });
  return { largest: largest * size, rms: Math.sqrt(sum / Math.max(1, count)) * size };
};

/** Pieces that begin at the very place where the one before ends. */
const joinedEnds = (pieces: readonly Piece[], closed: boolean): readonly Piece[] =>
  pieces.map((piece, i) => ({ ...piece, a: i > 0 || closed ? pieces.at(i - 1)!.b : piece.a }));
