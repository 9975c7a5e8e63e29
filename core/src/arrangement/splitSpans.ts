import Flatbush from "flatbush";
import { distance, type Point } from "../geometry/point.ts";
import { pointGrid } from "../geometry/pointGrid.ts";
import { meetSpans } from "./meetSpans.ts";
import { positionAlong, type Span } from "./span.ts";

/** The part of a span between two neighbouring places where something meets it, from vertex `start` to vertex `end`. */
export type Fragment = {
  readonly span: number;
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

/** The spatial index of some spans, or none where there are none. */
export const indexSpans = (spans: readonly Span[]): Flatbush | undefined => {
  if (spans.length === 0) return undefined;
  const index = new Flatbush(spans.length);
  for (const { box } of spans) index.add(box.minX, box.minY, box.maxX, box.maxY);
  index.finish();
  return index;
};

/**
 * Splits spans wherever they meet. Places within `resolution` of each other become one vertex, whose numbers are those of an end that lies
 * there, if one does. Parts without length vanish. Spans over half a turn are not expected. n log n for a bounded number of meetings a span.
 */
export const splitSpans = (spans: readonly Span[], resolution: number): Split => {
  const index = indexSpans(spans);
  if (!index) return { vertices: [], fragments: [], moved: false };
  const places: Point[] = [];
  // ends that are one object are one place
  const [starts, ends] = [new Int32Array(spans.length), new Int32Array(spans.length)];
  for (let i = 0; i < spans.length; i++) {
    const { a, b } = spans[i]!.piece;
    starts[i] = i > 0 && spans[i - 1]!.piece.b === a ? ends[i - 1]! : places.push(a) - 1;
    ends[i] = places.push(b) - 1;
  }
  // stops of each span as a list through `next`: a place and how far along
  const heads = new Int32Array(spans.length).fill(-1);
  const next: number[] = [];
  const placeOf: number[] = [];
  const stop = (span: number, place: number): void => {
    next.push(heads[span]!);
    placeOf.push(place);
    heads[span] = placeOf.length - 1;
  };
  for (let i = 0; i < spans.length; i++) {
    const span = spans[i]!;
    const { minX, minY, maxX, maxY } = span.box;
    index.search(minX - resolution, minY - resolution, maxX + resolution, maxY + resolution, (j) => {
      if (j <= i) return false;
      meetSpans(span, spans[j]!, resolution, (at, cutsI, cutsJ) => {
        places.push(at);
        if (cutsI) stop(i, places.length - 1);
        if (cutsJ) stop(j, places.length - 1);
      });
      return false;
    });
  }
  const vertexOf = weld(places, resolution);
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
  for (let i = 0; i < spans.length; i++) {
    const span = spans[i]!;
    const stops: { position: number; vertex: number }[] = [];
    for (let k = heads[i]!; k >= 0; k = next[k]!) {
      const place = placeOf[k]!;
      const position = Math.min(span.length, Math.max(0, positionAlong(span, places[place]!)));
      stops.push({ position, vertex: vertex(place) });
    }
    stops.sort((p, q) => p.position - q.position);
    stops.push({ position: span.length, vertex: vertex(ends[i]!) });
    let at = { position: 0, vertex: vertex(starts[i]!) };
    for (const to of stops) {
      // within a vertex there is nothing; a part that leaves and comes back within the resolution is none either
      if (to.vertex !== at.vertex) {
        fragments.push({ span: i, from: at.position, to: to.position, start: at.vertex, end: to.vertex });
        at = to;
      }
    }
  }
  return { vertices, fragments, moved };
};

/** For each place the first of those within `resolution` of it, or of one that is. */
const weld = (places: readonly Point[], resolution: number): Int32Array => {
  const root = new Int32Array(places.length).map((_, i) => i);
  const find = (i: number): number => {
    let at = i;
    while (root[at] !== at) at = root[at] = root[root[at]!]!;
    return at;
  };
  const grid = pointGrid(places, resolution, 64);
  places.forEach((p, i) =>
    grid.near(p, (j) => {
      if (j <= i || distance(p, places[j]!) > resolution) return;
      const [one, other] = [find(i), find(j)];
      root[Math.max(one, other)] = Math.min(one, other);
    }),
  );
  return root.map((_, i) => find(i));
};
