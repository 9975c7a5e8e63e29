import type { Circle } from "../geometry/circle.ts";
import { pieceDirection, pieceNearest, pieceRadius, type Piece } from "../geometry/piece.ts";
import { distance, type Point } from "../geometry/point.ts";
import { RESOLUTION, TANGENT_WITHIN } from "../numeric/tolerance.ts";

/** One way out of a place along a run: where it heads (radians) and how it bends there (1 / radius, left positive). */
type Branch = { readonly heading: number; readonly bend: number };

const bendOf = (piece: Piece): number => (piece.bulge === 0 ? 0 : Math.sign(piece.bulge) / pieceRadius(piece));

const onward = (piece: Piece, t: number): Branch => {
  const { x, y } = pieceDirection(piece, t);
  return { heading: Math.atan2(y, x), bend: bendOf(piece) };
};

const backward = (piece: Piece, t: number): Branch => {
  const { x, y } = pieceDirection(piece, t);
  return { heading: Math.atan2(-y, -x), bend: -bendOf(piece) };
};

/** A run of pieces, or a whole circle. */
export type PassingRun = { readonly closed: boolean; readonly pieces: readonly Piece[]; readonly circle?: Circle };

/**
 * The two ways out of a place on piece number `place` of a run; undefined where an open run ends there. Within a
 * resolution of a joint the place is that joint.
 */
export const branchesAt = (
  { closed, pieces, circle }: PassingRun,
  place: number,
  at: Point,
): readonly [Branch, Branch] | undefined => {
  if (circle) {
    const out = Math.atan2(at.y - circle.centre.y, at.x - circle.centre.x);
    return [
      { heading: out + Math.PI / 2, bend: 1 / circle.radius },
      { heading: out - Math.PI / 2, bend: -1 / circle.radius },
    ];
  }
  const piece = pieces[place]!;
  const neighbour = (step: number): Piece | undefined =>
    closed ? pieces[(place + step + pieces.length) % pieces.length] : pieces[place + step];
  if (distance(piece.a, at) <= RESOLUTION) {
    const before = neighbour(-1);
    return before && [backward(before, 1), onward(piece, 0)];
  }
  if (distance(piece.b, at) <= RESOLUTION) {
    const after = neighbour(1);
    return after && [backward(piece, 1), onward(after, 0)];
  }
  const { t } = pieceNearest(piece, at);
  return [backward(piece, t), onward(piece, t)];
};

const turn = 2 * Math.PI;

/** How far counter-clockwise one way lies after another, 0 to a whole turn; ways that head alike by how they bend. */
const after = (from: Branch, to: Branch): number => {
  const on = (((to.heading - from.heading) % turn) + turn) % turn;
  if (on > TANGENT_WITHIN && on < turn - TANGENT_WITHIN) return on;
  return to.bend >= from.bend ? 0 : turn;
};

const same = (p: Branch, q: Branch): boolean => {
  const on = Math.abs(p.heading - q.heading) % turn;
  return Math.min(on, turn - on) <= TANGENT_WITHIN && Math.abs(p.bend - q.bend) <= TANGENT_WITHIN;
};

/**
 * True where one run changes the other's side at a place in which both go on: the ways out of one are parted by those
 * of the other. What only touches there does not, nor what shares a stretch from there.
 */
export const passesThrough = (one: readonly [Branch, Branch], other: readonly [Branch, Branch]): boolean => {
  if (one.some((p) => other.some((q) => same(p, q)))) return false;
  const [from, to] = one;
  const between = (way: Branch): boolean => {
    const [reach, on] = [after(from, to), after(from, way)];
    const tied = Math.abs(reach - on) <= TANGENT_WITHIN;
    return tied ? way.bend < to.bend : on < reach;
  };
  return between(other[0]) !== between(other[1]);
};
