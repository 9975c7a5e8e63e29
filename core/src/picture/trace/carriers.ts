import { distance, type Point } from "../../geometry/point.ts";
import { roundOf } from "../../fit/measured/moments.ts";
import { outOfFrame, type Frame, type Stroke } from "./strokes.ts";

/** What a stroke lies on (pixels): where a point is along it, how far off to its left, and how long round it is. */
export type Along = {
  readonly at: (p: Point) => { readonly t: number; readonly off: number };
  /** The place so far along. */
  readonly place: (t: number) => Point;
  readonly circle?: { readonly centre: Point; readonly radius: number };
  /** How long once round is; 0 of a line. */
  readonly round: number;
};

/** The line or circle nearest to sums; along a circle from the place that looks at `from`. */
export const alongOf = (frame: Frame, { kind, sums }: Pick<Stroke, "kind" | "sums">, from: Point): Along => {
  const found = kind === "arc" ? roundOf(sums) : undefined;
  if (found) {
    const centre = outOfFrame(frame, found.centre);
    const radius = found.radius * frame.size;
    const base = Math.atan2(from.y - centre.y, from.x - centre.x);
    return {
      at: (p) => {
        const turn = Math.atan2(p.y - centre.y, p.x - centre.x) - base;
        return { t: radius * Math.atan2(Math.sin(turn), Math.cos(turn)), off: distance(p, centre) - radius };
      },
      place: (t) => ({
        x: centre.x + radius * Math.cos(base + t / radius),
        y: centre.y + radius * Math.sin(base + t / radius),
      }),
      circle: { centre, radius },
      round: 2 * Math.PI * radius,
    };
  }
  const [w, x, y, xx, xy, yy] = sums as unknown as [number, number, number, number, number, number];
  const middle = outOfFrame(frame, { x: x / w, y: y / w });
  const angle = Math.atan2(2 * (xy - (x * y) / w), xx - (x * x) / w - (yy - (y * y) / w)) / 2;
  const [c, s] = [Math.cos(angle), Math.sin(angle)];
  return {
    at: (p) => {
      const [dx, dy] = [p.x - middle.x, p.y - middle.y];
      return { t: dx * c + dy * s, off: dy * c - dx * s };
    },
    place: (t) => ({ x: middle.x + t * c, y: middle.y + t * s }),
    round: 0,
  };
};

/** From where to where points lie along something; round a circle they go on from where the one before was. */
export const spanOf = (along: Along, points: readonly Point[]): { readonly from: number; readonly to: number } => {
  let [from, to, last] = [Infinity, -Infinity, along.at(points[0]!).t];
  for (const p of points) {
    const { t: own } = along.at(p);
    const t = along.round > 0 ? own + along.round * Math.round((last - own) / along.round) : own;
    last = t;
    from = Math.min(from, t);
    to = Math.max(to, t);
  }
  return { from, to };
};
