import { RUNS_ON, TANGENT_WITHIN } from "../numeric/tolerance.ts";
import type { Pairing } from "../contour/joining.ts";
import { pieceDirection, pieceRadius, reversePiece, type Piece } from "../geometry/piece.ts";
import { angleOf, cross, distance, times, type Point } from "../geometry/point.ts";
import { normalAngle, TURN } from "../numeric/angle.ts";
import { greatest, least } from "../numeric/greatest.ts";

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
  // two copies of an edge go there and back, and are no outline
  const apart: Pairing["apart"] = (p, q) =>
    isShared(p) && isShared(q) && distance(leaves(p), leaves(q)) < RUNS_ON && Math.abs(bendOf(p) - bendOf(q)) < RUNS_ON;
  /**
   * Where more than two outlines meet, each goes on round its own face, from an edge to the next on its left. Two edges
   * that are there once lie side by side, with nothing between them; all others are there twice, of which that with the
   * lower number lies to the left of its own direction, at both of its ends.
   */
  const roundFaces = (here: readonly number[]): readonly (readonly [number, number])[] => {
    const headings = new Map(here.map((end) => [end, normalAngle(angleOf(leaves(end)))]));
    const sorted = [...here].sort((p, q) => headings.get(p)! - headings.get(q)! || bendOf(p) - bendOf(q));
    const edges: number[][] = [];
    for (const end of sorted) {
      const last = edges.at(-1);
      if (last && apart(last[0]!, end)) last.push(end);
      else edges.push([end]);
    }
    // the first direction may be told from just below the whole turn
    if (edges.length > 1 && apart(edges[0]![0]!, edges.at(-1)![0]!)) edges[0] = [...edges[0]!, ...edges.pop()!];
    const single = edges.flatMap((edge, i) => (edge.length === 1 ? [i] : []));
    const outer = single.length === 0 ? -1 : single.find((i) => single.includes((i + 1) % edges.length));
    if (edges.some(({ length }) => length > 2) || outer === undefined || single.length % 2 === 1 || single.length > 2)
      return [];
    const copyAt = (edge: readonly number[], left: boolean): number => {
      const low = least(edge);
      return ((low & 1) === 0) === left ? low : greatest(edge);
    };
    return edges.flatMap((edge, i) =>
      i === outer ? [] : [[copyAt(edge, true), copyAt(edges[(i + 1) % edges.length]!, false)] as const],
    );
  };
  const pairs: Pairing["pairs"] = (here) => {
    const edges = here.filter(isShared);
    const rest = here.filter((end) => !edges.includes(end));
    if (rest.length !== 2 || edges.length < 1 || edges.length > 2) return roundFaces(here);
    const [first, second] = edges as [number, number?];
    const [p, q] = rest as [number, number];
    // turning left from the edge, the outline on its left comes first; of two that leave in one direction the one
    // bending less to the left
    const turn = turnFrom(first, p) - turnFrom(first, q);
    const before = Math.abs(turn) > TANGENT_WITHIN ? turn < 0 : bendOf(p) <= bendOf(q);
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
  };
  return { pairs, apart };
};
