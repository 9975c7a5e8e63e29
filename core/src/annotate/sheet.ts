import type { AnnotationStyle } from "../drawing/annotation.ts";
import { drawingBounds, unitOf, type Drawing } from "../drawing/drawing.ts";
import { convertLength } from "../numeric/units.ts";

/** Scales of drawings (ISO 5455), drawing to paper. */
export const SCALES = [0.02, 0.05, 0.1, 0.2, 0.5, 1, 2, 5, 10, 20, 50, 100, 200, 500, 1000] as const;

/** The part of a sheet A3 on which the drawing itself should find room, mm: the frame and the title left out. */
const ROOM = { width: 380, height: 230 } as const;

/** The scale of the sheet: the style's own, or the one of the standard's at which the drawing fits on A3. */
export const sheetScale = (drawing: Drawing, style: AnnotationStyle): number => {
  if (style.sheet !== undefined) return style.sheet;
  const bounds = drawingBounds(drawing);
  if (!bounds) return 1;
  const mm = (size: number): number => convertLength(size, unitOf(drawing), "mm");
  const [width, height] = [mm(bounds.maxX - bounds.minX), mm(bounds.maxY - bounds.minY)];
  const wanted = Math.max(width / ROOM.width, height / ROOM.height);
  return SCALES.find((scale) => scale >= wanted) ?? wanted;
};

/** How many drawing units are one millimetre of paper. */
export const unitsPerPaper = (drawing: Drawing, style: AnnotationStyle): number =>
  convertLength(sheetScale(drawing, style), "mm", unitOf(drawing));
