import { reversePiece, type Piece } from "../geometry/piece.ts";
import { distance, type Point } from "../geometry/point.ts";
import { pointGrid } from "../geometry/pointGrid.ts";

/** A run of pieces end to end, each from the part it came from, in running order. */
export type Run = {
  readonly closed: boolean;
  readonly links: readonly { readonly part: number; readonly reversed: boolean }[];
};

/** The ends of something that can be joined. */
export type Ends = { readonly start: Point; readonly end: Point };

/** Which of the ends at a node (2 · part, +1 for its end) go on into each other, where more than two meet. */
export type Pairing = (here: readonly number[]) => readonly (readonly [number, number])[];

/**
 * Which parts meet end to end. Ends within `tolerance` of each other make a node; where exactly two ends make one, the run goes
 * on through it, elsewhere it stops (a free end, or a branch), unless `pairing` says otherwise. Every part comes back in exactly one run, runs in the order of
 * their first part, each in the direction of that part. n log n.
 */
export const joinRuns = (parts: readonly Ends[], tolerance: number, pairing?: Pairing): readonly Run[] => {
  const nodeOf = weldEnds(parts, tolerance);
  const at = new Map<number, number[]>(); // node -> ends (2 · part, +1 for its end)
  nodeOf.forEach((node, end) => void (at.get(node)?.push(end) ?? at.set(node, [end])));
  /** The end met on the other side of the node at `end`, when exactly two meet there. */
  const paired = new Map<number, number>();
  if (pairing)
    for (const here of at.values())
      if (here.length > 2)
        for (const [p, q] of pairing(here)) {
          paired.set(p, q);
          paired.set(q, p);
        }
  const across = (end: number): number | undefined => {
    const here = at.get(nodeOf[end]!)!;
    return here.length === 2 ? here[here[0] === end ? 1 : 0] : paired.get(end);
  };
  const used = new Set<number>();
  const runs: Run[] = [];
  for (let first = 0; first < parts.length; first++) {
    if (used.has(first)) continue;
    const links = [{ part: first, reversed: false }];
    used.add(first);
    let closed = false;
    for (const forwards of [true, false]) {
      if (closed) break;
      let out = forwards ? 2 * first + 1 : 2 * first;
      for (;;) {
        const entered = across(out);
        if (entered === undefined) break;
        const part = entered >> 1;
        if (part === first && forwards && entered === 2 * first) closed = true;
        if (used.has(part)) break;
        used.add(part);
        const entersAtEnd = (entered & 1) === 1;
        const link = { part, reversed: forwards ? entersAtEnd : !entersAtEnd };
        if (forwards) links.push(link);
        else links.unshift(link);
        out = entered ^ 1;
      }
    }
    runs.push({ closed, links });
  }
  return runs;
};

/** The node number of every end; ends within `tolerance` share one. */
const weldEnds = (parts: readonly Ends[], tolerance: number): readonly number[] => {
  const points: Point[] = [];
  for (const { start, end } of parts) points.push(start, end);
  const nodeOf = points.map((_, i) => i);
  const root = (i: number): number => {
    let node = i;
    while (nodeOf[node] !== node) {
      nodeOf[node] = nodeOf[nodeOf[node]!]!;
      node = nodeOf[node]!;
    }
    return node;
  };
  const grid = pointGrid(points, tolerance, tolerance < 1e-4 ? 64 : 4); // few ends share a place
  points.forEach((p, i) =>
    grid.near(p, (j) => {
      if (j > i && distance(p, points[j]!) <= tolerance) nodeOf[root(j)] = root(i);
    }),
  );
  return points.map((_, i) => root(i));
};

/** Pieces in running order with ends made the same numbers: the earlier piece's end rules. */
export const weldPieces = (pieces: readonly Piece[], closed: boolean): readonly Piece[] => {
  const welded: Piece[] = [];
  for (const piece of pieces) welded.push({ ...piece, a: welded.at(-1)?.b ?? piece.a });
  if (closed && welded.length > 0) welded[welded.length - 1] = { ...welded.at(-1)!, b: welded[0]!.a };
  return welded;
};

export const runPieces = (run: Run, pieces: readonly (readonly Piece[])[]): readonly Piece[] => {
  const all: Piece[] = [];
  for (const { part, reversed } of run.links) {
    const own = pieces[part]!;
    if (!reversed) for (const piece of own) all.push(piece);
    else for (let i = own.length - 1; i >= 0; i--) all.push(reversePiece(own[i]!));
  }
  return weldPieces(all, run.closed);
};
