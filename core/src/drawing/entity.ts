import type { Bounds } from "../geometry/bounds.ts";
import {} from "../geometry/bounds.ts";
import type { Circle } from "../geometry/circle.ts";
import { circleBounds } from "../geometry/circle.ts";
import type { Curve } from "../geometry/curve.ts";
import { ellipseBounds, type Ellipse } from "../geometry/ellipse.ts";
import type { Endless } from "../geometry/endless.ts";
import { freeBounds, type Free } from "../geometry/free.ts";
import { pieceBounds, type Piece, piecesBounds } from "../geometry/piece.ts";
import type { Point } from "../geometry/point.ts";

/** Rises, never reused. */
export type Id = number;

/** A corner of a chain; `bulge` is that of the piece that starts here. */
export type Vertex = {
  readonly id: Id;
  readonly at: Point;
  readonly bulge: number;
  /** The width that the piece from here was given at its start and its end, until the contour round it is made. */
  readonly width?: readonly [from: number, to: number];
};

export type Chain = { readonly closed: boolean; readonly vertices: readonly Vertex[] };

export type Shape =
  | { readonly kind: "point"; readonly at: Point }
  | ({ readonly kind: "piece" } & Piece)
  | ({ readonly kind: "circle" } & Circle)
  | ({ readonly kind: "chain" } & Chain)
  | ({ readonly kind: "endless" } & Endless)
  | ({ readonly kind: "ellipse" } & Ellipse)
  | ({ readonly kind: "free" } & Free);

/** How a line is drawn where it is not as its role has it. */
export const LINE_STYLES = ["solid", "dashed", "dotted"] as const;
export type LineStyle = (typeof LINE_STYLES)[number];

export type Entity = Shape & { readonly id: Id; readonly layer: Id; readonly line?: LineStyle };

/** An entity, a piece of a chain (by the vertex at which it starts), or a place on one. */
export type Ref = { readonly id: Id; readonly vertex?: Id; readonly place?: "start" | "end" | "middle" | "centre" };

export const sameRef = (p: Ref, q: Ref): boolean => p.id === q.id && p.vertex === q.vertex;

/** The piece of a closed or open chain that starts at vertex number `i`; undefined at the end of an open one. */
export const chainPiece = ({ closed, vertices }: Chain, i: number): Piece | undefined => {
  const from = vertices[i];
  const to = vertices[i + 1] ?? (closed ? vertices[0] : undefined);
  return from && to ? { a: from.at, b: to.at, bulge: from.bulge } : undefined;
};

export const chainPieces = (chain: Chain): readonly Piece[] =>
  chain.vertices.map((_, i) => chainPiece(chain, i)).filter((piece) => piece !== undefined);

/** Pieces end to end as a chain; `newId` numbers its corners. */
export const chainOfPieces = (
  pieces: readonly Piece[],
  closed: boolean,
  newId: () => Id,
): { readonly kind: "chain" } & Chain => {
  const vertices = pieces.map(({ a, bulge }): Vertex => ({ id: newId(), at: a, bulge }));
  if (!closed) vertices.push({ id: newId(), at: pieces.at(-1)!.b, bulge: 0 });
  return { kind: "chain", closed, vertices };
};

/** The curves of an entity with the reference of each; points have none. */
export const curvesOf = (entity: Entity): readonly { readonly curve: Curve; readonly ref: Ref }[] => {
  if (entity.kind === "point") return [];
  if (entity.kind !== "chain") return [{ curve: entity, ref: { id: entity.id } }];
  return chainPieces(entity).map((piece, i) => ({
    curve: { kind: "piece", ...piece },
    ref: { id: entity.id, vertex: entity.vertices[i]!.id },
  }));
};

/** The bounds of a shape; undefined for an endless line. */
export const shapeBounds = (shape: Shape): Bounds | undefined => {
  switch (shape.kind) {
    case "point":
      return { minX: shape.at.x, minY: shape.at.y, maxX: shape.at.x, maxY: shape.at.y };
    case "piece":
      return pieceBounds(shape);
    case "circle":
      return circleBounds(shape);
    case "chain":
      return piecesBounds(chainPieces(shape));
    case "ellipse":
      return ellipseBounds(shape);
    case "free":
      return freeBounds(shape);
    case "endless":
      return undefined;
  }
};
