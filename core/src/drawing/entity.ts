import type { Curve } from "../geometry/curve.ts";
import { agreed } from "../numeric/agreed.ts";
import type { Id } from "../numeric/id.ts";
import { shapeCurves } from "../shape/kinds.ts";
import type { Shape } from "../shape/shape.ts";
import type { Ref } from "./ref.ts";

/** How a line is drawn where it is not as its role has it. */
export const LINE_STYLES = ["solid", "dashed", "dotted"] as const;
export type LineStyle = (typeof LINE_STYLES)[number];

/**
 * What an entity has beside its shape and its id: its layer; a line style, ours or as a file named it; a colour of its
 * own as a file named it, a number of the standard palette or `#rrggbb`; and that it was traced from a picture, so that
 * its sizes are only as exact as that until numbers tell them.
 */
export type Look = {
  readonly layer: Id;
  readonly line?: string;
  readonly colour?: string;
  readonly traced?: true;
};

export type Entity = Shape & Look & { readonly id: Id };

/** How a line style is shown: what a file's style looks like is told by its name, and without dots it has dashes. */
export const shownLine = (line: string): LineStyle => {
  if (/solid|continuous/i.test(line)) return "solid";
  return /dot/i.test(line) && !/dash/i.test(line) ? "dotted" : "dashed";
};

/**
 * Whatever an entity comes to have beside its shape is to be kept by `lookOf`: what is not listed here does not
 * compile.
 */
type Kept = "id" | keyof Look;
const everythingIsKept: Exclude<keyof Entity, keyof Shape | Kept> extends never ? true : never = true;
void everythingIsKept;

/** What an entity has beside its shape, without its id. */
export const lookOf = ({ layer, line, colour, traced }: Entity): Look => ({
  layer,
  ...(line === undefined ? {} : { line }),
  ...(colour === undefined ? {} : { colour }),
  ...(traced ? { traced } : {}),
});

/**
 * The layer of the first of some entities, and the colour and the line style that all of them share; traced where one
 * of them is.
 */
export const commonLook = (entities: readonly Entity[]): Look => {
  const line = agreed(entities.map((one) => one.line));
  const colour = agreed(entities.map((one) => one.colour));
  return {
    layer: entities[0]!.layer,
    ...(line === undefined ? {} : { line }),
    ...(colour === undefined ? {} : { colour }),
    ...(entities.some((one) => one.traced) ? { traced: true } : {}),
  };
};

/** An entity with another shape, on the same layer and in the same look. */
export const reshaped = (entity: Entity, shape: Shape): Entity => ({ ...shape, ...lookOf(entity), id: entity.id });

/** The curves of an entity with the reference of each; points have none. */
export const curvesOf = (entity: Entity): readonly { readonly curve: Curve; readonly ref: Ref }[] =>
  shapeCurves(entity).map(({ curve, vertex }) => ({
    curve,
    ref: { id: entity.id, ...(vertex === undefined ? {} : { vertex }) },
  }));
