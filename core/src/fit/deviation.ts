import { offCarrier, spanOf } from "../arrangement/span.ts";
import { boundsSize } from "../geometry/bounds.ts";
import { pieceNearest, piecePoint, pieceRadius, piecesBounds, sweepOf, type Piece } from "../geometry/piece.ts";
import { distance, dot, subtract, unit, type Point } from "../geometry/point.ts";
import type { Smooth } from "../geometry/smooth.ts";

/** Part of what is fitted: its ends and middle by a parameter, and the length of its second derivative at the most. */
export type Leg = {
  readonly at: (t: number) => Point;
  readonly from: number;
  readonly to: number;
  readonly bend: number;
};

/** How far something lies off what was fitted to it, and where; no farther anywhere than `most`. */
export type Deviation = { readonly deviation: number; readonly at: Point };

/** Parts of a smooth curve between two of its breaks: as short as those in which it is fitted. */
const PARTS = 48;

/** The parts of a smooth curve. */
export const legsOfSmooth = ({ at, breaks, bend }: Smooth): readonly Leg[] =>
  breaks.slice(1).flatMap((end, i) => {
    const start = breaks[i]!;
    const most = bend(start, end);
    const place = (k: number): number => (k === PARTS ? end : start + ((end - start) * k) / PARTS);
    return Array.from({ length: PARTS }, (_, k): Leg => ({ at, from: place(k), to: place(k + 1), bend: most }));
  });

/** The pieces of a run. */
export const legsOfRun = (pieces: readonly Piece[]): readonly Leg[] =>
  pieces.map((piece) => ({
    at: (t) => piecePoint(piece, t),
    from: 0,
    to: 1,
    bend: piece.bulge === 0 ? 0 : pieceRadius(piece) * sweepOf(piece.bulge) ** 2,
  }));

/** What is said may be more than the truth by this part of it, and by this part of the size of all. */
const PART = 0.002;
const LEAST = 1e-7;
/** A leg is halved so often at the most, and all of them together: then what is known so far is said. */
const DEEPEST = 30;
const HALVINGS = 200_000;

/**
 * How far legs that run on from one another lie off fitted pieces that run along them: an upper bound that holds
 * between all places looked at, and that is reached to 0.2 %. A leg keeps within bend · dt² / 8 of its chord, and a
 * chord's distance from a line or a circle is greatest at an end, or where it comes nearest to the middle; legs are
 * halved until that tells enough. Derived here. `at` is where the greatest distance was seen.
 */
export const deviationOf = (legs: readonly Leg[], fitted: readonly Piece[], closed: boolean): Deviation => {
  const pieces = fitted.filter(({ a, b }) => distance(a, b) > 0);
  const n = pieces.length;
  let seen: Deviation = { deviation: 0, at: legs[0]!.at(legs[0]!.from) };
  let bound = 0;
  let halvings = 0;
  const floor = LEAST * boundsSize(piecesBounds(pieces)!);
  const nearest = (p: Point, among: readonly number[]): { readonly k: number; readonly off: number } => {
    let best = { k: among[0]!, off: Infinity };
    for (const k of among) {
      const off = pieceNearest(pieces[k]!, p).distance;
      if (off < best.off) best = { k, off };
    }
    if (best.off > seen.deviation) seen = { deviation: best.off, at: p };
    return best;
  };
  const onwards = (k: number): readonly number[] =>
    [0, 1, 2, 3].map((more) => k + more).flatMap((i) => (i < n ? i : closed ? i % n : []));
  const told = (leg: Leg, p: Point, q: Point, from: number, to: number, start: number, depth: number): number => {
    const end = nearest(q, onwards(start)).k;
    const slack = (leg.bend * (to - from) ** 2) / 8;
    const chord = start === end ? chordOff(pieces[start]!, p, q) : undefined;
    const least = PART * seen.deviation + floor;
    if (chord !== undefined && chord + slack <= seen.deviation + least) {
      bound = Math.max(bound, chord + slack);
      return end;
    }
    // from one piece to the next, or round an end of one: no farther than the ends and half of the way between
    const way = Math.max(nearest(p, onwards(start)).off, nearest(q, [end]).off) + distance(p, q) / 2 + slack;
    halvings += 1;
    if (way <= seen.deviation + least || depth === DEEPEST || halvings > HALVINGS) {
      bound = Math.max(bound, way);
      return end;
    }
    const middle = (from + to) / 2;
    const m = leg.at(middle);
    const reached = told(leg, p, m, from, middle, start, depth + 1);
    return told(leg, m, q, middle, to, reached, depth + 1);
  };
  let at = nearest(legs[0]!.at(legs[0]!.from), [...pieces.keys()]).k;
  // once to see how far it is about, so that little of it is looked at closely
  let k = at;
  for (const leg of legs)
    for (const part of [0.25, 0.5, 0.75, 1]) k = nearest(leg.at(leg.from + part * (leg.to - leg.from)), onwards(k)).k;
  for (const leg of legs) at = told(leg, leg.at(leg.from), leg.at(leg.to), leg.from, leg.to, at, 0);
  return { deviation: Math.max(bound, seen.deviation), at: seen.at };
};

/** How far a chord lies off a piece at the most; undefined where an end of it is nearest to an end of the piece. */
const chordOff = (piece: Piece, p: Point, q: Point): number | undefined => {
  const span = spanOf(piece);
  const [s, t] = [Math.abs(offCarrier(span, p)), Math.abs(offCarrier(span, q))];
  const near = CLIPPED * (Math.min(pieceRadius(piece), distance(piece.a, piece.b)) + s + t);
  if (pieceNearest(piece, p).distance > s + near || pieceNearest(piece, q).distance > t + near) return undefined;
  const ends = Math.max(s, t) + near;
  const direction = unit(subtract(q, p));
  if (piece.bulge === 0 || !direction) return ends;
  const along = dot(subtract(span.centre, p), direction);
  // nearest to the middle between its ends
  if (along <= 0 || along >= distance(p, q)) return ends;
  const foot = { x: p.x + along * direction.x, y: p.y + along * direction.y };
  return Math.max(ends, Math.abs(offCarrier(span, foot)) + near);
};

/** Farther than off its carrier by this part of its size: the end of a piece is nearest, not a place within it. */
const CLIPPED = 1e-9;
