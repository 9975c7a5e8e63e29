import { chainOfPieces, chainPieces } from "../../contour/chain.ts";
import { entityOf, refuseLocked, type Drawing } from "../../drawing/drawing.ts";
import type { Edit } from "../../drawing/edit.ts";
import { reshaped, type Entity } from "../../drawing/entity.ts";
import { fitCurve, fitOneArc, fitShape, legsOfRun, legsOfSmooth, measureFit, type ArcFit } from "../../fit/index.ts";
import { arcsThrough, steeredBy, straightPieces } from "../../fit/smoothThrough.ts";
import { curvePoint, smoothOf } from "../../geometry/curve.ts";
import { pieceLength, piecePoint, plainPiece, type Piece } from "../../geometry/piece.ts";
import type { Id } from "../../numeric/id.ts";
import { done, refuse, type Outcome } from "../../numeric/outcome.ts";
import { isClosedShape, isSmoothShape, shapePieces } from "../../shape/kinds.ts";
import type { Shape } from "../../shape/shape.ts";
import { draftEdit } from "../draftEdit.ts";

/** A fit made: the edit, what it draws, how many pieces there were and are, and how far it lies off. */
export type FitMade = {
  readonly edit: Edit;
  readonly shape: Shape;
  readonly before: number;
  readonly after: number;
  readonly fit: ArcFit;
};

/** How near a fit is to be, which turns of a chain (radians) are corners, and whether one arc is wanted. */
export type FitGiven = { readonly tolerance: number; readonly cornerAngle?: number; readonly oneArc: boolean };

/** Places looked at on each piece of a chain. */
const LOOKS = [0, 0.25, 0.5, 0.75];

const stationsOf = (pieces: readonly Piece[]): readonly { at: { x: number; y: number }; along: number }[] => {
  let along = 0;
  return pieces.flatMap((piece) => {
    const own = LOOKS.map((part) => ({ at: piecePoint(piece, part), along: along + part * pieceLength(piece) }));
    along += pieceLength(piece);
    return own;
  });
};

/** The pieces of what is made of lines and arcs; undefined for other things. */
const ownPieces = (entity: Entity): { readonly pieces: readonly Piece[]; readonly closed: boolean } | undefined => {
  const pieces = shapePieces(entity);
  return pieces && { pieces, closed: isClosedShape(entity) };
};

const put = (
  drawing: Drawing,
  entity: Entity,
  label: string,
  gesture: string,
  make: (newId: () => Id) => Shape,
): Outcome<{ edit: Edit; shape: Shape }> => {
  const locked = refuseLocked(drawing, entity);
  if (locked) return locked;
  const draft = draftEdit(drawing, label, gesture);
  const shape = make(draft.newId);
  draft.replace(reshaped(entity, shape));
  return done({ edit: draft.finish(), shape });
};

/** The line or arc chain as the simplest shape that it is. */
const fittedShape = (pieces: readonly Piece[], closed: boolean, newId: () => Id): Shape =>
  !closed && pieces.length === 1 ? { kind: "piece", ...plainPiece(pieces[0]!) } : chainOfPieces(pieces, closed, newId);

/**
 * Puts tangent arcs and lines in the place of an ellipse, a free curve, or runs of tiny pieces in a chain, or one arc
 * in the place of a curve that is nearly one. Refused where there is nothing to make of it, and where one arc lies
 * farther off than the tolerance, naming how far.
 */
export const fitEntity = (drawing: Drawing, id: Id, { tolerance, cornerAngle, oneArc }: FitGiven): Outcome<FitMade> => {
  const entity = entityOf(drawing, id);
  if (entity && isSmoothShape(entity)) {
    if (oneArc) {
      const one = fitOneArc(entity);
      if (!one) return refuse("fit-closed");
      if (one.deviation > tolerance) return refuse("fit-too-far", { deviation: one.deviation, tolerance }, one.at);
      const stations = Array.from({ length: 201 }, (_, i) => ({ at: curvePoint(entity, i / 200), along: i }));
      const fit = measureFit(stations, legsOfSmooth(smoothOf(entity)), [one.piece], false);
      const made = put(drawing, entity, "Arc fit", "arc-fit", () => ({ kind: "piece", ...one.piece }));
      return made.ok ? done({ ...made.value, before: 1, after: 1, fit }) : made;
    }
    const fit = fitCurve(entity, tolerance);
    const shape = fitShape(entity, tolerance);
    if (!fit || !shape) return refuse("fit-fails");
    const made = put(drawing, entity, "Arc fit", "arc-fit", (newId) =>
      shape.kind === "circle" ? shape : fittedShape(shape.pieces, shape.closed, newId),
    );
    return made.ok
      ? done({ ...made.value, before: 1, after: shape.kind === "circle" ? 1 : fit.pieces.length, fit })
      : made;
  }
  if (entity?.kind !== "chain") return refuse("fit-nothing");
  const pieces = chainPieces(entity).map(plainPiece);
  const shape = fitShape({ kind: "chain", closed: entity.closed, pieces }, tolerance, cornerAngle);
  if (shape?.kind !== "chain" || shape.pieces.length >= pieces.length) return refuse("fit-nothing");
  const fit = measureFit(stationsOf(pieces), legsOfRun(pieces), shape.pieces, entity.closed);
  const made = put(drawing, entity, "Arc fit", "arc-fit", (newId) => fittedShape(shape.pieces, shape.closed, newId));
  return made.ok ? done({ ...made.value, before: pieces.length, after: shape.pieces.length, fit }) : made;
};

/** Makes a chain smooth: tangent arcs through its vertices, or a free curve that they steer. */
export const smoothEntity = (drawing: Drawing, id: Id, how: "arcs" | "free"): Outcome<{ edit: Edit; shape: Shape }> => {
  const entity = entityOf(drawing, id);
  if (entity?.kind !== "chain") return refuse("chain-needed");
  const points = entity.vertices.map(({ at }) => at);
  if (how === "free") {
    const free = steeredBy(points, entity.closed);
    return free ? put(drawing, entity, "Smooth", "smooth", () => ({ kind: "free", ...free })) : refuse("free-too-few");
  }
  const pieces = arcsThrough(points, entity.closed);
  if (points.length < 3) return refuse("chain-too-short");
  return put(drawing, entity, "Smooth", "smooth", (newId) => chainOfPieces(pieces, entity.closed, newId));
};

/** Arcs, circles and smooth curves as straight pieces within a tolerance. */
export const straightenEntity = (
  drawing: Drawing,
  id: Id,
  tolerance: number,
): Outcome<{ edit: Edit; shape: Shape; count: number }> => {
  const entity = entityOf(drawing, id);
  if (!entity || entity.kind === "point" || entity.kind === "endless") return refuse("not-a-curve");
  // a smooth curve goes by way of arcs: half the tolerance for each step
  const fit = isSmoothShape(entity) ? fitCurve(entity, tolerance / 2) : undefined;
  const own = fit ?? ownPieces(entity);
  if (!own) return refuse("fit-fails");
  if (!fit && own.pieces.every(({ bulge }) => bulge === 0)) return refuse("already-straight");
  const pieces = straightPieces(own.pieces, fit ? tolerance / 2 : tolerance);
  const made = put(drawing, entity, "To straight pieces", "to-straight", (newId) =>
    fittedShape(pieces, own.closed, newId),
  );
  return made.ok ? done({ ...made.value, count: pieces.length }) : made;
};
