import { SVG_AGREES } from "../../numeric/tolerance.ts";
import { boundsExtent, boundsSize, type Bounds } from "../../geometry/bounds.ts";
import { circleBounds } from "../../geometry/circle.ts";
import { pieceLength, piecesBounds, type Piece } from "../../geometry/piece.ts";
import type { Point } from "../../geometry/point.ts";
import type { Unit } from "../../numeric/units.ts";
import type { ReadDrawing, ReadShape, WholeShape } from "../readShapes.ts";

/**
 * A shape as an independent reader sees it: the box around it in the drawing's own axes (y up), and for paths the
 * length.
 */
export type FoundShape = { readonly layer: string; readonly box: Bounds } & (
  { readonly kind: "circle" } | { readonly kind: "path"; readonly length: number }
);

/** What an independent reader found in an SVG: its size as it is written, and its shapes in their order. */
export type FoundSvg = { readonly width: string; readonly viewBox: string; readonly shapes: readonly FoundShape[] };

/**
 * Browsers hold coordinates in single precision and turn arcs into cubic curves: lengths and boxes agree to this part
 * of the size, and places to this part of their distance from the origin (2^-24 once more rounded).
 */
const { shapes: SHAPES_AGREE, places: PLACES_AGREE, bulges: BULGES_AGREE } = SVG_AGREES;

/**
 * What differs between the contours that were to be written and what was read back from the SVG; empty when nothing
 * does. The size must be the true one (one unit of the coordinates a unit of the drawing); on each layer the same
 * shapes must follow each other, their boxes and lengths as a browser measures them. `read` is the same file by our own
 * reader, whose ends must be the written ones.
 */
export const compareSvg = (
  written: readonly WholeShape[],
  unit: Unit,
  found: FoundSvg,
  read: ReadDrawing,
): readonly string[] => {
  const differences: string[] = [];
  const across = found.viewBox.split(/\s+/)[2];
  if (found.width !== `${across}${unit}`)
    differences.push(`Its width reads as ${found.width}, not ${across}${unit}: it is not in true size.`);
  if (read.unit !== unit) differences.push(`The unit reads as ${read.unit ?? "none"}, not ${unit}.`);
  if (found.shapes.length !== written.length)
    differences.push(`${found.shapes.length} contours read, ${written.length} written.`);
  for (const layer of new Set(written.map((contour) => contour.layer))) {
    const here = found.shapes.filter((shape) => shape.layer === layer);
    const ours = read.shapes.filter((shape) => shape.layer === layer);
    written
      .filter((contour) => contour.layer === layer)
      .forEach((contour, i) => {
        const shape = here[i];
        if (!shape || !seenAs(contour, shape) || !sameShape(contour, ours[i]))
          differences.push(`Contour ${i + 1} on ${layer} reads differently.`);
      });
  }
  return differences;
};

const seenAs = (contour: WholeShape, shape: FoundShape): boolean => {
  const box = contour.kind === "circle" ? circleBounds(contour) : piecesBounds(contour.pieces)!;
  const allowed = SHAPES_AGREE * boundsSize(box) + PLACES_AGREE * boundsExtent(box);
  const differ = (["minX", "minY", "maxX", "maxY"] as const).some(
    (side) => !(Math.abs(shape.box[side] - box[side]) <= allowed),
  );
  if (differ || (shape.kind === "circle") !== (contour.kind === "circle")) return false;
  if (shape.kind === "circle" || contour.kind === "circle") return true;
  const length = contour.pieces.reduce((sum, piece) => sum + pieceLength(piece), 0);
  return Math.abs(shape.length - length) <= SHAPES_AGREE * length;
};

/**
 * A bulge is worked out from an arc's radius and chord, which near half a turn tells it only to the root of a double's
 * precision.
 */
const sameBulge = (p: number, q: number): boolean => Math.abs(p - q) <= BULGES_AGREE * (1 + q * q);
const samePoint = (p: Point, q: Point): boolean => p.x === q.x && p.y === q.y;

const sameShape = (contour: WholeShape, read: ReadShape | undefined): boolean => {
  if (contour.kind === "circle")
    return read?.kind === "circle" && samePoint(read.centre, contour.centre) && read.radius === contour.radius;
  const own: readonly Piece[] | undefined =
    read?.kind === "chain" && read.closed === contour.closed
      ? read.pieces
      : read?.kind === "piece" && !contour.closed
        ? [read]
        : undefined;
  return (
    own?.length === contour.pieces.length &&
    contour.pieces.every(
      ({ a, b, bulge }, i) => samePoint(own[i]!.a, a) && samePoint(own[i]!.b, b) && sameBulge(own[i]!.bulge, bulge),
    )
  );
};
