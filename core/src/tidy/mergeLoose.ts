import { circleHalves } from "../geometry/circle.ts";
import { distance, type Point } from "../geometry/point.ts";
import { sortShort } from "../numeric/sortShort.ts";
import { coverOf, type Cover } from "./carriers.ts";
import { pieceAlong, stopNear } from "./stretches.ts";
import { originsOf, type Strand } from "./strands.ts";
import { JOINED } from "./things.ts";
import type { Lain, Made, Work } from "./work.ts";

/** A loose strand of a group, where it lies, and what it takes the place of; `fresh` where it was made for an overlap. */
type Loose = { readonly strand: Strand; readonly cover: Cover; readonly home: number; readonly fresh: boolean };

const startPlace = ({ strand: { piece }, cover }: Loose): Point => (cover.turned ? piece.b : piece.a);
const endPlace = ({ strand: { piece }, cover }: Loose): Point => (cover.turned ? piece.a : piece.b);

/** Loose pieces of the group that run on end to end become one, where nothing else ends; all the way round they become a circle. */
export const mergeLoose = (
  { group: { track, members }, own, stretches, thingOf, note }: Lain,
  kept: readonly number[],
  made: readonly Made[],
  { all, things, options, degree, noted, out }: Work,
): void => {
  const { tolerance } = options;
  const loose: Loose[] = made.map(({ strand, home }) => ({ strand, cover: coverOf(track, strand), home, fresh: true }));
  for (const i of kept) {
    const { strand: home, cover } = members[i]!;
    if (thingOf(i).shape.kind === "piece") loose.push({ strand: all[home]!, cover, home, fresh: false });
  }
  if (loose.length < 2) return;
  sortShort(loose, (p, q) => p.cover.from - q.cover.from || Number(p.fresh) - Number(q.fresh));
  const meets = ({ cover: { from, length } }: Loose, q: Loose): boolean => {
    const off = q.cover.from - (from + length);
    const gap = track.round === undefined ? Math.abs(off) : Math.abs(off - track.round * Math.round(off / track.round));
    return gap <= tolerance && degree(stopNear(track, stretches.stops, q.cover.from), own) === 2;
  };
  const runs: Loose[][] = [[loose[0]!]];
  for (let i = 1; i < loose.length; i++) {
    if (meets(loose[i - 1]!, loose[i]!)) runs.at(-1)!.push(loose[i]!);
    else runs.push([loose[i]!]);
  }
  const closes = track.round !== undefined && meets(loose.at(-1)!, loose[0]!);
  const goesRound = closes && runs.length === 1;
  if (closes && !goesRound) runs[0] = [...runs.pop()!, ...runs[0]!];
  for (const run of runs) {
    if (run.length < 2) continue;
    const joint = run.findIndex((one, i) => i > 0 && !one.fresh && !run[i - 1]!.fresh);
    // pieces left of an overlap become one with what they go on from, without a finding of their own
    if (joint > 0) {
      let spread = 0;
      for (let i = 1; i < run.length; i++) spread = Math.max(spread, distance(endPlace(run[i - 1]!), startPlace(run[i]!))); // prettier-ignore
      const ids = [...new Set(run.map(({ strand }) => things[strand.thing]!.id))];
      if (!note(spread > JOINED ? "gap" : "fragment", startPlace(run[joint]!), ids)) continue;
    }
    const longest = run.reduce((best, one) => (one.cover.length > best.cover.length ? one : best));
    const origins = run.flatMap(({ strand }) => originsOf(strand, things));
    const first = run.reduce((best, one) => (one.home < best.home ? one : best));
    const { carrier } = track;
    const strand: Strand =
      goesRound && carrier.kind === "circle"
        ? {
            piece: circleHalves(carrier)[0]!,
            circle: { centre: carrier.centre, radius: carrier.radius },
            thing: first.strand.thing,
            place: 0,
            origins,
          }
        : {
            piece: pieceAlong(track, startPlace(run[0]!), endPlace(run.at(-1)!), longest.cover.turned),
            thing: first.strand.thing,
            place: 0,
            origins,
          };
    for (const one of run) {
      out[one.home] = (out[one.home] ?? [all[one.home]!]).filter((other) => other !== one.strand);
      noted.touched.push(one.strand.thing);
    }
    out[first.home] = [...out[first.home]!, strand];
  }
};
