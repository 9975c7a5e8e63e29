import { distance, type Point } from "../../geometry/point.ts";
import { signedAngle } from "../../numeric/angle.ts";
import { alongOf, spanOf } from "./carriers.ts";
import { pointsIn, pointsOf, strokeOf, strokesOn, type Frame, type Run, type Stroke } from "./strokes.ts";

/** What is longer than so many strokes tells for itself; what is shorter is looked at again with what is left over. */
const LONG = 12;
/** The end of a run lies on what it is part of as far as it is no farther off than so many strokes. */
const ON = 0.5;
/** Runs go on into each other over so many strokes, where they turn by no more than this (radians). */
const [BRIDGES, TURNS] = [2.2, 1.2];
/** So many points at an end show its way. */
const WAY = 5;

type Bit = { readonly points: readonly Point[]; readonly mass: readonly number[] };

const bitOf = ({ line, from, to }: Run): Bit => ({
  points: line.points.slice(from, to),
  mass: line.mass.slice(from, to),
});

/** What a long stroke is without so many strokes at either end, which may be another's. */
const ENDS_OFF = 7;

const middleOf = (stroke: Stroke, frame: Frame): Stroke => {
  const along = alongOf(frame, stroke, pointsOf(stroke.runs[0]!)[0]!);
  const { from, to } = spanOf(along, pointsIn(stroke));
  const off = ENDS_OFF * frame.stroke;
  if (to - from < 4 * off || (to - from > 0.8 * along.round && along.round > 0)) return stroke;
  const runs = stroke.runs.flatMap((run): readonly Run[] => {
    const isIn = (i: number): boolean => {
      const { t } = along.at(run.line.points[i]!);
      return t >= from + off && t <= to - off;
    };
    let [first, last] = [run.from, run.to];
    while (first < last && !isIn(first)) first++;
    while (last > first && !isIn(last - 1)) last--;
    return last - first < 3 ? [] : [{ line: run.line, from: first, to: last }];
  });
  return runs.length === 0 ? stroke : strokeOf(frame, runs, to - from - 2 * off);
};

/** A long stroke without the ends of its runs that lie beside it, and these. */
const trimmed = (stroke: Stroke, frame: Frame): { readonly stroke: Stroke; readonly bits: readonly Bit[] } => {
  const along = alongOf(frame, middleOf(stroke, frame), pointsOf(stroke.runs[0]!)[0]!);
  const limit = ON * frame.stroke;
  const bits: Bit[] = [];
  const runs = stroke.runs.flatMap((run): readonly Run[] => {
    const { line } = run;
    const isOff = (i: number): boolean => Math.abs(along.at(line.points[i]!).off) > limit;
    let [from, to] = [run.from, run.to];
    // a few points on it by chance don't end what lies beside it
    while (from < to && (isOff(from) || (from + WAY < to && isOff(from + WAY)))) from++;
    while (to > from && (isOff(to - 1) || (to - 1 - WAY >= from && isOff(to - 1 - WAY)))) to--;
    if (to - from < 3) return [run];
    if (from > run.from) bits.push(bitOf({ line, from: run.from, to: from }));
    if (to < run.to) bits.push(bitOf({ line, from: to, to: run.to }));
    return [{ line, from, to }];
  });
  return {
    stroke: bits.length === 0 ? stroke : strokeOf(frame, runs, runs.length > 1 ? stroke.length : undefined),
    bits,
  };
};

/** Bits joined to longer ones where an end goes on into another's. */
const chained = (bits: readonly Bit[], frame: Frame): readonly Bit[] => {
  let left = [...bits];
  const turnedRound = ({ points, mass }: Bit): Bit => ({ points: points.toReversed(), mass: mass.toReversed() });
  const way = (points: readonly Point[]): number => {
    const [p, q] = [points[0]!, points[Math.min(WAY, points.length - 1)]!];
    return Math.atan2(q.y - p.y, q.x - p.x);
  };
  for (;;) {
    let best: { i: number; j: number; one: Bit; other: Bit; off: number } | undefined;
    left.forEach((p, i) =>
      left.slice(i + 1).forEach((q, k) => {
        for (const one of [p, turnedRound(p)])
          for (const other of [q, turnedRound(q)]) {
            const far = distance(one.points.at(-1)!, other.points[0]!);
            if (far > BRIDGES * frame.stroke) continue;
            const turns = Math.abs(signedAngle(way(other.points) - way(one.points.toReversed()) - Math.PI));
            if (one.points.length > WAY && other.points.length > WAY && turns > TURNS) continue;
            const off = far / frame.stroke + turns;
            if (!best || off < best.off) best = { i, j: i + 1 + k, one, other, off };
          }
      }),
    );
    if (!best) return left;
    const { i, j, one, other } = best;
    const joined = { points: [...one.points, ...other.points], mass: [...one.mass, ...other.mass] };
    left = [...left.filter((_, k) => k !== i && k !== j), joined];
  }
};

/**
 * What is left over at the ends of long strokes, with short ones beside it, cut anew: a small corner between two long
 * lines is told by all of its ink, wherever paths ended in it.
 */
export const leftOver = (strokes: readonly Stroke[], frame: Frame): readonly Stroke[] => {
  const isLong = ({ length }: Stroke): boolean => length >= LONG * frame.stroke;
  const kept = strokes.filter(isLong).map((one) => trimmed(one, frame));
  const short = strokes.filter((one) => !isLong(one)).flatMap(({ runs }) => runs.map(bitOf));
  const bits = chained([...kept.flatMap((one) => one.bits), ...short], frame);
  return [
    ...kept.map(({ stroke }) => stroke),
    ...bits.flatMap(({ points, mass }) => strokesOn({ points, mass, closed: false }, frame)),
  ];
};
