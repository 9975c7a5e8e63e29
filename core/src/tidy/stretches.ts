import { circlePoint } from "../geometry/circle.ts";
import { arcBetween, reversePiece, type Piece } from "../geometry/piece.ts";
import type { Point } from "../geometry/point.ts";
import { TURN } from "../numeric/angle.ts";
import { sortShort } from "../numeric/sortShort.ts";
import { placeOn, positionOn, type Cover, type Track } from "./carriers.ts";
import type { Group } from "./onTracks.ts";
import type { Strand } from "./strands.ts";

/**
 * A stretch of a group's track between two places where members end: which members cover it, and how often it still has
 * to stay.
 */
export type Stretch = {
  readonly from: number;
  readonly length: number;
  readonly start: Point;
  readonly end: Point;
  readonly cover: number[];
  left: number;
};

/**
 * The stretches of a track in their order, those that each member covers, and where they begin and end (nowhere on
 * whole circles).
 */
export type Stretches = {
  readonly all: readonly Stretch[];
  readonly of: readonly (readonly Stretch[])[];
  readonly stops: Stops;
};

/** The places where members end, rising along the track; those within the tolerance are one, that of the first. */
export type Stops = { readonly positions: readonly number[]; readonly places: readonly Point[] };

const stopsOf = ({ track, members }: Group, strands: readonly Strand[], tolerance: number): Stops => {
  const positions: number[] = [];
  const places: Point[] = [];
  for (let k = 0; k < members.length; k++) {
    const { circle, piece } = strands[members[k]!.strand]!;
    if (circle) continue;
    positions.push(positionOn(track, piece.a), positionOn(track, piece.b));
    places.push(piece.a, piece.b);
  }
  const order: number[] = [];
  for (let i = 0; i < positions.length; i++) order.push(i);
  sortShort(order, (i, j) => positions[i]! - positions[j]!);
  const stops: { positions: number[]; places: Point[] } = { positions: [], places: [] };
  let last = -Infinity;
  for (let k = 0; k < order.length; k++) {
    const position = positions[order[k]!]!;
    if (position - last <= tolerance) continue;
    stops.positions.push((last = position));
    stops.places.push(places[order[k]!]!);
  }
  const { round } = track;
  // round a circle the last may be the first come round again
  if (round !== undefined && stops.positions.length > 1 && stops.positions[0]! + round - last <= tolerance) {
    stops.positions.pop();
    stops.places.pop();
  }
  return stops;
};

/** In time proportional to the members, their sorting apart, and what they cover. */
export const stretchesOf = (group: Group, strands: readonly Strand[], tolerance: number): Stretches => {
  const { track, members } = group;
  const { round } = track;
  const stops = stopsOf(group, strands, tolerance);
  const { positions, places } = stops;
  const all: Stretch[] = [];
  const put = (from: number, length: number, start: Point, end: Point): void =>
    void all.push({ from, length, start, end, cover: [], left: 0 });
  const last = positions.length - 1;
  for (let k = 0; k < last; k++) put(positions[k]!, positions[k + 1]! - positions[k]!, places[k]!, places[k + 1]!);
  if (round !== undefined) {
    const east = track.carrier.kind === "circle" ? circlePoint(track.carrier, 0) : places[0]!;
    if (last < 0) put(0, round, east, east);
    else put(positions[last]!, round - positions[last]! + positions[0]!, places[last]!, places[0]!);
  }
  const of: (readonly Stretch[])[] = [];
  for (let i = 0; i < members.length; i++) of.push(coveredBy(members[i]!.cover, i, all, stops, round, tolerance));
  return { all, of, stops };
};

/** The stretches that a member covers, which take it among their covers. */
const coveredBy = (
  { from, length }: Cover,
  member: number,
  all: readonly Stretch[],
  { positions }: Stops,
  round: number | undefined,
  tolerance: number,
): readonly Stretch[] => {
  const own: Stretch[] = [];
  for (let k = round === undefined ? firstAt(positions, from - tolerance) : 0; k < all.length; k++) {
    const stretch = all[k]!;
    const middle = stretch.from + stretch.length / 2 - from;
    const off = round === undefined ? middle : ((middle % round) + round) % round;
    if (round === undefined && off > length) break;
    // what goes all the way round covers all of them, also the one in whose middle it begins
    const whole = round !== undefined && length >= round;
    if (!whole && (off < tolerance / 4 || off > length - tolerance / 4)) continue;
    own.push(stretch);
    stretch.cover.push(member);
    stretch.left = 1;
  }
  return own;
};

/** The first of rising positions that is not below a number; one past the last where all are. */
const firstAt = (positions: readonly number[], position: number): number => {
  let low = 0;
  let high = positions.length;
  while (low < high) {
    const middle = (low + high) >> 1;
    if (positions[middle]! < position) low = middle + 1;
    else high = middle;
  }
  return low;
};

/** The stop nearest to a position. */
export const stopNear = ({ round }: Track, { positions, places }: Stops, position: number): Point => {
  const at = round === undefined ? position : ((position % round) + round) % round;
  const off = (k: number): number => {
    const apart = Math.abs(positions[k]! - at);
    return round === undefined ? apart : Math.min(apart, round - apart);
  };
  const count = positions.length;
  const next = firstAt(positions, at);
  const before = (next + count - 1) % count;
  const after = next % count;
  return places[off(before) <= off(after) ? before : after]!;
};

/** Runs of neighbouring stretches that hold. */
export const runsOf = (
  all: readonly Stretch[],
  holds: (stretch: Stretch) => boolean,
  { round }: Track,
): readonly (readonly Stretch[])[] => {
  const runs: Stretch[][] = [];
  let last: Stretch | undefined;
  for (const stretch of all) {
    if (holds(stretch)) {
      if (last) runs.at(-1)!.push(stretch);
      else runs.push([stretch]);
      last = stretch;
    } else last = undefined;
  }
  const meets = round !== undefined && runs.length > 1 && runs[0]![0] === all[0] && last !== undefined;
  return meets ? [[...runs.at(-1)!, ...runs[0]!], ...runs.slice(1, -1)] : runs;
};

/** A piece along a track between two places on it. */
export const pieceAlong = ({ carrier }: Track, start: Point, end: Point, turned: boolean): Piece => {
  const piece: Piece =
    carrier.kind === "line" ? { a: start, b: end, bulge: 0 } : arcBetween(start, end, carrier.centre, true);
  return turned ? reversePiece(piece) : piece;
};

/**
 * An arc stays under this part of its circle (5.5 radians), so that its ends, which may lie off it by the tolerance,
 * tell it well.
 */
export const MOST_ROUND = 5.5 / TURN;

/** The piece along a run of stretches; two halves where it is an arc that goes nearly all the way round. */
export const piecesAlong = (track: Track, run: readonly Stretch[], turned: boolean): readonly Piece[] => {
  const [first, last] = [run[0]!, run.at(-1)!];
  const length = run.reduce((sum, stretch) => sum + stretch.length, 0);
  if (track.round === undefined || length <= MOST_ROUND * track.round)
    return [pieceAlong(track, first.start, last.end, turned)];
  const middle = placeOn(track, first.from + length / 2);
  const halves = [pieceAlong(track, first.start, middle, turned), pieceAlong(track, middle, last.end, turned)];
  return turned ? halves.reverse() : halves;
};
