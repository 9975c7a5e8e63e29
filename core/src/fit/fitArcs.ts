import { countEffort } from "../numeric/effort.ts";
import { least } from "../numeric/greatest.ts";
import { smoothOf, type Curve } from "../geometry/curve.ts";
import { isWhole, type Ellipse } from "../geometry/ellipse.ts";
import { pieceNearest, type Piece } from "../geometry/piece.ts";
import { distance, dot, leftOf, subtract, type Point } from "../geometry/point.ts";
import { biarc, oneArc } from "./biarc.ts";
import { deviationOf, legsOfRun, legsOfSmooth, type Leg } from "./deviation.ts";
import { stationsOfRun, stationsOfSmooth, type Station } from "./stations.ts";

/** Arcs and lines in place of a curve, tangent to each other but at its corners, and how far they lie off it. */
export type ArcFit = {
  readonly pieces: readonly Piece[];
  readonly closed: boolean;
  /** The largest distance from what was fitted, and where. */
  readonly deviation: number;
  readonly at: Point;
  /** The distance all along: lengths along the source, left of it positive. */
  readonly profile: readonly { readonly along: number; readonly off: number }[];
};

/** Ratios of the two tangent lengths that are tried for each pair of arcs. */
const RATIOS = [1, 0.85, 1 / 0.85, 0.7, 1 / 0.7, 0.6, 1 / 0.6, 0.5, 2, 0.4, 2.5, 0.3, 1 / 0.3];

/** Two arcs between stations no farther than `tolerance` from all between; undefined where there are none. */
const arcsBetween = (
  stations: readonly Station[],
  i: number,
  j: number,
  tolerance: number,
): readonly Piece[] | undefined => {
  const [p, q] = [stations[i]!, stations[j]!];
  const u = p.corner ?? p.direction!;
  const v = q.direction!;
  const alone = p.piece && nextBreak(stations, i) === j ? [p.piece] : undefined;
  if (alone && p.kept) return alone;
  const near = (arcs: readonly Piece[]): boolean => {
    countEffort("looks", p.at, j - i);
    for (let k = i + 1; k < j; k++) if (!(offArcs(arcs, stations[k]!.at) <= tolerance)) return false;
    return true;
  };
  const one = oneArc(p.at, u, q.at, v);
  if (one && near([one])) return [one];
  for (const ratio of RATIOS) {
    const arcs = biarc(p.at, u, q.at, v, ratio);
    if (arcs && near(arcs)) return arcs;
  }
  return alone; // a piece that bends too much to be one with its neighbours stays, with its corners
};

const offArcs = (arcs: readonly Piece[], p: Point): number => least(arcs.map((arc) => pieceNearest(arc, p).distance));

const nextBreak = (stations: readonly Station[], i: number): number => {
  let j = i + 1;
  while (j < stations.length - 1 && !stations[j]!.direction) j++;
  return j;
};

/**
 * From each break as far as two arcs reach, by doubling and halving; undefined where not even the next break is
 * reached.
 */
const greedy = (
  stations: readonly Station[],
  breaks: readonly number[],
  tolerance: number,
): readonly Piece[] | undefined => {
  const pieces: Piece[] = [];
  let from = 0;
  while (from < breaks.length - 1) {
    let limit = from + 1;
    while (
      limit < breaks.length - 1 &&
      !stations[breaks[limit]!]!.corner &&
      !stations[breaks[limit]!]!.kept &&
      !stations[breaks[limit - 1]!]!.kept
    )
      limit++;
    let [good, step] = [from, 1];
    let made: readonly Piece[] | undefined;
    const reach = (to: number): boolean => {
      const arcs = arcsBetween(stations, breaks[from]!, breaks[to]!, tolerance);
      if (arcs) [good, made] = [to, arcs];
      return arcs !== undefined;
    };
    while (good < limit && reach(Math.min(limit, from + step))) step *= 2;
    let bad = Math.min(limit + 1, from + step);
    while (bad - good > 1) {
      const middle = (good + bad) >> 1;
      if (!reach(middle)) bad = middle;
    }
    if (!made || good === from) return undefined;
    for (const piece of made) pieces.push(piece);
    from = good;
  }
  return pieces;
};

/** How often the tolerance is halved in looking for the tightest that takes no more pieces. */
const TIGHTENED = 12;

/**
 * The fit of stations within a tolerance: as few arcs as going as far as possible each time finds, then the tightest
 * that takes no more of them, which spreads the deviation evenly. Undefined where the stations can't be followed.
 */
const fitStations = (stations: readonly Station[], tolerance: number): readonly Piece[] | undefined => {
  const breaks = stations.flatMap(({ direction }, i) => (direction ? [i] : []));
  const first = greedy(stations, breaks, tolerance);
  if (!first || first.length > 400) return first;
  let best = first;
  let [low, high] = [0, tolerance];
  for (let i = 0; i < TIGHTENED; i++) {
    const middle = (low + high) / 2;
    const made = greedy(stations, breaks, middle);
    if (made && made.length <= best.length) [best, high] = [made, middle];
    else low = middle;
  }
  return best;
};

/** How far pieces lie off what they stand for: at places along it in running order, and at the most, proven. */
export const measureFit = (
  stations: readonly Pick<Station, "at" | "along">[],
  legs: readonly Leg[],
  fitted: readonly Piece[],
  closed: boolean,
): ArcFit => {
  const pieces = fitted.filter(({ a, b }) => distance(a, b) > 0);
  const nearest = (p: Point, among: readonly number[]): number =>
    among.reduce((best, i) =>
      pieceNearest(pieces[i]!, p).distance < pieceNearest(pieces[best]!, p).distance ? i : best,
    );
  let k = nearest(stations[0]!.at, [...pieces.keys()]);
  const profile = stations.map((station) => {
    // stations and pieces run on together: the nearest piece is the last one, or soon after it
    const ahead = [0, 1, 2, 3].map((more) => k + more).filter((i) => closed || i < pieces.length);
    k = nearest(
      station.at,
      ahead.map((i) => i % pieces.length),
    );
    const best = pieceNearest(pieces[k]!, station.at);
    const { a, b } = pieces[k]!;
    const side = Math.sign((b.x - a.x) * (best.at.y - station.at.y) - (b.y - a.y) * (best.at.x - station.at.x));
    return { along: station.along, off: side * best.distance };
  });
  return { pieces, closed, ...deviationOf(legs, pieces, closed), profile };
};

/**
 * A smooth curve as tangent arcs and lines within `tolerance` of it, its ends exactly where they are, corners kept.
 * Undefined for what is no smooth curve, or can't be followed. The tolerance holds between the places looked at, too.
 */
export const fitCurve = (curve: Curve, tolerance: number): ArcFit | undefined => {
  if (curve.kind !== "ellipse" && curve.kind !== "free") return undefined;
  const smooth = smoothOf(curve);
  const stations = stationsOfSmooth(smooth);
  const legs = legsOfSmooth(smooth);
  return withinTolerance(tolerance, (within) => {
    const pieces =
      curve.kind === "ellipse" && isWhole(curve) ? fitEllipse(curve, within) : fitStations(stations, within);
    return pieces && measureFit(stations, legs, closedUp(pieces, smooth.closed), smooth.closed);
  });
};

/** How often a fit is tried anew, tighter, that keeps its tolerance at the places looked at and not between them. */
const TRIES = 6;

/** A fit whose deviation holds everywhere; undefined where none is found. */
const withinTolerance = (tolerance: number, fit: (within: number) => ArcFit | undefined): ArcFit | undefined => {
  let within = tolerance;
  for (let n = 0; n < TRIES; n++) {
    const made = fit(within);
    if (!made || made.deviation <= tolerance) return made;
    within *= Math.min(0.9, (0.95 * tolerance) / made.deviation);
  }
  return undefined;
};

/** A run of pieces as fewer tangent arcs and lines within `tolerance`, corners over `cornerAngle` (radians) kept. */
export const fitRun = (
  run: readonly Piece[],
  closed: boolean,
  tolerance: number,
  cornerAngle = CORNER,
): ArcFit | undefined => {
  const stations = stationsOfRun(run, closed, cornerAngle);
  const legs = legsOfRun(run);
  return withinTolerance(tolerance, (within) => {
    const pieces = fitStations(stations, within);
    return pieces && measureFit(stations, legs, closedUp(pieces, closed), closed);
  });
};

/** A whole ellipse by its first quarter, mirrored: the arcs on both sides of an end of an axis are one. */
const fitEllipse = (ellipse: Ellipse, tolerance: number): readonly Piece[] | undefined => {
  const { centre, major } = ellipse;
  const turn = Math.sign(ellipse.sweep) * (Math.PI / 2);
  const quarter = fitStations(
    stationsOfSmooth(smoothOf({ kind: "ellipse", ...ellipse, from: 0, sweep: turn })),
    tolerance,
  );
  if (!quarter) return undefined;
  const mirrored = (pieces: readonly Piece[], axis: Point): readonly Piece[] =>
    pieces
      .map(({ a, b, bulge }) => ({ a: acrossAxis(b, centre, axis), b: acrossAxis(a, centre, axis), bulge }))
      .reverse();
  const half = merged(quarter, mirrored(quarter, leftOf(major)));
  const [first, ...rest] = merged(half, mirrored(half, major));
  const last = rest.pop();
  return last && first ? [...rest, double({ a: last.a, b: first.b, bulge: last.bulge })] : undefined;
};

const acrossAxis = (p: Point, centre: Point, axis: Point): Point => {
  const v = subtract(p, centre);
  const along = (2 * dot(v, axis)) / dot(axis, axis);
  return { x: centre.x + along * axis.x - v.x, y: centre.y + along * axis.y - v.y };
};

/** An arc and its mirror image, from the one's start to the other's end: twice the sweep. */
const double = ({ a, b, bulge }: Piece): Piece => ({ a, b, bulge: Math.tan(2 * Math.atan(bulge)) });

const merged = (pieces: readonly Piece[], mirror: readonly Piece[]): readonly Piece[] => [
  ...pieces.slice(0, -1),
  double({ a: pieces.at(-1)!.a, b: mirror[0]!.b, bulge: pieces.at(-1)!.bulge }),
  ...mirror.slice(1),
];

/** Turns over this (radians, 20 degrees) are taken for corners. Common practice. */
export const CORNER = (20 * Math.PI) / 180;

const closedUp = (pieces: readonly Piece[], closed: boolean): readonly Piece[] =>
  closed ? [...pieces.slice(0, -1), { ...pieces.at(-1)!, b: pieces[0]!.a }] : pieces;
