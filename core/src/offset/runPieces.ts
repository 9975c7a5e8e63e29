import { offCarrier, pieceOnSpan, positionAlong, type Span } from "../arrangement/span.ts";
import type { Fragment, Split } from "../arrangement/splitSpans.ts";
import { meetCarriers, meetingPoints } from "../intersect/carriers.ts";
import type { Carrier } from "../geometry/curve.ts";
import type { Piece } from "../geometry/piece.ts";
import { distance, type Point } from "../geometry/point.ts";
import { RESOLUTION } from "../numeric/tolerance.ts";

/** A stretch of a run on one carrier. */
type Part = {
  readonly span: Span;
  a: Point;
  b: Point;
  turn: number;
  length: number;
  readonly whole: Piece | undefined;
};

export const onOneCircle = (p: Span, q: Span): boolean =>
  p.radius !== 0 && p.radius === q.radius && p.centre.x === q.centre.x && p.centre.y === q.centre.y && p.sweep * q.sweep > 0; // prettier-ignore

/** An arc stays under this sweep (radians), so that its ends tell it well. */
const WHOLE = 5.5;

/** Vertices closer to both carriers than this are as good as they get. */
const GOOD = 1e-11;

/**
 * The pieces of a run: what lies on one carrier as one piece, ends shared as numbers. Where two carriers cross near a vertex, which is an end
 * that lies within the resolution of both, the vertex is put on their crossing.
 */
export const runPieces = (
  spans: readonly Span[],
  { vertices }: Split,
  fragments: readonly Fragment[],
  closed: boolean,
): readonly Piece[] => {
  const parts: Part[] = [];
  for (const { span: number, from, to, start, end } of closed ? fromABreak(spans, fragments) : fragments) {
    const span = spans[number]!;
    const last = parts.at(-1);
    const turn = span.radius === 0 ? 0 : (to - from) / span.radius;
    if (last && (last.span === span || onOneCircle(last.span, span)) && last.turn + turn < WHOLE) {
      parts[parts.length - 1] = { ...last, b: vertices[end]!, turn: last.turn + turn, length: last.length + to - from, whole: undefined }; // prettier-ignore
      continue;
    }
    const whole = from === 0 && to === span.length ? span.piece : undefined;
    parts.push({ span, a: vertices[start]!, b: vertices[end]!, turn, length: to - from, whole });
  }
  parts.forEach((part, i) => {
    if (i + 1 === parts.length && !closed) return;
    const next = parts[(i + 1) % parts.length]!;
    const at = crossingNear(part, next);
    part.b = at;
    next.a = at;
  });
  return parts.map(({ span, a, b, turn, whole }) =>
    whole && whole.a === a && whole.b === b ? whole : pieceOnSpan(span, a, b, turn),
  );
};

/** A closed run from a place where it leaves a carrier, so that no piece begins in its middle. */
const fromABreak = (spans: readonly Span[], fragments: readonly Fragment[]): readonly Fragment[] => {
  const start = fragments.findIndex((one, i) => {
    const [before, span] = [spans[fragments.at(i - 1)!.span]!, spans[one.span]!];
    return before !== span && !onOneCircle(before, span);
  });
  return start > 0 ? [...fragments.slice(start), ...fragments.slice(0, start)] : fragments;
};

const carrierOfSpan = ({ radius, centre, piece, direction }: Span): Carrier =>
  radius === 0 ? { kind: "line", at: piece.a, direction } : { kind: "circle", centre, radius };

const crossingNear = (part: Part, next: Part): Point => {
  const at = part.b;
  const off = Math.max(Math.abs(offCarrier(part.span, at)), Math.abs(offCarrier(next.span, at)));
  if (off <= GOOD || part.span === next.span) return at;
  const reach = Math.min(part.length, next.length) / 4;
  const found = meetingPoints(meetCarriers(carrierOfSpan(part.span), carrierOfSpan(next.span), 0));
  const onBoth = (p: Point): boolean => isAlong(part.span, p) && isAlong(next.span, p);
  const better = found
    .filter((p) => distance(p, at) <= reach && onBoth(p))
    .sort((p, q) => distance(p, at) - distance(q, at))[0];
  return better ?? at;
};

/** On a span, or no farther beyond its ends than two places are told apart. */
const isAlong = (span: Span, p: Point): boolean => {
  const position = positionAlong(span, p);
  return position >= -RESOLUTION && position <= span.length + RESOLUTION;
};
