import { calloutsOf, curveAt, cutEntities, entitiesOf, isLayout, type Drawing } from "../../drawing/drawing.ts";
import type { Edit } from "../../drawing/edit.ts";
import { curvesOf } from "../../drawing/entity.ts";
import type { Ref } from "../../drawing/ref.ts";
import { carrierOf, carrierNearest } from "../../geometry/curve.ts";
import { distance, type Point } from "../../geometry/point.ts";
import { done, refuse, type Outcome } from "../../numeric/outcome.ts";
import { RESOLUTION, TRUE_WITHIN } from "../../numeric/tolerance.ts";
import { draftEdit } from "../draftEdit.ts";

/**
 * Removes all layout geometry. A callout that was answered by two layout curves (a distance) moves over to the centres
 * that stand on them where a pair holds the called value; otherwise it is cut loose, and the edit says so.
 */
export const clearLayout = (drawing: Drawing): Outcome<Edit> => {
  const layout = [...entitiesOf(drawing)].filter((entity) => isLayout(drawing, entity));
  if (layout.length === 0) return refuse("nothing-to-clear");
  const draft = draftEdit(drawing, "Clear layout", "clear-layout");
  for (const { id } of layout) draft.remove(id);

  const going = new Set(layout.map(({ id }) => id));
  const centres = roundCentres(drawing);
  for (const callout of calloutsOf(drawing)) {
    if (callout.links.length !== 2 || !callout.links.some(({ id }) => going.has(id))) continue;
    const [on, off] = callout.links.map((ref) => centresOn(drawing, ref, centres)) as [AnswerPlace[], AnswerPlace[]];
    const pair = on
      .flatMap((p) => off.map((q) => [p, q] as const))
      .find(([p, q]) => p.ref.id !== q.ref.id && Math.abs(distance(p.at, q.at) - callout.value) <= TRUE_WITHIN);
    if (pair)
      draft.link(
        callout.id,
        pair.map(({ ref }) => ref),
      );
  }
  return done(draft.finish());
};

type AnswerPlace = { readonly ref: Ref; readonly at: Point };

/** Centres of full circles first: arcs may yet be trimmed. */
const roundCentres = (drawing: Drawing): readonly AnswerPlace[] =>
  cutEntities(drawing)
    .flatMap((entity) => curvesOf(entity))
    .sort((p, q) => Number(q.curve.kind === "circle") - Number(p.curve.kind === "circle"))
    .flatMap(({ curve, ref }) => {
      const carrier = carrierOf(curve);
      return carrier?.kind === "circle" ? [{ ref: { ...ref, place: "centre" as const }, at: carrier.centre }] : [];
    });

const centresOn = (drawing: Drawing, ref: Ref, centres: readonly AnswerPlace[]): AnswerPlace[] => {
  const curve = curveAt(drawing, ref);
  if (!curve) return [];
  const carrier = carrierOf(curve);
  return carrier ? centres.filter(({ at }) => distance(carrierNearest(carrier, at), at) <= RESOLUTION) : [];
};
