import { circleBounds, circleHalves, transformCircle } from "../geometry/circle.ts";
import { POINT, POSITIVE } from "../numeric/fields.ts";
import { done } from "../numeric/outcome.ts";
import { coordinates, withCoordinate, oneCurve, type Kind } from "./kind.ts";

export const circleKind: Kind<"circle"> = {
  ...oneCurve,
  bounds: circleBounds,
  transform: (m, circle) => ({ kind: "circle", ...transformCircle(m, circle) }),
  curves: (curve) => [{ curve }],
  pieces: circleHalves,
  isClosed: () => true,
  properties: ({ centre, radius }) => [
    { name: "radius", label: "radius", kind: "length", value: radius },
    { name: "diameter", label: "diameter", kind: "length", value: 2 * radius },
    ...coordinates("centre", "centre", centre),
  ],
  withProperty: (circle, name, value) => {
    if (name === "radius") return done({ ...circle, radius: value });
    if (name === "diameter") return done({ ...circle, radius: value / 2 });
    return done({ ...circle, centre: withCoordinate(circle.centre, name, value) });
  },
  handles: ({ centre: at, radius }) => [
    { kind: "centre", at },
    { kind: "radius", at: { x: at.x + radius, y: at.y } },
    { kind: "radius", at: { x: at.x, y: at.y + radius } },
    { kind: "radius", at: { x: at.x - radius, y: at.y } },
    { kind: "radius", at: { x: at.x, y: at.y - radius } },
  ],
  fields: { centre: POINT, radius: POSITIVE },
};
