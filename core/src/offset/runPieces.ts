import { offCarrier, pieceOnSpan, positionAlong, type Span } from "../arrangement/span.ts";
import type { SpanList } from "../arrangement/spanList.ts";
import type { Fragment, Split } from "../arrangement/splitSpans.ts";
import type { Carrier } from "../geometry/curve.ts";
import type { Piece } from "../geometry/piece.ts";
import { distance, equalPoint, type Point } from "../geometry/point.ts";
import { meetCarriers, meetingPoints } from "../intersect/carriers.ts";
import { ON_CARRIER, RESOLUTION } from "../numeric/tolerance.ts";

/** A stretch of a run on one carrier, whose ends may still move a little. */
type Stretch = {
  /** The span it begins on. */
  readonly number: number;
  readonly span: Span;
  a: Point;
  b: Point;
  turn: number;
  length: number;
  whole: boolean;
};

/** True where two arcs lie on one circle to the last bit and turn the same way. */
export const onOneCircle = (p: Span, q: Span): boolean =>
  p.radius !== 0 &&
  p.radius === q.radius &&
  p.centre.x === q.centre.x &&
  p.centre.y === q.centre.y &&
  p.sweep * q.sweep > 0;

/** An arc stays under this sweep (radians), so that its ends tell it well. */
const WHOLE = 5.5;

/**
 * The pieces of a run: what lies on one carrier as one piece, ends shared as numbers. Where two carriers cross near a
 * vertex, which is an end that lies within the resolution of both, the vertex is put on their crossing.
 */
export const runPieces = (
  list: SpanList,
  { vertices }: Split,
  fragments: readonly Fragment[],
  closed: boolean,
): readonly Piece[] => {
  const { pieces, centres, span } = list;
  // what lies within a fragment is as it is; parts are put in at their places when their ends are known
  const made: Piece[] = [];
  const parts = new Map<number, Stretch>();
  const put = (number: number, from: number, to: number, a: Point, b: Point): void => {
    const own = span(number);
    const last = parts.get(made.length - 1);
    const turn = own.radius === 0 ? 0 : (to - from) / own.radius;
    if (last && (last.span === own || onOneCircle(last.span, own)) && last.turn + turn < WHOLE) {
      last.b = b;
      last.turn += turn;
      last.length += to - from;
      last.whole = false;
      return;
    }
    parts.set(made.length, {
      number,
      span: own,
      a,
      b,
      turn,
      length: to - from,
      whole: from === 0 && to === own.length,
    });
    made.push(pieces[number]!);
  };
  const sharesCircle = (i: number): boolean =>
    centres[i] !== undefined && (centres[i] === centres[i - 1] || centres[i] === centres[i + 1]);
  for (const { span: first, last, from, to, start, end } of closed ? fromABreak(list, fragments) : fragments)
    for (let i = first; i <= last; i++) {
      if (i > first && i < last && !sharesCircle(i)) {
        made.push(pieces[i]!);
        continue;
      }
      const { a, b } = pieces[i]!;
      put(
        i,
        i === first ? from : 0,
        i === last ? to : span(i).length,
        i === first ? vertices[start]! : a,
        i === last ? vertices[end]! : b,
      );
    }
  for (const [i, part] of parts) {
    const next = i + 1 < made.length ? parts.get(i + 1) : closed ? parts.get(0) : undefined;
    if (next) part.b = next.a = crossingNear(part, next);
  }
  for (const [i, { number, span: own, a, b, turn, whole }] of parts) {
    const piece = pieces[number]!;
    if (!whole || !equalPoint(piece.a, a) || !equalPoint(piece.b, b)) made[i] = pieceOnSpan(own, a, b, turn);
  }
  return made;
};

/** A closed run from a place where it leaves a carrier, so that no piece begins in its middle. */
const fromABreak = ({ pieces, span }: SpanList, fragments: readonly Fragment[]): readonly Fragment[] => {
  const start = fragments.findIndex((one, i) => {
    const before = fragments.at(i - 1)!.last;
    if (pieces[before]!.bulge === 0 || pieces[one.span]!.bulge === 0) return before !== one.span;
    return before !== one.span && !onOneCircle(span(before), span(one.span));
  });
  return start > 0 ? [...fragments.slice(start), ...fragments.slice(0, start)] : fragments;
};

const carrierOfSpan = ({ radius, centre, piece, direction }: Span): Carrier =>
  radius === 0 ? { kind: "line", at: piece.a, direction } : { kind: "circle", centre, radius };

const crossingNear = (part: Stretch, next: Stretch): Point => {
  const at = part.b;
  const off = Math.max(Math.abs(offCarrier(part.span, at)), Math.abs(offCarrier(next.span, at)));
  if (off <= ON_CARRIER || part.span === next.span) return at;
  const reach = Math.min(part.length, next.length) / 4;
  const found = meetingPoints(meetCarriers(carrierOfSpan(part.span), carrierOfSpan(next.span), 0));
  const onBoth = (p: Point): boolean => isAlong(part.span, p) && isAlong(next.span, p);
  const [nearest] = [...found].sort((p, q) => distance(p, at) - distance(q, at));
  return nearest && distance(nearest, at) <= reach && onBoth(nearest) ? nearest : at;
};

/** On a span, or no farther beyond its ends than two places are told apart. */
const isAlong = (span: Span, p: Point): boolean => {
  const position = positionAlong(span, p);
  return position >= -RESOLUTION && position <= span.length + RESOLUTION;
};
