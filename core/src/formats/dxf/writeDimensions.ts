import type { Definition } from "../../annotate/definition.ts";
import type { Drawn } from "../../annotate/pen.ts";
import { line } from "../../geometry/piece.ts";
import { along, leftOf, type Point } from "../../geometry/point.ts";
import { toDegrees, unitAt } from "../../numeric/angle.ts";
import type { FileAnnotation } from "../annotated.ts";
import type { ReadShape } from "../readShapes.ts";
import { groups, GroupText } from "./groups.ts";
import { MODEL_SPACE, putEntity, putOldEntity } from "./writeEntities.ts";

/** The layer of dimensions, notes and marks in files: common practice, a plain word in capitals. */
export const DIMENSION_LAYER = "DIMENSIONS";
const CENTRE_LINE = "CENTER";
const TEXT_STYLE = "STANDARD";

/** Letters beyond ASCII as all versions take them: %%c, %%d and %%p, and code points of four digits. */
export const dxfText = (text: string): string =>
  text
    .replaceAll("Ø", "%%c")
    .replaceAll("°", "%%d")
    .replaceAll("±", "%%p")
    .replace(/[^\x20-\x7e]/gu, (letter) => `\\U+${letter.codePointAt(0)!.toString(16).toUpperCase().padStart(4, "0")}`);

/** What is drawn, as plain entities of a file: strokes and outlines of terminators. */
export const drawnShapes = (drawn: readonly Drawn[]): readonly ReadShape[] =>
  drawn.flatMap((one): readonly ReadShape[] => {
    if (one.kind === "text" || (one.kind === "terminator" && one.filled && one.points.length === 3)) return [];
    const layer = DIMENSION_LAYER;
    if (one.kind === "stroke")
      return one.pieces.map((piece) => ({
        kind: "piece",
        ...piece,
        layer,
        ...(one.centre ? { line: CENTRE_LINE } : {}),
      }));
    const pieces = one.points.slice(1).map((p, i) => line(one.points[i]!, p));
    if (!one.closed) return pieces.map((piece) => ({ kind: "piece", ...piece, layer }));
    return [{ kind: "chain", closed: true, pieces: [...pieces, line(one.points.at(-1)!, one.points[0]!)], layer }];
  });

type Text = Extract<Drawn, { kind: "text" }>;
/** Where a text begins on its line of writing, and the middle of that line. */
const writtenOn = ({ middle, angle, height }: Text): Point => along(middle, leftOf(unitAt(angle)), -height / 2);

/** Puts what a dimension is drawn with: into its block, or, for the oldest readers, as plain entities. */
export const putDrawn = (
  out: GroupText,
  drawn: readonly Drawn[],
  { handle, owner }: { readonly handle?: () => string; readonly owner?: string },
): void => {
  const head = (type: string, mark: string): GroupText => {
    if (!handle) return out.put(0, type, 8, DIMENSION_LAYER);
    out.put(0, type, 5, handle(), 330, owner!, 100, "AcDbEntity", 8, DIMENSION_LAYER);
    return out.put(100, mark);
  };
  for (const shape of drawnShapes(drawn)) {
    if (handle) putEntity(out, shape, handle(), owner === undefined ? {} : { owner });
    else putOldEntity(out, shape);
  }
  for (const one of drawn) {
    if (one.kind === "text") {
      const at = writtenOn(one);
      head("TEXT", "AcDbText").place(10, at).real(40, one.height).put(1, dxfText(one.text));
      out.real(50, toDegrees(one.angle)).put(7, TEXT_STYLE, 72, 1).place(11, at);
      if (handle) out.put(100, "AcDbText");
      out.put(73, 0);
    } else if (one.kind === "terminator" && one.filled && one.points.length === 3) {
      const [a, b, c] = one.points as [Point, Point, Point];
      head("SOLID", "AcDbTrace").place(10, a).place(11, b).place(12, c).place(13, c);
    }
  }
};

/** Stands for what is measured. */
const MEASURED = "<>";

/** Kinds of dimension as the format's reference numbers them; 32: the block is this dimension's alone. */
const TYPES = {
  rotated: 0,
  aligned: 1,
  lines: 2,
  diameter: 3,
  radius: 4,
  angle: 5,
  ordinate: 6,
  alone: 32,
  isX: 64,
} as const;

/** Puts a dimension with its definition, drawn by its block. */
export const putDimension = (
  out: GroupText,
  { definition, display, measured, words }: FileAnnotation & { readonly definition: Definition },
  block: string,
  handle: string,
): void => {
  const texts = display.drawn.filter((one) => one.kind === "text");
  out.put(0, "DIMENSION", 5, handle, 330, MODEL_SPACE, 100, "AcDbEntity", 8, DIMENSION_LAYER);
  out.put(100, "AcDbDimension", 2, block);
  const common = (at: Point, type: number): void => {
    out.place(10, at).place(11, texts[0]?.middle ?? at);
    out.put(70, type + TYPES.alone, 1, words === undefined ? MEASURED : dxfText(words), 71, 5, 3, TEXT_STYLE);
    if (measured !== undefined) out.real(42, measured);
  };
  switch (definition.kind) {
    case "linear": {
      const { from, to, line: at, angle } = definition;
      common(at, angle === undefined ? TYPES.aligned : TYPES.rotated);
      out.put(100, "AcDbAlignedDimension").place(13, from).place(14, to);
      if (angle !== undefined) out.real(50, toDegrees(angle)).put(100, "AcDbRotatedDimension");
      return;
    }
    case "radius":
      common(definition.centre, TYPES.radius);
      return void out.put(100, "AcDbRadialDimension").place(15, definition.edge).put(40, "0.0");
    case "diameter":
      common(definition.opposite, TYPES.diameter);
      return void out.put(100, "AcDbDiametricDimension").place(15, definition.edge).put(40, "0.0");
    case "angle": {
      const { vertex, from, to, arc } = definition;
      common(arc, TYPES.angle);
      return void out.put(100, "AcDb3PointAngularDimension").place(13, from).place(14, to).place(15, vertex);
    }
    case "angle of lines": {
      const [[a, b], [c, d]] = definition.lines;
      common(d, TYPES.lines);
      out.put(100, "AcDb2LineAngularDimension").place(13, a).place(14, b);
      return void out.place(15, c).place(16, definition.arc);
    }
    case "ordinate": {
      const { origin, place, end, isX } = definition;
      common(origin, TYPES.ordinate + (isX ? TYPES.isX : 0));
      return void out.put(100, "AcDbOrdinateDimension").place(13, place).place(14, end);
    }
  }
};

/** The table of lettering: one style, in the reader's own plain letters. */
export const textStyle = (handle: string): string =>
  groups(0, "STYLE", 5, handle, 330, "3", 100, "AcDbSymbolTableRecord", 100, "AcDbTextStyleTableRecord") +
  groups(2, TEXT_STYLE, 70, 0, 40, "0.0", 41, "1.0", 50, "0.0", 71, 0, 42, "2.5", 3, "txt", 4, "");

/** The table of dimension styles: one that says nothing, since each dimension brings its block. */
export const dimensionStyle = (handle: string): string =>
  groups(0, "DIMSTYLE", 105, handle, 330, "A", 100, "AcDbSymbolTableRecord", 100, "AcDbDimStyleTableRecord") +
  groups(2, TEXT_STYLE, 70, 0);
