import { meetingPlaces, type MeetingRun } from "../contour/meetingPlaces.ts";
import { pieceLength } from "../geometry/piece.ts";
import { distance, type Point } from "../geometry/point.ts";
import { noted } from "./noted.ts";
import { idsOf, type TidiedThing } from "./standing.ts";
import { JOINED, findingKey, type Finding } from "./things.ts";

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

/** What is open only where one copy of a shared edge was to go is no error. */
const openFindings = (standing: readonly TidiedThing[], openedAt: readonly Point[]): Finding[] => {
  const findings: Finding[] = [];
  for (const one of standing) {
    if (one.closed) continue;
    const [start, end] = [one.pieces[0]!.a, one.pieces.at(-1)!.b];
    const finding = noted("open", start, idsOf(one), { apart: distance(start, end) });
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
