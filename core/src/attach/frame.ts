import type { Annotation } from "../drawing/annotation.ts";
import { curveAt, roundAt, type Drawing } from "../drawing/drawing.ts";
import type { Ref } from "../drawing/ref.ts";
import { carrierOf } from "../geometry/curve.ts";
import { angleOf, cross, dot, midpoint, subtract, times, unit, type Point } from "../geometry/point.ts";
import { scaleOf, transformPoint, transformVector, type Similarity } from "../geometry/transform.ts";
import { meetCarriers, meetingPoints } from "../intersect/carriers.ts";
import { unitAt } from "../numeric/angle.ts";
import { RESOLUTION } from "../numeric/tolerance.ts";
import { placeOf } from "./places.ts";
import { spanAlong, spanBetween, type Span } from "./spanBetween.ts";

/** Where an annotation's own coordinates count from, and the direction of its x; its y is to the left of that. */
export type Frame = { readonly origin: Point; readonly axis: Point };

const LEVEL: Point = { x: 1, y: 0 };

/** A place in a frame's own coordinates, in the drawing's. */
export const fromFrame = ({ origin, axis }: Frame, { x, y }: Point): Point => ({
  x: origin.x + x * axis.x - y * axis.y,
  y: origin.y + x * axis.y + y * axis.x,
});
/** A place of the drawing in a frame's own coordinates. */
export const toFrame = ({ origin, axis }: Frame, p: Point): Point => {
  const by = subtract(p, origin);
  return { x: dot(axis, by), y: cross(axis, by) };
};

/** The two places that a linear dimension measures between, and its direction from the one to the other. */
export type LinearSpan = { readonly from: Point; readonly to: Point; readonly way: Point };

/** What a linear dimension measures; undefined where it measures nothing (any more). */
export const linearSpan = (
  drawing: Drawing,
  { refs, angle }: Pick<Annotation, "refs" | "angle">,
): LinearSpan | undefined => {
  const [p, q] = refs;
  const span: Span | undefined = p && (q ? spanBetween(drawing, p, q) : spanAlong(drawing, p));
  if (!span) return undefined;
  const { from, to, across } = span;
  if (angle === undefined) return across && { from, to, way: across };
  const way = unitAt(angle);
  return { from, to, way: dot(subtract(to, from), way) < 0 ? times(way, -1) : way };
};

/** The two directions between which an angle is measured, as they are drawn, and where they meet. */
export type AngleSides = {
  readonly vertex: Point;
  readonly one: Point;
  readonly other: Point;
  readonly edges: boolean;
};

/** What an angle is measured of; undefined where it is none (any more): parallels, places that coincide. */
export const angleSides = (drawing: Drawing, refs: readonly Ref[]): AngleSides | undefined => {
  if (refs.length === 3) {
    const [vertex, a, b] = refs.map((ref) => placeOf(drawing, ref));
    const [one, other] = [a, b].map((p) => p && vertex && unit(subtract(p, vertex)));
    return vertex && one && other ? { vertex, one, other, edges: false } : undefined;
  }
  const [a, b] = refs.map((ref) => curveAt(drawing, ref));
  const [p, q] = [a && carrierOf(a), b && carrierOf(b)];
  if (p?.kind !== "line" || q?.kind !== "line") return undefined;
  const [vertex] = meetingPoints(meetCarriers(p, q, RESOLUTION));
  return vertex && { vertex, one: p.direction, other: q.direction, edges: true };
};

/**
 * The frame in which an annotation keeps its text's place, so that it goes where the geometry goes; undefined where
 * what it holds is gone. What hangs on directions turns with them, all else lies level about its place.
 */
export const frameOf = (drawing: Drawing, annotation: Annotation): Frame | undefined => {
  const { kind, refs } = annotation;
  const level = (origin: Point | undefined): Frame | undefined => origin && { origin, axis: LEVEL };
  switch (kind) {
    case "linear": {
      const span = linearSpan(drawing, annotation);
      return span && { origin: midpoint(span.from, span.to), axis: span.way };
    }
    case "angle": {
      const sides = angleSides(drawing, refs);
      return sides && { origin: sides.vertex, axis: sides.one };
    }
    case "ordinate":
      return level(refs[1] && placeOf(drawing, refs[1]));
    case "note":
      return level(refs[0] ? tipOf(drawing, refs[0]) : { x: 0, y: 0 });
    case "centre line":
      return level(refs[0] ? tipOf(drawing, refs[0]) : undefined);
    default:
      return level(refs[0] && roundAt(drawing, refs[0])?.centre);
  }
};

/**
 * Where what a reference names stands, to count from and to point to: its place; of a whole curve its middle, of one
 * that is closed its centre.
 */
export const tipOf = (drawing: Drawing, ref: Ref): Point | undefined =>
  placeOf(drawing, ref) ??
  (ref.place === undefined
    ? (placeOf(drawing, { ...ref, place: "middle" }) ??
      placeOf(drawing, { ...ref, place: "centre" }) ??
      placeOf(drawing, { ...ref, place: "area" }) ??
      placeOf(drawing, { ...ref, place: { along: 0 } }))
    : undefined);

/**
 * An annotation all of whose references went by one similarity, seen in the drawing before: its text goes the same way,
 * and so does the direction in which it measures. Without its references, which whoever moves them knows.
 */
export const movedAnnotation = (before: Drawing, annotation: Annotation, by: Similarity): Annotation => {
  const frame = frameOf(before, annotation);
  if (!frame) return annotation;
  const { at, angle, size, kind } = annotation;
  const text = transformPoint(by, fromFrame(frame, at));
  const turnedWay = angle === undefined || kind !== "linear" ? undefined : angleOf(transformVector(by, unitAt(angle)));
  const axis = kind === "linear" || kind === "angle" ? unit(transformVector(by, frame.axis))! : LEVEL;
  const scale = scaleOf(by);
  return {
    ...annotation,
    at: toFrame({ origin: transformPoint(by, frame.origin), axis }, text),
    ...(turnedWay === undefined ? {} : { angle: turnedWay }),
    ...(size === undefined ? {} : { size: size * scale }),
  };
};

/** Where the text of an annotation stands in the drawing; undefined where what it holds is gone. */
export const textPlace = (drawing: Drawing, annotation: Annotation): Point | undefined => {
  const frame = frameOf(drawing, annotation);
  return frame && fromFrame(frame, annotation.at);
};
