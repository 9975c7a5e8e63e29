import { KINK, SAME_PARAMETER } from "../numeric/tolerance.ts";
import { greatest } from "../numeric/greatest.ts";
import { pieceDirection, pieceLength, piecePoint, type Piece } from "../geometry/piece.ts";
import { angleOf, distance, unit, type Point } from "../geometry/point.ts";
import type { Smooth } from "../geometry/smooth.ts";
import { signedAngle } from "../numeric/angle.ts";
import { refined } from "../numeric/roots.ts";

/**
 * A place on what is fitted, in running order. Arcs may only begin and end where `direction` is known; `corner` says
 * that they must.
 */
export type Station = {
  readonly at: Point;
  /** How far along, in lengths. */
  readonly along: number;
  readonly direction?: Point;
  /** The direction in which it goes on, where that is another one. */
  readonly corner?: Point;
  /** The piece from here to the next end, of a run. */
  readonly piece?: Piece;
  /** That piece is to be kept as it is. */
  readonly kept?: boolean;
};

/** Between two of its breaks a smooth curve is looked at in so many places. */
const LOOKS = 48;

/** Places along a smooth curve, close together; where its direction jumps at a break there is a corner. */
export const stationsOfSmooth = (smooth: Smooth): readonly Station[] => {
  const stations: Station[] = [];
  const places = refined(smooth.breaks, LOOKS);
  const breaks = new Set(smooth.breaks);
  let along = 0;
  places.forEach((t, i) => {
    const at = smooth.at(t);
    if (i > 0) along += distance(stations.at(-1)!.at, at);
    const inner = breaks.has(t) && t > 0 && t < 1;
    const [before, after] = inner
      ? [t - SAME_PARAMETER, t + SAME_PARAMETER].map((s) => unit(smooth.first(s)))
      : [undefined, undefined];
    const direction = unit(smooth.first(t)) ??
      unit(smooth.first(t < 0.5 ? t + SAME_PARAMETER : t - SAME_PARAMETER)) ?? { x: 1, y: 0 };
    const jump = before && after && Math.abs(signedAngle(angleOf(after) - angleOf(before))) > KINK;
    stations.push({ at, along, direction: jump ? before : direction, ...(jump ? { corner: after } : {}) });
  });
  return stations;
};

/** A straight piece so many times as long as its neighbours is a straight edge, not a chord of something round. */
const LONG = 4;

/**
 * Places along a run of pieces: their ends, where arcs may begin and end, and places between, which only have to be
 * kept near. The direction at an end is that of the circle through it and its neighbours; beside an edge that is long,
 * and at ends, that of the edge. Turns over `cornerAngle` (radians) are corners.
 */
export const stationsOfRun = (pieces: readonly Piece[], closed: boolean, cornerAngle: number): readonly Station[] => {
  const n = pieces.length;
  const lengths = pieces.map(pieceLength);
  const piece = (i: number): Piece | undefined => (closed ? pieces.at(i % n) : pieces[i]);
  const length = (i: number): number => (closed ? lengths.at(i % n)! : (lengths[i] ?? 0));
  const isEdge = (i: number): boolean => {
    const own = piece(i);
    if (!own || own.bulge !== 0) return true;
    const beside = [length(i - 1), length(i + 1)].filter((size) => size > 0);
    return beside.length > 0 && length(i) > LONG * greatest(beside);
  };
  const stations: Station[] = [];
  let along = 0;
  for (let i = 0; i <= n; i++) {
    const [before, after] = [i > 0 || closed ? piece(i - 1) : undefined, i < n || closed ? piece(i) : undefined];
    const u = before && pieceDirection(before, 1);
    const v = after && pieceDirection(after, 0);
    const at = i < n ? pieces[i]!.a : pieces[n - 1]!.b;
    const turn = u && v ? signedAngle(angleOf(v) - angleOf(u)) : 0;
    const own = i < n ? { piece: pieces[i]!, ...(isEdge(i) && n > 1 ? { kept: true } : {}) } : {};
    let direction = u ?? v!;
    let corner: Point | undefined;
    if (u && v) {
      if (Math.abs(turn) > cornerAngle) corner = v;
      else if (isEdge(i - 1) && isEdge(i)) corner = Math.abs(turn) > KINK ? v : undefined;
      else if (isEdge(i)) direction = v;
      else if (!isEdge(i - 1)) direction = throughThree(u, turn, length(i - 1), length(i));
    }
    stations.push({ at, along, direction, ...(corner ? { corner } : {}), ...own });
    if (i === n) break;
    for (const part of [0.25, 0.5, 0.75])
      stations.push({ at: piecePoint(pieces[i]!, part), along: along + part * lengths[i]! });
    along += lengths[i]!;
  }
  return stations;
};

/**
 * On a circle through three places the direction in the middle one turns from the first chord by that chord's share of
 * the turn.
 */
const throughThree = (u: Point, turn: number, before: number, after: number): Point => {
  const angle = angleOf(u) + (turn * before) / (before + after);
  return { x: Math.cos(angle), y: Math.sin(angle) };
};
