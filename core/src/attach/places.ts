import { centroidOf } from "../contour/centroid.ts";
import { chainPiece, chainPieces } from "../contour/chain.ts";
import { curveAt, entityOf, settingsOf, type Drawing } from "../drawing/drawing.ts";
import { pageGet } from "../drawing/pages.ts";
import { fromPicture } from "../drawing/picture.ts";
import { DATUM, type Place, type Ref } from "../drawing/ref.ts";
import { circlePoint } from "../geometry/circle.ts";
import { carrierOf, curveNearest, isSmooth, smoothOf, type Carrier, type Curve } from "../geometry/curve.ts";
import { ellipseParameter } from "../geometry/ellipse.ts";
import { endlessPoint } from "../geometry/endless.ts";
import { piecePoint } from "../geometry/piece.ts";
import { distance, type Point } from "../geometry/point.ts";
import { equalParts } from "../geometry/smooth.ts";
import { meetCarriers, meetingPoints } from "../intersect/carriers.ts";
import { meetings } from "../intersect/meetings.ts";
import { TURN } from "../numeric/angle.ts";
import { RESOLUTION } from "../numeric/tolerance.ts";

/** The datum, a layout point or a place on a picture: what is a point without a curve. */
const ownPoint = (drawing: Drawing, ref: Ref): Point | undefined => {
  if (ref.id === DATUM.id) return settingsOf(drawing).datum;
  const entity = entityOf(drawing, ref.id);
  if (entity?.kind === "point") return entity.at;
  if (entity || typeof ref.place !== "object" || !("pixel" in ref.place)) return undefined;
  const picture = pageGet(drawing.picture, ref.id);
  return picture && fromPicture(picture, ref.place.pixel);
};

/**
 * The place of a curve by its name, in the drawing's coordinates; undefined for what the curve has none of. Exact for
 * ends.
 */
export const placeOnCurve = (curve: Curve, place: Exclude<Place, "area" | "sharp">): Point | undefined => {
  if (typeof place === "object") {
    if ("quarter" in place) return quarterOf(curve, place.quarter);
    if (!("along" in place)) return undefined;
    if (curve.kind === "circle") return circlePoint(curve, TURN * place.along);
    if (curve.kind === "endless") return endlessPoint(curve, place.along);
    return isSmooth(curve) ? smoothOf(curve).at(place.along) : piecePoint(curve, place.along);
  }
  if (place === "centre") {
    if (curve.kind === "ellipse") return curve.centre;
    const carrier = carrierOf(curve);
    return carrier?.kind === "circle" ? carrier.centre : undefined;
  }
  if (curve.kind === "piece") return place === "start" ? curve.a : place === "end" ? curve.b : piecePoint(curve, 0.5);
  if (!isSmooth(curve)) return undefined;
  const smooth = smoothOf(curve);
  if (smooth.closed) return undefined;
  return place === "middle" ? equalParts(smooth, 2)[1] : smooth.at(place === "start" ? 0 : 1);
};

/** The place of a curve nearest to a point on it, as a reference that can be stored and measured again. */
export const placeRefOn = (ref: Ref, curve: Curve, at: Point): Ref => {
  const { t } = curveNearest(curve, at);
  return { ...ref, place: { along: curve.kind === "circle" ? t / TURN : t } };
};

/** What a leader that ends at a point of a curve holds: that very place; a whole circle by its edge. */
export const pointedOn = (ref: Ref, curve: Curve, at: Point): Ref =>
  curve.kind === "circle" ? ref : placeRefOn(ref, curve, at);

const quarterOf = (curve: Curve, quarter: number): Point | undefined => {
  if (curve.kind === "ellipse") {
    const t = ellipseParameter(curve, (quarter * TURN) / 4);
    return t === undefined ? undefined : smoothOf(curve).at(t);
  }
  const carrier = carrierOf(curve);
  return carrier?.kind === "circle" ? circlePoint(carrier, (quarter * TURN) / 4) : undefined;
};

/** The carriers of the pieces before and after one of a chain: those whose meeting is its sharp corner. */
const besideCorner = (drawing: Drawing, { id, vertex }: Ref): readonly [Carrier, Carrier, Point] | undefined => {
  const entity = entityOf(drawing, id);
  if (entity?.kind !== "chain") return undefined;
  const n = entity.vertices.length;
  const i = entity.vertices.findIndex((one) => one.id === vertex);
  const piece = i < 0 ? undefined : chainPiece(entity, i);
  const before = i > 0 ? chainPiece(entity, i - 1) : entity.closed ? chainPiece(entity, n - 1) : undefined;
  const after = i + 1 < n ? chainPiece(entity, i + 1) : entity.closed ? chainPiece(entity, 0) : undefined;
  if (!piece || !before || !after) return undefined;
  const [p, q] = [before, after].map((one) => carrierOf({ kind: "piece", ...one })) as [Carrier, Carrier];
  return [p, q, piecePoint(piece, 0.5)];
};

const nearestOf = (places: readonly Point[], to: Point): Point | undefined => {
  let best: Point | undefined;
  for (const place of places) if (!best || distance(place, to) < distance(best, to)) best = place;
  return best;
};

/** Where two curves meet, or would if they ran on; nearest to `near`. */
const crossingOf = (p: Curve, q: Curve, near: Point): Point | undefined => {
  const met = meetings(p, q, RESOLUTION).flatMap((one) => (one.kind === "overlap" ? [] : [one.at]));
  const [one, other] = [carrierOf(p), carrierOf(q)];
  const extended = one && other ? meetingPoints(meetCarriers(one, other, RESOLUTION)) : [];
  return nearestOf([...met, ...extended], near);
};

/**
 * The point that a reference names, in the drawing's coordinates; undefined where it names a whole curve, where what it
 * names is gone, and where that has no such place. Places on what is drawn are exact to the construction's own
 * residual.
 */
export const placeOf = (drawing: Drawing, ref: Ref): Point | undefined => {
  const own = ownPoint(drawing, ref);
  if (own) return own;
  const { place } = ref;
  if (place === undefined) return undefined;
  if (place === "area") {
    const entity = entityOf(drawing, ref.id);
    return entity?.kind === "chain" && entity.closed ? centroidOf(chainPieces(entity)) : undefined;
  }
  if (place === "sharp") {
    const sides = besideCorner(drawing, ref);
    return sides && nearestOf(meetingPoints(meetCarriers(sides[0], sides[1], RESOLUTION)), ref.near ?? sides[2]);
  }
  const curve = curveAt(drawing, ref);
  if (!curve) return place === "start" ? lastVertex(drawing, ref) : undefined;
  if (typeof place === "object" && "crosses" in place) {
    const other = curveAt(drawing, place.crosses);
    return other && crossingOf(curve, other, ref.near ?? placeOnCurve(curve, "middle") ?? { x: 0, y: 0 });
  }
  return placeOnCurve(curve, place);
};

/** The last corner of an open chain, at which no piece starts. */
const lastVertex = (drawing: Drawing, { id, vertex }: Ref): Point | undefined => {
  const entity = entityOf(drawing, id);
  return entity?.kind === "chain" ? entity.vertices.find((one) => one.id === vertex)?.at : undefined;
};

/**
 * What a referenced place hangs on: the carrier of its curve, or those of both curves of a corner or a crossing; none
 * for smooth curves and bare points.
 */
export const carriersOf = (drawing: Drawing, ref: Ref): readonly Carrier[] => {
  if (ref.place === "sharp") return (besideCorner(drawing, ref)?.slice(0, 2) as readonly Carrier[] | undefined) ?? [];
  const refs = typeof ref.place === "object" && "crosses" in ref.place ? [ref, ref.place.crosses] : [ref];
  return refs.flatMap((one) => {
    const curve = curveAt(drawing, one);
    const carrier = curve && carrierOf(curve);
    return carrier ? [carrier] : [];
  });
};
