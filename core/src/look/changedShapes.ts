import { endedAt, startedAt } from "../construct/cornerCuts.ts";
import type { Edit } from "../drawing/edit.ts";
import { curvesOf, type Entity } from "../drawing/entity.ts";
import { carrierNearest, pieceCarrier, type Curve } from "../geometry/curve.ts";
import { partOfPiece, pieceDirection, pieceNearest, piecePoint, type Piece } from "../geometry/piece.ts";
import { distance, dot } from "../geometry/point.ts";
import { RESOLUTION } from "../numeric/tolerance.ts";
import type { Shape } from "../shape/shape.ts";

export type ChangedShapes = { readonly comes: readonly Shape[]; readonly goes: readonly Shape[] };

/**
 * What an edit draws and what it takes away, curve by curve; of a piece run on or cut along its own carrier only that
 * part.
 */
export const changedShapes = (edit: Edit): ChangedShapes => {
  const [comes, goes]: [Shape[], Shape[]] = [[], []];
  for (const { table, before, after } of edit.changes) {
    if (table !== "entity") continue;
    const [was, is] = [curvesByVertex(before as Entity | undefined), curvesByVertex(after as Entity | undefined)];
    for (const [key, curve] of was) {
      const now = is.get(key);
      if (!now) goes.push(curve as Shape);
      else if (!sameCurve(curve, now)) {
        const parts = changedParts(curve, now);
        for (const part of parts.comes) comes.push(part);
        for (const part of parts.goes) goes.push(part);
      }
    }
    for (const [key, curve] of is) if (!was.has(key)) comes.push(curve as Shape);
  }
  return withoutSame(comes, goes);
};

/** Curves that only changed their owner, such as pieces that were joined, neither come nor go. */
const withoutSame = (comes: readonly Shape[], goes: readonly Shape[]): ChangedShapes => {
  const keyed = new Map<string, number>();
  for (const shape of comes) keyed.set(keyOf(shape), (keyed.get(keyOf(shape)) ?? 0) + 1);
  const stays = new Map<string, number>();
  const gone = goes.filter((shape) => {
    const key = keyOf(shape);
    const left = keyed.get(key) ?? 0;
    if (left === 0) return true;
    keyed.set(key, left - 1);
    stays.set(key, (stays.get(key) ?? 0) + 1);
    return false;
  });
  const come = comes.filter((shape) => {
    const key = keyOf(shape);
    const left = stays.get(key) ?? 0;
    if (left === 0) return true;
    stays.set(key, left - 1);
    return false;
  });
  return { comes: come, goes: gone };
};

/** Rounded, and 0 without a sign. */
const rounded = (value: number, steps: number): number => Math.round(value * steps) + 0;

/** The same text for the same curve, whichever way a piece runs. */
const keyOf = (shape: Shape): string => {
  if (shape.kind !== "piece") return JSON.stringify(shape);
  const text = (p: { x: number; y: number }): string => `${rounded(p.x, 1e6)} ${rounded(p.y, 1e6)}`;
  const [a, b] = [text(shape.a), text(shape.b)];
  return a < b ? `${a} ${b} ${rounded(shape.bulge, 1e6)}` : `${b} ${a} ${rounded(-shape.bulge, 1e6)}`;
};

/** The curves of an entity, those of a chain by the vertex that they start at; points have none. */
const curvesByVertex = (entity: Entity | undefined): ReadonlyMap<number, Curve> =>
  new Map(entity ? curvesOf(entity).map(({ curve, ref }) => [ref.vertex ?? 0, curve]) : []);

const sameCurve = (p: Curve, q: Curve): boolean =>
  p.kind === "piece" && q.kind === "piece"
    ? p.bulge === q.bulge && p.a.x === q.a.x && p.a.y === q.a.y && p.b.x === q.b.x && p.b.y === q.b.y
    : p === q || JSON.stringify(p) === JSON.stringify(q);

const changedParts = (before: Curve, after: Curve): ChangedShapes => {
  if (before.kind !== "piece" || after.kind !== "piece" || !runsAlong(before, after))
    return { comes: [after as Shape], goes: [before as Shape] };
  const [comes, goes]: [Piece[], Piece[]] = [[], []];
  if (distance(before.b, after.b) > RESOLUTION) {
    const { t, distance: off } = pieceNearest(before, after.b);
    if (off <= RESOLUTION) goes.push(partOfPiece(before, t, 1, after.b, undefined));
    else comes.push(startedAt(after, before.b));
  }
  if (distance(before.a, after.a) > RESOLUTION) {
    const { t, distance: off } = pieceNearest(before, after.a);
    if (off <= RESOLUTION) goes.push(partOfPiece(before, 0, t, undefined, after.a));
    else comes.push(endedAt(after, before.a));
  }
  return { comes: comes.map(changedPiece), goes: goes.map(changedPiece) };
};

const changedPiece = ({ a, b, bulge }: Piece): Shape => ({ kind: "piece", a, b, bulge });

/** True for two pieces of one carrier that run the same way and share some of it. */
const runsAlong = (p: Piece, q: Piece): boolean => {
  if (Math.sign(p.bulge) !== Math.sign(q.bulge)) return false;
  const carrier = pieceCarrier(p);
  const places = [q.a, piecePoint(q, 0.5), q.b];
  if (places.some((place) => distance(carrierNearest(carrier, place), place) > RESOLUTION)) return false;
  const shared = [q.a, q.b].some((end) => pieceNearest(p, end).distance <= RESOLUTION);
  const covered = [p.a, p.b].some((end) => pieceNearest(q, end).distance <= RESOLUTION);
  return (shared || covered) && (p.bulge !== 0 || dot(pieceDirection(p, 0), pieceDirection(q, 0)) > 0);
};
