import { withMaterialLeft } from "../contour/materialLeft.ts";
import type { Piece } from "../geometry/piece.ts";
import type { Point } from "../geometry/point.ts";
import { offset, type OffsetOptions, type OffsetRun } from "./offset.ts";

/** What offsetting the material of some contours gives. */
export type RegionOffset = {
  readonly runs: readonly OffsetRun[];
  /** Contours of which nothing is left. */
  readonly vanished: readonly number[];
  /** Sources that ran into one another: each list became one contour. */
  readonly merged: readonly (readonly number[])[];
  /** Where something came out that does not close, which contours that cross one another can do; it is left out. */
  readonly failed: readonly Point[];
};

/**
 * The material that closed contours bound, grown by `grow` (shrunk where it is below 0): outer contours and holes go
 * opposite ways, and what runs into one another becomes one. Contours that don't cross are assumed, whatever way they
 * turn.
 */
export const offsetRegion = (
  contours: readonly (readonly Piece[])[],
  grow: number,
  options: OffsetOptions,
): RegionOffset => {
  const sources = withMaterialLeft(contours).map((pieces) => ({ pieces, closed: true }));
  const all = offset(sources, -grow, options);
  const runs = all.filter(({ closed }) => closed);
  const left = new Set(runs.flatMap(({ sources }) => sources));
  return {
    runs,
    vanished: contours.flatMap((_, i) => (left.has(i) ? [] : [i])),
    merged: runs.map(({ sources }) => sources).filter((sources) => sources.length > 1),
    failed: all.filter(({ closed }) => !closed).map(({ pieces }) => pieces[0]!.a),
  };
};
