import { chainOfPieces, chainPieces } from "../../contour/chain.ts";
import { curveAt, entityOf, refuseLocked, type Drawing } from "../../drawing/drawing.ts";
import type { Edit } from "../../drawing/edit.ts";
import { curvesOf, lookOf, reshaped, type Entity } from "../../drawing/entity.ts";
import { sameTarget, type Ref } from "../../drawing/ref.ts";
import { circlePoint } from "../../geometry/circle.ts";
import { curveNearest, smoothOf } from "../../geometry/curve.ts";
import { arcBetween, bulgeOf, piecePoint, plainPiece, sweepOf, type Piece } from "../../geometry/piece.ts";
import { distance, type Point } from "../../geometry/point.ts";
import type { DrawingIndex } from "../../look/drawingIndex.ts";
import { TURN } from "../../numeric/angle.ts";
import type { Id } from "../../numeric/id.ts";
import { done, refuse, type Outcome } from "../../numeric/outcome.ts";
import { RESOLUTION, SAME_PARAMETER } from "../../numeric/tolerance.ts";
import { isSmoothShape } from "../../shape/kinds.ts";
import type { Shape } from "../../shape/shape.ts";
import { draftEdit } from "../draftEdit.ts";
import type { ChainEntity } from "../path.ts";
import { cutsOf, paramWithin, partOf, runBetween, type Cut, type Smoothly } from "./cuts.ts";

/** An entity cut into parts at places in order along it; the first part keeps its id. */
const splitAtCuts = (
  drawing: Drawing,
  entity: Entity,
  cuts: readonly Cut[],
  label: string,
): Outcome<{ edit: Edit; parts: number }> => {
  const locked = refuseLocked(drawing, entity);
  if (locked) return locked;
  const shapes = partsOf(entity, cuts);
  if (!shapes) return refuse(entity.kind === "circle" ? "split-circle" : "split-nowhere");
  const draft = draftEdit(drawing, label, "split");
  shapes.forEach((shape, i) => {
    const put: Shape = typeof shape === "function" ? shape(draft.newId) : shape;
    if (i === 0) draft.replace(reshaped(entity, put));
    else draft.add({ ...put, ...lookOf(entity) }, entity.layer);
  });
  return done({ edit: draft.finish(), parts: shapes.length });
};

type MadeShape = Shape | ((newId: () => number) => Shape);

const partsOf = (entity: Entity, cuts: readonly Cut[]): readonly MadeShape[] | undefined => {
  if (entity.kind === "circle") {
    if (cuts.length < 2) return undefined;
    return cuts.map((cut, i): Shape => {
      const next = cuts[(i + 1) % cuts.length]!;
      return { kind: "piece", ...arcBetween(cut.at, next.at, entity.centre, true) };
    });
  }
  if (isSmoothShape(entity)) return smoothParts(entity, cuts);
  if (entity.kind !== "piece" && entity.kind !== "chain") return undefined;
  const pieces = curvesOf(entity).map(({ curve }) => plainPiece(curve as Piece));
  const closed = entity.kind === "chain" && entity.closed;
  const [first, last] = [pieces[0]!.a, pieces.at(-1)!.b];
  const inner = closed
    ? cuts
    : cuts.filter(({ at }) => distance(at, first) > RESOLUTION && distance(at, last) > RESOLUTION);
  if (inner.length === 0) return undefined;
  // round a contour the last run ends at the first cut, past its start
  const stops: Cut[] = closed ? [...inner, inner[0]!] : [{ s: 0, at: first }, ...inner, { s: pieces.length, at: last }];
  const runs = stops.slice(1).map((to, i) => runBetween(pieces, stops[i]!, to));
  return runs
    .filter((run) => run.length > 0)
    .map((run): MadeShape =>
      run.length === 1 ? { kind: "piece", ...plainPiece(run[0]!) } : (newId) => chainOfPieces(run, false, newId),
    );
};

const smoothParts = (entity: Smoothly, cuts: readonly Cut[]): readonly MadeShape[] | undefined => {
  const { closed, at } = smoothOf(entity);
  const inner = cuts.filter(({ s }) => s > SAME_PARAMETER && s < 1 - SAME_PARAMETER);
  if (inner.length === 0 || (closed && entity.kind === "ellipse" && cuts.length < 2)) return undefined;
  const stops = [{ s: 0, at: at(0) }, ...inner, { s: 1, at: at(1) }];
  if (closed && entity.kind === "ellipse")
    return cuts.map((cut, i) => {
      const next = cuts[i + 1] ?? { ...cuts[0]!, s: cuts[0]!.s + 1 };
      return partOf(entity, cut, next);
    });
  return stops.slice(1).map((to, i) => partOf(entity, stops[i]!, to));
};

/**
 * Splits a line, an arc, a chain, an ellipse part or a free curve at the place nearest to `at`; a contour opens there.
 * A circle stays whole: a refusal.
 */
export const splitAt = (drawing: Drawing, ref: Ref, at: Point): Outcome<{ edit: Edit; parts: number }> => {
  const entity = entityOf(drawing, ref.id);
  const curve = curveAt(drawing, ref);
  if (!entity || !curve || curve.kind === "endless") return refuse("split-nowhere");
  const which = Math.max(
    0,
    curvesOf(entity).findIndex((own) => sameTarget(own.ref, ref)),
  );
  const near = curveNearest(curve, at);
  return splitAtCuts(drawing, entity, [{ s: which + paramWithin(curve, near.at), at: near.at }], "Split");
};

/** Splits at every place where something shown meets it. */
export const splitAtCrossings = (index: DrawingIndex, ref: Ref): Outcome<{ edit: Edit; parts: number }> => {
  const entity = entityOf(index.drawing, ref.id);
  if (!entity || entity.kind === "point" || entity.kind === "endless") return refuse("split-nowhere");
  return splitAtCuts(index.drawing, entity, cutsOf(index, entity, "all"), "Split at crossings");
};

/** Splits into `n` parts of equal length: a line, an arc, or a circle from its place nearest to `start`. */
export const splitInto = (
  drawing: Drawing,
  ref: Ref,
  n: number,
  start: Point,
): Outcome<{ edit: Edit; parts: number }> => {
  const entity = entityOf(drawing, ref.id);
  if (n < 2) return refuse("split-nowhere");
  if (entity?.kind === "circle") {
    const from = curveNearest(entity, start).t;
    const cuts = Array.from({ length: n }, (_, i) => circlePoint(entity, from + (i * TURN) / n)).map((at): Cut => ({
      s: curveNearest(entity, at).t,
      at,
    }));
    return splitAtCuts(
      drawing,
      entity,
      cuts.sort((p, q) => p.s - q.s),
      `Divide into ${n}`,
    );
  }
  if (entity?.kind === "chain") return divideSide(drawing, entity, ref.vertex, n);
  if (entity?.kind !== "piece") return refuse("not-a-piece");
  const cuts = Array.from({ length: n - 1 }, (_, i): Cut => ({ s: (i + 1) / n, at: piecePoint(entity, (i + 1) / n) }));
  return splitAtCuts(drawing, entity, cuts, `Divide into ${n}`);
};

/** One side of a chain as `n` sides of it of equal length: the chain stays one, its shape is the same. */
const divideSide = (
  drawing: Drawing,
  chain: ChainEntity,
  vertex: Id | undefined,
  n: number,
): Outcome<{ edit: Edit; parts: number }> => {
  const locked = refuseLocked(drawing, chain);
  if (locked) return locked;
  const at = chain.vertices.findIndex(({ id }) => id === vertex);
  const side = chainPieces(chain)[at];
  if (!side) return refuse("not-a-piece");
  const draft = draftEdit(drawing, `Divide into ${n}`, "split");
  const bulge = side.bulge === 0 ? 0 : bulgeOf(sweepOf(side.bulge) / n);
  const parts = Array.from({ length: n }, (_, i) =>
    i === 0 ? { ...chain.vertices[at]!, bulge } : { id: draft.newId(), at: piecePoint(side, i / n), bulge },
  );
  draft.replace({ ...chain, vertices: chain.vertices.flatMap((one, i) => (i === at ? parts : [one])) });
  return done({ edit: draft.finish(), parts: n });
};
