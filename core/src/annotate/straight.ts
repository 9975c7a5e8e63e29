import { linearSpan, textPlace } from "../attach/frame.ts";
import { placeOf } from "../attach/places.ts";
import type { Annotation } from "../drawing/annotation.ts";
import { curveAt, type Drawing } from "../drawing/drawing.ts";
import type { Ref } from "../drawing/ref.ts";
import { pieceNearest } from "../geometry/piece.ts";
import { add, along, dot, leftOf, midpoint, subtract, times, type Point } from "../geometry/point.ts";
import { unitAt } from "../numeric/angle.ts";
import { dimensionLine, extensionLine, type Pen } from "./pen.ts";

/** A figure, and what it may be off. */
export type Figure = { readonly text: string; readonly tolerance: readonly string[] };

/** Where the ends of the dimension line of a linear dimension lie; undefined where it measures nothing. */
export const lineEnds = (drawing: Drawing, annotation: Annotation): readonly [Point, Point, way: Point] | undefined => {
  const span = linearSpan(drawing, annotation);
  if (!span) return undefined;
  const { from, to, way } = span;
  const on = add(midpoint(from, to), times(leftOf(way), annotation.at.y));
  const foot = (p: Point): Point => along(on, way, dot(subtract(p, on), way));
  return [foot(from), foot(to), way];
};

/**
 * Where the extension line to a place starts: at what is measured, but of an edge as a whole at its end that is nearest
 * to there, and nowhere (at that place itself) where the edge is there already.
 */
const startOn = (drawing: Drawing, ref: Ref, measured: Point, to: Point): Point => {
  const curve = ref.place === undefined ? curveAt(drawing, ref) : undefined;
  if (curve?.kind !== "piece" || curve.bulge !== 0) return measured;
  return pieceNearest(curve, to).at;
};

export const drawLinear = (
  pen: Pen,
  drawing: Drawing,
  annotation: Annotation,
  { text, tolerance }: Figure,
): boolean => {
  const [ends, span] = [lineEnds(drawing, annotation), linearSpan(drawing, annotation)];
  if (!ends || !span) return false;
  const [a, b, way] = ends;
  const [first, second = first] = annotation.refs;
  const single = annotation.refs.length === 1;
  extensionLine(pen, single ? span.from : startOn(drawing, first!, span.from, a), a);
  extensionLine(pen, single ? span.to : startOn(drawing, second!, span.to, b), b);
  dimensionLine(pen, a, b, text, tolerance, { shift: annotation.at.x, flipped: annotation.flipped === true, way });
  return true;
};

/**
 * An ordinate: an extension line from its place, square to what it counts along, to its figure, which is written along
 * that line; a knee where the figure stands aside.
 */
export const drawOrdinate = (pen: Pen, drawing: Drawing, annotation: Annotation, { text }: Figure): boolean => {
  const [place, end] = [annotation.refs[1] && placeOf(drawing, annotation.refs[1]), textPlace(drawing, annotation)];
  if (!place || !end) return false;
  const across = leftOf(unitAt(annotation.angle ?? 0));
  const by = subtract(end, place);
  const out = dot(by, across);
  const side = out < 0 ? -1 : 1;
  const aside = subtract(by, times(across, out));
  const knee = Math.max(pen.gap, Math.abs(out) / 2);
  const start = along(place, across, side * pen.gap);
  const width = pen.width(text);
  const tip = along(end, across, side * (width + pen.height / 2));
  if (Math.hypot(aside.x, aside.y) > pen.height / 100) {
    const [p, q] = [along(place, across, side * knee), add(along(place, across, side * knee), aside)];
    pen.line(start, p);
    pen.line(p, q);
    pen.line(q, tip);
  } else pen.line(start, tip);
  const angle = Math.atan2(across.y, across.x);
  pen.figure(text, [], along(end, across, (side * (width + pen.height / 2)) / 2), angle);
  return true;
};
