import { bulgeOf, type Piece } from "../geometry/piece.ts";
import { turned, type Point } from "../geometry/point.ts";
import { unitAt } from "../numeric/angle.ts";
import { done, refuse, type Outcome } from "../numeric/outcome.ts";
import { RESOLUTION } from "../numeric/tolerance.ts";

/** The nine places of a rectangle: across (0 left, 1 middle, 2 right) and up (0 bottom, 1 middle, 2 top). */
export type RectanglePlace = { readonly across: 0 | 1 | 2; readonly up: 0 | 1 | 2 };

/** How its corners are made: sharp, rounded with a radius, or cut by a length along both edges. */
export type CornerStyle = { readonly kind: "sharp" } | { readonly kind: "round" | "cut"; readonly size: number };

/** Cuts a quarter turn: tan of an eighth of a turn over two. */
const QUARTER = bulgeOf(Math.PI / 2);

/**
 * The closed outline of a rectangle, counter-clockwise from its lower left corner, turned by `angle` (radians) about
 * the place that lies at `at`. Corners that use up a whole edge leave no edge. A corner larger than half the shorter
 * side is a refusal that names the largest; sides must be above zero. Exact for level rectangles. Source: derived here.
 */
export const rectangleOf = (
  width: number,
  height: number,
  place: RectanglePlace,
  at: Point,
  corners: CornerStyle = { kind: "sharp" },
  angle = 0,
): Outcome<readonly Piece[]> => {
  if (!(width > RESOLUTION && height > RESOLUTION)) return refuse("no-length");
  const size = corners.kind === "sharp" || corners.size <= RESOLUTION ? 0 : corners.size;
  const largest = Math.min(width, height) / 2;
  if (size > largest)
    return refuse(corners.kind === "cut" ? "cut-too-large" : "radius-too-large", { typed: size, limit: largest });
  const [left, bottom] = [(-place.across * width) / 2, (-place.up * height) / 2];
  const [right, top] = [left + width, bottom + height];
  const put = (x: number, y: number): Point => {
    const p = angle === 0 ? { x, y } : turnedBy({ x, y }, angle);
    return { x: at.x + p.x, y: at.y + p.y };
  };
  if (size === 0)
    return done(ring([put(left, bottom), put(right, bottom), put(right, top), put(left, top)], [0, 0, 0, 0]));
  const bulge = corners.kind === "round" ? QUARTER : 0;
  const points = [
    put(left + size, bottom),
    put(right - size, bottom),
    put(right, bottom + size),
    put(right, top - size),
    put(right - size, top),
    put(left + size, top),
    put(left, top - size),
    put(left, bottom + size),
  ];
  const bulges = [0, bulge, 0, bulge, 0, bulge, 0, bulge];
  // corners that use up an edge leave none of it; the round end is one half turn then
  const gone = bulges.map((_, i) => i % 2 === 0 && (i % 4 === 0 ? width : height) === 2 * size);
  return done(ring(points, bulges, gone));
};

const turnedBy = (p: Point, angle: number): Point => {
  const { x, y } = unitAt(angle);
  return Number.isInteger(angle / (Math.PI / 2)) ? { x: p.x * x - p.y * y, y: p.x * y + p.y * x } : turned(p, angle);
};

/** The pieces through `points` with the bulge of each, without those that are gone. */
const ring = (points: readonly Point[], bulges: readonly number[], gone: readonly boolean[] = []): readonly Piece[] => {
  const kept = points.map((at, i) => ({ at, bulge: bulges[i]!, gone: gone[i] ?? false })).filter((one) => !one.gone);
  return kept.map(({ at, bulge }, i) => ({ a: at, b: kept[(i + 1) % kept.length]!.at, bulge }));
};
