import {
  BESIDE,
  LEAST_BEND,
  PARALLEL,
  SAME_DIRECTION,
  SETTLED_PARAMETER,
  TOUCHES_WITHIN,
} from "../numeric/tolerance.ts";
import { greatest, least } from "../numeric/greatest.ts";
import { carrierOf, curveNearest, isSmooth, smoothOf, type Carrier, type Curve } from "../geometry/curve.ts";
import { cross, distance, dot, norm, subtract, type Point } from "../geometry/point.ts";
import { feetOn, type Smooth } from "../geometry/smooth.ts";
import { bracketedRoot, refined, rootsOn } from "../numeric/roots.ts";

/**
 * A meeting of curves of which one at least is no line or circle; `width` is how far along the two stay together there.
 */
export type SmoothMeeting = { readonly kind: "crossing" | "touch"; readonly at: Point; readonly width: number };

/** Places looked at between two breaks of a curve. */
const LOOKS = 8;
/** Boxes smaller than this part of a curve's parameter are as good as a point to start Newton's steps from. */
const SMALL = 1 / 64;
const NEWTON_STEPS = 30;

/**
 * Where an ellipse or a free curve meets another curve: crossings by bracketing (with lines and circles) or by cutting
 * both into ever smaller boxes and Newton's steps from there (with each other); touches where the two come nearest
 * within `tolerance`. To the resolution of doubles at crossings; a touch is as sharp as the square root of that.
 * Source: derived here.
 */
export const smoothMeetings = (a: Curve, b: Curve, tolerance: number): readonly SmoothMeeting[] => {
  if (isSmooth(a) && isSmooth(b)) return smoothSmooth(smoothOf(a), smoothOf(b), tolerance);
  const [smooth, plain] = isSmooth(a) ? [smoothOf(a), b] : isSmooth(b) ? [smoothOf(b), a] : [undefined, a];
  if (!smooth) return [];
  const carrier = carrierOf(plain)!;
  const away = awayFrom(carrier);
  const g = (t: number): number => away(smooth.at(t));
  const grid = refined(smooth.breaks, LOOKS);
  const crossings = rootsOn(g, grid);
  const slope = (t: number): number => dot(gradient(carrier, smooth.at(t)), smooth.first(t));
  // touching: as near as it comes without crossing
  const touches = rootsOn(slope, grid).filter(
    (t) => Math.abs(g(t)) <= tolerance && !crossings.some((s) => distance(smooth.at(s), smooth.at(t)) <= 2 * tolerance),
  );
  const found: SmoothMeeting[] = [];
  for (const t of [...crossings, ...touches]) {
    const at = smooth.at(t);
    if (curveNearest(plain, at).distance > tolerance) continue;
    const sine = Math.abs(slope(t)) / Math.max(norm(smooth.first(t)), Number.MIN_VALUE);
    const width = Math.min((2 * tolerance) / Math.max(sine, PARALLEL), lensWidth(smooth, t, tolerance));
    if (found.some((other) => distance(other.at, at) <= Math.max(width, other.width))) continue;
    const kind = touches.includes(t) || staysOnOneSide(g, t, smooth.closed) ? "touch" : "crossing";
    found.push({ kind, at, width: Math.max(width, 2 * tolerance) });
  }
  return found;
};

/** A root at which `g` does not change its sign. */
const staysOnOneSide = (g: (t: number) => number, t: number, closed: boolean): boolean => {
  const [before, after] = [t - BESIDE, t + BESIDE].map((s) => (closed ? (s + 1) % 1 : Math.min(1, Math.max(0, s))));
  return g(before!) * g(after!) > 0;
};

/** How far along a touch may lie off: half the lens of thickness `tolerance` by the curve's own radius. */
const lensWidth = ({ first, second }: Smooth, t: number, tolerance: number): number => {
  const [v, w] = [first(t), second(t)];
  const bend = Math.abs(cross(v, w)) / Math.max(norm(v) ** 3, Number.MIN_VALUE);
  return 4 * Math.sqrt(tolerance / Math.max(bend, LEAST_BEND));
};

const awayFrom = (carrier: Carrier): ((p: Point) => number) =>
  carrier.kind === "line"
    ? (p) => cross(carrier.direction, subtract(p, carrier.at))
    : (p) => distance(p, carrier.centre) - carrier.radius;

const gradient = (carrier: Carrier, p: Point): Point => {
  if (carrier.kind === "line") return { x: -carrier.direction.y, y: carrier.direction.x };
  const out = subtract(p, carrier.centre);
  const length = norm(out);
  return length === 0 ? { x: 0, y: 0 } : { x: out.x / length, y: out.y / length };
};

type Box = { minX: number; minY: number; maxX: number; maxY: number };
type Window = { readonly from: number; readonly to: number; readonly box: Box };

/** A box that surely holds the part: its points, grown by what it may stray between them. */
const partOf = ({ at, second }: Smooth, from: number, to: number): Window => {
  const looks = [0, 0.25, 0.5, 0.75, 1].map((s) => from + s * (to - from));
  const points = looks.map(at);
  const quarter = (to - from) / 4;
  const stray = (greatest(looks.map((t) => norm(second(t)))) * quarter * quarter) / 4;
  return {
    from,
    to,
    box: {
      minX: least(points.map(({ x }) => x)) - stray,
      minY: least(points.map(({ y }) => y)) - stray,
      maxX: greatest(points.map(({ x }) => x)) + stray,
      maxY: greatest(points.map(({ y }) => y)) + stray,
    },
  };
};
const meet = (p: Box, q: Box, by: number): boolean =>
  p.minX - by <= q.maxX && q.minX - by <= p.maxX && p.minY - by <= q.maxY && q.minY - by <= p.maxY;

const smoothSmooth = (a: Smooth, b: Smooth, tolerance: number): readonly SmoothMeeting[] => {
  const found: SmoothMeeting[] = [];
  const note = (s: number, t: number): void => {
    const at = a.at(s);
    const [u, v] = [a.first(s), b.first(t)];
    const sine = Math.abs(cross(u, v)) / Math.max(norm(u) * norm(v), Number.MIN_VALUE);
    const lens = Math.max(lensWidth(a, s, tolerance), lensWidth(b, t, tolerance));
    const width = Math.max(2 * tolerance, Math.min((2 * tolerance) / Math.max(sine, PARALLEL), lens));
    if (found.some((other) => distance(other.at, at) <= Math.max(width, other.width))) return;
    found.push({ kind: sine < TOUCHES_WITHIN ? "touch" : "crossing", at, width });
  };
  const pending: (readonly [Window, Window])[] = [];
  for (let i = 1; i < a.breaks.length; i++)
    for (let j = 1; j < b.breaks.length; j++)
      pending.push([partOf(a, a.breaks[i - 1]!, a.breaks[i]!), partOf(b, b.breaks[j - 1]!, b.breaks[j]!)]);
  for (let pair = pending.pop(); pair && found.length < 200; pair = pending.pop()) {
    const [p, q] = pair;
    if (!meet(p.box, q.box, tolerance)) continue;
    if (p.to - p.from <= SMALL && q.to - q.from <= SMALL) {
      const met = newton(a, b, (p.from + p.to) / 2, (q.from + q.to) / 2, tolerance);
      if (met) note(...met);
      continue;
    }
    const cutA = p.to - p.from >= q.to - q.from;
    const [smooth, part] = cutA ? [a, p] : [b, q];
    const middle = (part.from + part.to) / 2;
    for (const half of [partOf(smooth, part.from, middle), partOf(smooth, middle, part.to)])
      pending.push(cutA ? [half, q] : [p, half]);
  }
  return found;
};

/** Newton's steps for a(s) = b(t); where the two only touch, the place where they come nearest instead. */
const newton = (a: Smooth, b: Smooth, s0: number, t0: number, tolerance: number): [number, number] | undefined => {
  let [s, t] = [s0, t0];
  for (let i = 0; i < NEWTON_STEPS; i++) {
    const gap = subtract(b.at(t), a.at(s));
    const [u, v] = [a.first(s), b.first(t)];
    const determinant = cross(u, v);
    if (Math.abs(determinant) < SAME_DIRECTION * norm(u) * norm(v)) break;
    const [ds, dt] = [cross(gap, v) / determinant, cross(gap, u) / determinant];
    const limit = 2 * SMALL;
    s = Math.min(1, Math.max(0, s + Math.min(limit, Math.max(-limit, ds))));
    t = Math.min(1, Math.max(0, t + Math.min(limit, Math.max(-limit, dt))));
    if (Math.abs(ds) < SETTLED_PARAMETER && Math.abs(dt) < SETTLED_PARAMETER) break;
  }
  if (distance(a.at(s), b.at(t)) <= tolerance / 4) return [s, t];
  const nearest = touchNear(a, b, s0);
  return nearest && distance(a.at(nearest[0]), b.at(nearest[1])) <= tolerance ? nearest : undefined;
};

/**
 * The place near `s0` where the two curves run side by side: the tangent of the one square to the way to its foot on
 * the other.
 */
const touchNear = (a: Smooth, b: Smooth, s0: number): [number, number] | undefined => {
  const footOf = (s: number): number => {
    const p = a.at(s);
    const feet = [0, 1, ...feetOn(b, p)];
    return feet.reduce((best, t) => (distance(b.at(t), p) < distance(b.at(best), p) ? t : best));
  };
  const g = (s: number): number => dot(a.first(s), subtract(b.at(footOf(s)), a.at(s)));
  const [low, high] = [Math.max(0, s0 - SMALL), Math.min(1, s0 + SMALL)];
  const [gLow, gHigh] = [g(low), g(high)];
  if (gLow > 0 === gHigh > 0) return undefined;
  const s = bracketedRoot(g, low, high, gLow, gHigh);
  return [s, footOf(s)];
};
