import type { Callout, CalloutKind } from "../drawing/callout.ts";
import { roundAt, settingsOf } from "../drawing/drawing.ts";
import { DATUM, sameRef, type Ref } from "../drawing/ref.ts";
import { distance, type Point } from "../geometry/point.ts";
import type { DrawingIndex } from "../look/drawingIndex.ts";
import { picksAt } from "../look/picking.ts";
import { snapsAt, type SnapKind } from "../look/snaps.ts";

/** Kinds that are measured between two things. */
const BETWEEN: ReadonlySet<CalloutKind> = new Set(["length", "centres", "angle"]);
const ENDS: ReadonlySet<SnapKind> = new Set(["end", "centre"]);

/**
 * What a click within `reach` of something says that a callout of a kind speaks of: of a size what is round there, of
 * a distance or an angle an end, a centre or the datum, else the edge. Undefined where nothing there would do.
 */
export const refPointed = (index: DrawingIndex, kind: CalloutKind, at: Point, reach: number): Ref | undefined => {
  const picks = picksAt(index, at, reach).map(({ ref }) => ref);
  if (BETWEEN.has(kind)) {
    const [place] = snapsAt(index, at, reach, { kinds: ENDS });
    if (place?.ref) return place.ref;
    // the layout lines through the datum are always there
    return distance(at, settingsOf(index.drawing).datum) <= reach ? DATUM : picks[0];
  }
  if (kind === "count" || kind === "chamfer") return picks[0];
  return picks.find((ref) => roundAt(index.drawing, ref));
};

/** What is pointed at with one more click: again on the same lets it go, and a third of two begins anew. */
export const withPointed = ({ kind }: Pick<Callout, "kind">, refs: readonly Ref[], ref: Ref): readonly Ref[] => {
  const rest = refs.filter((one) => !sameRef(one, ref));
  if (rest.length < refs.length) return rest;
  return BETWEEN.has(kind) && refs.length > 1 ? [ref] : [...refs, ref];
};
