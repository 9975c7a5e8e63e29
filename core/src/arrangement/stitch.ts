import { distance, type Point } from "../geometry/point.ts";
import { pointGrid } from "../geometry/pointGrid.ts";
import { aroundVertex, type Leaving } from "./aroundVertex.ts";
import type { SpanList } from "./spanList.ts";
import type { Fragment, Split } from "./splitSpans.ts";

/** Fragments in running order. */
export type FragmentRun = { readonly closed: boolean; readonly fragments: readonly Fragment[] };

/**
 * Directed fragments, with what they bound on their left (or, where `side` is -1, on their right), as runs. Where
 * several meet in one vertex each goes on into the one that bounds the same part of what lies there, so that contours
 * that only touch stay apart. Where something is just as thin as the resolution the ends of runs may miss each other by
 * a little of it: they go on into the nearest start. What does not close then comes back open.
 */
export const stitch = (
  span: SpanList["span"],
  { vertices }: Split,
  fragments: readonly Fragment[],
  resolution: number,
  side: 1 | -1 = 1,
): readonly FragmentRun[] => {
  const into = new Map<number, number[]>();
  const outOf = new Map<number, number[]>();
  fragments.forEach(({ start, end }, i) => {
    put(outOf, start, i);
    put(into, end, i);
  });
  const follows = new Int32Array(fragments.length).fill(-1);
  for (const [vertex, incoming] of into) {
    const outgoing = outOf.get(vertex);
    if (!outgoing) continue;
    if (incoming.length === 1 && outgoing.length === 1) {
      follows[incoming[0]!] = outgoing[0]!;
      continue;
    }
    const leaving: Leaving[] = [
      ...incoming.map((i) => seen(span, fragments[i]!, false)),
      ...outgoing.map((i) => seen(span, fragments[i]!, true)),
    ];
    // going round counter-clockwise (or clockwise), what is bounded lies between one that goes out and the next that
    // comes in
    const round = [...aroundVertex(vertices[vertex]!, leaving, resolution)];
    if (side < 0) round.reverse();
    const waiting: number[] = [];
    const seenOut = new Set<number>();
    for (const k of [...round, ...round]) {
      if (k >= incoming.length) {
        const i = outgoing[k - incoming.length]!;
        if (!seenOut.has(i)) waiting.push(i);
        seenOut.add(i);
      } else if (follows[incoming[k]!]! < 0 && waiting.length > 0) follows[incoming[k]!] = waiting.pop()!;
    }
  }
  const led = new Uint8Array(fragments.length);
  for (const to of follows) if (to >= 0) led[to] = 1;
  const used = new Uint8Array(fragments.length);
  const runs: FragmentRun[] = [];
  const walk = (first: number): void => {
    const run: Fragment[] = [];
    let at = first;
    while (at >= 0 && !used[at]) {
      used[at] = 1;
      run.push(fragments[at]!);
      at = follows[at]!;
    }
    runs.push({ closed: at === first, fragments: run });
  };
  for (let i = 0; i < fragments.length; i++) if (!led[i]) walk(i);
  for (let i = 0; i < fragments.length; i++) if (!used[i]) walk(i);
  return closeRuns(runs, vertices, MISSES * resolution);
};

/** By how many resolutions ends may miss each other. */
const MISSES = 8;

const closeRuns = (runs: readonly FragmentRun[], vertices: readonly Point[], reach: number): readonly FragmentRun[] => {
  const open = runs.filter(({ closed }) => !closed);
  if (open.length === 0) return runs;
  const starts = open.map(({ fragments }) => vertices[fragments[0]!.start]!);
  const ends = open.map(({ fragments }) => vertices[fragments.at(-1)!.end]!);
  const grid = pointGrid(starts, reach);
  const pairs: { from: number; to: number; apart: number }[] = [];
  ends.forEach((end, from) =>
    grid.near(end, (to) => {
      const apart = distance(end, starts[to]!);
      if (apart <= reach) pairs.push({ from, to, apart });
    }),
  );
  pairs.sort((p, q) => p.apart - q.apart);
  const goesTo = new Map<number, number>();
  const comesFrom = new Set<number>();
  for (const { from, to } of pairs)
    if (!goesTo.has(from) && !comesFrom.has(to)) {
      goesTo.set(from, to);
      comesFrom.add(to);
    }
  const used = new Set<number>();
  const out = runs.filter(({ closed }) => closed);
  const firsts = open.map((_, i) => i).sort((p, q) => Number(comesFrom.has(p)) - Number(comesFrom.has(q)));
  for (const first of firsts) {
    const fragments: Fragment[] = [];
    let at: number | undefined = first;
    while (at !== undefined && !used.has(at)) {
      used.add(at);
      for (const one of open[at]!.fragments) fragments.push(one);
      at = goesTo.get(at);
    }
    if (fragments.length > 0) out.push({ closed: at === first, fragments });
  }
  return out;
};

const put = (lists: Map<number, number[]>, key: number, value: number): void => {
  const list = lists.get(key);
  if (list) list.push(value);
  else lists.set(key, [value]);
};

const seen = (span: SpanList["span"], fragment: Fragment, outwards: boolean): Leaving => {
  const { span: first, last, from, to } = fragment;
  const own = span(outwards ? first : last);
  const length = first === last ? to - from : outwards ? own.length - from : to;
  return { span: own, at: outwards ? from : to, forwards: outwards, length };
};
