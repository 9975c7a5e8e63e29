import { offCarrier, spanOf } from "../../arrangement/span.ts";
import { chainOfPieces, chainPieces } from "../../contour/chain.ts";
import { innerPlace } from "../../contour/innerPlace.ts";
import { withMaterialLeft } from "../../contour/materialLeft.ts";
import { windingNumber } from "../../contour/winding.ts";
import { curveAt, entityOf, refuseLocked, settingsOf, type Drawing } from "../../drawing/drawing.ts";
import type { Edit } from "../../drawing/edit.ts";
import { curvesOf, type Entity } from "../../drawing/entity.ts";
import type { Ref } from "../../drawing/ref.ts";
import { fitCurve } from "../../fit/index.ts";
import { circleHalves } from "../../geometry/circle.ts";
import { carrierOf, curveNearest, curvePoint, type Curve } from "../../geometry/curve.ts";
import { pieceNearest, plainPiece } from "../../geometry/piece.ts";
import { cross, distance, subtract, type Point } from "../../geometry/point.ts";
import type { DrawingIndex } from "../../look/drawingIndex.ts";
import type { Id } from "../../numeric/id.ts";
import { done, refuse, type Outcome } from "../../numeric/outcome.ts";
import { ARC_PART, NO_LENGTH, TRUE_WITHIN } from "../../numeric/tolerance.ts";
import {
  lastDistance,
  offset,
  offsetBand,
  type Ends,
  type OffsetOptions,
  type OffsetRun,
  type OffsetSource,
} from "../../offset/index.ts";
import type { Contour } from "../../profile/profile.ts";
import type { Shape } from "../../shape/shape.ts";
import { draftEdit } from "../draftEdit.ts";
import { openRun } from "../openRun.ts";

/** What is offset as one: the things it is made of and their pieces, end to end. */
export type OffsetWhat = {
  readonly ids: readonly Id[];
  readonly sources: readonly OffsetSource[];
  /** Of a smooth curve, how far the arcs that stand for it lie off it at the most. */
  readonly deviation?: number;
};

/**
 * What a picked curve belongs to: its closed chain or circle, or all loose pieces and open chains that meet it end to
 * end.
 */
export const offsetWhat = (index: DrawingIndex, { id }: Ref): Outcome<OffsetWhat> => {
  const entity = entityOf(index.drawing, id);
  switch (entity?.kind) {
    case "circle":
      return done({ ids: [id], sources: [{ pieces: circleHalves(entity), closed: true }] });
    case "chain":
    case "piece": {
      if (entity.kind === "chain" && entity.closed)
        return done({ ids: [id], sources: [{ pieces: chainPieces(entity).map(plainPiece), closed: true }] });
      const { ids, pieces, closed } = openRun(index, entity)!;
      return done({ ids, sources: [{ pieces: pieces.map(plainPiece), closed }] });
    }
    case "ellipse":
    case "free": {
      const fit = fitCurve(entity, ARC_PART * settingsOf(index.drawing).joinTolerance);
      if (!fit) return refuse("fit-fails");
      return done({ ids: [id], sources: [{ pieces: fit.pieces, closed: fit.closed }], deviation: fit.deviation });
    }
    default:
      return refuse("not-a-curve");
  }
};

/**
 * The innermost contour round a place with the holes that lie right in it, material on their left; undefined in the
 * open.
 */
export const areaAt = (contours: readonly Contour[], at: Point): OffsetWhat | undefined => {
  const round = contours.filter(
    ({ role, pieces, bounds }) => role !== "mark" && holds(bounds, at) && windingNumber(pieces, at) !== 0,
  );
  const outer = round.reduce<Contour | undefined>(
    (best, one) => (best && best.depth >= one.depth ? best : one),
    undefined,
  );
  if (!outer) return undefined;
  const holes = contours.filter(({ depth, role, pieces }) => {
    if (role === "mark" || depth !== outer.depth + 1) return false;
    return windingNumber(outer.pieces, innerPlace(pieces) ?? pieces[0]!.a) !== 0;
  });
  const all = [outer, ...holes];
  return {
    ids: all.flatMap(({ ids }) => ids),
    sources: withMaterialLeft(all.map((one) => one.pieces)).map((pieces) => ({ pieces, closed: true })),
  };
};

const holds = ({ minX, minY, maxX, maxY }: Contour["bounds"], { x, y }: Point): boolean =>
  x >= minX && x <= maxX && y >= minY && y <= maxY;

/** How far a place lies from what is offset, left of it positive. */
export const offsetThrough = ({ sources }: OffsetWhat, at: Point): number => {
  let best: { away: number; off: number } | undefined;
  for (const { pieces } of sources)
    for (const piece of pieces) {
      const away = pieceNearest(piece, at).distance;
      const off = offCarrier(spanOf(piece), at);
      // at a corner both pieces are as near: the one that the place lies farther off tells its side
      const nearer = !best || away < best.away - NO_LENGTH;
      if (nearer || (away < best!.away + NO_LENGTH && Math.abs(off) > Math.abs(best!.off))) best = { away, off };
    }
  return best ? Math.sign(best.off) * best.away : 0;
};

export type OffsetGiven = OffsetOptions & {
  /** Left above 0. */
  readonly by: number;
  readonly bothSides: boolean;
  readonly times: number;
  /** Both sides of an open chain as one contour round it, with its ends. */
  readonly band?: Ends;
};

/** The offsets as shapes, the nearest first, and how many of the distances gave any. */
export type OffsetMade = { readonly shapes: readonly Shape[]; readonly made: number };

/**
 * Offsets what was picked, so many times, one side or both. Refused where nothing is left of the first, saying where
 * the widest place closes, and where what comes of a closed contour does not close.
 */
export const offsetShapes = ({ sources }: OffsetWhat, given: OffsetGiven, newId: () => Id): Outcome<OffsetMade> => {
  const { by, bothSides, times, band } = given;
  const closed = sources.every((source) => source.closed);
  const shapes: Shape[] = [];
  let made = 0;
  for (let n = 1; n <= times; n++) {
    const runs = runsAt(sources, n * by, bothSides, closed ? undefined : band, given);
    if (closed && runs.some((run) => !run.closed)) return refuse("offset-fails");
    if (runs.length > 0) made += 1;
    for (const run of runs) shapes.push(runShape(run, newId));
  }
  if (made > 0) return done({ shapes, made });
  const few = sources.reduce((sum, { pieces }) => sum + pieces.length, 0) <= SEARCHED;
  return refuse("offset-vanishes", {
    typed: Math.abs(by),
    ...(few ? { limit: lastDistance(sources, by, given) } : {}),
  });
};

/** The widest place is looked for in contours of up to so many pieces. */
const SEARCHED = 1000;

const runsAt = (
  sources: readonly OffsetSource[],
  by: number,
  bothSides: boolean,
  band: Ends | undefined,
  options: OffsetOptions,
): readonly OffsetRun[] => {
  if (bothSides && band) return sources.flatMap(({ pieces }) => offsetBand(pieces, Math.abs(by), band, options));
  return (bothSides ? [by, -by] : [by]).flatMap((each) => offset(sources, each, options));
};

const runShape = ({ circle, closed, pieces }: OffsetRun, newId: () => Id): Shape => {
  if (circle) return { kind: "circle", ...circle };
  if (!closed && pieces.length === 1) return { kind: "piece", ...plainPiece(pieces[0]!) };
  return chainOfPieces(pieces, closed, newId);
};

/**
 * A piece of what was made that lies just `by` off a picked one: parallel to it, or about the same centre; the nearest
 * of them.
 */
const pieceBeside = (picked: Curve, added: readonly Entity[], by: number): Ref | undefined => {
  const carrier = carrierOf(picked);
  const middle = curvePoint(picked, 0.5);
  let best: { ref: Ref; away: number } | undefined;
  for (const { curve, ref } of added.flatMap(curvesOf)) {
    const other = carrierOf(curve);
    if (!carrier || !other) continue;
    const off =
      carrier.kind === "line" && other.kind === "line"
        ? Math.abs(cross(carrier.direction, other.direction)) <= TRUE_WITHIN
          ? Math.abs(cross(carrier.direction, subtract(other.at, carrier.at)))
          : NaN
        : carrier.kind === "circle" && other.kind === "circle" && distance(carrier.centre, other.centre) <= TRUE_WITHIN
          ? Math.abs(carrier.radius - other.radius)
          : NaN;
    if (!(Math.abs(off - by) <= TRUE_WITHIN)) continue;
    const away = curveNearest(curve, middle).distance;
    if (!best || away < best.away) best = { ref, away };
  }
  return best?.ref;
};

/**
 * The edit of an offset on `layer`; what it comes from goes where it is to be replaced. A callout that gave the
 * distance is answered by the picked piece and the one that lies beside it. Refused as `offsetShapes` does.
 */
export const offsetEdit = (
  drawing: Drawing,
  what: OffsetWhat,
  given: OffsetGiven,
  layer: Id,
  replace: boolean,
  answers?: { readonly callout: Id; readonly picked: Ref },
): Outcome<OffsetMade & { readonly edit: Edit }> => {
  const source = what.ids.map((id) => entityOf(drawing, id)).find((one) => one !== undefined && replace);
  const locked = refuseLocked(drawing, ...(source ? [source] : []), { layer });
  if (locked) return locked;
  const draft = draftEdit(drawing, "Offset", "offset");
  const made = offsetShapes(what, given, draft.newId);
  if (!made.ok) return made;
  const added = made.value.shapes.map((shape): Entity => ({ ...shape, id: draft.add(shape, layer), layer }));
  const picked = answers && !replace ? curveAt(drawing, answers.picked) : undefined;
  const beside = picked && pieceBeside(picked, added, Math.abs(given.by));
  if (answers && beside) draft.link(answers.callout, [answers.picked, beside]);
  if (replace) for (const id of what.ids) draft.remove(id);
  return done({ ...made.value, edit: draft.finish() });
};
