import { boxesOf } from "../geometry/boxesOf.ts";
import { runTree } from "../geometry/boxTree.ts";
import { circleHalves } from "../geometry/circle.ts";
import { pieceCentre, pieceLength, pieceRadius, type Piece } from "../geometry/piece.ts";
import { distance, equalPoint, type Point } from "../geometry/point.ts";
import { meetings } from "../intersect/meetings.ts";
import { RESOLUTION } from "../numeric/tolerance.ts";
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

const shareAnEnd = (p: Piece, q: Piece): boolean =>
  equalPoint(p.a, q.a) || equalPoint(p.a, q.b) || equalPoint(p.b, q.a) || equalPoint(p.b, q.b);

/**
 * The pieces of what stands, and of circles their halves; whose each is; and the circle that each arc lies on, three
 * numbers each.
 */
const sidesOf = (
  standing: readonly TidiedThing[],
): { sides: readonly Piece[]; owners: readonly number[]; circles: Float64Array } => {
  const sides: Piece[] = [];
  const owners: number[] = [];
  standing.forEach(({ pieces, made }, owner) => {
    for (const piece of made.shape.kind === "circle" ? circleHalves(made.shape) : pieces) {
      sides.push(piece);
      owners.push(owner);
    }
  });
  const circles = new Float64Array(3 * sides.length);
  sides.forEach((piece, i) => {
    const centre = piece.bulge === 0 ? undefined : pieceCentre(piece);
    if (centre) circles.set([centre.x, centre.y, pieceRadius(piece)], 3 * i);
  });
  return { sides, owners, circles };
};

/** Where things cross themselves or one another: each place once. Touching and shared edges are no crossing. */
const crossingFindings = (standing: readonly TidiedThing[]): Finding[] => {
  const { sides, owners, circles } = sidesOf(standing);
  /**
   * Straight pieces that share an end have no other place to cross; circles that lie in or beside each other have none.
   */
  const noCrossing = (i: number, j: number): boolean => {
    const [p, q] = [sides[i]!, sides[j]!];
    if (p.bulge === 0 && q.bulge === 0) return shareAnEnd(p, q);
    if (p.bulge === 0 || q.bulge === 0) return false;
    const [one, other] = [circles[3 * i + 2]!, circles[3 * j + 2]!];
    if (one === 0 || other === 0) return false;
    const [x, y] = [circles[3 * i]! - circles[3 * j]!, circles[3 * i + 1]! - circles[3 * j + 1]!];
    const apart = Math.sqrt(x * x + y * y);
    const off = RESOLUTION + 1e-12 * (one + other); // centres of flat arcs are told no better
    return apart > one + other + off || apart < Math.abs(one - other) - off;
  };
  const near: { i: number; j: number }[] = [];
  runTree(boxesOf(sides), (i) => owners[i] === owners[i + 1] && noCrossing(i, i + 1)).pairs(RESOLUTION, (i, j) => {
    if (!noCrossing(i, j)) near.push({ i, j });
  });
  near.sort((p, q) => p.i - q.i || p.j - q.j);
  const found = new Map<string, Finding>();
  for (const { i, j } of near)
    for (const meeting of meetings({ kind: "piece", ...sides[i]! }, { kind: "piece", ...sides[j]! }, RESOLUTION)) {
      if (meeting.kind !== "crossing") continue;
      const crossing = noted("crossing", meeting.at, []);
      const key = findingKey(crossing);
      if (found.has(key)) continue;
      const ids = [...new Set([i, j].flatMap((side) => idsOf(standing[owners[side]!]!)))];
      found.set(key, { ...crossing, ids, fixed: false });
    }
  return [...found.values()];
};
