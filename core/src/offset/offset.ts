import { pointAlong } from "../arrangement/span.ts";
import { spanList, type SpanList } from "../arrangement/spanList.ts";
import { splitSpans, type Fragment, type Split } from "../arrangement/splitSpans.ts";
import { stitch, type FragmentRun } from "../arrangement/stitch.ts";
import { enclosedArea } from "../contour/chainMeasure.ts";
import { boundsExtent } from "../geometry/bounds.ts";
import { circleHalves, type Circle } from "../geometry/circle.ts";
import { pieceLength, reversePiece, piecesBounds, type Piece } from "../geometry/piece.ts";
import { distance, type Point } from "../geometry/point.ts";
import { resolutionFor } from "../numeric/tolerance.ts";
import { rawPieces, SHARP_LIMIT } from "./rawPieces.ts";
import type { Raw } from "./gathered.ts";
import { withoutNeedles } from "./needles.ts";
import { onOneCircle, runPieces } from "./runPieces.ts";
import {
  cornerPlace,
  cornersOf,
  thereAndBack,
  type Corners,
  type Ends,
  type Joined,
  type OffsetSource,
} from "./sources.ts";
import { zoneOf } from "./zone.ts";

/**
 * What an offset gives: contours and open chains of lines and arcs, or whole circles, each with the sources it comes
 * from.
 */
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
 * What lies at `by` to the left of the sources (to the right where it is below 0), and nowhere closer to any of them:
 * the raw pieces split where they meet, what is too close left away, the rest put together. Arcs have their radius
 * exactly less or more `by`. The direction is that of the sources. Nothing left: an empty list; an open run where the
 * sources are closed: the offset could not be told. Derived here; n log n for a bounded number of meetings a piece.
 */
export const offset = (sources: readonly OffsetSource[], by: number, options: OffsetOptions): readonly OffsetRun[] => {
  const open = sources.filter(({ closed }) => !closed);
  const { owners, ...joined } = cornersOf(sources);
  return resolved(joined, (piece) => owners[piece]!, by, options, open);
};

/**
 * The band of half width `by` round an open chain, as the contours round it, counter-clockwise outside: what offsets on
 * both sides and the ends of the chain bound together.
 */
export const offsetBand = (
  chain: readonly Piece[],
  by: number,
  ends: Ends,
  options: OffsetOptions,
): readonly OffsetRun[] => {
  return resolved(thereAndBack(chain, ends), () => 0, by, options, []).map(({ pieces, ...rest }) => ({
    ...rest,
    pieces: pieces.map(reversePiece).reverse(),
  }));
};

/** Where something is just as thin as the resolution, another one tells what belongs together. */
const OTHER_RESOLUTIONS = [8, 1 / 8];

const resolved = (
  joined: Joined,
  ownerOf: (piece: number) => number,
  by: number,
  { corners: kind, limit = SHARP_LIMIT }: OffsetOptions,
  open: readonly OffsetSource[],
): readonly OffsetRun[] => {
  const { pieces } = joined;
  if (pieces.length === 0 || by === 0) return [];
  const extent = boundsExtent(piecesBounds(pieces)!) + Math.abs(by);
  const raw = rawPieces(joined, by, kind, limit);
  const list = withCutters(raw, cuttersOf(open, -by, kind, limit));
  const zone = zoneOf(joined, raw.spreads, by);
  const slack = SLACK * resolutionFor(extent);
  const tried = (resolution: number): readonly OffsetRun[] => {
    const split = splitSpans(list, resolution);
    const isKept = (fragment: Fragment): boolean => {
      if (fragment.span >= raw.pieces.length) return false;
      const own = raw.ends.get(fragment.span);
      const middle = placeOn(list, fragment, 0.5);
      const from = raw.from[(fragment.span + fragment.last) >> 1]!;
      const found = zone.look(middle, slack, 2 * resolution, from, own);
      // where sources touch, the middle may be the one place that is as far from both, or lie beyond what they bound
      if (found !== "shared") return found === "free";
      return (
        !ASIDE.some((part) => zone.holds(placeOn(list, fragment, part), resolution, own)) && !zone.isBehind(middle)
      );
    };
    const kept = split.fragments.filter(isKept);
    const single = withoutDoubles(list, split, kept, resolution);
    // ends of bands about an arc that has shrunk away lie on one another but for rounding: alone they bound nothing
    const isEnds = ({ fragments }: FragmentRun): boolean => fragments.every((one) => raw.ends.has(one.span));
    // one side of a neck of just twice the distance, whose other side went: what lies on both sides of it is closed
    const isHair = ({ fragments }: FragmentRun): boolean =>
      open.length === 0 &&
      fragments.every((one) => {
        const from = raw.from[(one.span + one.last) >> 1]!;
        const look = zone.look(placeOn(list, one, 0.5), slack, HAIR * resolution, from, raw.ends.get(one.span));
        return look !== "free";
      });
    return stitch(list.span, split, single, resolution, by < 0 ? -1 : 1)
      .filter((run) => run.closed || (!isEnds(run) && !isHair(run)))
      .map((run) => runOf(list, split, run, resolution, (span) => ownerOf(raw.from[span]!)))
      .filter((run) => run !== undefined);
  };
  const holds = (runs: readonly OffsetRun[]): boolean => open.length > 0 || runs.every(({ closed }) => closed);
  const first = tried(resolutionFor(extent));
  if (holds(first)) return first;
  return firstThat(OTHER_RESOLUTIONS, (part) => tried(part * resolutionFor(extent)), holds) ?? first;
};

/** A neck no wider than so many resolutions is one of just twice the distance, and so is a needle. */
const HAIR = 4;

/** Where on a fragment it is looked at besides its middle. */
const ASIDE = [0.25, 0.7] as const;

/** A place on a fragment, or on the span in the midst of several. */
const placeOn = ({ span }: SpanList, { span: first, last, from, to }: Fragment, part: number): Point => {
  if (first === last) return pointAlong(span(first), from + (to - from) * part);
  const one = span((first + last) >> 1);
  return pointAlong(one, one.length * part);
};

const firstThat = <S, T>(all: readonly S[], make: (one: S) => T, holds: (made: T) => boolean): T | undefined => {
  for (const one of all) {
    const made = make(one);
    if (holds(made)) return made;
  }
  return undefined;
};

type Bounding = Pick<Raw, "pieces" | "centres" | "radii">;

/**
 * Where an open chain ends, what passes on its other side or round its end is cut off too, though nothing is made
 * there.
 */
const cuttersOf = (open: readonly OffsetSource[], by: number, kind: Corners, limit: number): readonly Bounding[] =>
  open.flatMap((source) => {
    const joined = cornersOf([source]);
    const { before, after } = joined.corners;
    const places = [...before.keys()].filter((k) => before[k]! < 0 || after[k]! < 0).map((k) => cornerPlace(joined, k));
    const discs: Bounding = {
      pieces: places.flatMap((centre) => circleHalves({ centre, radius: Math.abs(by) })),
      centres: places.flatMap((centre) => [centre, centre]),
      radii: new Float64Array(2 * places.length).fill(Math.abs(by)),
    };
    return [rawPieces(joined, by, kind, limit), discs];
  });

const withCutters = (raw: Raw, cutters: readonly Bounding[]): SpanList => {
  if (cutters.length === 0) return spanList(raw.pieces, raw, raw.next);
  const all = [raw, ...cutters];
  const pieces = all.flatMap((one) => one.pieces);
  const next = new Int32Array(pieces.length).fill(-1);
  next.set(raw.next);
  const centres = all.flatMap((one) => one.centres);
  const radii = Float64Array.from(all.flatMap((one) => [...one.radii]));
  return spanList(pieces, { centres, radii }, next);
};

/**
 * Of what lies on one another the same way one stays; where something runs there and back nothing does: the width is
 * just twice the distance.
 */
const withoutDoubles = (
  spans: SpanList,
  { vertices }: Split,
  kept: readonly Fragment[],
  resolution: number,
): readonly Fragment[] => {
  const byEnds = new Map<number, number[]>();
  kept.forEach(({ span, last, start, end }, i) => {
    if (span < last) return; // nothing comes near it
    const key = Math.min(start, end) * vertices.length + Math.max(start, end);
    const list = byEnds.get(key);
    if (list) list.push(i);
    else byEnds.set(key, [i]);
  });
  const gone = new Set<number>();
  for (const list of byEnds.values()) {
    if (list.length < 2) continue;
    const middles = list.map((i) => placeOn(spans, kept[i]!, 0.5));
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
  list: SpanList,
  split: Split,
  { closed, fragments }: FragmentRun,
  resolution: number,
  ownerOf: (span: number) => number,
): OffsetRun | undefined => {
  const sources = [...new Set(fragments.map(({ span }) => ownerOf(span)))].sort((p, q) => p - q);
  const circle = closed ? wholeCircle(list, fragments) : undefined;
  if (circle) {
    const halves = circleHalves(circle);
    const left = list.pieces[fragments[0]!.span]!.bulge > 0;
    return { closed: true, circle, pieces: left ? halves : halves.map(reversePiece).reverse(), sources };
  }
  const pieces = withoutNeedles(runPieces(list, split, fragments, closed), closed, HAIR * resolution);
  return isSliver(pieces, closed, resolution) ? undefined : { closed, pieces, sources };
};

/** True for what is no wider than two resolutions; an open run for what is no longer than four. */
const isSliver = (pieces: readonly Piece[], closed: boolean, resolution: number): boolean => {
  let length = 0;
  for (let i = 0; i < pieces.length; i++) length += pieceLength(pieces[i]!);
  return closed ? Math.abs(enclosedArea(pieces)) <= 2 * resolution * length : length <= 4 * resolution;
};

const wholeCircle = ({ pieces, span }: SpanList, fragments: readonly Fragment[]): Circle | undefined => {
  if (pieces[fragments[0]!.span]!.bulge === 0) return undefined;
  const one = span(fragments[0]!.span);
  for (const { span: first, last } of fragments)
    for (let i = first; i <= last; i++) if (!onOneCircle(span(i), one)) return undefined;
  return { centre: one.centre, radius: one.radius };
};
