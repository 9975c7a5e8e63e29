import { countEffort } from "../numeric/effort.ts";
import { boxesOf } from "../geometry/boxesOf.ts";
import { runTree } from "../geometry/boxTree.ts";
import type { Piece } from "../geometry/piece.ts";
import type { Point } from "../geometry/point.ts";
import { weldPoints } from "../geometry/weldPoints.ts";
import { meetSpans } from "./meetSpans.ts";
import { positionAlong } from "./span.ts";
import { circlesOf, type SpanList } from "./spanList.ts";

/**
 * What lies between two neighbouring places where something meets the spans, from vertex `start` to vertex `end`: part
 * of one span, or whole ones that go on into each other, `span` to `last`, which nothing comes near. From position
 * `from` on the first to `to` on the last.
 */
export type Fragment = {
  readonly span: number;
  readonly last: number;
  readonly from: number;
  readonly to: number;
  readonly start: number;
  readonly end: number;
};

export type Split = {
  readonly vertices: readonly Point[];
  readonly fragments: readonly Fragment[];
  /** True where welding moved the end of a fragment: what it meets may have changed by as much. */
  readonly moved: boolean;
};

/**
 * Splits spans wherever they meet. Places within `resolution` of each other become one vertex, whose numbers are those
 * of the first end that lies there. Parts without length vanish. Spans over half a turn are not expected. n log n for a
 * bounded number of meetings a span.
 */
export const splitSpans = (list: SpanList, resolution: number): Split => {
  const { pieces, span, next } = list;
  const count = pieces.length;
  // 1 where something comes near a span other than those it goes on into
  const busy = new Uint8Array(count);
  const met: Point[] = [];
  const cuts: number[] = []; // two for each meeting: the spans that it cuts, -1 where it cuts none
  const circles = circlesOf(list);
  runTree(boxesOf(pieces), (i) => next[i] === i + 1, circles).pairs(resolution, (i, j) => {
    // round its contour, or nothing to meet
    if (next[j] === i || linesApart(pieces[i]!, pieces[j]!, resolution)) return;
    if (circlesApart(circles, i, j, resolution)) return;
    const together = meetSpans(span(i), span(j), resolution, (at, cutsI, cutsJ) => {
      countEffort("meetings", at);
      met.push(at);
      cuts.push(cutsI ? i : -1, cutsJ ? j : -1);
    });
    if (together) busy[i] = busy[j] = 1;
  });

  // ends come first among the places: a vertex has the numbers of an end, if one lies there
  const places: Point[] = [];
  const { startOf, endOf } = endPlaces(list, places);
  // for each span that a fragment or its parts begin with, that it ends with
  const lasts = new Int32Array(count).fill(-1);
  for (let i = 0; i < count; i++) {
    let last = i;
    if (!busy[i]) while (next[last] === last + 1 && !busy[last + 1]) last += 1;
    // a contour that nothing comes near is two fragments, each with ends of its own
    if (next[last] === i) last = (i + last) >> 1;
    lasts[i] = last;
    startOf(i);
    endOf(last);
    i = last;
  }
  const ends = places.length;
  for (const at of met) places.push(at);
  const vertexOf = weldPoints(coordinatesOf(places), resolution);

  // stops of each span as a list through `after`: numbers of places
  const heads = new Int32Array(count).fill(-1);
  const after = new Int32Array(cuts.length).fill(-1);
  cuts.forEach((one, k) => {
    if (one < 0) return;
    after[k] = heads[one]!;
    heads[one] = k;
  });
  const fragments: Fragment[] = [];
  let moved = false;
  const vertices: Point[] = [];
  const numbers = new Int32Array(places.length).fill(-1);
  const vertex = (place: number): number => {
    const root = vertexOf[place]!;
    if (places[root]!.x !== places[place]!.x || places[root]!.y !== places[place]!.y) moved = true;
    if (numbers[root]! < 0) numbers[root] = vertices.push(places[root]!) - 1;
    return numbers[root]!;
  };
  for (let i = 0; i < count; i++) {
    const last = lasts[i]!;
    if (last < 0) continue;
    const stops: { position: number; vertex: number }[] = [];
    for (let k = heads[i]!; k >= 0; k = after[k]!) {
      const place = ends + (k >> 1);
      const position = Math.min(span(i).length, Math.max(0, positionAlong(span(i), places[place]!)));
      stops.push({ position, vertex: vertex(place) });
    }
    stops.sort((p, q) => p.position - q.position);
    stops.push({ position: span(last).length, vertex: vertex(endOf(last)) });
    let at = { position: 0, vertex: vertex(startOf(i)) };
    for (const to of stops) {
      // within a vertex there is nothing; a part that leaves and comes back within the resolution is none either
      if (to.vertex !== at.vertex) {
        fragments.push({ span: i, last, from: at.position, to: to.position, start: at.vertex, end: to.vertex });
        at = to;
      }
    }
  }
  return { vertices, fragments, moved };
};

/**
 * True for two straight pieces of which one lies farther than the resolution to one side of the other's line: all that
 * most pairs need.
 */
const linesApart = (p: Piece, q: Piece, resolution: number): boolean => {
  if (p.bulge !== 0 || q.bulge !== 0) return false;
  return besides(p, q, resolution) || besides(q, p, resolution);
};

/** True for two arcs whose circles lie farther than the resolution outside of each other, or one in the other. */
const circlesApart = (circles: Float64Array, i: number, j: number, resolution: number): boolean => {
  const x = circles[3 * j]! - circles[3 * i]!;
  const y = circles[3 * j + 1]! - circles[3 * i + 1]!;
  const [p, q] = [circles[3 * i + 2]!, circles[3 * j + 2]!];
  const square = x * x + y * y;
  const outside = p + q + 2 * resolution;
  const within = Math.abs(p - q) - 2 * resolution;
  return square > outside * outside || (within > 0 && square < within * within);
};

const besides = ({ a, b }: Piece, other: Piece, resolution: number): boolean => {
  const x = b.x - a.x;
  const y = b.y - a.y;
  const one = x * (other.a.y - a.y) - y * (other.a.x - a.x);
  const two = x * (other.b.y - a.y) - y * (other.b.x - a.x);
  return one * two > 0 && Math.min(Math.abs(one), Math.abs(two)) > 2 * resolution * Math.sqrt(x * x + y * y);
};

/**
 * Numbers of the places where spans start and end, put among the places when first asked for; an end that two share is
 * one place.
 */
const endPlaces = (
  { pieces, next }: SpanList,
  places: Point[],
): { startOf: (i: number) => number; endOf: (i: number) => number } => {
  const starts = new Int32Array(pieces.length).fill(-1);
  const ends = new Int32Array(pieces.length).fill(-1);
  const before = new Int32Array(pieces.length).fill(-1);
  for (let i = 0; i < next.length; i++) if (next[i]! >= 0) before[next[i]!] = i;
  for (let i = 1; i < pieces.length; i++) if (pieces[i - 1]!.b === pieces[i]!.a) before[i] = i - 1;
  const endOf = (i: number): number => (ends[i]! < 0 ? (ends[i] = places.push(pieces[i]!.b) - 1) : ends[i]!);
  const startOf = (i: number): number => {
    if (before[i]! >= 0) return endOf(before[i]!);
    return starts[i]! < 0 ? (starts[i] = places.push(pieces[i]!.a) - 1) : starts[i]!;
  };
  return { startOf, endOf };
};

const coordinatesOf = (places: readonly Point[]): Float64Array => {
  const coordinates = new Float64Array(2 * places.length);
  places.forEach(({ x, y }, i) => {
    coordinates[2 * i] = x;
    coordinates[2 * i + 1] = y;
  });
  return coordinates;
};
