import type { Bounds } from "../geometry/bounds.ts";
import type { Curve } from "../geometry/curve.ts";
import type { Piece } from "../geometry/piece.ts";
import type { Point } from "../geometry/point.ts";
import type { Similarity } from "../geometry/transform.ts";
import type { Fields } from "../numeric/fields.ts";
import type { Id } from "../numeric/id.ts";
import type { Outcome } from "../numeric/outcome.ts";
import type { Shape } from "./shape.ts";

export type ShapeKind = Shape["kind"];
export type ShapeOf<K extends ShapeKind> = Extract<Shape, { readonly kind: K }>;

/** A curve of a shape; of a chain with the vertex that it starts at. */
export type OwnCurve = { readonly curve: Curve; readonly vertex?: Id };

/** Something about a shape that can be read and typed: lengths in the job's unit, angles in degrees. */
export type Property = {
  readonly name: string;
  readonly label: string;
  readonly kind: "length" | "coordinate" | "angle";
  readonly value: number;
};

/** A place of a shape by which it is changed: an end by its place, a corner or a piece of a chain by its vertex. */
export type OwnHandle = {
  readonly kind: "end" | "corner" | "chain end" | "middle" | "centre" | "radius" | "curve point";
  readonly at: Point;
  readonly place?: "start" | "end";
  readonly vertex?: Id;
  /** The length of the piece that it is the middle of, so that short ones can be left out. */
  readonly length?: number;
};

/** Everything that has to be known of a kind of entity. A new kind is one file with this and one line in `kinds.ts`. */
export type Kind<K extends ShapeKind> = {
  /** Bounds; undefined for what has none. */
  readonly bounds: (shape: ShapeOf<K>) => Bounds | undefined;
  /** The shape under a similarity; ends and vertices keep their order and their ids. */
  readonly transform: (m: Similarity, shape: ShapeOf<K>) => ShapeOf<K>;
  /** Its curves in order; a point has none. */
  readonly curves: (shape: ShapeOf<K>) => readonly OwnCurve[];
  /** Its lines and arcs in order, circles in halves; undefined for what has no such form. */
  readonly pieces: (shape: ShapeOf<K>) => readonly Piece[] | undefined;
  /** Worked on numerically, and made into arcs before it is cut. */
  readonly smooth: boolean;
  /** Whether its pieces close. */
  readonly isClosed: (shape: ShapeOf<K>) => boolean;
  /** The same with ids of its own for whatever has ids in it. */
  readonly renewed: (shape: ShapeOf<K>, newId: () => Id) => ShapeOf<K>;
  /** The ids in it, such as its vertices'. */
  readonly ownIds: (shape: ShapeOf<K>) => readonly Id[];
  /**
   * What can be read and typed of it; of a chain what belongs to the vertex named, and to the piece that starts there.
   */
  readonly properties: (shape: ShapeOf<K>, vertex: Id | undefined) => readonly Property[];
  /** The shape with a property of another value, which is above zero where it is a length. */
  readonly withProperty: (
    shape: ShapeOf<K>,
    name: string,
    value: number,
    vertex: Id | undefined,
  ) => Outcome<ShapeOf<K>>;
  readonly handles: (shape: ShapeOf<K>) => readonly OwnHandle[];
  readonly fields: Fields;
  /**
   * What its numbers make impossible though each field is what it should be, in words; undefined where it makes sense.
   */
  readonly nonsense: (shape: ShapeOf<K>) => string | undefined;
};

/** What holds for a kind that is one curve without ids in it. */
export const oneCurve = {
  smooth: false,
  isClosed: (): boolean => false,
  pieces: (): undefined => undefined,
  renewed: <S>(shape: S): S => shape,
  ownIds: (): readonly Id[] => [],
  nonsense: (): string | undefined => undefined,
};

/** Both coordinates of a place as properties. */
export const coordinates = (name: string, label: string, at: Point): readonly Property[] =>
  (["x", "y"] as const).map((axis) => ({
    name: `${name} ${axis}`,
    label: `${label} ${axis}`.trim(),
    kind: "coordinate",
    value: at[axis],
  }));

/** A place with the coordinate that a property names at another value. */
export const withCoordinate = (p: Point, name: string, value: number): Point =>
  name.endsWith(" x") ? { x: value, y: p.y } : { x: p.x, y: value };
