import { LEAST_BEND, RUNS_ON } from "../numeric/tolerance.ts";
import type { BoxTree } from "../geometry/boxTree.ts";
import { circleHalves } from "../geometry/circle.ts";
import { pieceDirection, pieceLength, pieceNearest, pieceRadius, type Piece } from "../geometry/piece.ts";
import type { Point } from "../geometry/point.ts";
import { sortShort } from "../numeric/sortShort.ts";
import type { Strand } from "./strands.ts";

/** In how many directions something leaves a place, copies counted once; and in how many of them one alone does. */
export type Leaving = { readonly directions: number; readonly alone: number };

/** What leaves a place of a class of strands; without some of them (1 for each) where that is told. */
export type Degree = (place: Point, own: number, without?: Uint8Array) => Leaving;

/**
 * Directions (radians) closer than this leave a place together, if they bend alike; and short ones that go no farther
 * apart than the tolerance, up to the second.
 */
const APART = 0.1;

/**
 * The degree of places among strands of these classes, looked up in a tree of boxes that is made when first asked for.
 */
export const degreeOf = (
  strands: readonly Strand[],
  treeOf: () => BoxTree,
  classes: readonly number[],
  tolerance: number,
): Degree => {
  // the directions at a place, used again for every place
  const xs: number[] = [];
  const ys: number[] = [];
  const bends: number[] = [];
  const lengths: number[] = [];
  const turns: number[] = []; // rising with the angle, no faster than it, 4 all the way round
  const members: number[] = []; // how many leave together
  const bundles: number[] = []; // which of them leave together: the number of one of them
  let told = 0;
  /** Takes a direction, of length 1, in which something goes so far. */
  const note = (x: number, y: number, bend: number, length: number): void => {
    xs[told] = x;
    ys[told] = y;
    bends[told] = bend;
    lengths[told] = length;
    const part = y / (Math.abs(x) + Math.abs(y));
    turns[told] = x < 0 ? 2 - part : part;
    bundles[told] = told;
    told += 1;
  };
  const together = (i: number, j: number): boolean => {
    const [bend, other] = [bends[i]!, bends[j]!];
    const apart = Math.max(RUNS_ON, Math.min(APART, tolerance / Math.min(lengths[i]!, lengths[j]!)));
    return (
      Math.abs(xs[j]! * ys[i]! - ys[j]! * xs[i]!) < apart &&
      xs[j]! * xs[i]! + ys[j]! * ys[i]! > 0 &&
      Math.abs(other - bend) <= 0.05 * Math.max(Math.abs(other), Math.abs(bend)) + LEAST_BEND
    );
  };
  const bundleOf = (i: number): number => {
    let at = i;
    while (bundles[at] !== at) at = bundles[at] = bundles[bundles[at]!]!;
    return at;
  };
  const order: number[] = [];
  /**
   * How many bundles there are: directions are compared with those near them, by their angles, so that their order
   * tells nothing.
   */
  const bundled = (): Leaving => {
    if (told < 2) return { directions: told, alone: told };
    if (told === 2) return together(0, 1) ? { directions: 1, alone: 0 } : { directions: 2, alone: 2 };
    order.length = 0;
    for (let i = 0; i < told; i++) order.push(i);
    sortShort(order, (i, j) => turns[i]! - turns[j]! || lengths[i]! - lengths[j]!);
    let count = told;
    for (let k = 0; k < told; k++) {
      const i = order[k]!;
      for (let back = 1; back < told; back++) {
        const j = order[(k - back + told) % told]!;
        const apart = turns[i]! - turns[j]!;
        if ((back > k ? apart + 4 : apart) > 1.01 * APART) break;
        if (!together(i, j)) continue;
        const [one, two] = [bundleOf(i), bundleOf(j)];
        if (one !== two) {
          bundles[one] = two;
          count -= 1;
        }
        if (lengths[j]! <= lengths[i]!) break; // that one is together with all that this one is, farther back
      }
    }
    let alone = 0;
    for (let i = 0; i < told; i++) members[i] = 0;
    for (let i = 0; i < told; i++) members[bundleOf(i)]! += 1;
    for (let i = 0; i < told; i++) if (members[i] === 1) alone += 1;
    return { directions: count, alone };
  };
  const line = ({ a, b }: Piece, { x, y }: Point): void => {
    const dx = b.x - a.x;
    const dy = b.y - a.y;
    const square = dx * dx + dy * dy;
    const t = Math.min(1, Math.max(0, ((x - a.x) * dx + (y - a.y) * dy) / square));
    const offX = a.x + dx * t - x;
    const offY = a.y + dy * t - y;
    if (offX * offX + offY * offY > tolerance * tolerance) return;
    const length = Math.sqrt(square);
    if (t * length > tolerance || length <= tolerance) note(-dx / length, -dy / length, 0, t * length);
    if ((1 - t) * length > tolerance || length <= tolerance) note(dx / length, dy / length, 0, (1 - t) * length);
  };
  const arc = (piece: Piece, place: Point): void => {
    const { t, distance: off } = pieceNearest(piece, place);
    if (off > tolerance) return;
    const bend = Math.sign(piece.bulge) / pieceRadius(piece);
    const length = pieceLength(piece);
    const { x, y } = pieceDirection(piece, t);
    if (t * length > tolerance || length <= tolerance) note(-x, -y, -bend, t * length);
    if ((1 - t) * length > tolerance || length <= tolerance) note(x, y, bend, (1 - t) * length);
  };
  let place: Point = { x: 0, y: 0 };
  let own = 0;
  let left: Uint8Array | undefined;
  const look = (i: number): void => {
    const { piece, circle, thing } = strands[i]!;
    if (classes[thing] !== own || left?.[i] === 1) return;
    if (circle) for (const half of circleHalves(circle)) arc(half, place);
    else if (piece.bulge === 0) line(piece, place);
    else arc(piece, place);
  };
  let tree: BoxTree | undefined;
  let last: Leaving = { directions: 0, alone: 0 };
  return (at, ofClass, without) => {
    // many that meet at one place ask for it one after another
    if (tree && at.x === place.x && at.y === place.y && ofClass === own && without === left) return last;
    place = at;
    left = without;
    own = ofClass;
    told = 0;
    (tree ??= treeOf()).within(at.x - tolerance, at.y - tolerance, at.x + tolerance, at.y + tolerance, look);
    return (last = bundled());
  };
};
