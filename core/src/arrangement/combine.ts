import { withMaterialLeft } from "../contour/materialLeft.ts";
import type { Piece } from "../geometry/piece.ts";
import { arrange, type Owned } from "./arrange.ts";
import { outlineOf, type Outline } from "./outline.ts";

export const COMBINATIONS = ["unite", "take-away", "common"] as const;
export type Combination = (typeof COMBINATIONS)[number];

/** An area: closed contours with their holes, whatever way they turn. */
export type Area = readonly (readonly Piece[])[];

/**
 * Areas united, the others taken away from the first, or what all have in common: contours of lines and arcs, arcs kept
 * as they are, shared edges and touching places right. Nothing left: an empty list.
 */
export const combine = (areas: readonly Area[], how: Combination): readonly Outline[] => {
  const pieces = areas.flatMap((area, owner) =>
    withMaterialLeft(area).flatMap((contour) => contour.map(({ a, b, bulge }): Owned => ({ a, b, bulge, owner }))),
  );
  const arrangement = arrange(pieces);
  const within = (winding: ReadonlyMap<number, number>): boolean => {
    const holding = [...winding].filter(([, times]) => times > 0).map(([owner]) => owner);
    if (how === "unite") return holding.length > 0;
    return how === "common" ? holding.length === areas.length : holding.length === 1 && holding[0] === 0;
  };
  const faces = arrangement.windings.map(within);
  return outlineOf(arrangement, (face) => faces[face]!);
};
