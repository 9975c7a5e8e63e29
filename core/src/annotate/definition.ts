import { angleSides, linearSpan } from "../attach/frame.ts";
import { placeOf } from "../attach/places.ts";
import type { Annotation } from "../drawing/annotation.ts";
import { curveAt, roundAt, settingsOf, type Drawing } from "../drawing/drawing.ts";
import { arcAt } from "../geometry/circle.ts";
import { curveEnds } from "../geometry/curve.ts";
import { add, angleOf, norm, type Point } from "../geometry/point.ts";
import { sectorAt } from "./measure.ts";
import { lineEnds } from "./straight.ts";

/**
 * What a dimension is defined by, in the drawing's coordinates, as open formats ask for it. Linear: what is measured,
 * where its line ends, and the direction in which it is measured (radians; along its places where undefined).
 */
export type Definition =
  | {
      readonly kind: "linear";
      readonly from: Point;
      readonly to: Point;
      readonly line: Point;
      readonly angle: number | undefined;
    }
  | { readonly kind: "radius" | "diameter"; readonly centre: Point; readonly edge: Point; readonly opposite: Point }
  | { readonly kind: "angle"; readonly vertex: Point; readonly from: Point; readonly to: Point; readonly arc: Point }
  | { readonly kind: "angle of lines"; readonly lines: readonly [Ends, Ends]; readonly arc: Point }
  | {
      readonly kind: "ordinate";
      readonly origin: Point;
      readonly place: Point;
      readonly end: Point;
      readonly isX: boolean;
    };

type Ends = readonly [Point, Point];

/** The definition of a dimension; undefined for notes and marks, arc lengths, several at once, and what is lost. */
export const definitionOf = (drawing: Drawing, annotation: Annotation): Definition | undefined => {
  const { kind, refs, at, angle, lost } = annotation;
  if (lost) return undefined;
  switch (kind) {
    case "linear": {
      const [span, ends] = [linearSpan(drawing, annotation), lineEnds(drawing, annotation)];
      return span && ends && { kind, from: span.from, to: span.to, line: ends[1], angle };
    }
    case "radius":
    case "diameter": {
      const round = refs[0] && roundAt(drawing, refs[0]);
      if (!round) return undefined;
      const way = norm(at) === 0 ? 0 : angleOf(at);
      const { centre, radius } = round;
      return { kind, centre, edge: arcAt(centre, radius, way), opposite: arcAt(centre, radius, way + Math.PI) };
    }
    case "angle": {
      const sides = angleSides(drawing, refs);
      if (!sides) return undefined;
      const { from, sweep } = sectorAt(sides, at);
      const [start, out] = [angleOf(sides.one), Math.max(norm(at), Number.MIN_VALUE)];
      const arc = arcAt(sides.vertex, out, start + from + sweep / 2);
      if (!sides.edges) {
        const [, first, second] = refs.map((ref) => placeOf(drawing, ref));
        return first && second && { kind, vertex: sides.vertex, from: first, to: second, arc };
      }
      const lines = refs.map((ref, i): Ends => {
        const curve = curveAt(drawing, ref);
        const [a, b] = curve ? curveEnds(curve) : [];
        const way = i === 0 ? sides.one : sides.other;
        return a && b ? [a, b] : [sides.vertex, add(sides.vertex, way)];
      });
      return { kind: "angle of lines", lines: [lines[0]!, lines[1]!], arc };
    }
    case "ordinate": {
      const place = refs[1] && placeOf(drawing, refs[1]);
      if (!place) return undefined;
      return {
        kind,
        origin: settingsOf(drawing).datum,
        place,
        end: add(place, at),
        isX: Math.abs(Math.cos(angle ?? 0)) > 0.5,
      };
    }
    default:
      return undefined;
  }
};
