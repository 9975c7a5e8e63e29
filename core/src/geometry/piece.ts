import { normalAngle, TURN } from "../numeric/angle.ts";
import type { Bounds } from "./bounds.ts";
import {
  add,
  angleOf,
  between,
  cross,
  distance,
  dot,
  leftOf,
  midpoint,
  norm,
  subtract,
  times,
  turned,
  unit,
  type Point,
} from "./point.ts";
import { isMirror, transformPoint, type Similarity } from "./transform.ts";

/**
 * One straight or round piece: two ends and a bulge, the tangent of a quarter of the signed sweep (0 is a line;
 * positive turns counter-clockwise). The ends rule; centre, radius and angles are derived. Bulge as in the DXF
 * reference: tan(sweep / 4).
 */
export type Piece = { readonly a: Point; readonly b: Point; readonly bulge: number };

/** An arc spelled out: `sweep` is signed, `from` the angle of its start seen from the centre. */
export type Arc = { readonly centre: Point; readonly radius: number; readonly from: number; readonly sweep: number };

/** A piece without whatever else came with it. */
export const plainPiece = ({ a, b, bulge }: Piece): Piece => ({ a, b, bulge });

/** A straight piece. */
export const line = (a: Point, b: Point): Piece => ({ a, b, bulge: 0 });

/** The bulge of an arc that turns by an angle: the tangent of a quarter of it. */
export const bulgeOf = (sweep: number): number => Math.tan(sweep / 4);
/** The angle by which an arc of that bulge turns, in radians, counter-clockwise above zero. */
export const sweepOf = (bulge: number): number => 4 * Math.atan(bulge);

/**
 * The radius of a round piece, Infinity for a line. r = c (1 + b²) / 4|b|, from sagitta and chord (circular segment).
 */
export const pieceRadius = ({ a, b, bulge }: Piece): number =>
  bulge === 0 ? Infinity : (distance(a, b) * (1 + bulge * bulge)) / (4 * Math.abs(bulge));

/** The centre of a round piece; undefined for a line. */
export const pieceCentre = ({ a, b, bulge }: Piece): Point | undefined =>
  bulge === 0 ? undefined : add(midpoint(a, b), times(leftOf(subtract(b, a)), (1 - bulge * bulge) / (4 * bulge)));

/** The piece as an arc; undefined for a line. */
export const arcOf = (piece: Piece): Arc | undefined => {
  const centre = pieceCentre(piece);
  if (!centre) return undefined;
  return {
    centre,
    radius: pieceRadius(piece),
    from: normalAngle(angleOf(subtract(piece.a, centre))),
    sweep: sweepOf(piece.bulge),
  };
};

/** The signed sweep from `a` to `b` about `centre`, in (0, 2π] one way round, [-2π, 0) the other. */
export const sweepAbout = (centre: Point, a: Point, b: Point, counterClockwise: boolean): number => {
  const u = subtract(a, centre);
  const v = subtract(b, centre);
  const turn = normalAngle(Math.atan2(cross(u, v), dot(u, v)));
  if (counterClockwise) return turn === 0 ? TURN : turn;
  return turn - TURN;
};

/** The round piece from `a` to `b` about `centre`, one way round or the other. */
export const arcBetween = (a: Point, b: Point, centre: Point, counterClockwise: boolean): Piece => ({
  a,
  b,
  bulge: bulgeOf(sweepAbout(centre, a, b, counterClockwise)),
});

/** Length; conditioned for arcs so flat that their centre is far away: c (1 + b²) atan(b) / b. */
export const pieceLength = ({ a, b, bulge }: Piece): number => {
  const chord = distance(a, b);
  return bulge === 0 ? chord : (chord * (1 + bulge * bulge) * Math.atan(Math.abs(bulge))) / Math.abs(bulge);
};

/** The point at fraction `t` of the length; exactly the ends at 0 and 1. */
export const piecePoint = (piece: Piece, t: number): Point => {
  const { a, b, bulge } = piece;
  if (bulge === 0 || t === 0 || t === 1) return between(a, b, t);
  if (Math.abs(bulge) > 1) {
    const centre = pieceCentre(piece)!;
    return add(centre, turned(subtract(a, centre), t * sweepOf(bulge)));
  }
  // From the chord, not the centre: flat arcs have theirs far away. Chord of the part = 2 r sin(t·sweep/2).
  const half = sweepOf(bulge) / 2;
  const chord = times(subtract(b, a), Math.sin(t * half) / Math.sin(half));
  return add(a, turned(chord, -half * (1 - t)));
};

/** The direction of travel at fraction `t`, length 1; +x for a piece without length. */
export const pieceDirection = ({ a, b, bulge }: Piece, t: number): Point => {
  const chord = unit(subtract(b, a)) ?? { x: 1, y: 0 };
  return bulge === 0 ? chord : turned(chord, (t - 0.5) * sweepOf(bulge));
};

/** The fraction of the piece nearest to `p`, the point there and its distance. */
export const pieceNearest = (piece: Piece, p: Point): { t: number; at: Point; distance: number } => {
  const t = pieceParameter(piece, p);
  const at = piecePoint(piece, t);
  return { t, at, distance: distance(at, p) };
};

/** The fraction in [0, 1] whose point is nearest to `p`. */
export const pieceParameter = (piece: Piece, p: Point): number => {
  const { a, b, bulge } = piece;
  if (bulge === 0) {
    const chord = subtract(b, a);
    const square = dot(chord, chord);
    return square === 0 ? 0 : Math.min(1, Math.max(0, dot(subtract(p, a), chord) / square));
  }
  const centre = pieceCentre(piece)!;
  const sweep = sweepOf(bulge);
  const turn = sweepAbout(centre, a, p, sweep > 0);
  const within = Math.abs(turn) === TURN ? 0 : turn;
  const t = within / sweep;
  if (t >= 0 && t <= 1) return t;
  return distance(p, a) <= distance(p, b) ? 0 : 1;
};

/** Bounds: the ends, and the quadrant points that the arc passes: those that lie on its side of its chord. */
export const pieceBounds = (piece: Piece): Bounds => {
  const { a, b, bulge } = piece;
  let minX = Math.min(a.x, b.x);
  let minY = Math.min(a.y, b.y);
  let maxX = Math.max(a.x, b.x);
  let maxY = Math.max(a.y, b.y);
  const centre = pieceCentre(piece);
  if (centre) {
    const radius = pieceRadius(piece);
    const [dx, dy] = [b.x - a.x, b.y - a.y];
    const { x, y } = centre;
    const passes = (px: number, py: number): boolean => (dx * (py - a.y) - dy * (px - a.x)) * bulge < 0;
    if (passes(x + radius, y)) maxX = Math.max(maxX, x + radius);
    if (passes(x, y + radius)) maxY = Math.max(maxY, y + radius);
    if (passes(x - radius, y)) minX = Math.min(minX, x - radius);
    if (passes(x, y - radius)) minY = Math.min(minY, y - radius);
  }
  return { minX, minY, maxX, maxY };
};

/** The bounds of several pieces; undefined when there are none. */
export const piecesBounds = (pieces: readonly Piece[]): Bounds | undefined => {
  if (pieces.length === 0) return undefined;
  let minX = Infinity;
  let minY = Infinity;
  let maxX = -Infinity;
  let maxY = -Infinity;
  for (let i = 0; i < pieces.length; i++) {
    const piece = pieces[i]!;
    const { a, b } = piece;
    minX = Math.min(minX, a.x, b.x);
    minY = Math.min(minY, a.y, b.y);
    maxX = Math.max(maxX, a.x, b.x);
    maxY = Math.max(maxY, a.y, b.y);
    if (piece.bulge === 0) continue;
    const round = pieceBounds(piece);
    minX = Math.min(minX, round.minX);
    minY = Math.min(minY, round.minY);
    maxX = Math.max(maxX, round.maxX);
    maxY = Math.max(maxY, round.maxY);
  }
  return { minX, minY, maxX, maxY };
};

/** The two parts at fraction `t`; they share `at` as the same numbers. */
export const splitPiece = (piece: Piece, t: number, at: Point = piecePoint(piece, t)): [Piece, Piece] => {
  const sweep = sweepOf(piece.bulge);
  return [
    { a: piece.a, b: at, bulge: piece.bulge === 0 ? 0 : bulgeOf(sweep * t) },
    { a: at, b: piece.b, bulge: piece.bulge === 0 ? 0 : bulgeOf(sweep * (1 - t)) },
  ];
};

/** The part from fraction `from` to fraction `to`, with ends given as numbers where they are known. */
export const partOfPiece = (piece: Piece, from: number, to: number, a?: Point, b?: Point): Piece => ({
  a: a ?? piecePoint(piece, from),
  b: b ?? piecePoint(piece, to),
  bulge: piece.bulge === 0 ? 0 : bulgeOf(sweepOf(piece.bulge) * (to - from)),
});

/** The same piece the other way. */
export const reversePiece = ({ a, b, bulge }: Piece): Piece => ({ a: b, b: a, bulge: bulge === 0 ? 0 : -bulge });

/** The piece moved, turned, scaled or mirrored; a mirror turns its bulge over. */
export const transformPiece = (m: Similarity, { a, b, bulge }: Piece): Piece => ({
  a: transformPoint(m, a),
  b: transformPoint(m, b),
  bulge: isMirror(m) && bulge !== 0 ? -bulge : bulge,
});

/**
 * The signed area between the chord and the arc, positive when the arc bulges to the right of a to b
 * (counter-clockwise). c² ((1 + b²)² atan b - b (1 - b²)) / 8 b², circular segment formula (Machinery's Handbook) in
 * terms of the bulge; its series where that would cancel (next term below 1e-16 of the result).
 */
export const segmentArea = ({ a, b, bulge }: Piece): number => {
  if (bulge === 0) return 0;
  const square = dot(subtract(b, a), subtract(b, a));
  const s = bulge * bulge;
  if (Math.abs(bulge) < 0.02) return square * bulge * (1 / 3 + s * (1 / 15 + s * (-1 / 105 + s / 315)));
  return (square * ((1 + s) ** 2 * Math.atan(bulge) - bulge * (1 - s))) / (8 * s);
};

/**
 * How large the numbers about a piece are: its chord, or for an arc the diameter of its circle where that is greater.
 */
export const pieceSize = (piece: Piece): number =>
  Math.max(norm(subtract(piece.b, piece.a)), piece.bulge === 0 ? 0 : 2 * pieceRadius(piece));
