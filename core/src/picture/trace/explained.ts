import { curveLength, curveNearest } from "../../geometry/curve.ts";
import type { Shape } from "./shapes.ts";
import { pointsIn, type Stroke } from "./strokes.ts";

export type Drawn = { readonly stroke: Stroke; readonly shape: Shape };

/** What lies within so many strokes of a longer one, but for so much of its points, is that gone over. */
const [BESIDE, BUT_FOR] = [1.4, 0.12];
/** And beside a round one so much of its length more: a hand comes round beside where it began. */
const COMES_ROUND = 0.006;

/** Without what only goes over longer ones once more. */
export const withoutGoneOver = (drawn: readonly Drawn[], width: number): readonly Drawn[] => {
  const kept: Drawn[] = [];
  for (const one of [...drawn].sort((p, q) => curveLength(q.shape) - curveLength(p.shape))) {
    const points = pointsIn(one.stroke);
    const explains = ({ shape }: Drawn): boolean => {
      const isRound = shape.kind === "circle" || shape.bulge !== 0;
      const limit = BESIDE * width + (isRound ? COMES_ROUND * curveLength(shape) : 0);
      let left = 0;
      const most = BUT_FOR * points.length;
      for (const p of points) if (curveNearest(shape, p).distance > limit && ++left > most) return false;
      return true;
    };
    if (!kept.some(explains)) kept.push(one);
  }
  return kept;
};
