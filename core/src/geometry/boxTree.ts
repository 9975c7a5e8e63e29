import Flatbush from "flatbush";
import { ringsFor, type Circles, type Rings } from "./rings.ts";

/** Upright boxes, four numbers each: least x, least y, greatest x, greatest y. */
export type Boxes = Float64Array;

/**
 * Finds which of many boxes lie near one another, or in a rectangle; where it is told on which circles things lie, what
 * lies on circles about one middle is visited only where these do.
 */
export type BoxTree = {
  /** Visits every two that lie no farther apart than `reach` in x and in y, once, the lower number first. */
  readonly pairs: (reach: number, visit: (i: number, j: number) => void) => void;
  /** Visits every one that meets a rectangle, until one says true. */
  readonly within: (minX: number, minY: number, maxX: number, maxY: number, visit: (i: number) => unknown) => void;
};

/**
 * What Flatbush writes at the start of the buffer that is read here by its layout: its mark, and the version of that.
 */
const MAGIC = 0xfb;
const LAYOUT = 3;

/** Children of a node, at most. */
const FAN = 16;

/**
 * A packed tree of boxes, built by Flatbush in n log n. Pairs are found by going down the tree beside itself, node by
 * node that lie near each other, in time near that of the pairs; a box that was asked for alone would go down from the
 * root each time.
 */
export const boxTree = (boxes: Boxes, circles?: Circles): BoxTree =>
  treeOf(
    boxes,
    circles &&
      ((rings, ring, i) => {
        rings.holdCircle(ring, circles, i, true);
      }),
  );

/** Makes a ring hold what lies in a box. */
type HoldIn = (rings: Rings, ring: number, box: number) => void;

const treeOf = (boxes: Boxes, holdIn?: HoldIn): BoxTree => {
  const count = boxes.length / 4;
  if (count === 0) return { pairs: () => undefined, within: () => undefined };
  const built = new Flatbush(count, FAN);
  for (let k = 0; k < boxes.length; k += 4) built.add(boxes[k]!, boxes[k + 1]!, boxes[k + 2]!, boxes[k + 3]!);
  built.finish();
  const { nodes, links, ends } = opened(built);
  const rings = holdIn && ringsOf(nodes.length / 4, links, ends, holdIn);
  const near = (p: number, q: number, reach: number): boolean =>
    nodes[p]! - reach <= nodes[q + 2]! &&
    nodes[q]! - reach <= nodes[p + 2]! &&
    nodes[p + 1]! - reach <= nodes[q + 3]! &&
    nodes[q + 1]! - reach <= nodes[p + 3]! &&
    !rings?.apart(p >> 2, q >> 2, reach);
  const lastOf = (first: number, level: number): number => Math.min(first + 4 * FAN, ends[level]!);
  const told = (p: number, q: number, visit: (i: number, j: number) => void): void => {
    const i = links[p >> 2]!;
    const j = links[q >> 2]!;
    if (i < j) visit(i, j);
    else visit(j, i);
  };

  /** What is near each other among the children of a node, which begin at a place on a level. */
  const inOne = (first: number, level: number, reach: number, visit: (i: number, j: number) => void): void => {
    const last = lastOf(first, level);
    for (let p = first; p < last; p += 4) {
      if (level > 0) inOne(links[p >> 2]!, level - 1, reach, visit);
      for (let q = p + 4; q < last; q += 4) {
        if (!near(p, q, reach)) continue;
        if (level === 0) told(p, q, visit);
        else inTwo(p, q, level, reach, visit);
      }
    }
  };
  /** What is near each other from one node of a level to another. */
  const inTwo = (
    one: number,
    other: number,
    level: number,
    reach: number,
    visit: (i: number, j: number) => void,
  ): void => {
    const qFirst = links[other >> 2]!;
    const qLast = lastOf(qFirst, level - 1);
    const pLast = lastOf(links[one >> 2]!, level - 1);
    for (let p = links[one >> 2]!; p < pLast; p += 4) {
      if (!near(p, other, reach)) continue;
      for (let q = qFirst; q < qLast; q += 4) {
        if (!near(p, q, reach)) continue;
        if (level === 1) told(p, q, visit);
        else inTwo(p, q, level - 1, reach, visit);
      }
    }
  };

  const rootLevel = ends.length - 1;
  const rootFirst = links[(nodes.length - 4) >> 2]!;
  const stack = new Int32Array(2 * FAN * ends.length);
  return {
    pairs: (reach, visit) => inOne(rootFirst, rootLevel - 1, reach, visit),
    within: (minX, minY, maxX, maxY, visit) => {
      let depth = 0;
      let first = rootFirst;
      let level = rootLevel - 1;
      for (;;) {
        const last = lastOf(first, level);
        for (let p = first; p < last; p += 4) {
          if (nodes[p]! > maxX || nodes[p + 1]! > maxY || nodes[p + 2]! < minX || nodes[p + 3]! < minY) continue;
          if (rings?.misses(p >> 2, minX, minY, maxX, maxY)) continue;
          if (level === 0) {
            if (visit(links[p >> 2]!) === true) return;
          } else {
            stack[depth++] = links[p >> 2]!;
            stack[depth++] = level - 1;
          }
        }
        if (depth === 0) return;
        level = stack[--depth]!;
        first = stack[--depth]!;
      }
    },
  };
};

/**
 * Where blocks begin. One round a large outline would hold what lies within it, and of frames in one another every one
 * all others.
 */
const blockStarts = (boxes: Boxes, linked: (i: number) => boolean): readonly number[] => {
  const all = [Infinity, Infinity, -Infinity, -Infinity];
  const hold = (box: number[], k: number): void => {
    box[0] = Math.min(box[0]!, boxes[k]!);
    box[1] = Math.min(box[1]!, boxes[k + 1]!);
    box[2] = Math.max(box[2]!, boxes[k + 2]!);
    box[3] = Math.max(box[3]!, boxes[k + 3]!);
  };
  const reachOf = (box: readonly number[]): number => box[2]! - box[0]! + box[3]! - box[1]!;
  for (let k = 0; k < boxes.length; k += 4) hold(all, k);
  const most = LARGE * reachOf(all);
  const starts: number[] = [];
  let own: number[] = [];
  for (let i = 0, k = 0; k < boxes.length; i++, k += 4) {
    if (i > 0 && linked(i - 1) && i - starts.at(-1)! < BLOCK) {
      hold(own, k);
      if (reachOf(own) <= most) continue;
    }
    starts.push(i);
    own = [boxes[k]!, boxes[k + 1]!, boxes[k + 2]!, boxes[k + 3]!];
  }
  return starts;
};

/** The rings of a tree's boxes and nodes, from the leaves up; undefined where hardly any has one. */
const ringsOf = (
  count: number,
  links: Uint16Array | Uint32Array,
  ends: readonly number[],
  holdIn: HoldIn,
): Rings | undefined => {
  const rings = ringsFor(count);
  const leaves = ends[0]! >> 2;
  let have = 0;
  for (let p = 0; p < leaves; p++) {
    holdIn(rings, p, links[p]!);
    if (!Number.isNaN(rings.numbers[4 * p]!)) have += 1;
  }
  if (have < FAN) return undefined;
  for (let level = 1; level < ends.length; level++)
    for (let p = ends[level - 1]! >> 2; p < ends[level]! >> 2; p++) {
      const first = links[p]! >> 2;
      const last = Math.min(first + FAN, ends[level - 1]! >> 2);
      for (let child = first; child < last; child++) rings.holdRing(p, rings, child, child === first);
    }
  return rings;
};

/** So many boxes that follow one another make one of a tree, unless that is larger than this part of all of them. */
const BLOCK = 8;
const LARGE = 1 / 12;

/**
 * The same for boxes that mostly follow one another, as those of the pieces of contours do: `linked` says whether one
 * goes on into the next, which is no pair then. Blocks of a few are put in the tree, which so has fewer and is built
 * faster.
 */
export const runTree = (boxes: Boxes, linked: (i: number) => boolean, circles?: Circles): BoxTree => {
  const count = boxes.length / 4;
  const starts = blockStarts(boxes, linked);
  const around = new Float64Array(4 * starts.length);
  const endOf = (block: number): number => starts[block + 1] ?? count;
  for (let block = 0; block < starts.length; block++) {
    let minX = Infinity;
    let minY = Infinity;
    let maxX = -Infinity;
    let maxY = -Infinity;
    for (let k = 4 * starts[block]!; k < 4 * endOf(block); k += 4) {
      minX = Math.min(minX, boxes[k]!);
      minY = Math.min(minY, boxes[k + 1]!);
      maxX = Math.max(maxX, boxes[k + 2]!);
      maxY = Math.max(maxY, boxes[k + 3]!);
    }
    around.set([minX, minY, maxX, maxY], 4 * block);
  }
  const tree = treeOf(
    around,
    circles &&
      ((rings, ring, block) => {
        for (let i = starts[block]!; i < endOf(block); i++) rings.holdCircle(ring, circles, i, i === starts[block]);
      }),
  );
  /** Visits what is near a box among those from `first` up to `last`. */
  const nearOne = (
    i: number,
    first: number,
    last: number,
    reach: number,
    visit: (i: number, j: number) => void,
  ): void => {
    const minX = boxes[4 * i]! - reach;
    const minY = boxes[4 * i + 1]! - reach;
    const maxX = boxes[4 * i + 2]! + reach;
    const maxY = boxes[4 * i + 3]! + reach;
    for (let j = first, k = 4 * first; j < last; j++, k += 4)
      if (boxes[k]! <= maxX && boxes[k + 2]! >= minX && boxes[k + 1]! <= maxY && boxes[k + 3]! >= minY) visit(i, j);
  };
  return {
    pairs: (reach, visit) => {
      for (let block = 0; block < starts.length; block++) {
        const end = endOf(block);
        for (let i = starts[block]!; i + 1 < end; i++) nearOne(i, i + 2, end, reach, visit);
      }
      tree.pairs(reach, (one, other) => {
        const [k, first, last] = [4 * other, starts[other]!, endOf(other)];
        for (let i = starts[one]!; i < endOf(one); i++) {
          const near =
            boxes[4 * i]! - reach <= around[k + 2]! &&
            boxes[4 * i + 2]! + reach >= around[k]! &&
            boxes[4 * i + 1]! - reach <= around[k + 3]! &&
            boxes[4 * i + 3]! + reach >= around[k + 1]!;
          if (near) nearOne(i, i + 1 === first && linked(i) ? first + 1 : first, last, reach, visit);
        }
      });
    },
    within: (minX, minY, maxX, maxY, visit) =>
      tree.within(minX, minY, maxX, maxY, (block) => {
        for (let i = starts[block]!; i < endOf(block); i++) {
          const k = 4 * i;
          if (boxes[k]! > maxX || boxes[k + 1]! > maxY || boxes[k + 2]! < minX || boxes[k + 3]! < minY) continue;
          if (visit(i) === true) return true;
        }
        return false;
      }),
  };
};

/**
 * What the index holds, as its own format has it (version 3): after eight bytes the boxes, those put in first and
 * sorted, then level by level those of their nodes up to the root; then for each box the number it was put in with, or
 * where its first child lies. Where each level ends.
 */
const opened = (
  built: Flatbush,
): { nodes: Float64Array; links: Uint16Array | Uint32Array; ends: readonly number[] } => {
  const ends = [4 * built.numItems];
  for (let n = built.numItems; n !== 1 || ends.length === 1;) {
    n = Math.ceil(n / FAN);
    ends.push(ends.at(-1)! + 4 * n);
  }
  const [magic, version] = new Uint8Array(built.data, 0, 2);
  if (magic !== MAGIC || version! >> 4 !== LAYOUT) throw new Error("Flatbush lays out its tree in another way now");
  const size = ends.at(-1)!;
  const nodes = new Float64Array(built.data, 8, size);
  const after = 8 + nodes.byteLength;
  const links =
    size / 4 < 16384 ? new Uint16Array(built.data, after, size / 4) : new Uint32Array(built.data, after, size / 4);
  return { nodes, links, ends };
};
