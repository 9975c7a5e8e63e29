import { boxTree } from "../geometry/boxTree.ts";
import { piecesBounds, type Piece } from "../geometry/piece.ts";
import type { Point } from "../geometry/point.ts";
import { greatest } from "../numeric/greatest.ts";
import { resolutionFor } from "../numeric/tolerance.ts";
import { enclosedArea } from "./chainMeasure.ts";
import { innerPlace } from "./innerPlace.ts";
import { windingNumber } from "./winding.ts";

/**
 * What sticks out by less than this part of its size lies in another still: rounded numbers make touching contours
 * cross by a hair. What sticks out by more crosses, and is no hole.
 */
const OUT = 0.01;

/**
 * So many of those next larger are looked at before all whose boxes hold the place: what is nested closely is there.
 */
const NEXT = 6;
/** Of more boxes than this that hold a place, the contours are looked at by their size alone. */
const MANY = 48;

/**
 * How deep each contour lies: 0 for outermost ones, 1 for holes in them, and so on. Decided by where the inside of each
 * lies: one that touches another from inside or from outside, or misses it by rounding, is told right. Contours that
 * don't cross are assumed; of two equal ones the later lies in the earlier. Near n log n, also for circles in one
 * another.
 */
export const nestingDepths = (contours: readonly (readonly Piece[])[]): readonly number[] => {
  if (contours.length === 0) return [];
  const boxes = new Float64Array(4 * contours.length);
  contours.forEach((pieces, i) => {
    const { minX, minY, maxX, maxY } = piecesBounds(pieces)!;
    boxes.set([minX, minY, maxX, maxY], 4 * i);
  });
  const areas = contours.map((pieces) => Math.abs(enclosedArea(pieces)));
  // from the smallest on: what holds another comes after it
  const order = contours.map((_, i) => i).sort((i, j) => areas[i]! - areas[j]! || j - i);
  const rank = new Int32Array(contours.length);
  order.forEach((i, k) => (rank[i] = k));
  const resolution = resolutionFor(greatest(boxes.map(Math.abs)));
  const tree = boxTree(boxes);

  const slackOf = (i: number): number => {
    const p = 4 * i;
    return resolution + OUT * Math.min(boxes[p + 2]! - boxes[p]!, boxes[p + 3]! - boxes[p + 1]!);
  };
  const boxHolds = (j: number, i: number, slack: number): boolean => {
    const [p, q] = [4 * i, 4 * j];
    return (
      boxes[q]! <= boxes[p]! + slack &&
      boxes[q + 1]! <= boxes[p + 1]! + slack &&
      boxes[q + 2]! >= boxes[p + 2]! - slack &&
      boxes[q + 3]! >= boxes[p + 3]! - slack
    );
  };
  /** The smallest contour that holds one; -1 where none does. */
  const parentOf = (i: number): number => {
    const slack = slackOf(i);
    let at: Point | undefined; // only looked for where a box holds that of the contour
    const holds = (k: number): boolean => {
      if (!boxHolds(order[k]!, i, slack)) return false;
      at ??= innerPlace(contours[i]!) ?? contours[i]![0]!.a;
      return windingNumber(contours[order[k]!]!, at) !== 0;
    };
    const from = rank[i]! + 1;
    const next = Math.min(from + NEXT, order.length);
    for (let k = from; k < next; k++) if (holds(k)) return order[k]!;
    const near: number[] = [];
    let count = 0;
    const [x, y] = [boxes[4 * i]!, boxes[4 * i + 1]!];
    tree.within(x - slack, y - slack, x + slack, y + slack, (j) => {
      if (rank[j]! >= next && boxHolds(j, i, slack) && count++ < MANY) near.push(rank[j]!);
    });
    if (count <= MANY) {
      const found = near.sort((p, q) => p - q).find(holds);
      return found === undefined ? -1 : order[found]!;
    }
    for (let k = next; k < order.length; k++) if (holds(k)) return order[k]!;
    return -1;
  };
  const depths = contours.map(() => 0);
  for (let k = order.length - 1; k >= 0; k--) {
    const parent = parentOf(order[k]!);
    if (parent >= 0) depths[order[k]!] = depths[parent]! + 1;
  }
  return depths;
};
