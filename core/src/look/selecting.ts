import { windingNumber } from "../contour/winding.ts";
import { entitiesOf, entityOf, isLayout, layerOf, type Drawing } from "../drawing/drawing.ts";
import { curvesOf, type Entity } from "../drawing/entity.ts";
import { boundsHold, boundsMeet, type Bounds } from "../geometry/bounds.ts";
import { carrierOf, curveBounds, curveLength, isSmooth, smoothOf, type Curve } from "../geometry/curve.ts";
import { pieceLength } from "../geometry/piece.ts";
import { meetings } from "../intersect/meetings.ts";
import type { Id } from "../numeric/id.ts";
import { RESOLUTION, TRUE_WITHIN } from "../numeric/tolerance.ts";
import { profileOf } from "../profile/profile.ts";
import { isSmoothShape, shapeBounds } from "../shape/kinds.ts";
import { searchIndex, type DrawingIndex } from "./drawingIndex.ts";

const selectable = (drawing: Drawing, entity: Entity): boolean => {
  const layer = layerOf(drawing, entity.layer);
  return layer !== undefined && layer.shown && !layer.locked;
};

/** What a box takes of curves that are one thing: one that lies in it whole, or one that it meets, too. */
export const boxTakes = (
  box: Bounds,
  how: "encloses" | "touches",
): ((bounds: Bounds | undefined, curves: readonly Curve[]) => boolean) => {
  const corners = [
    { x: box.minX, y: box.minY },
    { x: box.maxX, y: box.minY },
    { x: box.maxX, y: box.maxY },
    { x: box.minX, y: box.maxY },
  ];
  const sides = corners.map((a, i): Curve => ({ kind: "piece", a, b: corners[(i + 1) % 4]!, bulge: 0 }));
  return (bounds, curves) => {
    if (bounds && boundsHold(box, bounds)) return true;
    if (how === "encloses") return false;
    return curves.some((curve) => {
      const around = curveBounds(curve);
      if (around && !boundsMeet(around, box)) return false;
      return (around && boundsHold(box, around)) || sides.some((side) => meetings(curve, side, RESOLUTION).length > 0);
    });
  };
};

/**
 * What a box takes: everything that lies in it whole (`encloses`), or everything that it meets (`touches`). Endless
 * lines are taken only by touching. Nothing that is hidden or locked.
 */
export const selectByBox = (index: DrawingIndex, box: Bounds, how: "encloses" | "touches"): readonly Id[] => {
  const { drawing } = index;
  const ids = new Set(
    searchIndex(index, box)
      .filter(({ kind }) => kind === "curve" || kind === "point")
      .map(({ ref }) => ref.id),
  );
  const takes = boxTakes(box, how);
  return [...ids].filter((id) => {
    const entity = entityOf(drawing, id);
    if (!entity || !selectable(drawing, entity)) return false;
    return takes(
      shapeBounds(entity),
      curvesOf(entity).map(({ curve }) => curve),
    );
  });
};

/** The size by which things of one kind are told apart: radius, length, number of pieces. */
const sizeOf = (entity: Entity): number => {
  if (entity.kind === "circle") return entity.radius;
  if (entity.kind === "chain") return entity.vertices.length;
  if (isSmoothShape(entity)) return curveLength(entity);
  if (entity.kind !== "piece") return 0;
  const carrier = carrierOf(entity);
  return carrier.kind === "circle" ? carrier.radius : pieceLength(entity);
};

const kindOf = (entity: Entity): string =>
  entity.kind === "piece" ? (entity.bulge === 0 ? "line" : "arc") : entity.kind;

/** Everything like `id`: of its kind, of its kind and size, or on its layer. */
export const selectLike = (drawing: Drawing, id: Id, like: "kind" | "size" | "layer"): readonly Id[] => {
  const model = entityOf(drawing, id);
  if (!model) return [];
  const fits = (entity: Entity): boolean => {
    if (like === "layer") return entity.layer === model.layer;
    const same = kindOf(entity) === kindOf(model) && isLayout(drawing, entity) === isLayout(drawing, model);
    return same && (like === "kind" || Math.abs(sizeOf(entity) - sizeOf(model)) <= TRUE_WITHIN);
  };
  return [...entitiesOf(drawing)]
    .filter((entity) => selectable(drawing, entity) && fits(entity))
    .map(({ id: own }) => own);
};

/** Everything whole inside the contour that `id` belongs to, without the contour; nothing when it closes no contour. */
export const selectInside = (drawing: Drawing, id: Id): readonly Id[] => {
  const contour = profileOf(drawing).contours.find(({ ids }) => ids.includes(id));
  if (!contour) return [];
  const { bounds, pieces, ids } = contour;
  return [...entitiesOf(drawing)].flatMap((entity) => {
    const own = shapeBounds(entity);
    if (!own || ids.includes(entity.id) || !selectable(drawing, entity) || !boundsMeet(own, bounds)) return [];
    const ends = entity.kind === "point" ? [entity.at] : curvesOf(entity).flatMap(({ curve }) => endsOf(curve));
    return ends.every((p) => windingNumber(pieces, p) !== 0) ? [entity.id] : [];
  });
};

const endsOf = (curve: Curve): readonly { x: number; y: number }[] => {
  if (curve.kind === "piece") return [curve.a, curve.b];
  if (curve.kind === "endless") return [];
  if (isSmooth(curve)) return smoothOf(curve).breaks.map(smoothOf(curve).at);
  const { centre, radius } = curve;
  return [
    { x: centre.x + radius, y: centre.y },
    { x: centre.x - radius, y: centre.y },
    { x: centre.x, y: centre.y + radius },
    { x: centre.x, y: centre.y - radius },
  ];
};

/** The whole run that `id` belongs to: its contour or open chain, loose pieces that meet included. */
export const selectRun = (drawing: Drawing, id: Id): readonly Id[] => {
  const { contours, open } = profileOf(drawing);
  return [...contours, ...open].find(({ ids }) => ids.includes(id))?.ids ?? [id];
};

/** Everything that is not selected and could be. */
export const invertSelection = (drawing: Drawing, selected: ReadonlySet<Id>): readonly Id[] =>
  [...entitiesOf(drawing)]
    .filter((entity) => selectable(drawing, entity) && !selected.has(entity.id))
    .map(({ id }) => id);

/** What is selected, counted by kind: `2 circles, 1 line`. */
export const countByKind = (drawing: Drawing, ids: Iterable<Id>): string => {
  const counts = new Map<string, number>();
  for (const id of ids) {
    const entity = entityOf(drawing, id);
    if (!entity) continue;
    const layout = isLayout(drawing, entity) && entity.kind !== "point" ? "layout " : "";
    const name =
      entity.kind === "chain"
        ? entity.closed
          ? "contour"
          : "chain"
        : entity.kind === "endless"
          ? "line"
          : entity.kind === "free"
            ? "free curve"
            : kindOf(entity);
    counts.set(layout + name, (counts.get(layout + name) ?? 0) + 1);
  }
  return [...counts].map(([name, n]) => `${n} ${name}${n === 1 ? "" : "s"}`).join(", ");
};
