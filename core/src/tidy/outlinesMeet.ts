import type { BoxTree } from "../geometry/boxTree.ts";
import { distance, type Point } from "../geometry/point.ts";
import type { Degree, Leaving } from "./degree.ts";
import { leadNowhere } from "./leadNowhere.ts";
import type { Strand } from "./strands.ts";

/** True of a place at which more than two outlines of a class come together: an edge between two such is theirs. */
export type OutlinesMeet = (place: Point, own: number) => boolean;

/** An odd number of directions: of two outlines side by side the edge between them leaves, and both go on. */
const branches = ({ directions }: Leaving): boolean => directions % 2 === 1 && directions > 1;
/** All are there twice, more than two: the corner of four tiles, or what was drawn twice. */
const isDoubled = ({ directions, alone }: Leaving): boolean => directions > 3 && alone === 0;

/**
 * Where outlines meet: where an odd number of directions leaves, and within a field of tiles where all are there twice,
 * if from there along such edges a border of it is come to. What was drawn twice has none. Looked up once for a field.
 */
export const outlinesMeetOf = (
  strands: readonly Strand[],
  treeOf: () => BoxTree,
  classes: readonly number[],
  tolerance: number,
  degree: Degree,
): OutlinesMeet => {
  const known = new Map<string, boolean>();
  const keyOf = ({ x, y }: Point, own: number): string =>
    `${Math.round(x / tolerance)} ${Math.round(y / tolerance)} ${own}`;
  /** The other ends of what ends at a place. */
  const farEnds = (place: Point, own: number): readonly Point[] => {
    const ends: Point[] = [];
    const { x, y } = place;
    treeOf().within(x - tolerance, y - tolerance, x + tolerance, y + tolerance, (i) => {
      const { circle, piece, thing } = strands[i]!;
      if (circle || classes[thing] !== own) return;
      if (distance(piece.a, place) <= tolerance) ends.push(piece.b);
      else if (distance(piece.b, place) <= tolerance) ends.push(piece.a);
    });
    return ends;
  };
  let nowhere: Uint8Array | undefined;
  /** Outlines side by side: what leads nowhere is none that goes on there. */
  const isBorder = (place: Point, own: number): boolean => {
    if (!branches(degree(place, own))) return false;
    nowhere ??= leadNowhere(strands, classes, tolerance);
    return branches(degree(place, own, nowhere));
  };
  const reachesBorder = (from: Point, own: number): boolean => {
    const asked = known.get(keyOf(from, own));
    if (asked !== undefined) return asked;
    const field = [from];
    const keys = new Set([keyOf(from, own)]);
    let found = false;
    for (const place of field)
      for (const end of farEnds(place, own)) {
        if (keys.has(keyOf(end, own))) continue;
        found ||= isBorder(end, own);
        if (!isDoubled(degree(end, own))) continue;
        keys.add(keyOf(end, own));
        field.push(end);
      }
    for (const key of keys) known.set(key, found);
    return found;
  };
  return (place, own) => isBorder(place, own) || (isDoubled(degree(place, own)) && reachesBorder(place, own));
};
