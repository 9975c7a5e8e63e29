import { circleBounds, circleHalves, transformCircle } from "../geometry/circle.ts";
import { POINT, POSITIVE } from "../numeric/fields.ts";
import { oneCurve, type Kind } from "./kind.ts";

export const circleKind: Kind<"circle"> = {
  ...oneCurve,
  bounds: circleBounds,
  transform: (m, circle) => ({ kind: "circle", ...transformCircle(m, circle) }),
  curves: (curve) => [{ curve }],
  pieces: circleHalves,
  isClosed: () => true,
  fields: { centre: POINT, radius: POSITIVE },
};
