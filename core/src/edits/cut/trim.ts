import { chainOfPieces } from "../../contour/chain.ts";
import { entityOf, refuseLocked } from "../../drawing/drawing.ts";
import type { Edit } from "../../drawing/edit.ts";
import { curvesOf, lookOf, reshaped, type Entity } from "../../drawing/entity.ts";
import { sameTarget, type Ref } from "../../drawing/ref.ts";
import { circleHalves } from "../../geometry/circle.ts";
import { smoothOf } from "../../geometry/curve.ts";
import { arcBetween, plainPiece, type Piece } from "../../geometry/piece.ts";
import { distance, type Point } from "../../geometry/point.ts";
import type { DrawingIndex } from "../../look/drawingIndex.ts";
import { normalAngle } from "../../numeric/angle.ts";
import { done, refuse, type Outcome } from "../../numeric/outcome.ts";
import { RESOLUTION } from "../../numeric/tolerance.ts";
import { isSmoothShape } from "../../shape/kinds.ts";
import type { Shape } from "../../shape/shape.ts";
import { draftEdit } from "../draftEdit.ts";
import { cutsOf, paramWithin, partOf, runBetween, type Cut, type Cutters, type Smoothly } from "./cuts.ts";

/** What a trim would take away and what would stay; `whole` when nothing crosses the piece and all of it goes. */
export type TrimPlan = {
  readonly entity: Entity;
  readonly removed: readonly Shape[];
  readonly whole: boolean;
  readonly edit: Edit;
};

/**
 * Takes the piece between two crossings at `at`, back to the cutting edges: what crosses, touches, ends on it or lies
 * along it. Where something ends on the trimmed curve, the cut takes that end's own numbers.
 *
 * A piece that nothing crosses goes whole; a circle or contour met in one place only can't be cut, and that is said.
 */
export const planTrim = (index: DrawingIndex, ref: Ref, at: Point, cutters: Cutters = "all"): Outcome<TrimPlan> => {
  const { drawing } = index;
  const entity = entityOf(drawing, ref.id);
  if (!entity) return refuse("pick-first");
  if (entity.kind === "point") return refuse("trim-point");
  if (entity.kind === "endless") return refuse("trim-endless");
  const locked = refuseLocked(drawing, entity);
  if (locked) return locked;
  const curves = curvesOf(entity);
  const which = Math.max(
    0,
    curves.findIndex((own) => sameTarget(own.ref, ref)),
  );
  const cuts = cutsOf(index, entity, cutters);
  const s = which + paramWithin(curves[which]!.curve, at);
  if (entity.kind === "circle") return trimCircle(index, entity, cuts, at);
  if (isSmoothShape(entity)) return trimSmooth(index, entity, cuts, s);
  if (entity.kind !== "piece" && entity.kind !== "chain") return refuse("not-a-curve");
  return trimRun(index, entity, cuts, s);
};

/** An ellipse or a free curve: what remains is the same curve over less of its parameter. */
const trimSmooth = (index: DrawingIndex, entity: Smoothly, found: readonly Cut[], s: number): Outcome<TrimPlan> => {
  const { closed, at } = smoothOf(entity);
  const part = (from: Cut, to: Cut): readonly Smoothly[] => {
    if (to.s > from.s) return [partOf(entity, from, to)];
    // round the place where it starts and ends
    if (entity.kind === "ellipse") return [partOf(entity, from, { ...to, s: to.s + 1 })];
    return [partOf(entity, from, { s: 1, at: at(1) }), partOf(entity, { s: 0, at: at(0) }, to)];
  };
  const cuts = closed
    ? found.filter((cut, i) => i === 0 || distance(cut.at, found[0]!.at) > RESOLUTION)
    : found.filter((cut) => distance(cut.at, at(0)) > RESOLUTION && distance(cut.at, at(1)) > RESOLUTION);
  if (cuts.length === 0) return done(finishSmooth(index, entity, [entity], []));
  if (closed && cuts.length === 1) return refuse("trim-single-cut", { what: entity.kind }, cuts[0]!.at);
  const ends: readonly Cut[] = closed
    ? []
    : [
        { s: 0, at: at(0) },
        { s: 1, at: at(1) },
      ];
  const after = cuts.find((cut) => cut.s > s) ?? (closed ? cuts[0]! : ends[1]!);
  const before = [...cuts].reverse().find((cut) => cut.s <= s) ?? (closed ? cuts.at(-1)! : ends[0]!);
  const kept = closed
    ? part(after, before)
    : [...(before === ends[0] ? [] : part(ends[0]!, before)), ...(after === ends[1] ? [] : part(after, ends[1]!))];
  return done(finishSmooth(index, entity, part(before, after), kept));
};

const finishSmooth = (
  index: DrawingIndex,
  entity: Smoothly,
  removed: readonly Smoothly[],
  kept: readonly Smoothly[],
): TrimPlan => {
  const draft = draftEdit(index.drawing, kept.length === 0 ? "Trim (whole piece)" : "Trim", "trim");
  if (kept.length === 0) draft.remove(entity.id);
  kept.forEach((shape, i) =>
    i === 0 ? draft.replace(reshaped(entity, shape)) : draft.add({ ...shape, ...lookOf(entity) }, entity.layer),
  );
  return { entity, removed, whole: kept.length === 0, edit: draft.finish() };
};

const trimCircle = (
  index: DrawingIndex,
  entity: Entity & { kind: "circle" },
  found: readonly Cut[],
  at: Point,
): Outcome<TrimPlan> => {
  // the first and the last cut may be one point on the two sides of angle 0
  const cuts = found.length > 1 && distance(found[0]!.at, found.at(-1)!.at) <= RESOLUTION ? found.slice(0, -1) : found;
  if (cuts.length === 0) return done(finish(index, entity, circleHalves(entity), []));
  if (cuts.length === 1) return refuse("trim-single-cut", { what: "circle" }, cuts[0]!.at);
  const here = normalAngle(paramWithin(entity, at));
  const after = cuts.find(({ s }) => s > here) ?? cuts[0]!;
  const before = cuts[(cuts.indexOf(after) + cuts.length - 1) % cuts.length]!;
  const removed = arcBetween(before.at, after.at, entity.centre, true);
  const kept = arcBetween(after.at, before.at, entity.centre, true);
  return done(finish(index, entity, [removed], [[kept]]));
};

/** Pieces and chains: the run between the cuts on both sides of `s` goes. */
const trimRun = (
  index: DrawingIndex,
  entity: Entity & { kind: "piece" | "chain" },
  all: readonly Cut[],
  s: number,
): Outcome<TrimPlan> => {
  const pieces = curvesOf(entity).map(({ curve }) => curve as Piece & { kind: "piece" });
  const n = pieces.length;
  const closed = entity.kind === "chain" && entity.closed;
  const [first, last] = [pieces[0]!.a, pieces[n - 1]!.b];
  const cuts = closed
    ? all
    : all.filter(({ at }) => distance(at, first) > RESOLUTION && distance(at, last) > RESOLUTION);
  if (cuts.length === 0) return done(finish(index, entity, pieces, []));
  if (closed) {
    if (cuts.length === 1) return refuse("trim-single-cut", { what: "contour" }, cuts[0]!.at);
    const after = cuts.find((cut) => cut.s > s) ?? cuts[0]!;
    const before = cuts[(cuts.indexOf(after) + cuts.length - 1) % cuts.length]!;
    return done(finish(index, entity, runBetween(pieces, before, after), [runBetween(pieces, after, before)]));
  }
  const start: Cut = { s: 0, at: first };
  const stop: Cut = { s: n, at: last };
  const before = [...cuts].reverse().find((cut) => cut.s <= s) ?? start;
  const after = cuts.find((cut) => cut.s > s) ?? stop;
  const kept = [
    ...(before === start ? [] : [runBetween(pieces, start, before)]),
    ...(after === stop ? [] : [runBetween(pieces, after, stop)]),
  ];
  return done(finish(index, entity, runBetween(pieces, before, after), kept));
};

/** The edit: the first remaining part keeps the id. */
const finish = (
  index: DrawingIndex,
  entity: Entity,
  removed: readonly Piece[],
  kept: readonly (readonly Piece[])[],
): TrimPlan => {
  const remains = kept.filter((run) => run.length > 0);
  const whole = remains.length === 0;
  const draft = draftEdit(index.drawing, whole ? "Trim (whole piece)" : "Trim", "trim");
  if (whole) draft.remove(entity.id);
  remains.forEach((run, i) => {
    const shape: Shape =
      run.length === 1 ? { kind: "piece", ...plainPiece(run[0]!) } : chainOfPieces(run, false, draft.newId);
    if (i === 0) draft.replace(reshaped(entity, shape));
    else draft.add({ ...shape, ...lookOf(entity) }, entity.layer);
  });
  return {
    entity,
    removed: removed.map((piece): Shape => ({ kind: "piece", ...plainPiece(piece) })),
    whole,
    edit: draft.finish(),
  };
};
