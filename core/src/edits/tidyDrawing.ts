import { heldIds } from "../attach/holders.ts";
import { chainPieces, type Vertex } from "../contour/chain.ts";
import { cutEntities, entityOf, layerOf, settingsOf, type Drawing } from "../drawing/drawing.ts";
import type { Edit } from "../drawing/edit.ts";
import { lookOf, type Entity } from "../drawing/entity.ts";
import type { Ref } from "../drawing/ref.ts";
import { pieceLength, type Piece } from "../geometry/piece.ts";
import type { Id } from "../numeric/id.ts";
import type { Origin, Thing, Tidied, TidyResult } from "../tidy/things.ts";
import { draftEdit } from "./draftEdit.ts";

/**
 * What of a drawing is tidied: lines, arcs, circles and chains that are no layout, on layers that are not locked; all,
 * or those among `only`. Copies that a callout, a dimension or a note holds stay before
 * others.
 */
export const tidyThings = (drawing: Drawing, only?: ReadonlySet<Id>): readonly Thing[] => {
  const attached = heldIds(drawing);
  return cutEntities(drawing).flatMap((entity): Thing[] => {
    if ((only && !only.has(entity.id)) || layerOf(drawing, entity.layer)?.locked) return [];
    const shape = thingShape(entity);
    if (!shape) return [];
    return [{ ...lookOf(entity), id: entity.id, shape, ...(attached.has(entity.id) ? { attached: true } : {}) }];
  });
};

const thingShape = (entity: Entity): Thing["shape"] | undefined => {
  if (entity.kind === "piece") return { kind: "piece", a: entity.a, b: entity.b, bulge: entity.bulge };
  if (entity.kind === "circle") return { kind: "circle", centre: entity.centre, radius: entity.radius };
  return entity.kind === "chain" ? { kind: "chain", closed: entity.closed, pieces: chainPieces(entity) } : undefined;
};

const keyOf = ({ id, piece }: Origin): string => `${id} ${piece}`;

/**
 * The edit that makes of a drawing what tidying made of `things`; undefined where that changes nothing. Each thing
 * takes the id of the longest piece it was made of; what is attached follows, from copies that went to those that stay.
 */
export const tidyEdit = (
  drawing: Drawing,
  things: readonly Thing[],
  result: TidyResult,
  label: string,
): Edit | undefined => {
  const draft = draftEdit(drawing, label, "tidy");
  const taken = new Set<Id>(result.things.flatMap(({ same }) => same ?? []));
  const where = new Map<string, Ref>();
  const went: Origin[] = [];
  let any = false;
  for (const tidied of result.things) {
    if (tidied.same !== undefined) continue;
    any = true;
    const { entity, refs } = entityFor(drawing, tidied, taken, draft.newId);
    taken.add(entity.id);
    draft.replace(entity);
    tidied.origins.forEach((origins, i) =>
      origins.forEach((origin) => {
        where.set(keyOf(origin), refs[i]!);
        went.push(origin);
      }),
    );
  }
  for (const { id } of things) {
    if (taken.has(id)) continue;
    any = true;
    draft.remove(id);
  }
  if (!any) return undefined;
  for (const [gone, stays] of result.absorbed) {
    where.set(keyOf(gone), where.get(keyOf(stays)) ?? refOf(drawing, stays));
    went.push(gone);
  }
  const within = MOVED_WITHIN * settingsOf(drawing).joinTolerance;
  for (const origin of went) draft.became(refOf(drawing, origin), [where.get(keyOf(origin))!], { within });
  return draft.finish();
};

/**
 * What stays of copies and of ends that were brought together lies within so many join tolerances of what they were.
 */
const MOVED_WITHIN = 4;

const refOf = (drawing: Drawing, { id, piece }: Origin): Ref => {
  const entity = entityOf(drawing, id);
  return entity?.kind === "chain" ? { id, vertex: entity.vertices[piece]!.id } : { id };
};

const entityFor = (
  drawing: Drawing,
  { shape, layer, line, colour, origins }: Tidied,
  taken: ReadonlySet<Id>,
  newId: () => Id,
): { readonly entity: Entity; readonly refs: readonly Ref[] } => {
  const pieces: readonly Piece[] = shape.kind === "chain" ? shape.pieces : shape.kind === "piece" ? [shape] : [];
  const sources = origins
    .map((own, i) => ({ own, length: pieces[i] ? pieceLength(pieces[i]) : Infinity }))
    .sort((p, q) => q.length - p.length)
    .flatMap(({ own }) => own.map((origin) => origin.id));
  const id = sources.find((one) => !taken.has(one)) ?? newId();
  const traced = sources.some((source) => entityOf(drawing, source)?.traced) ? ({ traced: true } as const) : {};
  const rest = { id, layer: Number(layer), ...(line ? { line } : {}), ...(colour ? { colour } : {}), ...traced };
  if (shape.kind === "circle")
    return { entity: { kind: "circle", centre: shape.centre, radius: shape.radius, ...rest }, refs: [{ id }] };
  if (shape.kind === "piece")
    return { entity: { kind: "piece", a: shape.a, b: shape.b, bulge: shape.bulge, ...rest }, refs: [{ id }] };
  const vertices: Vertex[] = shape.pieces.map(({ a, bulge }) => ({ id: newId(), at: a, bulge }));
  const refs = vertices.map((vertex): Ref => ({ id, vertex: vertex.id }));
  if (!shape.closed) vertices.push({ id: newId(), at: shape.pieces.at(-1)!.b, bulge: 0 });
  return { entity: { kind: "chain", closed: shape.closed, vertices, ...rest }, refs };
};

/** Findings that the drafter left as they are, by their keys; they stay left. */
export const leftFindings = (drawing: Drawing): ReadonlySet<string> => new Set(settingsOf(drawing).left ?? []);

/** Leaves findings as they are, or takes that back. */
export const leaveFindings = (drawing: Drawing, keys: readonly string[], leave: boolean): Edit => {
  const draft = draftEdit(drawing, leave ? "Leave a finding" : "Look at a finding again", "settings");
  const left = new Set(leftFindings(drawing));
  for (const one of keys) {
    if (leave) left.add(one);
    else left.delete(one);
  }
  draft.set("settings", 0, { ...settingsOf(drawing), left: [...left] });
  return draft.finish();
};

/** How far apart ends may lie to be brought together: the drafter's own. */
export const setJoinTolerance = (drawing: Drawing, joinTolerance: number): Edit => {
  const draft = draftEdit(drawing, "Join tolerance", "settings");
  draft.set("settings", 0, { ...settingsOf(drawing), joinTolerance });
  return draft.finish();
};
