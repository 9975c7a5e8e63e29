import { enclosedArea } from "../contour/chainMeasure.ts";
import type { Point } from "../geometry/point.ts";
import { distinct } from "../numeric/distinct.ts";
import { sortShort } from "../numeric/sortShort.ts";
import { placeOn } from "./carriers.ts";
import { mergeLoose } from "./mergeLoose.ts";
import type { Group } from "./onTracks.ts";
import { originsOf, rankOf } from "./strands.ts";
import { piecesAlong, runsOf, stretchesOf, type Stretch } from "./stretches.ts";
import { severityOf, type Thing } from "./things.ts";
import { absorb, GONE, NO_VALUES, type Lain, type Made, type Work } from "./work.ts";

/**
 * Decides what of a group stays: shared edges, the copies that stay, what is made for what they leave uncovered, and
 * what runs on in one.
 */
export const resolveGroup = (group: Group, work: Work): void => {
  const { all, out } = work;
  const lain = lainOf(group, work);
  const shared = sharedStretches(lain, work);
  const { kept, sharing } = stayingOf(lain, shared, work);
  const made = madeOf(lain, work);
  for (const i of sharing) {
    const { strand: home } = group.members[i]!;
    out[home] = (out[home] ?? [all[home]!]).map((strand) => ({ ...strand, shared: true }));
  }
  mergeLoose(lain, sharing.size === 0 ? kept : kept.filter((i) => !sharing.has(i)), made, work);
};

const lainOf = (group: Group, { all, things, classes, options, noted }: Work): Lain => {
  const { members } = group;
  const { tolerance } = options;
  const thingOf = (i: number): Thing => things[all[members[i]!.strand]!.thing]!;
  const order = orderOf(group, thingOf, tolerance);
  const place = [...order]; // of a member in that order
  for (let at = 0; at < order.length; at++) place[order[at]!] = at;
  return {
    group,
    own: classes[all[members[0]!.strand]!.thing]!,
    stretches: stretchesOf(group, all, tolerance),
    order,
    place,
    thingOf,
    note: (code, at, ids, mendable = true) => {
      const finding = { code, severity: severityOf(code), mendable, at, ids, values: NO_VALUES, fixed: false };
      finding.fixed = mendable && (options.accept?.(finding) ?? true);
      noted.findings.push(finding);
      return finding.fixed;
    },
  };
};

/** Which copy is first to stay: what something is attached to, what closes, what is longer, what came first. */
const orderOf = ({ members }: Group, thingOf: (i: number) => Thing, tolerance: number): readonly number[] => {
  const rank = (i: number): number => rankOf(thingOf(i));
  const before = (i: number, j: number): number => {
    const byRank = rank(j) - rank(i);
    if (byRank !== 0) return byRank;
    const longer = members[j]!.cover.length - members[i]!.cover.length;
    return Math.abs(longer) > tolerance ? longer : members[i]!.strand - members[j]!.strand;
  };
  const order: number[] = [];
  for (let i = 0; i < members.length; i++) order.push(i);
  return sortShort(order, before);
};

const middleOf = ({ track }: Group, { from, length }: Stretch): Point => placeOn(track, from + length / 2);

const idsOf = ({ thingOf }: Lain, members: readonly number[]): readonly number[] =>
  distinct(members.map((i) => thingOf(i).id));

const NONE_SHARED: ReadonlySet<Stretch> = new Set();

/** Edges shared by two outlines: they stay twice, unless that is not wanted. */
const sharedStretches = (lain: Lain, work: Work): ReadonlySet<Stretch> => {
  const { group, own, stretches, note } = lain;
  const { options, outlinesMeet, noted } = work;
  const { sharedEdges } = options;
  if (stretches.stops.places.length === 0) return NONE_SHARED;
  let shared: Set<Stretch> | undefined;
  for (let k = 0; k < stretches.all.length; k++) {
    const stretch = stretches.all[k]!;
    const { cover, start, end } = stretch;
    if (cover.length < 2) continue;
    const branching = outlinesMeet(start, own) && outlinesMeet(end, own);
    // where a copy is dropped its outline opens, and would not be told as one the next time
    const telling = sharedEdges !== "drop" && areSideBySide(lain, cover, work);
    if (!branching && !telling) continue;
    const fixed = note("shared-edge", middleOf(group, stretch), idsOf(lain, cover), sharedEdges !== "keep");
    stretch.left = fixed ? (sharedEdges === "merge" ? 0 : 1) : 2;
    if (fixed && sharedEdges === "drop") noted.openedAt.push(start, end);
    (shared ??= new Set()).add(stretch);
  }
  return shared ?? NONE_SHARED;
};

/**
 * True of two copies that belong to closed outlines on either side of them: each needs its edge, also where four of
 * them meet, and the directions there don't tell. On one side they are an outline and another version of it.
 */
const areSideBySide = (lain: Lain, cover: readonly number[], { all, touched }: Work): boolean => {
  const [one, other] = cover;
  if (cover.length !== 2 || lain.thingOf(one!) === lain.thingOf(other!)) return false;
  const sides = cover.map((i) => {
    const { shape } = lain.thingOf(i);
    if (shape.kind !== "chain" || !shape.closed) return 0;
    const { strand, cover: own } = lain.group.members[i]!;
    if (touched.has(all[strand]!.thing)) return 0; // it is no more what its outline was made of
    return Math.sign(enclosedArea(shape.pieces)) * (own.turned ? -1 : 1);
  });
  return sides[0]! * sides[1]! < 0;
};

/** Which members stay, in their order, and which of them are shared edges; the others are taken away. */
const stayingOf = (
  lain: Lain,
  shared: ReadonlySet<Stretch>,
  work: Work,
): { kept: readonly number[]; sharing: ReadonlySet<number> } => {
  const { stretches, order } = lain;
  const kept: number[] = [];
  const stays = order.map(() => false);
  const sharing = new Set<number>();
  for (let k = 0; k < order.length; k++) {
    const i = order[k]!;
    const lying = stretches.of[i]!;
    const surplus = surplusOf(lying);
    if (surplus) {
      if (takenAway(lain, i, surplus, stays, shared, work)) continue;
      // it stays whole, so what it alone covers is covered
      for (let s = 0; s < lying.length; s++) lying[s]!.left = Math.max(0, lying[s]!.left - 1);
    } else {
      for (let s = 0; s < lying.length; s++) lying[s]!.left -= 1;
      if (shared.size > 0 && lying.some((stretch) => shared.has(stretch))) sharing.add(i);
    }
    kept.push(i);
    stays[i] = true;
  }
  return { kept, sharing };
};

/** The first of some stretches that is covered as often as it is to be. */
const surplusOf = (lying: readonly Stretch[]): Stretch | undefined => {
  for (let s = 0; s < lying.length; s++) if (lying[s]!.left <= 0) return lying[s];
  return undefined;
};

/**
 * Takes a member away that lies on others which stay, or on a shared edge that is to go; false where it is to be left.
 */
const takenAway = (
  lain: Lain,
  i: number,
  surplus: Stretch,
  stays: readonly boolean[],
  shared: ReadonlySet<Stretch>,
  work: Work,
): boolean => {
  const { all, options, noted, out } = work;
  const { group, stretches, place, note } = lain;
  const { members } = group;
  const home = members[i]!.strand;
  const strand = all[home]!;
  const lying = stretches.of[i]!;
  if (options.sharedEdges !== "keep" && lying.every((stretch) => shared.has(stretch))) {
    out[home] = GONE; // the shared edge, dropped or merged away
    noted.touched.push(strand.thing);
    return true;
  }
  const staying: number[] = [];
  for (let k = 0; k < surplus.cover.length; k++) if (stays[surplus.cover[k]!]) staying.push(surplus.cover[k]!);
  sortShort(staying, (p, q) => place[p]! - place[q]!);
  const twin = twinOf(lain, i, staying, options.tolerance);
  const said = twin !== undefined && noted.whole.has(strand.thing);
  const code = twin === undefined ? "overlap" : "duplicate";
  const takes = said
    ? noted.accepted.get(strand.thing)!
    : note(code, middleOf(group, surplus), idsOf(lain, [i, ...staying]));
  if (twin !== undefined) {
    noted.whole.add(strand.thing);
    noted.accepted.set(strand.thing, takes);
  }
  if (!takes) return false;
  out[home] = GONE;
  noted.touched.push(strand.thing);
  const heir = twin ?? staying[0];
  if (heir !== undefined) absorb(strand, all[members[heir]!.strand]!, work);
  return true;
};

/** The first of some members that is as long as another and covers all that it does. */
const twinOf = (
  { group: { members }, stretches }: Lain,
  i: number,
  among: readonly number[],
  tolerance: number,
): number | undefined => {
  const { length } = members[i]!.cover;
  const lying = stretches.of[i]!;
  for (let k = 0; k < among.length; k++) {
    const j = among[k]!;
    if (Math.abs(members[j]!.cover.length - length) <= 2 * tolerance && covers(lying, j)) return j;
  }
  return undefined;
};

const covers = (lying: readonly Stretch[], member: number): boolean => {
  for (let s = 0; s < lying.length; s++) if (!lying[s]!.cover.includes(member)) return false;
  return true;
};

const NONE_MADE: readonly Made[] = [];

/** What is left uncovered by the copies that stay is made of the first member that lies there. */
const madeOf = ({ group, stretches, place }: Lain, { all, things, noted, out }: Work): readonly Made[] => {
  const { track, members } = group;
  const runs = runsOf(stretches.all, ({ left }) => left > 0, track);
  if (runs.length === 0) return NONE_MADE;
  return runs.flatMap((run) => {
    for (let k = 0; k < run.length; k++) run[k]!.left -= 1;
    const lying = sortShort(
      run.length === 1 ? [...run[0]!.cover] : [...distinct(run.flatMap(({ cover }) => cover))],
      (i, j) => place[i]! - place[j]!,
    );
    const { strand: home, cover } = members[lying[0]!]!;
    const source = all[home]!;
    const origins = lying.flatMap((i) => originsOf(all[members[i]!.strand]!, things));
    const strands = piecesAlong(track, run, cover.turned).map((piece) => ({
      piece,
      thing: source.thing,
      place: source.place,
      origins,
    }));
    out[home] = [...(out[home] ?? [source]), ...strands];
    noted.touched.push(source.thing);
    noted.made.push(home);
    return strands.map((strand) => ({ home, strand }));
  });
};
