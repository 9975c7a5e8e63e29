import { frameOf } from "../attach/frame.ts";
import { placeOf } from "../attach/places.ts";
import { measureCallout } from "../callouts/measure.ts";
import type { AnnotationKind } from "../drawing/annotation.ts";
import type { Callout } from "../drawing/callout.ts";
import {
  annotationsOf,
  calloutsOf,
  curveAt,
  drawingBounds,
  roundAt,
  styleOf,
  type Drawing,
} from "../drawing/drawing.ts";
import type { Edit } from "../drawing/edit.ts";
import { pageGet } from "../drawing/pages.ts";
import { boundsHold, boundsMeet, boundsMiddle, boundsOf, growBounds, type Bounds } from "../geometry/bounds.ts";
import { pieceBounds, pieceLength } from "../geometry/piece.ts";
import { along, angleOf, dot, leftOf, subtract, times, unit, type Point } from "../geometry/point.ts";
import { indexDrawing, type DrawingIndex } from "../look/drawingIndex.ts";
import { selectByBox } from "../look/selecting.ts";
import { windingNumber } from "../contour/winding.ts";
import { profileOf, type Contour } from "../profile/profile.ts";
import { unitAt } from "../numeric/angle.ts";
import { greatest } from "../numeric/greatest.ts";
import { done, refuse, type Outcome } from "../numeric/outcome.ts";
import { displayOf, type Display } from "./display.ts";
import { addAnnotations, senseless, type NewAnnotation } from "./editAnnotations.ts";
import { measureAnnotation } from "./measure.ts";
import { textCorners, type Drawn } from "./pen.ts";
import { calledAt } from "./placing.ts";
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
  const only = links.length === 1 ? curveAt(drawing, links[0]!) : undefined;
  // the length of an arc is that along it
  const isAlong = callout.kind === "length" && only?.kind === "piece" && only.bulge !== 0;
  const kind = isAlong ? "arc length" : KIND_OF[callout.kind];
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
/** Directions tried at each distance, off the one that leads out of the contour (radians). */
const TURNS = [0, 0.4, -0.4, 0.8, -0.8, 1.2, -1.2, 1.6, -1.6] as const;

/** Places where a dimension could stand, nearest to the contour first: on both sides of it, or all round a centre. */
function* places(drawing: Drawing, bare: NewAnnotation, box: Bounds, height: number): Generator<Point> {
  const { origin, axis } = frameOf(drawing, { ...bare, id: 0 })!;
  if (bare.kind === "linear") {
    const off = leftOf(axis);
    const reach = (way: Point): number =>
      greatest(
        [box.minX, box.maxX].flatMap((x) => [box.minY, box.maxY].map((y) => dot(subtract({ x, y }, origin), way))),
      );
    const sides = [off, times(off, -1)].sort((p, q) => reach(p) - reach(q));
    for (let n = 0; n < TRIES; n++)
      for (const way of sides) yield along(origin, way, reach(way) + (FIRST_OUT + n * NEXT_OUT) * height);
    return;
  }
  const ref = bare.refs[0]!;
  const curve = curveAt(drawing, ref);
  const isArc = curve?.kind === "piece" && curve.bulge !== 0;
  // an arc is left at its middle, a hole away from the middle of it all
  const middle = isArc ? placeOf(drawing, { ...ref, place: "middle" }) : undefined;
  const away = unit(middle ? subtract(middle, origin) : subtract(origin, boundsMiddle(box))) ?? { x: 0.6, y: 0.8 };
  const edge = roundAt(drawing, ref)?.radius ?? 0;
  for (let n = 0; n < TRIES; n++)
    for (const turn of TURNS) {
      // on an arc the leader stays on what is drawn of it
      const turned = middle && isArc ? turn * Math.min(1, pieceLength(curve) / 3 / edge) : turn;
      const [way, out] = [unitAt(angleOf(away) + turned), (FIRST_OUT + n * NEXT_OUT) * height];
      yield along(origin, way, edge + out);
      // of a hollow the outside is where its centre is
      if (isArc && out < edge) yield along(origin, way, edge - out);
    }
}

/** True where the texts of two displays would be written over each other, or one over the other's lines. */
const collide = (p: Display, q: Display): boolean => {
  if (!boundsMeet(p.bounds, q.bounds)) return false;
  const [own, other] = [textBoxes(p), textBoxes(q)];
  return (
    own.some((one) => other.some((two) => boundsMeet(one, two)) || crosses(q, one)) ||
    other.some((one) => crosses(p, one))
  );
};
/** With room for the sign that says how a callout stands. */
const textBoxes = ({ drawn }: Display): readonly Bounds[] =>
  drawn.flatMap((one) => (one.kind === "text" ? [growBounds(boxOf(one), one.height)] : []));

/** True of a place that no outer contour holds. */
const isOutside = (outlines: readonly Contour[], p: Point): boolean =>
  outlines.every(({ bounds, pieces }) => !boundsHold(bounds, boundsOf([p])) || windingNumber(pieces, p) === 0);

/** True where a display's texts stand on geometry. */
const onGeometry = (index: DrawingIndex, display: Display): boolean =>
  textBoxes(display).some((box) => selectByBox(index, box, "touches").length > 0);

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
  const index = indexDrawing(drawing);
  const outlines = profileOf(drawing).contours.filter(({ depth, role }) => depth === 0 && role !== "mark");
  const standing: Display[] = annotationsOf(drawing).map((one) => displayOf(drawing, one, style, per));
  // short ones stand nearest to the contour
  const length = (one: NewAnnotation): number => measureAnnotation(drawing, { ...one, id: 0 })?.most ?? 0;
  const made = [...bare]
    .sort((p, q) => length(p) - length(q))
    .map((one) => {
      // clear of everything and outside, else clear of everything, else clear of other dimensions, else as it comes
      let best: { readonly annotation: NewAnnotation; readonly display: Display; readonly worth: number } | undefined;
      for (const place of places(drawing, one, box, height)) {
        const annotation = calledAt(drawing, one, pageGet(drawing.callout, one.callout!)!, place);
        const display = displayOf(drawing, { ...annotation, id: 0 }, style, per);
        const apart = !standing.some((other) => collide(display, other));
        const free = apart && !onGeometry(index, display);
        const outside = free && textBoxes(display).every((text) => isOutside(outlines, boundsMiddle(text)));
        const worth = outside ? 3 : free ? 2 : apart ? 1 : 0;
        if (!best || worth > best.worth) best = { annotation, display, worth };
        if (worth === 3) break;
      }
      standing.push(best!.display);
      return best!.annotation;
    });
  const edit = addAnnotations(drawing, made, "Dimension all called", "dimension-all");
  return edit.ok ? done({ edit: edit.value, count: made.length }) : edit;
};
