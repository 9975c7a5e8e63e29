import { blocksOf } from "../contour/blocks.ts";
import { piecePoint } from "../geometry/piece.ts";
import { distance } from "../geometry/point.ts";
import { nodesOf } from "./nodes.ts";
import type { Strand } from "./strands.ts";

/**
 * 1 for every strand that no loop of its class goes through: whiskers, and bridges between outlines. Copies of one edge
 * are no loop. Linear but for the welding of ends.
 */
export const leadNowhere = (strands: readonly Strand[], classes: readonly number[], tolerance: number): Uint8Array => {
  const nodeOf = nodesOf(strands, classes, tolerance);
  const edgeOf = new Int32Array(strands.length).fill(-1);
  const between = new Map<string, number[]>(); // a strand of each edge from one node to another
  const nodes: number[] = [];
  strands.forEach(({ circle, piece }, i) => {
    if (circle) return;
    const [a, b] = [nodeOf[2 * i]!, nodeOf[2 * i + 1]!];
    const key = a < b ? `${a} ${b}` : `${b} ${a}`;
    const there = between.get(key) ?? [];
    if (there.length === 0) between.set(key, there);
    const middle = piecePoint(piece, 0.5);
    const same = there.find((j) => distance(piecePoint(strands[j]!.piece, 0.5), middle) <= 2 * tolerance);
    if (same !== undefined) edgeOf[i] = edgeOf[same]!;
    else {
      edgeOf[i] = nodes.length / 2;
      nodes.push(a, b);
      there.push(i);
    }
  });
  const blockOf = blocksOf(Int32Array.from(nodes));
  const edgesIn = new Int32Array(blockOf.length);
  for (const block of blockOf) edgesIn[block]! += 1;
  return Uint8Array.from(edgeOf, (edge) => {
    const loops = edge < 0 || nodes[2 * edge] === nodes[2 * edge + 1] || edgesIn[blockOf[edge]!]! > 1;
    return loops ? 0 : 1;
  });
};
