import { nestingDepths } from "../contour/nesting.ts";
import { windingNumber } from "../contour/winding.ts";
import { innerPlace } from "../contour/innerPlace.ts";
import { boxTree } from "../geometry/boxTree.ts";
import { piecesBounds, type Piece } from "../geometry/piece.ts";
import type { Point } from "../geometry/point.ts";

/** Contours that are cut one after another: what lies in one another is cut from inside out. */
type Level = readonly number[];

/** More turns than this around the whole way bring next to nothing. */
const ROUNDS = 12;
/** Ways that differ by less than this are as long as one another, mm. */
const SAME = 1e-9;

/**
 * The order in which closed contours are cut, as their numbers: never one before all that lies in it, part after part,
 * within each level the nearest next, bettered by turning stretches round while that shortens the way (2-opt, Croes
 * 1958). Starts from a place. n² of few steps for n contours of a level.
 */
export const cutOrder = (contours: readonly (readonly Piece[])[], from: Point): readonly number[] => {
  const depths = nestingDepths(contours);
  const roots = rootsOf(contours, depths);
  const parts = new Map<number, number[]>();
  roots.forEach((root, i) => void (parts.get(root)?.push(i) ?? parts.set(root, [i])));
  const starts = contours.map((pieces) => pieces[0]!.a);
  const order: number[] = [];
  let at = from;
  // parts as they come by their outermost contours, each whole
  const heads = [...parts.keys()];
  for (const root of bettered(nearestFirst(heads, starts, from), starts, from)) {
    const own = parts.get(root)!;
    const deepest = own.reduce((most, i) => Math.max(most, depths[i]!), 0);
    for (let depth = deepest; depth >= 0; depth--) {
      const level: Level = own.filter((i) => depths[i] === depth);
      for (const i of bettered(nearestFirst(level, starts, at), starts, at)) {
        order.push(i);
        at = starts[i]!;
      }
    }
  }
  return order;
};

/** The outermost contour in which each lies; of an outermost one itself. */
const rootsOf = (contours: readonly (readonly Piece[])[], depths: readonly number[]): readonly number[] => {
  const boxes = new Float64Array(4 * contours.length);
  contours.forEach((pieces, i) => {
    const { minX, minY, maxX, maxY } = piecesBounds(pieces)!;
    boxes.set([minX, minY, maxX, maxY], 4 * i);
  });
  const tree = boxTree(boxes);
  return contours.map((pieces, i) => {
    if (depths[i] === 0) return i;
    const at = innerPlace(pieces) ?? pieces[0]!.a;
    let root = i;
    tree.within(at.x, at.y, at.x, at.y, (j) => {
      if (depths[j] !== 0 || windingNumber(contours[j]!, at) === 0) return false;
      root = j;
      return true;
    });
    return root;
  });
};

const nearestFirst = (level: Level, starts: readonly Point[], from: Point): number[] => {
  const left = [...level];
  const order: number[] = [];
  let { x, y } = from;
  while (left.length > 0) {
    let [best, least] = [0, Infinity];
    for (let k = 0; k < left.length; k++) {
      const at = starts[left[k]!]!;
      const away = (at.x - x) ** 2 + (at.y - y) ** 2;
      if (away < least) [best, least] = [k, away];
    }
    const next = left[best]!;
    left[best] = left.at(-1)!;
    left.pop();
    order.push(next);
    ({ x, y } = starts[next]!);
  }
  return order;
};

/** The same things in a shorter order, where turning a stretch of it round makes it so. */
const bettered = (order: readonly number[], starts: readonly Point[], from: Point): readonly number[] => {
  const n = order.length;
  // the place before the first is where the cutter comes from
  const [xs, ys] = [new Float64Array(n + 1), new Float64Array(n + 1)];
  const own = Int32Array.from(order);
  [from, ...order.map((i) => starts[i]!)].forEach(({ x, y }, k) => {
    xs[k] = x;
    ys[k] = y;
  });
  const way = (p: number, q: number): number => Math.sqrt((xs[p]! - xs[q]!) ** 2 + (ys[p]! - ys[q]!) ** 2);
  for (let round = 0; round < ROUNDS; round++) {
    let changed = false;
    for (let i = 0; i < n - 1; i++) {
      let next = way(i, i + 1);
      for (let j = i + 2; j <= n; j++) {
        const across = way(i, j);
        // the way ends at the last: nothing comes after it
        const gained = j < n ? next + way(j, j + 1) - across - way(i + 1, j + 1) : next - across;
        if (gained <= SAME) continue;
        for (let [p, q] = [i + 1, j]; p < q; p++, q--) {
          [xs[p], xs[q]] = [xs[q]!, xs[p]!];
          [ys[p], ys[q]] = [ys[q]!, ys[p]!];
          [own[p - 1], own[q - 1]] = [own[q - 1]!, own[p - 1]!];
        }
        next = way(i, i + 1);
        changed = true;
      }
    }
    if (!changed) break;
  }
  return [...own];
};
