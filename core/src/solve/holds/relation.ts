import type { Ref } from "../../drawing/ref.ts";
import type { Point } from "../../geometry/point.ts";
import type { Equation } from "../equations.ts";
import { linAt } from "../lin.ts";
import type { Edge, Model } from "../model.ts";

/** What can hold in a drawing without being written on it, and how strongly it is meant where two of them fight. */
export const PRIORITIES = {
  tangent: 90,
  "same centre": 80,
  level: 75,
  upright: 75,
  parallel: 70,
  square: 70,
  on: 65,
  "in line": 65,
  "bolt circle": 60,
  "offset pair": 58,
  equal: 55,
  aligned: 50,
  quarter: 56,
  mirror: 45,
  land: 20,
  size: 20,
} as const;
export type RelationKind = keyof typeof PRIORITIES;

/** Something that holds between what `refs` name. */
export type Relation = {
  readonly kind: RelationKind;
  readonly refs: readonly Ref[];
  /** Across or along which axis, where it is one. */
  readonly axis?: "x" | "y";
  readonly equations: readonly Equation[];
  /** Where it can be shown, in the model's coordinates. */
  readonly at: Point;
};

/** How near is meant: as drawn exactly, or roughly by hand. */
export type Meant = "exact" | "rough";

/** Looks for relations of its kinds. */
export type Finder = (model: Model, meant: Meant) => readonly Relation[];

/** Lengths nearer than this are one, where a drawing is exact (the model's coordinates). */
export const exactly = (model: Model): number => 4 * model.near;

/** Radii that differ by more than this part of the larger are two in a rough drawing. */
export const ROUGHLY_EQUAL = 0.12;

/**
 * Straight edges that run into an arc at both ends, of two sizes: where they lie follows from the arcs, and that one is
 * nearly level says nothing.
 */
export const derivedEdges = (model: Model): ReadonlySet<Edge> => {
  const beside = new Map<Edge, number[]>();
  const put = (edge: Edge, { arc }: Edge): void => {
    if (edge.piece.bulge === 0 && arc) beside.set(edge, [...(beside.get(edge) ?? []), linAt(arc.radius, model.start)]);
  };
  for (const { one, other } of model.joints) {
    put(one, other);
    put(other, one);
  }
  return new Set(
    [...beside].flatMap(([edge, [r, s]]) =>
      s !== undefined && Math.abs(r! - s) > ROUGHLY_EQUAL * Math.max(r!, s) ? [edge] : [],
    ),
  );
};

/** A rough drawing is taken to lie askew by no more than this (radians). */
const MOST_ASKEW = (10 * Math.PI) / 180;

/**
 * By how much a rough drawing lies askew (radians, counter-clockwise): the mean of its straight edges modulo a quarter
 * turn, the longer counting more; 0 where that is much or says nothing.
 */
export const askew = (model: Model): number => {
  const derived = derivedEdges(model);
  let [x, y, all] = [0, 0, 0];
  for (const edge of model.edges) {
    const { piece, layout } = edge;
    if (piece.bulge !== 0 || layout || derived.has(edge)) continue;
    const [dx, dy] = [piece.b.x - piece.a.x, piece.b.y - piece.a.y];
    const [length, angle] = [Math.hypot(dx, dy), 4 * Math.atan2(dy, dx)];
    x += length * Math.cos(angle);
    y += length * Math.sin(angle);
    all += length;
  }
  const turn = Math.atan2(y, x) / 4;
  return Math.hypot(x, y) > 0.5 * all && Math.abs(turn) <= MOST_ASKEW ? turn : 0;
};
