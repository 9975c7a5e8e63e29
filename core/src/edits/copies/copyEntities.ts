import { turnedPlace } from "../../attach/carryPlace.ts";
import { movedAnnotation } from "../../attach/frame.ts";
import type { Vertex } from "../../contour/chain.ts";
import type { Annotation } from "../../drawing/annotation.ts";
import type { CalloutKind } from "../../drawing/callout.ts";
import { annotationsOf, calloutsOf, entityOf, refuseLocked, type Drawing } from "../../drawing/drawing.ts";
import type { Edit } from "../../drawing/edit.ts";
import { lookOf, type Entity } from "../../drawing/entity.ts";
import { pageGet } from "../../drawing/pages.ts";
import { DATUM, type Ref } from "../../drawing/ref.ts";
import { endlessSide } from "../../geometry/endless.ts";
import { cross, distance, dot, equalPoint, norm, subtract, times, type Point } from "../../geometry/point.ts";
import { mirroring, transformPoint, type Similarity } from "../../geometry/transform.ts";
import type { Id } from "../../numeric/id.ts";
import { done, refuse, type Outcome } from "../../numeric/outcome.ts";
import { RESOLUTION, PARALLEL, SAME_DIRECTION } from "../../numeric/tolerance.ts";
import { renewedShape, shapeIds, transformShape } from "../../shape/kinds.ts";
import type { Shape } from "../../shape/shape.ts";
import { draftEdit, type EditDraft } from "../draftEdit.ts";

/** What is called of a size or a number of things is called of their copies as well: R 18, 3 off. */
const CALLED_OF_COPIES: ReadonlySet<CalloutKind> = new Set(["radius", "diameter", "thread", "count"]);

/**
 * The ids of what was copied, its vertices' among them, by those of what it is a copy of; `turned`: the chains that
 * became one with their image, in which the copy of a piece is another piece that runs the other way.
 */
type Copied = { readonly ids: Map<Id, Id>; readonly turned: Set<Id> };
const nothingCopied = (): Copied => ({ ids: new Map(), turned: new Set() });

/** Adds a copy of an entity in its own look, with ids of its own, and ties what is called of the one to the other. */
const addCopy = (drawing: Drawing, draft: EditDraft, source: Entity, image: Shape, copied: Copied): void => {
  const shape = renewedShape(image, draft.newId);
  const id = draft.add({ ...shape, ...lookOf(source) }, source.layer);
  const [from, to] = [shapeIds(source), shapeIds(shape)];
  copied.ids.set(source.id, id);
  from.forEach((own, i) => copied.ids.set(own, to[i]!));
  for (const callout of calloutsOf(drawing)) {
    if (!CALLED_OF_COPIES.has(callout.kind)) continue;
    const refs = callout.links
      .filter((ref) => ref.id === source.id)
      .map((ref): Ref => ({
        ...ref,
        id,
        ...(ref.vertex === undefined ? {} : { vertex: to[from.indexOf(ref.vertex)]! }),
      }));
    if (refs.length > 0) draft.link(callout.id, refs, true);
  }
};

/** A reference to the copy of what it named; undefined where not all of that was copied. The datum is its own copy. */
const copyRef = (ref: Ref, copied: Copied): Ref | undefined => {
  if (ref.id === DATUM.id) return ref;
  const { id, vertex, place, near: _, ...rest } = ref;
  const [to, corner] = [copied.ids.get(id), vertex === undefined ? undefined : copied.ids.get(vertex)];
  if (to === undefined || (vertex !== undefined && corner === undefined)) return undefined;
  const runsBack = copied.turned.has(id);
  // as a whole a chain that became one with its image is not its copy
  if (runsBack && vertex === undefined) return undefined;
  const crosses = typeof place === "object" && "crosses" in place ? copyRef(place.crosses, copied) : undefined;
  if (typeof place === "object" && "crosses" in place && !crosses) return undefined;
  return {
    ...rest,
    id: to,
    ...(corner === undefined ? {} : { vertex: corner }),
    ...(place === undefined ? {} : { place: crosses ? { crosses } : runsBack ? turnedPlace(place) : place }),
  };
};

/** True where a copy hangs on a piece that runs the other way, so that its own frame does, too. */
const countsFromOtherEnd = ({ kind, refs }: Annotation, { turned }: Copied): boolean => {
  const [first] = refs;
  const along = (kind === "linear" && refs.length === 1) || (kind === "angle" && refs.length === 2);
  return along && first !== undefined && turned.has(first.id);
};

/** Adds copies of the dimensions, notes and marks all of whose geometry was copied by one similarity. */
const copyAnnotations = (drawing: Drawing, draft: EditDraft, copied: Copied, by: Similarity): void => {
  for (const annotation of annotationsOf(drawing)) {
    const refs = annotation.refs.map((ref) => copyRef(ref, copied));
    if (refs.length === 0 || refs.some((ref) => !ref) || refs.every((ref) => ref!.id === DATUM.id)) continue;
    const { callout, ...rest } = movedAnnotation(drawing, annotation, by);
    const moved = countsFromOtherEnd(annotation, copied) ? { ...rest, at: times(rest.at, -1) } : rest;
    const id = draft.newId();
    const near = (ref: Ref, i: number): Ref => {
      const was = annotation.refs[i]!.near;
      return was ? { ...ref, near: transformPoint(by, was) } : ref;
    };
    const called = callout === undefined ? undefined : pageGet(drawing.callout, callout);
    draft.set("annotation", id, {
      ...moved,
      id,
      refs: (refs as readonly Ref[]).map(near),
      ...(called && CALLED_OF_COPIES.has(called.kind) ? { callout } : {}),
    });
  }
};

/** More copies than this at once are a slip of the finger. */
export const MOST_COPIES = 20_000;

/**
 * Adds copies of what is named, one for each similarity, on the same layers and in the same line styles, in one edit.
 */
export const copyEntities = (
  drawing: Drawing,
  ids: readonly Id[],
  to: readonly Similarity[],
  label: string,
  gesture: string,
): Outcome<Edit> => {
  const entities = ids.map((id) => entityOf(drawing, id)).filter((entity) => entity !== undefined);
  if (entities.length === 0) return refuse("nothing-selected");
  if (entities.length * to.length > MOST_COPIES)
    return refuse("count-too-large", { limit: Math.floor(MOST_COPIES / entities.length) });
  const locked = refuseLocked(drawing, ...entities);
  if (locked) return locked;
  const draft = draftEdit(drawing, label, gesture);
  for (const m of to) {
    const copied = nothingCopied();
    for (const entity of entities) addCopy(drawing, draft, entity, transformShape(m, entity), copied);
    copyAnnotations(drawing, draft, copied, m);
  }
  return done(draft.finish());
};

/** The line on which is mirrored: through `at` at `angle` (radians). */
export type Axis = { readonly at: Point; readonly angle: number };

/** True when a shape is its own mirror image because it lies along the axis. */
const liesOn = (shape: Shape, axis: Axis): boolean => {
  const on = (p: Point): boolean => Math.abs(endlessSide({ through: axis.at, angle: axis.angle }, p)) <= RESOLUTION;
  if (shape.kind === "point") return on(shape.at);
  if (shape.kind === "piece") return shape.bulge === 0 && on(shape.a) && on(shape.b);
  if (shape.kind === "circle") return on(shape.centre);
  if (shape.kind === "endless")
    return on(shape.through) && Math.abs(Math.sin(shape.angle - axis.angle)) < SAME_DIRECTION;
  return false;
};

/** Mirrors on an axis so that points on it keep their own numbers. */
const mirrored = (shape: Shape, axis: Axis): Shape => {
  const m = mirroring(axis.at, axis.angle);
  const image = transformShape(m, shape);
  const keep = (p: Point): Point => {
    const q = transformPoint(m, p);
    return distance(p, q) <= RESOLUTION ? p : q;
  };
  if (shape.kind === "piece" && image.kind === "piece") return { ...image, a: keep(shape.a), b: keep(shape.b) };
  if (shape.kind === "chain" && image.kind === "chain")
    return { ...image, vertices: image.vertices.map((vertex, i) => ({ ...vertex, at: keep(shape.vertices[i]!.at) })) };
  return image;
};

/**
 * Mirrors what is named on an axis, keeping it or in its place. Kept, nothing is doubled: what lies along the axis is
 * its own image, and an open chain whose ends both lie on the axis becomes one closed contour with its image; one end
 * on the axis makes one chain.
 */
export const mirrorEntities = (
  drawing: Drawing,
  ids: readonly Id[],
  axis: Axis,
  keep: boolean,
): Outcome<{ edit: Edit; welded: number }> => {
  const entities = ids.map((id) => entityOf(drawing, id)).filter((entity) => entity !== undefined);
  if (entities.length === 0) return refuse("nothing-selected");
  const locked = refuseLocked(drawing, ...entities);
  if (locked) return locked;
  const draft = draftEdit(drawing, "Mirror", "mirror");
  let welded = 0;
  const copied = nothingCopied();
  for (const entity of entities) {
    const image = mirrored(entity, axis);
    if (!keep) {
      draft.move([{ ...entity, ...image }], mirroring(axis.at, axis.angle));
      continue;
    }
    if (liesOn(entity, axis)) {
      welded += 1;
      continue;
    }
    const joined =
      entity.kind === "chain" && !entity.closed && image.kind === "chain"
        ? weldedChain(entity, image, draft.newId, axis)
        : undefined;
    if (joined) {
      draft.replace({ ...entity, ...joined.chain });
      // an edge that ran to the axis runs across it now: on purpose
      for (const [from, to] of joined.merged)
        draft.became({ id: entity.id, vertex: from }, [{ id: entity.id, vertex: to }], { whole: true });
      copied.ids.set(entity.id, entity.id);
      copied.turned.add(entity.id);
      for (const [from, to] of joined.images) copied.ids.set(from, to);
      welded += 1;
      continue;
    }
    addCopy(drawing, draft, entity, image, copied);
  }
  copyAnnotations(drawing, draft, copied, mirroring(axis.at, axis.angle));
  return done({ edit: draft.finish(), welded });
};

type ChainShape = Shape & { readonly kind: "chain" };

/**
 * A chain made of one and its image, and which pieces of the one became longer, or have an image of their own in it: by
 * the vertices that they started, and that those start at.
 */
type Welded = {
  readonly chain: ChainShape;
  readonly merged: readonly (readonly [from: Id, to: Id])[];
  readonly images: readonly (readonly [from: Id, to: Id])[];
};

/** An open chain and its image as one, where its ends lie on the axis; undefined where neither does. */
const weldedChain = (chain: ChainShape, image: ChainShape, newId: () => Id, axis: Axis): Welded | undefined => {
  const [first, last] = [chain.vertices[0]!, chain.vertices.at(-1)!];
  const [startOn, endOn] = [
    equalPoint(first.at, image.vertices[0]!.at),
    equalPoint(last.at, image.vertices.at(-1)!.at),
  ];
  if (!startOn && !endOn) return undefined;
  // the image run backwards: from the chain's last point to its first
  const imaged = image.vertices.map((vertex, i) => ({
    ...vertex,
    id: newId(),
    bulge: i > 0 ? -image.vertices[i - 1]!.bulge + 0 : 0,
  }));
  const back = [...imaged].reverse();
  // run backwards, the image of a piece starts where that of its end is; on the axis that is the chain's own end
  const startsAt = (i: number): Id => (endOn && i === imaged.length - 1 ? last.id : imaged[i]!.id);
  const images = chain.vertices.slice(0, -1).map(({ id }, i) => [id, startsAt(i + 1)] as const);
  const ahead = back.slice(1, startOn ? -1 : undefined);
  const vertices = endOn
    ? [...chain.vertices.slice(0, -1), { ...last, bulge: back[0]!.bulge }, ...ahead]
    : [...back.slice(0, -1), ...chain.vertices];
  const { merged, ...made } = withoutStraightJoints(vertices, endOn && startOn, axis, first.id);
  // a piece that became one with its image has none
  const standing = new Set(made.chain.vertices.map(({ id }) => id));
  const longer = new Set(merged.flat());
  return {
    ...made,
    merged,
    images: images.filter(([from, to]) => standing.has(to) && !longer.has(from) && !longer.has(to)),
  };
};

/**
 * Without corners on the axis where two lines run straight on: one line crosses it. `first` is where the chain itself
 * starts.
 */
const withoutStraightJoints = (
  vertices: readonly Vertex[],
  closed: boolean,
  axis: Axis,
  first: Id,
): Omit<Welded, "images"> => {
  const merged: [Id, Id][] = [];
  const kept = vertices.filter((vertex, i) => {
    const before = vertices[i - 1] ?? (closed ? vertices.at(-1) : undefined);
    const after = vertices[i + 1] ?? (closed ? vertices[0] : undefined);
    if (!before || !after || before.bulge !== 0 || vertex.bulge !== 0) return true;
    if (Math.abs(endlessSide({ through: axis.at, angle: axis.angle }, vertex.at)) > RESOLUTION) return true;
    const [u, v] = [subtract(vertex.at, before.at), subtract(after.at, vertex.at)];
    if (!(Math.abs(cross(u, v)) <= PARALLEL * norm(u) * norm(v) && dot(u, v) > 0)) return true;
    merged.push(vertex.id === first ? [vertex.id, before.id] : [before.id, before.id]);
    return false;
  });
  return { chain: { kind: "chain", closed, vertices: kept }, merged };
};
