import { carrierNearest, pieceCarrier } from "../geometry/curve.ts";
import {
  arcBetween,
  partOfPiece,
  pieceCentre,
  pieceDirection,
  pieceLength,
  piecePoint,
  pieceRadius,
  reversePiece,
  sweepAbout,
  type Piece,
} from "../geometry/piece.ts";
import { add, along, cross, dot, subtract, times, unit, type Point } from "../geometry/point.ts";
import { meetCarriers, meetingPoints } from "../intersect/carriers.ts";
import { done, refuse, type Outcome } from "../numeric/outcome.ts";
import { RESOLUTION, SAME_DIRECTION } from "../numeric/tolerance.ts";
import { cornerSide } from "./fillet.ts";

/** A corner replaced by pieces between what remains of its edges; an edge used up is gone. */
export type CutCorner = { readonly before?: Piece; readonly between: readonly Piece[]; readonly after?: Piece };

const remains = (piece: Piece, from: number, to: number, a?: Point, b?: Point): Piece | undefined =>
  (to - from) * pieceLength(piece) > RESOLUTION ? partOfPiece(piece, from, to, a, b) : undefined;

const cutBetween = (
  before: Piece,
  after: Piece,
  back: number,
  ahead: number,
  between: (a: Point, b: Point) => readonly Piece[],
): Outcome<CutCorner> => {
  const [lengthBefore, lengthAfter] = [pieceLength(before), pieceLength(after)];
  for (const [size, limit] of [
    [back, lengthBefore],
    [ahead, lengthAfter],
  ] as const)
    if (size > limit + RESOLUTION) return refuse("cut-too-large", { typed: size, limit }, before.b);
  const [s, t] = [Math.max(0, 1 - back / lengthBefore), Math.min(1, ahead / lengthAfter)];
  const usedBefore = s * lengthBefore <= RESOLUTION;
  const usedAfter = (1 - t) * lengthAfter <= RESOLUTION;
  const [p, q] = [usedBefore ? before.a : piecePoint(before, s), usedAfter ? after.b : piecePoint(after, t)];
  const [first, last] = [remains(before, 0, s, undefined, p), remains(after, t, 1, q, undefined)];
  return done({
    ...(first && !usedBefore ? { before: first } : {}),
    between: between(p, q),
    ...(last && !usedAfter ? { after: last } : {}),
  });
};

/**
 * Cuts a corner off by lengths along both edges, from the corner: `back` along the one before it, `ahead` along the one
 * after. Longer than an edge is a refusal that names its length; exactly as long uses it up.
 */
export const chamferCorner = (before: Piece, after: Piece, back: number, ahead: number): Outcome<CutCorner> => {
  if (!(back > 0 && ahead > 0)) return refuse("value-not-positive", { what: "The length of a chamfer" });
  return cutBetween(before, after, back, ahead, (a, b) => [{ a, b, bulge: 0 }]);
};

/**
 * The second length of a chamfer whose cut stands at `angle` (radians) to the edge before the corner: the sine rule.
 */
export const chamferByAngle = (before: Piece, after: Piece, back: number, angle: number): Outcome<number> => {
  const [u, v] = [times(pieceDirection(before, 1), -1), pieceDirection(after, 0)];
  const corner = Math.atan2(Math.abs(cross(u, v)), dot(u, v)); // the angle between the edges
  const third = Math.PI - corner - angle;
  if (!(angle > 0) || third <= SAME_DIRECTION) return refuse("chamfer-angle");
  return done((back * Math.sin(angle)) / Math.sin(third));
};

/** How a corner is relieved for a round cutter. */
export const RELIEFS = ["bisector", "edge", "round"] as const;
export type Relief = (typeof RELIEFS)[number];

/**
 * Relieves the inside corner between two straight edges for a cutter of `radius`, so that a square corner of the
 * counterpart goes in: along the bisector (the cutter's circle just reaches the corner), along the edge after it (a
 * half round beside the corner), or round (a circle about the corner). `side` is the side of the path on which the free
 * space lies: 1 left, -1 right. Common practice.
 */
export const relieveCorner = (
  before: Piece,
  after: Piece,
  radius: number,
  kind: Relief,
  side: 1 | -1,
): Outcome<CutCorner> => {
  if (!(radius > 0)) return refuse("value-not-positive", { what: "The cutter" });
  if (before.bulge !== 0 || after.bulge !== 0) return refuse("relief-straight", {}, before.b);
  const turn = cornerSide(before, after);
  if (turn === 0) return refuse("corner-smooth", {}, before.b);
  if (turn !== side) return refuse("corner-outside", {}, before.b);
  const corner = before.b;
  const [u, v] = [times(pieceDirection(before, 1), -1), pieceDirection(after, 0)];
  const half = Math.atan2(Math.abs(cross(u, v)), dot(u, v)) / 2;
  const middle = unit(add(u, v))!;
  const [centre, back, ahead] =
    kind === "bisector"
      ? [along(corner, middle, radius), 2 * radius * Math.cos(half), 2 * radius * Math.cos(half)]
      : kind === "edge"
        ? [along(corner, v, radius), 0, 2 * radius]
        : [corner, radius, radius];
  const arc = (a: Point, b: Point): readonly Piece[] => [arcBetween(a, b, centre, side > 0)];
  return cutBetween(before, after, back, ahead, arc);
};

/**
 * The sharp corner that a rounded one came from: the edges before and after the arc run to the meeting of their
 * carriers for which the least is added to both. Carriers that do not meet beyond them: a refusal.
 */
export const sharpCorner = (before: Piece, arc: Piece, after: Piece): Outcome<{ before: Piece; after: Piece }> => {
  const [onA, onB] = [before, after].map(pieceCarrier);
  const places = meetingPoints(meetCarriers(onA!, onB!, RESOLUTION));
  // beyond the end of the one edge and before the start of the other: where the least is added to both
  const added = (p: Point): number => runOn(before, p) + runOn(reversePiece(after), p);
  const corner = places.filter((p) => Number.isFinite(added(p))).sort((p, q) => added(p) - added(q))[0];
  if (!corner) return refuse("no-sharp-corner", {}, piecePoint(arc, 0.5));
  return done({ before: endedAt(before, corner), after: startedAt(after, corner) });
};

/** How far a piece is run on along its carrier to end at `p`; Infinity where a line would have to run back. */
const runOn = (piece: Piece, p: Point): number => {
  if (piece.bulge === 0) {
    const along = dot(subtract(p, piece.b), pieceDirection(piece, 1));
    return along > -RESOLUTION ? along : Infinity;
  }
  const radius = pieceRadius(piece);
  const turn = Math.abs(sweepAbout(pieceCentre(piece)!, piece.b, p, piece.bulge > 0)) * radius;
  // a place that rounding puts just before the end is not all the way round
  return 2 * Math.PI * radius - turn < RESOLUTION ? 0 : turn;
};

/** A piece run on, or cut, along its own carrier so that it ends at `p`. */
export const endedAt = (piece: Piece, p: Point): Piece => {
  const carrier = pieceCarrier(piece);
  if (carrier.kind === "line") return { ...piece, b: p };
  return arcBetween(piece.a, p, carrier.centre, piece.bulge > 0);
};
/** The piece from a place on it to its own end; the place must lie on it. */
export const startedAt = (piece: Piece, p: Point): Piece => {
  const carrier = pieceCarrier(piece);
  if (carrier.kind === "line") return { ...piece, a: p };
  return arcBetween(p, piece.b, carrier.centre, piece.bulge > 0);
};

/** Where `p` lies on the carrier of a piece. */
export const onCarrier = (piece: Piece, p: Point): Point => carrierNearest(pieceCarrier(piece), p);
