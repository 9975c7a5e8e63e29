import { circleRound } from "../contour/joining.ts";
import type { Piece } from "../geometry/piece.ts";
import { distance } from "../geometry/point.ts";
import { JOINED } from "../numeric/tolerance.ts";
import type { Origin, Tidied } from "./things.ts";

/** What was merged, without the corners at which a shared edge ended: straight pieces that run on are one. */
export const withoutSeams = (
  pieces: readonly Piece[],
  closed: boolean,
  origins: Tidied["origins"],
): readonly [readonly Piece[], boolean, Tidied["origins"]] => {
  if (closed && circleRound(pieces)) return [pieces, closed, origins];
  const out: Piece[] = [];
  const from: (readonly Origin[])[] = [];
  const runsOn = (p: Piece, q: Piece): boolean => {
    if (p.bulge !== 0 || q.bulge !== 0) return false;
    const { x, y } = { x: q.b.x - p.a.x, y: q.b.y - p.a.y };
    const length = Math.hypot(x, y);
    const off = Math.abs(x * (p.b.y - p.a.y) - y * (p.b.x - p.a.x)) / length;
    return off <= JOINED && distance(p.a, p.b) + distance(q.a, q.b) <= length + JOINED;
  };
  pieces.forEach((piece, i) => {
    const last = out.at(-1);
    const own = origins[i] ?? [];
    if (last && runsOn(last, piece)) {
      out[out.length - 1] = { a: last.a, b: piece.b, bulge: 0 };
      from[from.length - 1] = [...from.at(-1)!, ...own];
    } else {
      out.push(piece);
      from.push(own);
    }
  });
  const [first, last] = [out[0]!, out.at(-1)!];
  if (closed && out.length > 3 && runsOn(last, first)) {
    out[0] = { a: last.a, b: first.b, bulge: 0 };
    from[0] = [...from.pop()!, ...from[0]!];
    out.pop();
  }
  return [out, closed, from];
};
