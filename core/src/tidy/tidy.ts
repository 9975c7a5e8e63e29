import { inRounds } from "./rounds.ts";
import { put } from "./standing.ts";
import { noted, staysOf } from "./stays.ts";
import { looksOf, strandsOf } from "./strands.ts";
import type { Finding, Thing, TidyOptions, TidyResult } from "./things.ts";

/**
 * Tidies lines, arcs, circles and chains: takes duplicates and overlaps away, makes fragments one, closes gaps and cuts tails within
 * the tolerance, joins what meets into chains, and says what stays in the way (open, crossing, tiny). What is clean comes back number
 * for number, in its order. Twice is the same as once. Near n log n.
 */
export const tidy = (things: readonly Thing[], options: TidyOptions): TidyResult => {
  const report = options.report ?? (() => undefined);
  const { strands, zero } = strandsOf(things);
  const looks = looksOf(things, options.ignore);
  const findings: Finding[] = [];
  const touched = new Uint8Array(things.length); // 1 where something of a thing was changed
  for (const { thing, piece } of zero) {
    const finding = noted("tiny", piece.a, [things[thing]!.id], { length: 0 }, true);
    const fixed = options.accept?.(finding) ?? true;
    findings.push({ ...finding, fixed });
    if (fixed) touched[thing] = 1;
  }
  report(0.1);
  const done = inRounds(things, strands, options, looks);
  for (const thing of done.touched) touched[thing] = 1;
  const standing = put(things, done.strands, touched, looks);
  report(0.8);
  const stays = staysOf(standing, done.openedAt, options.tolerance);
  report(1);
  return {
    things: standing.map(({ made }) => made),
    findings: [...findings, ...done.findings, ...stays],
    absorbed: done.absorbed,
  };
};
