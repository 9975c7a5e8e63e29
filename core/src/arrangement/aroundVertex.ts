import { least } from "../numeric/greatest.ts";
import { angleOf, distance, type Point } from "../geometry/point.ts";
import { normalAngle, TURN } from "../numeric/angle.ts";
import { pointAlong, type Span } from "./span.ts";

/** A fragment as seen from one of its ends: it leaves from there along its span, forwards or backwards. */
export type Leaving = { readonly span: Span; readonly at: number; readonly forwards: boolean; readonly length: number };

const placeAt = ({ span, at, forwards }: Leaving, away: number): Point =>
  pointAlong(span, forwards ? at + away : at - away);

/**
 * The fragments that leave a vertex in counter-clockwise order, as their places in the list: by where each leaves a
 * circle smaller than the shortest of them; those that leave it together are compared farther out, so that tangent ones
 * are told apart by how they bend.
 */
export const aroundVertex = (vertex: Point, leaving: readonly Leaving[], resolution: number): readonly number[] => {
  const shortest = least(leaving.map(({ length }) => length));
  // far enough out for the angle to be good, near enough for arcs not to have come round
  const reach = Math.min(shortest, least(leaving.map(({ span }) => (span.radius === 0 ? Infinity : span.radius)))) / 2;
  const angles = fromWidestGap(leaving.map((one) => angleOf(minus(placeAt(one, reach), vertex))));
  const together = (4 * resolution) / reach;
  const compare = (i: number, j: number): number => {
    const off = signed(angles[i]! - angles[j]!);
    if (Math.abs(off) > together) return angles[i]! - angles[j]!;
    const [p, q] = [leaving[i]!, leaving[j]!];
    for (const part of [1, 2, 4, 8, 16]) {
      const away = (Math.min(p.length, q.length) * part) / 16;
      const [u, v] = [placeAt(p, away), placeAt(q, away)];
      const turn = signed(angleOf(minus(u, vertex)) - angleOf(minus(v, vertex)));
      if (Math.abs(turn) * distance(u, vertex) > 2 * resolution) return turn;
    }
    return off;
  };
  return leaving.map((_, i) => i).sort(compare);
};

/**
 * The same angles counted from the middle of the widest gap between them, so that none lies together with one across
 * the count's start.
 */
const fromWidestGap = (angles: readonly number[]): readonly number[] => {
  const sorted = [...angles].sort((p, q) => p - q);
  let [base, widest] = [0, -1];
  sorted.forEach((angle, i) => {
    const gap = i + 1 < sorted.length ? sorted[i + 1]! - angle : sorted[0]! + TURN - angle;
    if (gap > widest) [base, widest] = [angle + gap / 2, gap];
  });
  return angles.map((angle) => normalAngle(angle - base));
};

const minus = (p: Point, q: Point): Point => ({ x: p.x - q.x, y: p.y - q.y });
const signed = (angle: number): number => {
  const turn = normalAngle(angle);
  return turn > Math.PI ? turn - TURN : turn;
};
