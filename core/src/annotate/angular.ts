import { angleSides } from "../attach/frame.ts";
import { placeOf } from "../attach/places.ts";
import type { Annotation } from "../drawing/annotation.ts";
import { curveAt, type Drawing } from "../drawing/drawing.ts";
import { arcAt } from "../geometry/circle.ts";
import { curveEnds } from "../geometry/curve.ts";
import { arcOf } from "../geometry/piece.ts";
import { along, angleOf, dot, norm, subtract, type Point } from "../geometry/point.ts";
import { unitAt } from "../numeric/angle.ts";
import { greatest, least } from "../numeric/greatest.ts";
import { sectorAt } from "./measure.ts";
import { extensionLine, readable, type Pen } from "./pen.ts";
import type { Figure } from "./straight.ts";

/**
 * Draws a dimension line round a centre from an angle on by a sweep, with its figure at an angle. Arrows go outside
 * where the arc has no room for them beside the figure, or where they are flipped.
 */
const dimensionArc = (
  pen: Pen,
  { centre, radius, from, sweep, at, flipped }: DimensionArc,
  { text, tolerance }: Figure,
): void => {
  const width = pen.figureWidth(text, tolerance);
  const inside = radius * sweep >= width + 2 * pen.arrow !== flipped;
  const tail = inside ? 0 : (2 * pen.arrow) / radius;
  const half = width / 2 / radius;
  // the line goes on under a figure that stands beside it
  const within = ((((at - from) % (2 * Math.PI)) + 3 * Math.PI - sweep / 2) % (2 * Math.PI)) - Math.PI + sweep / 2;
  const low = Math.min(-tail, within - half < 0 ? within - half : 0);
  const high = Math.max(sweep + tail, within + half > sweep ? within + half : 0);
  pen.arc(centre, radius, from + low, Math.min(high - low, 2 * Math.PI));
  // an arrow's back lies on the arc as well: it is turned by half of what it covers
  const lean = pen.arrow / 2 / radius;
  const tip = (angle: number, way: 1 | -1): void => {
    const along_ = inside ? way : -way;
    pen.terminator(arcAt(centre, radius, angle), angle + (along_ * Math.PI) / 2 - along_ * lean);
  };
  tip(from, -1);
  tip(from + sweep, 1);
  pen.figure(text, tolerance, arcAt(centre, radius, at), readable(at + Math.PI / 2));
};

type DimensionArc = {
  readonly centre: Point;
  readonly radius: number;
  readonly from: number;
  readonly sweep: number;
  /** The angle at which the figure stands. */
  readonly at: number;
  readonly flipped: boolean;
};

/** What is drawn of the geometry along a ray from the vertex: from where to where. */
type Drawn = readonly [near: number, far: number];

/** Draws the extension line from what is drawn along a ray to the dimension line, where that lies beyond it. */
const extendRay = (pen: Pen, vertex: Point, way: Point, [near, far]: Drawn, radius: number): void => {
  if (radius > far) extensionLine(pen, along(vertex, way, far), along(vertex, way, radius));
  else if (radius < near) extensionLine(pen, along(vertex, way, near), along(vertex, way, radius));
};

export const drawAngle = (pen: Pen, drawing: Drawing, annotation: Annotation, figure: Figure): boolean => {
  const { refs, at, flipped = false } = annotation;
  const sides = angleSides(drawing, refs);
  if (!sides) return false;
  const { vertex, one, other, edges } = sides;
  const { from, sweep } = sectorAt(sides, at);
  const start = angleOf(one);
  const radius = Math.max(norm(at), pen.arrow);
  // the geometry along each ray: of an edge its ends, of a place just that
  const along_ = [one, other].map((way, i): readonly Point[] => {
    const ref = refs[edges ? i : i + 1]!;
    const curve = edges ? curveAt(drawing, ref) : undefined;
    return [way, ...(curve ? curveEnds(curve) : [placeOf(drawing, ref)!])];
  });
  for (const angle of [start + from, start + from + sweep]) {
    const ray = unitAt(angle);
    const [way, ...places] = along_.reduce((best, side) =>
      Math.abs(dot(side[0]!, ray)) > Math.abs(dot(best[0]!, ray)) ? side : best,
    );
    if (places.length === 0 || !way) continue; // an endless line is there all along
    const out = places.map((p) => dot(subtract(p, vertex), ray));
    extendRay(pen, vertex, ray, [least(out), greatest(out)], radius);
  }
  dimensionArc(pen, { centre: vertex, radius, from: start + from, sweep, at: start + angleOf(at), flipped }, figure);
  return true;
};

/** The sign of an arc: a small arc before the figure (ISO 129-1, 7.9; from memory). */
const arcSign = (pen: Pen, text: string, on: Point, angle: number): void => {
  const way = unitAt(angle);
  const up = unitAt(angle + Math.PI / 2);
  const centre = along(along(on, up, pen.rise - pen.height * 0.35), way, -pen.width(text) / 2 - pen.height * 0.65);
  pen.arc(centre, pen.height * 0.55, angle, Math.PI);
};

export const drawArcLength = (pen: Pen, drawing: Drawing, annotation: Annotation, figure: Figure): boolean => {
  const { refs, at, flipped = false } = annotation;
  const curve = refs[0] && curveAt(drawing, refs[0]);
  const arc = curve?.kind === "piece" ? arcOf(curve) : undefined;
  if (!arc || curve?.kind !== "piece") return false;
  const radius = Math.max(norm(at), pen.arrow);
  const from = arc.sweep > 0 ? arc.from : arc.from + arc.sweep;
  const sweep = Math.abs(arc.sweep);
  for (const angle of [from, from + sweep]) {
    const [own, to] = [arc.radius, radius].map((size) => arcAt(arc.centre, size, angle)) as [Point, Point];
    extensionLine(pen, own, to);
  }
  const where = angleOf(at);
  dimensionArc(pen, { centre: arc.centre, radius, from, sweep, at: where, flipped }, figure);
  arcSign(pen, figure.text, arcAt(arc.centre, radius, where), readable(where + Math.PI / 2));
  return true;
};
