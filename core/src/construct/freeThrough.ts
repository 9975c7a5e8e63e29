import type { Free } from "../geometry/free.ts";
import { add, distance, subtract, times, unit, type Point } from "../geometry/point.ts";
import { done, refuse, type Outcome } from "../numeric/outcome.ts";
import { RESOLUTION } from "../numeric/tolerance.ts";

/**
 * How a free curve leaves its first and meets its last point: a direction (any length), or as it likes (no bend at the
 * end).
 */
export type EndDirections = { readonly start?: Point | undefined; readonly end?: Point | undefined };

/**
 * The smooth curve through points in their order: cubic pieces with the same direction and bend where they join, as one
 * B-spline of degree 3. Closed, it comes back to its first point just as smoothly. Fewer than two points, or two at one
 * place in a row: a refusal.
 *
 * Source: cubic spline interpolation by its slopes (de Boor, A Practical Guide to Splines, ch. IV), over knots spaced
 * by the square root of the chords (centripetal, Lee 1989, from memory), which keeps it from looping between uneven
 * points.
 */
export const freeThrough = (
  points: readonly Point[],
  { start, end }: EndDirections = {},
  closed = false,
): Outcome<Free> => {
  const all = closed ? [...points, points[0]!] : points;
  if (points.length < (closed ? 3 : 2)) return refuse("same-point");
  const steps = all.slice(1).map((p, i) => distance(p, all[i]!));
  if (steps.some((step) => step <= RESOLUTION)) return refuse("same-point");
  const h = steps.map(Math.sqrt);
  const slopes = closed ? closedSlopes(all, h) : openSlopes(all, h, start, end);
  return done(splineOf(all, h, slopes));
};

/** The cubic B-spline through `all` with those slopes there, knots `h` apart. */
export const splineOf = (all: readonly Point[], h: readonly number[], slopes: readonly Point[]): Free => {
  const knots: number[] = [0, 0, 0, 0];
  const poles: Point[] = [all[0]!];
  let u = 0;
  h.forEach((step, i) => {
    poles.push(
      add(all[i]!, times(slopes[i]!, step / 3)),
      subtract(all[i + 1]!, times(slopes[i + 1]!, step / 3)),
      all[i + 1]!,
    );
    u += step;
    knots.push(u, u, u);
  });
  knots.push(u);
  return { degree: 3, knots, points: poles };
};

/** Slopes at the points of an open curve: tridiagonal, its ends given or without bend. */
export const openSlopes = (p: readonly Point[], h: readonly number[], start?: Point, end?: Point): readonly Point[] => {
  const n = p.length;
  const rows: { below: number; own: number; above: number; right: Point }[] = [];
  const chord = (i: number): Point => times(subtract(p[i + 1]!, p[i]!), 1 / h[i]!);
  // a given direction gets the length that the chord beside it has
  const given = (direction: Point, beside: Point): Point =>
    times(unit(direction) ?? { x: 0, y: 0 }, Math.hypot(beside.x, beside.y));
  rows.push(
    start
      ? { below: 0, own: 1, above: 0, right: given(start, chord(0)) }
      : { below: 0, own: 2, above: 1, right: times(chord(0), 3) },
  );
  for (let i = 1; i < n - 1; i++)
    rows.push({
      below: h[i]!,
      own: 2 * (h[i - 1]! + h[i]!),
      above: h[i - 1]!,
      right: add(times(chord(i - 1), 3 * h[i]!), times(chord(i), 3 * h[i - 1]!)),
    });
  rows.push(
    end
      ? { below: 0, own: 1, above: 0, right: given(end, chord(n - 2)) }
      : { below: 1, own: 2, above: 0, right: times(chord(n - 2), 3) },
  );
  return tridiagonal(rows);
};

const tridiagonal = (
  rows: readonly { below: number; own: number; above: number; right: Point }[],
): readonly Point[] => {
  const above: number[] = [];
  const right: Point[] = [];
  rows.forEach(({ below, own, above: next, right: b }, i) => {
    const pivot = own - (i > 0 ? below * above[i - 1]! : 0);
    above.push(next / pivot);
    right.push(times(i > 0 ? subtract(b, times(right[i - 1]!, below)) : b, 1 / pivot));
  });
  for (let i = rows.length - 2; i >= 0; i--) right[i] = subtract(right[i]!, times(right[i + 1]!, above[i]!));
  return right;
};

/** Slopes of a closed curve: the same condition all round (Sherman and Morrison on the corner terms). */
export const closedSlopes = (p: readonly Point[], h: readonly number[]): readonly Point[] => {
  const n = h.length;
  const at = (i: number): number => h[(i + n) % n]!;
  const chord = (i: number): Point => {
    const k = (i + n) % n;
    return times(subtract(p[k + 1]!, p[k]!), 1 / h[k]!);
  };
  const rows = Array.from({ length: n }, (_, i) => ({
    below: at(i),
    own: 2 * (at(i - 1) + at(i)),
    above: at(i - 1),
    right: add(times(chord(i - 1), 3 * at(i)), times(chord(i), 3 * at(i - 1))),
  }));
  const [first, last] = [rows[0]!, rows[n - 1]!];
  const gamma = -first.own;
  const [lower, upper] = [first.below, last.above]; // the corners: of row 0 to the last, of the last row to 0
  const changed = rows.map((row, i) =>
    i === 0
      ? { ...row, below: 0, own: row.own - gamma }
      : i === n - 1
        ? { ...row, above: 0, own: row.own - (lower * upper) / gamma }
        : row,
  );
  const x = tridiagonal(changed);
  const z = tridiagonal(
    changed.map((row, i) => ({ ...row, right: { x: i === 0 ? gamma : i === n - 1 ? upper : 0, y: 0 } })),
  ).map((one) => one.x);
  const factor = 1 + z[0]! + (lower * z[n - 1]!) / gamma;
  const dot = times(add(x[0]!, times(x[n - 1]!, lower / gamma)), 1 / factor);
  const slopes = x.map((slope, i) => subtract(slope, times(dot, z[i]!)));
  return [...slopes, slopes[0]!];
};
