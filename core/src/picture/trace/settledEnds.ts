import { alongOf } from "./carriers.ts";
import { pointsOf, strokeOf, type Frame, type Line, type Run, type Stroke } from "./strokes.ts";

/** A run keeps so many of its points. */
const FEWEST = 3;

/**
 * Strokes whose runs end where, along their path, the next one begins to be the nearer: what strays with its length has
 * taken some of the corner that it ends in.
 */
export const settledEnds = (strokes: readonly Stroke[], frame: Frame): readonly Stroke[] => {
  const byLine = new Map<Line, { run: Run; owner: number; from: number; to: number }[]>();
  strokes.forEach(({ runs }, owner) => {
    for (const run of runs) {
      const own = byLine.get(run.line) ?? [];
      own.push({ run, owner, from: run.from, to: run.to });
      byLine.set(run.line, own);
    }
  });
  const alongs = strokes.map((one) => alongOf(frame, one, pointsOf(one.runs[0]!)[0]!));
  for (const [line, runs] of byLine) {
    runs.sort((p, q) => p.from - q.from);
    for (let i = 1; i < runs.length; i++) {
      const [before, after] = [runs[i - 1]!, runs[i]!];
      if (before.owner === after.owner || before.to !== after.from) continue;
      const [p, q] = [alongs[before.owner]!, alongs[after.owner]!];
      const [first, last] = [before.from + FEWEST, after.to - FEWEST];
      if (last < first) continue;
      let sum = 0;
      let [best, at] = [Infinity, before.to];
      for (let k = before.from; k < after.to; k++) {
        const point = line.points[k]!;
        if (k >= first && k <= last && sum < best) [best, at] = [sum, k];
        sum += p.at(point).off ** 2 - q.at(point).off ** 2;
      }
      before.to = after.from = at;
    }
  }
  const changed = new Map(
    [...byLine.values()].flatMap((runs) => runs.map(({ run, from, to }) => [run, { from, to }] as const)),
  );
  return strokes.map((one) => {
    const runs = one.runs.map((run) => ({ ...run, ...changed.get(run)! }));
    const moved = runs.some((run, k) => run.from !== one.runs[k]!.from || run.to !== one.runs[k]!.to);
    return moved ? strokeOf(frame, runs, runs.length > 1 ? one.length : undefined) : one;
  });
};
