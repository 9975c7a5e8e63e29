import type { Point } from "../../geometry/point.ts";
import { signedAngle } from "../../numeric/angle.ts";
import { arcsTouch, equalOnes, lineAt, lineTouches, type Equation, type Parameters } from "./equations.ts";
import { placesOf, type Problem, type Start } from "./problem.ts";
import type { Segment } from "./segments.ts";

/** Equations that hold together or not at all. */
export type Candidate = readonly Equation[];

/** Turns at a joint (radians) that are looked at as none. */
const NEARLY_TANGENT = 0.6;

/** That two pieces touch where one goes on into the other, if they nearly do. */
export const touchingAt = (
  { points, segments }: Problem,
  { turns }: Start,
  p: Parameters,
  i: number,
  j: number,
): readonly Candidate[] => {
  const at = placesOf(segments);
  const [one, other] = [segments[i]!, segments[j]!];
  if (one.kind === "line" && other.kind === "line") return [];
  const [end, start] = [points[one.to - 1]!, points[other.from]!];
  const heading = (k: number, { x, y }: Point): number =>
    segments[k]!.kind === "line"
      ? p[at[k]!]!
      : Math.atan2(y - p[at[k]! + 1]!, x - p[at[k]!]!) + (turns[k]! * Math.PI) / 2;
  if (Math.abs(signedAngle(heading(j, start) - heading(i, end))) > NEARLY_TANGENT) return [];
  const equation =
    one.kind === "line"
      ? lineTouches(at[i]!, at[j]!, p)
      : other.kind === "line"
        ? lineTouches(at[j]!, at[i]!, p)
        : arcsTouch(at[i]!, at[j]!, turns[i] === turns[j], p);
  return [[equation]];
};

/** That a line is level or upright, whichever is nearer. */
export const levelOf = (line: number, p: Parameters): Candidate => [
  lineAt(line, (Math.round((2 * p[line]!) / Math.PI) * Math.PI) / 2),
];

/** Arcs whose centres, or whose radii, may be one: each with the nearest before it, so that no cycles come. */
export const pairsOf = (
  segments: readonly Segment[],
  p: Parameters,
  what: "centre" | "radius",
): readonly Candidate[] => {
  const at = placesOf(segments);
  const arcs = segments.flatMap(({ kind }, i) => (kind === "arc" ? [at[i]!] : []));
  const key = (arc: number): number => (what === "radius" ? p[arc + 2]! : p[arc]!);
  arcs.sort((q, r) => key(q) - key(r));
  return arcs.slice(1).flatMap((arc, k): Candidate[] => {
    const before = arcs.slice(0, k + 1);
    if (what === "radius") return [[equalOnes(before.at(-1)! + 2, arc + 2)]];
    const away = (other: number): number => Math.hypot(p[other]! - p[arc]!, p[other + 1]! - p[arc + 1]!);
    const nearest = before.reduce((best, other) => (away(other) < away(best) ? other : best));
    return [[equalOnes(nearest, arc), equalOnes(nearest + 1, arc + 1)]];
  });
};
