import { endedAt, startedAt } from "../../construct/cornerCuts.ts";
import { chainPieces } from "../../contour/chain.ts";
import { drawingBounds, entityOf, refuseLocked } from "../../drawing/drawing.ts";
import type { Edit } from "../../drawing/edit.ts";
import { curvesOf, type Entity } from "../../drawing/entity.ts";
import type { Ref } from "../../drawing/ref.ts";
import { boundsSize, unionBounds, type Bounds } from "../../geometry/bounds.ts";
import { curveBounds, curveNearest, smoothOf, type Curve } from "../../geometry/curve.ts";
import { partOfEllipse } from "../../geometry/ellipse.ts";
import { extendedFree } from "../../geometry/free.ts";
import {
  arcOf,
  partOfPiece,
  pieceDirection,
  pieceLength,
  pieceNearest,
  reversePiece,
  type Piece,
} from "../../geometry/piece.ts";
import { along, distance, type Point } from "../../geometry/point.ts";
import { meetings } from "../../intersect/meetings.ts";
import { searchIndex, type DrawingIndex } from "../../look/drawingIndex.ts";
import { TURN } from "../../numeric/angle.ts";
import { done, refuse, type Outcome } from "../../numeric/outcome.ts";
import { RESOLUTION } from "../../numeric/tolerance.ts";
import { isSmoothShape } from "../../shape/kinds.ts";
import type { Shape } from "../../shape/shape.ts";
import { draftEdit } from "../draftEdit.ts";
import { cutterTest, partOf, type Cutters, type Smoothly } from "./cuts.ts";

/** What an extension adds, or, with a chosen boundary that is crossed already, cuts back. */
export type ExtendPlan = { readonly edit: Edit; readonly comes: readonly Shape[]; readonly goes: readonly Shape[] };

/** Where on a curve, measured from its start, boundaries meet it; its start itself does not count. */
const hitsAlong = (
  index: DrawingIndex,
  curve: Curve,
  own: Entity,
  isBoundary: (id: number) => boolean,
  box: Bounds,
): { at: Point; t: number } | undefined => {
  let best: { at: Point; t: number } | undefined;
  const start = curve.kind === "piece" ? curve.a : smoothOf(curve as Smoothly).at(0);
  for (const item of searchIndex(index, box)) {
    if (item.kind !== "curve" || item.ref.id === own.id || !isBoundary(item.ref.id)) continue;
    for (const meeting of meetings(curve, item.curve, RESOLUTION)) {
      const at = meeting.kind === "overlap" ? meeting.from : meeting.at;
      const { t } = curveNearest(curve, at);
      if (distance(at, start) > RESOLUTION && (!best || t < best.t)) best = { at, t };
    }
  }
  return best;
};

/**
 * The next thing that a straight run from `p` meets: looked for farther and farther, so that near things are found at
 * once.
 */
const straightHit = (
  index: DrawingIndex,
  p: Point,
  direction: Point,
  own: Entity,
  isBoundary: (id: number) => boolean,
  first: number,
): Point | undefined => {
  const all = drawingBounds(index.drawing);
  const farthest =
    4 * (all ? boundsSize(unionBounds([all, { minX: p.x, minY: p.y, maxX: p.x, maxY: p.y }])!) : 0) + 4 * first + 1000;
  for (let reach = 4 * first; ; reach *= 4) {
    const far = Math.min(reach, farthest);
    const ray: Curve = { kind: "piece", a: p, b: along(p, direction, far), bulge: 0 };
    const hit = hitsAlong(index, ray, own, isBoundary, curveBounds(ray)!);
    if (hit) return hit.at;
    if (far === farthest) return undefined;
  }
};

type Found = { readonly at: Point; readonly cutsBack: boolean };

/** Where the end of a piece (its `b`) would go. */
const pieceGoes = (
  index: DrawingIndex,
  piece: Piece,
  own: Entity,
  isBoundary: (id: number) => boolean,
  cutsBack: boolean,
): Found | undefined => {
  if (cutsBack) {
    const back = reversePiece(piece);
    const crossed = hitsAlong(
      index,
      { kind: "piece", ...back },
      own,
      isBoundary,
      curveBounds({ kind: "piece", ...back })!,
    );
    if (crossed && distance(crossed.at, piece.b) > RESOLUTION && distance(crossed.at, piece.a) > RESOLUTION)
      return { at: crossed.at, cutsBack: true };
  }
  const arc = arcOf(piece);
  if (!arc) {
    const at = straightHit(index, piece.b, pieceDirection(piece, 1), own, isBoundary, pieceLength(piece));
    return at && { at, cutsBack: false };
  }
  // on along its circle, as far as its own start
  const rest = TURN - Math.abs(arc.sweep);
  if (rest * arc.radius <= RESOLUTION) return undefined;
  const on: Curve = { kind: "piece", a: piece.b, b: piece.a, bulge: Math.sign(piece.bulge) * Math.tan(rest / 4) };
  const hit = hitsAlong(index, on, own, isBoundary, curveBounds(on)!);
  return hit && distance(hit.at, piece.a) > RESOLUTION ? { at: hit.at, cutsBack: false } : undefined;
};

/**
 * Runs the end of a line, an arc, an open chain, a part of an ellipse or a free curve that lies nearest to `at` on
 * along its own curve to the next boundary ahead: lines straight on, arcs along their circle, ellipses along theirs,
 * free curves as their last piece runs on. With boundaries that were chosen, an end that has run past one is cut back
 * to it instead.
 */
export const planExtend = (index: DrawingIndex, ref: Ref, at: Point, cutters: Cutters = "all"): Outcome<ExtendPlan> => {
  const { drawing } = index;
  const entity = entityOf(drawing, ref.id);
  if (!entity) return refuse("pick-first");
  const locked = refuseLocked(drawing, entity);
  if (locked) return locked;
  const isBoundary = cutterTest(drawing, cutters);
  const cutsBack = typeof cutters !== "string";
  const draft = draftEdit(drawing, "Extend", "extend");

  if (isSmoothShape(entity)) return extendSmooth(index, entity, at, isBoundary, cutsBack);
  if (entity.kind !== "piece" && !(entity.kind === "chain" && !entity.closed)) return refuse("extend-closed");

  const pieces = entity.kind === "piece" ? [entity] : chainPieces(entity);
  const [first, last] = [pieces[0]!, pieces.at(-1)!];
  const atStart = distance(at, first.a) < distance(at, last.b);
  const own = atStart ? reversePiece(first) : last;
  const found = pieceGoes(index, own, entity, isBoundary, cutsBack);
  if (!found) return refuse("extend-nothing-ahead", {}, own.b);
  const t = pieceNearest(own, found.at).t;
  const run = found.cutsBack ? partOfPiece(own, 0, t, undefined, found.at) : endedAt(own, found.at);
  const changed = found.cutsBack ? partOfPiece(own, t, 1, found.at, undefined) : addedPart(own, run);
  const piece = atStart ? reversePiece(run) : run;
  if (entity.kind === "piece") draft.reshape({ ...entity, a: piece.a, b: piece.b, bulge: piece.bulge });
  else {
    const vertices = entity.vertices.map((vertex, i) => {
      if (atStart && i === 0) return { ...vertex, at: piece.a, bulge: piece.bulge };
      if (!atStart && i === entity.vertices.length - 2) return { ...vertex, bulge: piece.bulge };
      return !atStart && i === entity.vertices.length - 1 ? { ...vertex, at: piece.b } : vertex;
    });
    draft.reshape({ ...entity, vertices });
  }
  const shape: Shape = { kind: "piece", a: changed.a, b: changed.b, bulge: changed.bulge };
  return done({ edit: draft.finish(), comes: found.cutsBack ? [] : [shape], goes: found.cutsBack ? [shape] : [] });
};

const addedPart = (own: Piece, run: Piece): Piece => startedAt(run, own.b);

const extendSmooth = (
  index: DrawingIndex,
  entity: Smoothly,
  at: Point,
  isBoundary: (id: number) => boolean,
  cutsBack: boolean,
): Outcome<ExtendPlan> => {
  const smooth = smoothOf(entity);
  if (smooth.closed) return refuse("extend-closed");
  const atStart = distance(at, smooth.at(0)) < distance(at, smooth.at(1));
  const draft = draftEdit(index.drawing, "Extend", "extend");
  const ends = (from: number, to: number): Smoothly =>
    partOf(entity, { s: from, at: smooth.at(from) }, { s: to, at: smooth.at(to) });
  if (cutsBack) {
    const curve = curvesOf(entity)[0]!.curve as Smoothly;
    const cuts = searchIndex(index, curveBounds(curve)!)
      .filter((item) => item.kind === "curve" && item.ref.id !== entity.id && isBoundary(item.ref.id))
      .flatMap((item) => (item.kind === "curve" ? meetings(curve, item.curve, RESOLUTION) : []))
      .flatMap((meeting) => (meeting.kind === "overlap" ? [] : [meeting.onA]))
      .sort((p, q) => p - q);
    const cut = atStart ? cuts[0] : cuts.at(-1);
    if (cut !== undefined) {
      const [kept, gone] = atStart ? [ends(cut, 1), ends(0, cut)] : [ends(0, cut), ends(cut, 1)];
      draft.reshape({ ...kept, id: entity.id });
      return done({ edit: draft.finish(), comes: [], goes: [gone] });
    }
  }
  // the curve run on beyond the end: the rest of the ellipse, or as much again as the last piece of a free curve
  const far: Curve =
    entity.kind === "ellipse"
      ? {
          kind: "ellipse",
          ...(atStart
            ? backwards(partOfEllipse(entity, 1, TURN / Math.abs(entity.sweep)))
            : partOfEllipse(entity, 1, TURN / Math.abs(entity.sweep))),
        }
      : { kind: "free", ...extendedFree(entity, atStart) };
  const hit = hitsAlong(index, far, entity, isBoundary, curveBounds(far)!);
  if (!hit) return refuse("extend-nothing-ahead", {}, smooth.at(atStart ? 0 : 1));
  const added = partOf(
    { ...far, id: entity.id, layer: entity.layer } as Smoothly,
    { s: 0, at: smoothOf(far as Smoothly).at(0) },
    { s: hit.t, at: hit.at },
  );
  if (entity.kind === "ellipse" && added.kind === "ellipse") {
    const more = Math.abs(added.sweep) * Math.sign(entity.sweep);
    draft.reshape(
      atStart
        ? { ...entity, from: entity.from - more, sweep: entity.sweep + more }
        : { ...entity, sweep: entity.sweep + more },
    );
  } else if (entity.kind === "free") draft.reshape({ ...entity, ...extendedFree(entity, atStart, hit.t) });
  return done({ edit: draft.finish(), comes: [added], goes: [] });
};

/** The same part of an ellipse, run the other way. */
const backwards = <T extends { from: number; sweep: number }>(ellipse: T): T => ({
  ...ellipse,
  from: ellipse.from + ellipse.sweep,
  sweep: -ellipse.sweep,
});
