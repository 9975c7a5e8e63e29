import { angleSides, linearSpan, type AngleSides } from "../attach/frame.ts";
import { placeOf } from "../attach/places.ts";
import type { Annotation } from "../drawing/annotation.ts";
import { curveAt, roundAt, type Drawing } from "../drawing/drawing.ts";
import type { Ref } from "../drawing/ref.ts";
import { pieceLength } from "../geometry/piece.ts";
import { angleOf, cross, dot, subtract, type Point } from "../geometry/point.ts";
import { normalAngle, toDegrees, TURN, unitAt } from "../numeric/angle.ts";
import { greatest, least } from "../numeric/greatest.ts";
import { ROUNDING } from "../numeric/tolerance.ts";

/** The sector of an angle in which a place lies: where it starts, counter-clockwise, and how far it goes; radians. */
type Sector = { readonly from: number; readonly sweep: number };

/**
 * The sector in which a place of the angle's own frame lies (x along its first side): of two edges one of four, of two
 * directions the angle or what is left of the turn.
 */
export const sectorAt = ({ one, other, edges }: AngleSides, at: Point): Sector => {
  const turn = Math.atan2(cross(one, other), dot(one, other));
  const rays = (edges ? [0, turn, Math.PI, turn + Math.PI] : [0, turn]).map(normalAngle).sort((p, q) => p - q);
  const angle = normalAngle(angleOf(at));
  const next = rays.findIndex((ray) => ray > angle);
  const last = rays[(next < 0 ? rays.length : next) - 1] ?? rays.at(-1)!;
  const end = rays[next < 0 ? 0 : next]!;
  const sweep = normalAngle(end - last);
  return { from: last, sweep: sweep <= ROUNDING ? TURN : sweep };
};

/** The x or y of a place from the datum, by the direction in which it is counted (radians). */
const ordinateOf = (drawing: Drawing, [from, to]: readonly Ref[], angle: number): number | undefined => {
  const [origin, place] = [from && placeOf(drawing, from), to && placeOf(drawing, to)];
  return origin && place && dot(subtract(place, origin), unitAt(angle));
};

/**
 * What an annotation measures, the least and the most of it where it holds several things: lengths in the job's unit,
 * angles in degrees. Undefined for what measures nothing: notes, marks, what is lost.
 */
export const measureAnnotation = (
  drawing: Drawing,
  annotation: Annotation,
): { readonly least: number; readonly most: number } | undefined => {
  const { kind, refs, at, angle = 0 } = annotation;
  const single = (value: number | undefined) => (value === undefined ? undefined : { least: value, most: value });
  switch (kind) {
    case "linear": {
      const span = linearSpan(drawing, annotation);
      return single(span && Math.abs(dot(subtract(span.to, span.from), span.way)));
    }
    case "angle": {
      const sides = angleSides(drawing, refs);
      return single(sides && toDegrees(sectorAt(sides, at).sweep));
    }
    case "radius":
    case "diameter": {
      const sizes = refs.map((ref) => roundAt(drawing, ref)?.radius);
      if (sizes.length === 0 || sizes.some((size) => size === undefined)) return undefined;
      const all = (sizes as readonly number[]).map((size) => (kind === "radius" ? size : 2 * size));
      return { least: least(all), most: greatest(all) };
    }
    case "arc length": {
      const curve = refs[0] && curveAt(drawing, refs[0]);
      return curve?.kind === "piece" && curve.bulge !== 0 ? single(pieceLength(curve)) : undefined;
    }
    case "ordinate":
      return single(ordinateOf(drawing, refs, angle));
    default:
      return undefined;
  }
};
