import type { Circle } from "../../geometry/circle.ts";
import type { Point } from "../../geometry/point.ts";
import { momentsOf } from "../../fit/measured/moments.ts";
import type { Branch, Node } from "./graph.ts";
import type { Mask } from "./ink.ts";
import { partsOf } from "./parts.ts";
import { intoFrame, strokeOf, type Frame, type Stroke } from "./strokes.ts";

/** Small holes about a crossing, as drawn over a centre mark: between so many strokes in radius. */
export const [LEAST, MOST] = [2.4, 9];
/** Round them there is ink but for this part, and half way in less. */
const [ROUND, INSIDE] = [0.92, 0.7];
/** A spot of paper is so many squared strokes, and parted from the next by so many. */
const [SPOT, PARTED] = [0.4, 2.5];
/** Places looked at round one, how far aside ink counts, and how far off its middle is looked for, in strokes. */
const [PLACES, ASIDE, SHIFT] = [64, 0.5, 0.6];

/** Its points are the middles of its ink, which lie off the circle by `rms`. */
type Ring = { readonly at: Point; readonly radius: number; readonly points: readonly Point[]; readonly rms: number };

/** The ring of ink about a place or near it; undefined where there is none. */
export const ringAbout = (mask: Mask, at: Point, stroke: number): Ring | undefined => {
  let best: Ring | undefined;
  const shift = SHIFT * stroke;
  for (let radius = LEAST * stroke; radius <= MOST * stroke; radius += 0.5)
    for (const dx of [0, -shift, shift])
      for (const dy of [0, -shift, shift]) {
        const middle = { x: at.x + dx, y: at.y + dy };
        const points = inkAbout(mask, middle, radius, ASIDE * stroke);
        if (points.length < ROUND * PLACES) continue;
        const offs = points.map((p) => Math.hypot(p.x - middle.x, p.y - middle.y) - radius);
        const rms = Math.sqrt(offs.reduce((sum, off) => sum + off * off, 0) / offs.length);
        if (rms >= (best?.rms ?? Infinity) || inkAbout(mask, middle, radius / 2, 0).length > INSIDE * PLACES) continue;
        best = { at: middle, radius, points, rms };
      }
  return best;
};

/** On how many of its four sides there is ink ahead of a circle, as of a centre mark. */
export const crossedSides = ({ centre, radius }: Circle, { width, height, data }: Mask, stroke: number): number => {
  const far = radius + 1.2 * stroke;
  const inked = ([dx, dy]: readonly [number, number]): boolean =>
    [-1, 0, 1].some((aside) => {
      const x = Math.floor(centre.x + dx * far + (aside * dy * stroke) / 2);
      const y = Math.floor(centre.y + dy * far + (aside * dx * stroke) / 2);
      return x >= 0 && y >= 0 && x < width && y < height && data[y * width + x] === 1;
    });
  const sides = [
    [1, 0],
    [-1, 0],
    [0, 1],
    [0, -1],
  ] as const;
  return sides.filter(inked).length;
};

/** Middles between small spots of paper that a stroke parts: a hole with its centre mark has four. */
const betweenSpots = (mask: Mask, stroke: number): readonly Point[] => {
  const spots = partsOf(mask, 0).filter(
    ({ pixels, minX, minY, maxX, maxY }) =>
      pixels.length >= SPOT * stroke ** 2 && Math.max(maxX - minX, maxY - minY) <= MOST * stroke,
  );
  return spots.flatMap((p, i) =>
    spots.slice(i + 1).flatMap((q) => {
      const [dx, dy] = [Math.max(p.minX - q.maxX, q.minX - p.maxX), Math.max(p.minY - q.maxY, q.minY - p.maxY)];
      if (Math.max(dx, dy) > PARTED * stroke) return [];
      const [minX, maxX] = [Math.min(p.minX, q.minX), Math.max(p.maxX, q.maxX)];
      const [minY, maxY] = [Math.min(p.minY, q.minY), Math.max(p.maxY, q.maxY)];
      return [{ x: (minX + maxX + 1) / 2, y: (minY + maxY + 1) / 2 }];
    }),
  );
};

/** Rings round crossings: too small, and too much crossed, to be found by following their ink. */
export const ringsOf = (branches: readonly Branch[], mask: Mask, frame: Frame): readonly Stroke[] => {
  const nodes = new Set<Node>(branches.flatMap(({ ends }) => ends.filter((node) => node !== undefined)));
  const places = [...[...nodes].map(({ at }) => at), ...betweenSpots(mask, frame.stroke)];
  const rings = places.flatMap((at) => ringAbout(mask, at, frame.stroke) ?? []).sort((p, q) => p.rms - q.rms);
  const found: Ring[] = [];
  for (const one of rings)
    if (found.every(({ at, radius }) => Math.hypot(at.x - one.at.x, at.y - one.at.y) >= 1.5 * radius)) found.push(one);
  return found
    .map(({ points }) => {
      const framed = points.map((p) => intoFrame(frame, p));
      const moments = momentsOf(framed, new Uint8Array(points.length).fill(1));
      const line = { points, moments, mass: points.map(() => frame.stroke) };
      return strokeOf(frame, [{ line, from: 0, to: points.length }]);
    })
    .filter(({ kind }) => kind === "arc");
};

/** The middles of the ink about a circle, place by place; none where there is none. */
const inkAbout = ({ width, height, data }: Mask, at: Point, radius: number, aside: number): readonly Point[] => {
  const points: Point[] = [];
  for (let k = 0; k < PLACES; k++) {
    const angle = (2 * Math.PI * k) / PLACES;
    const [c, s] = [Math.cos(angle), Math.sin(angle)];
    let [sum, count] = [0, 0];
    for (let off = -aside; off <= aside; off += 0.5) {
      const [x, y] = [Math.floor(at.x + (radius + off) * c), Math.floor(at.y + (radius + off) * s)];
      if (x < 0 || y < 0 || x >= width || y >= height || data[y * width + x] === 0) continue;
      sum += off;
      count++;
    }
    if (count > 0) points.push({ x: at.x + (radius + sum / count) * c, y: at.y + (radius + sum / count) * s });
  }
  return points;
};
