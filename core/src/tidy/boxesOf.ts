import type { Boxes } from "../geometry/boxTree.ts";
import { circleBounds, type Circle } from "../geometry/circle.ts";
import { pieceBounds, type Piece } from "../geometry/piece.ts";

/** The upright boxes of many curves. */
export const boxesOf = (curves: readonly (Piece | Circle)[]): Boxes => {
  const boxes = new Float64Array(4 * curves.length);
  const put = (k: number, minX: number, minY: number, maxX: number, maxY: number): void => {
    boxes[k] = minX;
    boxes[k + 1] = minY;
    boxes[k + 2] = maxX;
    boxes[k + 3] = maxY;
  };
  for (let i = 0; i < curves.length; i++) {
    const curve = curves[i]!;
    if (!("radius" in curve) && curve.bulge === 0) {
      const { a, b } = curve;
      put(4 * i, Math.min(a.x, b.x), Math.min(a.y, b.y), Math.max(a.x, b.x), Math.max(a.y, b.y));
    } else {
      const { minX, minY, maxX, maxY } = "radius" in curve ? circleBounds(curve) : pieceBounds(curve);
      put(4 * i, minX, minY, maxX, maxY);
    }
  }
  return boxes;
};
