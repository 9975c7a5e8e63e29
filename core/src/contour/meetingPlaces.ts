import { boxesOf } from "../geometry/boxesOf.ts";
import { runTree } from "../geometry/boxTree.ts";
import { chordsApart } from "../geometry/chordsApart.ts";
import type { Curve } from "../geometry/curve.ts";
import { circlesOfCurves, type Circles } from "../geometry/rings.ts";
import type { Piece } from "../geometry/piece.ts";
import { distance, equalPoint, type Point } from "../geometry/point.ts";
import { meetings } from "../intersect/meetings.ts";
import { countEffort } from "../numeric/effort.ts";
import { RESOLUTION, ROUNDING } from "../numeric/tolerance.ts";
import { branchesAt, passesThrough, type PassingRun } from "./passing.ts";

/** Pieces end to end; a whole circle says so. */
export type MeetingRun = PassingRun;

/** A place where runs, or a run and itself, meet other than in their joints; `runs` are their numbers. */
export type MeetingPlace = {
  readonly kind: "crossing" | "touching" | "doubled";
  readonly at: Point;
  readonly runs: readonly [number, number];
};

type Side = {
  readonly curve: Extract<Curve, { kind: "piece" | "circle" }>;
  readonly run: number;
  readonly place: number;
};

const sidesOf = (runs: readonly MeetingRun[]): readonly Side[] => {
  const sides: Side[] = [];
  runs.forEach(({ circle, pieces }, run) => {
    if (circle) sides.push({ curve: { kind: "circle", ...circle }, run, place: 0 });
    else pieces.forEach(({ a, b, bulge }, place) => sides.push({ curve: { kind: "piece", a, b, bulge }, run, place }));
  });
  return sides;
};

const shareAnEnd = (p: Piece, q: Piece): boolean =>
  equalPoint(p.a, q.a) || equalPoint(p.a, q.b) || equalPoint(p.b, q.a) || equalPoint(p.b, q.b);

/**
 * Which two can't meet, told by their carriers in few steps: neighbours along one straight run, circles in or beside
 * each other.
 */
const quickly = (sides: readonly Side[], circles: Circles): ((i: number, j: number) => boolean) => {
  return (i, j) => {
    const [p, q] = [sides[i]!, sides[j]!];
    const [one, other] = [circles[3 * i + 2]!, circles[3 * j + 2]!];
    if (Number.isNaN(one) && Number.isNaN(other))
      return (
        p.curve.kind === "piece" &&
        q.curve.kind === "piece" &&
        p.curve.bulge === 0 &&
        q.curve.bulge === 0 &&
        p.run === q.run &&
        Math.abs(p.place - q.place) === 1 &&
        shareAnEnd(p.curve, q.curve) &&
        !turnsBack(p.curve, q.curve)
      );
    if (Number.isNaN(one) || Number.isNaN(other)) return false;
    const [x, y] = [circles[3 * i]! - circles[3 * j]!, circles[3 * i + 1]! - circles[3 * j + 1]!];
    const apart = Math.sqrt(x * x + y * y);
    const off = RESOLUTION + ROUNDING * (one + other); // centres of flat arcs are told no better
    return apart > one + other + off || apart < Math.abs(one - other) - off;
  };
};

/** Two straight neighbours of which the second runs back along the first: their headings are against each other. */
const turnsBack = (p: Piece, q: Piece): boolean =>
  (p.b.x - p.a.x) * (q.b.x - q.a.x) + (p.b.y - p.a.y) * (q.b.y - q.a.y) < 0;

/**
 * Crossings, touches and doubled stretches between and within runs, each place once; with `only` crossings, nothing
 * else is looked for. What goes through another's corner crosses it. An end of an open run that meets another is no
 * meeting. Near n log n where few meet: pairs come from a spatial index.
 */
export const meetingPlaces = (runs: readonly MeetingRun[], only?: "crossing"): readonly MeetingPlace[] => {
  const sides = sidesOf(runs);
  if (sides.length === 0) return [];
  const curves = sides.map(({ curve }) => curve);
  const circles = circlesOfCurves(curves);
  const apart = quickly(sides, circles);
  const chords = chordsApart(curves);
  const near: [number, number][] = [];
  const linked = (i: number): boolean => sides[i]!.run === sides[i + 1]!.run && apart(i, i + 1);
  runTree(boxesOf(curves), linked, circles).pairs(RESOLUTION, (i, j) => {
    if (!apart(i, j) && !chords.apart(i, j, RESOLUTION)) near.push([i, j]);
  });
  near.sort((p, q) => p[0] - q[0] || p[1] - q[1]);

  const found: MeetingPlace[] = [];
  for (const [i, j] of near) {
    const [side, other] = [sides[i]!, sides[j]!];
    const both = [side.run, other.run] as const;
    for (const meeting of meetings(side.curve, other.curve, RESOLUTION)) {
      if (meeting.kind === "overlap") {
        if (!only) found.push({ kind: "doubled", at: meeting.from, runs: both });
        continue;
      }
      const { at } = meeting;
      if (isJoint(runs, side, other, at)) continue;
      const crosses = meeting.kind === "crossing" || (meeting.kind === "end" && goThrough(runs, side, other, at));
      if (crosses || !only) countEffort("meetings", at);
      if (crosses) found.push({ kind: "crossing", at, runs: both });
      // an end that meets is no wall
      else if (!only && both.every((run) => runs[run]!.closed)) found.push({ kind: "touching", at, runs: both });
    }
  }
  return onceEach(found);
};

/** Meetings of one kind nearer than about this are one place. */
const PLACE = 10 * RESOLUTION;

/** A contour through another's corner meets two of its pieces there: told once, and not as a touch as well. */
const onceEach = (found: readonly MeetingPlace[]): readonly MeetingPlace[] => {
  const cell = (value: number): number => Math.round(value / PLACE);
  const placeOf = ({ at }: MeetingPlace): string => `${cell(at.x)} ${cell(at.y)}`;
  const crossed = new Set(found.filter(({ kind }) => kind === "crossing").map(placeOf));
  const kept = found.filter((one) => one.kind !== "touching" || !crossed.has(placeOf(one)));
  return [...new Map(kept.map((one) => [`${one.kind} ${placeOf(one)}`, one])).values()];
};

const goThrough = (runs: readonly MeetingRun[], p: Side, q: Side, at: Point): boolean => {
  const [one, other] = [branchesAt(runs[p.run]!, p.place, at), branchesAt(runs[q.run]!, q.place, at)];
  return !!one && !!other && passesThrough(one, other);
};

/** Neighbours in one run share their joint, which is no meeting. */
const isJoint = (runs: readonly MeetingRun[], p: Side, q: Side, at: Point): boolean => {
  if (p.run !== q.run) return false;
  const { pieces, closed } = runs[p.run]!;
  const apart = Math.abs(p.place - q.place);
  const neighbours = apart === 1 || (closed && apart === pieces.length - 1);
  const joints = [p, q].flatMap(({ curve }) => (curve.kind === "piece" ? [curve.a, curve.b] : []));
  return neighbours && joints.filter((end) => distance(end, at) <= RESOLUTION).length >= 2;
};
