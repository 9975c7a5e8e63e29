import { boxesOf } from "../geometry/boxesOf.ts";
import { boxTree } from "../geometry/boxTree.ts";
import { coverOf, liesOn, trackOf, type Cover, type Track } from "./carriers.ts";
import { ABUT, OVERLAP, relationOf, runsAlong, sizeOf } from "./relations.ts";
import type { Strand } from "./strands.ts";
import type { Thing } from "./things.ts";

/** Strands on one carrier that lie on one another or end to end. */
export type Group = { readonly track: Track; readonly members: readonly Member[] };
export type Member = { readonly strand: number; readonly cover: Cover };

/**
 * Members (rising) as groups on one track each: that of the longest, with all that goes on from it along the track,
 * then that of the longest of the others, and so on. What lies on something that lies on something else need not lie on
 * the first; and of the short lines along a curve each runs on into the next. Those alone are left out. n log n.
 */
export const onTracks = (
  all: readonly Strand[],
  members: readonly number[],
  things: readonly Thing[],
  tolerance: number,
): readonly Group[] => {
  const groupOf = (track: Track, on: readonly number[]): Group => ({
    track,
    members: on.map((strand) => ({ strand, cover: coverOf(track, all[strand]!) })),
  });
  let longest = members[0]!;
  for (const i of members) if (sizeOf(all[i]!) > sizeOf(all[longest]!)) longest = i;
  const track = trackOf(all[longest]!);
  // two that were told to belong together need not be asked for a corner again
  const goesOn = (i: number): boolean =>
    i === longest ||
    (liesOn(track, all[i]!, tolerance) && (members.length === 2 || runsAlong(track, all[i]!, tolerance)));
  if (members.every(goesOn)) return [groupOf(track, members)];
  return split(all, members, things, tolerance).map(([first, ...others]) =>
    groupOf(
      trackOf(all[first!]!),
      [first!, ...others].sort((i, j) => i - j),
    ),
  );
};

/** Members by their tracks, the longest of each first. */
const split = (
  all: readonly Strand[],
  members: readonly number[],
  things: readonly Thing[],
  tolerance: number,
): readonly (readonly number[])[] => {
  // for each member, by its place, those that it belongs together with, and how
  const beside: { readonly place: number; readonly relation: number }[][] = members.map(() => []);
  boxTree(boxesOf(members.map((i) => all[i]!.circle ?? all[i]!.piece))).pairs(tolerance, (one, two) => {
    const relation = relationOf(all[members[one]!]!, all[members[two]!]!, things, tolerance);
    if (relation < ABUT) return;
    beside[one]!.push({ place: two, relation });
    beside[two]!.push({ place: one, relation });
  });
  const used = new Uint8Array(members.length);
  const seeds = members
    .map((i, place) => ({ place, size: sizeOf(all[i]!) }))
    .sort((p, q) => (q.size === p.size ? p.place - q.place : q.size - p.size));
  const groups: (readonly number[])[] = [];
  for (const { place: seed } of seeds) {
    if (used[seed]) continue;
    used[seed] = 1;
    const track = trackOf(all[members[seed]!]!);
    const on = [seed];
    for (let k = 0; k < on.length; k++)
      for (const { place, relation } of beside[on[k]!]!) {
        const strand = all[members[place]!]!;
        if (used[place] || !liesOn(track, strand, tolerance)) continue;
        if (relation !== OVERLAP && !runsAlong(track, strand, tolerance)) continue;
        used[place] = 1;
        on.push(place);
      }
    if (on.length > 1) groups.push(on.map((place) => members[place]!));
  }
  return groups;
};
