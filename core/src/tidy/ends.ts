import { JOINED } from "../numeric/tolerance.ts";
import { weldEnds } from "../contour/joining.ts";
import { circleHalves } from "../geometry/circle.ts";
import { pieceCarrier } from "../geometry/curve.ts";
import { pieceLength, reversePiece, type Piece } from "../geometry/piece.ts";
import { distance, type Point } from "../geometry/point.ts";
import { pointGrid } from "../geometry/pointGrid.ts";
import { endedNear, gapRule, type GapClosed } from "./gapRule.ts";
import type { Strand, Looks } from "./strands.ts";
import { severityOf, type Finding, type Thing, type TidyOptions } from "./things.ts";

/** An end of a strand: its start, or its end. */
type End = { readonly strand: number; readonly atEnd: boolean; readonly at: Point };

/** Two free ends that are to meet. */
type Closing = GapClosed & { readonly p: End; readonly q: End };

const pieceToEnd = (strand: Strand, { atEnd }: End): Piece => (atEnd ? strand.piece : reversePiece(strand.piece));

/**
 * Brings ends together that nearly meet: at the true corner of their lines or circles where that is within the
 * tolerance of both, else half way, for ends no farther apart than the tolerance. Only free ends are moved, each once,
 * the nearest pairs first, and nothing moves farther than the tolerance. What was moved at one end lies a little
 * otherwise: its other end is asked again. n log n.
 */
export const closeEnds = (
  things: readonly Thing[],
  strands: readonly Strand[],
  { tolerance, accept }: TidyOptions,
  { kinds }: Looks,
): { strands: readonly Strand[]; findings: readonly Finding[]; touched: readonly number[] } => {
  const next = [...strands];
  const findings: Finding[] = [];
  const touched: number[] = [];
  const free = freeEnds(strands, kinds);
  const closings = closingsAmong(kinds, free, tolerance);
  for (let asked = free; asked.length > 0;) {
    const changed = new Set<number>();
    for (const { p, q, corner, moves, past } of closings(next, asked)) {
      const ends = [p, q];
      // an arc that goes nearly all the way round becomes the whole circle
      const made =
        p.strand === q.strand ? [circleOf(next[p.strand]!)] : ends.map((end) => moved(next[end.strand]!, end, corner));
      if (p.strand !== q.strand && !made.every(({ piece }, i) => stays(next[ends[i]!.strand]!.piece, piece, tolerance)))
        continue;
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
        changed.add(ends[i]!.strand);
        touched.push(strand.thing);
      });
    }
    asked = changed.size === 0 ? [] : free.filter(({ strand }) => changed.has(strand));
  }
  return { strands: next, findings, touched };
};

const moved = (strand: Strand, end: End, to: Point): Strand => {
  const made = endedNear(pieceToEnd(strand, end), to);
  return { ...strand, piece: end.atEnd ? made : reversePiece(made) };
};

/**
 * Something is left of a piece, and an arc did not turn over: an end that passes its start makes next to nothing of one
 * that goes round.
 */
const stays = (before: Piece, after: Piece, tolerance: number): boolean =>
  distance(after.a, after.b) > JOINED && Math.abs(pieceLength(after) - pieceLength(before)) <= 4 * tolerance;

const circleOf = (strand: Strand): Strand => {
  const carrier = pieceCarrier(strand.piece);
  if (carrier.kind === "line") return strand;
  const circle = { centre: carrier.centre, radius: carrier.radius };
  return { ...strand, piece: circleHalves(circle)[0], circle };
};

/**
 * Finds, for strands as they lie now, which free ends are to meet: those of some that are asked with one another or
 * with any other, the nearest pairs first. An end that was found once is not found again.
 */
const closingsAmong = (
  kinds: readonly number[],
  free: readonly End[],
  tolerance: number,
): ((strands: readonly Strand[], asked: readonly End[]) => readonly Closing[]) => {
  const reach = 2 * tolerance;
  const grid = pointGrid(
    free.map(({ at }) => at),
    reach,
  );
  const used = new Set<End>();
  return (strands, asked) => {
    const order = asked === free ? undefined : new Map(asked.map((end, i) => [end, i]));
    const found: Closing[] = [];
    asked.forEach((p, i) => {
      if (used.has(p)) return;
      grid.near(p.at, (j) => {
        const q = free[j]!;
        if ((order ? (order.get(q) ?? Infinity) : j) <= i || distance(p.at, q.at) > reach || used.has(q)) return;
        if (kinds[strands[p.strand]!.thing] !== kinds[strands[q.strand]!.thing]) return;
        const closing = closingOf(strands, p, q, tolerance);
        if (closing) found.push(closing);
      });
    });
    found.sort((a, b) => a.moves - b.moves || a.corner.x - b.corner.x || a.corner.y - b.corner.y);
    return found.filter(({ p, q }) => {
      if (used.has(p) || used.has(q)) return false;
      used.add(p).add(q);
      return true;
    });
  };
};

/** Ends at which nothing else of their kind ends. */
const freeEnds = (strands: readonly Strand[], kinds: readonly number[]): readonly End[] => {
  const open: number[] = [];
  strands.forEach(({ circle }, strand) => void (circle || open.push(strand)));
  const nodeOf = weldEnds(
    open.map((strand) => strands[strand]!.piece),
    JOINED,
  );
  const oneKind = kinds.every((kind) => kind === kinds[0]);
  const kindAt = (end: number): number => (oneKind ? 0 : kinds[strands[open[end >> 1]!]!.thing]!);
  const ends = new Int32Array(nodeOf.length); // how many lie at a node
  const firsts = new Int32Array(nodeOf.length); // the first of them
  const mixed = new Map<number, Map<number, number>>(); // of nodes with more than one kind, how many of each
  nodeOf.forEach((node, end) => {
    if (ends[node] === 0) firsts[node] = end;
    else if (kindAt(end) !== kindAt(firsts[node]!)) mixed.set(node, new Map());
    ends[node]! += 1;
  });
  if (mixed.size > 0)
    nodeOf.forEach((node, end) => {
      const own = mixed.get(node);
      if (own) own.set(kindAt(end), (own.get(kindAt(end)) ?? 0) + 1);
    });
  const isFree = (end: number): boolean => (mixed.get(nodeOf[end]!)?.get(kindAt(end)) ?? ends[nodeOf[end]!]) === 1;
  const free: End[] = [];
  open.forEach((strand, i) => {
    const { a, b } = strands[strand]!.piece;
    if (isFree(2 * i)) free.push({ strand, atEnd: false, at: a });
    if (isFree(2 * i + 1)) free.push({ strand, atEnd: true, at: b });
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
