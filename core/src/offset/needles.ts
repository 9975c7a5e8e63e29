import type { Piece } from "../geometry/piece.ts";
import { distance, equalPoint } from "../geometry/point.ts";

/** True of two straight pieces of which the second runs back along the first within a width. */
const isNeedle = (p: Piece, q: Piece, width: number): boolean => {
  if (p.bulge !== 0 || q.bulge !== 0) return false;
  const [ux, uy, vx, vy] = [p.b.x - p.a.x, p.b.y - p.a.y, q.b.x - q.a.x, q.b.y - q.a.y];
  const longer = Math.sqrt(Math.max(ux * ux + uy * uy, vx * vx + vy * vy));
  return ux * vx + uy * vy < 0 && Math.abs(ux * vy - uy * vx) <= width * longer;
};

/** Pieces without such needles: of a neck of just twice the distance nothing is left, nor of what they stand on. */
export const withoutNeedles = (pieces: readonly Piece[], closed: boolean, width: number): readonly Piece[] => {
  if (!pieces.some((piece, i) => (closed || i > 0) && isNeedle(pieces.at(i - 1)!, piece, width))) return pieces;
  const out: Piece[] = [];
  const feet = new Set<Piece>();
  const join = (p: Piece, q: Piece): Piece => {
    const foot = { a: p.a, b: q.b, bulge: 0 };
    feet.add(foot);
    return foot;
  };
  for (const piece of pieces) {
    const last = out.at(-1);
    if (last && isNeedle(last, piece, width)) out[out.length - 1] = join(last, piece);
    else out.push(piece);
  }
  while (closed && out.length > 2 && isNeedle(out.at(-1)!, out[0]!, width)) out[0] = join(out.pop()!, out[0]!);
  const made = out.filter((piece) => !feet.has(piece) || distance(piece.a, piece.b) > width);
  return made.map((piece, i) => {
    const before = i > 0 || closed ? made.at(i - 1)! : undefined;
    return before && !equalPoint(before.b, piece.a) ? { ...piece, a: before.b } : piece;
  });
};
