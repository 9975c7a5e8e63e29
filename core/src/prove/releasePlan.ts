import { profileOf, type Contour } from "../contour/profile.ts";
import { enclosedArea } from "../contour/chainMeasure.ts";
import type { Drawing } from "../drawing/drawing.ts";
import { unitOf } from "../drawing/drawing.ts";
import type { Piece } from "../geometry/piece.ts";
import type { Point } from "../geometry/point.ts";
import type { Unit } from "../numeric/units.ts";
import { faultsOf, type Fault } from "./faults.ts";

/** One contour as it goes into a file. */
export type ReleasedContour = { readonly layer: string } & (
  | { readonly kind: "circle"; readonly centre: Point; readonly radius: number }
  | { readonly kind: "polyline"; readonly pieces: readonly Piece[] }
);

/** What a release would write, and what stands against it. */
export type ReleasePlan = {
  readonly unit: Unit;
  readonly contours: readonly ReleasedContour[];
  readonly faults: readonly Fault[];
  /** True when no fault is an error. */
  readonly ready: boolean;
};

/** Layer names by cut role: common practice, plain words in capitals. */
const LAYER_NAMES = { outside: "OUTSIDE", inside: "INSIDE", mark: "MARK" } as const;

/** Sorts a drawing's contours onto layers by nesting; layout never gets here. Inside contours come first, as they are cut first. */
export const planRelease = (drawing: Drawing): ReleasePlan => {
  const profile = profileOf(drawing);
  const faults = faultsOf(profile);
  const order = [...profile.contours].sort((p, q) => q.depth - p.depth);
  return {
    unit: unitOf(drawing),
    contours: order.filter(({ joined }) => joined).map(released),
    faults,
    ready: faults.every(({ severity }) => severity !== "error"),
  };
};

const released = (contour: Contour): ReleasedContour => {
  const layer = LAYER_NAMES[contour.role];
  if (contour.circle) return { kind: "circle", layer, ...contour.circle };
  return { kind: "polyline", layer, pieces: contour.pieces };
};

export const releasedArea = (contour: ReleasedContour): number =>
  contour.kind === "circle" ? Math.PI * contour.radius ** 2 : Math.abs(enclosedArea(contour.pieces));
