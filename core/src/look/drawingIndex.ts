import Flatbush from "flatbush";
import { centroidOf } from "../contour/centroid.ts";
import { chainPieces } from "../contour/chain.ts";
import { entitiesOf, layerOf, type Drawing } from "../drawing/drawing.ts";
import { curvesOf, type Entity } from "../drawing/entity.ts";
import { pageChanges } from "../drawing/pages.ts";
import type { Ref } from "../drawing/ref.ts";
import { boundsMeet, type Bounds } from "../geometry/bounds.ts";
import { curveBounds, type Curve } from "../geometry/curve.ts";
import { pieceCentre } from "../geometry/piece.ts";
import type { Point } from "../geometry/point.ts";

/**
 * One thing that can be found: a curve, the centre of a round one, the centre of area of a contour, or a layout point.
 */
export type Item =
  | { readonly kind: "curve"; readonly ref: Ref; readonly curve: Curve; readonly bounds?: Bounds }
  | {
      readonly kind: "centre" | "area" | "point";
      /** Worked out from an arc, and so good only to its last bits. */
      readonly derived?: boolean;
      readonly ref: Ref;
      readonly at: Point;
      readonly bounds: Bounds;
    };

/**
 * Where things are. A static index of everything as it stood, with a short list of changes beside it; endless lines
 * have no bounds and are always answered.
 */
export type DrawingIndex = {
  readonly drawing: Drawing;
  readonly tree: Flatbush | undefined;
  readonly items: readonly Item[];
  readonly endless: readonly Item[];
  readonly gone: ReadonlySet<number>;
  readonly fresh: readonly Item[];
};

/** More changes than this beside the tree, and it is built anew. */
const FRESH_LIMIT = 2000;

const pointBounds = ({ x, y }: Point): Bounds => ({ minX: x, minY: y, maxX: x, maxY: y });

const itemsOf = (drawing: Drawing, entity: Entity): readonly Item[] => {
  if (layerOf(drawing, entity.layer)?.shown === false) return [];
  if (entity.kind === "point")
    return [{ kind: "point", ref: { id: entity.id }, at: entity.at, bounds: pointBounds(entity.at) }];
  const middle = entity.kind === "chain" && entity.closed ? centroidOf(chainPieces(entity)) : undefined;
  const area: Item[] = middle
    ? [{ kind: "area", ref: { id: entity.id }, at: middle, bounds: pointBounds(middle) }]
    : [];
  const curves = curvesOf(entity).flatMap(({ curve, ref }): Item[] => {
    const bounds = curveBounds(curve);
    const centre =
      curve.kind === "circle" || curve.kind === "ellipse"
        ? curve.centre
        : curve.kind === "piece"
          ? pieceCentre(curve)
          : undefined;
    const item: Item = { kind: "curve", ref, curve, ...(bounds ? { bounds } : {}) };
    return centre
      ? [
          item,
          {
            kind: "centre",
            ref: { ...ref, place: "centre" },
            at: centre,
            bounds: pointBounds(centre),
            ...(curve.kind === "piece" ? { derived: true } : {}),
          },
        ]
      : [item];
  });
  return [...curves, ...area];
};

/** A fresh index of everything shown: n log n. */
export const indexDrawing = (drawing: Drawing): DrawingIndex => {
  const all = [...entitiesOf(drawing)].flatMap((entity) => itemsOf(drawing, entity));
  const items = all.filter(({ bounds }) => bounds);
  let tree: Flatbush | undefined;
  if (items.length > 0) {
    tree = new Flatbush(items.length);
    for (const { bounds } of items) tree.add(bounds!.minX, bounds!.minY, bounds!.maxX, bounds!.maxY);
    tree.finish();
  }
  return { drawing, tree, items, endless: all.filter(({ bounds }) => !bounds), gone: new Set(), fresh: [] };
};

/** The index of `drawing`, made from that of a drawing before it where few things changed. */
export const reindex = (index: DrawingIndex, drawing: Drawing): DrawingIndex => {
  if (index.drawing === drawing) return index;
  if (index.drawing.layer !== drawing.layer) return indexDrawing(drawing);
  const gone = new Set(index.gone);
  const touched = new Set<number>();
  const added: Entity[] = [];
  for (const [before, after] of pageChanges(index.drawing.entity, drawing.entity)) {
    if (before) {
      gone.add(before.id);
      touched.add(before.id);
    }
    if (after) added.push(after);
    if (gone.size + added.length > FRESH_LIMIT) return indexDrawing(drawing);
  }
  const now = added.flatMap((entity) => itemsOf(drawing, entity));
  const stays = ({ ref }: Item): boolean => !touched.has(ref.id);
  return {
    ...index,
    drawing,
    gone,
    fresh: [...index.fresh.filter(stays), ...now.filter(({ bounds }) => bounds)],
    endless: [...index.endless.filter(stays), ...now.filter(({ bounds }) => !bounds)],
  };
};

/**
 * The `count` things whose bounds lie nearest to `at`, no farther than `reach`; endless lines and fresh changes
 * besides.
 */
export const nearestInIndex = (index: DrawingIndex, at: Point, count: number, reach: number): readonly Item[] => {
  const hits = index.tree?.neighbors(at.x, at.y, count, reach) ?? [];
  const standing = hits.map((i) => index.items[i]!).filter(({ ref }) => !index.gone.has(ref.id));
  const box = { minX: at.x - reach, minY: at.y - reach, maxX: at.x + reach, maxY: at.y + reach };
  const fresh = index.fresh.filter((item) => boundsMeet(item.bounds!, box)).slice(0, count);
  return [...standing, ...fresh, ...index.endless];
};

/** Everything whose bounds meet `bounds`, and every endless line. */
export const searchIndex = (index: DrawingIndex, bounds: Bounds): readonly Item[] => {
  const hits = index.tree?.search(bounds.minX, bounds.minY, bounds.maxX, bounds.maxY) ?? [];
  const standing = hits.map((i) => index.items[i]!).filter(({ ref }) => !index.gone.has(ref.id));
  return [...standing, ...index.fresh.filter((item) => boundsMeet(item.bounds!, bounds)), ...index.endless];
};
