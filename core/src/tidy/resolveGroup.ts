import type { Point } from "../geometry/point.ts";
import { sortShort } from "../numeric/sortShort.ts";
import { placeOn } from "./carriers.ts";
import type { Group } from "./grouping.ts";
import { mergeLoose } from "./mergeLoose.ts";
import { originsOf } from "./strands.ts";
import { pieceAlong, runsOf, stretchesOf, type Stretch } from "./stretches.ts";
import { severityOf, type Thing } from "./things.ts";
import { branches, GONE, NO_VALUES, type Lain, type Made, type Work } from "./work.ts";

/** Decides what of a group stays: shared edges, the copies that stay, what is made for what they leave uncovered, and what runs on in one. */
export const resolveGroup = (group: Group, work: Work): void => {
  const { all, things, classes, options, noted, out } = work;
  const { members } = group;
  const { tolerance } = options;
  const thingOf = (i: number): Thing => things[all[members[i]!.strand]!.thing]!;
  // which copy stays: what something is attached to, what closes, what is longer, what came first
  const rank = (i: number): number => {
    const { shape, attached } = thingOf(i);
    return (attached ? 2 : 0) + (shape.kind === "chain" && shape.closed ? 1 : 0);
  };
  const length = (i: number): number => members[i]!.cover.length;
  const order = members.map((_, i) => i);
  sortShort(
    order,
    (i, j) =>
      rank(j) - rank(i) ||
      (Math.abs(length(j) - length(i)) > tolerance ? length(j) - length(i) : 0) ||
      members[i]!.strand - members[j]!.strand,
  );
  const place = [...order]; // of a member in that order
  order.forEach((i, at) => void (place[i] = at));
  const lain: Lain = {
    group,
    own: classes[all[members[0]!.strand]!.thing]!,
    stretches: stretchesOf(group, all, tolerance),
    order,
    place,
    thingOf,
    note: (code, at, ids, mendable = true) => {
      const finding = { code, severity: severityOf(code), mendable, at, ids, values: NO_VALUES, fixed: false }; // prettier-ignore
      finding.fixed = mendable && (options.accept?.(finding) ?? true);
      noted.findings.push(finding);
      return finding.fixed;
    },
  };
  const shared = sharedStretches(lain, work);
  const { kept, sharing } = stayingOf(lain, shared, work);
  const made = madeOf(lain, work);
  for (const i of sharing) {
    const { strand: home } = members[i]!;
    out[home] = (out[home] ?? [all[home]!]).map((strand) => ({ ...strand, shared: true }));
  }
  mergeLoose(lain, sharing.size === 0 ? kept : kept.filter((i) => !sharing.has(i)), made, work);
};

const middleOf = ({ track }: Group, { from, length }: Stretch): Point => placeOn(track, from + length / 2);

const idsOf = ({ thingOf }: Lain, members: readonly number[]): readonly number[] => [
  ...new Set(members.map((i) => thingOf(i).id)),
];

const NONE_SHARED: ReadonlySet<Stretch> = new Set();

/** Edges shared by two outlines: they stay twice, unless that is not wanted. */
const sharedStretches = (lain: Lain, { options, degree, noted }: Work): ReadonlySet<Stretch> => {
  const { group, own, stretches, note } = lain;
  const { sharedEdges } = options;
  let shared = NONE_SHARED;
  if (stretches.stops.places.length === 0) return shared;
  for (const stretch of stretches.all) {
    const { cover, start, end } = stretch;
    if (cover.length < 2 || !branches(degree(start, own)) || !branches(degree(end, own))) continue;
    const fixed = note("shared-edge", middleOf(group, stretch), idsOf(lain, cover), sharedEdges !== "keep");
    stretch.left = fixed ? (sharedEdges === "merge" ? 0 : 1) : 2;
    if (fixed && sharedEdges === "drop") noted.openedAt.push(start, end);
    shared = new Set([...shared, stretch]);
  }
  return shared;
};

/** Which members stay, in their order, and which of them are shared edges; the others are taken away. */
const stayingOf = (
  lain: Lain,
  shared: ReadonlySet<Stretch>,
  { all, things, options, noted, out }: Work,
): { kept: readonly number[]; sharing: ReadonlySet<number> } => {
  const { tolerance, sharedEdges } = options;
  const { group, stretches, order, place, note } = lain;
  const { members } = group;
  const kept: number[] = [];
  const stays = members.map(() => false);
  const sharing = new Set<number>();
  const keep = (i: number): void => {
    kept.push(i);
    stays[i] = true;
  };
  for (const i of order) {
    const lying = stretches.of[i]!;
    const surplus = lying.find(({ left }) => left <= 0);
    if (!surplus) {
      for (const stretch of lying) stretch.left -= 1;
      keep(i);
      if (shared.size > 0 && lying.some((stretch) => shared.has(stretch))) sharing.add(i);
      continue;
    }
    const { strand: home, cover } = members[i]!;
    const strand = all[home]!;
    if (sharedEdges !== "keep" && lying.every((stretch) => shared.has(stretch))) {
      out[home] = GONE; // the shared edge, dropped or merged away
      noted.touched.push(strand.thing);
      continue;
    }
    const staying = surplus.cover.filter((j) => stays[j]).sort((p, q) => place[p]! - place[q]!);
    const twin = staying.find(
      (j) =>
        Math.abs(members[j]!.cover.length - cover.length) <= 2 * tolerance &&
        lying.every((stretch) => stretch.cover.includes(j)),
    );
    const said = twin !== undefined && noted.whole.has(strand.thing);
    const code = twin === undefined ? "overlap" : "duplicate";
    const takes = said
      ? noted.accepted.get(strand.thing)!
      : note(code, middleOf(group, surplus), idsOf(lain, [i, ...staying]));
    if (twin !== undefined) {
      noted.whole.add(strand.thing);
      noted.accepted.set(strand.thing, takes);
    }
    if (!takes) {
      // it stays whole, so what it alone covers is covered
      for (const stretch of lying) stretch.left = Math.max(0, stretch.left - 1);
      keep(i);
      continue;
    }
    out[home] = GONE;
    noted.touched.push(strand.thing);
    const heir = twin ?? staying[0];
    if (heir === undefined) continue;
    const [there] = originsOf(all[members[heir]!.strand]!, things);
    for (const went of originsOf(strand, things)) noted.absorbed.push([went, there!]);
  }
  return { kept, sharing };
};

/** What is left uncovered by the copies that stay is made of the first member that lies there. */
const madeOf = ({ group, stretches, place }: Lain, { all, things, noted, out }: Work): readonly Made[] => {
  const { track, members } = group;
  return runsOf(stretches.all, ({ left }) => left > 0, track).map((run) => {
    for (const stretch of run) stretch.left -= 1;
    const lying = (run.length === 1 ? [...run[0]!.cover] : [...new Set(run.flatMap(({ cover }) => cover))]).sort(
      (i, j) => place[i]! - place[j]!,
    );
    const { strand: home, cover } = members[lying[0]!]!;
    const source = all[home]!;
    const origins = lying.flatMap((i) => originsOf(all[members[i]!.strand]!, things));
    const piece = pieceAlong(track, run[0]!.start, run.at(-1)!.end, cover.turned);
    const strand = { piece, thing: source.thing, place: source.place, origins };
    out[home] = [...(out[home] ?? [source]), strand];
    noted.touched.push(source.thing);
    return { home, strand };
  });
};
