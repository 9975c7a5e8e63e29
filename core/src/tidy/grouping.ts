import type { BoxTree } from "../geometry/boxTree.ts";
import { ABUT, NEARBY, WIDE, relationOf } from "./relations.ts";
import type { Strand } from "./strands.ts";
import type { Thing } from "./things.ts";

/**
 * The numbers of the strands of each group, rising: those of group k from `starts[k]` to `starts[k + 1]`. For each
 * strand, 1 where it lies so near another that ends moved within the tolerance could make them a group.
 */
export type Grouped = { readonly members: Int32Array; readonly starts: readonly number[]; readonly nearby: Uint8Array };

/**
 * Groups of strands of one class whose covers overlap or abut on one carrier, found by the `pairs` of their boxes, in
 * the order of their first.
 */
export const groupsOf = (
  all: readonly Strand[],
  pairs: BoxTree["pairs"],
  things: readonly Thing[],
  classes: readonly number[],
  tolerance: number,
): Grouped => {
  const root = new Int32Array(all.length).map((_, i) => i);
  const find = (i: number): number => {
    let at = i;
    while (root[at] !== at) at = root[at] = root[root[at]!]!;
    return at;
  };
  const joined = new Uint8Array(all.length); // 1 where something else lies in the same group
  const nearby = new Uint8Array(all.length);
  pairs(WIDE * tolerance, (i, j) => {
    const p = all[i]!;
    const q = all[j]!;
    if (classes[p.thing] !== classes[q.thing]) return;
    const relation = relationOf(p, q, things, tolerance);
    if (relation === NEARBY) nearby[i] = nearby[j] = 1;
    if (relation < ABUT) return;
    root[find(j)] = find(i);
    joined[i] = joined[j] = 1;
  });
  // the members of each group one after another, the groups in the order of their first
  const sizes = new Int32Array(all.length); // at the root of each
  let count = 0;
  for (let i = 0; i < all.length; i++)
    if (joined[i]) {
      sizes[find(i)]! += 1;
      count += 1;
    }
  const members = new Int32Array(count);
  const nextAt = new Int32Array(all.length).fill(-1);
  const starts: number[] = [];
  let free = 0;
  for (let i = 0; i < all.length; i++) {
    if (!joined[i]) continue;
    const own = find(i);
    if (nextAt[own]! < 0) {
      starts.push(free);
      nextAt[own] = free;
      free += sizes[own]!;
    }
    members[nextAt[own]!++] = i;
  }
  starts.push(free);
  return { members, starts, nearby };
};
