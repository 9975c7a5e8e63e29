import type { Circle } from "../geometry/circle.ts";
import { pieceCentre, pieceRadius, reversePiece, splitPiece, sweepOf, type Piece } from "../geometry/piece.ts";
import { distance, equalPoint, type Point } from "../geometry/point.ts";
import { TURN } from "../numeric/angle.ts";
import { JOINED } from "../numeric/tolerance.ts";
import { weldPoints } from "../geometry/weldPoints.ts";
import { blocksOf } from "./blocks.ts";

/** A run of pieces end to end, each from the part it came from, in running order. */
export type Run = {
  readonly closed: boolean;
  readonly links: readonly { readonly part: number; readonly reversed: boolean }[];
};

/** The two ends of something that can be joined; a piece has them. */
export type Ends = { readonly a: Point; readonly b: Point };

/** What is known of ends (2 · part, +1 for its end) where more than two meet at a node. */
export type Pairing = {
  /** Which of more than two ends of one block go on into each other. */
  readonly pairs: (here: readonly number[]) => readonly (readonly [number, number])[];
  /** True of two ends that never do. */
  readonly apart: (p: number, q: number) => boolean;
};

/**
 * Which parts meet end to end. Ends within `tolerance` of each other make a node; where two ends make one, the run goes
 * on through it, and so does a loop past what else ends at its corners. Elsewhere it stops (a free end, or a branch),
 * unless `pairing` says otherwise. Every part comes back in exactly one run, runs in the order of their first part,
 * each in the direction of that part. n log n.
 */
export const joinRuns = (parts: readonly Ends[], tolerance: number, pairing?: Pairing): readonly Run[] => {
  const across = acrossNodes(weldEnds(parts, tolerance), pairing);
  const used = new Uint8Array(parts.length);
  const runs: Run[] = [];
  type Link = Run["links"][number];
  /** Goes on from an end of the first part until nothing follows; true where it comes round to it. */
  const follow = (first: number, forwards: boolean, links: Link[]): boolean => {
    let closed = false;
    let out = forwards ? 2 * first + 1 : 2 * first;
    for (;;) {
      const entered = across[out]!;
      if (entered < 0) return closed;
      const part = entered >> 1;
      if (part === first && forwards && entered === 2 * first) closed = true;
      if (used[part]) return closed;
      used[part] = 1;
      links.push({ part, reversed: ((entered & 1) === 1) === forwards });
      out = entered ^ 1;
    }
  };
  for (let first = 0; first < parts.length; first++) {
    if (used[first]) continue;
    used[first] = 1;
    const links: Link[] = [{ part: first, reversed: false }];
    const closed = follow(first, true, links);
    const before: Link[] = [];
    if (!closed) follow(first, false, before);
    runs.push({ closed, links: before.length === 0 ? links : [...before.reverse(), ...links] });
  }
  return runs;
};

/**
 * For every end the one met across its node, -1 where it goes on into nothing. Two ends at a node go on into each
 * other. Where more meet, those of one block do if they are two: an outline is closed whatever else ends or begins at
 * its corners; of more, `pairing` may tell. What is left goes on as if what has gone on were not there: to join again
 * what was joined changes nothing.
 */
const acrossNodes = (weldedAt: Int32Array, pairing?: Pairing): Int32Array => {
  const across = new Int32Array(weldedAt.length).fill(-1);
  const nodeOf = weldedAt.slice();
  const pair = (p: number, q: number): void => {
    across[p] = q;
    across[q] = p;
    nodeOf[p] = nodeOf[q] = Math.max(p, q); // a node is numbered by the first of its ends: this one is new
  };
  const counts = new Int32Array(nodeOf.length);
  for (const node of nodeOf) counts[node]! += 1;
  const branching = new Map<number, number[]>();
  weldedAt.forEach((node, end) => {
    const here = branching.get(node);
    if (here) here.push(end);
    else if (counts[node] === 2) {
      if (node !== end && !pairing?.apart(node, end)) pair(node, end);
    } else if (counts[node]! > 2) branching.set(node, [end]);
  });
  let asks = pairing;
  for (let changed = branching.size > 0; changed;) {
    changed = false;
    const blockOf = blocksOf(nodeOf);
    for (const [node, here] of branching) {
      const groups = here.length === 2 ? [here] : byBlock(here, blockOf);
      for (const own of groups)
        if (own.length === 2) {
          if (!pairing?.apart(own[0]!, own[1]!)) pair(own[0]!, own[1]!);
        } else if (own.length > 2) for (const [p, q] of asks?.pairs(own) ?? []) pair(p, q);
      const left = here.filter((end) => across[end] === -1);
      changed ||= left.length < here.length;
      if (left.length < 2) branching.delete(node);
      else branching.set(node, left);
    }
    asks = undefined;
  }
  return across;
};

const byBlock = (ends: readonly number[], blockOf: Int32Array): Iterable<readonly number[]> => {
  const groups = new Map<number, number[]>();
  for (const end of ends) {
    const block = blockOf[end >> 1]!;
    void (groups.get(block)?.push(end) ?? groups.set(block, [end]));
  }
  return groups.values();
};

/** The node number of every end (2 · part, +1 for its end); ends within `tolerance` share one. */
export const weldEnds = (parts: readonly Ends[], tolerance: number): Int32Array => {
  const places = new Float64Array(4 * parts.length);
  parts.forEach(({ a, b }, i) => {
    places[4 * i] = a.x;
    places[4 * i + 1] = a.y;
    places[4 * i + 2] = b.x;
    places[4 * i + 3] = b.y;
  });
  return weldPoints(places, tolerance);
};

/** Pieces in running order with ends made the same numbers: the earlier piece's end rules. */
export const weldPieces = (pieces: readonly Piece[], closed: boolean): readonly Piece[] => {
  const welded = [...pieces];
  weldInPlace(welded, closed);
  return welded;
};

const weldInPlace = (pieces: Piece[], closed: boolean): void => {
  for (let i = 1; i < pieces.length; i++) {
    const { b } = pieces[i - 1]!;
    if (!equalPoint(b, pieces[i]!.a)) pieces[i] = { ...pieces[i]!, a: b };
  }
  const last = pieces.at(-1);
  if (closed && last && !equalPoint(last.b, pieces[0]!.a)) pieces[pieces.length - 1] = { ...last, b: pieces[0]!.a };
};

/**
 * The pieces of a run in running order, their ends made the same numbers; `piecesOf` gives those of a part. An arc that
 * closes on itself comes as its halves: one whose ends are the same numbers says nothing of its circle.
 */
export const runPieces = ({ links, closed }: Run, piecesOf: (part: number) => readonly Piece[]): readonly Piece[] => {
  const all: Piece[] = [];
  for (let k = 0; k < links.length; k++) {
    const { part, reversed } = links[k]!;
    const own = piecesOf(part);
    for (let i = 0; i < own.length; i++) all.push(reversed ? reversePiece(own[own.length - 1 - i]!) : own[i]!);
  }
  if (closed && all.length === 1 && all[0]!.bulge !== 0) all.splice(0, 1, ...splitPiece(all[0]!, 0.5));
  weldInPlace(all, closed);
  return all;
};

/** One line whose ends come together within a gap is no contour, nor are two lines or arcs there and back. */
export const enclosesNothing = ([first, second, ...more]: readonly Piece[]): boolean =>
  more.length === 0 && (second ? heightBetween(first!, second) <= JOINED : first?.bulge === 0);

/** How far two pieces between the same ends lie apart in their midst: an arc is half its bulge by chord high. */
const heightBetween = (p: Piece, back: Piece): number => (Math.abs(p.bulge + back.bulge) * distance(p.a, p.b)) / 2;

/** The circle that closed pieces go round once, all of them on it to what is joined; undefined for others. */
export const circleRound = (pieces: readonly Piece[]): Circle | undefined => {
  const first = pieces[0];
  const centre = first && pieceCentre(first);
  if (!centre) return undefined;
  const radius = pieceRadius(first);
  let turned = 0;
  for (const piece of pieces) {
    const own = piece.bulge * first.bulge > 0 ? pieceCentre(piece) : undefined;
    if (!own || distance(own, centre) > JOINED || Math.abs(pieceRadius(piece) - radius) > JOINED) return undefined;
    turned += Math.abs(sweepOf(piece.bulge));
  }
  return Math.abs(turned - TURN) * radius <= JOINED * pieces.length ? { centre, radius } : undefined;
};
