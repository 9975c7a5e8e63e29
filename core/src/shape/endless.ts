import { transformEndless } from "../geometry/endless.ts";
import { toDegrees, toRadians } from "../numeric/angle.ts";
import { NUMBER, POINT } from "../numeric/fields.ts";
import { done } from "../numeric/outcome.ts";
import { coordinates, withCoordinate, oneCurve, type Kind } from "./kind.ts";

/** An endless layout line. */
export const endlessKind: Kind<"endless"> = {
  ...oneCurve,
  bounds: () => undefined,
  transform: (m, line) => ({ kind: "endless", ...transformEndless(m, line) }),
  curves: (curve) => [{ curve }],
  properties: ({ angle, through }) => [
    { name: "angle", label: "angle", kind: "angle", value: toDegrees(angle) },
    ...coordinates("through", "through", through),
  ],
  withProperty: (line, name, value) =>
    name === "angle"
      ? done({ ...line, angle: toRadians(value) })
      : done({ ...line, through: withCoordinate(line.through, name, value) }),
  handles: ({ through }) => [{ kind: "centre", at: through }],
  fields: { through: POINT, angle: NUMBER },
};
