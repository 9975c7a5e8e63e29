import { angleSides, frameOf, toFrame } from "../attach/frame.ts";
import { placeOf } from "../attach/places.ts";
import { measureCallout } from "../callouts/measure.ts";
import type { Annotation } from "../drawing/annotation.ts";
import type { Callout, CalloutKind } from "../drawing/callout.ts";
import { calloutsOf, cutEntities, curveAt, layerOf, roundAt, type Drawing } from "../drawing/drawing.ts";
import { curvesOf } from "../drawing/entity.ts";
import { sameRef, type Ref } from "../drawing/ref.ts";
import { arcOf } from "../geometry/piece.ts";
import { distance, dot, norm, subtract, times, type Point } from "../geometry/point.ts";
import { toRadians, unitAt } from "../numeric/angle.ts";
import { TRUE_WITHIN } from "../numeric/tolerance.ts";
import type { NewAnnotation } from "./editAnnotations.ts";
import { measureAnnotation, sectorAt } from "./measure.ts";

const WITHOUT_ID = 0;

/**
 * An annotation with its text, or its dimension line, at a place of the drawing: a linear one and one round a centre
 * with their figures in the middle, all others just there. As it was where what it holds is gone.
 */
export const placedAt = (
  drawing: Drawing,
  unplaced: Omit<NewAnnotation, "at"> & Partial<NewAnnotation>,
  place: Point,
): NewAnnotation => {
  const annotation: NewAnnotation = { at: { x: 0, y: 0 }, ...unplaced };
  const frame = frameOf(drawing, { ...annotation, id: WITHOUT_ID });
  if (!frame) return annotation;
  const at = toFrame(frame, place);
  switch (annotation.kind) {
    case "linear":
      return { ...annotation, at: { x: 0, y: at.y } };
    case "angle": {
      const sector = sectorAt(angleSides(drawing, annotation.refs)!, at);
      return { ...annotation, at: times(unitAt(sector.from + sector.sweep / 2), norm(at)) };
    }
    case "arc length": {
      const curve = annotation.refs[0] && curveAt(drawing, annotation.refs[0]);
      const arc = curve?.kind === "piece" ? arcOf(curve) : undefined;
      return { ...annotation, at: arc ? times(unitAt(arc.from + arc.sweep / 2), norm(at)) : at };
    }
    case "centre mark":
    case "centre line":
    case "thread mark":
      return annotation;
    default:
      return { ...annotation, at };
  }
};

/** The text of an annotation put at a place, also aside of the middle; the line of a linear one goes along with it. */
export const textPutAt = (drawing: Drawing, annotation: Annotation, place: Point): Annotation => {
  const frame = frameOf(drawing, annotation);
  return frame ? { ...annotation, at: toFrame(frame, place) } : annotation;
};

/** The directions in which a linear dimension may be asked for. */
export type Way = "along" | "level" | "upright" | "angle";
/** The angle of a way (radians), `degrees` where it is asked for; undefined for along. */
export const wayAngle = (way: Way, degrees: number): number | undefined =>
  way === "along" ? undefined : way === "level" ? 0 : way === "upright" ? Math.PI / 2 : toRadians(degrees);

/** A linear dimension between things, its line through a place. */
export const linearAt = (
  drawing: Drawing,
  refs: readonly Ref[],
  angle: number | undefined,
  place: Point,
): NewAnnotation => placedAt(drawing, { kind: "linear", refs, ...(angle === undefined ? {} : { angle }) }, place);

/**
 * Dimensions of three and more places in one direction: one after another on one line through a place (`chain`), or
 * all from the first, each line `step` farther out than the one before (`baseline`), shortest nearest. Places that
 * coincide in that direction count once.
 */
export const runOf = (
  drawing: Drawing,
  refs: readonly Ref[],
  kind: "chain" | "baseline",
  angle: number,
  place: Point,
  step: number,
): readonly NewAnnotation[] => {
  const way = unitAt(angle);
  const stations = refs.flatMap((ref) => {
    const at = placeOf(drawing, ref);
    return at ? [{ ref, at, along: dot(at, way) }] : [];
  });
  const first = stations[0];
  if (!first) return [];
  const from = (one: { along: number }): number => Math.abs(one.along - first.along);
  const sorted =
    kind === "chain"
      ? [...stations].sort((p, q) => p.along - q.along)
      : [first, ...stations.slice(1).sort((p, q) => from(p) - from(q))];
  const distinct = sorted.filter((one, i) => i === 0 || Math.abs(one.along - sorted[i - 1]!.along) > TRUE_WITHIN);
  const across = { x: -way.y, y: way.x };
  const side = dot(subtract(place, first.at), across) < 0 ? -1 : 1;
  return distinct.slice(1).flatMap((one, i) => {
    const start = kind === "chain" ? distinct[i]! : first;
    if (Math.abs(one.along - start.along) <= TRUE_WITHIN) return [];
    const out = kind === "chain" ? 0 : i * step * side;
    return [
      linearAt(drawing, [start.ref, one.ref], angle, { x: place.x + out * across.x, y: place.y + out * across.y }),
    ];
  });
};

/** The round curves of the same radius as one, itself first, on layers that are shown and cut. */
export const equalRounds = (drawing: Drawing, ref: Ref): readonly Ref[] => {
  const size = roundAt(drawing, ref)?.radius;
  if (size === undefined) return [ref];
  const own = curveAt(drawing, ref)!;
  const others = cutEntities(drawing).flatMap((entity) =>
    layerOf(drawing, entity.layer)?.shown
      ? curvesOf(entity).flatMap(({ curve, ref: other }) => {
          const radius = curve.kind === own.kind ? roundAt(drawing, other)?.radius : undefined;
          return radius !== undefined && Math.abs(radius - size) <= TRUE_WITHIN ? [other] : [];
        })
      : [],
  );
  return [ref, ...others.filter((other) => !sameRef(other, ref))];
};

/** The kinds of callout that a dimension of a kind can show. */
const SHOWS: Readonly<Partial<Record<Annotation["kind"], readonly CalloutKind[]>>> = {
  linear: ["length", "centres"],
  angle: ["angle"],
  radius: ["radius"],
  diameter: ["diameter"],
  "arc length": ["length"],
};

const sameRefs = (p: readonly Ref[], q: readonly Ref[]): boolean =>
  p.length === q.length && p.every((one) => q.some((other) => sameRef(one, other)));

/** The callout that a dimension answers: of its kind, placed on the very same things; undefined where there is none. */
const calloutFor = (drawing: Drawing, annotation: NewAnnotation): Callout | undefined => {
  const kinds = SHOWS[annotation.kind];
  if (!kinds) return undefined;
  const axisOf = annotation.angle === undefined ? undefined : Math.abs(Math.cos(annotation.angle)) > 0.5 ? "x" : "y";
  return calloutsOf(drawing).find(
    ({ kind, links, axis }) =>
      kinds.includes(kind) &&
      (annotation.kind !== "linear" || axis === axisOf) &&
      links.length > 0 &&
      sameRefs(links, annotation.refs),
  );
};

/** True where an annotation shows the number that is measured for a callout: the same sector, the same way along. */
const isOfCallout = (drawing: Drawing, annotation: NewAnnotation, callout: Callout): boolean => {
  const state = measureCallout(drawing, callout);
  const shown = measureAnnotation(drawing, { ...annotation, id: WITHOUT_ID });
  if (state.state === "not placed" || !shown) return false;
  return [shown.least, shown.most].some((size) => Math.abs(size - state.measured) <= TRUE_WITHIN);
};

/** An annotation with the callout that it answers, where there is one. */
export const withCallout = (drawing: Drawing, annotation: NewAnnotation): NewAnnotation => {
  const callout = calloutFor(drawing, annotation);
  return callout && isOfCallout(drawing, annotation, callout) ? { ...annotation, callout: callout.id } : annotation;
};

/**
 * The dimension of a callout with its text or its line at a place; an angle in the nearest of its sectors that the
 * callout speaks of, as far out as the place is.
 */
export const calledAt = (drawing: Drawing, bare: NewAnnotation, callout: Callout, place: Point): NewAnnotation => {
  const placed = placedAt(drawing, bare, place);
  const sides = placed.kind === "angle" ? angleSides(drawing, placed.refs) : undefined;
  if (!sides || isOfCallout(drawing, placed, callout)) return placed;
  let { at } = placed;
  const others = Array.from({ length: 3 }, (): NewAnnotation => {
    const { from, sweep } = sectorAt(sides, at);
    const next = sectorAt(sides, unitAt(from + sweep + NEXT_SECTOR));
    at = times(unitAt(next.from + next.sweep / 2), norm(placed.at));
    return { ...placed, at };
  });
  const off = (one: NewAnnotation): number => distance(one.at, placed.at);
  return others.filter((one) => isOfCallout(drawing, one, callout)).sort((p, q) => off(p) - off(q))[0] ?? placed;
};
/** A little into the next sector, radians. */
const NEXT_SECTOR = 1e-9;
