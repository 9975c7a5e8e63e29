import { pieceCentre } from "../../geometry/piece.ts";
import { agree } from "../equations.ts";
import { exactly, type Finder, type Relation } from "./relation.ts";

/**
 * Two arcs that run on into each other where the one is level or upright, as an S between two levels does in its
 * middle: nothing else says that it stays so.
 */
export const quarters: Finder = (model, meant) => {
  if (meant === "rough") return [];
  return model.joints.flatMap(({ one, other, at, from }): readonly Relation[] => {
    if (!one.arc || !other.arc || one.flat || other.flat) return [];
    const [end, centre] = [one.piece[from], pieceCentre(one.piece)!];
    const axis = (["x", "y"] as const).find((along) => Math.abs(end[along] - centre[along]) <= exactly(model));
    if (!axis) return [];
    const place = from === "a" ? ("start" as const) : ("end" as const);
    const equations = [agree(at[axis], one.arc.centre[axis])];
    return [{ kind: "quarter", axis, refs: [{ ...one.ref, place }], equations, at: end }];
  });
};
