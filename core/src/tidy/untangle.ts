import { boxesOf } from "../geometry/boxesOf.ts";
import { boxTree } from "../geometry/boxTree.ts";
import type { Point } from "../geometry/point.ts";
import { degreeOf } from "./degree.ts";
import { groupsOf, onTracks } from "./grouping.ts";
import { resolveGroup } from "./resolveGroup.ts";
import { resolvePair } from "./resolvePair.ts";
import { classesOf, type Strand } from "./strands.ts";
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
};

/**
 * Takes away what lies on something else (duplicates whatever their direction, overlaps), and makes one piece of loose ones that run
 * on in one line or arc. An edge that two closed outlines share is no duplicate: without it an outline would be open. n log n.
 */
export const untangle = (things: readonly Thing[], all: readonly Strand[], options: TidyOptions): Untangled => {
  const classes = classesOf(things, options.ignore);
  const noted: Noted = {
    findings: [],
    touched: [],
    openedAt: [],
    absorbed: [],
    whole: new Set(),
    accepted: new Map(),
  };
  const out: (readonly Strand[] | undefined)[] = new Array<undefined>(all.length);
  const tree = boxTree(boxesOf(all.map(({ circle, piece }) => circle ?? piece)));
  const degree = degreeOf(all, tree, classes, options.tolerance);
  const work: Work = { all, things, classes, options, degree, noted, out };
  const { members, starts } = groupsOf(all, tree, things, classes, options.tolerance);
  for (let k = 0; k + 1 < starts.length; k++) {
    const from = starts[k]!;
    const to = starts[k + 1]!;
    if (to - from === 2 && resolvePair(members[from]!, members[from + 1]!, work)) continue;
    for (const group of onTracks(all, Array.from(members.subarray(from, to)), options.tolerance))
      resolveGroup(group, work);
  }
  return {
    strands: standing(all, out),
    findings: noted.findings,
    touched: noted.touched,
    openedAt: noted.openedAt,
    absorbed: noted.absorbed,
  };
};

/** What stands afterwards, in the order of what it came from. */
const standing = (all: readonly Strand[], out: Work["out"]): readonly Strand[] => {
  const stands: Strand[] = [];
  for (let i = 0; i < all.length; i++) {
    const made = out[i];
    if (!made) stands.push(all[i]!);
    else for (const one of made) stands.push(one);
  }
  return stands;
};
