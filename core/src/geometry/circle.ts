import { unitAt } from "../numeric/angle.ts";
import type { Bounds } from "./bounds.ts";
import type { Piece } from "./piece.ts";
import { angleOf, distance, subtract, type Point } from "./point.ts";
import { scaleOf, transformPoint, type Similarity } from "./transform.ts";

/** A full circle; its parameter is the angle. */
export type Circle = { readonly centre: Point; readonly radius: number };

/** The place on a circle at an angle, in radians. */
export const circlePoint = ({ centre, radius }: Circle, angle: number): Point => {
  const { x, y } = unitAt(angle);
  return { x: centre.x + radius * x, y: centre.y + radius * y };
};

/** The point at `angle` on a circle given by its parts. */
export const arcAt = (centre: Point, radius: number, angle: number): Point => circlePoint({ centre, radius }, angle);

/** The length round a circle. */
export const circleLength = ({ radius }: Circle): number => 2 * Math.PI * radius;
/** The area of a circle. */
export const circleArea = ({ radius }: Circle): number => Math.PI * radius * radius;

/** The point of the circle nearest to `p`; from the centre itself, the one at angle 0. */
export const circleNearest = (circle: Circle, p: Point): { angle: number; at: Point; distance: number } => {
  const away = distance(p, circle.centre);
  const angle = away === 0 ? 0 : angleOf(subtract(p, circle.centre));
  const at =
    away === 0
      ? circlePoint(circle, 0)
      : {
          x: circle.centre.x + ((p.x - circle.centre.x) / away) * circle.radius,
          y: circle.centre.y + ((p.y - circle.centre.y) / away) * circle.radius,
        };
  return { angle, at, distance: Math.abs(away - circle.radius) };
};

/** The box round a circle. */
export const circleBounds = ({ centre, radius }: Circle): Bounds => ({
  minX: centre.x - radius,
  minY: centre.y - radius,
  maxX: centre.x + radius,
  maxY: centre.y + radius,
});

/** The circle as two half arcs, counter-clockwise, from angle 0. */
export const circleHalves = (circle: Circle): [Piece, Piece] => {
  const east = circlePoint(circle, 0);
  const west = circlePoint(circle, Math.PI);
  return [
    { a: east, b: west, bulge: 1 },
    { a: west, b: east, bulge: 1 },
  ];
};

/** The circle moved, turned, scaled or mirrored. */
export const transformCircle = (m: Similarity, { centre, radius }: Circle): Circle => ({
  centre: transformPoint(m, centre),
  radius: radius * scaleOf(m),
});
