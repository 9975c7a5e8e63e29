import type { Point } from "../../geometry/point.ts";
import { signedAngle } from "../../numeric/angle.ts";
import type { Moments } from "./moments.ts";

/** A piece's points, from and up to but without to, and what it is. */
export type Segment = { readonly from: number; readonly to: number; readonly kind: "line" | "arc" };

/** What a piece costs: its squared distances in variances, and what its parameters cost to tell. */
export type Costs = {
  readonly moments: Moments;
  readonly points: readonly Point[];
  /** The variance that squared distances over some points are divided by; more over long ones where a hand wobbles. */
  readonly varianceOf: (from: number, to: number) => number;
  /** It is the same over all points: pieces that can't be the cheapest any more need not be looked at. */
  readonly even: boolean;
  /** What one parameter costs. */
  readonly price: number;
  /**
   * A piece that leaves the way of its own first or last so many points by more than this angle (radians) is none: what
   * strays with length must not swallow the corner that it ends in.
   */
  readonly along?: { readonly points: number; readonly most: number };
  /** Pieces share the point at which they meet: corners are among the points. */
  readonly shares: boolean;
};

/** Parameters of a piece, with the place where it ends. */
const [OF_LINE, OF_ARC] = [3, 4];
/** Points that an arc takes at least, and a line. */
const [ARC_POINTS, LINE_POINTS] = [5, 2];
/** An arc that is smaller than so many scatters is none. */
const LEAST_RADIUS = 3;
/** Turns that an arc goes at most. */
const MOST_TURNS = 1.03;
/** Places at which an arc's turning is looked at. */
const LOOKS = 12;
/** Stations at first, how much finer they get, and how far a break then goes, in strides. */
const [MOST_STATIONS, FINER, NEAR] = [500, 4, 3];
/** Costs as near as this are one. */
const TIE = 1e-9;

/** The cheaper kind with its cost, and what no line or arc over these points comes under, parameters aside. */
type Choice = { readonly cost: number; readonly kind: "line" | "arc"; readonly bound: number };

/** The cheaper of a line and an arc over some points; undefined where they are too few for either. */
export const cheapest = (costs: Costs, from: number, to: number): Choice | undefined => {
  const { moments, points, varianceOf, price } = costs;
  if (to - from < LINE_POINTS) return undefined;
  const variance = varianceOf(from, to);
  const straight = moments.line(from, to) / variance;
  const line = straight + OF_LINE * price;
  const more = costs.along && leaves(costs, from, to) ? LEAVES * price : 0;
  if (to - from < ARC_POINTS || straight + more <= (OF_ARC - OF_LINE) * price)
    return { cost: line + more, kind: "line", bound: 0 };
  const round = moments.round(from, to);
  const bent = round ? round.rss / variance : straight;
  const bound = Math.min(straight, bent);
  const cost = bent + OF_ARC * price;
  const isArc =
    round !== undefined &&
    round.radius ** 2 > LEAST_RADIUS ** 2 * variance &&
    cost < line + more &&
    !(costs.along && leaves(costs, from, to, round.centre)) &&
    Math.abs(turned(points, from, to, round.centre)) <= MOST_TURNS * 2 * Math.PI;
  return isArc ? { cost, kind: "arc", bound } : { cost: line + more, kind: "line", bound };
};

/** What a piece costs more, in prices, that leaves the way of its ends. */
const LEAVES = 5;

/** True where the first or the last points go another way than their chord, or the circle about a place, does there. */
const leaves = ({ points, along }: Costs, from: number, to: number, centre?: Point): boolean => {
  const { points: span, most } = along!;
  if (to - from < 2 * span) return false;
  const [a, b] = [points[from]!, points[to - 1]!];
  const chord = Math.atan2(b.y - a.y, b.x - a.x);
  const limit = Math.sin(most);
  return [from, to - 1 - span].some((at) => {
    const [p, q] = [points[at]!, points[at + span]!];
    const way = Math.atan2(q.y - p.y, q.x - p.x);
    // the sine tells it whichever way round
    const own = centre ? Math.atan2((p.y + q.y) / 2 - centre.y, (p.x + q.x) / 2 - centre.x) + Math.PI / 2 : chord;
    return Math.abs(Math.sin(way - own)) > limit;
  });
};

/** How far points go round a place, in radians, to the left above 0. */
export const turned = (points: readonly Point[], from: number, to: number, centre: Point): number => {
  let [sum, before] = [0, 0];
  for (let k = 0; k <= LOOKS; k++) {
    const { x, y } = points[from + Math.round((k * (to - 1 - from)) / LOOKS)]!;
    const angle = Math.atan2(y - centre.y, x - centre.x);
    if (k > 0) sum += signedAngle(angle - before);
    before = angle;
  }
  return sum;
};

/**
 * The cheapest lines and arcs, by dynamic programming over at most 500 places where a piece may end, then again near
 * those found and finer, down to single points. Pieces share no points, corners lie
 * between them, unless they are to.
 */
export const segmented = (costs: Costs): readonly Segment[] => {
  const count = costs.points.length;
  let stride = Math.max(1, Math.ceil(count / MOST_STATIONS));
  let places: number[][] = [];
  for (let at = 0; at < count; at += stride) places.push([at]);
  if (count - places.at(-1)![0]! < (costs.shares ? 1 : LINE_POINTS)) places.pop();
  places.push([count]);
  let found = cheapestOver(places, costs, places.length);
  while (stride > 1) {
    const fine = Math.max(1, Math.floor(stride / FINER));
    places = [[0]];
    for (const { from } of found.slice(1)) {
      const near: number[] = [];
      const first = Math.max(places.at(-1)!.at(-1)! + 1, from - NEAR * stride);
      for (let at = from - NEAR * stride; at <= from + NEAR * stride; at += fine)
        if (at >= first && at < count) near.push(at);
      if (near.length > 0) places.push(near);
    }
    places.push([count]);
    found = cheapestOver(places, costs, 3);
    stride = fine;
  }
  return found;
};

/** The cheapest over places in groups, where a piece goes from one group to one of the next so many, or within one. */
const cheapestOver = (groups: readonly (readonly number[])[], costs: Costs, ahead: number): readonly Segment[] => {
  const { shares } = costs;
  const at = groups.flat();
  const groupOf = groups.flatMap((group, g) => group.map(() => g));
  const total = new Float64Array(at.length).fill(Infinity);
  const pieces = new Int32Array(at.length);
  const before = new Int32Array(at.length).fill(-1);
  const kinds: Segment["kind"][] = [];
  total[0] = 0;
  // where the last piece may begin; what can't be the cheapest any more leaves it (Killick and others, JASA 107, 2012)
  let open = [0];
  for (let j = 1; j < at.length; j++) {
    const bounds = open.map((i) => {
      if (groupOf[i]! < groupOf[j]! - ahead) return Infinity;
      const choice = cheapest(costs, at[i]! - (shares && i > 0 ? 1 : 0), at[j]!);
      if (!choice) return 0;
      const sum = total[i]! + choice.cost;
      if (sum < total[j]! - TIE || (sum <= total[j]! + TIE && pieces[i]! + 1 < pieces[j]!)) {
        total[j] = sum;
        pieces[j] = pieces[i]! + 1;
        before[j] = i;
        kinds[j] = choice.kind;
      }
      return total[i]! + choice.bound;
    });
    if (costs.even) open = open.filter((_, k) => bounds[k]! <= total[j]! + (OF_ARC - OF_LINE) * costs.price + TIE);
    if (total[j]! < Infinity) open.push(j);
  }
  const out: Segment[] = [];
  for (let j = at.length - 1; j > 0; j = before[j]!) {
    if (before[j]! < 0) return [{ from: 0, to: at.at(-1)!, kind: "line" }]; // fewer than two points
    const from = at[before[j]!]!;
    out.push({ from: from - (shares && from > 0 ? 1 : 0), to: at[j]!, kind: kinds[j]! });
  }
  return out.reverse();
};
