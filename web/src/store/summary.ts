import { displayOf, isSeen, textWidth, unitsPerPaper, type Display } from "@ash-edge/core/annotate";
import { calloutRows, faultsOf, standingOf, subjectOf } from "@ash-edge/core/checks";
import { annotationsOf, cutEntities, settingsOf, styleOf, type Drawing } from "@ash-edge/core/drawing";
import {
  along,
  chordPieces,
  distance,
  endlessPoint,
  pieceRadius,
  piecesBounds,
  smoothOf,
  unionBounds,
  type Bounds,
  type Piece,
  type Point,
} from "@ash-edge/core/geometry";
import { greatest, unitAt } from "@ash-edge/core/numeric";
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
    return piecesPath(chordPieces(smoothOf(shape), 0.002 * (box.maxX - box.minX)), false);
  }
  return piecesPath(shapePieces(shape) ?? [], isClosedShape(shape));
};

/** A small picture shows no more than so many outlines of a kind, the outermost and largest. */
const SHOWN = 400;

/** An outline as a picture shows it. */
export type Outline = {
  readonly kind: "outside" | "inside" | "mark" | "open";
  readonly pieces: readonly Piece[];
  readonly closed: boolean;
};

/** A picture of outlines, each kind by itself; undefined where there is nothing to show. */
export const pictureOf = (outlines: readonly Outline[]): Thumbnail | undefined => {
  const box = unionBounds(outlines.flatMap(({ pieces }) => piecesBounds(pieces) ?? []));
  if (!box) return undefined;
  const path = (kind: Outline["kind"]): string =>
    outlines
      .filter((outline) => outline.kind === kind)
      .map(({ pieces, closed }) => piecesPath(pieces, closed))
      .join("");
  return {
    box: [box.minX, box.minY, box.maxX - box.minX, box.maxY - box.minY],
    outside: path("outside"),
    inside: path("inside"),
    open: path("open"),
    marks: path("mark"),
  };
};

/** Ellipses and free curves, as chords as fine as a small picture shows. */
const smoothOutlines = (drawing: Drawing): readonly Outline[] =>
  cutEntities(drawing)
    .filter(isSmoothShape)
    .slice(0, SHOWN)
    .map((shape): Outline => {
      const curve = smoothOf(shape);
      const size = greatest([0.25, 0.5, 0.75, 1].map((t) => distance(curve.at(0), curve.at(t))));
      return { kind: "open", pieces: chordPieces(curve, 0.004 * size), closed: false };
    });

/** A drawing's outlines as a picture; undefined while nothing is drawn. */
export const thumbnailOf = (drawing: Drawing): Thumbnail | undefined => {
  const { contours, open, marks } = profileOf(drawing);
  return pictureOf([
    ...smoothOutlines(drawing),
    ...contours.slice(0, SHOWN).map(({ role, pieces }): Outline => ({ kind: role, pieces, closed: true })),
    ...open.slice(0, SHOWN).map(({ pieces }): Outline => ({ kind: "open", pieces, closed: false })),
    ...marks.slice(0, SHOWN).map(({ pieces }): Outline => ({ kind: "mark", pieces, closed: false })),
  ]);
};

/** What a dimension is drawn with, as path data: at the size of a list its text is no more than a stroke. */
const displayPath = ({ drawn }: Display): string =>
  drawn
    .map((one) => {
      if (one.kind === "stroke") return one.pieces.map((piece) => piecesPath([piece], false)).join("");
      if (one.kind === "terminator") return `M${one.points.map(({ x, y }) => `${x} ${y}`).join("L")}`;
      const half = textWidth(one.text, one.height) / 2;
      const [a, b] = [-half, half].map((by) => along(one.middle, unitAt(one.angle), by)) as [Point, Point];
      return `M${a.x} ${a.y}L${b.x} ${b.y}`;
    })
    .join("");

/** The small picture for lists, with its dimensions where they are shown; undefined while nothing is drawn. */
export const jobPictureOf = (drawing: Drawing): Thumbnail | undefined => {
  const picture = thumbnailOf(drawing);
  if (!picture || drawing.annotation.size === 0 || settingsOf(drawing).annotationsHidden) return picture;
  const style = styleOf(drawing);
  const per = unitsPerPaper(drawing, style);
  const displays = annotationsOf(drawing)
    .slice(0, SHOWN)
    .filter((one) => isSeen(drawing, one))
    .map((one) => displayOf(drawing, one, style, per));
  const dimensions = displays.map(displayPath).join("");
  return dimensions === "" ? picture : { ...picture, box: boxWith(picture.box, displays), dimensions };
};

/** The box of a picture with what speaks of it. */
export const boxWith = ([x, y, width, height]: Thumbnail["box"], displays: readonly Display[]): Thumbnail["box"] => {
  const own = { minX: x, minY: y, maxX: x + width, maxY: y + height };
  const { minX, minY, maxX, maxY } = unionBounds([own, ...displays.map(({ bounds }) => bounds)])!;
  return [minX, minY, maxX - minX, maxY - minY];
};

/**
 * How far a job has come: drawn once a contour is closed, proved once every callout holds or is waived and nothing that
 * an edit may look for stands against cutting. A release is kept apart.
 */
export const stateOf = (drawing: Drawing): Exclude<JobState, "released"> => {
  const profile = profileOf(drawing);
  if (!profile.contours.some(({ joined }) => joined) || profile.open.length > 0) return "sketched";
  const { called, off, notPlaced } = standingOf(calloutRows(drawing));
  if (called === 0 || off + notPlaced > 0) return "drawn";
  const stands = faultsOf(subjectOf(drawing, profile), { quick: true }).some(({ severity }) => severity === "error");
  return stands ? "drawn" : "proved";
};

/** A greater drawing takes too long to be summed up between two edits. */
export const SUMMARY_LIMIT = 4000;

/** How a job looks and how far it has come, for the lists of jobs. */
export const summaryOf = (
  drawing: Drawing,
): { readonly state: Exclude<JobState, "released">; readonly thumbnail?: Thumbnail } => {
  const thumbnail = jobPictureOf(drawing);
  return { state: stateOf(drawing), ...(thumbnail ? { thumbnail } : {}) };
};
