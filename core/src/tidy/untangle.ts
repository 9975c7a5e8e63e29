import { boxesOf } from "../geometry/boxesOf.ts";
import { boxTree, type BoxTree } from "../geometry/boxTree.ts";
import { pieceLength } from "../geometry/piece.ts";
import type { Point } from "../geometry/point.ts";
import { circlesOfCurves } from "../geometry/rings.ts";
import { degreeOf } from "./degree.ts";
import { groupsOf } from "./grouping.ts";
import { onTracks } from "./onTracks.ts";
import { outlinesMeetOf } from "./outlinesMeet.ts";
import { WIDE } from "./relations.ts";
import { resolveGroup } from "./resolveGroup.ts";
import { resolvePair } from "./resolvePair.ts";
import type { Looks, Strand } from "./strands.ts";
import type { Absorbed, Finding, Thing, TidyOptions } from "./things.ts";
import type { Noted, Work } from "./work.ts";

export type Untangled = {
  readonly strands: readonly Strand[];
  readonly findings: readonly Finding[];
  /** Things of which something was changed: their pieces are on their own now. */
  readonly touched: readonly number[];
  /** The ends of shared edges of which one copy was to go: what is open there is so by request. */
  readonly openedAt: readonly Point[];
  /** Pieces that went, each with one that stays and lies where it lay. */
  readonly absorbed: readonly Absorbed[];
  /**
   * The numbers of the strands, rising, that lie on or near another: what is moved within the tolerance can only touch
   * these.
   */
  readonly nearby: readonly number[];
};

/**
 * Takes away what lies on something else (duplicates whatever their direction, overlaps), and makes one piece of loose
 * ones that run on in one line or arc. An edge that two closed outlines share is no duplicate: without it an outline
 * would be open. `touched` things are no more what they were. n log n. With `among`, only the strands of these numbers.
 */
export const untangle = (
  things: readonly Thing[],
  all: readonly Strand[],
  options: TidyOptions,
  { classes }: Looks,
  touched: readonly number[],
  among?: readonly number[],
): Untangled => {
  const noted: Noted = {
    findings: [],
    touched: [],
    openedAt: [],
    made: [],
    absorbed: [],
    whole: new Set(),
    accepted: new Map(),
  };
  const out: (readonly Strand[] | undefined)[] = new Array<undefined>(all.length);
  const treeOf = (strands: readonly Strand[]): BoxTree => {
    const curves = strands.map(({ circle, piece }) => circle ?? piece);
    return boxTree(boxesOf(curves), circlesOfCurves(curves));
  };
  const tree = treeOf(among ? among.map((i) => all[i]!) : all);
  const pairs: BoxTree["pairs"] = among
    ? (reach, visit) => tree.pairs(reach, (i, j) => visit(among[i]!, among[j]!))
    : tree.pairs;
  let whole: BoxTree | undefined = among ? undefined : tree;
  const wholeTree = (): BoxTree => (whole ??= treeOf(all));
  const degree = degreeOf(all, wholeTree, classes, options.tolerance);
  const outlinesMeet = outlinesMeetOf(all, wholeTree, classes, options.tolerance, degree);
  const work: Work = { all, things, classes, options, degree, outlinesMeet, touched: new Set(touched), noted, out };
  const { members, starts, nearby } = groupsOf(all, pairs, things, classes, options.tolerance);
  if (among) for (const i of among) nearby[i] = 1; // as it was told at first
  for (let k = 0; k + 1 < starts.length; k++) {
    const from = starts[k]!;
    const to = starts[k + 1]!;
    if (to - from !== 2 || !resolvePair(members[from]!, members[from + 1]!, work))
      for (const group of onTracks(all, Array.from(members.subarray(from, to)), things, options.tolerance))
        resolveGroup(group, work);
    // what is made of a group lies near all that its members did
    let stands = 0;
    let near = false;
    for (let m = from; m < to; m++) {
      stands += out[members[m]!]?.length ?? 1;
      near ||= nearby[members[m]!] === 1;
    }
    if (near || stands > 1) for (let m = from; m < to; m++) nearby[members[m]!] = 1;
  }
  for (const home of noted.made)
    if (out[home]!.some(({ piece }) => pieceLength(piece) < pieceLength(all[home]!.piece)))
      around(all[home]!, wholeTree(), options.tolerance, (i) => void (nearby[i] = 1));
  return {
    ...standing(all, out, nearby),
    findings: noted.findings,
    touched: noted.touched,
    openedAt: noted.openedAt,
    absorbed: noted.absorbed,
  };
};

/** What a shorter piece made of a strand may lie on: the shorter it is, the more. */
const around = ({ circle, piece }: Strand, tree: BoxTree, tolerance: number, visit: (i: number) => void): void => {
  const box = boxesOf([circle ?? piece]);
  const reach = WIDE * tolerance;
  tree.within(box[0]! - reach, box[1]! - reach, box[2]! + reach, box[3]! + reach, visit);
};

/** What stands afterwards, in the order of what it came from, and the numbers of what in it lies near something. */
const standing = (
  all: readonly Strand[],
  out: Work["out"],
  isNearby: Uint8Array,
): Pick<Untangled, "strands" | "nearby"> => {
  const strands: Strand[] = [];
  const nearby: number[] = [];
  for (let i = 0; i < all.length; i++) {
    const made = out[i];
    if (!made) strands.push(all[i]!);
    else for (const one of made) strands.push(one);
    if (isNearby[i] === 1) for (let k = strands.length - (made?.length ?? 1); k < strands.length; k++) nearby.push(k);
  }
  return { strands, nearby };
};
