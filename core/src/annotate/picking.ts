import { FIRST_STYLE, type Annotation, type AnnotationKind } from "../drawing/annotation.ts";
import { annotationOf, annotationsOf, unitOf, type Drawing } from "../drawing/drawing.ts";
import { boundsHold, boundsMeet, growBounds, type Bounds } from "../geometry/bounds.ts";
import { line, pieceNearest } from "../geometry/piece.ts";
import { dot, leftOf, subtract, type Point } from "../geometry/point.ts";
import { meetings } from "../intersect/meetings.ts";
import type { Id } from "../numeric/id.ts";
import { RESOLUTION, TRUE_WITHIN } from "../numeric/tolerance.ts";
import { unitAt } from "../numeric/angle.ts";
import { LOST_WORDS, type Display } from "./display.ts";
import { measuredFigure } from "./figures.ts";
import { DESCENT, textWidth } from "./letters.ts";
import { measureAnnotation } from "./measure.ts";
import { textCorners, type DrawnText } from "./pen.ts";
import { isSeen } from "./shown.ts";

/** All of it counts as this part of the reach farther away than it is: geometry comes first where it is as near. */
const BEHIND = 1 / 3;

const inText = ({ text, middle, angle, height }: DrawnText, p: Point, reach: number): boolean => {
  const by = subtract(p, middle);
  const way = unitAt(angle);
  const [x, y] = [dot(by, way), dot(by, leftOf(way))];
  const high = height / 2 + reach / 2;
  return Math.abs(x) <= textWidth(text, height) / 2 + reach / 2 && y <= high && y >= -high - DESCENT * height;
};

/** How far a place lies off what is drawn; Infinity beyond `reach`. */
const offDisplay = ({ drawn }: Display, p: Point, reach: number): number => {
  let best = Infinity;
  for (const one of drawn) {
    if (one.kind === "text") {
      if (inText(one, p, reach)) best = Math.min(best, reach / 4);
      continue;
    }
    const pieces = one.kind === "stroke" ? one.pieces : one.points.slice(1).map((q, i) => line(one.points[i]!, q));
    for (const piece of pieces) best = Math.min(best, pieceNearest(piece, p).distance);
  }
  return best <= reach ? best + BEHIND * reach : Infinity;
};

/** The annotations within `reach` of a place, nearest first, the newest of those that are as near. */
export const annotationsAt = (
  displays: readonly Display[],
  at: Point,
  reach: number,
): readonly { readonly id: Id; readonly away: number }[] => {
  const box = growBounds({ minX: at.x, minY: at.y, maxX: at.x, maxY: at.y }, reach);
  return displays
    .flatMap((display) => {
      const away = boundsMeet(display.bounds, box) ? offDisplay(display, at, reach) : Infinity;
      return away === Infinity ? [] : [{ id: display.id, away }];
    })
    .sort((p, q) => p.away - q.away || q.id - p.id);
};

/** The annotations that a box encloses whole, or that it meets. */
export const annotationsInBox = (
  displays: readonly Display[],
  box: Bounds,
  how: "encloses" | "touches",
): readonly Id[] => {
  const corners = [
    { x: box.minX, y: box.minY },
    { x: box.maxX, y: box.minY },
    { x: box.maxX, y: box.maxY },
    { x: box.minX, y: box.maxY },
  ];
  const sides = corners.map((a, i) => line(a, corners[(i + 1) % 4]!));
  const touches = ({ drawn }: Display): boolean =>
    drawn.some((one) => {
      const corner = one.kind === "stroke" ? undefined : one.kind === "text" ? textCorners(one) : one.points;
      const pieces =
        one.kind === "stroke" ? one.pieces : corner!.map((a, i) => line(a, corner![(i + 1) % corner!.length]!));
      return pieces.some((piece) =>
        sides.some((side) => meetings({ kind: "piece", ...piece }, { kind: "piece", ...side }, RESOLUTION).length > 0),
      );
    });
  return displays
    .filter((display) => {
      if (boundsHold(box, display.bounds)) return true;
      return how === "touches" && boundsMeet(box, display.bounds) && touches(display);
    })
    .map(({ id }) => id);
};

/** Everything like an annotation: of its kind, of its kind and number, or all of them, which lie on one layer. */
export const annotationsLike = (drawing: Drawing, id: Id, like: "kind" | "size" | "layer"): readonly Id[] => {
  const model = annotationOf(drawing, id);
  if (!model) return [];
  const size = measureAnnotation(drawing, model)?.most;
  const fits = (one: Annotation): boolean => {
    if (!isSeen(drawing, one)) return false;
    if (like === "layer") return true;
    if (one.kind !== model.kind) return false;
    const own = like === "size" ? measureAnnotation(drawing, one)?.most : undefined;
    return like === "kind" || own === size || Math.abs((own ?? Infinity) - (size ?? Infinity)) <= TRUE_WITHIN;
  };
  return annotationsOf(drawing)
    .filter(fits)
    .map((one) => one.id);
};

/** What an annotation is called on the screen, by its kind. */
export const ANNOTATION_NAMES: Readonly<Record<AnnotationKind, string>> = {
  linear: "dimension",
  angle: "angle",
  radius: "radius",
  diameter: "diameter",
  "arc length": "arc length",
  ordinate: "ordinate",
  note: "note",
  "centre mark": "centre mark",
  "centre line": "centre line",
  "thread mark": "thread mark",
};

/** An annotation in a few words: `dimension 43`, `note deburr`, `dimension, lost what it measured`. */
export const describeAnnotation = (drawing: Drawing, annotation: Annotation): string => {
  const name = ANNOTATION_NAMES[annotation.kind];
  if (annotation.lost) return `${name}, ${LOST_WORDS}`;
  if (annotation.kind === "note") return `note ${(annotation.text ?? "").split("\n")[0]}`;
  const sizes = measureAnnotation(drawing, annotation);
  return sizes ? `${name} ${measuredFigure(annotation, sizes, unitOf(drawing), FIRST_STYLE)}` : name;
};

/** Some annotations counted by kind: `2 dimensions, 1 note`. */
export const countAnnotations = (drawing: Drawing, ids: Iterable<Id>): string => {
  const counts = new Map<string, number>();
  for (const id of ids) {
    const kind = annotationOf(drawing, id)?.kind;
    if (kind) counts.set(ANNOTATION_NAMES[kind], (counts.get(ANNOTATION_NAMES[kind]) ?? 0) + 1);
  }
  const plural = (name: string): string => (name === "radius" ? "radii" : `${name}s`);
  return [...counts].map(([name, n]) => `${n} ${n === 1 ? name : plural(name)}`).join(", ");
};
