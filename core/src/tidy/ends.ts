import Flatbush from "flatbush";
import { endedAt } from "../construct/cornerCuts.ts";
import { carrierOf } from "../geometry/curve.ts";
import { pieceDirection, pieceLength, pieceNearest, reversePiece, type Piece } from "../geometry/piece.ts";
import { cross, distance, midpoint, type Point } from "../geometry/point.ts";
import { meetCarriers, meetingPoints } from "../intersect/carriers.ts";
import { RESOLUTION } from "../numeric/tolerance.ts";
import type { Strand } from "./strands.ts";
import { JOINED, keyOf, severityOf, type Finding, type Thing, type TidyOptions } from "./things.ts";

/** An end of a strand: its start, or its end. */
type End = { readonly strand: number; readonly atEnd: boolean; readonly at: Point };

/** Two free ends that are to meet: where, how far the one moves that moves most, and whether one of them ran past the corner. */
type Closing = {
  readonly p: End;
  readonly q: End;
  readonly corner: Point;
  readonly moves: number;
  readonly past: boolean;
};

/** Directions closer than this (sine) run on into each other: their carriers' meeting says nothing about a corner. */
const NEARLY_TANGENT = 0.02;

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
): { strands: readonly Strand[]; findings: readonly Finding[]; touched: ReadonlySet<number> } => {
  const next = [...strands];
  const findings: Finding[] = [];
  const touched = new Set<number>();
  for (const { p, q, corner, moves, past } of closingsOf(things, strands, tolerance)) {
    const code = past ? ("tail" as const) : ("gap" as const);
    const ids = [...new Set([p, q].map(({ strand }) => things[strands[strand]!.thing]!.id))];
    const finding = {
      code,
      severity: severityOf(code),
      mendable: true,
      at: corner,
      key: keyOf(code, midpoint(p.at, q.at)),
      ids,
      values: { width: distance(p.at, q.at), moves },
    };
    const fixed = accept?.(finding) ?? true;
    findings.push({ ...finding, fixed });
    if (!fixed) continue;
    for (const end of [p, q]) {
      next[end.strand] = moved(next[end.strand]!, end, corner);
      touched.add(next[end.strand]!.thing);
    }
  }
  return { strands: next, findings, touched };
};

/** A strand with one end at another place: along its own line or circle where the place lies on it, else its sweep stays. */
const moved = (strand: Strand, end: End, to: Point): Strand => {
  const piece = pieceToEnd(strand, end);
  const onCarrier = piece.bulge !== 0 && Math.abs(pieceNearest(endedAt(piece, to), to).distance) <= RESOLUTION;
  const radiusHolds = onCarrier && Math.abs(distanceToCircle(piece, to)) <= RESOLUTION;
  const made = piece.bulge === 0 || !radiusHolds ? { ...piece, b: to } : endedAt(piece, to);
  return { ...strand, piece: end.atEnd ? made : reversePiece(made) };
};

const distanceToCircle = (piece: Piece, p: Point): number => {
  const carrier = carrierOf({ kind: "piece", ...piece });
  return carrier.kind === "circle" ? distance(p, carrier.centre) - carrier.radius : 0;
};

const closingsOf = (things: readonly Thing[], strands: readonly Strand[], tolerance: number): readonly Closing[] => {
  const ends = freeEnds(strands);
  if (ends.length < 2) return [];
  const tree = new Flatbush(ends.length);
  for (const { at } of ends) tree.add(at.x, at.y, at.x, at.y);
  tree.finish();
  const reach = 2 * tolerance;
  const found: Closing[] = [];
  ends.forEach((p, i) => {
    for (const j of tree.search(p.at.x - reach, p.at.y - reach, p.at.x + reach, p.at.y + reach)) {
      if (j <= i) continue;
      const q = ends[j]!;
      if (things[strands[p.strand]!.thing]!.layer !== things[strands[q.strand]!.thing]!.layer) continue;
      const closing = closingOf(strands, p, q, tolerance);
      if (closing) found.push(closing);
    }
  });
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
  const all: End[] = strands.flatMap((strand, i): End[] =>
    strand.circle
      ? []
      : [
          { strand: i, atEnd: false, at: strand.piece.a },
          { strand: i, atEnd: true, at: strand.piece.b },
        ],
  );
  if (all.length === 0) return [];
  const tree = new Flatbush(all.length);
  for (const { at } of all) tree.add(at.x, at.y, at.x, at.y);
  tree.finish();
  return all.filter(({ at }, i) => {
    const near = tree.search(at.x - JOINED, at.y - JOINED, at.x + JOINED, at.y + JOINED);
    return near.every((j) => j === i || distance(all[j]!.at, at) > JOINED);
  });
};

const closingOf = (strands: readonly Strand[], p: End, q: End, tolerance: number): Closing | undefined => {
  const [one, other] = [pieceToEnd(strands[p.strand]!, p), pieceToEnd(strands[q.strand]!, q)];
  const apart = distance(p.at, q.at);
  const own = p.strand === q.strand;
  // a piece that would be closed on itself must be an arc nearly all the way round
  if (own && pieceLength(one) < 4 * tolerance) return undefined;
  if (pieceLength(one) <= apart && pieceLength(other) <= apart) return undefined;
  const [u, v] = [pieceDirection(one, 1), pieceDirection(other, 1)];
  const places = own
    ? []
    : meetingPoints(
        meetCarriers(carrierOf({ kind: "piece", ...one }), carrierOf({ kind: "piece", ...other }), RESOLUTION),
      );
  const corner = places
    .filter((place) => distance(place, p.at) <= tolerance && distance(place, q.at) <= tolerance)
    .sort((a, b) => distance(a, p.at) + distance(a, q.at) - distance(b, p.at) - distance(b, q.at))[0];
  const moves = (to: Point): number => Math.max(distance(to, p.at), distance(to, q.at));
  if (corner) {
    const past = [one, other].some((piece) => {
      const { t, distance: off } = pieceNearest(piece, corner);
      return off <= RESOLUTION && (1 - t) * pieceLength(piece) > JOINED;
    });
    // both ends stay on the lengths of their pieces
    const short = [one, other].some((piece, k) => pieceLength(piece) <= distance(corner, k === 0 ? p.at : q.at));
    if (!short) return { p, q, corner, moves: moves(corner), past };
  }
  const tangent = Math.abs(cross(u, v)) <= NEARLY_TANGENT;
  if (apart > tolerance) return undefined;
  const at = tangent ? tangentPlace(one, other) : midpoint(p.at, q.at);
  const kept = moves(at) <= tolerance ? at : midpoint(p.at, q.at);
  return { p, q, corner: kept, moves: moves(kept), past: false };
};

/** Where a line and an arc that run into each other meet without a corner: the foot of the centre on the line; else half way. */
const tangentPlace = (one: Piece, other: Piece): Point => {
  const half = midpoint(one.b, other.b);
  const [line, arc] = one.bulge === 0 ? [one, other] : [other, one];
  if (line.bulge !== 0 || arc.bulge === 0) return half;
  const carrier = carrierOf({ kind: "piece", ...arc });
  if (carrier.kind !== "circle") return half;
  const d = pieceDirection(line, 1);
  const along = (carrier.centre.x - line.b.x) * d.x + (carrier.centre.y - line.b.y) * d.y;
  return { x: line.b.x + d.x * along, y: line.b.y + d.y * along };
};
