import type { Point } from "../../geometry/point.ts";
import type { Parameters } from "./equations.ts";
import type { Moments } from "./moments.ts";
import { turned, type Segment } from "./segments.ts";

/** What is solved: the points in their order, the pieces over them, whether they come round, and their scatter. */
export type Problem = {
  readonly points: readonly Point[];
  readonly counts: Uint8Array;
  readonly moments: Moments;
  readonly segments: readonly Segment[];
  readonly closed: boolean;
  /** What a squared distance of each piece's points counts: one by its variance. */
  readonly weightOf: (piece: number) => number;
};

/** Parameters to begin with, and which way arcs turn: left 1, right -1. */
export type Start = { readonly p: Parameters; readonly turns: readonly number[] };

/** The first parameter of every piece. */
export const placesOf = (segments: readonly Segment[]): readonly number[] => {
  let next = 0;
  return segments.map(({ kind }) => {
    const own = next;
    next += kind === "line" ? 2 : 3;
    return own;
  });
};

export const startOf = ({ points, moments, segments }: Problem): Start => {
  const p: number[] = [];
  const turns = segments.map(({ from, to, kind }) => {
    const round = kind === "arc" ? moments.round(from, to) : undefined;
    if (round) {
      p.push(round.centre.x, round.centre.y, round.radius);
      return turned(points, from, to, round.centre) < 0 ? -1 : 1;
    }
    const [a, b] = [points[from]!, points[to - 1]!];
    const angle = Math.atan2(b.y - a.y, b.x - a.x);
    const middle = { x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 };
    p.push(angle, middle.y * Math.cos(angle) - middle.x * Math.sin(angle));
    return 0;
  });
  return { p: Float64Array.from(p), turns };
};
