import type { Point } from "./point.ts";

/** An upright rectangle around something, in the job's unit. */
export type Bounds = { readonly minX: number; readonly minY: number; readonly maxX: number; readonly maxY: number };

/** The box round points; the points must be at least one. */
export const boundsOf = (points: readonly Point[]): Bounds => {
  let [minX, minY, maxX, maxY] = [Infinity, Infinity, -Infinity, -Infinity];
  for (const { x, y } of points) {
    if (x < minX) minX = x;
    if (y < minY) minY = y;
    if (x > maxX) maxX = x;
    if (y > maxY) maxY = y;
  }
  return { minX, minY, maxX, maxY };
};

/** The bounds of all; undefined when there are none. */
export const unionBounds = (all: readonly Bounds[]): Bounds | undefined => {
  if (all.length === 0) return undefined;
  let [minX, minY, maxX, maxY] = [Infinity, Infinity, -Infinity, -Infinity];
  for (const b of all) {
    minX = Math.min(minX, b.minX);
    minY = Math.min(minY, b.minY);
    maxX = Math.max(maxX, b.maxX);
    maxY = Math.max(maxY, b.maxY);
  }
  return { minX, minY, maxX, maxY };
};

/** The box grown on all sides. */
export const growBounds = (b: Bounds, by: number): Bounds => ({
  minX: b.minX - by,
  minY: b.minY - by,
  maxX: b.maxX + by,
  maxY: b.maxY + by,
});

/** True where two boxes have a place in common, their edges included. */
export const boundsMeet = (a: Bounds, b: Bounds): boolean =>
  a.minX <= b.maxX && b.minX <= a.maxX && a.minY <= b.maxY && b.minY <= a.maxY;

/** True where a box lies within another, edges included. */
export const boundsHold = (outer: Bounds, inner: Bounds): boolean =>
  outer.minX <= inner.minX && inner.maxX <= outer.maxX && outer.minY <= inner.minY && inner.maxY <= outer.maxY;

/** The longer side of a box. */
export const boundsSize = (b: Bounds): number => Math.max(b.maxX - b.minX, b.maxY - b.minY);

/** The largest coordinate in absolute value, for tolerances that depend on the distance from the origin. */
export const boundsExtent = (b: Bounds): number =>
  Math.max(Math.abs(b.minX), Math.abs(b.minY), Math.abs(b.maxX), Math.abs(b.maxY));

/** The middle of a box. */
export const boundsMiddle = ({ minX, minY, maxX, maxY }: Bounds): Point => ({
  x: (minX + maxX) / 2,
  y: (minY + maxY) / 2,
});

/** The box that holds all there is. */
export const EVERYWHERE: Bounds = { minX: -Infinity, minY: -Infinity, maxX: Infinity, maxY: Infinity };
