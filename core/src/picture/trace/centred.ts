import type { Point } from "../../geometry/point.ts";
import type { Grid } from "./grey.ts";
import type { Path } from "./paths.ts";

/** A path on the middle of its ink, a point a pixel, and how much ink lies across it at each. */
export type Centred = { readonly points: readonly Point[]; readonly mass: readonly number[]; readonly closed: boolean };

/** Points on either side between which a path's direction is taken. */
const ASIDE = 4;
/** How far across it ink is looked for, in strokes, and in which steps (pixels). */
const [ACROSS, STEP] = [0.9, 0.5];

/** What lies at a place between pixels. */
export const between = ({ width, height, data }: Grid, x: number, y: number): number => {
  const [u, v] = [Math.min(Math.max(x - 0.5, 0), width - 1.001), Math.min(Math.max(y - 0.5, 0), height - 1.001)];
  const [i, j] = [Math.floor(u), Math.floor(v)];
  const [p, q] = [u - i, v - j];
  const at = j * width + i;
  const above = data[at]! * (1 - p) + data[at + 1]! * p;
  return above * (1 - q) + (data[at + width]! * (1 - p) + data[at + width + 1]! * p) * q;
};

/** Puts a path's points on the middle of the ink across them. */
export const centred = ({ points, closed }: Path, ink: Grid, paper: number, stroke: number): Centred => {
  const count = points.length;
  const at = (i: number): Point => points[closed ? (i + count) % count : Math.min(Math.max(i, 0), count - 1)]!;
  const mass: number[] = [];
  const moved = points.map((p, i): Point => {
    const [before, after] = [at(i - ASIDE), at(i + ASIDE)];
    const length = Math.hypot(after.x - before.x, after.y - before.y) || 1;
    const [nx, ny] = [-(after.y - before.y) / length, (after.x - before.x) / length];
    let [sum, weighted] = [0, 0];
    for (let t = -ACROSS * stroke; t <= ACROSS * stroke; t += STEP) {
      const own = Math.max(0, between(ink, p.x + t * nx, p.y + t * ny) - paper);
      sum += own;
      weighted += own * t;
    }
    mass.push(sum * STEP);
    const by = sum > 0 ? weighted / sum : 0;
    return { x: p.x + by * nx, y: p.y + by * ny };
  });
  return { points: moved, mass, closed };
};
