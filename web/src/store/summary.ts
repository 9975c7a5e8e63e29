import { measureCallout } from "@ash-edge/core/callouts";
import { calloutsOf, type Drawing } from "@ash-edge/core/drawing";
import {
  chordsOf,
  endlessPoint,
  pieceRadius,
  smoothOf,
  unionBounds,
  type Bounds,
  type Piece,
  type Point,
} from "@ash-edge/core/geometry";
import { profileOf } from "@ash-edge/core/profile";
import { isClosedShape, isSmoothShape, shapePieces, type Shape } from "@ash-edge/core/shape";
import type { JobState, Thumbnail } from "./rows.ts";

/** Pieces as SVG path data in the drawing's own coordinates (y up). */
export const piecesPath = (pieces: readonly Piece[], closed: boolean): string => {
  const first = pieces[0];
  if (!first) return "";
  const steps = pieces.map((piece) => {
    const { b, bulge } = piece;
    if (bulge === 0) return `L${b.x} ${b.y}`;
    const radius = pieceRadius(piece);
    return `A${radius} ${radius} 0 ${Math.abs(bulge) > 1 ? 1 : 0} ${bulge > 0 ? 1 : 0} ${b.x} ${b.y}`;
  });
  return `M${first.a.x} ${first.a.y}${steps.join("")}${closed ? "Z" : ""}`;
};

/** A shape as SVG path data in the drawing's own coordinates; of an endless line what lies in `box`. */
export const shapePath = (shape: Shape, box: Bounds): string => {
  if (shape.kind === "endless") {
    const reach = 2 * (box.maxX - box.minX + box.maxY - box.minY);
    const [a, b] = [-reach, reach].map((t) => endlessPoint(shape, t)) as [Point, Point];
    return `M${a.x} ${a.y}L${b.x} ${b.y}`;
  }
  if (shape.kind === "point") {
    const [{ x, y }, r] = [shape.at, 0.02 * (box.maxX - box.minX)];
    return `M${x - r} ${y}L${x + r} ${y}M${x} ${y - r}L${x} ${y + r}`;
  }
  if (isSmoothShape(shape)) {
    const { at } = smoothOf(shape);
    const places = chordsOf(smoothOf(shape), 0.002 * (box.maxX - box.minX)).map(at);
    return `M${places.map(({ x, y }) => `${x} ${y}`).join("L")}`;
  }
  return piecesPath(shapePieces(shape) ?? [], isClosedShape(shape));
};

/** A small picture shows no more than so many outlines, the outermost and largest. */
const SHOWN = 400;

/** The small picture for lists; undefined while nothing is drawn. */
export const thumbnailOf = (drawing: Drawing): Thumbnail | undefined => {
  const { contours, open } = profileOf(drawing);
  const box = unionBounds([...contours, ...open].map(({ bounds }) => bounds));
  if (!box) return undefined;
  const path = (role: string): string =>
    contours
      .slice(0, SHOWN)
      .filter((contour) => contour.role === role)
      .map(({ pieces }) => piecesPath(pieces, true))
      .join("");
  return {
    box: [box.minX, box.minY, box.maxX - box.minX, box.maxY - box.minY],
    outside: path("outside"),
    inside: path("inside"),
    open: open
      .slice(0, SHOWN)
      .map(({ pieces }) => piecesPath(pieces, false))
      .join(""),
  };
};

/**
 * How far a job has come: drawn once a contour is closed, proved once every callout is true. A release is kept apart.
 */
export const stateOf = (drawing: Drawing): Exclude<JobState, "released"> => {
  const { contours, open } = profileOf(drawing);
  if (!contours.some(({ joined }) => joined) || open.length > 0) return "sketched";
  const callouts = calloutsOf(drawing);
  const holds = callouts.every((callout) => ["true", "within"].includes(measureCallout(drawing, callout).state));
  return callouts.length > 0 && holds ? "proved" : "drawn";
};
