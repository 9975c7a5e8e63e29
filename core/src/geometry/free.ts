import { ROUNDING } from "../numeric/tolerance.ts";
import { greatest } from "../numeric/greatest.ts";
import { rootsOn, refined } from "../numeric/roots.ts";
import { boundsOf, type Bounds } from "./bounds.ts";
import { subtract, type Point } from "./point.ts";
import type { Smooth } from "./smooth.ts";
import { transformPoint, type Similarity } from "./transform.ts";

/** A free curve: a B-spline of `degree` with its knots and control points, rational where it carries weights. */
export type Free = {
  readonly degree: number;
  readonly knots: readonly number[];
  readonly points: readonly Point[];
  readonly weights?: readonly number[];
};

/** A control point in homogeneous coordinates. */
type Pole = readonly [x: number, y: number, w: number];
type Spline = { readonly degree: number; readonly knots: readonly number[]; readonly poles: readonly Pole[] };

const splineOf = ({ degree, knots, points, weights }: Free): Spline => ({
  degree,
  knots,
  poles: points.map(({ x, y }, i): Pole => {
    const w = weights?.[i] ?? 1;
    return [x * w, y * w, w];
  }),
});

const domain = ({ degree, knots }: Pick<Spline, "degree" | "knots">): readonly [number, number] => [
  knots[degree]!,
  knots[knots.length - degree - 1]!,
];

/** The knot span that `u` lies in. */
const spanAt = ({ degree, knots }: Spline, u: number): number => {
  const last = knots.length - degree - 2;
  let [low, high] = [degree, last];
  while (low < high) {
    const middle = Math.ceil((low + high) / 2);
    if (knots[middle]! <= u) low = middle;
    else high = middle - 1;
  }
  while (low > degree && knots[low] === knots[low + 1]) low -= 1;
  return low;
};

/** De Boor's algorithm (de Boor 1972; The NURBS Book, A3.1 and A4.1). */
const poleAt = (spline: Spline, u: number): Pole => {
  const { degree, knots, poles } = spline;
  const span = spanAt(spline, u);
  const d = Array.from({ length: degree + 1 }, (_, j) => [...poles[span - degree + j]!] as [number, number, number]);
  for (let r = 1; r <= degree; r++)
    for (let j = degree; j >= r; j--) {
      const i = span - degree + j;
      const width = knots[i + degree - r + 1]! - knots[i]!;
      const part = width === 0 ? 0 : (u - knots[i]!) / width;
      for (let k = 0; k < 3; k++) d[j]![k] = (1 - part) * d[j - 1]![k]! + part * d[j]![k]!;
    }
  return d[degree]!;
};

/** The curve of derivatives, one degree lower (The NURBS Book, 3.3). */
const derived = ({ degree, knots, poles }: Spline): Spline => ({
  degree: degree - 1,
  knots: knots.slice(1, -1),
  poles: poles.slice(0, -1).map((pole, i): Pole => {
    const width = knots[i + degree + 1]! - knots[i + 1]!;
    const factor = width === 0 ? 0 : degree / width;
    const next = poles[i + 1]!;
    return [factor * (next[0] - pole[0]), factor * (next[1] - pole[1]), factor * (next[2] - pole[2])];
  }),
});

/** The free curve as something to work on; its parameter runs from 0 to 1 over its knots. */
export const freeSmooth = (free: Free): Smooth => {
  const spline = splineOf(free);
  const [low, high] = domain(spline);
  const span = high - low;
  const one = derived(spline);
  const two = one.degree > 0 ? derived(one) : undefined;
  const u = (t: number): number => (t <= 0 ? low : t >= 1 ? high : low + t * span);
  const at = (t: number): Point => {
    const [x, y, w] = poleAt(spline, u(t));
    return { x: x / w, y: y / w };
  };
  const first = (t: number): Point => {
    const [, , w] = poleAt(spline, u(t));
    const [dx, dy, dw] = poleAt(one, u(t));
    const p = at(t);
    return { x: (span * (dx - dw * p.x)) / w, y: (span * (dy - dw * p.y)) / w };
  };
  const second = (t: number): Point => {
    if (!two) return { x: 0, y: 0 };
    const [, , w] = poleAt(spline, u(t));
    const [, , dw] = poleAt(one, u(t));
    const [ax, ay, aw] = poleAt(two, u(t));
    const [p, v] = [at(t), first(t)];
    const [vx, vy] = [v.x / span, v.y / span];
    return {
      x: (span * span * (ax - 2 * dw * vx - aw * p.x)) / w,
      y: (span * span * (ay - 2 * dw * vy - aw * p.y)) / w,
    };
  };
  /** How long the poles of a spline that act between two parameters are at the most, and their weights. */
  const longest = (of: Spline, from: number, to: number): readonly [point: number, weight: number] => {
    const acting = of.poles.slice(spanAt(of, from) - of.degree, spanAt(of, to) + 1);
    return [greatest(acting.map(([x, y]) => Math.hypot(x, y))), greatest(acting.map(([, , w]) => Math.abs(w)))];
  };
  // a spline lies in the hull of the poles that act on it (The NURBS Book, 3.2), and so do its derivatives; seen from a
  // place of its own, as weights make them depend on where the origin is
  const origin = free.points[0]!;
  const near = splineOf({ ...free, points: free.points.map((p) => subtract(p, origin)) });
  const nearOne = derived(near);
  const nearTwo = nearOne.degree > 0 ? derived(nearOne) : undefined;
  const least = 1 / greatest(near.poles.map(([, , w]) => 1 / w));
  const bend = (from: number, to: number): number => {
    if (!nearTwo) return 0;
    const [p, q] = [u(from), u(to)];
    const [place] = longest(near, p, q);
    const [one1, weight1] = longest(nearOne, p, q);
    const [two2, weight2] = longest(nearTwo, p, q);
    // A'' = w C'' + 2 w' C' + w'' C, A' = w C' + w' C
    const first = (one1 + weight1 * (place / least)) / least;
    return (span * span * (two2 + 2 * weight1 * first + weight2 * (place / least))) / least;
  };
  const breaks = [...new Set(free.knots.filter((knot) => knot >= low && knot <= high))].map(
    (knot) => (knot - low) / span,
  );
  const [a, b] = [at(0), at(1)];
  return { at, first, second, bend, breaks: refined(breaks, 2), closed: a.x === b.x && a.y === b.y };
};

/** Bounds to within what doubles hold: the ends, the knots, and where x or y turns back. */
export const freeBounds = (free: Free): Bounds => {
  const { at, first, breaks } = freeSmooth(free);
  const grid = refined(breaks, 6);
  const turns = [...rootsOn((t) => first(t).x, grid), ...rootsOn((t) => first(t).y, grid)];
  return boundsOf([...breaks, ...turns].map(at));
};

/** `spline` with one more knot at `u` (Boehm's insertion; The NURBS Book, 5.2). */
const withKnot = (spline: Spline, u: number): Spline => {
  const { degree, knots, poles } = spline;
  const span = spanAt(spline, u);
  const made: Pole[] = [];
  for (let i = 0; i <= poles.length; i++) {
    if (i <= span - degree) made.push(poles[i]!);
    else if (i > span) made.push(poles[i - 1]!);
    else {
      const width = knots[i + degree]! - knots[i]!;
      const part = width === 0 ? 1 : Math.min(1, Math.max(0, (u - knots[i]!) / width));
      const [p, q] = [poles[i - 1]!, poles[i] ?? poles[i - 1]!];
      made.push([0, 1, 2].map((k) => (1 - part) * p[k]! + part * q[k]!) as unknown as Pole);
    }
  }
  const at = knots.findLastIndex((knot) => knot <= u) + 1;
  return { degree, knots: [...knots.slice(0, at), u, ...knots.slice(at)], poles: made };
};

const freeOf = ({ degree, knots, poles }: Spline, weighted: boolean): Free => ({
  degree,
  knots,
  points: poles.map(([x, y, w]) => ({ x: x / w, y: y / w })),
  ...(weighted ? { weights: poles.map(([, , w]) => w) } : {}),
});

/**
 * The part between two parameters; the same curve there, as a free curve of its own. Ends as numbers where they are
 * known.
 */
export const partOfFree = (free: Free, from: number, to: number, a?: Point, b?: Point): Free => {
  let spline = splineOf(free);
  const [low, high] = domain(spline);
  const { degree } = spline;
  // a cut as good as at a knot is at that knot: two knots a bit apart would leave a speck of a piece between them
  const atKnot = (u: number): number => free.knots.find((knot) => Math.abs(knot - u) <= ROUNDING * (high - low)) ?? u;
  const cuts = [from, to].map((t) => (t <= 0 ? low : t >= 1 ? high : atKnot(low + t * (high - low))));
  for (const cut of cuts) {
    while (spline.knots.filter((knot) => knot === cut).length < degree + (cut === low || cut === high ? 1 : 0)) {
      if (spline.knots.filter((knot) => knot === cut).length >= degree && cut !== low && cut !== high) break;
      if (cut === low || cut === high) break;
      spline = withKnot(spline, cut);
    }
  }
  const [c, d] = cuts as [number, number];
  const inner = spline.knots.filter((knot) => knot > c && knot < d);
  const start = c === low ? 0 : spline.knots.findIndex((knot) => knot === c) - 1;
  const count = inner.length + degree + 1;
  const poles = spline.poles.slice(start, start + count);
  const knots = [...Array<number>(degree + 1).fill(c), ...inner, ...Array<number>(degree + 1).fill(d)];
  const part = freeOf({ degree, knots, poles }, free.weights !== undefined);
  const points = part.points.map((p, i) => (i === 0 && a ? a : i === part.points.length - 1 && b ? b : p));
  return { ...part, points };
};

/**
 * The curve as its last piece (or its first, at the start) runs on beyond the end. Without `much`: that part alone,
 * from the end on, as long again in parameter as the end piece. With `much` (0 to 1 of that part): the whole curve with
 * that much added; its end piece becomes longer, and the curve between its old ends stays what it was. Source: a
 * polynomial piece over a longer span (blossoming).
 */
export const extendedFree = (free: Free, atStart: boolean, much?: number): Free => {
  const { breaks } = freeSmooth({ ...free });
  const spans = [...new Set(breaks)];
  const cut = atStart ? spans[Math.min(2, spans.length - 1)]! : spans[Math.max(0, spans.length - 3)]!;
  const end = atStart ? reversedFree(partOfFree(free, 0, cut)) : partOfFree(free, cut, 1);
  const poles = splineOf(end).poles;
  const beyond = overSpan(poles, 1, 2);
  const asFree = (own: readonly Pole[]): Free =>
    freeOf({ degree: free.degree, knots: bezierKnots(free.degree), poles: own }, free.weights !== undefined);
  if (much === undefined) return asFree(beyond);
  const longer = asFree(overSpan(poles, 0, 1 + much));
  const joined = joinedFree(
    atStart ? reversedFree(longer) : cut > 0 ? partOfFree(free, 0, cut) : longer,
    atStart ? (cut < 1 ? partOfFree(free, cut, 1) : undefined) : cut > 0 ? longer : undefined,
  );
  return joined;
};

const bezierKnots = (degree: number): readonly number[] => [
  ...Array<number>(degree + 1).fill(0),
  ...Array<number>(degree + 1).fill(1),
];

/** The Bézier poles of the same polynomial over [from, to] instead of [0, 1]: its blossom at those ends. */
const overSpan = (poles: readonly Pole[], from: number, to: number): readonly Pole[] => {
  const degree = poles.length - 1;
  return poles.map((_, i) => {
    let row = poles.map((pole) => [...pole] as [number, number, number]);
    for (let r = 0; r < degree; r++) {
      const u = r < degree - i ? from : to;
      row = row
        .slice(0, -1)
        .map((pole, k) => pole.map((value, c) => (1 - u) * value + u * row[k + 1]![c]!) as [number, number, number]);
    }
    return row[0]!;
  });
};

/** The same curve run the other way. */
export const reversedFree = ({ degree, knots, points, weights }: Free): Free => {
  const [low, high] = [knots[0]!, knots.at(-1)!];
  return {
    degree,
    knots: knots.map((knot) => low + high - knot).reverse(),
    points: [...points].reverse(),
    ...(weights ? { weights: [...weights].reverse() } : {}),
  };
};

/** Two curves of one degree end to end as one; the second's knots follow on. */
export const joinedFree = (first: Free, second: Free | undefined): Free => {
  if (!second) return first;
  const { degree } = first;
  const shift = first.knots.at(-1)! - second.knots[0]!;
  return {
    degree,
    knots: [...first.knots.slice(0, -1), ...second.knots.slice(degree + 1).map((knot) => knot + shift)],
    points: [...first.points, ...second.points.slice(1)],
    ...(first.weights && second.weights ? { weights: [...first.weights, ...second.weights.slice(1)] } : {}),
  };
};

/** The free curve moved, turned, scaled or mirrored; exact, as its control points are. */
export const transformFree = (m: Similarity, free: Free): Free => ({
  ...free,
  points: free.points.map((p) => transformPoint(m, p)),
});
