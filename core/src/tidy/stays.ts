import { boxesOf } from "../geometry/boxesOf.ts";
import { runTree } from "../geometry/boxTree.ts";
import { circleHalves } from "../geometry/circle.ts";
import { pieceLength, type Piece } from "../geometry/piece.ts";
import { distance, equalPoint, type Point } from "../geometry/point.ts";
import { meetings } from "../intersect/meetings.ts";
import { RESOLUTION } from "../numeric/tolerance.ts";
import { idsOf, type Standing } from "./standing.ts";
import { JOINED, findingKey, severityOf, type Finding, type TidyCode } from "./things.ts";

/** A finding, before it is told whether it is mended. */
export const noted = (
  code: TidyCode,
  at: Point,
  ids: readonly number[],
  values: Finding["values"] = {},
  mendable = false,
): Omit<Finding, "fixed"> => ({ code, severity: severityOf(code), mendable, at, ids, values });

/** What stays in the way of what stands: open ends, tiny pieces and crossings. */
export const staysOf = (
  standing: readonly Standing[],
  openedAt: readonly Point[],
  tolerance: number,
): readonly Finding[] => [
  ...openFindings(standing, openedAt),
  ...tinyFindings(standing, tolerance),
  ...crossingFindings(standing),
];

/** What is open only where one copy of a shared edge was to go is no error. */
const openFindings = (standing: readonly Standing[], openedAt: readonly Point[]): Finding[] => {
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

const tinyFindings = (standing: readonly Standing[], tolerance: number): Finding[] => {
  const findings: Finding[] = [];
  for (const one of standing)
    for (const piece of one.pieces) {
      const length = pieceLength(piece);
      if (length < tolerance) findings.push({ ...noted("tiny", piece.a, idsOf(one), { length }), fixed: false });
    }
  return findings;
};

const shareAnEnd = (p: Piece, q: Piece): boolean => equalPoint(p.a, q.a) || equalPoint(p.a, q.b) || equalPoint(p.b, q.a) || equalPoint(p.b, q.b); // prettier-ignore

/** Where things cross themselves or one another: each place once. Touching and shared edges are no crossing. */
const crossingFindings = (standing: readonly Standing[]): Finding[] => {
  const sides: Piece[] = [];
  const owners: number[] = [];
  standing.forEach(({ pieces, made }, owner) => {
    for (const piece of made.shape.kind === "circle" ? circleHalves(made.shape) : pieces) {
      sides.push(piece);
      owners.push(owner);
    }
  });
  const near: { i: number; j: number }[] = [];
  // straight pieces that share an end have no other place to cross
  const noCrossing = (i: number, j: number): boolean =>
    sides[i]!.bulge === 0 && sides[j]!.bulge === 0 && shareAnEnd(sides[i]!, sides[j]!);
  runTree(boxesOf(sides), (i) => owners[i] === owners[i + 1] && noCrossing(i, i + 1)).pairs(RESOLUTION, (i, j) => {
    if (!noCrossing(i, j)) near.push({ i, j });
  });
  near.sort((p, q) => p.i - q.i || p.j - q.j);
  const found = new Map<string, Finding>();
  for (const { i, j } of near)
    for (const meeting of meetings({ kind: "piece", ...sides[i]! }, { kind: "piece", ...sides[j]! }, RESOLUTION)) {
      if (meeting.kind !== "crossing") continue;
      const ids = [...new Set([i, j].flatMap((side) => idsOf(standing[owners[side]!]!)))];
      const finding = { ...noted("crossing", meeting.at, ids), fixed: false };
      const key = findingKey(finding);
      if (!found.has(key)) found.set(key, finding);
    }
  return [...found.values()];
};
