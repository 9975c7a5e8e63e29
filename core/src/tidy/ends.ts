import { weldEnds } from "../contour/joining.ts";
import { circleHalves } from "../geometry/circle.ts";
import { pieceCarrier } from "../geometry/curve.ts";
import { pieceLength, reversePiece, type Piece } from "../geometry/piece.ts";
import { distance, type Point } from "../geometry/point.ts";
import { pointGrid } from "../geometry/pointGrid.ts";
import { endedNear, gapRule, type GapClosed } from "./gapRule.ts";
import type { Strand } from "./strands.ts";
import { JOINED, severityOf, type Finding, type Thing, type TidyOptions } from "./things.ts";

/** An end of a strand: its start, or its end. */
type End = { readonly strand: number; readonly atEnd: boolean; readonly at: Point };

/** Two free ends that are to meet. */
type Closing = GapClosed & { readonly p: End; readonly q: End };

const pieceToEnd = (strand: Strand, { atEnd }: End): Piece => (atEnd ? strand.piece : reversePiece(strand.piece));

/**
 * Brings ends together that nearly meet: at the true corner of their lines or circles where that is within the tolerance of both, else
 * half way, for ends no farther apart than the tolerance. Only free ends are moved, each once, the nearest pairs first, and nothing
 * moves farther than the tolerance. n log n.
 */
export const closeEnds = (
  things: readonly Thing[],
  strands: readonly Strand[],
  { tolerance, accept }: TidyOptions,
): { strands: readonly Strand[]; findings: readonly Finding[]; touched: readonly number[] } => {
  const next = [...strands];
  const findings: Finding[] = [];
  const touched: number[] = [];
  for (const { p, q, corner, moves, past } of closingsOf(things, strands, tolerance)) {
    const ends = [p, q];
    // an arc that goes nearly all the way round becomes the whole circle
    const made = p.strand === q.strand ? [circleOf(next[p.strand]!)] : ends.map((end) => moved(next[end.strand]!, end, corner)); // prettier-ignore
    if (p.strand !== q.strand && !made.every(({ piece }, i) => stays(next[ends[i]!.strand]!.piece, piece, tolerance))) continue; // prettier-ignore
    const code = past ? ("tail" as const) : ("gap" as const);
    const ids = [...new Set([p, q].map(({ strand }) => things[strands[strand]!.thing]!.id))];
    const finding = {
      code,
      severity: severityOf(code),
      mendable: true,
      at: corner,
      ids,
      values: { width: distance(p.at, q.at), moves },
    };
    const fixed = accept?.(finding) ?? true;
    findings.push({ ...finding, fixed });
    if (!fixed) continue;
    made.forEach((strand, i) => {
      next[ends[i]!.strand] = strand;
      touched.push(strand.thing);
    });
  }
  return { strands: next, findings, touched };
};

const moved = (strand: Strand, end: End, to: Point): Strand => {
  const made = endedNear(pieceToEnd(strand, end), to);
  return { ...strand, piece: end.atEnd ? made : reversePiece(made) };
};

/** Something is left of a piece, and an arc did not turn over: an end that passes its start makes next to nothing of one that goes round. */
const stays = (before: Piece, after: Piece, tolerance: number): boolean =>
  distance(after.a, after.b) > JOINED && Math.abs(pieceLength(after) - pieceLength(before)) <= 4 * tolerance;

const circleOf = (strand: Strand): Strand => {
  const carrier = pieceCarrier(strand.piece);
  if (carrier.kind === "line") return strand;
  const circle = { centre: carrier.centre, radius: carrier.radius };
  return { ...strand, piece: circleHalves(circle)[0], circle };
};

const closingsOf = (things: readonly Thing[], strands: readonly Strand[], tolerance: number): readonly Closing[] => {
  const ends = freeEnds(strands);
  const reach = 2 * tolerance;
  const grid = pointGrid(
    ends.map(({ at }) => at),
    reach,
  );
  const found: Closing[] = [];
  ends.forEach((p, i) =>
    grid.near(p.at, (j) => {
      const q = ends[j]!;
      if (j <= i || distance(p.at, q.at) > reach) return;
      if (things[strands[p.strand]!.thing]!.layer !== things[strands[q.strand]!.thing]!.layer) return;
      const closing = closingOf(strands, p, q, tolerance);
      if (closing) found.push(closing);
    }),
  );
  found.sort((a, b) => a.moves - b.moves || a.corner.x - b.corner.x || a.corner.y - b.corner.y);
  const used = new Set<End>();
  return found.filter(({ p, q }) => {
    if (used.has(p) || used.has(q)) return false;
    used.add(p).add(q);
    return true;
  });
};

/** Ends at which nothing else ends. */
const freeEnds = (strands: readonly Strand[]): readonly End[] => {
  const open: number[] = [];
  strands.forEach(({ circle }, strand) => void (circle || open.push(strand)));
  const nodeOf = weldEnds(
    open.map((strand) => strands[strand]!.piece),
    JOINED,
  );
  const ends = new Int32Array(nodeOf.length); // how many lie at a node
  nodeOf.forEach((node) => void (ends[node]! += 1));
  const free: End[] = [];
  open.forEach((strand, i) => {
    const { a, b } = strands[strand]!.piece;
    if (ends[nodeOf[2 * i]!] === 1) free.push({ strand, atEnd: false, at: a });
    if (ends[nodeOf[2 * i + 1]!] === 1) free.push({ strand, atEnd: true, at: b });
  });
  return free;
};

const closingOf = (strands: readonly Strand[], p: End, q: End, tolerance: number): Closing | undefined => {
  const [one, other] = [pieceToEnd(strands[p.strand]!, p), pieceToEnd(strands[q.strand]!, q)];
  const apart = distance(p.at, q.at);
  const samePiece = p.strand === q.strand;
  // a piece that would be closed on itself must be an arc nearly all the way round
  if (samePiece && pieceLength(one) < 4 * tolerance) return undefined;
  if (pieceLength(one) <= apart && pieceLength(other) <= apart) return undefined;
  const closed = gapRule(one, other, tolerance, samePiece);
  return closed && { p, q, ...closed };
};
