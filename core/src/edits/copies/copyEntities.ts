import { calloutsOf, entityOf, refuseLocked, type Drawing } from "../../drawing/drawing.ts";
import type { Edit } from "../../drawing/edit.ts";
import type { Entity } from "../../drawing/entity.ts";
import type { Ref } from "../../drawing/ref.ts";
import { endlessSide } from "../../geometry/endless.ts";
import { distance, dot, type Point } from "../../geometry/point.ts";
import { mirroring, transformPoint, type Similarity } from "../../geometry/transform.ts";
import type { Id } from "../../numeric/id.ts";
import { done, refuse, type Outcome } from "../../numeric/outcome.ts";
import { RESOLUTION } from "../../numeric/tolerance.ts";
import { transformShape } from "../../shape/kinds.ts";
import type { Shape } from "../../shape/shape.ts";
import { draftEdit, type EditDraft } from "../draftEdit.ts";

/** A shape with corners of its own, so that no two chains share ids. */
const withOwnIds = (shape: Shape, newId: () => Id): { shape: Shape; vertices: ReadonlyMap<Id, Id> } => {
  const vertices = new Map<Id, Id>();
  if (shape.kind !== "chain") return { shape, vertices };
  const own = shape.vertices.map((vertex) => {
    const id = newId();
    vertices.set(vertex.id, id);
    return { ...vertex, id };
  });
  return { shape: { ...shape, vertices: own }, vertices };
};

/** Sizes called for something are called for its copies as well: R 18, 3 off. */
const linkCopies = (
  drawing: Drawing,
  draft: EditDraft,
  source: Entity,
  copy: Id,
  vertices: ReadonlyMap<Id, Id>,
): void => {
  for (const callout of calloutsOf(drawing)) {
    if (callout.kind !== "radius" && callout.kind !== "diameter" && callout.kind !== "thread") continue;
    const refs = callout.links
      .filter(({ id }) => id === source.id)
      .map((ref): Ref => {
        const vertex = ref.vertex === undefined ? undefined : vertices.get(ref.vertex);
        return { id: copy, ...(vertex === undefined ? {} : { vertex }), ...(ref.place ? { place: ref.place } : {}) };
      });
    if (refs.length > 0) draft.link(callout.id, refs, true);
  }
};

/** More copies than this at once are a slip of the finger. */
export const MOST_COPIES = 20_000;

/** Adds copies of what is named, one for each similarity, on the same layers and in the same line styles, in one edit. */
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
  for (const m of to)
    for (const entity of entities) {
      const { shape, vertices } = withOwnIds(transformShape(m, entity), draft.newId);
      const id = draft.add({ ...shape, ...(entity.line ? { line: entity.line } : {}) }, entity.layer);
      linkCopies(drawing, draft, entity, id, vertices);
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
  if (shape.kind === "endless") return on(shape.through) && Math.abs(Math.sin(shape.angle - axis.angle)) < 1e-9;
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
 * Mirrors what is named on an axis, keeping it or in its place. Kept, nothing is doubled: what lies along the axis is its own image,
 * and an open chain whose ends both lie on the axis becomes one closed contour with its image; one end on the axis makes one chain.
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
  for (const entity of entities) {
    const image = mirrored(entity, axis);
    if (!keep) {
      draft.replace({ ...entity, ...image });
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
      draft.replace({ ...entity, ...joined });
      welded += 1;
      continue;
    }
    const { shape, vertices } = withOwnIds(image, draft.newId);
    const id = draft.add({ ...shape, ...(entity.line ? { line: entity.line } : {}) }, entity.layer);
    linkCopies(drawing, draft, entity, id, vertices);
  }
  return done({ edit: draft.finish(), welded });
};

type ChainShape = Shape & { readonly kind: "chain" };

/** An open chain and its image as one, where its ends lie on the axis; undefined where neither does. */
const weldedChain = (chain: ChainShape, image: ChainShape, newId: () => Id, axis: Axis): ChainShape | undefined => {
  const [first, last] = [chain.vertices[0]!, chain.vertices.at(-1)!];
  const same = (p: Point, q: Point): boolean => p.x === q.x && p.y === q.y;
  const [startOn, endOn] = [same(first.at, image.vertices[0]!.at), same(last.at, image.vertices.at(-1)!.at)];
  if (!startOn && !endOn) return undefined;
  const n = chain.vertices.length;
  // the image run backwards: from the chain's last point to its first
  const back = image.vertices
    .map((vertex, i) => ({ ...vertex, id: newId(), bulge: i > 0 ? -image.vertices[i - 1]!.bulge + 0 : 0 }))
    .reverse();
  const straight = (vertices: ChainShape["vertices"], closed: boolean): ChainShape["vertices"] =>
    withoutStraightJoints(vertices, closed, axis);
  if (endOn) {
    const bulges = back.map(({ bulge }) => bulge);
    const vertices = [
      ...chain.vertices.slice(0, -1),
      { ...last, bulge: bulges[0]! },
      ...back.slice(1, startOn ? -1 : undefined).map((vertex, i) => ({ ...vertex, bulge: bulges[i + 1] ?? 0 })),
    ];
    if (startOn) return { kind: "chain", closed: true, vertices: straight(vertices, true) };
    return {
      kind: "chain",
      closed: false,
      vertices: straight(
        vertices.map((vertex, i) => (i === vertices.length - 1 ? { ...vertex, bulge: 0 } : vertex)),
        false,
      ),
    };
  }
  // only the start lies on the axis: the image comes first
  const bulges = back.map(({ bulge }) => bulge);
  const vertices = [
    ...back.slice(0, -1).map((vertex, i) => ({ ...vertex, bulge: bulges[i]! })),
    ...chain.vertices.slice(0, n),
  ];
  return { kind: "chain", closed: false, vertices: straight(vertices, false) };
};

/** Without corners on the axis where two lines run straight on: one line crosses it. */
const withoutStraightJoints = (vertices: ChainShape["vertices"], closed: boolean, axis: Axis): ChainShape["vertices"] =>
  vertices.filter((vertex, i) => {
    const before = vertices[i - 1] ?? (closed ? vertices.at(-1) : undefined);
    const after = vertices[i + 1] ?? (closed ? vertices[0] : undefined);
    if (!before || !after || before.bulge !== 0 || vertex.bulge !== 0) return true;
    if (Math.abs(endlessSide({ through: axis.at, angle: axis.angle }, vertex.at)) > RESOLUTION) return true;
    const [u, v] = [
      { x: vertex.at.x - before.at.x, y: vertex.at.y - before.at.y },
      { x: after.at.x - vertex.at.x, y: after.at.y - vertex.at.y },
    ];
    const size = Math.hypot(u.x, u.y) * Math.hypot(v.x, v.y);
    return !(Math.abs(u.x * v.y - u.y * v.x) <= 1e-12 * size && dot(u, v) > 0);
  });
