import { least } from "../numeric/greatest.ts";
import { curveNearest } from "../geometry/curve.ts";
import { joinedFree, partOfFree, type Free } from "../geometry/free.ts";
import { add, distance, norm, subtract, times, type Point } from "../geometry/point.ts";
import { done, refuse, type Outcome } from "../numeric/outcome.ts";
import { RESOLUTION, SAME_DIRECTION } from "../numeric/tolerance.ts";
import { closedSlopes, freeThrough, openSlopes, splineOf } from "./freeThrough.ts";

/**
 * The points that a free curve was drawn through, in order; a closed one's first is not repeated. Undefined for one of
 * another make.
 */
export const freePoints = (free: Free): readonly Point[] | undefined => {
  const made = free.degree === 3 && !free.weights && free.points.length % 3 === 1;
  const triple = free.knots.every(
    (knot, i) => i < 1 || i >= free.knots.length - 1 || knot === free.knots[i - ((i - 1) % 3)],
  );
  if (!made || !triple) return undefined;
  const through = free.points.filter((_, i) => i % 3 === 0);
  return isClosed(free) ? through.slice(0, -1) : through;
};

const isClosed = ({ points }: Free): boolean => points.length > 4 && distance(points[0]!, points.at(-1)!) <= RESOLUTION;

/**
 * The points that steer a free curve of another make, without its going through them; a closed one's first three, which
 * come again at its end, once.
 */
export const steeringPoints = (free: Free): readonly Point[] =>
  isPeriodic(free) ? free.points.slice(0, -free.degree) : free.points;

const isPeriodic = ({ points, degree }: Free): boolean =>
  points.length > 2 * degree && points.slice(-degree).every((p, i) => p.x === points[i]!.x && p.y === points[i]!.y);

/** The curve with one of its steering points somewhere else. */
export const moveSteeringPoint = (free: Free, which: number, to: Point): Free => {
  const again = free.points.length - free.degree + which;
  const moves = (i: number): boolean => i === which || (isPeriodic(free) && which < free.degree && i === again);
  return { ...free, points: free.points.map((p, i) => (moves(i) ? to : p)) };
};

/** Which of its points is nearest to a place: of those it was drawn through, else of those that steer it. */
export const nearestFreePoint = (free: Free, at: Point): number => {
  const points = freePoints(free) ?? steeringPoints(free);
  const away = points.map((p) => distance(p, at));
  return away.indexOf(least(away));
};

/** True where an end has a direction of its own: it bends there, which an end let free does not. */
const bendsAt = (p: Point, q: Point, r: Point): boolean =>
  norm(add(subtract(p, times(q, 2)), r)) > SAME_DIRECTION * (norm(subtract(q, p)) + norm(subtract(r, q)));

const bentEnds = ({ points }: Free): readonly [start: boolean, end: boolean] => {
  const [a, b, c] = points.slice(-3).reverse() as [Point, Point, Point];
  return [bendsAt(points[0]!, points[1]!, points[2]!), bendsAt(a, b, c)];
};

/**
 * The curve with one of its points moved: all other points stay on it, its ends keep their direction where they have
 * one, and it stays as smooth as it was. Moved back, it is the curve that it was.
 *
 * Source: cubic interpolation is linear in its points, so the spline of the move alone is added; derived here.
 */
export const moveFreePoint = (free: Free, which: number, to: Point): Outcome<Free> => {
  const points = freePoints(free);
  if (!points?.[which]) return refuse("free-needed");
  if (points.some((p, i) => i !== which && distance(p, to) <= RESOLUTION)) return refuse("same-point");
  const by = subtract(to, points[which]);
  const closed = isClosed(free);
  const count = (free.points.length - 1) / 3 + 1;
  const moves = Array.from({ length: count }, (_, i) =>
    i === which || (closed && which === 0 && i === count - 1) ? by : { x: 0, y: 0 },
  );
  const h = moves.slice(1).map((_, i) => free.knots[3 * i + 4]! - free.knots[3 * i + 1]!);
  const still = { x: 0, y: 0 };
  const [start, end] = bentEnds(free);
  const slopes = closed
    ? closedSlopes(moves, h)
    : openSlopes(moves, h, start ? still : undefined, end ? still : undefined);
  const change = splineOf(moves, h, slopes);
  return done({ ...free, points: free.points.map((p, i) => add(p, change.points[i]!)) });
};

/** The same curve with one more point on it, nearest to a place. */
export const addFreePoint = (free: Free, at: Point): Outcome<Free> => {
  const points = freePoints(free);
  if (!points) return refuse("free-needed");
  const place = curveNearest({ kind: "free", ...free }, at);
  if (points.some((p) => distance(p, place.at) <= RESOLUTION)) return refuse("same-point");
  return done(joinedFree(partOfFree(free, 0, place.t), partOfFree(free, place.t, 1)));
};

/** The curve through the other points, its ends with their direction where they had one. */
export const removeFreePoint = (free: Free, which: number): Outcome<Free> => {
  const points = freePoints(free);
  if (!points?.[which]) return refuse("free-needed");
  const closed = isClosed(free);
  if (points.length <= (closed ? 3 : 2)) return refuse("free-too-few");
  const [start, end] = closed ? [false, false] : bentEnds(free);
  const last = free.points.length - 1;
  return freeThrough(
    points.filter((_, i) => i !== which),
    {
      start: start && which !== 0 ? subtract(free.points[1]!, free.points[0]!) : undefined,
      end: end && which !== points.length - 1 ? subtract(free.points[last]!, free.points[last - 1]!) : undefined,
    },
    closed,
  );
};
