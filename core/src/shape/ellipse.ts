import { ellipseBounds, transformEllipse } from "../geometry/ellipse.ts";
import { NUMBER, POINT, POSITIVE } from "../numeric/fields.ts";
import { oneCurve, type Kind } from "./kind.ts";

/** An ellipse or part of one. */
export const ellipseKind: Kind<"ellipse"> = {
  ...oneCurve,
  smooth: true,
  bounds: ellipseBounds,
  transform: (m, ellipse) => ({ kind: "ellipse", ...transformEllipse(m, ellipse) }),
  curves: (curve) => [{ curve }],
  fields: { centre: POINT, major: POINT, ratio: POSITIVE, from: NUMBER, sweep: NUMBER },
  nonsense: ({ major }) => (major.x === 0 && major.y === 0 ? "an ellipse has no size" : undefined),
};
