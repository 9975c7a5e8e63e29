import { halfAxes, ellipseBounds, transformEllipse } from "../geometry/ellipse.ts";
import { along, angleOf, times } from "../geometry/point.ts";
import { toDegrees, toRadians, unitAt } from "../numeric/angle.ts";
import { NUMBER, POINT, POSITIVE } from "../numeric/fields.ts";
import { done, refuse } from "../numeric/outcome.ts";
import { coordinates, withCoordinate, oneCurve, type Kind } from "./kind.ts";

/** An ellipse or part of one. */
export const ellipseKind: Kind<"ellipse"> = {
  ...oneCurve,
  smooth: true,
  bounds: ellipseBounds,
  transform: (m, ellipse) => ({ kind: "ellipse", ...transformEllipse(m, ellipse) }),
  curves: (curve) => [{ curve }],
  properties: (ellipse) => {
    const [long, short] = halfAxes(ellipse);
    return [
      { name: "long", label: "long axis", kind: "length", value: 2 * long },
      { name: "short", label: "short axis", kind: "length", value: 2 * short },
      { name: "angle", label: "angle", kind: "angle", value: toDegrees(angleOf(ellipse.major)) },
      ...coordinates("centre", "centre", ellipse.centre),
    ];
  },
  withProperty: (ellipse, name, value) => {
    const [long, short] = halfAxes(ellipse);
    if (name.startsWith("centre")) return done({ ...ellipse, centre: withCoordinate(ellipse.centre, name, value) });
    if (name === "angle") return done({ ...ellipse, major: along({ x: 0, y: 0 }, unitAt(toRadians(value)), long) });
    const [a, b] = name === "long" ? [value / 2, short] : [long, value / 2];
    if (b > a) return refuse("axes-swapped");
    return done({ ...ellipse, major: times(ellipse.major, a / long), ratio: b / a });
  },
  handles: ({ centre }) => [{ kind: "centre", at: centre }],
  fields: { centre: POINT, major: POINT, ratio: POSITIVE, from: NUMBER, sweep: NUMBER },
  nonsense: ({ major }) => (major.x === 0 && major.y === 0 ? "an ellipse has no size" : undefined),
};
