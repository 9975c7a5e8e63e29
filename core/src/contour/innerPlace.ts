import { pieceBounds, pieceCentre, pieceNearest, pieceRadius, piecesBounds, type Piece } from "../geometry/piece.ts";
import type { Point } from "../geometry/point.ts";
import { least } from "../numeric/greatest.ts";
import { windingNumber } from "./winding.ts";

/** Parts of the box at which it is looked across and up; no simple fractions, so that corners are rarely hit. */
const LOOKS = [0.4837, 0.2611, 0.7393, 0.1129, 0.8871, 0.0371, 0.9629] as const;

/** A place that lies inside by this part of the box is good enough: no better one is looked for. */
const GOOD_PART = 0.05;

/** So many stretches of one look are tried, the widest first. */
const TRIED = 3;

/**
 * A place inside of a closed contour, well away from its edge where it has width: whatever only touches the contour,
 * or misses it by rounding, lies on the same side of it as the whole. Undefined where nothing is inside. n for a
 * contour of n pieces.
 */
export const innerPlace = (pieces: readonly Piece[]): Point | undefined => {
  const box = piecesBounds(pieces);
  if (!box) return undefined;
  const [width, height] = [box.maxX - box.minX, box.maxY - box.minY];
  const good = GOOD_PART * Math.min(width, height);
  let best: { readonly at: Point; readonly depth: number } | undefined;
  for (const part of LOOKS)
    for (const upright of [false, true]) {
      const level = upright ? box.minX + part * width : box.minY + part * height;
      const places = crossingsOf(pieces, level, upright).sort((p, q) => p - q);
      const stretches = places
        .slice(1)
        .map((to, i) => ({ from: places[i]!, to }))
        .sort((p, q) => q.to - q.from - (p.to - p.from));
      for (const { from, to } of stretches.slice(0, TRIED)) {
        const middle = (from + to) / 2;
        const at = upright ? { x: level, y: middle } : { x: middle, y: level };
        if (windingNumber(pieces, at) === 0) continue;
        const depth = least(pieces.map((piece) => pieceNearest(piece, at).distance));
        if (!best || depth > best.depth) best = { at, depth };
        if (depth >= good) return at;
        break;
      }
    }
  return best?.at;
};

/** Where pieces cross a level line (or an upright one), by their other coordinate, in no order. */
const crossingsOf = (pieces: readonly Piece[], level: number, upright: boolean): number[] => {
  const found: number[] = [];
  const [along, across] = upright ? (["y", "x"] as const) : (["x", "y"] as const);
  for (const piece of pieces) {
    const { a, b, bulge } = piece;
    if (bulge === 0) {
      const [from, to] = [a[across] - level, b[across] - level];
      if (from > 0 === to > 0) continue;
      found.push(a[along] + (from / (from - to)) * (b[along] - a[along]));
      continue;
    }
    const { minX, maxX, minY, maxY } = pieceBounds(piece);
    if (upright ? level < minX || level > maxX : level < minY || level > maxY) continue;
    const [centre, radius] = [pieceCentre(piece), pieceRadius(piece)];
    if (!centre) continue;
    const under = radius * radius - (level - centre[across]) ** 2;
    if (under < 0) continue;
    for (const off of [-Math.sqrt(under), Math.sqrt(under)]) {
      const at = centre[along] + off;
      const p = upright ? { x: level, y: at } : { x: at, y: level };
      // an arc that turns left lies on the right of its chord
      const side = (b.x - a.x) * (p.y - a.y) - (b.y - a.y) * (p.x - a.x);
      if (side === 0 || side > 0 === bulge < 0) found.push(at);
    }
  }
  return found;
};
