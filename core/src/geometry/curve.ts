import { normalAngle } from "../numeric/angle.ts";
import type { Bounds } from "./bounds.ts";
import { circleBounds, circleLength, circleNearest, circlePoint, type Circle } from "./circle.ts";
import { ellipseBounds, ellipseSmooth, type Ellipse } from "./ellipse.ts";
import { endlessDirection, endlessNearest, endlessPoint, type Endless } from "./endless.ts";
import { freeBounds, freeSmooth, type Free } from "./free.ts";
import {
  pieceBounds,
  pieceCentre,
  pieceDirection,
  pieceLength,
  pieceNearest,
  piecePoint,
  pieceRadius,
  type Piece,
} from "./piece.ts";
import { angleOf, subtract, type Point } from "./point.ts";
import { smoothLength, smoothNearest, type Smooth } from "./smooth.ts";

/** A line, an arc, a circle or an endless line: what the closed forms speak of. */
export type PlainCurve =
  | ({ readonly kind: "piece" } & Piece)
  | ({ readonly kind: "circle" } & Circle)
  | ({ readonly kind: "endless" } & Endless);

/** An ellipse or a free curve, worked on numerically. */
export type SmoothCurve = ({ readonly kind: "ellipse" } & Ellipse) | ({ readonly kind: "free" } & Free);

/** What can be met, touched and measured. */
export type Curve = PlainCurve | SmoothCurve;

/** True for ellipses and free curves, which have no arcs or lines in them. */
export const isSmooth = (curve: Curve): curve is SmoothCurve => curve.kind === "ellipse" || curve.kind === "free";

const known = new WeakMap<SmoothCurve, Smooth>();
/** The curve as something to work on numerically; made once for each. */
export const smoothOf = (curve: SmoothCurve): Smooth => {
  const found = known.get(curve) ?? (curve.kind === "ellipse" ? ellipseSmooth(curve) : freeSmooth(curve));
  known.set(curve, found);
  return found;
};

/** What a curve lies on, without ends: a straight line by a point and a unit direction, or a circle. */
export type Carrier =
  | { readonly kind: "line"; readonly at: Point; readonly direction: Point }
  | { readonly kind: "circle"; readonly centre: Point; readonly radius: number };

/** What a plain curve lies on; ellipses and free curves lie on nothing but themselves. */
export function carrierOf(curve: PlainCurve): Carrier;
/** The line or circle on which a curve lies; undefined for smooth curves. */
export function carrierOf(curve: Curve): Carrier | undefined;
export function carrierOf(curve: Curve): Carrier | undefined {
  if (isSmooth(curve)) return undefined;
  if (curve.kind === "circle") return { kind: "circle", centre: curve.centre, radius: curve.radius };
  if (curve.kind === "endless") return { kind: "line", at: curve.through, direction: endlessDirection(curve) };
  return pieceCarrier(curve);
}

/** The straight line or the circle that a piece lies on. */
export const pieceCarrier = (piece: Piece): Carrier => {
  const centre = pieceCentre(piece);
  return centre
    ? { kind: "circle", centre, radius: pieceRadius(piece) }
    : { kind: "line", at: piece.a, direction: pieceDirection(piece, 0) };
};

/** Bounds; undefined for what has none. */
export const curveBounds = (curve: Curve): Bounds | undefined => {
  switch (curve.kind) {
    case "circle":
      return circleBounds(curve);
    case "piece":
      return pieceBounds(curve);
    case "ellipse":
      return ellipseBounds(curve);
    case "free":
      return freeBounds(curve);
    case "endless":
      return undefined;
  }
};

/** The parameter nearest to `p` (fraction, angle or distance, as the kind has it), the point there and its distance. */
export const curveNearest = (curve: Curve, p: Point): { t: number; at: Point; distance: number } => {
  if (curve.kind === "piece") return pieceNearest(curve, p);
  if (curve.kind === "endless") return endlessNearest(curve, p);
  if (isSmooth(curve)) return smoothNearest(smoothOf(curve), p);
  const { angle, at, distance } = circleNearest(curve, p);
  return { t: normalAngle(angle), at, distance };
};

/** The place on a curve at a parameter: 0 its start, 1 its end. */
export const curvePoint = (curve: Curve, t: number): Point => {
  if (curve.kind === "piece") return piecePoint(curve, t);
  if (curve.kind === "circle") return circlePoint(curve, t);
  return curve.kind === "endless" ? endlessPoint(curve, t) : smoothOf(curve).at(t);
};

/** The ends of a curve that has some. */
export const curveEnds = (curve: Curve): readonly Point[] => {
  if (curve.kind === "piece") return [curve.a, curve.b];
  if (!isSmooth(curve)) return [];
  const { at, closed } = smoothOf(curve);
  return closed ? [] : [at(0), at(1)];
};

/** Length; Infinity for an endless line. */
export const curveLength = (curve: Curve): number => {
  if (curve.kind === "piece") return pieceLength(curve);
  if (curve.kind === "circle") return circleLength(curve);
  return curve.kind === "endless" ? Infinity : smoothLength(smoothOf(curve));
};

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
  if (isSmooth(curve)) return angleOf(smoothOf(curve).first(curveNearest(curve, p).t));
  return angleOf(pieceDirection(curve, pieceNearest(curve, p).t));
};
