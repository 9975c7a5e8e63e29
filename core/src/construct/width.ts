import { pieceCarrier } from "../geometry/curve.ts";
import {
  arcBetween,
  bulgeOf,
  line,
  pieceDirection,
  pieceLength,
  reversePiece,
  sweepOf,
  type Piece,
} from "../geometry/piece.ts";
import { along, angleOf, cross, distance, dot, leftOf, type Point } from "../geometry/point.ts";
import { meetCarriers, meetingPoints } from "../intersect/carriers.ts";
import { TURN } from "../numeric/angle.ts";
import { done, refuse, type Outcome } from "../numeric/outcome.ts";
import { RESOLUTION, TANGENT_WITHIN } from "../numeric/tolerance.ts";
import { endedAt, startedAt } from "./cornerCuts.ts";

export const WIDTH_ENDS = ["flat", "round", "pointed"] as const;
export type WidthEnd = (typeof WIDTH_ENDS)[number];

/** The whole width of a piece at its start and at its end; between them it goes evenly with the length. */
export type WidthRun = readonly [from: number, to: number];

export type Width = {
  /** One for each piece. Only the two ends of an open chain may have none (0). */
  readonly runs: readonly WidthRun[];
  readonly ends: WidthEnd;
  readonly corners: "sharp" | "round";
};

type Side = readonly Piece[];

/** The widths of pieces that taper evenly with their length from the start of the first to the end of the last. */
export const taperedRuns = (pieces: readonly Piece[], from: number, to: number): readonly WidthRun[] => {
  const whole = pieces.reduce((sum, piece) => sum + pieceLength(piece), 0);
  let gone = 0;
  return pieces.map((piece) => {
    const next = gone + pieceLength(piece);
    const [p, q] = [gone, next].map((s) => from + ((to - from) * s) / whole);
    gone = next;
    return [p!, q!];
  });
};

/**
 * The closed contours round a chain that has been given a width: one, counter-clockwise, round an open chain; two, the
 * outer one first or last as they come, along a closed one. The width is measured square to the chain. Lines stay
 * lines, arcs stay arcs about their own centres. A round end touches both sides, a pointed one reaches out by half the
 * width, a width of 0 ends in a point. Where the width changes at once between pieces that run on straight, or nearly
 * so, the contour has a step.
 *
 * Refused: arcs that should taper (their sides are no arcs), no width within, arcs with a radius under half the width,
 * corners whose edges are too short for it. Whether the contour crosses itself elsewhere is left to the caller.
 *
 * Source: parallels by the unit normal, corners where the parallels meet; derived here. Error as of `meetCarriers`.
 */
export const widthContours = (pieces: readonly Piece[], closed: boolean, width: Width): Outcome<readonly Side[]> => {
  const { runs } = width;
  const n = pieces.length;
  for (const [i, [from, to]] of runs.entries()) {
    if (from !== to && pieces[i]!.bulge !== 0) return refuse("width-tapered-arc", {}, pieces[i]!.a);
    const mayEnd = (atEnd: boolean): boolean => !closed && atEnd;
    if (
      (from <= 0 && !(mayEnd(i === 0) && from === 0)) ||
      (to <= 0 && !(mayEnd(i === n - 1) && to === 0)) ||
      from + to <= 0
    )
      return refuse("width-none-within", {}, pieces[i]!.a);
  }
  const left = side(pieces, closed, width, 1);
  if (!left.ok) return left;
  const right = side(pieces, closed, width, -1);
  if (!right.ok) return right;
  const back = left.value.map(reversePiece).reverse();
  if (closed) return done([right.value, back]);
  const [first, last] = [pieces[0]!, pieces.at(-1)!];
  const ahead = cap(right.value.at(-1)!, back[0]!, last.b, pieceDirection(last, 1), width.ends);
  const behind = cap(back.at(-1)!, right.value[0]!, first.a, pieceDirection(reversePiece(first), 1), width.ends);
  return done([[...right.value, ...ahead, ...back, ...behind]]);
};

/** The parallel of every piece on one side (1 left, -1 right), run together at the corners. */
const side = (pieces: readonly Piece[], closed: boolean, width: Width, sign: 1 | -1): Outcome<Side> => {
  const sides: Piece[] = [];
  for (const [i, piece] of pieces.entries()) {
    const [h0, h1] = [width.runs[i]![0] / 2, width.runs[i]![1] / 2];
    const carrier = pieceCarrier(piece);
    const inwards = Math.sign(piece.bulge) === sign;
    if (carrier.kind === "circle" && inwards && carrier.radius - h0 <= RESOLUTION)
      return refuse("width-too-wide", { limit: 2 * carrier.radius }, piece.a);
    sides.push({
      a: along(piece.a, leftOf(pieceDirection(piece, 0)), sign * h0),
      b: along(piece.b, leftOf(pieceDirection(piece, 1)), sign * h1),
      bulge: piece.bulge,
    });
  }
  const made: Piece[] = [];
  const n = pieces.length;
  const run = [...sides];
  const between = new Map<number, Piece>();
  for (let i = 0; i < (closed ? n : n - 1); i++) {
    const j = (i + 1) % n;
    const [before, after] = [run[i]!, run[j]!];
    const vertex = pieces[i]!.b;
    if (distance(before.b, after.a) <= RESOLUTION) {
      run[j] = { ...after, a: before.b };
      continue;
    }
    const turn = cross(pieceDirection(pieces[i]!, 1), pieceDirection(pieces[j]!, 0));
    if (Math.abs(turn) <= TANGENT_WITHIN) {
      between.set(i, line(before.b, after.a)); // the width changes at once
      continue;
    }
    const evenly = width.runs[i]![1] === width.runs[j]![0];
    if (width.corners === "round" && turn * sign < 0 && evenly) {
      between.set(i, arcBetween(before.b, after.a, vertex, turn > 0));
      continue;
    }
    const meeting = meetCarriers(pieceCarrier(before), pieceCarrier(after), RESOLUTION);
    const [corner] = [...meetingPoints(meeting)].sort((p, q) => distance(p, vertex) - distance(q, vertex));
    if (!evenly && (!corner || distance(corner, vertex) > Math.max(width.runs[i]![1], width.runs[j]![0]))) {
      between.set(i, line(before.b, after.a)); // sides that hardly bend meet far from where the width changes
      continue;
    }
    if (!corner) return refuse("width-corner", {}, vertex);
    run[i] = endedAt(before, corner);
    run[j] = startedAt(after, corner);
  }
  for (const [i, piece] of run.entries()) {
    if (!runsOn(piece, sides[i]!)) return refuse("width-corner", {}, pieces[i]!.b);
    made.push(piece);
    const round = between.get(i);
    if (round) made.push(round);
  }
  return done(made);
};

/** Still runs the way it did before its ends were moved. */
const runsOn = (now: Piece, before: Piece): boolean =>
  before.bulge === 0
    ? dot({ x: now.b.x - now.a.x, y: now.b.y - now.a.y }, pieceDirection(before, 0)) > RESOLUTION
    : Math.abs(sweepOf(now.bulge)) < Math.abs(sweepOf(before.bulge)) + TURN / 2;

/**
 * What closes an end, from the side that comes to it to the side that goes back; `out` is the chain's own direction
 * there.
 */
const cap = (comes: Piece, goes: Piece, end: Point, out: Point, kind: WidthEnd): readonly Piece[] => {
  const gap = distance(comes.b, goes.a);
  if (gap <= RESOLUTION) return [];
  if (kind === "flat") return [line(comes.b, goes.a)];
  if (kind === "pointed") {
    const tip = along(end, out, gap / 2);
    return [line(comes.b, tip), line(tip, goes.a)];
  }
  const turn = angleOf(pieceDirection(goes, 0)) - angleOf(pieceDirection(comes, 1));
  return [{ a: comes.b, b: goes.a, bulge: bulgeOf(((turn % TURN) + TURN) % TURN) }];
};
