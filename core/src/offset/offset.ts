import { spanOf, type Span } from "../arrangement/span.ts";
import { pointAlong } from "../arrangement/span.ts";
import { splitSpans, type Fragment, type Split } from "../arrangement/splitSpans.ts";
import { stitch, type Run } from "../arrangement/stitch.ts";
import { enclosedArea } from "../contour/chainMeasure.ts";
import { circleHalves, type Circle } from "../geometry/circle.ts";
import { boundsExtent } from "../geometry/bounds.ts";
import { pieceLength, reversePiece, type Piece, piecesBounds } from "../geometry/piece.ts";
import { distance, type Point } from "../geometry/point.ts";
import { resolutionFor } from "../numeric/tolerance.ts";
import { rawPieces, SHARP_LIMIT } from "./rawPieces.ts";
import { cornersOf, thereAndBack, type Corner, type Corners, type Ends, type OffsetSource } from "./sources.ts";
import { onOneCircle, runPieces } from "./runPieces.ts";
import { zoneOf } from "./zone.ts";

/** What an offset gives: contours and open chains of lines and arcs, or whole circles, each with the sources it comes from. */
export type OffsetRun = {
  readonly closed: boolean;
  readonly pieces: readonly Piece[];
  readonly circle?: Circle;
  readonly sources: readonly number[];
};

export type OffsetOptions = {
  readonly corners: Corners;
  /** A sharp corner farther from its source than so many distances is cut flat. */
  readonly limit?: number;
};

/** Distances are told apart to this part of the resolution: they come from the carriers, before anything is welded. */
const SLACK = 0.02;

/**
 * What lies at `by` to the left of the sources (to the right where it is below 0), and nowhere closer to any of them: the raw pieces split
 * where they meet, what is too close left away, the rest put together. Arcs have their radius exactly less or more `by`. The direction is
 * that of the sources. Nothing left: an empty list; an open run where the sources are closed: the offset could not be told. Derived here; n log n for a bounded number of meetings a piece.
 */
export const offset = (sources: readonly OffsetSource[], by: number, options: OffsetOptions): readonly OffsetRun[] =>
  by < 0 ? offsetLeft(sources.map(reversed), -by, options).map(turnedBack) : offsetLeft(sources, by, options);

const reversed = ({ pieces, closed }: OffsetSource): OffsetSource => ({
  pieces: pieces.map(reversePiece).reverse(),
  closed,
});
const turnedBack = ({ pieces, ...rest }: OffsetRun): OffsetRun => ({
  ...rest,
  pieces: pieces.map(reversePiece).reverse(),
});

const offsetLeft = (sources: readonly OffsetSource[], by: number, options: OffsetOptions): readonly OffsetRun[] => {
  const { pieces, owners, corners } = cornersOf(sources);
  const open = sources.filter(({ closed }) => !closed).map(reversed);
  return resolved(pieces, owners, corners, by, options, open);
};

/**
 * The band of half width `by` round an open chain, as the contours round it, counter-clockwise outside: what offsets on both sides and the
 * ends of the chain bound together.
 */
export const offsetBand = (
  chain: readonly Piece[],
  by: number,
  ends: Ends,
  options: OffsetOptions,
): readonly OffsetRun[] => {
  const { pieces, corners } = thereAndBack(chain, ends);
  return resolved(pieces, pieces.map(() => 0), corners, by, options, []).map(turnedBack); // prettier-ignore
};

/** Where something is just as thin as the resolution, another one tells what belongs together. */
const OTHER_RESOLUTIONS = [8, 1 / 8];

const resolved = (
  pieces: readonly Piece[],
  owners: readonly number[],
  corners: readonly Corner[],
  by: number,
  { corners: kind, limit = SHARP_LIMIT }: OffsetOptions,
  open: readonly OffsetSource[],
): readonly OffsetRun[] => {
  if (pieces.length === 0 || by === 0) return [];
  const extent = boundsExtent(piecesBounds(pieces)!) + by;
  const raw = rawPieces(pieces, corners, by, kind, limit);
  const spans = [...raw.spans, ...cuttersOf(open, by, kind, limit)];
  const zone = zoneOf(pieces, corners, raw.spreads, by);
  const slack = SLACK * resolutionFor(extent);
  const tried = (resolution: number): readonly OffsetRun[] => {
    const split = splitSpans(spans, resolution);
    const kept = split.fragments.filter(
      ({ span, from, to }) =>
        span < raw.spans.length && !zone(pointAlong(spans[span]!, (from + to) / 2), slack, raw.ends.get(span)),
    );
    const single = withoutDoubles(spans, split, kept, resolution);
    return stitch(spans, split, single, resolution)
      .map((run) => runOf(spans, split, run, resolution, (span) => owners[raw.from[span]!]!))
      .filter((run) => run !== undefined);
  };
  const holds = (runs: readonly OffsetRun[]): boolean => open.length > 0 || runs.every(({ closed }) => closed);
  const first = tried(resolutionFor(extent));
  if (holds(first)) return first;
  return firstThat(OTHER_RESOLUTIONS, (part) => tried(part * resolutionFor(extent)), holds) ?? first;
};

const firstThat = <S, T>(all: readonly S[], make: (one: S) => T, holds: (made: T) => boolean): T | undefined => {
  for (const one of all) {
    const made = make(one);
    if (holds(made)) return made;
  }
  return undefined;
};

/** Where an open chain ends, what passes on its other side or round its end is cut off too, though nothing is made there. */
const cuttersOf = (back: readonly OffsetSource[], by: number, kind: Corners, limit: number): readonly Span[] =>
  back.flatMap((source) => cuttersOfOne(source, by, kind, limit));

const cuttersOfOne = (source: OffsetSource, by: number, kind: Corners, limit: number): readonly Span[] => {
  const back = cornersOf([source]);
  const discs = back.corners.filter(({ before, after }) => before === undefined || after === undefined);
  return [
    ...rawPieces(back.pieces, back.corners, by, kind, limit).spans,
    ...discs.flatMap(({ at }) =>
      circleHalves({ centre: at, radius: by }).map((half) => spanOf(half, { centre: at, radius: by })),
    ),
  ];
};

/** Of what lies on one another the same way one stays; where something runs there and back nothing does: the width is just twice the distance. */
const withoutDoubles = (
  spans: readonly Span[],
  split: Split,
  kept: readonly Fragment[],
  resolution: number,
): readonly Fragment[] => {
  const byEnds = new Map<string, number[]>();
  kept.forEach(({ start, end }, i) => {
    const key = start < end ? `${start} ${end}` : `${end} ${start}`;
    const list = byEnds.get(key);
    if (list) list.push(i);
    else byEnds.set(key, [i]);
  });
  const gone = new Set<number>();
  const middle = ({ span, from, to }: Fragment): Point => pointAlong(spans[span]!, (from + to) / 2);
  for (const list of byEnds.values()) {
    if (list.length < 2) continue;
    const middles = list.map((i) => middle(kept[i]!));
    list.forEach((i, k) => {
      const lying = list.filter((_, m) => distance(middles[k]!, middles[m]!) <= 2 * resolution);
      const back = lying.some((j) => kept[j]!.start !== kept[i]!.start);
      if (back || lying[0] !== i) gone.add(i);
    });
  }
  return gone.size === 0 ? kept : kept.filter((_, i) => !gone.has(i));
};

/** A run as its pieces, or as the circle that it is; undefined where it is only a sliver. */
const runOf = (
  spans: readonly Span[],
  split: Split,
  { closed, fragments }: Run,
  resolution: number,
  ownerOf: (span: number) => number,
): OffsetRun | undefined => {
  const sources = [...new Set(fragments.map(({ span }) => ownerOf(span)))].sort((p, q) => p - q);
  const circle = closed ? wholeCircle(spans, fragments) : undefined;
  if (circle) {
    const halves = circleHalves(circle);
    const left = spans[fragments[0]!.span]!.sweep > 0;
    return { closed: true, circle, pieces: left ? halves : halves.map(reversePiece).reverse(), sources };
  }
  const pieces = runPieces(spans, split, fragments, closed);
  const length = pieces.reduce((sum, piece) => sum + pieceLength(piece), 0);
  if (closed && Math.abs(enclosedArea(pieces)) <= 2 * resolution * length) return undefined;
  if (!closed && length <= 4 * resolution) return undefined;
  return { closed, pieces, sources };
};

const wholeCircle = (spans: readonly Span[], fragments: readonly Fragment[]): Circle | undefined => {
  const { centre, radius } = spans[fragments[0]!.span]!;
  return fragments.every(({ span }) => onOneCircle(spans[span]!, spans[fragments[0]!.span]!))
    ? { centre, radius }
    : undefined;
};
