import type { Carrier } from "../geometry/curve.ts";
import { pieceCentre, pieceRadius, sweepOf } from "../geometry/piece.ts";
import { distance, subtract, type Point } from "../geometry/point.ts";
import { meetCarriers, meetingPoints } from "../intersect/carriers.ts";
import type { Joined } from "./sources.ts";

/**
 * Pieces moved to their left, by their places in the list; their ends are made when asked for, unless a neighbour
 * shares them.
 */
export type Moved = {
  readonly start: (i: number) => Point;
  readonly end: (i: number) => Point;
  /** The end of one and the start of another are one point, elsewhere than on their own. */
  readonly share: (p: number, q: number, shared: Point) => void;
  readonly isShifted: (i: number) => boolean;
  /** Of arcs, none of lines. */
  readonly centres: readonly (Point | undefined)[];
  /** Of arcs; below 0 where one has shrunk to nothing or beyond. */
  readonly radii: Float64Array;
};

/** The pieces moved sideways, each by the same distance to its left; negative is to its right. */
export const movedBy = ({ pieces, directions }: Joined, by: number): Moved => {
  const count = pieces.length;
  const starts = new Array<Point | undefined>(count);
  const ends = new Array<Point | undefined>(count);
  const shifted = new Uint8Array(count);
  const centres = new Array<Point | undefined>(count);
  const radii = new Float64Array(count);
  for (let i = 0; i < count; i++) {
    const piece = pieces[i]!;
    if (piece.bulge === 0) continue;
    const radius = pieceRadius(piece) - by * Math.sign(piece.bulge);
    centres[i] = pieceCentre(piece)!;
    radii[i] = radius > 0 ? radius : -1;
  }
  const leftOff = ({ x, y }: Point, k: number): Point => ({
    x: x - by * directions[k + 1]!,
    y: y + by * directions[k]!,
  });
  return {
    start: (i) => (starts[i] ??= leftOff(pieces[i]!.a, 4 * i)),
    end: (i) => (ends[i] ??= leftOff(pieces[i]!.b, 4 * i + 2)),
    share: (p, q, shared) => {
      ends[p] = starts[q] = shared;
      shifted[p] = shifted[q] = 1;
    },
    isShifted: (i) => shifted[i] === 1,
    centres,
    radii,
  };
};

const carrierOf = ({ directions, pieces }: Joined, { start, centres, radii }: Moved, i: number): Carrier | undefined =>
  pieces[i]!.bulge === 0
    ? { kind: "line", at: start(i), direction: { x: directions[4 * i]!, y: directions[4 * i + 1]! } }
    : radii[i]! < 0
      ? undefined
      : { kind: "circle", centre: centres[i]!, radius: radii[i]! };

/**
 * Where two neighbours that overrun each other cross, no farther from the ends of both than these from each other;
 * undefined where they don't, or where it would take more than half of either.
 */
export const crossingBeside = (joined: Joined, moved: Moved, p: number, q: number): Point | undefined => {
  const one = carrierOf(joined, moved, p);
  const other = carrierOf(joined, moved, q);
  if (!one || !other) return undefined;
  const [end, start] = [moved.end(p), moved.start(q)];
  const reach = distance(end, start);
  const lengthOf = (i: number): number => {
    const { bulge } = joined.pieces[i]!;
    return bulge === 0 ? joined.lengths[i]! : Math.abs(sweepOf(bulge)) * moved.radii[i]!;
  };
  if (2 * reach > Math.min(lengthOf(p), lengthOf(q))) return undefined;
  return meetingPoints(meetCarriers(one, other, 0))
    .filter((place) => distance(place, end) <= reach && distance(place, start) <= reach)
    .sort((s, t) => distance(s, end) - distance(t, end))[0];
};

/**
 * Where the first runs on forwards and the second backwards until they meet, no farther than `reach` from the corner.
 */
export const apexOf = (joined: Joined, moved: Moved, p: number, q: number, reach: number): Point | undefined => {
  const { directions } = joined;
  const at = joined.pieces[q]!.a;
  const one = carrierOf(joined, moved, p);
  const other = carrierOf(joined, moved, q);
  if (!one || !other) return undefined;
  const found = meetingPoints(meetCarriers(one, other, 0)).filter((place) => {
    const u = subtract(place, moved.end(p));
    const v = subtract(place, moved.start(q));
    return (
      distance(place, at) <= reach &&
      u.x * directions[4 * p + 2]! + u.y * directions[4 * p + 3]! >= 0 &&
      v.x * directions[4 * q]! + v.y * directions[4 * q + 1]! <= 0
    );
  });
  return found.sort((s, t) => distance(s, at) - distance(t, at))[0];
};
