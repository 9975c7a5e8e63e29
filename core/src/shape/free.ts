import { freePoints } from "../construct/freePoints.ts";
import { boundsMiddle } from "../geometry/bounds.ts";
import { freeBounds, transformFree } from "../geometry/free.ts";
import { listOf, NUMBER, optional, POINT, POSITIVE } from "../numeric/fields.ts";
import { refuse } from "../numeric/outcome.ts";
import { oneCurve, type OwnHandle, type Kind } from "./kind.ts";

/** Degrees that are read; drawn curves have 3. */
const MOST_DEGREE = 25;

/** A free curve: a B-spline. */
export const freeKind: Kind<"free"> = {
  ...oneCurve,
  smooth: true,
  bounds: freeBounds,
  transform: (m, free) => ({ kind: "free", ...transformFree(m, free) }),
  curves: (curve) => [{ curve }],
  properties: () => [],
  withProperty: () => refuse("property-impossible"),
  handles: (free) => [
    ...(freePoints(free) ?? []).map((at): OwnHandle => ({ kind: "curve point", at })),
    { kind: "centre", at: boundsMiddle(freeBounds(free)) },
  ],
  fields: {
    degree: { is: "whole", least: 1, most: MOST_DEGREE },
    knots: listOf(NUMBER, 4),
    points: listOf(POINT, 2),
    weights: optional(listOf(POSITIVE, 2)),
  },
  nonsense: ({ degree, knots, points, weights }) => {
    if (points.length <= degree) return `a free curve of degree ${degree} has only ${points.length} points`;
    if (knots.length !== points.length + degree + 1) return "a free curve has the wrong number of knots";
    if (knots.some((knot, i) => i > 0 && knot < knots[i - 1]!)) return "a free curve's knots don't rise";
    if (!(knots[points.length]! > knots[degree]!)) return "a free curve has no length";
    return weights && weights.length !== points.length ? "a free curve has the wrong number of weights" : undefined;
  },
};
