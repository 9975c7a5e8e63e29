import { cross, distance, subtract, type Point } from "../../geometry/point.ts";
import { lineToPoints } from "../toPoints.ts";
import { cheapest, type Costs, type Segment } from "./segments.ts";

/** An arc that gains less than this (χ²) over a line is one. */
const LEAST_GAIN = 16;
/** What a break and a line more may cost before two lines are one, and an arc before a corner is sharp: in Λ. */
const [LINE_MORE, ARC_MORE] = [3, 4];

type Off = (p: Point) => number;

/** How far a place lies off the line nearest to some points, to its left above 0. */
const offLine = (points: readonly Point[]): Off => {
  const line = lineToPoints(points);
  if (!line) return () => 0;
  const { a, b } = line.piece;
  const length = distance(a, b);
  return (p) => cross(subtract(b, a), subtract(p, a)) / length;
};

/** Makes shallow arcs lines, lines that run on one, and corners sharp where no more is told. */
export const lookedAgain = (segments: readonly Segment[], costs: Costs): readonly Segment[] => {
  const { moments, varianceOf, price } = costs;
  const straight = (from: number, to: number): number => moments.line(from, to) / varianceOf(from, to);
  const plain = segments.map((one): Segment => {
    if (one.kind === "line") return one;
    const round = moments.round(one.from, one.to);
    return round && straight(one.from, one.to) - round.rss / varianceOf(one.from, one.to) >= LEAST_GAIN
      ? one
      : { ...one, kind: "line" };
  });
  const merged: Segment[] = [];
  for (const one of plain) {
    const last = merged.at(-1);
    const more =
      last?.kind === "line" && one.kind === "line"
        ? straight(last.from, one.to) - straight(last.from, last.to) - straight(one.from, one.to)
        : Infinity;
    if (last && more < LINE_MORE * price) merged[merged.length - 1] = { ...last, to: one.to };
    else merged.push(one);
  }
  return sharpened(merged, costs);
};

/** Arcs between two lines that are no more than what scatters about their corner. */
const sharpened = (segments: readonly Segment[], costs: Costs): readonly Segment[] => {
  const { points, moments, varianceOf, price } = costs;
  const out: Segment[] = [];
  for (let i = 0; i < segments.length; i++) {
    const [before, own, after] = [out.at(-1), segments[i]!, segments[i + 1]];
    const round = own.kind === "arc" ? moments.round(own.from, own.to) : undefined;
    if (before?.kind !== "line" || after?.kind !== "line" || !round) {
      out.push(own);
      continue;
    }
    const [first, second] = [before, after].map(({ from, to }) => offLine(points.slice(from, to))) as [Off, Off];
    // the cheapest place for the corner: points before it lie on the first line, those after it on the second
    let left = 0;
    for (let k = own.from; k < own.to; k++) left += second(points[k]!) ** 2;
    let [best, at] = [left, own.from];
    for (let k = own.from; k < own.to; k++) {
      left += first(points[k]!) ** 2 - second(points[k]!) ** 2;
      if (left < best) [best, at] = [left, k + 1];
    }
    const variance = varianceOf(own.from, own.to);
    if (best / variance > round.rss / variance + ARC_MORE * price) {
      out.push(own);
      continue;
    }
    out[out.length - 1] = { ...before, to: at };
    out.push({ ...after, from: at });
    i += 1;
  }
  return out;
};

/** Pieces without one of them: its points go to the neighbour that they cost less. */
export const withoutOne = (segments: readonly Segment[], i: number, { moments }: Costs): readonly Segment[] => {
  const rss = ({ from, to, kind }: Segment): number =>
    (kind === "arc" ? moments.round(from, to)?.rss : undefined) ?? moments.line(from, to);
  const own = segments[i]!;
  const ways = [i - 1, i + 1].flatMap((k) => {
    const next = segments[k];
    if (!next) return [];
    const longer = k < i ? { ...next, to: own.to } : { ...next, from: own.from };
    const made = segments.map((one, j) => (j === k ? longer : one)).filter((_, j) => j !== i);
    return [{ made, more: rss(longer) - rss(next) }];
  });
  return ways.reduce((best, way) => (way.more < best.more ? way : best)).made;
};

/** True where one circle through all points costs no more than the pieces. */
export const isOneCircle = (segments: readonly Segment[], costs: Costs): boolean => {
  const { moments, points, varianceOf, price } = costs;
  const round = moments.round(0, points.length);
  if (!round) return false;
  const sum = segments.reduce((total, { from, to }) => total + (cheapest(costs, from, to)?.cost ?? 0), 0);
  return round.rss / varianceOf(0, points.length) + ARC_MORE * price <= sum;
};
