import type { Curve } from "../geometry/curve.ts";
import type { Id } from "../numeric/id.ts";
import { shapeCurves } from "../shape/kinds.ts";
import type { Shape } from "../shape/shape.ts";
import type { Ref } from "./ref.ts";

/** How a line is drawn where it is not as its role has it. */
export const LINE_STYLES = ["solid", "dashed", "dotted"] as const;
export type LineStyle = (typeof LINE_STYLES)[number];

export type Entity = Shape & { readonly id: Id; readonly layer: Id; readonly line?: LineStyle };

/** The curves of an entity with the reference of each; points have none. */
export const curvesOf = (entity: Entity): readonly { readonly curve: Curve; readonly ref: Ref }[] =>
  shapeCurves(entity).map(({ curve, vertex }) => ({
    curve,
    ref: { id: entity.id, ...(vertex === undefined ? {} : { vertex }) },
  }));
