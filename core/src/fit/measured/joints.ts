import { carrierNearest, type Carrier } from "../../geometry/curve.ts";
import type { Piece } from "../../geometry/piece.ts";
import { distance, midpoint, type Point } from "../../geometry/point.ts";
import { meetCarriers, meetingPoints } from "../../intersect/carriers.ts";
import { signedAngle, TURN } from "../../numeric/angle.ts";
import { turned, type Segment } from "./segments.ts";
import type { Solved } from "./solve.ts";

/** Carriers as near as this touch (lengths are about 1). */
const TOUCHING = 1e-7;

/** The pieces on their carriers, ended where these meet nearest to the points' own breaks. */
export const piecesOn = (
  points: readonly Point[],
  segments: readonly Segment[],
  { carriers, turns }: Solved,
  closed: boolean,
): readonly Piece[] => {
  const count = segments.length;
  const endAfter = (i: number): Point => {
    const last = points[segments[i]!.to - 1]!;
    if (!closed && i === count - 1) return carrierNearest(carriers[i]!, last);
    const next = (i + 1) % count;
    return jointOf(carriers[i]!, carriers[next]!, midpoint(last, points[segments[next]!.from]!));
  };
  const ends = segments.map((_, i) => endAfter(i));
  return segments.map(({ from, to }, i) => {
    const a = i > 0 || closed ? ends.at(i - 1)! : carrierNearest(carriers[0]!, points[0]!);
    const b = ends[i]!;
    const carrier = carriers[i]!;
    if (carrier.kind === "line") return { a, b, bulge: 0 };
    const { centre } = carrier;
    const [start, end] = [a, b].map(({ x, y }) => Math.atan2(y - centre.y, x - centre.x)) as [number, number];
    const seen = turned(points, from, to, centre);
    const turn = signedAngle(end - start);
    const sweeps = [turn, turn + TURN, turn - TURN].filter((sweep) => sweep * turns[i]! > 0);
    const sweep = sweeps.reduce((best, one) => (Math.abs(one - seen) < Math.abs(best - seen) ? one : best), sweeps[0]!);
    return { a, b, bulge: Math.tan(sweep / 4) };
  });
};

/** Where two carriers meet nearest to a place; half way between them where they don't meet. */
export const jointOf = (one: Carrier, other: Carrier, near: Point): Point => {
  const places = meetingPoints(meetCarriers(one, other, TOUCHING));
  const [first, ...more] = places;
  if (!first) return midpoint(carrierNearest(one, near), carrierNearest(other, near));
  return more.reduce((best, place) => (distance(place, near) < distance(best, near) ? place : best), first);
};
