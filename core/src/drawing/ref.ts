import type { Point } from "../geometry/point.ts";
import type { Id } from "../numeric/id.ts";

/**
 * A place on what a reference names. `quarter` counts quarter turns from +x, of a circle or an arc's circle, or the
 * ends of an ellipse's axes; `along` is the part of the length (of a circle: of the turn from +x; of an endless line:
 * the distance from its point); `sharp` is where the neighbours of a rounded, cut or relieved corner would meet;
 * `crosses` is the meeting with another curve, both run on where they must be, nearest to `near`; `area` is the centre
 * of area of a contour; `pixel` is a place on a picture.
 */
export type Place =
  | "start"
  | "end"
  | "middle"
  | "centre"
  | "area"
  | "sharp"
  | { readonly quarter: 0 | 1 | 2 | 3 }
  | { readonly along: number }
  | { readonly crosses: Ref }
  | { readonly pixel: Point };

/**
 * A curve of the drawing, or a place on one: an entity, a piece of a chain by the vertex at which it starts (the last
 * vertex of an open chain names its place `start`). Without a place it is the whole curve, and a layout point its
 * place. `turned` means: seen against the curve's own direction, for angles.
 */
export type Ref = {
  readonly id: Id;
  readonly vertex?: Id;
  readonly place?: Place;
  readonly near?: Point;
  readonly turned?: true;
};

/** The datum: the settings' row, which has the one id that no entity can have. */
export const DATUM: Ref = { id: 0 };

/** True where two references name the same curve, wherever on it. */
export const sameTarget = (p: Ref, q: Ref): boolean => p.id === q.id && p.vertex === q.vertex;

/** True where two references name the same place on the same curve; of two crossings `near` tells them apart. */
export const sameRef = (p: Ref, q: Ref): boolean =>
  sameTarget(p, q) && samePlace(p.place, q.place) && sameNear(p, q) && p.turned === q.turned;

const sameNear = (p: Ref, q: Ref): boolean =>
  typeof p.place !== "object" || !("crosses" in p.place) || (p.near?.x === q.near?.x && p.near?.y === q.near?.y);

const samePlace = (p: Place | undefined, q: Place | undefined): boolean => {
  if (typeof p !== "object" || typeof q !== "object") return p === q;
  if ("quarter" in p) return "quarter" in q && p.quarter === q.quarter;
  if ("along" in p) return "along" in q && p.along === q.along;
  if ("pixel" in p) return "pixel" in q && p.pixel.x === q.pixel.x && p.pixel.y === q.pixel.y;
  return "crosses" in q && sameRef(p.crosses, q.crosses);
};
