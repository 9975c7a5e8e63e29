import { transformPoint } from "../geometry/transform.ts";
import { POINT } from "../numeric/fields.ts";
import { done } from "../numeric/outcome.ts";
import { coordinates, withCoordinate, oneCurve, type Kind } from "./kind.ts";

/** A layout point. */
export const pointKind: Kind<"point"> = {
  ...oneCurve,
  bounds: ({ at: { x, y } }) => ({ minX: x, minY: y, maxX: x, maxY: y }),
  transform: (m, { at }) => ({ kind: "point", at: transformPoint(m, at) }),
  curves: () => [],
  properties: ({ at }) => coordinates("at", "", at),
  withProperty: (point, name, value) => done({ ...point, at: withCoordinate(point.at, name, value) }),
  handles: ({ at }) => [{ kind: "centre", at }],
  fields: { at: POINT },
};
