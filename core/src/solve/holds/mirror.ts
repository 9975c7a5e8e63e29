import { midpoint, type Point } from "../../geometry/point.ts";
import { pointGrid } from "../../geometry/pointGrid.ts";
import type { Ref } from "../../drawing/ref.ts";
import { unitAt } from "../../numeric/angle.ts";
import { agree, vanishes, type Equation } from "../equations.ts";
import { combined, constant, type Lin, type Spot } from "../lin.ts";
import type { Model } from "../model.ts";
import { roundThings } from "./clusters.ts";
import { askew, exactly, type Finder, type Meant, type Relation } from "./relation.ts";

type Mark = {
  readonly spot: Spot;
  readonly at: Point;
  readonly ref: Ref;
  readonly what: { readonly kind: "corner" | "arc" | "circle"; readonly size: number };
};

/** In a rough drawing what lies this near (part of the size) to where it would lie across, and is about as large. */
const [ROUGHLY, ROUGHLY_ALIKE] = [0.06, 0.2];

const alike = (p: Mark["what"], q: Mark["what"], isExact: boolean): boolean =>
  p.kind === q.kind && Math.abs(p.size - q.size) <= (isExact ? SAME : ROUGHLY_ALIKE) * Math.max(p.size, q.size);

/** Sizes that differ by a smaller part are one. */
const SAME = 1e-6;

const CORNER = { kind: "corner", size: 0 } as const;

/** Each corner and each centre once, of what is cut. */
const marksOf = (model: Model, meant: Meant): readonly Mark[] => {
  const marks = new Map<Lin, Mark>();
  for (const { ref, a, b, piece, layout } of model.edges) {
    if (layout) continue;
    marks.set(a.x, { spot: a, at: piece.a, ref: { ...ref, place: "start" }, what: CORNER });
    if (!marks.has(b.x)) marks.set(b.x, { spot: b, at: piece.b, ref: { ...ref, place: "end" }, what: CORNER });
  }
  for (const { ref, centre, at, size, layout, isArc } of roundThings(model))
    // in a rough drawing the centre of a flat arc lies anywhere: its corners tell
    if (!layout && !(isArc && meant === "rough")) {
      const what = { kind: isArc ? ("arc" as const) : ("circle" as const), size };
      marks.set(centre.x, { spot: centre, at, ref: { ...ref, place: "centre" }, what });
    }
  return [...marks.values()];
};

const turnedTo = ({ x, y }: Point, way: Point): Point => ({ x: x * way.x - y * way.y, y: x * way.y + y * way.x });

/** The whole is the same on both sides of an upright or a level line: each place with that across. */
export const mirrors: Finder = (model, meant) => {
  // what lies askew is looked at level
  const turn = meant === "rough" ? unitAt(-askew(model)) : { x: 1, y: 0 };
  const marks = marksOf(model, meant).map((mark) => ({ ...mark, at: turnedTo(mark.at, turn) }));
  if (marks.length < 3) return [];
  const isExact = meant === "exact";
  const reach = isExact ? exactly(model) : ROUGHLY;
  const grid = pointGrid(
    marks.map(({ at }) => at),
    reach,
  );
  return (["x", "y"] as const).flatMap((axis) => {
    const other = axis === "x" ? "y" : "x";
    const all = marks.map(({ at }) => at[axis]);
    let [least, most] = [Infinity, -Infinity];
    for (const value of all) [least, most] = [Math.min(least, value), Math.max(most, value)];
    if (most - least <= reach) return [];
    const guides = model.guides.filter(
      ({ angle }) => Math.abs(axis === "x" ? Math.cos(angle) : Math.sin(angle)) < 1e-12,
    );
    const guide = guides.find(({ at }) => Math.abs(at[axis] - (least + most) / 2) <= reach);
    const middle = guide?.at[axis] ?? (least + most) / 2;
    const across = marks.map(({ at, what }, i) => {
      let [found, nearest] = [-1, reach];
      // what lies on the line is its own, also where others lie there
      if (isExact && Math.abs(at[axis] - middle) <= reach) return i;
      const place = { ...at, [axis]: 2 * middle - at[axis] };
      grid.near(place, (k) => {
        const off = Math.hypot(marks[k]!.at.x - place.x, marks[k]!.at.y - place.y);
        if (!alike(what, marks[k]!.what, isExact) || off > nearest) return;
        [found, nearest] = [k, off];
      });
      return found;
    });
    if (across.some((one, i) => one < 0 || across[one] !== i)) return [];
    const line = guide ? constant(guide.at[axis]) : model.help(middle, axis);
    return across.flatMap((to, i): readonly Relation[] => {
      if (to < i) return [];
      const [one, two] = [marks[i]!, marks[to]!];
      const equations: readonly Equation[] =
        to === i
          ? [agree(one.spot[axis], line)]
          : [
              vanishes(combined(combined(one.spot[axis], two.spot[axis]), line, 1, -2)),
              agree(one.spot[other], two.spot[other]),
            ];
      return [{ kind: "mirror", axis, refs: [one.ref, two.ref], equations, at: midpoint(one.at, two.at) }];
    });
  });
};
