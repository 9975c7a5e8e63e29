import { textPlace, tipOf } from "../attach/frame.ts";
import type { Annotation } from "../drawing/annotation.ts";
import { curveAt, type Drawing } from "../drawing/drawing.ts";
import type { Ref } from "../drawing/ref.ts";
import { arcAt } from "../geometry/circle.ts";
import { angleOf, distance, subtract, type Point } from "../geometry/point.ts";
import { greatest } from "../numeric/greatest.ts";
import type { Pen } from "./pen.ts";

/** How long the level end of a leader is, in heights of lettering. */
const LANDING = 1.5;

/**
 * Draws a note: its lines of text beside the place of its first line, and a leader from there to each of its tips, by
 * way of a level landing where that is not hidden. Text stands on the far side of its tips.
 */
export const drawNote = (pen: Pen, drawing: Drawing, annotation: Annotation): boolean => {
  const { refs, text = "", bare = false } = annotation;
  const place = textPlace(drawing, annotation);
  const tips = refs.map((ref) => tipOf(drawing, ref));
  if (!place || tips.some((tip) => !tip)) return false;
  const lines = text.split("\n");
  const widest = greatest(lines.map((one) => pen.width(one)));
  const side = tips[0] && tips[0].x > place.x ? -1 : 1;
  const { height } = pen;
  const gap = height / 2;
  // the landing stands at half the height of the first line
  const left = tips.length === 0 ? place.x : side > 0 ? place.x + gap : place.x - gap - widest;
  pen.lines(lines, { x: left, y: place.y + height / 2 });
  if (tips.length === 0) return true;
  const elbow: Point = bare ? place : { x: place.x - side * LANDING * height, y: place.y };
  if (!bare) pen.line(elbow, place);
  for (const ref of refs) {
    const tip = towards(drawing, ref, elbow);
    if (distance(elbow, tip) <= height / 100) continue;
    pen.line(elbow, tip);
    pen.terminator(tip, angleOf(subtract(tip, elbow)));
  }
  return true;
};

/** Where a leader from a place touches what it points to: of a whole circle its edge, on the way to its centre. */
const towards = (drawing: Drawing, ref: Ref, from: Point): Point => {
  const curve = ref.place === undefined ? curveAt(drawing, ref) : undefined;
  if (curve?.kind !== "circle") return tipOf(drawing, ref)!;
  return arcAt(curve.centre, curve.radius, angleOf(subtract(from, curve.centre)));
};
