import { endedAt } from "../construct/cornerCuts.ts";
import { carrierNearest, pieceCarrier } from "../geometry/curve.ts";
import { pieceDirection, pieceLength, pieceNearest, type Piece } from "../geometry/piece.ts";
import { cross, distance, midpoint, type Point } from "../geometry/point.ts";
import { meetCarriers, meetingPoints } from "../intersect/carriers.ts";
import { JOINED, RESOLUTION } from "../numeric/tolerance.ts";

/** Where two ends are to meet, how far the one moves that moves most, and whether one of them ran past the corner. */
export type GapClosed = { readonly corner: Point; readonly moves: number; readonly past: boolean };

/** Directions closer than this (sine) run on into each other: their carriers' meeting says nothing about a corner. */
const NEARLY_TANGENT = 0.02;

/**
 * How the ends of two pieces (each run so that it ends there) are brought together: at the true corner of their lines
 * or circles where that is within `tolerance` of both ends, else half way where they are no farther apart; a line and
 * an arc that run into each other meet where the arc's circle comes nearest to the line. Farther apart: undefined.
 * `samePiece`: both ends are of one piece.
 */
export const gapRule = (one: Piece, other: Piece, tolerance: number, samePiece = false): GapClosed | undefined => {
  const [p, q] = [one.b, other.b];
  const apart = distance(p, q);
  const moves = (to: Point): number => Math.max(distance(to, p), distance(to, q));
  const corner = samePiece ? undefined : cornerWithin(one, other, tolerance);
  // both ends stay on the lengths of their pieces
  const [lengthOne, lengthOther] = [pieceLength(one), pieceLength(other)];
  if (corner && lengthOne > distance(corner, p) && lengthOther > distance(corner, q)) {
    const past = [one, other].some((piece) => {
      const { t, distance: off } = pieceNearest(piece, corner);
      return off <= RESOLUTION && (1 - t) * pieceLength(piece) > JOINED;
    });
    return { corner, moves: moves(corner), past };
  }
  if (apart > tolerance) return undefined;
  const runsOn = Math.abs(cross(pieceDirection(one, 1), pieceDirection(other, 1))) <= NEARLY_TANGENT;
  const at = runsOn ? tangentPlace(one, other) : midpoint(p, q);
  const kept = moves(at) <= tolerance ? at : midpoint(p, q);
  return { corner: kept, moves: moves(kept), past: false };
};

const cornerWithin = (one: Piece, other: Piece, tolerance: number): Point | undefined => {
  const [own, next] = [pieceCarrier(one), pieceCarrier(other)];
  const away = (place: Point): number => distance(place, one.b) + distance(place, other.b);
  return meetingPoints(meetCarriers(own, next, RESOLUTION))
    .filter((place) => distance(place, one.b) <= tolerance && distance(place, other.b) <= tolerance)
    .sort((a, b) => away(a) - away(b))[0];
};

/**
 * Where two that run into each other meet without a corner: a line and an arc at the foot of the centre on the line,
 * two arcs of one circle on it, others half way.
 */
const tangentPlace = (one: Piece, other: Piece): Point => {
  const half = midpoint(one.b, other.b);
  const [p, q] = [pieceCarrier(one), pieceCarrier(other)];
  if (p.kind === "circle" && q.kind === "circle")
    return meetCarriers(p, q, RESOLUTION).kind === "same" ? carrierNearest(p, half) : half;
  const [line, arc] = one.bulge === 0 ? [one, other] : [other, one];
  const carrier = pieceCarrier(arc);
  if (line.bulge !== 0 || carrier.kind !== "circle") return half;
  const d = pieceDirection(line, 1);
  const along = (carrier.centre.x - line.b.x) * d.x + (carrier.centre.y - line.b.y) * d.y;
  return { x: line.b.x + d.x * along, y: line.b.y + d.y * along };
};

/**
 * A piece with its end at another place: along its own line or circle where the place lies on it, else its sweep stays.
 */
export const endedNear = (piece: Piece, to: Point): Piece => {
  const carrier = pieceCarrier(piece);
  const onCircle = carrier.kind === "circle" && Math.abs(distance(to, carrier.centre) - carrier.radius) <= RESOLUTION;
  return onCircle ? endedAt(piece, to) : { ...piece, b: to };
};
