import { placeOf } from "../attach/places.ts";
import type { Annotation } from "../drawing/annotation.ts";
import { curveAt, entityOf, type Drawing } from "../drawing/drawing.ts";
import { sameTarget, type Place, type Ref } from "../drawing/ref.ts";
import type { Curve } from "../geometry/curve.ts";
import type { Point } from "../geometry/point.ts";

const crossed = (place: Place | undefined): Ref | undefined =>
  typeof place === "object" && "crosses" in place ? place.crosses : undefined;

/** What an annotation holds: curves, of a joined contour the very pieces; and places on others. */
export const heldBy = (
  drawing: Drawing,
  { refs }: Pick<Annotation, "refs">,
): { readonly curves: readonly Curve[]; readonly places: readonly Point[] } => {
  const curves: Curve[] = [];
  const places: Point[] = [];
  for (const ref of refs) {
    // a centre is seen by what is round it
    const curve = ref.place === undefined || ref.place === "centre" ? curveAt(drawing, ref) : undefined;
    const place = curve ? undefined : placeOf(drawing, ref);
    if (curve) curves.push(curve);
    if (place) places.push(place);
  }
  return { curves, places };
};

/** Says of annotations whether they hold a curve, or a place on it: of a joined contour the very piece and its ends. */
export const holdersOfCurve = (drawing: Drawing, curve: Ref): ((annotation: Annotation) => boolean) => {
  const entity = entityOf(drawing, curve.id);
  const vertices = entity?.kind === "chain" ? entity.vertices : [];
  const i = vertices.findIndex(({ id }) => id === curve.vertex);
  const beside = (by: number): number | undefined => vertices.at((i + by) % vertices.length)?.id;
  const [before, after] = i < 0 ? [] : [beside(-1), beside(1)];
  const holds = (ref: Ref): boolean =>
    sameTarget(ref, curve) ||
    (ref.id === curve.id &&
      ref.vertex !== undefined &&
      ((ref.vertex === after && ref.place === "start") || (ref.vertex === before && ref.place === "end")));
  return ({ refs }) =>
    refs.some((ref) => {
      const other = crossed(ref.place);
      return holds(ref) || (other !== undefined && holds(other));
    });
};
