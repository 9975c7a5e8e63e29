import type { Point } from "../geometry/point.ts";
import { closeEnds } from "./ends.ts";
import { cutStubs } from "./stubs.ts";
import type { Looks, Strand } from "./strands.ts";
import type { Absorbed, Finding, Thing, TidyOptions } from "./things.ts";
import { untangle, type Untangled } from "./untangle.ts";

/** Rounds after which nothing more is looked for; most need one or two. */
const MOST_ROUNDS = 8;

/**
 * Takes stubs away, untangles and closes ends until nothing changes any more: an end that was moved may come to lie on
 * something, or leave an edge that was shared. After the first round only what lies near something is looked at; of
 * what is not mended, the last round says.
 */
export const inRounds = (
  things: readonly Thing[],
  all: readonly Strand[],
  options: TidyOptions,
  looks: Looks,
): Omit<Untangled, "nearby"> => {
  const report = options.report ?? (() => undefined);
  let strands = all;
  let among: readonly number[] | undefined;
  let [tangles, gaps]: [readonly Finding[], readonly Finding[]] = [[], []];
  let absorbed: readonly Absorbed[] = [];
  let touched: readonly number[] = [];
  let openedAt: readonly Point[] = [];
  let tails: readonly Finding[] = [];
  /** True where stubs went: what they kept apart may be one now, wherever it lies. */
  const stubsGo = (): boolean => {
    const cut = cutStubs(things, strands, options, looks);
    ({ strands } = cut);
    tails = [...tails.filter(isFixed), ...cut.findings];
    touched = [...touched, ...cut.touched];
    return cut.touched.length > 0;
  };
  for (let round = 0; round < MOST_ROUNDS; round++) {
    if (among) strands = unshared(strands, among);
    const untangled = untangle(things, strands, options, looks, touched, among);
    ({ strands, nearby: among } = untangled);
    tangles = [...tangles.filter(isFixed), ...untangled.findings];
    absorbed = [...untangled.absorbed, ...absorbed];
    openedAt = [...openedAt, ...untangled.openedAt];
    const before = touched.length;
    touched = [...touched, ...untangled.touched];
    if (round === 0) report(0.5);
    if (round === 0 || touched.length > before) {
      const closed = closeEnds(things, strands, options, looks);
      ({ strands } = closed);
      gaps = [...gaps.filter(isFixed), ...closed.findings];
      touched = [...touched, ...closed.touched];
    }
    // after what is to meet has met: what leads on over a gap is no stub
    const cut = stubsGo();
    if (touched.length === before) break;
    if (cut) among = undefined;
    else if (among.length < 2) break;
  }
  report(0.65);
  return { strands, findings: [...tails, ...tangles, ...gaps], absorbed, touched, openedAt };
};

const isFixed = ({ fixed }: Finding): boolean => fixed;

/** Strands of some numbers as if they were no shared edges. */
const unshared = (strands: readonly Strand[], among: readonly number[]): readonly Strand[] => {
  const next = [...strands];
  for (const i of among) {
    const { shared, ...strand } = strands[i]!;
    if (shared) next[i] = strand;
  }
  return next;
};
