import { cross, distance, dot, type Point } from "../geometry/point.ts";
import { directionAlong, offCarrier, positionAlong, type Span } from "./span.ts";
import { PARALLEL, TANGENT_WITHIN } from "../numeric/tolerance.ts";

/** Told of a place where two spans meet: on which of them it cuts. */
export type Meet = (at: Point, cutsA: boolean, cutsB: boolean) => void;

const holds = (span: Span, p: Point, resolution: number): boolean => {
  const position = positionAlong(span, p);
  return position >= -resolution && position <= span.length + resolution;
};

/** The very numbers of an end of a span: nothing is cut there. */
const isEnd = ({ piece: { a, b } }: Span, p: Point): boolean =>
  (a.x === p.x && a.y === p.y) || (b.x === p.x && b.y === p.y);

const liesOn = (span: Span, p: Point, resolution: number): boolean =>
  Math.abs(offCarrier(span, p)) <= resolution && holds(span, p, resolution);

/**
 * Every place where two spans meet: ends that lie on the other (with the end's own numbers), crossings, and touches,
 * where the lens between the two is no thicker than `resolution`. Where they lie on each other, the ends say where.
 * Closed forms as for carriers, worked so that nothing cancels near touching. True where there is one, or they share an
 * end.
 */
export const meetSpans = (p: Span, q: Span, resolution: number, meet: Meet): boolean => {
  const ends: Point[] = [];
  let together = false;
  for (const end of [p.piece.a, p.piece.b])
    if (isEnd(q, end)) ends.push(end);
    else if (liesOn(q, end, resolution)) {
      ends.push(end);
      meet(end, false, true);
    }
  for (const end of [q.piece.a, q.piece.b])
    if (!isEnd(p, end) && liesOn(p, end, resolution)) {
      ends.push(end);
      meet(end, true, false);
    }
  const both = (about: Point, reach: number): void => {
    const at = p.flat || q.flat ? refined(p, q, about) : about;
    for (const end of ends) if (Math.abs(end.x - at.x) <= reach && distance(end, at) <= reach) return;
    if (!holds(p, at, resolution) || !holds(q, at, resolution)) return;
    together = true;
    meet(at, true, true);
  };
  if (p.radius === 0 && q.radius === 0) lineLine(p, q, resolution, both);
  else if (p.radius === 0) lineArc(p, q, resolution, both);
  else if (q.radius === 0) lineArc(q, p, resolution, both);
  else arcArc(p, q, resolution, both);
  return together || ends.length > 0;
};

/** A meeting with an arc whose centre is far away, by two of Newton's steps on how far it lies off both. */
const refined = (p: Span, q: Span, about: Point): Point => {
  let at = about;
  for (let step = 0; step < 2; step++) {
    const [u, v] = [directionAlong(p, positionAlong(p, at)), directionAlong(q, positionAlong(q, at))];
    const sine = cross(u, v);
    if (Math.abs(sine) < TANGENT_WITHIN) return at;
    const [e, f] = [offCarrier(p, at), offCarrier(q, at)];
    // off is measured to the left: its gradient is the direction turned left
    at = { x: at.x + (e * v.x - f * u.x) / -sine, y: at.y + (e * v.y - f * u.y) / -sine };
  }
  return at;
};

type Both = (at: Point, reach: number) => void;

/** From a crossing at this sine, how far along the two stay within the resolution of each other. */
const crossingReach = (sine: number, resolution: number, lens: number): number =>
  Math.max(2 * resolution, Math.min((2 * resolution) / Math.max(Math.abs(sine), Number.MIN_VALUE), lens));

const lensOf = (radius: number, resolution: number): number => 4 * Math.sqrt(radius * resolution);

const lineLine = (p: Span, q: Span, resolution: number, both: Both): void => {
  const sine = cross(p.direction, q.direction);
  if (Math.abs(sine) < PARALLEL) return;
  const [a, b] = [p.piece.a, q.piece.a];
  const along = ((b.x - a.x) * q.direction.y - (b.y - a.y) * q.direction.x) / sine;
  if (along < -resolution || along > p.length + resolution) return;
  const reach = crossingReach(sine, resolution, Infinity);
  both(upright({ x: a.x + along * p.direction.x, y: a.y + along * p.direction.y }, p, q), reach);
};

/** A place on an exactly level or upright line has that line's coordinate to the last bit. */
const upright = (at: Point, ...lines: readonly Span[]): Point => {
  let { x, y } = at;
  for (const { direction, piece } of lines) {
    if (direction.x === 0) x = piece.a.x;
    else if (direction.y === 0) y = piece.a.y;
  }
  return { x, y };
};

const lineArc = (line: Span, arc: Span, resolution: number, both: Both): void => {
  const { direction, piece } = line;
  const to = { x: arc.centre.x - piece.a.x, y: arc.centre.y - piece.a.y };
  const along = dot(to, direction);
  const away = Math.abs(cross(direction, to));
  const depth = arc.radius - away; // thickness of the lens
  if (depth < -resolution) return;
  const lens = lensOf(arc.radius, resolution);
  const at = (t: number): Point => upright({ x: piece.a.x + t * direction.x, y: piece.a.y + t * direction.y }, line);
  if (depth <= resolution) return both(at(along), lens);
  const half = Math.sqrt(depth * (arc.radius + away));
  const reach = crossingReach(half / arc.radius, resolution, lens);
  both(at(along - half), reach);
  both(at(along + half), reach);
};

/** The half chord by Heron's formula in factored form, from the smaller circle's centre. */
const arcArc = (p: Span, q: Span, resolution: number, both: Both): void => {
  const [small, large] = p.radius <= q.radius ? [p, q] : [q, p];
  const [c, k] = [small.centre, large.centre];
  const apart = distance(c, k);
  const difference = large.radius - small.radius;
  if (apart + difference <= resolution || apart === 0) return;
  const outside = apart - (small.radius + large.radius);
  const within = difference - apart;
  if (outside > resolution || within > resolution) return;
  const [x, y] = [(k.x - c.x) / apart, (k.y - c.y) / apart];
  const lens = lensOf(small.radius, resolution);
  if (outside >= -resolution || within >= -resolution) {
    const reach = outside >= -resolution ? small.radius + outside / 2 : -small.radius - within / 2;
    return both({ x: c.x + x * reach, y: c.y + y * reach }, lens);
  }
  const reach = (apart - (difference * (small.radius + large.radius)) / apart) / 2;
  const half = Math.sqrt((small.radius - reach) * (small.radius + reach));
  // sine of the angle between the circles: 4 · area of the triangle of the centres / product of the radii
  const near = crossingReach((apart * half) / (small.radius * large.radius), resolution, lens);
  both({ x: c.x + x * reach - y * half, y: c.y + y * reach + x * half }, near);
  both({ x: c.x + x * reach + y * half, y: c.y + y * reach - x * half }, near);
};
