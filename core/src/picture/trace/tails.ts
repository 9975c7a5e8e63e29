import type { Point } from "../../geometry/point.ts";
import { alongOf } from "./carriers.ts";
import type { Drawn } from "./explained.ts";
import type { Mask } from "./ink.ts";
import { jointsOf, type Joint } from "./jointsOf.ts";
import { shapeOf } from "./shapes.ts";
import { pointsOf, strokeOf, type Frame, type Run, type Stroke } from "./strokes.ts";

type End = "a" | "b";
/** A line runs on past where the outline that it is of turns off, at a place on it, from its end that is joined. */
type Tail = { readonly piece: number; readonly keeps: End; readonly at: Point };

/** Fewer points are none. */
const FEWEST = 5;

const otherEnd = (end: End): End => (end === "a" ? "b" : "a");

/**
 * Lines with a loose end whose outline turns off before it: walked along from the line's other end, end to end, it
 * comes back to a place on the line. A leader that is drawn on in line with what it points to makes such a tail.
 */
const tailsIn = (drawn: readonly Drawn[], joints: readonly Joint[]): readonly Tail[] => {
  const next = new Map<string, { readonly piece: number; readonly end: End }>();
  for (const { one, end, other, into } of joints) {
    if (!into) continue;
    next.set(`${one}${end}`, { piece: other, end: into });
    next.set(`${other}${into}`, { piece: one, end });
  }
  return joints.flatMap(({ one, end, other, into, at }): readonly Tail[] => {
    const { stroke } = drawn[other]!;
    const keeps = (["a", "b"] as const).filter((own) => next.has(`${other}${own}`));
    if (into || stroke.kind !== "line" || keeps.length !== 1) return [];
    let from = next.get(`${other}${keeps[0]}`);
    for (let steps = 0; from && steps < drawn.length; steps++) {
      if (from.piece === one) return from.end === otherEnd(end) ? [{ piece: other, keeps: keeps[0]!, at }] : [];
      from = next.get(`${from.piece}${otherEnd(from.end)}`);
    }
    return [];
  });
};

/** The part of a line's stroke before a place on it, and that after it; none of what is too little. */
const parted = (frame: Frame, { stroke, shape }: Drawn, { keeps, at }: Tail): readonly (Stroke | undefined)[] => {
  if (shape.kind !== "piece") return [];
  const along = alongOf(frame, stroke, pointsOf(stroke.runs[0]!)[0]!);
  const place = along.at(at).t;
  const way = Math.sign(along.at(shape[keeps]).t - place);
  return [way, -way].map((side) => {
    const runs = stroke.runs.flatMap((run): readonly Run[] => {
      const on = pointsOf(run).map((p) => (along.at(p).t - place) * side >= 0);
      const [first, last] = [on.indexOf(true), on.lastIndexOf(true)];
      return last - first + 1 < FEWEST ? [] : [{ line: run.line, from: run.from + first, to: run.from + last + 1 }];
    });
    return runs.length === 0 ? undefined : strokeOf(frame, runs);
  });
};

/** Pieces without the tails of their lines, and those tails. */
export const withoutTails = (
  drawn: readonly Drawn[],
  frame: Frame,
  mask: Mask,
): { readonly left: readonly Drawn[]; readonly tails: readonly Drawn[] } => {
  const tails: Drawn[] = [];
  const found = new Map(tailsIn(drawn, jointsOf(drawn, frame.stroke)).map((tail) => [tail.piece, tail]));
  const left = drawn.map((one, i) => {
    const tail = found.get(i);
    const [own, rest] = tail ? parted(frame, one, tail) : [];
    const drawnOf = (stroke: Stroke): Drawn => ({ stroke, shape: shapeOf(frame, stroke, mask) });
    if (own && rest) tails.push(drawnOf(rest));
    return own ? drawnOf(own) : one;
  });
  return { left, tails };
};
