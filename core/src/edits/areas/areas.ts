import Flatbush from "flatbush";
import { arrange, outlineOf, type Arrangement, type Outline, type Owned } from "../../arrangement/index.ts";
import { chainOfPieces } from "../../contour/chain.ts";
import { entitiesOf, isLayout, layerOf, refuseLocked, settingsOf, type Drawing } from "../../drawing/drawing.ts";
import type { Edit } from "../../drawing/edit.ts";
import type { Entity } from "../../drawing/entity.ts";
import { ARC_PART } from "../../numeric/tolerance.ts";
import { fitCurve } from "../../fit/index.ts";
import { growBounds, boundsSize } from "../../geometry/bounds.ts";
import { endlessDirection } from "../../geometry/endless.ts";
import { pieceBounds, pieceNearest, piecesBounds, type Piece } from "../../geometry/piece.ts";
import { along, distance, type Point } from "../../geometry/point.ts";
import type { Id } from "../../numeric/id.ts";
import { done, refuse, type Outcome } from "../../numeric/outcome.ts";
import { isSmoothShape, shapePieces } from "../../shape/kinds.ts";
import type { Shape } from "../../shape/shape.ts";
import { draftEdit } from "../draftEdit.ts";

/** A gap between a loose end and what lies nearest to it. */
export type Gap = { readonly from: Point; readonly to: Point; readonly width: number };

/** The areas among everything that crosses in a drawing. */
export type AreaField = {
  readonly drawing: Drawing;
  readonly arrangement: Arrangement;
  readonly entities: readonly Entity[];
  /** Loose ends with what they miss, the narrowest first. */
  readonly gaps: readonly Gap[];
};

/**
 * What can bound an area: lines, arcs, circles, chains, and, where `layout` says so, layout with its endless lines cut
 * off round the rest.
 */
const boundariesOf = (drawing: Drawing, layout: boolean): readonly Entity[] =>
  [...entitiesOf(drawing)].filter((entity) => {
    const layer = layerOf(drawing, entity.layer);
    return layer?.role !== "mark" && layer?.shown && (layout || !isLayout(drawing, entity));
  });

const piecesOf = (entity: Entity, tolerance: number): readonly Piece[] =>
  isSmoothShape(entity) ? (fitCurve(entity, ARC_PART * tolerance)?.pieces ?? []) : (shapePieces(entity) ?? []);

/** The areas of a drawing, gaps up to `bridged` closed by straight pieces. */
export const areaField = (drawing: Drawing, layout: boolean, bridged = 0): AreaField => {
  const entities = boundariesOf(drawing, layout);
  const { joinTolerance } = settingsOf(drawing);
  const pieces: Owned[] = entities.flatMap((entity, owner) =>
    piecesOf(entity, joinTolerance).map(({ a, b, bulge }) => ({ a, b, bulge, owner })),
  );
  const box = piecesBounds(pieces);
  if (box)
    entities.forEach((entity, owner) => {
      if (entity.kind !== "endless") return;
      const reach = 2 * boundsSize(growBounds(box, 1)) + distance(entity.through, { x: box.minX, y: box.minY });
      const direction = endlessDirection(entity);
      pieces.push({
        a: along(entity.through, direction, -reach),
        b: along(entity.through, direction, reach),
        bulge: 0,
        owner,
      });
    });
  const arrangement = arrange(pieces);
  const gaps = gapsOf(arrangement);
  const near = gaps.filter(({ width }) => width <= bridged);
  if (near.length === 0) return { drawing, arrangement, entities, gaps };
  const closed = arrange([...pieces, ...near.map(bridgeOf)]);
  return { drawing, arrangement: closed, entities, gaps: gapsOf(closed) };
};

const BRIDGE = -1;
const bridgeOf = ({ from, to }: Gap): Owned => ({ a: from, b: to, bulge: 0, owner: BRIDGE });

const gapsOf = ({ vertices, edges }: Arrangement): readonly Gap[] => {
  const degree = new Int32Array(vertices.length);
  const own = new Int32Array(vertices.length);
  edges.forEach(({ start, end }, e) => {
    for (const vertex of [start, end]) {
      degree[vertex]! += 1;
      own[vertex] = e;
    }
  });
  if (edges.length < 2) return [];
  const index = new Flatbush(edges.length);
  for (const { piece } of edges) {
    const { minX, minY, maxX, maxY } = pieceBounds(piece);
    index.add(minX, minY, maxX, maxY);
  }
  index.finish();
  const gaps: Gap[] = [];
  vertices.forEach((from, vertex) => {
    if (degree[vertex] !== 1) return;
    let best: Gap | undefined;
    for (const e of index.neighbors(from.x, from.y, LOOKED_AT, Infinity, (other) => other !== own[vertex])) {
      const { at: to, distance: width } = pieceNearest(edges[e]!.piece, from);
      if (!best || width < best.width) best = { from, to, width };
    }
    if (best) gaps.push(best);
  });
  return gaps.sort((p, q) => p.width - q.width);
};

/** What lies nearest to an end is among so many whose boxes do. */
const LOOKED_AT = 8;

/** The gap through which the area round a place leaks; undefined where no gap that is left would close it. */
export const leakAt = ({ arrangement, gaps }: AreaField, at: Point): Gap | undefined => {
  const pieces = arrangement.edges.map(({ piece }): Owned => ({ ...piece, owner: 0 }));
  const tried = gaps.slice(0, GAPS_TRIED);
  const closes = (count: number): boolean =>
    arrange([...pieces, ...tried.slice(0, count).map(bridgeOf)]).faceAt(at) !== 0;
  if (tried.length === 0 || !closes(tried.length)) return undefined;
  let [open, closed] = [0, tried.length];
  while (closed - open > 1) {
    const middle = (open + closed) >> 1;
    if (closes(middle)) closed = middle;
    else open = middle;
  }
  return tried[closed - 1];
};

const GAPS_TRIED = 64;

/** The contours round the areas that some places lie in, a place twice in one area as none; refused where one leaks. */
export const areasAt = (field: AreaField, places: readonly Point[]): Outcome<readonly Outline[]> => {
  const faces = new Set<number>();
  for (const at of places) {
    const face = field.arrangement.faceAt(at);
    if (face === 0) {
      const leak = leakAt(field, at);
      return leak
        ? refuse("area-leaks", { gap: leak.width, x: leak.from.x, y: leak.from.y }, leak.from)
        : refuse("area-open");
    }
    if (!faces.delete(face)) faces.add(face);
  }
  if (faces.size === 0) return refuse("nothing-selected");
  return done(outlineOf(field.arrangement, (face) => faces.has(face)));
};

/** The circle or chain of an outline, its vertices with new ids. */
export const outlineShape = ({ circle, pieces }: Outline, newId: () => Id): Shape =>
  circle ? { kind: "circle", ...circle } : chainOfPieces(pieces, true, newId);

/**
 * Keeps the areas that some places lie in: their outline becomes contours on `layer`. Cut geometry that bounds them or
 * lies in them goes, if the rest is to be dropped.
 */
export const keepAreas = (
  field: AreaField,
  places: readonly Point[],
  layer: Id,
  drop: boolean,
): Outcome<{ readonly edit: Edit; readonly outlines: readonly Outline[] }> => {
  const { drawing, arrangement, entities } = field;
  const outlines = areasAt(field, places);
  if (!outlines.ok) return outlines;
  const faces = new Set<number>();
  for (const at of places) {
    const face = arrangement.faceAt(at);
    if (!faces.delete(face)) faces.add(face);
  }
  const goes = new Set<number>();
  if (drop)
    arrangement.edges.forEach(({ net }, e) => {
      if (faces.has(arrangement.faceOf[2 * e]!) || faces.has(arrangement.faceOf[2 * e + 1]!))
        for (const owner of net.keys()) if (owner !== BRIDGE && !isLayout(drawing, entities[owner]!)) goes.add(owner);
    });
  const gone = [...goes].map((owner) => entities[owner]!);
  const locked = refuseLocked(drawing, { layer }, ...gone);
  if (locked) return locked;
  const draft = draftEdit(drawing, "Keep areas", "keep-areas");
  for (const outline of outlines.value) draft.add(outlineShape(outline, draft.newId), layer);
  for (const { id } of gone) draft.remove(id);
  return done({ edit: draft.finish(), outlines: outlines.value });
};
