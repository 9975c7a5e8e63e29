import { JOINED } from "../numeric/tolerance.ts";
import { circleHalves } from "../geometry/circle.ts";
import { distance, type Point } from "../geometry/point.ts";
import { distinct } from "../numeric/distinct.ts";
import { sortShort } from "../numeric/sortShort.ts";
import { coverOf, type Cover, type Track } from "./carriers.ts";
import { originsOf, type Strand } from "./strands.ts";
import { MOST_ROUND, pieceAlong, stopNear } from "./stretches.ts";
import { type Origin } from "./things.ts";
import type { Lain, Made, Work } from "./work.ts";

/**
 * A loose strand of a group, where it lies, and what it takes the place of; `fresh` where it was made for an overlap.
 */
type Loose = { readonly strand: Strand; readonly cover: Cover; readonly home: number; readonly fresh: boolean };

const startPlace = ({ strand: { piece }, cover }: Loose): Point => (cover.turned ? piece.b : piece.a);
const endPlace = ({ strand: { piece }, cover }: Loose): Point => (cover.turned ? piece.a : piece.b);

/**
 * Loose pieces of the group that run on end to end become one, where nothing else ends; all the way round they become a
 * circle.
 */
export const mergeLoose = (lain: Lain, kept: readonly number[], made: readonly Made[], work: Work): void => {
  const { track } = lain.group;
  const loose = looseOf(lain, kept, made, work);
  if (loose.length < 2) return;
  const runs: Loose[][] = [[loose[0]!]];
  for (let i = 1; i < loose.length; i++) {
    if (meets(lain, loose[i - 1]!, loose[i]!, work)) runs.at(-1)!.push(loose[i]!);
    else runs.push([loose[i]!]);
  }
  const closes = track.round !== undefined && meets(lain, loose.at(-1)!, loose[0]!, work);
  const goesRound = closes && runs.length === 1 && coversAll(loose, track, work.options.tolerance);
  if (closes && runs.length > 1) runs[0] = [...runs.pop()!, ...runs[0]!];
  for (let k = 0; k < runs.length; k++) {
    const run = goesRound ? runs[k]! : underRound(runs[k]!, track);
    if (run.length > 1) merge(lain, run, goesRound, work);
  }
};

/** Loose strands end to end go all the way round; scraps on one another meet as well. */
const coversAll = (loose: readonly Loose[], { round }: Track, tolerance: number): boolean =>
  round !== undefined && loose.reduce((sum, { cover }) => sum + cover.length + tolerance, 0) >= round;

/** So much of a run as makes an arc that does not nearly come round to its start. */
const underRound = (run: readonly Loose[], { round }: Track): readonly Loose[] => {
  if (round === undefined) return run;
  let length = 0;
  for (let i = 0; i < run.length; i++) {
    length += run[i]!.cover.length;
    if (i > 0 && length > MOST_ROUND * round) return run.slice(0, i);
  }
  return run;
};

/** What is loose of what stays and was made, along the track. */
const looseOf = (
  { group: { track, members }, thingOf }: Lain,
  kept: readonly number[],
  made: readonly Made[],
  { all }: Work,
): readonly Loose[] => {
  const loose: Loose[] = [];
  for (let k = 0; k < made.length; k++) {
    const { strand, home } = made[k]!;
    loose.push({ strand, cover: coverOf(track, strand), home, fresh: true });
  }
  for (let k = 0; k < kept.length; k++) {
    const { strand: home, cover } = members[kept[k]!]!;
    if (thingOf(kept[k]!).shape.kind === "piece") loose.push({ strand: all[home]!, cover, home, fresh: false });
  }
  return sortShort(loose, (p, q) => p.cover.from - q.cover.from || Number(p.fresh) - Number(q.fresh));
};

/** One goes on into the other, and nothing else ends there. */
const meets = ({ group: { track }, own, stretches }: Lain, p: Loose, q: Loose, { options, degree }: Work): boolean => {
  const off = q.cover.from - (p.cover.from + p.cover.length);
  const gap = track.round === undefined ? Math.abs(off) : Math.abs(off - track.round * Math.round(off / track.round));
  return gap <= options.tolerance && degree(stopNear(track, stretches.stops, q.cover.from), own).directions === 2;
};

/** Makes one of a run, in the place of the first of its things. */
const merge = (
  { group: { track }, note }: Lain,
  run: readonly Loose[],
  goesRound: boolean,
  { all, things, noted, out }: Work,
): void => {
  let joint = 0; // where two meet that were both there before
  let spread = 0; // how far ends that meet lie apart at most
  let longest = run[0]!;
  let first = run[0]!;
  const origins: Origin[] = [];
  for (let i = 0; i < run.length; i++) {
    const one = run[i]!;
    if (i > 0) {
      if (joint === 0 && !one.fresh && !run[i - 1]!.fresh) joint = i;
      spread = Math.max(spread, distance(endPlace(run[i - 1]!), startPlace(one)));
    }
    if (one.cover.length > longest.cover.length) longest = one;
    if (one.home < first.home) first = one;
    for (const origin of originsOf(one.strand, things)) origins.push(origin);
  }
  // pieces left of an overlap become one with what they go on from, without a finding of their own
  if (joint > 0) {
    const ids = distinct(run.map(({ strand }) => things[strand.thing]!.id));
    if (!note(spread > JOINED ? "gap" : "fragment", startPlace(run[joint]!), ids)) return;
  }
  const { carrier } = track;
  const { thing } = first.strand;
  const strand: Strand =
    goesRound && carrier.kind === "circle"
      ? {
          piece: circleHalves(carrier)[0]!,
          circle: { centre: carrier.centre, radius: carrier.radius },
          thing,
          place: 0,
          origins,
        }
      : {
          piece: pieceAlong(track, startPlace(run[0]!), endPlace(run.at(-1)!), longest.cover.turned),
          thing,
          place: 0,
          origins,
        };
  for (let i = 0; i < run.length; i++) {
    const one = run[i]!;
    out[one.home] = (out[one.home] ?? [all[one.home]!]).filter((other) => other !== one.strand);
    noted.touched.push(one.strand.thing);
  }
  out[first.home] = [...out[first.home]!, strand];
};
