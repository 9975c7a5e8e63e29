import { FLAT_BULGE } from "../numeric/tolerance.ts";
import type { Circle } from "./circle.ts";
import { pieceCentre, pieceRadius, type Piece } from "./piece.ts";

/** Circles, three numbers each: x and y of the centre and the radius; NaN where something lies on none. */
export type Circles = Float64Array;

/** Centres as near as this are one: what rounding leaves of them; and what it leaves of a radius, as a part of it. */
const [ONE_CENTRE, ROUNDED] = [1e-6, 1e-10];

/**
 * Rings that hold what lies on circles about one middle, four numbers each: x and y of the middle, least and greatest
 * radius; NaN where what they hold has no middle in common. Boxes can't tell such things apart, these can.
 */
export type Rings = {
  /** Makes a ring hold a circle, or all that another holds, the first of them or one more. */
  readonly holdCircle: (ring: number, circles: Circles, of: number, first: boolean) => void;
  readonly holdRing: (ring: number, from: Rings, of: number, first: boolean) => void;
  /** True of rings about one middle with more than `reach` between them. */
  readonly apart: (p: number, q: number, reach: number) => boolean;
  /** True where no place of a rectangle lies within a ring. */
  readonly misses: (p: number, minX: number, minY: number, maxX: number, maxY: number) => boolean;
  readonly numbers: Float64Array;
};

/** The circles that curves lie on; of what is straight, or nearly so, none. */
export const circlesOfCurves = (curves: readonly (Piece | Circle)[]): Circles => {
  const circles = new Float64Array(3 * curves.length).fill(NaN);
  for (let i = 0; i < curves.length; i++) {
    const curve = curves[i]!;
    const isCircle = "radius" in curve;
    if (!isCircle && Math.abs(curve.bulge) < FLAT_BULGE) continue;
    const { x, y } = isCircle ? curve.centre : pieceCentre(curve)!;
    circles[3 * i] = x;
    circles[3 * i + 1] = y;
    circles[3 * i + 2] = isCircle ? curve.radius : pieceRadius(curve);
  }
  return circles;
};

export const ringsFor = (count: number): Rings => {
  const rings = new Float64Array(4 * count).fill(NaN);
  const hold = (ring: number, x: number, y: number, least: number, greatest: number, first: boolean): void => {
    const k = 4 * ring;
    if (first) {
      rings[k] = x;
      rings[k + 1] = y;
      rings[k + 2] = least;
      rings[k + 3] = greatest;
      return;
    }
    // also where one of them has none: nothing is near NaN
    if (!(Math.abs(rings[k]! - x) <= ONE_CENTRE && Math.abs(rings[k + 1]! - y) <= ONE_CENTRE)) rings[k] = NaN;
    rings[k + 2] = Math.min(rings[k + 2]!, least);
    rings[k + 3] = Math.max(rings[k + 3]!, greatest);
  };
  return {
    numbers: rings,
    holdCircle: (ring, circles, of, first) =>
      hold(ring, circles[3 * of]!, circles[3 * of + 1]!, circles[3 * of + 2]!, circles[3 * of + 2]!, first),
    holdRing: (ring, { numbers }, of, first) =>
      hold(ring, numbers[4 * of]!, numbers[4 * of + 1]!, numbers[4 * of + 2]!, numbers[4 * of + 3]!, first),
    apart: (p, q, reach) => {
      const [k, l] = [4 * p, 4 * q];
      if (!(Math.abs(rings[k]! - rings[l]!) <= 2 * ONE_CENTRE)) return false;
      if (Math.abs(rings[k + 1]! - rings[l + 1]!) > 2 * ONE_CENTRE) return false;
      // as far as two places may lie from each other that are no farther apart than that in x and in y
      const far = Math.SQRT2 * reach + 4 * ONE_CENTRE + ROUNDED * Math.max(rings[k + 3]!, rings[l + 3]!);
      return rings[k + 2]! > rings[l + 3]! + far || rings[l + 2]! > rings[k + 3]! + far;
    },
    misses: (p, minX, minY, maxX, maxY) => {
      const k = 4 * p;
      const [x, y] = [rings[k]!, rings[k + 1]!];
      if (Number.isNaN(x)) return false;
      const [left, right, below, above] = [minX - x, maxX - x, minY - y, maxY - y];
      const farX = Math.max(-left, right);
      const farY = Math.max(-below, above);
      const slack = ONE_CENTRE + ROUNDED * rings[k + 3]!;
      const far = rings[k + 2]! - slack;
      if (far > 0 && farX * farX + farY * farY < far * far) return true;
      const nearX = Math.max(left, -right, 0);
      const nearY = Math.max(below, -above, 0);
      const near = rings[k + 3]! + slack;
      return nearX * nearX + nearY * nearY > near * near;
    },
  };
};
