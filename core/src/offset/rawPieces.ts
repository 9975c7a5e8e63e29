import type { Circle } from "../geometry/circle.ts";
import type { Carrier } from "../geometry/curve.ts";
import {
  arcBetween,
  pieceCentre,
  pieceDirection,
  pieceLength,
  pieceRadius,
  splitPiece,
  type Piece,
} from "../geometry/piece.ts";
import { add, along, distance, dot, leftOf, subtract, times, unit, type Point } from "../geometry/point.ts";
import { meetCarriers, meetingPoints } from "../intersect/carriers.ts";
import { SMOOTH_TURN, type Corner, type Corners, type Joined } from "./sources.ts";

/** What stands at a corner that opens to the side of the offset: its spokes' ends, and what is between them. */
export type Spread = {
  readonly start: Point;
  readonly end: Point;
  readonly kind: "round" | "flat" | "sharp" | "square";
  /** Of a sharp one, where the carriers meet. */
  readonly apex?: Point;
};

/** Raw pieces in running order, ready to be met with one another. */
export type Raw = {
  readonly pieces: readonly Piece[];
  /** Of arcs the circles that they lie on. */
  readonly circles: readonly (Circle | undefined)[];
  /** For each the piece it comes from. */
  readonly from: readonly number[];
  /** Which one each goes on into with nothing to happen between them, -1 for none. */
  readonly next: Int32Array;
  /** Spokes: for some the pieces whose bands they end. */
  readonly ends: ReadonlyMap<number, readonly number[]>;
  /** For each corner that opens to the left what stands there, else undefined. */
  readonly spreads: readonly (Spread | undefined)[];
};

/** How far a corner may be run on, in distances from it, before it is cut flat. */
export const SHARP_LIMIT = 4;

/** A piece moved to its left by `distance`, before its neighbours have their say. */
type Moved = {
  readonly source: Piece;
  /** Of an arc the circle it was moved to, undefined where it has shrunk to nothing or beyond; a line has none. */
  readonly circle: Circle | undefined;
  readonly vanished: boolean;
  start: Point;
  end: Point;
  shifted: boolean;
};

/** What is put after a moved piece: part of the corner there. */
type Put = { readonly piece: Piece; readonly circle?: Circle; readonly ends?: readonly number[] };

/** How the corner after a piece is joined: what stands there, and whether all of it goes on into its neighbours and within itself. */
type Joint = { readonly put: readonly Put[]; readonly smooth: boolean };
const BROKEN: Joint = { put: [], smooth: false };
const SHARED: Joint = { put: [], smooth: true };

/** A point off the left of a direction. */
const leftOff = (at: Point, direction: Point, by: number): Point => ({
  x: at.x - direction.y * by,
  y: at.y + direction.x * by,
});

const movedBy = (source: Piece, start: Point, finish: Point, by: number): Moved => {
  const ends = { start: leftOff(source.a, start, by), end: leftOff(source.b, finish, by), shifted: false };
  if (source.bulge === 0) return { source, circle: undefined, vanished: false, ...ends };
  const radius = pieceRadius(source) - by * Math.sign(source.bulge);
  const circle = radius > 0 ? { centre: pieceCentre(source)!, radius } : undefined;
  return { source, circle, vanished: !circle, ...ends };
};

/**
 * Everything that can bound what lies `by` to the left of the pieces: each piece moved over, arcs with their radius exactly less or more
 * `by`, and at corners that open to that side an arc about the corner (round), the carriers run on to their meeting (sharp, up to `limit`
 * distances from the corner), or a straight piece (flat). Where the direction hardly turns neighbours share one point, and so they do
 * where two straight ones cross at a corner that opens to the other side: what they would run on for lies too close to the other.
 */
export const rawPieces = (
  { pieces, starts, finishes, corners }: Joined,
  by: number,
  kind: Corners,
  limit: number,
): Raw => {
  const moved = pieces.map((source, i) => movedBy(source, starts[i]!, finishes[i]!, by));
  // where corners are not round a band may stick out of all others: its ends are to bound what is made, too
  const spokes = kind !== "round" && corners.every((one) => one.before !== undefined && one.after !== undefined);
  const cut = spokes ? undefined : cutBack(pieces, corners, by);
  const joints = new Array<Joint | undefined>(pieces.length); // after each piece
  const spreads = corners.map((corner, k): Spread | undefined => {
    const { at, before, after, turn, cap } = corner;
    if (before === undefined || after === undefined) return undefined;
    const one = moved[before]!;
    const other = moved[after]!;
    const share = (shared: Point): void => {
      one.end = shared;
      other.start = shared;
      one.shifted = other.shifted = true;
      joints[before] = SHARED;
    };
    if (Math.abs(turn) < SMOOTH_TURN) {
      const middle = unit({ x: finishes[before]!.x + starts[after]!.x, y: finishes[before]!.y + starts[after]!.y });
      share(middle ? leftOff(at, middle, by) : one.end);
      return undefined;
    }
    const { end: start } = one;
    const { start: end } = other;
    if (turn > 0) {
      if (spokes) joints[before] = { put: spoke(before, after, start, at, end), smooth: false };
      else if (cut?.[k]) share(crossingAt(at, finishes[before]!, starts[after]!, by));
      return undefined;
    }
    const shape = cap ?? kind;
    if (shape === "round") {
      const circle = { centre: at, radius: by };
      const arc = { a: start, b: end, bulge: Math.tan(turn / 4) };
      const halves = turn < -Math.PI / 2 ? splitPiece(arc, 0.5, onCircle(at, by, arc)) : [arc];
      joints[before] = { put: halves.map((piece) => ({ piece, circle })), smooth: true };
      return { start, end, kind: "round" };
    }
    if (shape === "square") {
      const ahead = times(finishes[before]!, by);
      const corners = [start, add(start, ahead), add(end, ahead), end];
      const put = corners.slice(1).map((b, i): Put => ({ piece: { a: corners[i]!, b, bulge: 0 } }));
      joints[before] = { put, smooth: false };
      return { start, end, kind: "square" };
    }
    const apex = shape === "sharp" ? apexOf(one, other, at, by * limit) : undefined;
    if (apex) {
      share(apex);
      if (one.circle || other.circle) joints[before] = BROKEN; // their carriers may meet again
      return { start, end, kind: "sharp", apex };
    }
    // straight across; where it ends a band, across both bands' ends
    const put: Put = { piece: { a: start, b: end, bulge: 0 }, ...(cap ? { ends: [before, after] } : {}) };
    joints[before] = { put: [put], smooth: false };
    return { start, end, kind: "flat" };
  });
  return { ...inOrder(moved, joints, corners, spokes), spreads };
};

/** From the end of one band over the corner to the start of the next. */
const spoke = (before: number, after: number, start: Point, middle: Point, end: Point, between?: number): Put[] => {
  const put: Put[] = [];
  for (const [a, b, piece] of [
    [start, middle, before],
    [middle, end, after],
  ] as const)
    // prettier-ignore
    if (a.x !== b.x || a.y !== b.y)
      put.push({ piece: { a, b, bulge: 0 }, ends: between === undefined ? [piece] : [piece, between] });
  return put;
};

/** Less than this is not left of a piece that is cut back at its corners. */
const LEAST = 1e-6;
/** Where a corner turns more than this (radians) its pieces cross far from it. */
const STEEP = 2;

/**
 * At which corners two straight pieces, moved over, cross and may be cut back to their crossing: those that turn left, where the cuts, `by`
 * times the tangent of half the turn from the corner, leave something of both pieces. What is cut off lies within `by` of the other piece:
 * that zone is convex, the crossing lies on its bound and the piece's end inside.
 */
const cutBack = (pieces: readonly Piece[], corners: readonly Corner[], by: number): readonly boolean[] => {
  const left = Float64Array.from(pieces, pieceLength);
  const cutOf = ({ before, after, turn }: Corner): number =>
    before !== undefined && after !== undefined && turn >= SMOOTH_TURN && turn < STEEP && pieces[before]!.bulge === 0 && pieces[after]!.bulge === 0
      ? by * Math.tan(turn / 2)
      : 0; // prettier-ignore
  const cuts = corners.map(cutOf);
  corners.forEach(({ before, after }, k) => {
    if (cuts[k] === 0) return;
    left[before!]! -= cuts[k]!;
    left[after!]! -= cuts[k]!;
  });
  return corners.map(({ before, after }, k) => cuts[k]! > 0 && left[before!]! > LEAST && left[after!]! > LEAST);
};

/** Where two lines moved `by` to their left cross, from the corner between them: exact in x or y where one of them is upright or level. */
const crossingAt = (at: Point, u: Point, v: Point, by: number): Point => {
  const part = by / (1 + u.x * v.x + u.y * v.y);
  return { x: at.x - (u.y + v.y) * part, y: at.y + (u.x + v.x) * part };
};

/** The moved pieces and what stands at the corners, in running order, and which go on into which. */
const inOrder = (
  moved: readonly Moved[],
  joints: readonly (Joint | undefined)[],
  corners: readonly Corner[],
  spokes: boolean,
): Omit<Raw, "spreads"> => {
  const pieces: Piece[] = [];
  const circles: (Circle | undefined)[] = [];
  const from: number[] = [];
  const ends = new Map<number, readonly number[]>();
  const next: number[] = [];
  const put = (i: number, { piece, circle, ends: own }: Put): void => {
    if (own) ends.set(pieces.length, own);
    pieces.push(piece);
    circles.push(circle);
    from.push(i);
    next.push(-1);
  };
  const firsts = new Int32Array(moved.length); // of each moved piece among the raw ones; -1 where nothing is left of it
  for (let i = 0; i < moved.length; i++) {
    const one = moved[i]!;
    const joint = joints[i] ?? BROKEN;
    const own = spansOf(one);
    firsts[i] = own.length > 0 ? pieces.length : -1;
    own.forEach((piece, k) => {
      if (k > 0) next[pieces.length - 1] = pieces.length; // halves of one arc
      put(i, { piece, ...(one.circle && { circle: one.circle }) });
    });
    if (one.vanished && spokes) {
      const [before, after] = [i - 1, i + 1].map((k) => (k + moved.length) % moved.length);
      for (const each of spoke(before!, after!, one.start, pieceCentre(one.source)!, one.end, i)) put(i, each);
    }
    for (const each of joint.put) {
      if (joint.smooth && from.at(-1) === i && pieces.length > 0) next[pieces.length - 1] = pieces.length;
      put(i, each);
    }
  }
  // the last of a corner goes on into the piece after it
  const lastOf = new Int32Array(moved.length).fill(-1);
  from.forEach((i, k) => void (lastOf[i] = k));
  for (const { before, after } of corners) {
    if (before === undefined || after === undefined || !joints[before]?.smooth) continue;
    if (lastOf[before]! >= 0 && firsts[after]! >= 0) next[lastOf[before]!] = firsts[after]!;
  }
  return { pieces, circles, from, next: Int32Array.from(next), ends };
};

/** Where the first runs on forwards and the second backwards until they meet, no farther than `reach` from the corner. */
const apexOf = (one: Moved, other: Moved, at: Point, reach: number): Point | undefined => {
  const [p, q] = [carrierOf(one), carrierOf(other)];
  if (!p || !q) return undefined;
  const [u, v] = [pieceDirection(one.source, 1), pieceDirection(other.source, 0)];
  const found = meetingPoints(meetCarriers(p, q, 0)).filter(
    (p) => distance(p, at) <= reach && dot(subtract(p, one.end), u) >= 0 && dot(subtract(p, other.start), v) <= 0,
  );
  return found.sort((p, q) => distance(p, at) - distance(q, at))[0];
};

const carrierOf = ({ source, circle, vanished, start }: Moved): Carrier | undefined =>
  circle
    ? { kind: "circle", ...circle }
    : vanished
      ? undefined
      : { kind: "line", at: start, direction: pieceDirection(source, 0) };

/** What is left of a moved piece: nothing where it vanished or runs backwards; halves where it is an arc over half a turn. */
const spansOf = ({ source, circle, vanished, start, end, shifted }: Moved): readonly Piece[] => {
  if (vanished || (start.x === end.x && start.y === end.y)) return [];
  if (!circle) {
    const { a, b } = source;
    const forwards = (end.x - start.x) * (b.x - a.x) + (end.y - start.y) * (b.y - a.y) > 0;
    return forwards ? [{ a: start, b: end, bulge: 0 }] : [];
  }
  const { centre, radius } = circle;
  const turned = shifted ? arcBetween(start, end, centre, source.bulge > 0) : { a: start, b: end, bulge: source.bulge };
  // moved together at both ends, a short arc can turn over and seem to go all the way round
  if (shifted && Math.abs(turned.bulge) > 1 && Math.abs(source.bulge) < 0.5) return [];
  return Math.abs(turned.bulge) > HALF ? splitPiece(turned, 0.5, onCircle(centre, radius, turned)) : [turned];
};

/** Arcs of more than a little under half a turn (bulge) are taken in halves. */
const HALF = 0.99;

const onCircle = (centre: Point, radius: number, arc: Piece): Point => {
  // seen from its centre the middle of a left turning arc lies to the right of its chord, however long it is
  const out = times(leftOf(subtract(arc.b, arc.a)), -Math.sign(arc.bulge));
  const direction = unit(out) ?? { x: 1, y: 0 };
  return along(centre, direction, radius);
};
