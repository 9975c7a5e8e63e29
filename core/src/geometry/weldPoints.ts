import { FINE_TOLERANCE } from "../numeric/tolerance.ts";
import { slotMask, squareAt, squareHash } from "./squares.ts";

/**
 * Which of many points (x and y in turn) are one: those within `tolerance` of each other, also through others between
 * them, share the number of the first of them. In time proportional to the points: they are put in squares, kept in a
 * table by a hash of their numbers, and each is measured against those before it in its own square and in those that it
 * lies within the tolerance of.
 */
export const weldPoints = (coordinates: Float64Array, tolerance: number): Int32Array => {
  const count = coordinates.length / 2;
  // few points share a square, and most lie in the midst of one
  const size = (tolerance < FINE_TOLERANCE ? 64 : 4) * tolerance;
  const mask = slotMask(count);
  const heads = new Int32Array(mask + 1).fill(-1);
  const nexts = new Int32Array(count);
  const nodeOf = new Int32Array(count);
  const root = (i: number): number => {
    let node = i;
    while (nodeOf[node] !== node) node = nodeOf[node] = nodeOf[nodeOf[node]!]!;
    return node;
  };
  const weld = (slot: number, i: number, x: number, y: number): void => {
    for (let j = heads[slot]!; j >= 0; j = nexts[j]!) {
      const dx = coordinates[2 * j]! - x;
      const dy = coordinates[2 * j + 1]! - y;
      if (Math.sqrt(dx * dx + dy * dy) > tolerance) continue;
      const one = root(i);
      const other = root(j);
      nodeOf[Math.max(one, other)] = Math.min(one, other);
    }
  };
  for (let i = 0; i < count; i++) {
    nodeOf[i] = i;
    const x = coordinates[2 * i]!;
    const y = coordinates[2 * i + 1]!;
    const left = squareAt((x - tolerance) / size);
    const right = squareAt((x + tolerance) / size);
    const below = squareAt((y - tolerance) / size);
    const above = squareAt((y + tolerance) / size);
    weld(squareHash(left, below) & mask, i, x, y);
    if (left !== right) weld(squareHash(right, below) & mask, i, x, y);
    if (below !== above) weld(squareHash(left, above) & mask, i, x, y);
    if (left !== right && below !== above) weld(squareHash(right, above) & mask, i, x, y);
    const own = squareHash(squareAt(x / size), squareAt(y / size)) & mask;
    nexts[i] = heads[own]!;
    heads[own] = i;
  }
  for (let i = 0; i < count; i++) nodeOf[i] = root(i);
  return nodeOf;
};
