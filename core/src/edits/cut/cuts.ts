import { entityOf, isLayout, type Drawing } from "../../drawing/drawing.ts";
import { curvesOf, type Entity } from "../../drawing/entity.ts";
import { sameTarget } from "../../drawing/ref.ts";
import { growBounds } from "../../geometry/bounds.ts";
import { curveBounds, curveNearest, type Curve, type SmoothCurve } from "../../geometry/curve.ts";
import { partOfEllipse } from "../../geometry/ellipse.ts";
import { partOfFree } from "../../geometry/free.ts";
import { partOfPiece, pieceLength, type Piece } from "../../geometry/piece.ts";
import { distance, type Point } from "../../geometry/point.ts";
import { meetings } from "../../intersect/meetings.ts";
import { searchIndex, type DrawingIndex } from "../../look/drawingIndex.ts";
import type { Id } from "../../numeric/id.ts";
import { RESOLUTION } from "../../numeric/tolerance.ts";

/** A cut: how far along the entity, and the point as numbers that both sides share. */
export type Cut = { readonly s: number; readonly at: Point };

/** What counts as a cutting edge or a boundary: everything shown, all but layout, or just what is named. */
export type Cutters = "all" | "cut" | ReadonlySet<Id>;
/** Which things cut: all, all that is cut (no layout), or those that are named. */
export const cutterTest = (drawing: Drawing, cutters: Cutters): ((id: Id) => boolean) => {
  if (cutters === "all") return () => true;
  if (cutters === "cut") return (id) => !isLayout(drawing, entityOf(drawing, id)!);
  return (id) => cutters.has(id);
};

/** The parameter of the place on a curve that is nearest, within its ends. */
export const paramWithin = (curve: Curve, at: Point): number => curveNearest(curve, at).t;

/**
 * All cuts on an entity, in order along it, each once. For a circle `s` is the angle; else piece number plus fraction.
 */
export const cutsOf = (index: DrawingIndex, entity: Entity, cutters: Cutters): Cut[] => {
  const isCutter = cutterTest(index.drawing, cutters);
  const own = curvesOf(entity);
  const cuts: Cut[] = [];
  own.forEach(({ curve, ref }, i) => {
    for (const item of searchIndex(index, growBounds(curveBounds(curve)!, RESOLUTION))) {
      if (item.kind !== "curve" || sameTarget(item.ref, ref) || !isCutter(item.ref.id)) continue;
      const sibling = item.ref.id === entity.id;
      for (const meeting of meetings(curve, item.curve, RESOLUTION)) {
        // the joints of the chain itself
        if (sibling && (meeting.kind === "end" || meeting.kind === "overlap")) continue;
        for (const at of meeting.kind === "overlap" ? [meeting.from, meeting.to] : [meeting.at])
          cuts.push({ s: i + paramWithin(curve, at), at });
      }
    }
  });
  cuts.sort((p, q) => p.s - q.s);
  return cuts.filter((cut, i) => i === 0 || distance(cut.at, cuts[i - 1]!.at) > RESOLUTION);
};

/** The pieces from one cut to another, round the end of a closed chain where `to` comes first. */
export const runBetween = (pieces: readonly Piece[], from: Cut, to: Cut): Piece[] => {
  const n = pieces.length;
  const end = to.s > from.s ? to.s : to.s + n;
  const run: Piece[] = [];
  for (let i = Math.floor(from.s); i < end; i++) {
    const piece = pieces[i % n]!;
    const t0 = Math.max(0, from.s - i);
    const t1 = Math.min(1, end - i);
    if (t1 <= t0) continue;
    const part = partOfPiece(piece, t0, t1, t0 > 0 ? from.at : undefined, t1 < 1 || i + 1 >= end ? to.at : undefined);
    if (pieceLength(part) > RESOLUTION) run.push(part);
  }
  return run;
};

export type Smoothly = Entity & SmoothCurve;

/** The part of an ellipse or a free curve between two cuts. */
export const partOf = (entity: Smoothly, from: Cut, to: Cut): Smoothly =>
  entity.kind === "ellipse"
    ? { ...entity, ...partOfEllipse(entity, from.s, to.s) }
    : { ...entity, ...partOfFree(entity, from.s, to.s, from.at, to.at) };
