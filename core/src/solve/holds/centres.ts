import { midpoint } from "../../geometry/point.ts";
import { agree } from "../equations.ts";
import { constant } from "../lin.ts";
import { clustersOf, roundThings, type Cluster } from "./clusters.ts";
import { exactly, ROUGHLY_EQUAL, type Finder, type Relation } from "./relation.ts";

/** Circles and arcs about one centre. */
export const sameCentres: Finder = (model, meant) =>
  clustersOf(model, meant).flatMap(({ members: [first, ...rest] }) =>
    rest.map((one): Relation => ({
      kind: "same centre",
      refs: [first!.ref, one.ref],
      equations: [agree(first!.centre.x, one.centre.x), agree(first!.centre.y, one.centre.y)],
      at: first!.at,
    })),
  );

/** Equal radii: each to the next of its size; and every radius as it is, which gives way to all else. */
export const radii: Finder = (model, meant) => {
  const sorted = [...roundThings(model)].sort((p, q) => p.size - q.size);
  const found: Relation[] = [];
  sorted.forEach((one, i) => {
    const before = sorted[i - 1];
    const reach = meant === "exact" ? exactly(model) : ROUGHLY_EQUAL * one.size;
    if (before && one.size - before.size <= reach)
      found.push({
        kind: "equal",
        refs: [before.ref, one.ref],
        equations: [agree(before.radius, one.radius)],
        at: midpoint(before.at, one.at),
      });
    if (meant === "exact")
      found.push({ kind: "size", refs: [one.ref], equations: [agree(one.radius, constant(one.size))], at: one.at });
  });
  return found;
};

/** Centres above or beside one another. */
export const aligned: Finder = (model, meant) => {
  const clusters = clustersOf(model, meant).filter(({ members }) => members.some(({ isArc }) => !isArc));
  const reach = meant === "exact" ? exactly(model) : 0.02;
  return (["x", "y"] as const).flatMap((axis) => {
    const sorted = [...clusters].sort((p, q) => p.at[axis] - q.at[axis]);
    return sorted.slice(1).flatMap((one, i): readonly Relation[] => {
      const before: Cluster = sorted[i]!;
      if (one.at[axis] - before.at[axis] > reach) return [];
      return [
        {
          kind: "aligned",
          axis,
          refs: [before.members[0]!.ref, one.members[0]!.ref],
          equations: [agree(before.centre[axis], one.centre[axis])],
          at: midpoint(before.at, one.at),
        },
      ];
    });
  });
};
