import type { BoxTree } from "../geometry/boxTree.ts";
import { circleHalves } from "../geometry/circle.ts";
import { pieceDirection, pieceLength, pieceNearest, pieceRadius, type Piece } from "../geometry/piece.ts";
import type { Point } from "../geometry/point.ts";
import type { Strand } from "./strands.ts";

/** In how many directions something of a class leaves a place, what lies on one another counted once. */
export type Degree = (place: Point, own: number) => number;

/** Directions (radians) closer than this leave a place together, if they bend alike; and short ones that go no farther apart than the tolerance, up to the second. */
const [TOGETHER, APART] = [2e-3, 0.1];

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
  const bundles: number[] = []; // which of them leave together, by the number of one of them
  let told = 0;
  let count = 0; // of the bundles
  const together = (i: number, j: number): boolean => {
    const [bend, other] = [bends[i]!, bends[j]!];
    const apart = Math.max(TOGETHER, Math.min(APART, tolerance / Math.min(lengths[i]!, lengths[j]!)));
    return (
      Math.abs(xs[j]! * ys[i]! - ys[j]! * xs[i]!) < apart &&
      xs[j]! * xs[i]! + ys[j]! * ys[i]! > 0 &&
      Math.abs(other - bend) <= 0.05 * Math.max(Math.abs(other), Math.abs(bend)) + 1e-9
    );
  };
  /** Takes a direction, of length 1, in which something goes so far: with those that it leaves together with, whatever their order. */
  const note = (x: number, y: number, bend: number, length: number): void => {
    const own = told++;
    xs[own] = x;
    ys[own] = y;
    bends[own] = bend;
    lengths[own] = length;
    bundles[own] = own;
    count += 1;
    for (let i = 0; i < own; i++) {
      const bundle = bundles[i]!;
      if (bundle === bundles[own] || !together(own, i)) continue;
      count -= 1;
      for (let j = 0; j <= own; j++) if (bundles[j] === bundle) bundles[j] = bundles[own]!;
    }
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
  const look = (i: number): void => {
    const { piece, circle, thing } = strands[i]!;
    if (classes[thing] !== own) return;
    if (circle) for (const half of circleHalves(circle)) arc(half, place);
    else if (piece.bulge === 0) line(piece, place);
    else arc(piece, place);
  };
  let tree: BoxTree | undefined;
  return (at, ofClass) => {
    place = at;
    own = ofClass;
    told = count = 0;
    (tree ??= treeOf()).within(at.x - tolerance, at.y - tolerance, at.x + tolerance, at.y + tolerance, look);
    return count;
  };
};
