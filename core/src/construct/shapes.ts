import { arcAt } from "../geometry/circle.ts";
import { bulgeOf, type Piece } from "../geometry/piece.ts";
import { add, along, angleOf, distance, leftOf, subtract, times, turned, unit, type Point } from "../geometry/point.ts";
import { unitAt } from "../numeric/angle.ts";
import { done, refuse, type Outcome } from "../numeric/outcome.ts";
import { RESOLUTION } from "../numeric/tolerance.ts";

/** Closed pieces through points, straight where no bulge is given. */
const ring = (points: readonly Point[], bulges: readonly number[] = []): readonly Piece[] =>
  points.map((a, i) => ({ a, b: points[(i + 1) % points.length]!, bulge: bulges[i] ?? 0 }));

/** What the size of a polygon is measured as: the circle inside it, the circle round it, or one of its sides. */
export type PolygonSize = "flats" | "corners" | "side";

/**
 * A regular polygon, counter-clockwise from the corner at `angle` (radians) from the centre. Across flats and across
 * corners are diameters: of the circle that touches the sides and of the one through the corners. At least 3 sides.
 * Source: regular polygons (Machinery's Handbook): corner radius = flats / (2 cos(π/n)) = side / (2 sin(π/n)).
 */
export const polygonOf = (
  centre: Point,
  sides: number,
  size: number,
  as: PolygonSize,
  angle: number,
): Outcome<readonly Piece[]> => {
  if (!(Number.isInteger(sides) && sides >= 3)) return refuse("polygon-sides");
  if (sides > 1000) return refuse("value-too-large", { text: String(sides) });
  if (!(size > RESOLUTION)) return refuse("value-not-positive", { what: "The size" });
  const half = Math.PI / sides;
  const radius =
    as === "corners" ? size / 2 : as === "flats" ? size / (2 * Math.cos(half)) : size / (2 * Math.sin(half));
  return done(ring(Array.from({ length: sides }, (_, i) => arcAt(centre, radius, angle + 2 * half * i))));
};

/** The regular polygon on the side from `a` to `b`, on the left of it. */
export const polygonOnSide = (a: Point, b: Point, sides: number): Outcome<readonly Piece[]> => {
  if (!(Number.isInteger(sides) && sides >= 3 && sides <= 1000)) return refuse("polygon-sides");
  const side = distance(a, b);
  if (side <= RESOLUTION) return refuse("no-length");
  const points = [a, b];
  const step = (2 * Math.PI) / sides;
  for (let i = 2; i < sides; i++) {
    const last = points.at(-1)!;
    points.push(add(last, turned(subtract(b, a), step * (i - 1))));
  }
  return done(ring(points));
};

/**
 * A straight slot with full round ends between two centres: counter-clockwise. Centres at one place make a circle, so:
 * a refusal.
 */
export const slotOf = (p: Point, q: Point, width: number): Outcome<readonly Piece[]> => {
  if (!(width > RESOLUTION)) return refuse("value-not-positive", { what: "The width" });
  const along_ = unit(subtract(q, p));
  if (!along_ || distance(p, q) <= RESOLUTION) return refuse("same-point", {}, p);
  const out = times(leftOf(along_), width / 2);
  const right = times(out, -1);
  return done(ring([add(p, right), add(q, right), add(q, out), add(p, out)], [0, 1, 0, 1]));
};

/** A slot of an overall length about `middle`, at `angle`; no longer than wide is a refusal that names the width. */
export const slotByLength = (
  middle: Point,
  length: number,
  width: number,
  angle: number,
): Outcome<readonly Piece[]> => {
  if (length <= width + RESOLUTION) return refuse("slot-too-short", { limit: width });
  const half = (length - width) / 2;
  return slotOf(along(middle, unitAt(angle), -half), along(middle, unitAt(angle), half), width);
};

/**
 * A slot along an arc, with full round ends: its middle line runs about `centre` from `from` by `sweep` (radians,
 * either way). Half the width at least the radius leaves no inner side: a refusal that names the largest width.
 */
export const arcSlotOf = (centre: Point, from: Point, sweep: number, width: number): Outcome<readonly Piece[]> => {
  const radius = distance(centre, from);
  if (!(width > RESOLUTION)) return refuse("value-not-positive", { what: "The width" });
  if (radius <= width / 2 + RESOLUTION) return refuse("slot-too-wide", { limit: 2 * radius });
  const turn = Math.abs(sweep);
  const room = 2 * Math.PI - 2 * Math.asin(Math.min(1, width / 2 / radius));
  if (!(turn * radius > RESOLUTION) || turn >= room) return refuse("property-impossible");
  const start = angleOf(subtract(from, centre));
  const [first, last] = sweep > 0 ? [start, start + turn] : [start - turn, start];
  const at = (r: number, angle: number): Point => arcAt(centre, r, angle);
  const [inner, outer] = [radius - width / 2, radius + width / 2];
  const points = [at(outer, first), at(outer, last), at(inner, last), at(inner, first)];
  return done(ring(points, [bulgeOf(turn), 1, -bulgeOf(turn), 1]));
};

/**
 * The points of a bolt circle: `n` places on a circle about `centre`, the first at `first` (radians),
 * counter-clockwise.
 */
export const boltCircle = (centre: Point, radius: number, n: number, first: number): readonly Point[] =>
  Array.from({ length: n }, (_, i) => arcAt(centre, radius, first + (2 * Math.PI * i) / n));

/** The points of a grid: columns by rows from `at`, `dx` and `dy` apart, turned by `angle` about `at`; row by row. */
export const gridPoints = (
  at: Point,
  columns: number,
  rows: number,
  dx: number,
  dy: number,
  angle = 0,
): readonly Point[] => {
  const [right, up] = [unitAt(angle), leftOf(unitAt(angle))];
  return Array.from({ length: rows * columns }, (_, i) =>
    along(along(at, right, (i % columns) * dx), up, Math.floor(i / columns) * dy),
  );
};
