import { noted } from "./noted.ts";
import { inRounds } from "./rounds.ts";
import { thinned } from "./stacks.ts";
import { put, type TidiedThing } from "./standing.ts";
import { staysOf } from "./stays.ts";
import { looksOf, strandsOf, type Strand } from "./strands.ts";
import type { Finding, Thing, TidyOptions, TidyResult } from "./things.ts";

/**
 * Tidies lines, arcs, circles and chains: takes duplicates and overlaps away, makes fragments one, closes gaps and cuts
 * tails within the tolerance, joins what meets into chains, and says what stays in the way (open, crossing, tiny). What
 * is clean comes back number for number, in its order. Twice is the same as once. Near n log n.
 */
export const tidy = (things: readonly Thing[], options: TidyOptions): TidyResult => {
  const report = options.report ?? (() => undefined);
  const looks = looksOf(things, options.ignore);
  const findings: Finding[] = [];
  const touched = new Uint8Array(things.length); // 1 where something of a thing was changed
  const { strands, zero } = strandsOf(things, (thing, pieces) => {
    const finding = noted("fragment", pieces[0]!.a, [things[thing]!.id], {}, true);
    const fixed = options.accept?.(finding) ?? true;
    findings.push({ ...finding, fixed });
    if (fixed) touched[thing] = 1;
    return fixed;
  });
  for (const { thing, piece } of zero) {
    const finding = noted("tiny", piece.a, [things[thing]!.id], { length: 0 }, true);
    const fixed = options.accept?.(finding) ?? true;
    findings.push({ ...finding, fixed });
    if (fixed) touched[thing] = 1;
  }
  report(0.1);
  const thin = thinned(things, strands, options, looks);
  const done = inRounds(things, thin.strands, options, looks);
  for (const list of [thin.touched, done.touched]) for (const thing of list) touched[thing] = 1;
  const standing = put(things, withAside(done.strands, thin.aside), touched, looks, options.sharedEdges === "merge");
  report(0.8);
  const asked = thin.aside.length === 0 ? standing : notAside(standing, things, thin.aside);
  const stays = staysOf(asked, done.openedAt, options.tolerance);
  report(1);
  return {
    things: standing.map(({ made }) => made),
    findings: [...findings, ...thin.findings, ...done.findings, ...stays],
    absorbed: [...done.absorbed, ...thin.absorbed],
  };
};

/** Strands with those that were left aside, in the order of their things. */
const withAside = (strands: readonly Strand[], aside: readonly Strand[]): readonly Strand[] =>
  aside.length === 0 ? strands : [...strands, ...aside].sort((p, q) => p.thing - q.thing || p.place - q.place);

/** What stands without the things of which all was left aside: they are told as duplicates. */
const notAside = (
  standing: readonly TidiedThing[],
  things: readonly Thing[],
  aside: readonly Strand[],
): readonly TidiedThing[] => {
  const left = new Map<number, number>(); // how many strands of a thing, by its id
  for (const { thing } of aside) left.set(things[thing]!.id, (left.get(things[thing]!.id) ?? 0) + 1);
  const strandsIn = (shape: Thing["shape"]): number => (shape.kind === "chain" ? shape.pieces.length : 1);
  return standing.filter(({ made: { same, shape } }) => same === undefined || left.get(same) !== strandsIn(shape));
};
