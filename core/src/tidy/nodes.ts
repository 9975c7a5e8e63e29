import { weldEnds } from "../contour/joining.ts";
import type { Strand } from "./strands.ts";

/**
 * The node of every end of some strands (2 · strand, +1 for its end), numbered from 0 in the order in which they come:
 * ends within `tolerance` of each other share one where their things are of one of `groups`.
 */
export const nodesOf = (strands: readonly Strand[], groups: readonly number[], tolerance: number): Int32Array => {
  const welded = weldEnds(
    strands.map(({ piece }) => piece),
    tolerance,
  );
  const numbers = new Map<string, number>();
  return welded.map((node, end) => {
    const key = `${node} ${groups[strands[end >> 1]!.thing]!}`;
    const number = numbers.get(key) ?? numbers.size;
    numbers.set(key, number);
    return number;
  });
};
