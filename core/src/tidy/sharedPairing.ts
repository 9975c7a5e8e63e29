import { RUNS_ON, TANGENT_WITHIN } from "../numeric/tolerance.ts";
import type { Pairing } from "../contour/joining.ts";
import { pieceDirection, pieceRadius, reversePiece, type Piece } from "../geometry/piece.ts";
import { angleOf, cross, distance, times, type Point } from "../geometry/point.ts";
import { normalAngle, TURN } from "../numeric/angle.ts";

/**
 * Pairs the ends at a node where two outlines share an edge: each outline goes on round its own face. Of two copies of
 * the edge one goes with the outline on its left, the other with that on its right; a single copy goes with the outline
 * on its left. Anything else that branches stays open. `isShared`: the piece at an end is such an edge; `other` gives
 * the only other end that lies at one.
 */
export const sharedPairing = (
  piecesOf: (part: number) => readonly Piece[],
  isShared: (end: number) => boolean,
  other: (end: number) => number | undefined,
): Pairing => {
  /** The direction in which a part leaves the node that one of its ends lies at. */
  const leaves = (end: number): Point => {
    const pieces = piecesOf(end >> 1);
    return end & 1 ? times(pieceDirection(pieces.at(-1)!, 1), -1) : pieceDirection(pieces[0]!, 0);
  };
  /** How an end's piece bends as it leaves its node: to the left above 0. */
  const bendOf = (end: number): number => {
    const pieces = piecesOf(end >> 1);
    const piece = end & 1 ? reversePiece(pieces.at(-1)!) : pieces[0]!;
    return piece.bulge === 0 ? 0 : Math.sign(piece.bulge) / pieceRadius(piece);
  };
  const turnFrom = (edge: number, end: number): number => {
    const turn = normalAngle(angleOf(leaves(end)) - angleOf(leaves(edge)));
    return turn < RUNS_ON ? turn + TURN : turn;
  };
  /** On which side of an edge, seen along it from this end, its outline lies: by where it goes on at its far end. */
  const sideOf = (edge: number): number => {
    const pieces = piecesOf(edge >> 1);
    if (pieces.length > 1) {
      const [own, next] = edge & 1 ? [pieces.at(-1)!, pieces.at(-2)!] : [pieces[0]!, pieces[1]!];
      return edge & 1
        ? Math.sign(cross(times(pieceDirection(own, 0), -1), times(pieceDirection(next, 1), -1)))
        : Math.sign(cross(pieceDirection(own, 1), pieceDirection(next, 0)));
    }
    const far = edge ^ 1;
    const next = other(far);
    if (next === undefined) return 0;
    return Math.sign(cross(times(leaves(far), -1), leaves(next)));
  };
  const pairs: Pairing["pairs"] = (here) => {
    const edges = here.filter(isShared);
    const rest = here.filter((end) => !edges.includes(end));
    if (rest.length !== 2 || edges.length < 1 || edges.length > 2) return [];
    const [first, second] = edges as [number, number?];
    const [p, q] = rest as [number, number];
    // turning left from the edge, the outline on its left comes first; of two that leave in one direction the one
    // bending less to the left
    const apart = turnFrom(first, p) - turnFrom(first, q);
    const before = Math.abs(apart) > TANGENT_WITHIN ? apart < 0 : bendOf(p) <= bendOf(q);
    const [left, right] = before ? [p, q] : [q, p];
    if (second === undefined) {
      const side = (first & 1) === 0 ? left : right; // the same outline at both of its ends
      return [[first, side]];
    }
    const [a, b] = [sideOf(first), sideOf(second)];
    const swap = a < 0 || b > 0 || (a === 0 && b === 0 && (first & 1) === 1);
    return swap
      ? [
          [first, right],
          [second, left],
        ]
      : [
          [first, left],
          [second, right],
        ];
  }; // two copies of an edge go there and back, and are no outline
  const apart: Pairing["apart"] = (p, q) =>
    isShared(p) && isShared(q) && distance(leaves(p), leaves(q)) < RUNS_ON && Math.abs(bendOf(p) - bendOf(q)) < RUNS_ON;
  return { pairs, apart };
};
