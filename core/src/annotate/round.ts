import type { Annotation } from "../drawing/annotation.ts";
import { curveAt, roundAt, type Drawing } from "../drawing/drawing.ts";
import { arcAt } from "../geometry/circle.ts";
import type { Curve } from "../geometry/curve.ts";
import { arcOf } from "../geometry/piece.ts";
import { along, angleOf, norm, unit, type Point } from "../geometry/point.ts";
import { normalAngle, TURN } from "../numeric/angle.ts";
import type { Pen } from "./pen.ts";
import type { Figure } from "./straight.ts";

/** Goes on with an arc as an extension line to where its dimension meets its circle, where it is not there itself. */
const extendArc = (pen: Pen, curve: Curve, angle: number): void => {
  const arc = curve.kind === "piece" ? arcOf(curve) : undefined;
  if (!arc) return;
  const from = arc.sweep > 0 ? arc.from : arc.from + arc.sweep;
  const sweep = Math.abs(arc.sweep);
  const off = normalAngle(angle - from);
  if (off <= sweep) return;
  const [past, before] = [off - sweep, TURN - off];
  const over = pen.overhang / arc.radius;
  const gap = pen.gap / arc.radius;
  if (past <= before) pen.arc(arc.centre, arc.radius, from + sweep + gap, Math.max(past + over - gap, 0));
  else pen.arc(arc.centre, arc.radius, from - gap, -Math.max(before + over - gap, 0));
};

/**
 * Draws R or Ø of a round curve. With its text inside and room for it: along a line from the centre (R) or right
 * across (Ø), arrows from inside. Else a leader with a level landing under the text: from outside, pointing to the
 * centre, or, of an arc whose text stands within it, from there.
 */
export const drawRound = (pen: Pen, drawing: Drawing, annotation: Annotation, figure: Figure): boolean => {
  const { refs, at, kind, flipped = false, bare = false } = annotation;
  const curve = refs[0] && curveAt(drawing, refs[0]);
  const round = refs[0] && roundAt(drawing, refs[0]);
  if (!curve || !round) return false;
  const { centre, radius } = round;
  const way = unit(at) ?? { x: 1, y: 0 };
  const angle = angleOf(way);
  const edge = arcAt(centre, radius, angle);
  const width = pen.figureWidth(figure.text, figure.tolerance);
  const across = kind === "diameter" && curve.kind === "circle";
  const room = (across ? 2 * radius : radius) >= width + 2 * pen.arrow;
  extendArc(pen, curve, angle);
  if (norm(at) <= radius && room && !flipped) {
    // the figure stands where it was put, but clear of the arrows
    const [low, high] = [(across ? -radius : 0) + pen.arrow + width / 2, radius - pen.arrow - width / 2];
    const middle = Math.min(Math.max(norm(at), low), high);
    // a centre that lies far off is not reached: the line starts under the figure
    const far = !across && radius > FAR * (width + 2 * pen.arrow);
    const from = along(centre, way, across ? -radius : far ? middle - width / 2 - pen.height / 2 : 0);
    pen.line(from, edge);
    pen.terminator(edge, angle);
    if (across) pen.terminator(from, angle + Math.PI);
    pen.figure(figure.text, figure.tolerance, along(centre, way, middle), angle);
    return true;
  }
  // within an arc there is nothing but the place of its centre: a leader from there, where it has room for its arrow
  if (curve.kind !== "circle" && norm(at) <= radius - 2 * pen.arrow && !flipped) {
    const inner = along(centre, way, norm(at));
    pen.line(edge, inner);
    pen.terminator(edge, angle);
    landing(pen, inner, way.x < 0 ? 1 : -1, figure, bare);
    return true;
  }
  const out = Math.max(norm(at), radius + 2 * pen.arrow);
  const elbow = along(centre, way, out);
  pen.line(edge, elbow);
  pen.terminator(edge, angle + Math.PI);
  landing(pen, elbow, way.x < 0 ? -1 : 1, figure, bare);
  return true;
};

/** A centre farther off than so many times what a radius needs is not reached. */
const FAR = 3;

/** A level landing from the end of a leader, with a figure above it; without its line where it is hidden. */
const landing = (pen: Pen, elbow: Point, side: 1 | -1, { text, tolerance }: Figure, bare: boolean): void => {
  const width = pen.figureWidth(text, tolerance) + pen.height / 2;
  if (!bare) pen.line(elbow, { x: elbow.x + side * width, y: elbow.y });
  pen.figure(text, tolerance, { x: elbow.x + (side * width) / 2, y: elbow.y }, 0);
};
