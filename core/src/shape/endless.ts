import { transformEndless } from "../geometry/endless.ts";
import { NUMBER, POINT } from "../numeric/fields.ts";
import { oneCurve, type Kind } from "./kind.ts";

/** An endless layout line. */
export const endlessKind: Kind<"endless"> = {
  ...oneCurve,
  bounds: () => undefined,
  transform: (m, line) => ({ kind: "endless", ...transformEndless(m, line) }),
  curves: (curve) => [{ curve }],
  fields: { through: POINT, angle: NUMBER },
};
