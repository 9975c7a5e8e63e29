import type { Bounds } from "../geometry/bounds.ts";
import type { SmoothCurve } from "../geometry/curve.ts";
import type { Piece } from "../geometry/piece.ts";
import type { Similarity } from "../geometry/transform.ts";
import type { Id } from "../numeric/id.ts";
import type { Outcome } from "../numeric/outcome.ts";
import { chainKind } from "./chain.ts";
import { circleKind } from "./circle.ts";
import { ellipseKind } from "./ellipse.ts";
import { endlessKind } from "./endless.ts";
import { freeKind } from "./free.ts";
import type { Kind, OwnCurve, OwnHandle, Property, ShapeKind, ShapeOf } from "./kind.ts";
import { pieceKind } from "./piece.ts";
import { pointKind } from "./point.ts";
import type { Shape } from "./shape.ts";

/** Every kind of entity. A kind that is missing here, or lacks something, does not compile. */
export const KINDS: { readonly [K in ShapeKind]: Kind<K> } = {
  point: pointKind,
  piece: pieceKind,
  circle: circleKind,
  chain: chainKind,
  endless: endlessKind,
  ellipse: ellipseKind,
  free: freeKind,
};
/** The kinds that say of themselves that they are smooth. */
export type SmoothShape = Extract<Shape, SmoothCurve>;
export const SHAPE_KINDS = Object.keys(KINDS) as readonly ShapeKind[];

/** The entry of a shape's own kind. */
export const kindOf = <S extends Shape>(shape: S): Kind<S["kind"]> => KINDS[shape.kind] as never;

const entry = (shape: Shape): Kind<"circle"> => KINDS[shape.kind] as never;
const own = (shape: Shape): ShapeOf<"circle"> => shape as never;

/** The bounds of a shape in the job's unit; undefined for an endless line. */
export const shapeBounds = (shape: Shape): Bounds | undefined => entry(shape).bounds(own(shape));

/** A shape under a similarity, without whatever else an entity has. */
export const transformShape = (m: Similarity, shape: Shape): Shape => entry(shape).transform(m, own(shape));

/** The curves of a shape in order, those of a chain with the vertex at which each starts; points have none. */
export const shapeCurves = (shape: Shape): readonly OwnCurve[] => entry(shape).curves(own(shape));

/** The lines and arcs of a shape in order, circles in halves; undefined for points, endless lines and smooth curves. */
export const shapePieces = (shape: Shape): readonly Piece[] | undefined => entry(shape).pieces(own(shape));

/** Whether a shape closes on itself, as a circle and a closed chain do; smooth curves are asked by `smoothOf`. */
export const isClosedShape = (shape: Shape): boolean => entry(shape).isClosed(own(shape));

/** The shape with ids of its own in it, so that no two chains share a vertex. */
export const renewedShape = (shape: Shape, newId: () => Id): Shape => entry(shape).renewed(own(shape), newId);

/** The ids within a shape: of a chain its vertices'. */
export const shapeIds = (shape: Shape): readonly Id[] => entry(shape).ownIds(own(shape));

/** True for what is worked on numerically: ellipses, free curves, and whatever else of the kind comes. */
export const isSmoothShape = <S extends Shape>(shape: S): shape is S & SmoothShape => entry(shape).smooth;

/**
 * What can be read and typed of a shape; of a chain what belongs to the vertex named, and to the piece that starts
 * there.
 */
export const propertiesOf = (shape: Shape, vertex?: Id): readonly Property[] =>
  entry(shape).properties(own(shape), vertex);

/** A shape with a property of another value; a refusal where that is impossible. */
export const withProperty = (shape: Shape, name: string, value: number, vertex?: Id): Outcome<Shape> =>
  entry(shape).withProperty(own(shape), name, value, vertex);

/** The places of a shape by which it is changed. */
export const shapeHandles = (shape: Shape): readonly OwnHandle[] => entry(shape).handles(own(shape));
