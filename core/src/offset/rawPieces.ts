import { spanOf, type Span } from "../arrangement/span.ts";
import { meetCarriers, meetingPoints } from "../intersect/carriers.ts";
import type { Carrier } from "../geometry/curve.ts";
import { arcBetween, pieceCentre, pieceDirection, pieceRadius, splitPiece, type Piece } from "../geometry/piece.ts";
import { add, along, distance, dot, leftOf, subtract, times, unit, type Point } from "../geometry/point.ts";
import { SMOOTH_TURN, type Corner, type Corners } from "./sources.ts";

/** What stands at a corner that opens to the side of the offset: its spokes' ends, and what is between them. */
export type Spread = {
  readonly start: Point;
  readonly end: Point;
  readonly kind: "round" | "flat" | "sharp" | "square";
  /** Of a sharp one, where the carriers meet. */
  readonly apex?: Point;
};

export type Raw = {
  readonly spans: readonly Span[];
  /** For each span the piece it comes from. */
  readonly from: readonly number[];
  /** Spokes: for some spans the pieces whose bands they end. */
  readonly ends: ReadonlyMap<number, readonly number[]>;
  /** For each corner that opens to the left what stands there, else undefined. */
  readonly spreads: readonly (Spread | undefined)[];
};

/** How far a corner may be run on, in distances from it, before it is cut flat. */
export const SHARP_LIMIT = 4;

/** A piece moved to its left by `distance`, before its neighbours have their say. */
type Moved = {
  readonly source: Piece;
  readonly carrier: Carrier | undefined;
  start: Point;
  end: Point;
  shifted: boolean;
};

const leftAt = (piece: Piece, t: number): Point => leftOf(pieceDirection(piece, t));

/** The carrier of a piece moved to its left; undefined where an arc has shrunk to nothing or beyond. */
const movedCarrier = (piece: Piece, by: number): Carrier | undefined => {
  if (piece.bulge === 0)
    return { kind: "line", at: along(piece.a, leftAt(piece, 0), by), direction: pieceDirection(piece, 0) };
  const radius = pieceRadius(piece) - by * Math.sign(piece.bulge);
  return radius > 0 ? { kind: "circle", centre: pieceCentre(piece)!, radius } : undefined;
};

/**
 * Everything that can bound what lies `by` to the left of the pieces: each piece moved over, arcs with their radius exactly less or more
 * `by`, and at corners that open to that side an arc about the corner (round), the carriers run on to their meeting (sharp, up to `limit`
 * distances from the corner), or a straight piece (flat). Where the direction hardly turns neighbours share one point.
 */
export const rawPieces = (
  pieces: readonly Piece[],
  corners: readonly Corner[],
  by: number,
  kind: Corners,
  limit: number,
): Raw => {
  const moved: Moved[] = pieces.map((source) => ({
    source,
    carrier: movedCarrier(source, by),
    start: along(source.a, leftAt(source, 0), by),
    end: along(source.b, leftAt(source, 1), by),
    shifted: false,
  }));
  const spans: Span[] = [];
  const from: number[] = [];
  const put = (piece: number, ...made: readonly Span[]): void => {
    for (const span of made) {
      spans.push(span);
      from.push(piece);
    }
  };
  // where corners are not round a band may stick out of all others: its ends are to bound what is made, too
  const ends = new Map<number, readonly number[]>();
  const spokes = kind !== "round" && corners.every((one) => one.before !== undefined && one.after !== undefined);
  const spoke = (before: number, after: number, start: Point, middle: Point, end: Point, between?: number): void => {
    for (const [a, b, piece] of [
      [start, middle, before],
      [middle, end, after],
    ] as const) {
      if (a.x === b.x && a.y === b.y) continue;
      ends.set(spans.length, between === undefined ? [piece] : [piece, between]);
      put(piece, spanOf({ a, b, bulge: 0 }));
    }
  };
  const spreads = corners.map(({ at, before, after, turn, cap }): Spread | undefined => {
    if (before === undefined || after === undefined) return undefined;
    const [one, other] = [moved[before]!, moved[after]!];
    if (Math.abs(turn) < SMOOTH_TURN) {
      const middle = unit(add(leftAt(one.source, 1), leftAt(other.source, 0)));
      const shared = middle ? along(at, middle, by) : one.end;
      one.end = shared;
      other.start = shared;
      one.shifted = other.shifted = true;
      return undefined;
    }
    const [start, end] = [one.end, other.start];
    if (turn > 0) {
      if (spokes) spoke(before, after, start, at, end);
      return undefined;
    }
    const shape = cap ?? kind;
    if (shape === "round") {
      const arc = arcBetween(start, end, at, false);
      for (const half of turn < -Math.PI / 2 ? splitPiece(arc, 0.5) : [arc]) put(before, spanOf(half, { centre: at, radius: by })); // prettier-ignore
      return { start, end, kind: "round" };
    }
    if (shape === "square") {
      const ahead = times(pieceDirection(one.source, 1), by);
      const corners = [start, add(start, ahead), add(end, ahead), end];
      corners.slice(1).forEach((b, i) => put(before, spanOf({ a: corners[i]!, b, bulge: 0 })));
      return { start, end, kind: "square" };
    }
    const apex = shape === "sharp" ? apexOf(one, other, at, by * limit) : undefined;
    if (apex) {
      one.end = apex;
      other.start = apex;
      one.shifted = other.shifted = true;
      return { start, end, kind: "sharp", apex };
    }
    if (cap) ends.set(spans.length, [before, after]); // straight across both bands' ends
    put(before, spanOf({ a: start, b: end, bulge: 0 }));
    return { start, end, kind: "flat" };
  });
  moved.forEach((one, i) => {
    put(i, ...spansOf(one));
    const centre = one.carrier ? undefined : pieceCentre(one.source);
    if (!centre || !spokes) return;
    const [before, after] = [i - 1, i + 1].map((k) => (k + moved.length) % moved.length);
    spoke(before!, after!, one.start, centre, one.end, i);
  });
  return { spans, from, ends, spreads };
};

/** Where the first runs on forwards and the second backwards until they meet, no farther than `reach` from the corner. */
const apexOf = (one: Moved, other: Moved, at: Point, reach: number): Point | undefined => {
  if (!one.carrier || !other.carrier) return undefined;
  const [u, v] = [pieceDirection(one.source, 1), pieceDirection(other.source, 0)];
  const found = meetingPoints(meetCarriers(one.carrier, other.carrier, 0)).filter(
    (p) => distance(p, at) <= reach && dot(subtract(p, one.end), u) >= 0 && dot(subtract(p, other.start), v) <= 0,
  );
  return found.sort((p, q) => distance(p, at) - distance(q, at))[0];
};

/** The spans of a moved piece: none where it vanished or runs backwards; halves where it is an arc over half a turn. */
const spansOf = ({ source, carrier, start, end, shifted }: Moved): readonly Span[] => {
  if (!carrier || (start.x === end.x && start.y === end.y)) return [];
  if (carrier.kind === "line") {
    const forwards = dot(subtract(end, start), carrier.direction) > 0;
    return forwards ? [spanOf({ a: start, b: end, bulge: 0 })] : [];
  }
  const { centre, radius } = carrier;
  const turned = shifted ? arcBetween(start, end, centre, source.bulge > 0) : { a: start, b: end, bulge: source.bulge };
  // moved together at both ends, a short arc can turn over and seem to go all the way round
  if (shifted && Math.abs(turned.bulge) > 1 && Math.abs(source.bulge) < 0.5) return [];
  const parts = Math.abs(turned.bulge) > HALF ? splitPiece(turned, 0.5, onCircle(centre, radius, turned)) : [turned];
  return parts.map((part) => spanOf(part, { centre, radius }));
};

/** Arcs of more than a little under half a turn (bulge) are taken in halves. */
const HALF = 0.99;

const onCircle = (centre: Point, radius: number, arc: Piece): Point => {
  // seen from its centre the middle of a left turning arc lies to the right of its chord, however long it is
  const out = times(leftOf(subtract(arc.b, arc.a)), -Math.sign(arc.bulge));
  const direction = unit(out) ?? { x: 1, y: 0 };
  return along(centre, direction, radius);
};
