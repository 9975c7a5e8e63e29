import { FLAT_BULGE } from "../numeric/tolerance.ts";
import { arcBetween, pieceCentre, pieceDirection, pieceRadius, sweepOf, type Piece } from "../geometry/piece.ts";
import { add, cross, distance, dot, leftOf, midpoint, subtract, times, type Point } from "../geometry/point.ts";
import { TURN } from "../numeric/angle.ts";

/** A piece made ready to be met with others: what is asked of it again and again, worked out once. */
export type Span = {
  readonly piece: Piece;
  /** The direction of a line; of an arc at its start. */
  readonly direction: Point;
  readonly length: number;
  /** Of an arc; of a line the radius is 0. */
  readonly centre: Point;
  readonly radius: number;
  /** Signed, 0 for a line. */
  readonly sweep: number;
  /** Of an arc so flat that its centre is far away: its chord, by which it is worked with instead. */
  readonly flat?: Flat;
};

/** The middle of a chord, its direction, its left, and how far to its left the centre lies. */
type Flat = { readonly middle: Point; readonly along: Point; readonly left: Point; readonly centre: number };

const flatOf = ({ a, b, bulge }: Piece): Flat | undefined => {
  const chord = distance(a, b);
  if (Math.abs(bulge) >= FLAT_BULGE || chord === 0) return undefined;
  const along = { x: (b.x - a.x) / chord, y: (b.y - a.y) / chord };
  return { middle: midpoint(a, b), along, left: leftOf(along), centre: (chord * (1 - bulge * bulge)) / (4 * bulge) };
};

/** A span; where the arc's centre and radius are known better than its bulge tells them, they are given. */
export const spanOf = (piece: Piece, known?: { readonly centre: Point; readonly radius: number }): Span => {
  if (piece.bulge === 0) {
    const length = distance(piece.a, piece.b);
    const direction =
      length > 0 ? { x: (piece.b.x - piece.a.x) / length, y: (piece.b.y - piece.a.y) / length } : { x: 1, y: 0 };
    return { piece, direction, length, centre: piece.a, radius: 0, sweep: 0 };
  }
  const radius = known?.radius ?? pieceRadius(piece);
  const centre = known?.centre ?? pieceCentre(piece)!;
  const sweep = sweepOf(piece.bulge);
  const flat = flatOf(piece);
  const round = {
    piece,
    direction: pieceDirection(piece, 0),
    length: Math.abs(sweep) * radius,
    centre,
    radius,
    sweep,
  };
  return flat ? { ...round, flat } : round;
};

/** How far along a span the foot of `p` lies; before its start it is negative, beyond its end more than its length. */
export const positionAlong = ({ piece, direction, length, centre, radius, sweep, flat }: Span, p: Point): number => {
  const { a } = piece;
  if (flat) {
    const v = subtract(p, flat.middle);
    return length / 2 + radius * Math.atan(dot(v, flat.along) / Math.abs(flat.centre - dot(v, flat.left)));
  }
  if (radius === 0) return (p.x - a.x) * direction.x + (p.y - a.y) * direction.y;
  const [u, v] = [subtract(a, centre), subtract(p, centre)];
  const turn = Math.atan2(cross(u, v), dot(u, v)) * Math.sign(sweep); // in (-π, π], forwards positive
  const round = Math.abs(sweep);
  // of the two ways to name the place, the one nearer to the middle of the arc
  const far = round / 2 - Math.PI;
  return radius * (turn < far ? turn + TURN : turn);
};

/** How far `p` lies off the carrier of a span, left of its direction positive. */
export const offCarrier = ({ piece, direction, centre, radius, sweep, flat }: Span, p: Point): number => {
  const { a, b } = piece;
  if (radius === 0) return direction.x * (p.y - a.y) - direction.y * (p.x - a.x);
  if (!flat) return (radius - distance(p, centre)) * Math.sign(sweep);
  // the power of the point over the sum of its distance from the centre and the radius, which does not cancel
  const power = dot(subtract(p, a), subtract(p, b)) - 2 * flat.centre * dot(subtract(p, flat.middle), flat.left);
  return (-power / (radius + distance(p, centre))) * Math.sign(sweep);
};

/** The point at a position along a span. */
export const pointAlong = (
  { piece, direction, length, centre, radius, sweep, flat }: Span,
  position: number,
): Point => {
  const { a } = piece;
  if (flat) {
    const [half, turn] = [length / 2 / radius, (position - length / 2) / radius];
    const up = -2 * radius * Math.sign(sweep) * Math.sin((half + turn) / 2) * Math.sin((half - turn) / 2);
    return add(flat.middle, add(times(flat.along, radius * Math.sin(turn)), times(flat.left, up)));
  }
  if (radius === 0) return { x: a.x + direction.x * position, y: a.y + direction.y * position };
  const turn = (position / radius) * Math.sign(sweep);
  const [c, s] = [Math.cos(turn), Math.sin(turn)];
  const [x, y] = [a.x - centre.x, a.y - centre.y];
  return { x: centre.x + x * c - y * s, y: centre.y + x * s + y * c };
};

/** The direction of travel at a position along a span. */
export const directionAlong = ({ direction, radius, sweep }: Span, position: number): Point => {
  if (radius === 0) return direction;
  const turn = (position / radius) * Math.sign(sweep);
  const [c, s] = [Math.cos(turn), Math.sin(turn)];
  return { x: direction.x * c - direction.y * s, y: direction.x * s + direction.y * c };
};

/**
 * The piece on a span's carrier from `a` to `b`, turning by `turn` (radians, without sign; known roughly). An arc's
 * bulge comes from the chord and the radius, so that its radius stays what it is to the last bits; near half a turn,
 * where that is ill-conditioned, from the angle about its centre.
 */
export const pieceOnSpan = ({ radius, sweep, centre }: Span, a: Point, b: Point, turn: number): Piece => {
  if (radius === 0) return { a, b, bulge: 0 };
  const sine = distance(a, b) / (2 * radius);
  if (turn < STEADY && sine < 1) return { a, b, bulge: Math.tan(Math.asin(sine) / 2) * Math.sign(sweep) };
  return arcBetween(a, b, centre, sweep > 0);
};

/** Up to this sweep (radians) the chord tells an arc's sweep well. */
const STEADY = 2.5;
