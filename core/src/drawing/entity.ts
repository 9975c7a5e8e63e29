import type { Curve } from "../geometry/curve.ts";
import type { Id } from "../numeric/id.ts";
import { shapeCurves } from "../shape/kinds.ts";
import type { Shape } from "../shape/shape.ts";
import type { Ref } from "./ref.ts";

/** How a line is drawn where it is not as its role has it. */
export const LINE_STYLES = ["solid", "dashed", "dotted"] as const;
export type LineStyle = (typeof LINE_STYLES)[number];

export type Entity = Shape & { readonly id: Id; readonly layer: Id; readonly line?: LineStyle };

/** What an entity has beside its shape and its id. */
export type Look = { readonly layer: Id; readonly line?: LineStyle };

/**
 * Whatever an entity comes to have beside its shape is to be kept by `lookOf`: what is not listed here does not
 * compile.
 */
type Kept = "id" | "layer" | "line";
const everythingIsKept: Exclude<keyof Entity, keyof Shape | Kept> extends never ? true : never = true;
void everythingIsKept;

/** What an entity has beside its shape, without its id: its layer, its line style. */
export const lookOf = ({ layer, line }: Entity): Look => (line === undefined ? { layer } : { layer, line });

/** An entity with another shape, on the same layer and in the same look. */
export const reshaped = (entity: Entity, shape: Shape): Entity => ({ ...shape, ...lookOf(entity), id: entity.id });

/** The curves of an entity with the reference of each; points have none. */
export const curvesOf = (entity: Entity): readonly { readonly curve: Curve; readonly ref: Ref }[] =>
  shapeCurves(entity).map(({ curve, vertex }) => ({
    curve,
    ref: { id: entity.id, ...(vertex === undefined ? {} : { vertex }) },
  }));
