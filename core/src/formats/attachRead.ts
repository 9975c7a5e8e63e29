import Flatbush from "flatbush";
import { senseless, type NewAnnotation } from "../annotate/editAnnotations.ts";
import { placedAt } from "../annotate/placing.ts";
import { pointedOn } from "../attach/places.ts";
import { entitiesOf, settingsOf, type Drawing } from "../drawing/drawing.ts";
import { curvesOf } from "../drawing/entity.ts";
import { DATUM, type Ref } from "../drawing/ref.ts";
import { growBounds, type Bounds } from "../geometry/bounds.ts";
import { carrierNearest, carrierOf, curveBounds, curveNearest, type Curve } from "../geometry/curve.ts";
import { distance, midpoint, type Point } from "../geometry/point.ts";
import type { ReadDimension, ReadDrawing } from "./readShapes.ts";

/** Points of files are written with three decimals and more: what lies so near is the place that was meant. */
const SAME_AS = 2e-3;

type Standing = { readonly ref: Ref; readonly curve: Curve; readonly places: readonly (readonly [Ref, Point])[] };

const standing = (drawing: Drawing): readonly Standing[] =>
  [...entitiesOf(drawing)].flatMap((entity) =>
    curvesOf(entity).flatMap(({ curve, ref }): Standing[] => {
      if (curve.kind === "endless") return [];
      const carrier = carrierOf(curve);
      const centre: Standing["places"] =
        carrier?.kind === "circle" ? [[{ ...ref, place: "centre" }, carrier.centre]] : [];
      const ends: Standing["places"] =
        curve.kind === "piece"
          ? [
              [{ ...ref, place: "start" }, curve.a],
              [{ ...ref, place: "end" }, curve.b],
            ]
          : [];
      return [{ ref, curve, places: [...ends, ...centre] }];
    }),
  );

/** Finds the places and curves of a drawing by points. */
class Finder {
  private readonly all: readonly Standing[];
  private readonly places: readonly (readonly [Ref, Point])[];
  private readonly placeTree: Flatbush | undefined;
  private readonly curveTree: Flatbush | undefined;

  constructor(drawing: Drawing) {
    this.all = standing(drawing);
    this.places = this.all.flatMap(({ places }) => places);
    this.placeTree = treeOf(this.places.map(([, p]) => ({ minX: p.x, minY: p.y, maxX: p.x, maxY: p.y })));
    this.curveTree = treeOf(this.all.map(({ curve }) => curveBounds(curve)!));
  }

  /** The nearest end or centre at a point; ends before centres that are as near. */
  place(p: Point): Ref | undefined {
    let best: { readonly ref: Ref; readonly away: number } | undefined;
    for (const i of within(this.placeTree, p)) {
      const [ref, at] = this.places[i]!;
      const away = distance(p, at);
      if (away <= SAME_AS && (!best || away < best.away)) best = { ref, away };
    }
    return best?.ref;
  }

  /** What a leader that ends at a point holds: the end or centre there, or the curve through it. */
  pointed(p: Point): Ref | undefined {
    const place = this.place(p);
    if (place) return place;
    for (const i of within(this.curveTree, p)) {
      const { curve, ref } = this.all[i]!;
      if (curveNearest(curve, p).distance <= SAME_AS) return pointedOn(ref, curve, p);
    }
    return undefined;
  }

  /** The straight curve on whose line both points lie, near one of them. */
  edge(p: Point, q: Point): Ref | undefined {
    for (const i of [...within(this.curveTree, p), ...within(this.curveTree, q)]) {
      const { curve, ref } = this.all[i]!;
      const carrier = carrierOf(curve);
      const on = (at: Point): boolean => distance(carrierNearest(carrier!, at), at) <= SAME_AS;
      if (carrier?.kind === "line" && on(p) && on(q)) return ref;
    }
    return undefined;
  }

  /** The round curve about a centre through a point. */
  round(centre: Point, on: Point): Ref | undefined {
    for (const i of within(this.curveTree, on)) {
      const { curve, ref } = this.all[i]!;
      const carrier = carrierOf(curve);
      if (carrier?.kind !== "circle" || distance(carrier.centre, centre) > SAME_AS) continue;
      if (Math.abs(carrier.radius - distance(centre, on)) <= SAME_AS) return ref;
    }
    return undefined;
  }
}

const treeOf = (boxes: readonly Bounds[]): Flatbush | undefined => {
  if (boxes.length === 0) return undefined;
  const tree = new Flatbush(boxes.length);
  for (const { minX, minY, maxX, maxY } of boxes) tree.add(minX, minY, maxX, maxY);
  tree.finish();
  return tree;
};
const within = (tree: Flatbush | undefined, { x, y }: Point): readonly number[] => {
  const box = growBounds({ minX: x, minY: y, maxX: x, maxY: y }, SAME_AS);
  return tree?.search(box.minX, box.minY, box.maxX, box.maxY) ?? [];
};

const refsFor = (drawing: Drawing, finder: Finder, { kind, places }: ReadDimension): readonly (Ref | undefined)[] => {
  const [p, q, r, s] = places as readonly [Point, Point, Point, Point];
  switch (kind) {
    case "linear":
      return [finder.place(p), finder.place(q)];
    case "angle":
      return [finder.place(p), finder.place(q), finder.place(r)];
    case "angle of lines":
      return [finder.edge(p, q), finder.edge(r, s)];
    case "radius":
      return [finder.round(p, q)];
    case "diameter":
      return [finder.round(midpoint(p, q), q)];
    case "ordinate":
      // from anywhere but the datum it would measure something else
      return [distance(p, settingsOf(drawing).datum) <= SAME_AS ? DATUM : undefined, finder.place(q)];
  }
};

/**
 * The dimensions and leaders of a file whose points lie on what was read with it, each put on that; none of the others,
 * which would measure nothing, or something else. A leader with its words is a note.
 */
export const attachRead = (
  drawing: Drawing,
  { dimensions = [], leaders = [] }: Pick<ReadDrawing, "dimensions" | "leaders">,
): readonly NewAnnotation[] => {
  if (dimensions.length + leaders.length === 0) return [];
  const finder = new Finder(drawing);
  const put = (refs: readonly (Ref | undefined)[], bare: Bare, at: Point): readonly NewAnnotation[] => {
    if (refs.some((ref) => !ref)) return [];
    const whole = { ...bare, refs: refs as readonly Ref[] };
    return senseless(drawing, whole) ? [] : [placedAt(drawing, whole, at)];
  };
  return [
    ...dimensions.flatMap((read) => {
      const kind = read.kind === "angle of lines" ? "angle" : read.kind;
      const angle = read.angle === undefined ? {} : { angle: read.angle };
      return put(refsFor(drawing, finder, read), { kind, ...angle }, read.line);
    }),
    ...leaders.flatMap(({ tips, line, text }) =>
      put(
        tips.map((tip) => finder.pointed(tip)),
        { kind: "note", text },
        line,
      ),
    ),
  ];
};
type Bare = Pick<NewAnnotation, "kind" | "angle" | "text">;
