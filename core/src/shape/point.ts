import { transformPoint } from "../geometry/transform.ts";
import { POINT } from "../numeric/fields.ts";
import { oneCurve, type Kind } from "./kind.ts";

/** A layout point. */
export const pointKind: Kind<"point"> = {
  ...oneCurve,
  bounds: ({ at: { x, y } }) => ({ minX: x, minY: y, maxX: x, maxY: y }),
  transform: (m, { at }) => ({ kind: "point", at: transformPoint(m, at) }),
  curves: () => [],
  fields: { at: POINT },
};
