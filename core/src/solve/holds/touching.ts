import { pieceDirection } from "../../geometry/piece.ts";
import { dot, times } from "../../geometry/point.ts";
import { toRadians } from "../../numeric/angle.ts";
import { inLine, lackOf, squareOver, type Equation } from "../equations.ts";
import { linAt } from "../lin.ts";
import type { Joint, Model } from "../model.ts";
import { exactly, type Finder, type Relation } from "./relation.ts";

/** Joints that turn by less are meant smooth in a rough drawing. */
const ROUGHLY_SMOOTH = Math.cos(toRadians(15));

/** What makes two edges touch where they meet; undefined for two lines and for arcs that are kept by their bulge. */
export const touchingAt = (model: Model, { one, other, at }: Joint): Equation | undefined => {
  if (one.flat || other.flat) return undefined;
  const [p, q] = [one.arc, other.arc];
  if (p && q) {
    const larger = Math.max(linAt(p.radius, model.start), linAt(q.radius, model.start));
    return inLine(p.centre, q.centre, at, larger);
  }
  if (p) return squareOver(other.a, other.b, p.centre, at);
  return q && squareOver(one.a, one.b, q.centre, at);
};

/** Tangent joints: edges that run on into each other. */
export const touching: Finder = (model, meant) =>
  model.joints.flatMap((joint): readonly Relation[] => {
    const { one, other, from, to } = joint;
    const equation = touchingAt(model, joint);
    if (!equation) return [];
    const arrives = times(pieceDirection(one.piece, from === "b" ? 1 : 0), from === "b" ? 1 : -1);
    const leaves = times(pieceDirection(other.piece, to === "a" ? 0 : 1), to === "a" ? 1 : -1);
    const runsOn = dot(arrives, leaves);
    const holds =
      meant === "exact"
        ? runsOn > 0.9 && Math.abs(lackOf(equation, model.start)) <= exactly(model)
        : runsOn > ROUGHLY_SMOOTH;
    const end = one.piece[from];
    return holds ? [{ kind: "tangent", refs: [one.ref, other.ref], equations: [equation], at: end }] : [];
  });
