import { frameOf, fromFrame, tipOf, toFrame } from "../attach/frame.ts";
import { placeOf } from "../attach/places.ts";
import type { Annotation } from "../drawing/annotation.ts";
import { annotationOf, type Drawing } from "../drawing/drawing.ts";
import { DATUM, type Ref } from "../drawing/ref.ts";
import { midpoint, type Point } from "../geometry/point.ts";
import type { Display } from "./display.ts";
import { placedAt, textPutAt } from "./placing.ts";
import { lineEnds } from "./straight.ts";

/**
 * A place of a selected annotation by which it is changed: its text, its dimension line, or a thing that it holds. Its
 * one reference names the annotation, and by `vertex` which of the things it is.
 */
export type AnnotationHandle = {
  readonly kind: "text" | "line" | "held";
  readonly at: Point;
  readonly refs: readonly [Ref];
};

/** The handles of an annotation that is drawn so; none of one without text or places of its own to move. */
export const annotationHandles = (drawing: Drawing, { id, drawn }: Display): readonly AnnotationHandle[] => {
  const annotation = annotationOf(drawing, id);
  if (!annotation) return [];
  const text = drawn.find((one) => one.kind === "text");
  const ends = annotation.kind === "linear" && !annotation.lost ? lineEnds(drawing, annotation) : undefined;
  const held = annotation.refs.flatMap((ref, which): readonly AnnotationHandle[] => {
    const at = annotation.kind === "note" ? tipOf(drawing, ref) : placeOf(drawing, ref);
    return at && ref.id !== DATUM.id ? [{ kind: "held", at, refs: [{ id, vertex: which }] }] : [];
  });
  return [
    ...(text ? [{ kind: "text", at: text.middle, refs: [{ id }] } as const] : []),
    ...(ends ? [{ kind: "line", at: midpoint(ends[0], ends[1]), refs: [{ id }] } as const] : []),
    ...held,
  ];
};

/**
 * An annotation whose text was pulled from one place to another: of a linear one along its line and with it, of one
 * round a centre round that, all others just there.
 */
export const textPulled = (drawing: Drawing, annotation: Annotation, from: Point, to: Point): Annotation => {
  const frame = frameOf(drawing, annotation);
  if (annotation.lost) {
    const [, was] = annotation.lost;
    return { ...annotation, lost: [to, was] };
  }
  if (!frame) return annotation;
  const [start, end] = [toFrame(frame, from), toFrame(frame, to)];
  if (annotation.kind === "linear") {
    const off = end.y - start.y;
    return { ...annotation, at: { x: orMiddle(end.x, Math.abs(off)), y: annotation.at.y + off } };
  }
  const stand = fromFrame(frame, annotation.at);
  return textPutAt(drawing, annotation, { x: stand.x + to.x - from.x, y: stand.y + to.y - from.y });
};

/** A text that was pulled off and hardly along is meant to stay in the middle. */
const orMiddle = (x: number, off: number): number => (Math.abs(x) <= off * IN_THE_MIDDLE ? 0 : x);
const IN_THE_MIDDLE = 0.05;

/** A linear dimension with its line through a place; what goes round a centre with its arc through it. */
export const linePulled = (drawing: Drawing, annotation: Annotation, to: Point): Annotation => {
  const placed = { ...annotation, ...placedAt(drawing, annotation, to) };
  return annotation.kind === "linear" ? { ...placed, at: { x: annotation.at.x, y: placed.at.y } } : placed;
};

/** An annotation that holds another thing instead of one of its own; its text stays where it is. */
export const holdingInstead = (drawing: Drawing, annotation: Annotation, which: number, ref: Ref): Annotation => {
  const frame = frameOf(drawing, annotation);
  const text = frame && fromFrame(frame, annotation.at);
  const { callout: _, ...held } = { ...annotation, refs: annotation.refs.map((one, i) => (i === which ? ref : one)) };
  if (!text) return held;
  const put = textPutAt(drawing, held, text);
  return annotation.kind === "linear" ? { ...put, at: { x: annotation.at.x, y: put.at.y } } : put;
};
