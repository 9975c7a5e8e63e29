import type { Point } from "../../geometry/point.ts";
import { alongOf, spanOf, type Along } from "./carriers.ts";
import { costOf, ENDS, LEAVES, pointsOf, strokeOf, type Frame, type Stroke } from "./strokes.ts";

/** Over gaps no longer than so many strokes, or so much of the shorter, strokes may be one. */
const [GAP_STROKES, GAP_PART] = [8, 0.4];
/** All of it but a part lies within so many strokes of it, and a part of its length. */
const [ASIDE, STRAYS, BUT_FOR] = [1.3, 0.006, 0.1];
/** A short run goes the same way but for so much (radians). */
const SHORT_LEAVES = 0.45;

type Whole = { readonly stroke: Stroke; readonly saves: number };

/** True of a run both halves of which, or all of it where it is short, go the way of what it is to lie on. */
const goesAlong = (run: readonly Point[], along: Along, span: number): boolean => {
  const way = (p: Point, q: Point): number => {
    const [u, v] = [along.at(p), along.at(q)];
    return Math.abs(Math.atan2(v.off - u.off, Math.abs(v.t - u.t)));
  };
  if (run.length < span / 2) return true; // a dot goes no way
  if (run.length < 2 * span) return way(run[0]!, run.at(-1)!) <= SHORT_LEAVES;
  // its very ends may go another way: there it was cut from what it runs into
  const [a, b, c] = [0.2, 0.5, 0.8].map((part) => run[Math.floor(part * run.length)]!) as [Point, Point, Point];
  return way(a, b) <= LEAVES && way(b, c) <= LEAVES;
};

/** The least gap between two spans, below 0 where they lie side by side, and how long both are together. */
const gapOf = (
  p: { readonly from: number; readonly to: number },
  q: { readonly from: number; readonly to: number },
  round: number,
): { readonly gap: number; readonly length: number } => {
  let [gap, length] = [Infinity, 0];
  for (const shift of round > 0 ? [-round, 0, round] : [0]) {
    const [from, to] = [q.from + shift, q.to + shift];
    const own = Math.max(from - p.to, p.from - to);
    if (own < gap) [gap, length] = [own, Math.max(p.to, to) - Math.min(p.from, from)];
  }
  return { gap, length: round > 0 ? Math.min(length, round) : length };
};

/** What two strokes are as one, and what that saves; undefined where they are two. */
const asOne = (frame: Frame, one: Stroke, other: Stroke): Whole | undefined => {
  const sums = one.sums.map((value, k) => value + other.sums[k]!);
  const apart = costOf(frame, one.kind, one.sums, one.length) + costOf(frame, other.kind, other.sums, other.length);
  const kinds = one.kind === "line" && other.kind === "line" ? (["line"] as const) : (["arc", "line"] as const);
  const most = 2 * (one.length + other.length + GAP_STROKES * frame.stroke);
  let best: Whole | undefined;
  for (const kind of kinds) {
    // a first look that is cheap: it costs the least where it is longest
    if (costOf(frame, kind, sums, most) > apart) continue;
    const runs = [one, other].map((own) => own.runs.map(pointsOf));
    const along = alongOf(frame, { kind, sums }, runs[0]![0]![runs[0]![0]!.length >> 1]!);
    const [p, q] = runs.map((own) => spanOf(along, own.flat())) as [
      ReturnType<typeof spanOf>,
      ReturnType<typeof spanOf>,
    ];
    const { gap, length } = gapOf(p, q, along.round);
    if (gap > Math.max(GAP_STROKES * frame.stroke, GAP_PART * Math.min(one.length, other.length))) continue;
    const limit = ASIDE * frame.stroke + STRAYS * length;
    const all = runs.flat(2);
    if (all.filter((point) => Math.abs(along.at(point).off) > limit).length > BUT_FOR * all.length) continue;
    if (!runs.flat().every((run) => goesAlong(run, along, Math.round(ENDS * frame.stroke)))) continue;
    const saves = apart - costOf(frame, kind, sums, length);
    if (saves > 0 && saves > (best?.saves ?? 0))
      best = { stroke: strokeOf(frame, [...one.runs, ...other.runs], length), saves };
  }
  return best;
};

/** Strokes joined to one where that is the cheaper tale: over gaps and dashes, and where a line was gone over. */
export const mergedStrokes = (given: readonly Stroke[], frame: Frame): readonly Stroke[] => {
  let strokes = [...given];
  let fresh = new Set(strokes);
  const known = new Map<Stroke, Map<Stroke, Whole>>();
  for (;;) {
    // only what is new is looked at with all others
    strokes.forEach((one, i) => {
      for (const other of strokes.slice(i + 1)) {
        if (!fresh.has(one) && !fresh.has(other)) continue;
        const whole = asOne(frame, one, other);
        if (whole) known.set(one, (known.get(one) ?? new Map<Stroke, Whole>()).set(other, whole));
      }
    });
    const found = [...known].flatMap(([one, others]) => [...others].map(([other, whole]) => ({ one, other, whole })));
    if (found.length === 0) return strokes;
    // the best of each, all that don't share a stroke at once
    const taken = new Set<Stroke>();
    const made: Stroke[] = [];
    for (const { one, other, whole } of found.sort((p, q) => q.whole.saves - p.whole.saves)) {
      if (taken.has(one) || taken.has(other)) continue;
      taken.add(one);
      taken.add(other);
      made.push(whole.stroke);
    }
    for (const gone of taken) known.delete(gone);
    for (const others of known.values()) for (const gone of taken) others.delete(gone);
    strokes = [...strokes.filter((one) => !taken.has(one)), ...made];
    fresh = new Set(made);
  }
};
