import { chainPiece } from "../contour/chain.ts";
import { unionBounds, type Bounds } from "../geometry/bounds.ts";
import type { Circle } from "../geometry/circle.ts";
import { carrierOf, type Curve } from "../geometry/curve.ts";
import type { Point } from "../geometry/point.ts";
import type { Id } from "../numeric/id.ts";
import { refuse, type Outcome } from "../numeric/outcome.ts";
import { JOIN_TOLERANCE } from "../numeric/tolerance.ts";
import type { Unit } from "../numeric/units.ts";
import { shapeBounds, shapeCurves } from "../shape/kinds.ts";
import { FIRST_STYLE, type Annotation, type AnnotationStyle } from "./annotation.ts";
import type { Callout } from "./callout.ts";
import type { Entity } from "./entity.ts";
import { FIRST_LAYERS, LAYOUT_LAYER, PROFILE_LAYER, type Layer } from "./layer.ts";
import type { Making } from "./making.ts";
import { emptyPages, pageGet, pageRows, pagesWith, type Pages } from "./pages.ts";
import type { Picture } from "./picture.ts";
import { sameTarget, type Ref } from "./ref.ts";

/** One row: what holds for the whole drawing. */
export type Settings = {
  readonly id: 0;
  readonly unit: Unit;
  /** The point from which coordinates are measured. */
  readonly datum: Point;
  readonly joinTolerance: number;
  /** Findings of tidying that were left as they are. */
  readonly left?: readonly string[];
  /** Allowed either way where a callout says nothing of its own. */
  readonly generalTolerance?: number;
  /** Dimensions and notes are out of the way. */
  readonly annotationsHidden?: true;
  /** Dimensions and notes can't be changed or picked. */
  readonly annotationsLocked?: true;
  /** How they look in this job; as in the shop where it says nothing. */
  readonly annotationStyle?: AnnotationStyle;
  readonly making?: Making;
};

/** The tables of a drawing, by the name that changes use. */
export type Tables = {
  readonly entity: Pages<Entity>;
  readonly layer: Pages<Layer>;
  readonly callout: Pages<Callout>;
  readonly picture: Pages<Picture>;
  readonly annotation: Pages<Annotation>;
  readonly settings: Pages<Settings>;
};
export type TableName = keyof Tables;
export const TABLES: readonly TableName[] = ["entity", "layer", "callout", "picture", "annotation", "settings"];

/**
 * An immutable drawing. `nextId` only rises, undo included, so it is no part of the content that undo restores.
 */
export type Drawing = Tables & { readonly nextId: Id };

/** Callouts of a new drawing, without their ids. */
export type NewCallout = Omit<Callout, "id" | "links">;

/**
 * A drawing with its layers, its callouts, and a level and an upright layout line through the datum to lay out from.
 */
export const newDrawing = (unit: Unit, callouts: readonly NewCallout[] = []): Drawing => {
  let nextId = FIRST_LAYERS.length + 1;
  const datum = { x: 0, y: 0 };
  const lines = [0, Math.PI / 2].map((angle): Entity => ({
    kind: "endless",
    through: datum,
    angle,
    id: nextId++,
    layer: LAYOUT_LAYER,
  }));
  const rows = callouts.map((callout): Callout => ({ ...callout, links: [], id: nextId++ }));
  const settings: Settings = { id: 0, unit, datum, joinTolerance: JOIN_TOLERANCE[unit] };
  return {
    entity: pagesWith(
      emptyPages<Entity>(),
      lines.map((row) => [row.id, row]),
    ),
    layer: pagesWith(
      emptyPages<Layer>(),
      FIRST_LAYERS.map((row) => [row.id, row]),
    ),
    callout: pagesWith(
      emptyPages<Callout>(),
      rows.map((row) => [row.id, row]),
    ),
    picture: emptyPages<Picture>(),
    annotation: emptyPages<Annotation>(),
    settings: pagesWith(emptyPages<Settings>(), [[0, settings]]),
    nextId,
  };
};

/** The settings of a drawing: unit, tolerances, datum. */
export const settingsOf = (drawing: Drawing): Settings => pageGet(drawing.settings, 0)!;
/** The unit in which a drawing is drawn. */
export const unitOf = (drawing: Drawing): Unit => settingsOf(drawing).unit;
/** The entity of that id; undefined where there is none. */
export const entityOf = (drawing: Drawing, id: Id): Entity | undefined => pageGet(drawing.entity, id);
/** The layer of that id; undefined where there is none. */
export const layerOf = (drawing: Drawing, id: Id): Layer | undefined => pageGet(drawing.layer, id);
/** The refusal to change things of which one lies on a locked layer; undefined where none does. */
export const refuseLocked = (
  drawing: Drawing,
  ...things: readonly { readonly layer: Id }[]
): (Outcome<never> & { readonly ok: false }) | undefined => {
  const locked = things.map(({ layer }) => layerOf(drawing, layer)).find((layer) => layer?.locked);
  return locked && refuse("layer-locked", { layer: locked.name });
};
/** All entities in the order of their ids. */
export const entitiesOf = (drawing: Drawing): Iterable<Entity> => pageRows(drawing.entity);
/** All layers as they stand one after another: by their order, and by their ids where they have none. */
export const layersOf = (drawing: Drawing): readonly Layer[] =>
  [...pageRows(drawing.layer)].sort((p, q) => (p.order ?? p.id) - (q.order ?? q.id));
/** All pictures in the order of their ids. */
export const picturesOf = (drawing: Drawing): readonly Picture[] => [...pageRows(drawing.picture)];
/** All callouts in the order of their ids. */
export const calloutsOf = (drawing: Drawing): readonly Callout[] => [...pageRows(drawing.callout)];
/** All dimensions, notes and marks in the order of their ids. */
export const annotationsOf = (drawing: Drawing): readonly Annotation[] => [...pageRows(drawing.annotation)];
/** The dimension, note or mark of that id; undefined where there is none. */
export const annotationOf = (drawing: Drawing, id: Id): Annotation | undefined => pageGet(drawing.annotation, id);
/** The thread mark that a hole bears; undefined where it bears none. */
export const threadMarkOn = (drawing: Drawing, hole: Ref): Annotation | undefined =>
  annotationsOf(drawing).find(({ kind, refs }) => kind === "thread mark" && refs.some((ref) => sameTarget(ref, hole)));
/** How dimensions and notes of a job look. */
export const styleOf = (drawing: Drawing): AnnotationStyle => settingsOf(drawing).annotationStyle ?? FIRST_STYLE;

/** True where an entity lies on a layout layer, so that it is never cut. */
export const isLayout = (drawing: Drawing, entity: Entity): boolean =>
  layerOf(drawing, entity.layer)?.role === "layout";

/** Everything that is neither layout nor a point: what may be cut or marked. */
export const cutEntities = (drawing: Drawing): readonly Entity[] =>
  [...entitiesOf(drawing)].filter((entity) => entity.kind !== "point" && !isLayout(drawing, entity));

/** The curve that a reference names; undefined when it is gone or is a point. A chain is named by its vertex. */
export const curveAt = (drawing: Drawing, ref: Ref): Curve | undefined => {
  const entity = entityOf(drawing, ref.id);
  if (entity?.kind !== "chain") return entity && shapeCurves(entity)[0]?.curve;
  const piece = chainPiece(
    entity,
    entity.vertices.findIndex(({ id }) => id === ref.vertex),
  );
  return piece && { kind: "piece", ...piece };
};

/** The circle on which the curve that a reference names runs; undefined for what is not round, or is gone. */
export const roundAt = (drawing: Drawing, ref: Ref): Circle | undefined => {
  const curve = curveAt(drawing, ref);
  const carrier = curve && carrierOf(curve);
  return carrier?.kind === "circle" ? carrier : undefined;
};

/** The boxes of a page of rows: of what is cut or marked, and of everything. */
type PageBounds = { readonly layers: Pages<Layer>; readonly cut: Bounds | undefined; readonly all: Bounds | undefined };
const pageBounds = new WeakMap<object, PageBounds>();

/** Pages that an edit left alone keep their boxes. */
const boundsOfPage = (drawing: Drawing, page: readonly (Entity | undefined)[]): PageBounds => {
  const known = pageBounds.get(page);
  if (known?.layers === drawing.layer) return known;
  const cut: Bounds[] = [];
  const all: Bounds[] = [];
  for (const entity of page) {
    const box = entity && shapeBounds(entity);
    if (!box) continue;
    all.push(box);
    if (entity.kind !== "point" && !isLayout(drawing, entity)) cut.push(box);
  }
  const made: PageBounds = { layers: drawing.layer, cut: unionBounds(cut), all: unionBounds(all) };
  pageBounds.set(page, made);
  return made;
};

/** The bounds of what has some: layout lines are left out, and so is layout altogether where there is anything else. */
export const drawingBounds = (drawing: Drawing): Bounds | undefined => {
  const pages = drawing.entity.pages.flatMap((page) => (page ? [boundsOfPage(drawing, page)] : []));
  const union = (which: "cut" | "all"): Bounds | undefined => unionBounds(pages.flatMap((page) => page[which] ?? []));
  return union("cut") ?? union("all");
};

/** The content of the drawing as text, rows in id order: equal drawings give equal bytes. */
export const drawingText = (drawing: Drawing): string =>
  JSON.stringify(Object.fromEntries(TABLES.map((name) => [name, [...pageRows<unknown>(drawing[name])]])));

/** Tables that older drawings do without. */
export const LATER_TABLES = ["picture", "annotation"] as const satisfies readonly TableName[];
type LaterTable = (typeof LATER_TABLES)[number];

/** A drawing from its rows, as `drawingText` writes them (already checked at the door where they came in). */
export const drawingFromRows = (
  rows: { readonly [name in Exclude<TableName, LaterTable>]: readonly { id: Id }[] } & {
    readonly [name in LaterTable]?: readonly { id: Id }[];
  },
  nextId: Id,
): Drawing => {
  const table = (name: TableName): Pages<never> =>
    pagesWith(
      emptyPages<{ id: Id }>(),
      (rows[name] ?? []).map((row) => [row.id, row]),
    ) as Pages<never>;
  return {
    entity: table("entity"),
    layer: table("layer"),
    callout: table("callout"),
    picture: table("picture"),
    annotation: table("annotation"),
    settings: table("settings"),
    nextId,
  };
};

/** The layer on which most of what is cut lies, which is where more of it belongs; Profile in an empty drawing. */
export const mainLayer = (drawing: Drawing): Id => {
  const counts = new Map<Id, number>();
  for (const { layer } of cutEntities(drawing)) counts.set(layer, (counts.get(layer) ?? 0) + 1);
  let [main, most] = [PROFILE_LAYER, 0];
  for (const [id, count] of counts) {
    const layer = layerOf(drawing, id);
    if (layer && !layer.locked && layer.role !== "mark" && count > most) [main, most] = [id, count];
  }
  return main;
};
