import type { Annotation, AnnotationStyle } from "../drawing/annotation.ts";
import { annotationsOf, unitOf, type Drawing } from "../drawing/drawing.ts";
import { pageGet } from "../drawing/pages.ts";
import type { Bounds } from "../geometry/bounds.ts";
import type { Id } from "../numeric/id.ts";
import { TRUE_WITHIN } from "../numeric/tolerance.ts";
import { standingAt } from "../callouts/measure.ts";
import { drawAngle, drawArcLength } from "./angular.ts";
import { drawCentreLine, drawCentreMarks, drawThreadMark } from "./centres.ts";
import { measuredFigure, toleranceFigure } from "./figures.ts";
import { measureAnnotation } from "./measure.ts";
import { drawNote } from "./note.ts";
import { drawnBounds, Pen, type Drawn } from "./pen.ts";
import { drawRound } from "./round.ts";
import { drawLinear, drawOrdinate, type Figure } from "./straight.ts";

/**
 * How an annotation stands: it lost what it measured, or, by the callout that it shows, it is true, within what is
 * allowed, or off; plain where nothing is called.
 */
export type Standing = "plain" | "lost" | "true" | "within" | "off";

/** What one annotation is drawn with, its box, and how it stands. */
export type Display = {
  readonly id: Id;
  readonly drawn: readonly Drawn[];
  readonly bounds: Bounds;
  readonly standing: Standing;
};

/** What stands where something lost what it measured. */
export const LOST_WORDS = "lost what it measured";

const standingOf = (drawing: Drawing, annotation: Annotation): Standing => {
  const sizes = measureAnnotation(drawing, annotation);
  // several that are said to be equal and are not
  if (sizes && sizes.most - sizes.least > TRUE_WITHIN) return "off";
  const callout = annotation.callout === undefined ? undefined : pageGet(drawing.callout, annotation.callout);
  if (!callout) return "plain";
  // by the number that it shows: an angle stands in one of its sectors, and the callout may speak of another
  return sizes ? standingAt(drawing, callout, sizes.most).state : "plain";
};

const figureOf = (drawing: Drawing, annotation: Annotation, style: AnnotationStyle): Figure | undefined => {
  const sizes = measureAnnotation(drawing, annotation);
  if (!sizes) return undefined;
  const callout = annotation.callout === undefined ? undefined : pageGet(drawing.callout, annotation.callout);
  const text = measuredFigure(annotation, sizes, unitOf(drawing), style);
  return {
    text: callout?.reference ? `(${text})` : text,
    tolerance: callout ? toleranceFigure(callout, annotation.kind === "angle") : [],
  };
};

/** Draws an annotation; false where it measures nothing any more. */
const draw = (pen: Pen, drawing: Drawing, annotation: Annotation): boolean => {
  switch (annotation.kind) {
    case "note":
      return drawNote(pen, drawing, annotation);
    case "centre mark":
      return drawCentreMarks(pen, drawing, annotation);
    case "centre line":
      return drawCentreLine(pen, drawing, annotation);
    case "thread mark":
      return drawThreadMark(pen, drawing, annotation);
  }
  const figure = figureOf(drawing, annotation, pen.style);
  if (!figure) return false;
  switch (annotation.kind) {
    case "linear":
      return drawLinear(pen, drawing, annotation, figure);
    case "ordinate":
      return drawOrdinate(pen, drawing, annotation, figure);
    case "angle":
      return drawAngle(pen, drawing, annotation, figure);
    case "arc length":
      return drawArcLength(pen, drawing, annotation, figure);
    case "radius":
    case "diameter":
      return drawRound(pen, drawing, annotation, figure);
  }
};

/**
 * What an annotation is drawn with: strokes, terminators and texts in the drawing's unit, `per` of which are one
 * millimetre of paper. Board, picture, thumbnail and file paint this and nothing else. What lost what it measured, or
 * measures nothing where it stands, says so where its text stood.
 */
export const displayOf = (drawing: Drawing, annotation: Annotation, style: AnnotationStyle, per: number): Display => {
  const pen = new Pen(style, per);
  const stands = !annotation.lost && draw(pen, drawing, annotation);
  if (!stands) {
    const [at, from] = annotation.lost ?? [annotation.at, annotation.at];
    const words = annotation.text ? `${LOST_WORDS}: ${annotation.text.split("\n")[0]}` : LOST_WORDS;
    pen.drawn.length = 0;
    pen.line(from, at);
    pen.figure(words, [], at, 0);
  }
  const { drawn } = pen;
  return {
    id: annotation.id,
    drawn,
    bounds: drawnBounds(drawn)!,
    standing: stands ? standingOf(drawing, annotation) : "lost",
  };
};

/** All annotations of a drawing as they are drawn, in the order of their ids. */
export const displayList = (drawing: Drawing, style: AnnotationStyle, per: number): readonly Display[] =>
  annotationsOf(drawing).map((annotation) => displayOf(drawing, annotation, style, per));
