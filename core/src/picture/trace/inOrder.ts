import type { Point } from "../../geometry/point.ts";
import { alongOf } from "./carriers.ts";
import type { Drawn } from "./explained.ts";
import { pointsOf, type Frame } from "./strokes.ts";

/** A point of a stroke's middle, the ink across it there, and how far along it lies. */
export type Inked = { readonly p: Point; readonly mass: number; readonly t: number };

/** A stroke's points from one end of its shape to the other (round a circle, once). */
export const inOrder = (frame: Frame, { stroke, shape }: Drawn): readonly Inked[] => {
  const from = shape.kind === "circle" ? pointsOf(stroke.runs[0]!)[0]! : shape.a;
  const along = alongOf(frame, stroke, from);
  const shift = shape.kind === "circle" || along.round === 0 ? 0 : along.round / 100;
  const sorted = stroke.runs
    .flatMap(({ line, from: first, to }) =>
      line.points.slice(first, to).map((p, k) => ({ p, mass: line.mass[first + k]! })),
    )
    .map((one) => {
      const { t } = along.at(one.p);
      return { ...one, t: along.round > 0 && t < -shift ? t + along.round : t };
    })
    .sort((p, q) => p.t - q.t);
  const way = along.round > 0 || shape.kind === "circle" ? 1 : Math.sign(along.at(shape.b).t - along.at(from).t) || 1;
  return way < 0 ? sorted.reverse() : sorted;
};

/** So many stand for all. */
const POINTS = 64;

/** Some of many, evenly. */
export const evenly = <T>(all: readonly T[]): readonly T[] => {
  const count = Math.min(POINTS, all.length);
  return Array.from({ length: count }, (_, k) => all[Math.round((k * (all.length - 1)) / Math.max(1, count - 1))]!);
};

/** Some of a stroke's points in order, evenly. */
export const standingFor = (frame: Frame, drawn: Drawn): readonly Point[] =>
  evenly(inOrder(frame, drawn)).map(({ p }) => p);
