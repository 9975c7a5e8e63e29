import { orient2d } from "robust-predicates";
import { pieceCentre, pieceRadius, type Piece } from "../geometry/piece.ts";
import { distance, type Point } from "../geometry/point.ts";

/**
 * -1, 0 or 1: `p` on the right of, on, or on the left of the line from `a` to `b`; exact. The library counts the other
 * way.
 */
const sideOf = (a: Point, b: Point, p: Point): number => Math.sign(-orient2d(a.x, a.y, b.x, b.y, p.x, p.y));

/**
 * How often closed `pieces` wind round `p`, counter-clockwise positive; 0 outside. The winding of the polygon of
 * chords, by exact predicates, plus one for every circular segment that holds `p`. Not meant for points on the contour
 * itself.
 *
 * Source: winding number by crossings (Hormann and Agathos 2001, from memory); the segments are derived here.
 */
export const windingNumber = (pieces: readonly Piece[], p: Point): number => {
  let winding = 0;
  for (const piece of pieces) {
    const { a, b, bulge } = piece;
    const side = sideOf(a, b, p);
    const upward = a.y <= p.y && p.y < b.y;
    const downward = b.y <= p.y && p.y < a.y;
    if (upward && side > 0) winding += 1;
    if (downward && side < 0) winding -= 1;
    if (bulge === 0) continue;
    // a point on the chord belongs where the rule above has put it
    const onRight = side < 0 || (side === 0 && (upward || (!downward && b.x < a.x)));
    const within = distance(p, pieceCentre(piece)!) < pieceRadius(piece);
    if (!within) continue;
    if (bulge > 0 && onRight) winding += 1;
    if (bulge < 0 && !onRight) winding -= 1;
  }
  return winding;
};
