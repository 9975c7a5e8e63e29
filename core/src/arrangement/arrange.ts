import Flatbush from "flatbush";
import { enclosedArea } from "../contour/chainMeasure.ts";
import { windingNumber } from "../contour/winding.ts";
import { boundsExtent } from "../geometry/bounds.ts";
import { piecePoint, reversePiece, piecesBounds, type Piece } from "../geometry/piece.ts";
import { distance, type Point } from "../geometry/point.ts";
import { resolutionFor } from "../numeric/tolerance.ts";
import { aroundVertex, type Leaving } from "./aroundVertex.ts";
import { pieceOnSpan, spanOf } from "./span.ts";
import { spanList } from "./spanList.ts";
import { splitSpans } from "./splitSpans.ts";

/** A piece that belongs to something: to which operand. */
export type Owned = Piece & { readonly owner: number };

/**
 * A piece between two vertices that nothing crosses; `net` says for each operand how often it runs that way more than
 * back.
 */
export type Edge = {
  readonly piece: Piece;
  readonly start: number;
  readonly end: number;
  readonly net: ReadonlyMap<number, number>;
};

/**
 * The plane cut up by edges. Half-edge 2 e runs along edge e, 2 e + 1 back; each has one face on its left. Face 0 is
 * all round.
 */
export type Arrangement = {
  readonly vertices: readonly Point[];
  readonly edges: readonly Edge[];
  readonly faceOf: Int32Array;
  /**
   * For each face the half-edges of what bounds it, cycle by cycle: first round it (none for face 0), then round what
   * lies in it.
   */
  readonly faces: readonly (readonly (readonly number[])[])[];
  /** How often each operand winds round a face; those that don't are not in it. */
  readonly windings: readonly ReadonlyMap<number, number>[];
  /** What a face encloses, less what lies in it; of face 0 the other way round. */
  readonly areaOf: (face: number) => number;
  /** The face that a place lies in. */
  readonly faceAt: (p: Point) => number;
  readonly resolution: number;
};

/** Welding moves ends a little; what was moved is met again, but not for ever. */
const ROUNDS = 4;

/**
 * Cuts the plane by pieces: split at every meeting, vertices within the resolution welded (and what that moved met
 * again), doubles made one, the edges put in order round each vertex, faces traced, and what lies in another put into
 * its face. Euler's formula holds. n log n for a bounded number of meetings a piece. With `coarser` what is told apart
 * lies so many times as far apart.
 */
export const arrange = (pieces: readonly Owned[], coarser = 1): Arrangement => {
  const extent = pieces.length > 0 ? boundsExtent(piecesBounds(pieces)!) : 0;
  const resolution = coarser * resolutionFor(extent);
  const { vertices, edges } = edgesOf(pieces, resolution);
  const next = nextHalfEdges(vertices, edges, resolution);
  const cycles = cyclesOf(next);
  const pieceOf = (half: number): Piece => {
    const { piece } = edges[half >> 1]!;
    return half & 1 ? reversePiece(piece) : piece;
  };
  const areas = cycles.map((cycle) => enclosedArea(cycle.map(pieceOf)));
  const outlines = cycles.map((_, i) => i).filter((i) => areas[i]! > 0);
  const faces: number[][][] = [[], ...outlines.map((i) => [cycles[i]!])];
  const holder = holderOf(
    outlines.map((i) => cycles[i]!.map(pieceOf)),
    outlines.map((i) => areas[i]!),
  );
  const componentOf = componentsOf(vertices.length, edges);
  const outlineComponents = outlines.map((i) => componentOf(edges[cycles[i]![0]! >> 1]!.start));
  cycles.forEach((cycle, i) => {
    if (areas[i]! > 0) return;
    const { start } = edges[cycle[0]! >> 1]!;
    const component = componentOf(start);
    faces[holder(vertices[start]!, (k) => outlineComponents[k] !== component) + 1]!.push(cycle);
  });
  const faceOf = new Int32Array(edges.length * 2);
  faces.forEach((bounds, face) => {
    for (const cycle of bounds) for (const half of cycle) faceOf[half] = face;
  });
  return {
    vertices,
    edges,
    faceOf,
    faces,
    windings: windingsOf(edges, faces, faceOf),
    areaOf: (face) => faces[face]!.reduce((sum, cycle) => sum + enclosedArea(cycle.map(pieceOf)), 0),
    faceAt: (p) => holder(p, () => true) + 1,
    resolution,
  };
};

const edgesOf = (
  pieces: readonly Owned[],
  resolution: number,
): { readonly vertices: readonly Point[]; readonly edges: readonly Edge[] } => {
  let current: readonly Owned[] = pieces.flatMap(halved);
  for (let round = 1; ; round++) {
    const list = spanList(current);
    const split = splitSpans(list, resolution);
    const parts = split.fragments.map(({ span, from, to, start, end }) => {
      const { radius, length } = list.span(span);
      const [a, b] = [split.vertices[start]!, split.vertices[end]!];
      const whole = from === 0 && to === length && a === current[span]!.a && b === current[span]!.b;
      const piece = whole
        ? current[span]!
        : pieceOnSpan(list.span(span), a, b, radius === 0 ? 0 : (to - from) / radius);
      return { piece, start, end, owner: current[span]!.owner };
    });
    if (!split.moved || round === ROUNDS) return { vertices: split.vertices, edges: withoutDoubles(parts, resolution) };
    current = parts.map(({ piece, owner }) => ({ a: piece.a, b: piece.b, bulge: piece.bulge, owner }));
  }
};

/** Arcs of half a turn and more in two, so that their ends tell them well. */
const halved = (piece: Owned): readonly Owned[] => {
  if (Math.abs(piece.bulge) < 0.99) return [piece];
  const middle = piecePoint(piece, 0.5);
  const bulge = Math.tan(Math.atan(piece.bulge) / 2);
  return [
    { a: piece.a, b: middle, bulge, owner: piece.owner },
    { a: middle, b: piece.b, bulge, owner: piece.owner },
  ];
};

type Stretch = { readonly piece: Piece; readonly start: number; readonly end: number; readonly owner: number };

/** Parts that lie on one another as one edge, with how often each operand runs along it. */
const withoutDoubles = (parts: readonly Stretch[], resolution: number): readonly Edge[] => {
  const byEnds = new Map<string, { edge: Edge; net: Map<number, number>; middle: Point }[]>();
  const edges: Edge[] = [];
  for (const { piece, start, end, owner } of parts) {
    const key = start < end ? `${start} ${end}` : `${end} ${start}`;
    const middle = piecePoint(piece, 0.5);
    const known = byEnds.get(key) ?? byEnds.set(key, []).get(key)!;
    const same = known.find((one) => distance(one.middle, middle) <= 2 * resolution);
    if (same) {
      same.net.set(owner, (same.net.get(owner) ?? 0) + (same.edge.start === start ? 1 : -1));
      continue;
    }
    const net = new Map([[owner, 1]]);
    const edge = { piece, start, end, net };
    edges.push(edge);
    known.push({ edge, net, middle });
  }
  return edges;
};

/**
 * For each half-edge the one that goes on round the face on its left: at its end the first to the right of where it
 * came from.
 */
const nextHalfEdges = (vertices: readonly Point[], edges: readonly Edge[], resolution: number): Int32Array => {
  const leaving: number[][] = vertices.map(() => []);
  edges.forEach(({ start, end }, e) => {
    leaving[start]!.push(2 * e);
    leaving[end]!.push(2 * e + 1);
  });
  const next = new Int32Array(edges.length * 2);
  const spans = edges.map(({ piece }) => spanOf(piece));
  leaving.forEach((halves, vertex) => {
    const seen = halves.map((half): Leaving => {
      const span = spans[half >> 1]!;
      return { span, at: half & 1 ? span.length : 0, forwards: !(half & 1), length: span.length };
    });
    const round = aroundVertex(vertices[vertex]!, seen, resolution);
    round.forEach((k, i) => {
      // what comes in along a half-edge goes out by the one before it, going counter-clockwise
      next[halves[k]! ^ 1] = halves[round.at(i - 1)!]!;
    });
  });
  return next;
};

const cyclesOf = (next: Int32Array): number[][] => {
  const seen = new Uint8Array(next.length);
  const cycles: number[][] = [];
  for (let first = 0; first < next.length; first++) {
    if (seen[first]) continue;
    const cycle: number[] = [];
    for (let half = first; !seen[half]; half = next[half]!) {
      seen[half] = 1;
      cycle.push(half);
    }
    cycles.push(cycle);
  }
  return cycles;
};

const componentsOf = (count: number, edges: readonly Edge[]): ((vertex: number) => number) => {
  const root = new Int32Array(count).map((_, i) => i);
  const find = (i: number): number => {
    let at = i;
    while (root[at] !== at) at = root[at] = root[root[at]!]!;
    return at;
  };
  for (const { start, end } of edges) root[find(start)] = find(end);
  return find;
};

/** The smallest of some outlines round a place, as its number; -1 where there is none. */
const holderOf = (
  outlines: readonly (readonly Piece[])[],
  areas: readonly number[],
): ((p: Point, counts: (outline: number) => boolean) => number) => {
  if (outlines.length === 0) return () => -1;
  const index = new Flatbush(outlines.length);
  for (const outline of outlines) {
    const { minX, minY, maxX, maxY } = piecesBounds(outline)!;
    index.add(minX, minY, maxX, maxY);
  }
  index.finish();
  return (p, counts) => {
    let best = -1;
    for (const i of index.search(p.x, p.y, p.x, p.y))
      if (counts(i) && (best < 0 || areas[i]! < areas[best]!) && windingNumber(outlines[i]!, p) !== 0) best = i;
    return best;
  };
};

/**
 * From face 0, round which nothing winds, across the edges: the left of an edge is wound round once more for each that
 * runs along it.
 */
const windingsOf = (
  edges: readonly Edge[],
  faces: readonly (readonly (readonly number[])[])[],
  faceOf: Int32Array,
): readonly ReadonlyMap<number, number>[] => {
  const windings: (Map<number, number> | undefined)[] = faces.map(() => undefined);
  windings[0] = new Map();
  const waiting = [0];
  while (waiting.length > 0) {
    const face = waiting.pop()!;
    for (const cycle of faces[face]!)
      for (const half of cycle) {
        const other = faceOf[half ^ 1]!;
        if (windings[other]) continue;
        const own = new Map(windings[face]);
        for (const [owner, times] of edges[half >> 1]!.net) {
          const wound = (own.get(owner) ?? 0) - (half & 1 ? -times : times);
          if (wound === 0) own.delete(owner);
          else own.set(owner, wound);
        }
        windings[other] = own;
        waiting.push(other);
      }
  }
  return windings.map((winding) => winding ?? new Map<number, number>());
};
