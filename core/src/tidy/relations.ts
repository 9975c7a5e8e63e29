import { RUNS_ON } from "../numeric/tolerance.ts";
import { pieceLength, type Piece } from "../geometry/piece.ts";
import { cross, distance } from "../geometry/point.ts";
import { coverOf, liesOn, trackOf, type Cover, type Track } from "./carriers.ts";
import type { Strand } from "./strands.ts";
import type { Thing } from "./things.ts";

/**
 * How two strands lie: apart; so near that they could come to lie on one another; end to end without a corner; on one
 * another.
 */
export const [APART, NEARBY, ABUT, OVERLAP] = [0, 1, 2, 3];

/**
 * Ends of two pieces move by the tolerance each, mostly once: what is to be a group then is no farther apart than so
 * many of it now.
 */
export const WIDE = 4;

/**
 * How two strands of one class lie to each other, whichever comes first. Only loose ones are told to lie end to end.
 */
export const relationOf = (p: Strand, q: Strand, things: readonly Thing[], tolerance: number): number => {
  const straight = p.piece.bulge === 0;
  if (straight !== (q.piece.bulge === 0)) return APART;
  const bothLoose = things[p.thing]!.shape.kind === "piece" && things[q.thing]!.shape.kind === "piece";
  return straight ? relatedLines(p.piece, q.piece, tolerance, bothLoose) : related(p, q, tolerance, bothLoose);
};

/** Runs on along a track without a corner, all of it. */
export const runsAlong = ({ carrier }: Track, strand: Strand, tolerance: number): boolean => {
  const own = trackOf(strand).carrier;
  if (carrier.kind === "line" && own.kind === "line")
    return Math.abs(cross(carrier.direction, own.direction)) <= RUNS_ON;
  return carrier.kind === own.kind && alike({ carrier }, { carrier: own }, tolerance);
};

/** How much of the drawing a strand is: a circle more than anything, else its length. */
export const sizeOf = ({ circle, piece }: Strand): number => (circle ? Infinity : pieceLength(piece));

/** What `related` says of two straight pieces; the commonest question of all, so it makes nothing on its way. */
const relatedLines = (p: Piece, q: Piece, tolerance: number, bothLoose: boolean): number => {
  const px = p.b.x - p.a.x;
  const py = p.b.y - p.a.y;
  const qx = q.b.x - q.a.x;
  const qy = q.b.y - q.a.y;
  const pp = px * px + py * py;
  const qq = qx * qx + qy * qy;
  const area = px * qy - py * qx;
  const long = 16 * tolerance * tolerance;
  // long beside the tolerance and at more than 30 degrees they share a place at most
  if (pp > long && qq > long && area * area > 0.25 * pp * qq) return APART;
  const pLength = Math.sqrt(pp);
  const qLength = Math.sqrt(qq);
  const ax = q.a.x - p.a.x;
  const ay = q.a.y - p.a.y;
  const bx = q.b.x - p.a.x;
  const by = q.b.y - p.a.y;
  const from = (px * ax + py * ay) / pLength; // q's ends along p
  const to = (px * bx + py * by) / pLength;
  const shared = Math.min(pLength, Math.max(from, to)) - Math.max(0, Math.min(from, to));
  const short = Math.min(pLength, qLength);
  const qOffP = Math.max(Math.abs(px * ay - py * ax), Math.abs(px * by - py * bx)) / pLength;
  // p's ends, seen from q's start, are -a and p's chord less a
  const pOffQ = Math.max(Math.abs(qx * ay - qy * ax), Math.abs(qx * (py - ay) - qy * (px - ax))) / qLength;
  const off = Math.min(qOffP, pOffQ);
  if (off > WIDE * tolerance || shared < -WIDE * tolerance) return APART;
  if (off > tolerance) return NEARBY;
  if (shared > Math.min(tolerance, short / 2)) return OVERLAP;
  // end to end without a corner: those of a tracing are meant
  const runsOn = bothLoose && Math.abs(area) <= RUNS_ON * pLength * qLength && abuts(p, q, tolerance);
  return runsOn ? ABUT : NEARBY;
};

/** Lies on one another for more than a touch, or runs on end to end in the same line or arc without a corner. */
const related = (one: Strand, two: Strand, tolerance: number, bothLoose: boolean): number => {
  const [p, q] = sizeOf(two) > sizeOf(one) ? [two, one] : [one, two]; // told along the longer one, whichever came first
  const near = WIDE * tolerance;
  if (
    p.circle &&
    q.circle &&
    (Math.abs(p.circle.radius - q.circle.radius) > near || distance(p.circle.centre, q.circle.centre) > near)
  )
    return APART;
  const track = trackOf(p);
  const own = coverOf(track, p);
  const other = trackOf(q);
  if (track.carrier.kind !== other.carrier.kind) return APART;
  if (!liesOn(track, q, near) && !liesOn(other, p, near)) return APART;
  if (!liesOn(track, q, tolerance) && !liesOn(other, p, tolerance)) return NEARBY;
  const shared = overlapOf(track, own, coverOf(track, q));
  const short = Math.min(own.length, coverOf(other, q).length);
  if (shared > Math.min(tolerance, short / 2)) return OVERLAP;
  if (p.circle || q.circle) return NEARBY;
  // end to end: only loose ones become one, a corner kept in a chain is meant, and so is another radius
  return bothLoose && abuts(p.piece, q.piece, tolerance) && alike(track, other, tolerance) ? ABUT : NEARBY;
};

/** One circle, as near as pieces of it tell. */
const alike = ({ carrier: p }: Track, { carrier: q }: Track, tolerance: number): boolean => {
  if (p.kind === "line" || q.kind === "line") return p.kind === q.kind;
  const off = Math.max(tolerance, RUNS_ON * Math.min(p.radius, q.radius));
  return distance(p.centre, q.centre) <= off && Math.abs(p.radius - q.radius) <= off;
};

/** The length that two covers share; round a circle in both of the places where they may. */
const overlapOf = ({ round }: Track, p: Cover, q: Cover): number => {
  const shared = (shift: number): number =>
    Math.min(p.from + p.length, q.from + shift + q.length) - Math.max(p.from, q.from + shift);
  return round === undefined
    ? shared(0)
    : [-round, 0, round].reduce((sum, shift) => sum + Math.max(0, shared(shift)), 0);
};

/** An end of one at an end of the other. */
const abuts = (p: Piece, q: Piece, tolerance: number): boolean =>
  distance(p.a, q.a) <= tolerance ||
  distance(p.a, q.b) <= tolerance ||
  distance(p.b, q.a) <= tolerance ||
  distance(p.b, q.b) <= tolerance;
