import { normalAngle } from "../numeric/angle.ts";
import { type Bounds } from "./bounds.ts";
import { circleBounds, circleNearest, circlePoint, type Circle } from "./circle.ts";
import { endlessDirection, endlessNearest, endlessPoint, type Endless } from "./endless.ts";
import {
  pieceBounds,
  pieceCentre,
  pieceDirection,
  pieceNearest,
  piecePoint,
  pieceRadius,
  type Piece,
} from "./piece.ts";
import { angleOf, subtract, type Point } from "./point.ts";

/** What can be met, touched and measured: a piece, a full circle or an endless line. */
export type Curve =
  | ({ readonly kind: "piece" } & Piece)
  | ({ readonly kind: "circle" } & Circle)
  | ({ readonly kind: "endless" } & Endless);

/** What a curve lies on, without ends: a straight line by a point and a unit direction, or a circle. */
export type Carrier =
  | { readonly kind: "line"; readonly at: Point; readonly direction: Point }
  | { readonly kind: "circle"; readonly centre: Point; readonly radius: number };

export const carrierOf = (curve: Curve): Carrier => {
  if (curve.kind === "circle") return { kind: "circle", centre: curve.centre, radius: curve.radius };
  if (curve.kind === "endless") return { kind: "line", at: curve.through, direction: endlessDirection(curve) };
  const centre = pieceCentre(curve);
  return centre
    ? { kind: "circle", centre, radius: pieceRadius(curve) }
    : { kind: "line", at: curve.a, direction: pieceDirection(curve, 0) };
};

/** Bounds; undefined for what has none. */
export const curveBounds = (curve: Curve): Bounds | undefined =>
  curve.kind === "circle" ? circleBounds(curve) : curve.kind === "piece" ? pieceBounds(curve) : undefined;

/** The parameter nearest to `p` (fraction, angle or distance, as the kind has it), the point there and its distance. */
export const curveNearest = (curve: Curve, p: Point): { t: number; at: Point; distance: number } => {
  if (curve.kind === "piece") return pieceNearest(curve, p);
  if (curve.kind === "endless") return endlessNearest(curve, p);
  const { angle, at, distance } = circleNearest(curve, p);
  return { t: normalAngle(angle), at, distance };
};

export const curvePoint = (curve: Curve, t: number): Point =>
  curve.kind === "piece"
    ? piecePoint(curve, t)
    : curve.kind === "circle"
      ? circlePoint(curve, t)
      : endlessPoint(curve, t);

/** The ends of a curve that has some. */
export const curveEnds = (curve: Curve): readonly Point[] => (curve.kind === "piece" ? [curve.a, curve.b] : []);

/** The nearest point of a carrier to `p`; a circle's own centre gives its point at angle 0. */
export const carrierNearest = (carrier: Carrier, p: Point): Point => {
  if (carrier.kind === "circle") return circleNearest(carrier, p).at;
  const t = (p.x - carrier.at.x) * carrier.direction.x + (p.y - carrier.at.y) * carrier.direction.y;
  return { x: carrier.at.x + carrier.direction.x * t, y: carrier.at.y + carrier.direction.y * t };
};

/** The angle of the curve's direction at the point nearest to `p`, in radians. */
export const directionAt = (curve: Curve, p: Point): number => {
  if (curve.kind === "endless") return curve.angle;
  if (curve.kind === "circle") return angleOf(subtract(p, curve.centre)) + Math.PI / 2;
  return angleOf(pieceDirection(curve, pieceNearest(curve, p).t));
};
