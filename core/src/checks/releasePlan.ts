import { enclosedArea } from "../contour/chainMeasure.ts";
import { unitOf, type Drawing } from "../drawing/drawing.ts";
import type { Piece } from "../geometry/piece.ts";
import type { Point } from "../geometry/point.ts";
import type { Unit } from "../numeric/units.ts";
import { allowanceFor } from "../offset/allowance.ts";
import { profileOf, type Contour } from "../profile/profile.ts";
import type { Fault } from "./check.ts";
import { faultsOf, gravestFirst } from "./list.ts";
import { isReady } from "./ready.ts";

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
  /** True when something closes and no fault is an error. */
  readonly ready: boolean;
};

/** Layer names by cut role: common practice, plain words in capitals. */
const LAYER_NAMES = { outside: "OUTSIDE", inside: "INSIDE", mark: "MARK" } as const;

/**
 * Sorts a drawing's contours onto layers by nesting; layout never gets here. Inside contours come first, as they are
 * cut first. With a cutter's diameter they are the way of its middle, outside of outer contours and inside of inner
 * ones, and where it can't get is told.
 */
export const planRelease = (drawing: Drawing, cutter = 0): ReleasePlan => {
  const profile = profileOf(drawing);
  const order = [...profile.contours].filter(({ joined }) => joined).sort((p, q) => q.depth - p.depth);
  const cut = order.filter(({ role }) => role !== "mark");
  const found = faultsOf(profile);
  const blocked = found.some(({ severity }) => severity === "error");
  const marks = order.filter(({ role }) => role === "mark").map(released);
  const allowed = cutter > 0 && !blocked ? withAllowance(cut, cutter / 2) : undefined;
  const faults = gravestFirst([...found, ...(allowed?.faults ?? [])]);
  return {
    unit: unitOf(drawing),
    contours: [...(allowed?.contours ?? cut.map(released)), ...marks],
    faults,
    ready: isReady(cut.length > 0, faults),
  };
};

const withAllowance = (
  cut: readonly Contour[],
  radius: number,
): { readonly contours: readonly ReleasedContour[]; readonly faults: readonly Fault[] } => {
  const { runs, unreached, vanished, failed, merged } = allowanceFor(
    cut.map(({ pieces }) => pieces),
    radius,
  );
  const values = { cutter: 2 * radius };
  const at = (place: Point, ids: Fault["ids"], code: Fault["code"], severity: Fault["severity"]): Fault => ({
    code,
    severity,
    at: place,
    ids,
    values,
  });
  const contours = runs.map(({ circle, pieces, sources }): ReleasedContour => {
    const layer = LAYER_NAMES[cut[sources[0]!]!.role];
    return circle ? { kind: "circle", layer, ...circle } : { kind: "polyline", layer, pieces };
  });
  return {
    contours: contours.sort((p, q) => Number(q.layer === LAYER_NAMES.inside) - Number(p.layer === LAYER_NAMES.inside)),
    faults: [
      ...vanished.map((i) => at(cut[i]!.pieces[0]!.a, cut[i]!.ids, "cutter-gone", "error")),
      ...merged.map((all) =>
        at(
          cut[all[0]!]!.pieces[0]!.a,
          all.flatMap((i) => cut[i]!.ids),
          "cutter-merged",
          "error",
        ),
      ),
      ...failed.map((place) => at(place, [], "cutter-gone", "error")),
      ...unreached.map((one) =>
        at(one.at, cut[one.contour]!.ids, one.kind === "corner" ? "cutter-corner" : "cutter-narrow", "warning"),
      ),
    ],
  };
};

const released = (contour: Contour): ReleasedContour => {
  const layer = LAYER_NAMES[contour.role];
  if (contour.circle) return { kind: "circle", layer, ...contour.circle };
  return { kind: "polyline", layer, pieces: contour.pieces };
};

/** The area that a contour encloses, in square drawing units, whichever way round it runs. */
export const releasedArea = (contour: ReleasedContour): number =>
  contour.kind === "circle" ? Math.PI * contour.radius ** 2 : Math.abs(enclosedArea(contour.pieces));
