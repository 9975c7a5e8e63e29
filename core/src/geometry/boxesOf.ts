import type { Boxes } from "./boxTree.ts";
import { circleBounds, type Circle } from "./circle.ts";
import { pieceBounds, type Piece } from "./piece.ts";
import { distance } from "./point.ts";

/** Arcs flatter than this (bulge) get the box of their chord, grown by how high they stand over it. */
const FLAT = 0.2;

/** Upright boxes of many curves: exact, but for flat arcs a little larger. */
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
    if ("radius" in curve || Math.abs(curve.bulge) > FLAT) {
      const { minX, minY, maxX, maxY } = "radius" in curve ? circleBounds(curve) : pieceBounds(curve);
      put(4 * i, minX, minY, maxX, maxY);
      continue;
    }
    const { a, b, bulge } = curve;
    const more = bulge === 0 ? 0 : (Math.abs(bulge) * distance(a, b)) / 2; // height = bulge * chord / 2
    put(
      4 * i,
      Math.min(a.x, b.x) - more,
      Math.min(a.y, b.y) - more,
      Math.max(a.x, b.x) + more,
      Math.max(a.y, b.y) + more,
    );
  }
  return boxes;
};
