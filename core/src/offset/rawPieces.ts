import { LEAST_LEFT, OFF_SMOOTH, SMOOTH_TURN } from "../numeric/tolerance.ts";
import { arcBetween, pieceNearest, splitPiece, type Piece } from "../geometry/piece.ts";
import { add, along, leftOf, subtract, times, unit, type Point } from "../geometry/point.ts";
import { Gathered, type Put, type Raw, type Spread } from "./gathered.ts";
import { apexOf, crossingBeside, movedBy, type Moved } from "./moved.ts";
import { type Corners, type Joined } from "./sources.ts";

/** How far a corner may be run on, in distances from it, before it is cut flat. */
export const SHARP_LIMIT = 4;

/**
 * The tangent of half a turn under which neighbours that turn to the side of the offset are cut back to where their
 * carriers cross: they overrun it by so little that both could lie within the resolution of each other all along.
 */
const NEARLY = 0.01;

/** The tangent of half a turn of 2 radians: where a corner turns more its pieces cross far from it. */
const STEEP = Math.tan(1);

/**
 * Everything that can bound what lies `by` to the left of the pieces (to their right where it is below 0): each piece
 * moved over, arcs with their radius exactly less or more `by`, and at corners that open to that side an arc about the
 * corner (round), the carriers run on to their meeting (sharp, up to `limit` distances from the corner), or a straight
 * piece (flat). Where the direction hardly turns neighbours share one point, and so they do where two straight ones
 * cross at a corner that opens to the other side: what they would run on for lies too close to the other.
 */
export const rawPieces = (joined: Joined, by: number, kind: Corners, limit: number): Raw => {
  const { before, after } = joined.corners;
  const moved = movedBy(joined, by);
  // where corners are not round a band may stick out of all others: its ends are to bound what is made, too
  const spokes = kind !== "round" && before.every((p, k) => p >= 0 && after[k]! >= 0);
  const stands = standingAt(joined, moved, by, kind, limit, spokes);
  return { ...gathered(joined, moved, stands, Math.abs(by), spokes), spreads: stands.spreads };
};

/** What stands at the corners, each by the piece before it. */
type Spokes = {
  /** 1 where a piece and what stands after it go on into each other and into the next piece. */
  readonly smooth: Uint8Array;
  readonly arcs: readonly (Piece | undefined)[];
  readonly others: ReadonlyMap<number, readonly Put[]>;
  readonly spreads: readonly (Spread | undefined)[];
};

const standingAt = (
  joined: Joined,
  moved: Moved,
  by: number,
  kind: Corners,
  limit: number,
  spokes: boolean,
): Spokes => {
  const { pieces, directions, corners } = joined;
  const { before, after, halfTurn, caps } = corners;
  const size = Math.abs(by);
  const isCutBack = spokes ? () => false : cutBack(joined, by);
  const smooth = new Uint8Array(pieces.length);
  const arcs = new Array<Piece | undefined>(pieces.length);
  const others = new Map<number, readonly Put[]>();
  const spreads: (Spread | undefined)[] = [];
  // nearly tangent arcs of more than a quarter turn each might come round to each other
  const comeRound = (p: number, q: number): boolean =>
    Math.min(Math.abs(pieces[p]!.bulge), Math.abs(pieces[q]!.bulge)) > QUARTER;
  const telling = kind !== "round" || caps.size > 0;
  for (let k = 0; k < before.length; k++) {
    const p = before[k]!;
    const q = after[k]!;
    if (p < 0 || q < 0) continue;
    const turn = halfTurn[k]!;
    const at = pieces[q]!.a;
    if (Math.abs(turn) < SMOOTH_TURN / 2 && offBy(moved, p, q, size, turn) <= OFF_SMOOTH) {
      moved.share(p, q, bisected(directions, p, q, at, by) ?? moved.end(p));
      smooth[p] = comeRound(p, q) ? 0 : 1;
      continue;
    }
    if (turn * by > 0) {
      const crossing = Math.abs(turn) < NEARLY ? crossingBeside(joined, moved, p, q) : undefined;
      if (crossing) {
        moved.share(p, q, crossing);
        smooth[p] = comeRound(p, q) ? 0 : 1;
      } else if (spokes) others.set(p, spoke(p, q, moved.end(p), at, moved.start(q)));
      else if (isCutBack(k)) {
        moved.share(p, q, crossingAt(directions, p, q, at, by));
        smooth[p] = 1;
      }
      continue;
    }
    const start = moved.end(p);
    const end = moved.start(q);
    const shape = caps.get(k) ?? kind;
    if (shape === "round") {
      // tan(t / 4) from tan(t / 2)
      const bulge = Number.isFinite(turn) ? turn / (1 + Math.sqrt(1 + turn * turn)) : Math.sign(turn);
      arcs[p] = { a: start, b: end, bulge };
      smooth[p] = 1;
      if (telling) spreads[k] = { start, end, kind: "round" };
      continue;
    }
    if (shape === "square") {
      const ahead = { x: size * directions[4 * p + 2]!, y: size * directions[4 * p + 3]! };
      const places = [start, add(start, ahead), add(end, ahead), end];
      others.set(
        p,
        places.slice(1).map((b, i): Put => ({ piece: { a: places[i]!, b, bulge: 0 } })),
      );
      spreads[k] = { start, end, kind: "square" };
      continue;
    }
    const apex = shape === "sharp" ? apexOf(joined, moved, p, q, size * limit) : undefined;
    if (apex) {
      moved.share(p, q, apex);
      smooth[p] = pieces[p]!.bulge === 0 && pieces[q]!.bulge === 0 ? 1 : 0; // carriers of arcs may meet again
      spreads[k] = { start, end, kind: "sharp", apex };
    } else {
      // straight across; where it ends a band, across both bands' ends
      others.set(p, [{ piece: { a: start, b: end, bulge: 0 }, ...(caps.has(k) && { ends: [p, q] }) }]);
      spreads[k] = { start, end, kind: "flat" };
    }
  }
  if (telling) spreads.length = before.length;
  return { smooth, arcs, others, spreads };
};

/** Closer than the distance by more than this part of it is too close, rounding or not. */
const BURIED = 1e-6;

/** For straight pieces at corners that turn far back the other sides of these, straight as well. */
const spikesOf = ({ pieces, corners: { before, after, halfTurn } }: Joined): Map<number, number[]> => {
  const across = new Map<number, number[]>();
  halfTurn.forEach((turn, k) => {
    if (Math.abs(turn) < STEEP) return;
    for (const [i, side] of [
      [before[k]!, after[k]!],
      [after[k]!, before[k]!],
    ] as const)
      if (pieces[i]!.bulge === 0 && pieces[side]!.bulge === 0) across.set(i, [...(across.get(i) ?? []), side]);
  });
  return across;
};

/**
 * How far the place on the bisector of a joint lies off the two moved pieces there: as far as a turn carries it from
 * straight ones, and as far as these bend away beside their ends.
 */
const offBy = ({ radii }: Moved, p: number, q: number, size: number, halfTurn: number): number => {
  const bend = Math.max(radii[p]! > 0 ? 1 / radii[p]! : 0, radii[q]! > 0 ? 1 / radii[q]! : 0);
  return ((size + size * size * bend) * halfTurn * halfTurn) / 2;
};

/** The moved pieces and what stands between them, in running order. */
const gathered = (
  joined: Joined,
  moved: Moved,
  { smooth, arcs, others }: Spokes,
  size: number,
  spokes: boolean,
): Omit<Raw, "spreads"> => {
  const { pieces, corners } = joined;
  const count = pieces.length;
  const following = new Int32Array(count).fill(-1);
  for (let k = 0; k < corners.before.length; k++)
    if (corners.before[k]! >= 0) following[corners.before[k]!] = corners.after[k]!;
  const across = spokes ? new Map<number, number[]>() : spikesOf(joined);
  // in the spikes of a star most of what is moved lies between the sides of its own spike: distance from a straight
  // piece is convex, so what starts and ends too close to it is too close all along
  const limit = size * (1 - BURIED);
  const isNear = (i: number, p: Point): boolean => pieceNearest(pieces[i]!, p).distance < limit;
  const raw = new Gathered(4 * count);
  // of each piece what is left of it, and what stands last after it, among the raw ones; -1 for nothing
  const firsts = new Int32Array(count).fill(-1);
  const lasts = new Int32Array(count).fill(-1);
  for (let i = 0; i < count; i++) {
    const own = raw.pieces.length;
    putMoved(
      raw,
      joined,
      moved,
      i,
      (start, end) => across.get(i)?.some((side) => isNear(side, start) && isNear(side, end)) ?? false,
    );
    if (raw.pieces.length > own) firsts[i] = own;
    if (spokes && moved.radii[i]! < 0) {
      const [last, next] = [(i + count - 1) % count, (i + 1) % count];
      for (const put of spoke(last, next, moved.start(i), moved.centres[i]!, moved.end(i), i)) raw.putOther(i, put);
    }
    const arc = arcs[i];
    if (arc) putArc(raw, arc, pieces[following[i]!]!.a, size, i, raw.pieces.length > own);
    const more = others.get(i);
    if (more) for (const put of more) raw.putOther(i, put);
    if (raw.pieces.length > own) lasts[i] = raw.pieces.length - 1;
  }
  // what stands last after a piece goes on into the next piece
  for (let p = 0; p < count; p++) {
    const q = following[p]!;
    if (smooth[p] && q >= 0 && lasts[p]! >= 0 && firsts[q]! >= 0) raw.next[lasts[p]!] = firsts[q]!;
  }
  return raw.done();
};

/** An arc, in halves where it is more than a quarter of a turn; what went before it may go on into it. */
const putArc = (raw: Gathered, arc: Piece, centre: Point, radius: number, from: number, goesOn: boolean): void => {
  if (goesOn) raw.goesOn();
  if (Math.abs(arc.bulge) <= QUARTER) return raw.put(arc, centre, radius, from);
  const [one, other] = splitPiece(arc, 0.5, onCircle(centre, radius, arc));
  raw.put(one, centre, radius, from);
  raw.goesOn();
  raw.put(other, centre, radius, from);
};

/** The bulge of a quarter turn. */
const QUARTER = Math.tan(Math.PI / 8);

/** From the end of one band over the corner to the start of the next. */
const spoke = (before: number, after: number, start: Point, middle: Point, end: Point, between?: number): Put[] => {
  const made: Put[] = [];
  for (const [a, b, piece] of [
    [start, middle, before],
    [middle, end, after],
  ] as const)
    if (a.x !== b.x || a.y !== b.y)
      made.push({ piece: { a, b, bulge: 0 }, ends: between === undefined ? [piece] : [piece, between] });
  return made;
};

/**
 * At which corners two straight pieces, moved over, cross and may be cut back to their crossing: those that turn to the
 * side of the offset, where the cuts, `by` times the tangent of half the turn from the corner, leave something of both
 * pieces. What is cut off lies within `by` of the other piece: that zone is convex, the crossing lies on its bound and
 * the piece's end inside.
 */
const cutBack = ({ pieces, lengths, corners }: Joined, by: number): ((corner: number) => boolean) => {
  const { before, after, halfTurn } = corners;
  const left = lengths.slice();
  const crosses = (k: number): boolean =>
    halfTurn[k]! * Math.sign(by) >= SMOOTH_TURN / 2 &&
    Math.abs(halfTurn[k]!) < STEEP &&
    pieces[before[k]!]!.bulge === 0 &&
    pieces[after[k]!]!.bulge === 0;
  for (let k = 0; k < before.length; k++) {
    if (before[k]! < 0 || after[k]! < 0 || !crosses(k)) continue;
    left[before[k]!]! -= by * halfTurn[k]!;
    left[after[k]!]! -= by * halfTurn[k]!;
  }
  return (k) => crosses(k) && left[before[k]!]! > LEAST_LEFT && left[after[k]!]! > LEAST_LEFT;
};

/**
 * The place `by` to the left of a corner along the bisector of its two directions; undefined where they oppose each
 * other.
 */
const bisected = (directions: Float64Array, p: number, q: number, at: Point, by: number): Point | undefined => {
  const middle = unit({
    x: directions[4 * p + 2]! + directions[4 * q]!,
    y: directions[4 * p + 3]! + directions[4 * q + 1]!,
  });
  return middle && { x: at.x - by * middle.y, y: at.y + by * middle.x };
};

/**
 * Where two lines moved `by` to their left cross, from the corner between them: exact in x or y where one of them is
 * upright or level.
 */
const crossingAt = (directions: Float64Array, p: number, q: number, at: Point, by: number): Point => {
  const ux = directions[4 * p + 2]!;
  const uy = directions[4 * p + 3]!;
  const vx = directions[4 * q]!;
  const vy = directions[4 * q + 1]!;
  const part = 1 + ux * vx + uy * vy;
  return { x: at.x - by * ((uy + vy) / part), y: at.y + by * ((ux + vx) / part) };
};

/**
 * Puts what is left of a moved piece: nothing where it vanished or runs backwards; halves where it is an arc over half
 * a turn.
 */
const putMoved = (
  raw: Gathered,
  { pieces }: Joined,
  moved: Moved,
  i: number,
  isBuried: (start: Point, end: Point) => boolean,
): void => {
  const { a, b, bulge } = pieces[i]!;
  const radius = moved.radii[i]!;
  if (radius < 0) return;
  const start = moved.start(i);
  const end = moved.end(i);
  if (start.x === end.x && start.y === end.y) return;
  if (bulge === 0) {
    const forwards = (end.x - start.x) * (b.x - a.x) + (end.y - start.y) * (b.y - a.y) > 0;
    if (forwards && !isBuried(start, end)) raw.put({ a: start, b: end, bulge: 0 }, undefined, 0, i);
    return;
  }
  const centre = moved.centres[i]!;
  const shifted = moved.isShifted(i);
  const turned = shifted ? arcBetween(start, end, centre, bulge > 0) : { a: start, b: end, bulge };
  // moved together at both ends, a short arc can turn over and seem to go all the way round
  if (shifted && Math.abs(turned.bulge) > 1 && Math.abs(bulge) < 0.5) return;
  if (Math.abs(turned.bulge) <= HALF) return raw.put(turned, centre, radius, i);
  const [one, other] = splitPiece(turned, 0.5, onCircle(centre, radius, turned));
  raw.put(one, centre, radius, i);
  raw.goesOn();
  raw.put(other, centre, radius, i);
};

/** Arcs of more than a little under half a turn (bulge) are taken in halves. */
const HALF = 0.99;

const onCircle = (centre: Point, radius: number, arc: Piece): Point => {
  // seen from its centre the middle of a left turning arc lies to the right of its chord, however long it is
  const out = times(leftOf(subtract(arc.b, arc.a)), -Math.sign(arc.bulge));
  const direction = unit(out) ?? { x: 1, y: 0 };
  return along(centre, direction, radius);
};
