import type { PlainCurve } from "../../geometry/curve.ts";
import type { Point } from "../../geometry/point.ts";
import type { Mask } from "./ink.ts";
import { alongOf, spanOf } from "./carriers.ts";
import { pointsOf, type Frame, type Stroke } from "./strokes.ts";

/** What a stroke is drawn as: a line or an arc, or a circle that comes round. Pixels, y down. */
export type Shape = Extract<PlainCurve, { kind: "piece" | "circle" }>;

/** An arc with ink about so much of its circle is one. */
const COMES_ROUND = 0.86;
/** Ink lies on a line no farther off than so many strokes. */
const ON = 0.8;

/** About which part of a circle there is ink. */
const inkRound = (centre: Point, radius: number, { width, height, data }: Mask, stroke: number): number => {
  const count = Math.max(12, Math.ceil(2 * Math.PI * radius));
  const reach = Math.max(1, ON * stroke);
  let found = 0;
  for (let k = 0; k < count; k++) {
    const angle = (2 * Math.PI * k) / count;
    const [c, s] = [Math.cos(angle), Math.sin(angle)];
    for (let off = -reach; off <= reach; off += 0.5) {
      const [x, y] = [Math.floor(centre.x + (radius + off) * c), Math.floor(centre.y + (radius + off) * s)];
      if (x < 0 || y < 0 || x >= width || y >= height || data[y * width + x] === 0) continue;
      found++;
      break;
    }
  }
  return found / count;
};

/** What a stroke's points are drawn as. */
export const shapeOf = (frame: Frame, stroke: Stroke, mask: Mask): Shape => {
  const runs = stroke.runs.map(pointsOf);
  const along = alongOf(frame, stroke, runs[0]![0]!);
  const { circle, round } = along;
  if (circle && inkRound(circle.centre, circle.radius, mask, frame.stroke) >= COMES_ROUND)
    return { kind: "circle", ...circle };
  if (!circle) {
    const { from, to } = spanOf(along, runs.flat());
    return { kind: "piece", a: along.place(from), b: along.place(to), bulge: 0 };
  }
  // what is widest open round it lies between its ends
  const at = runs
    .flat()
    .map((p) => along.at(p).t)
    .sort((p, q) => p - q);
  let [widest, after] = [at[0]! + round - at.at(-1)!, 0];
  for (let i = 1; i < at.length; i++) if (at[i]! - at[i - 1]! > widest) [widest, after] = [at[i]! - at[i - 1]!, i];
  const sweep = (round - widest) / circle.radius;
  const [a, b] = [along.place(at[after]!), along.place(at[after]! + round - widest)];
  return { kind: "piece", a, b, bulge: Math.tan(sweep / 4) };
};
