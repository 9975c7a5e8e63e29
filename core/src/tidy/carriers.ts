import { circlePoint } from "../geometry/circle.ts";
import { pieceCarrier, type Carrier } from "../geometry/curve.ts";
import { pieceLength, piecePoint } from "../geometry/piece.ts";
import { add, angleOf, cross, distance, dot, subtract, times, type Point } from "../geometry/point.ts";
import { normalAngle, TURN } from "../numeric/angle.ts";
import type { Strand } from "./strands.ts";

/**
 * Positions along a line or round a circle, in lengths. Round a circle they start at its east and come round again
 * after `round`.
 */
export type Track = { readonly carrier: Carrier; readonly round?: number };

/** The line or circle that a strand lies on, the same whichever way it was drawn. */
export const trackOf = (strand: Strand): Track => {
  const carrier = strand.circle ? ({ kind: "circle", ...strand.circle } as const) : pieceCarrier(strand.piece);
  if (carrier.kind === "circle") return { carrier, round: TURN * carrier.radius };
  // the same whichever way the line was drawn
  const { x, y } = carrier.direction;
  return { carrier: x < 0 || (x === 0 && y < 0) ? { ...carrier, direction: { x: -x, y: -y } } : carrier };
};

/** Where a place lies along a track. */
export const positionOn = ({ carrier }: Track, p: Point): number =>
  carrier.kind === "line"
    ? dot(subtract(p, carrier.at), carrier.direction)
    : carrier.radius * normalAngle(angleOf(subtract(p, carrier.centre)));

/** How far a place lies off a track. */
export const offTrack = ({ carrier }: Track, p: Point): number =>
  carrier.kind === "line"
    ? Math.abs(cross(carrier.direction, subtract(p, carrier.at)))
    : Math.abs(distance(p, carrier.centre) - carrier.radius);

/** The place on a track at a position: a distance on a line, an angle on a circle. */
export const placeOn = ({ carrier }: Track, position: number): Point =>
  carrier.kind === "line"
    ? add(carrier.at, times(carrier.direction, position))
    : circlePoint(carrier, position / carrier.radius);

/**
 * What a strand covers of a track: from `from`, for `length`, the way positions rise; whether it runs the other way
 * itself.
 */
export type Cover = { readonly from: number; readonly length: number; readonly turned: boolean };

/** What of a track a strand covers: from where, how far, and whether it runs the other way. */
export const coverOf = (track: Track, strand: Strand): Cover => {
  if (strand.circle) return { from: 0, length: track.round!, turned: false };
  const { piece } = strand;
  const [a, b] = [positionOn(track, piece.a), positionOn(track, piece.b)];
  if (track.carrier.kind === "line") return { from: Math.min(a, b), length: Math.abs(b - a), turned: b < a };
  const turned = piece.bulge < 0;
  const [from, to] = turned ? [b, a] : [a, b];
  const round = track.round!;
  const length = (((to - from) % round) + round) % round;
  const own = pieceLength(piece);
  // a short one that bends the other way lies from its end to its start, not all the way round
  if (length > round / 2 && own < round / 4) return { from: to, length: round - length, turned: !turned };
  // one that goes all the way round may end just behind its start
  if (length < round / 4 && own > (3 * round) / 4) return { from, length: round, turned };
  return { from, length, turned };
};

/** True where a strand lies on a track within `tolerance`, all of it. */
export const liesOn = (track: Track, strand: Strand, tolerance: number): boolean => {
  const { carrier } = track;
  if (strand.circle)
    return (
      carrier.kind === "circle" &&
      distance(carrier.centre, strand.circle.centre) <= tolerance &&
      Math.abs(carrier.radius - strand.circle.radius) <= tolerance
    );
  if ((strand.piece.bulge !== 0) !== (carrier.kind === "circle")) return false;
  const { piece } = strand;
  // two circles share two places; more of an arc must lie there
  const within = piece.bulge === 0 ? [] : [0.25, 0.5, 0.75].map((t) => piecePoint(piece, t));
  return [piece.a, piece.b, ...within].every((p) => offTrack(track, p) <= tolerance);
};
