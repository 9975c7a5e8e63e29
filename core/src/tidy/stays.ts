import { JOINED } from "../numeric/tolerance.ts";
import { meetingPlaces, type MeetingRun } from "../contour/meetingPlaces.ts";
import { pieceLength } from "../geometry/piece.ts";
import { distance, type Point } from "../geometry/point.ts";
import { pointGrid } from "../geometry/pointGrid.ts";
import { noted } from "./noted.ts";
import { idsOf, type TidiedThing } from "./standing.ts";
import { findingKey, type Finding } from "./things.ts";

/** What stays in the way of what stands: open ends, tiny pieces and crossings. */
export const staysOf = (
  standing: readonly TidiedThing[],
  openedAt: readonly Point[],
  tolerance: number,
): readonly Finding[] => [
  ...openFindings(standing, openedAt),
  ...tinyFindings(standing, tolerance),
  ...crossingFindings(standing),
];

/**
 * What is open only where one copy of a shared edge was to go is no error. An end that meets one on another layer says
 * on which.
 */
const openFindings = (standing: readonly TidiedThing[], openedAt: readonly Point[]): Finding[] => {
  const findings: Finding[] = [];
  const open = standing.filter(({ closed }) => !closed);
  const ends = open.flatMap(({ pieces }) => [pieces[0]!.a, pieces.at(-1)!.b]);
  const grid = pointGrid(ends, JOINED);
  /** What lies on another layer and ends where one of these does. */
  const metBy = (own: number): TidiedThing | undefined => {
    let met: TidiedThing | undefined;
    for (const end of [2 * own, 2 * own + 1])
      grid.near(ends[end]!, (i) => {
        const other = open[i >> 1]!;
        if (other.made.layer !== open[own]!.made.layer && distance(ends[i]!, ends[end]!) <= JOINED) met ??= other;
      });
    return met;
  };
  for (const [i, one] of open.entries()) {
    const [start, end] = [ends[2 * i]!, ends[2 * i + 1]!];
    const met = metBy(i);
    const layers = met ? { layer: one.made.layer, other: met.made.layer } : {};
    const ids = met ? [...idsOf(one), ...idsOf(met)] : idsOf(one);
    const finding = noted("open", start, ids, { apart: distance(start, end), ...layers });
    const byRequest = [start, end].every((p) => openedAt.some((at) => distance(at, p) <= JOINED));
    findings.push({ ...finding, severity: byRequest ? "warning" : finding.severity, fixed: false });
  }
  return findings;
};

const tinyFindings = (standing: readonly TidiedThing[], tolerance: number): Finding[] => {
  const findings: Finding[] = [];
  for (const one of standing)
    for (const piece of one.pieces) {
      const length = pieceLength(piece);
      if (length < tolerance) findings.push({ ...noted("tiny", piece.a, idsOf(one), { length }), fixed: false });
    }
  return findings;
};

/** Where things cross themselves or one another: each place once. Touching and shared edges are no crossing. */
const crossingFindings = (standing: readonly TidiedThing[]): readonly Finding[] => {
  const runs = standing.map(({ made: { shape }, pieces, closed }): MeetingRun =>
    shape.kind === "circle" ? { closed, pieces, circle: shape } : { closed, pieces },
  );
  const found = new Map<string, Finding>();
  for (const { at, runs: both } of meetingPlaces(runs, "crossing")) {
    const crossing = noted("crossing", at, []);
    const key = findingKey(crossing);
    if (found.has(key)) continue;
    found.set(key, { ...crossing, ids: [...new Set(both.flatMap((run) => idsOf(standing[run]!)))], fixed: false });
  }
  return [...found.values()];
};
