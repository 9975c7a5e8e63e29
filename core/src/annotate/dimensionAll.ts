import { frameOf } from "../attach/frame.ts";
import { placeOf } from "../attach/places.ts";
import { measureCallout } from "../callouts/measure.ts";
import type { AnnotationKind } from "../drawing/annotation.ts";
import type { Callout } from "../drawing/callout.ts";
import { annotationsOf, calloutsOf, curveAt, drawingBounds, styleOf, type Drawing } from "../drawing/drawing.ts";
import type { Edit } from "../drawing/edit.ts";
import { boundsMeet, boundsMiddle, boundsOf, type Bounds } from "../geometry/bounds.ts";
import { pieceBounds } from "../geometry/piece.ts";
import { leftOf, unit, subtract, type Point } from "../geometry/point.ts";
import { greatest } from "../numeric/greatest.ts";
import { done, refuse, type Outcome } from "../numeric/outcome.ts";
import { displayOf, type Display } from "./display.ts";
import { addAnnotations, senseless, type NewAnnotation } from "./editAnnotations.ts";
import { measureAnnotation } from "./measure.ts";
import { textCorners, type Drawn } from "./pen.ts";
import { placedAt } from "./placing.ts";
import { unitsPerPaper } from "./sheet.ts";

const KIND_OF: Readonly<Partial<Record<Callout["kind"], AnnotationKind>>> = {
  length: "linear",
  centres: "linear",
  radius: "radius",
  diameter: "diameter",
  angle: "angle",
};

/**
 * The dimension of a callout that is placed, on the very things that answer it, without its place. Refused where it is
 * not placed, and for what no dimension shows: counts, threads, chamfers, pitch circles.
 */
export const dimensionOfCallout = (drawing: Drawing, callout: Callout): Outcome<NewAnnotation> => {
  const { links, axis } = callout;
  const kind = KIND_OF[callout.kind];
  if (measureCallout(drawing, callout).state === "not placed") return refuse("callout-not-placed");
  // a pitch circle is called by the centres on it: that is a centre line, not a diameter
  const isPitch = (kind === "diameter" || kind === "radius") && links.some(({ place }) => place !== undefined);
  if (!kind || isPitch) return refuse("not-dimensioned");
  const angle = axis === undefined || kind !== "linear" ? {} : { angle: axis === "x" ? 0 : Math.PI / 2 };
  const bare: NewAnnotation = { kind, refs: links, at: { x: 0, y: 0 }, callout: callout.id, ...angle };
  const refusal = senseless(drawing, bare);
  return refusal ? { ok: false, refusal } : done(bare);
};

/** First line this many heights of lettering outside the contour, the next ones so many farther out. */
const FIRST_OUT = 3;
const NEXT_OUT = 3;
/** Places tried for each dimension: farther and farther out. */
const TRIES = 24;

/** Places where a dimension could stand, nearest to the contour first; both sides of it, all round a centre. */
function* places(drawing: Drawing, bare: NewAnnotation, box: Bounds, height: number): Generator<Point> {
  const frame = frameOf(drawing, { ...bare, id: 0 })!;
  const middle = boundsMiddle(box);
  if (bare.kind === "linear") {
    const off = leftOf(frame.axis);
    const reach = (way: Point): number =>
      greatest(
        [box.minX, box.maxX].flatMap((x) =>
          [box.minY, box.maxY].map((y) => (x - frame.origin.x) * way.x + (y - frame.origin.y) * way.y),
        ),
      );
    const sides = [off, { x: -off.x, y: -off.y }].sort((p, q) => reach(p) - reach(q));
    for (let n = 0; n < TRIES; n++)
      for (const way of sides) {
        const out = reach(way) + (FIRST_OUT + n * NEXT_OUT) * height;
        yield { x: frame.origin.x + out * way.x, y: frame.origin.y + out * way.y };
      }
    return;
  }
  const curve = bare.refs[0] && curveAt(drawing, bare.refs[0]);
  const held =
    bare.refs[0] && placeOf(drawing, { ...bare.refs[0], place: curve?.kind === "piece" ? "middle" : "centre" });
  const away = unit(subtract(held ?? frame.origin, curve?.kind === "piece" ? frame.origin : middle)) ?? {
    x: 0.6,
    y: 0.8,
  };
  const start = Math.atan2(away.y, away.x);
  const least = curve && curve.kind === "circle" ? curve.radius : 0;
  for (let n = 0; n < TRIES; n++)
    for (const turn of [0, 0.5, -0.5, 1, -1, 1.6, -1.6, 2.6]) {
      const out = least + (FIRST_OUT + n * NEXT_OUT) * height;
      yield {
        x: frame.origin.x + out * Math.cos(start + turn),
        y: frame.origin.y + out * Math.sin(start + turn),
      };
    }
}

/** True where the texts of two displays would be written over each other, or one over the other's lines. */
const collide = (p: Display, q: Display): boolean => {
  if (!boundsMeet(p.bounds, q.bounds)) return false;
  const boxes = (display: Display): readonly Bounds[] =>
    display.drawn.flatMap((one): readonly Bounds[] => (one.kind === "text" ? [boxOf(one)] : []));
  return (
    boxes(p).some((one) => boxes(q).some((other) => boundsMeet(one, other)) || crosses(q, one)) ||
    boxes(q).some((one) => crosses(p, one))
  );
};

const boxOf = (text: Extract<Drawn, { kind: "text" }>): Bounds => boundsOf(textCorners(text));
const crosses = ({ drawn }: Display, box: Bounds): boolean =>
  drawn.some((one) => one.kind === "stroke" && one.pieces.some((piece) => boundsMeet(pieceBounds(piece), box)));

/**
 * Gives each callout that is placed and has no dimension yet its own, outside the contour and clear of each other where
 * there is room, in one edit. Refused where there is none such.
 */
export const dimensionAllCalled = (drawing: Drawing): Outcome<{ readonly edit: Edit; readonly count: number }> => {
  const shown = new Set(annotationsOf(drawing).map(({ callout }) => callout));
  const bare = calloutsOf(drawing).flatMap((callout) => {
    const made = shown.has(callout.id) ? undefined : dimensionOfCallout(drawing, callout);
    return made?.ok ? [made.value] : [];
  });
  const box = drawingBounds(drawing);
  if (bare.length === 0 || !box) return refuse("nothing-called");
  const style = styleOf(drawing);
  const per = unitsPerPaper(drawing, style);
  const height = style.height * per;
  const standing: Display[] = annotationsOf(drawing).map((one) => displayOf(drawing, one, style, per));
  // short ones stand nearest to the contour
  const length = (one: NewAnnotation): number => measureAnnotation(drawing, { ...one, id: 0 })?.most ?? 0;
  const made = [...bare]
    .sort((p, q) => length(p) - length(q))
    .map((one) => {
      let best: { readonly annotation: NewAnnotation; readonly display: Display } | undefined;
      for (const place of places(drawing, one, box, height)) {
        const annotation = placedAt(drawing, one, place);
        const display = displayOf(drawing, { ...annotation, id: 0 }, style, per);
        best ??= { annotation, display };
        if (standing.some((other) => collide(display, other))) continue;
        best = { annotation, display };
        break;
      }
      standing.push(best!.display);
      return best!.annotation;
    });
  const edit = addAnnotations(drawing, made, "Dimension all called", "dimension-all");
  return edit.ok ? done({ edit: edit.value, count: made.length }) : edit;
};
