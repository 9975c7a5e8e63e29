import { boundsSize } from "../geometry/bounds.ts";
import { piecesBounds } from "../geometry/piece.ts";
import { RESOLUTION, SAME_SIZE } from "../numeric/tolerance.ts";
import { offset, type OffsetOptions } from "./offset.ts";
import type { OffsetSource } from "./sources.ts";

/**
 * The distance at which nothing is left of an offset that is empty at `by` (its sign is the side): half the widest
 * place there. Found by halving to 1e-9 of the size of the sources, so it is no closer than that.
 */
export const lastDistance = (sources: readonly OffsetSource[], by: number, options: OffsetOptions): number => {
  const size = boundsSize(piecesBounds(sources.flatMap(({ pieces }) => pieces))!);
  const side = Math.sign(by);
  let [some, none] = [0, Math.min(Math.abs(by), size)];
  while (none - some > SAME_SIZE * size) {
    const middle = (some + none) / 2;
    if (offset(sources, side * middle, options).length > 0) some = middle;
    else none = middle;
  }
  // what is thinner than the resolution is gone before; a round number as near as that is the one that is meant
  const even = Number(none.toPrecision(7));
  return Math.abs(even - none) <= 2 * SAME_SIZE * size + 4 * RESOLUTION ? even : none;
};
