import Flatbush from "flatbush";
import { growBounds } from "../geometry/bounds.ts";
import type { Circle } from "../geometry/circle.ts";
import { curveBounds, type Curve } from "../geometry/curve.ts";
import type { Piece } from "../geometry/piece.ts";
import { distance, type Point } from "../geometry/point.ts";
import { meetings } from "../intersect/meetings.ts";
import { RESOLUTION } from "../numeric/tolerance.ts";

/** Pieces end to end; a whole circle says so. */
export type MeetingRun = { readonly closed: boolean; readonly pieces: readonly Piece[]; readonly circle?: Circle };

/** A place where runs, or a run and itself, meet other than in their joints; `runs` are their numbers. */
export type MeetingPlace = {
  readonly kind: "crossing" | "touching" | "doubled";
  readonly at: Point;
  readonly runs: readonly [number, number];
};

type Side = { readonly curve: Curve; readonly run: number; readonly place: number };

/**
 * Crossings, touches and doubled stretches between and within runs, each place once. An end of an open run that meets
 * another is none. Near n log n where few meet: pairs come from a spatial index.
 */
export const meetingPlaces = (runs: readonly MeetingRun[]): readonly MeetingPlace[] => {
  const sides = runs.flatMap(({ circle, pieces }, run): Side[] =>
    circle
      ? [{ curve: { kind: "circle", ...circle }, run, place: 0 }]
      : pieces.map(({ a, b, bulge }, place) => ({ curve: { kind: "piece", a, b, bulge }, run, place })),
  );
  if (sides.length === 0) return [];
  const boxes = sides.map(({ curve }) => growBounds(curveBounds(curve)!, RESOLUTION));
  const tree = new Flatbush(sides.length);
  for (const box of boxes) tree.add(box.minX, box.minY, box.maxX, box.maxY);
  tree.finish();
  const found: MeetingPlace[] = [];
  sides.forEach((side, i) => {
    const box = boxes[i]!;
    for (const j of tree.search(box.minX, box.minY, box.maxX, box.maxY)) {
      if (j <= i) continue;
      const other = sides[j]!;
      const both = [side.run, other.run] as const;
      for (const meeting of meetings(side.curve, other.curve, RESOLUTION)) {
        if (meeting.kind === "overlap") found.push({ kind: "doubled", at: meeting.from, runs: both });
        else if (isJoint(runs, side, other, meeting.at)) continue;
        else if (meeting.kind === "crossing") found.push({ kind: "crossing", at: meeting.at, runs: both });
        // an end that meets is no wall
        else if (both.every((run) => runs[run]!.closed)) found.push({ kind: "touching", at: meeting.at, runs: both });
      }
    }
  });
  // a contour through another's corner meets two of its pieces there
  const cell = (value: number): number => Math.round(value / PLACE);
  return [...new Map(found.map((one) => [`${one.kind} ${cell(one.at.x)} ${cell(one.at.y)}`, one])).values()];
};

/** Meetings of one kind nearer than about this are one place. */
const PLACE = 10 * RESOLUTION;

/** Neighbours in one run share their joint, which is no meeting. */
const isJoint = (runs: readonly MeetingRun[], p: Side, q: Side, at: Point): boolean => {
  if (p.run !== q.run) return false;
  const { pieces, closed } = runs[p.run]!;
  const apart = Math.abs(p.place - q.place);
  const neighbours = apart === 1 || (closed && apart === pieces.length - 1);
  const joints = [p, q].flatMap(({ curve }) => (curve.kind === "piece" ? [curve.a, curve.b] : []));
  return neighbours && joints.filter((end) => distance(end, at) <= RESOLUTION).length >= 2;
};
