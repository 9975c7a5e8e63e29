import { enclosedArea } from "../contour/chainMeasure.ts";
import { boxesOf } from "../geometry/boxesOf.ts";
import { boxTree } from "../geometry/boxTree.ts";
import { circlesOfCurves } from "../geometry/rings.ts";
import { line, pieceDirection, pieceLength, piecePoint, pieceRadius, type Piece } from "../geometry/piece.ts";
import { along, distance, leftOf, times, type Point } from "../geometry/point.ts";
import { meetings } from "../intersect/meetings.ts";
import { RESOLUTION } from "../numeric/tolerance.ts";
import type { LayerUse } from "../release/machineProfile.ts";
import { cutOrder } from "./order.ts";
import { feedAt, type Process } from "./process.ts";
import type { CutPath } from "./readCut.ts";

/** One thing that is cut: got to, pierced, led into, gone along. Lengths in mm, times in s. */
export type RunStep = {
  readonly use: LayerUse;
  /** From where it is got to, and where it is pierced. */
  readonly from: Point;
  readonly pierce: Point;
  /** The way in and the contour itself, from its start round to it; of a single hole nothing. */
  readonly pieces: readonly Piece[];
  readonly leadIn: number;
  readonly travel: number;
  readonly length: number;
  readonly travelTime: number;
  readonly pierceTime: number;
  readonly cutTime: number;
};

/** The run of a file: what is cut in which order, and what it comes to. */
export type CutterRun = {
  readonly steps: readonly RunStep[];
  readonly time: number;
  readonly cut: number;
  readonly travel: number;
  readonly pierces: number;
  /** Contours that were pierced on their own line, since no way in fits. */
  readonly unled: number;
};

const HOME: Point = { x: 0, y: 0 };

/**
 * The run of paths by a process: marks and single holes first, then closed contours from inside out, each led into from
 * its waste side where that fits, at the feed that its arcs allow. Times are sums of lengths over speeds: no machine
 * starts and stops at once, so a real one takes longer.
 */
export const runOf = (paths: readonly CutPath[], process: Process): CutterRun => {
  const closed = paths.filter((path) => path.kind === "run" && path.closed && path.use !== "mark") as Run[];
  const first = paths.filter((path) => path.kind === "point" || !path.closed || path.use === "mark");
  const all = closed.flatMap(({ pieces }) => pieces);
  const tree = boxTree(boxesOf(all), circlesOfCurves(all));
  const isFree = (way: Piece, start: Point): boolean => {
    let free = true;
    const { a, b } = way;
    tree.within(Math.min(a.x, b.x), Math.min(a.y, b.y), Math.max(a.x, b.x), Math.max(a.y, b.y), (k) => {
      free = meetings({ kind: "piece", ...all[k]! }, { kind: "piece", ...way }, RESOLUTION).every(
        (one) => one.kind !== "overlap" && distance(one.at, start) <= 2 * RESOLUTION,
      );
      return !free;
    });
    return free;
  };

  const steps: RunStep[] = [];
  let at = HOME;
  let unled = 0;
  const step = (use: LayerUse, pierce: Point, pieces: readonly Piece[], leadIn: number): void => {
    const travel = distance(at, pierce);
    const length = pieces.reduce((sum, piece) => sum + pieceLength(piece), 0);
    const cutTime = pieces.reduce((sum, piece) => sum + timeOf(piece, process), 0);
    const travelTime = (60 * travel) / process.rapid;
    const pierceTime = process.pierce;
    steps.push({ use, from: at, pierce, pieces, leadIn, travel, length, travelTime, pierceTime, cutTime });
    at = pieces.at(-1)?.b ?? pierce;
  };
  for (const path of first)
    if (path.kind === "point") step(path.use, path.at, [], 0);
    else step(path.use, path.pieces[0]!.a, path.pieces, 0);
  const order = cutOrder(
    closed.map(({ pieces }) => pieces),
    at,
  );
  for (const i of order) {
    const { pieces, use } = closed[i]!;
    const turned = startingNear(pieces, at);
    const lead = process.leadIn > 0 ? leadInto(turned, use, process.leadIn, isFree) : undefined;
    if (!lead && process.leadIn > 0) unled += 1;
    step(use, lead?.a ?? turned[0]!.a, lead ? [lead, ...turned] : turned, lead ? distance(lead.a, lead.b) : 0);
  }
  const sum = (of: (one: RunStep) => number): number => steps.reduce((total, one) => total + of(one), 0);
  return {
    steps,
    time: sum(({ travelTime, pierceTime, cutTime }) => travelTime + pierceTime + cutTime),
    cut: sum(({ length }) => length),
    travel: sum(({ travel }) => travel),
    pierces: steps.length,
    unled,
  };
};

type Run = Extract<CutPath, { kind: "run" }>;

/** How long a piece takes, s: its length over the feed at its radius. */
export const timeOf = (piece: Piece, process: Process): number => (60 * pieceLength(piece)) / feedOf(piece, process);

/** How fast a piece is cut, mm/min. */
const feedOf = (piece: Piece, process: Process): number =>
  feedAt(process, piece.bulge === 0 ? Infinity : pieceRadius(piece));

/** How fast it cuts from one place of the way to the next: lengths cut so far in mm, the time of the run in s. */
export type FeedSpan = { readonly from: number; readonly to: number; readonly time: number; readonly feed: number };

/** How fast a run cuts along its way, what follows at one feed as one span; travel and piercing take no length. */
export const feedsAlong = ({ steps }: CutterRun, process: Process): readonly FeedSpan[] => {
  const spans: { from: number; to: number; time: number; feed: number }[] = [];
  let [cut, time] = [0, 0];
  for (const { travelTime, pierceTime, pieces } of steps) {
    time += travelTime + pierceTime;
    for (const [i, piece] of pieces.entries()) {
      const [length, feed] = [pieceLength(piece), feedOf(piece, process)];
      const last = spans.at(-1);
      if (i > 0 && last?.feed === feed) last.to += length;
      else spans.push({ from: cut, to: cut + length, time, feed });
      cut += length;
      time += timeOf(piece, process);
    }
  }
  return spans;
};

/** A contour from its joint that is nearest to a place. */
const startingNear = (pieces: readonly Piece[], at: Point): readonly Piece[] => {
  let best = 0;
  for (let i = 1; i < pieces.length; i++) if (distance(pieces[i]!.a, at) < distance(pieces[best]!.a, at)) best = i;
  return [...pieces.slice(best), ...pieces.slice(0, best)];
};

/** So often a way in is made shorter by half before there is none. */
const SHORTER = 3;

/** A way into a contour's start from its waste side, half way between both pieces there; undefined where none fits. */
const leadInto = (
  pieces: readonly Piece[],
  use: LayerUse,
  length: number,
  isFree: (way: Piece, start: Point) => boolean,
): Piece | undefined => {
  const start = pieces[0]!.a;
  const [out, back] = [pieceDirection(pieces[0]!, 0), pieceDirection(pieces.at(-1)!, 1)];
  const sum = { x: out.x + back.x, y: out.y + back.y };
  const size = Math.hypot(sum.x, sum.y);
  if (size < 1e-6) return undefined;
  // to the left of the way lies what is enclosed where it runs counter-clockwise
  const inside = enclosedArea(pieces) > 0 ? 1 : -1;
  const side = use === "inside" || use === "tapped" ? inside : -inside;
  const way = times(leftOf(times(sum, 1 / size)), side);
  for (let n = 0, own = length; n <= SHORTER; n++, own /= 2) {
    const lead = line(along(start, way, own), start);
    if (isFree(lead, start)) return lead;
  }
  return undefined;
};

/** Where the cutter is at a time of its run: the place, the step, and what it does there. */
export const runAt = (
  { steps, time: total }: CutterRun,
  time: number,
  process: Process,
): { readonly at: Point; readonly step: number; readonly state: "travel" | "pierce" | "cut" | "done" } => {
  let left = Math.max(0, time);
  // the sums below may be a last bit off the run's own
  for (const [i, one] of time < total ? steps.entries() : []) {
    if (left < one.travelTime) {
      const part = left / one.travelTime;
      const at = {
        x: one.from.x + (one.pierce.x - one.from.x) * part,
        y: one.from.y + (one.pierce.y - one.from.y) * part,
      };
      return { at, step: i, state: "travel" };
    }
    left -= one.travelTime;
    if (left < one.pierceTime) return { at: one.pierce, step: i, state: "pierce" };
    left -= one.pierceTime;
    if (left < one.cutTime) {
      for (const piece of one.pieces) {
        const own = timeOf(piece, process);
        if (left < own) return { at: piecePoint(piece, left / own), step: i, state: "cut" };
        left -= own;
      }
    } else left -= one.cutTime;
  }
  const last = steps.at(-1);
  return { at: last?.pieces.at(-1)?.b ?? last?.pierce ?? HOME, step: steps.length, state: "done" };
};
