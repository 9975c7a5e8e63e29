import type { FileLayer, ReleasedContour } from "../../checks/releasePlan.ts";
import { boundsOf, unionBounds, type Bounds } from "../../geometry/bounds.ts";
import { circleBounds } from "../../geometry/circle.ts";
import { ellipseBounds } from "../../geometry/ellipse.ts";
import { pieceBounds, piecesBounds } from "../../geometry/piece.ts";
import type { Unit } from "../../numeric/units.ts";
import { releasedShapes, type ReadShape } from "../readShapes.ts";
import { groups, GroupText, section } from "./groups.ts";
import type { FileAnnotation } from "../annotated.ts";
import { DIMENSION_LAYER, dimensionStyle, drawnShapes, putDimension, putDrawn, textStyle } from "./writeDimensions.ts";
import { MODEL_SPACE, putEntity, putOldEntity } from "./writeEntities.ts";

/** `$INSUNITS` as the DXF reference has it: 1 inches, 4 millimetres. */
export const INSUNITS = { in: 1, mm: 4 } as const;

/** Colour numbers of the DXF reference's standard palette: 7 is the pen's own black or white. */
const LAYER_COLOUR: Record<string, number> = { OUTSIDE: 7, INSIDE: 6, MARK: 2 };

/** An ASCII DXF of closed contours, as `writeShapes` writes them. */
export const writeDxf = (
  contours: readonly ReleasedContour[],
  unit: Unit,
  version: DxfVersion = "R2000",
  layers: readonly FileLayer[] = [],
): string => writeShapes(releasedShapes(contours), unit, { version, layers });

/** The versions that are written, and how they name themselves; of the newer ones the text is UTF-8. */
const VERSIONS = { R12: "AC1009", R2000: "AC1015", R2010: "AC1024" } as const;
export type DxfVersion = keyof typeof VERSIONS;

type Written = {
  readonly version: DxfVersion;
  readonly layers: readonly FileLayer[];
  readonly annotations: readonly FileAnnotation[];
  readonly decimals: "exact" | number;
};

/**
 * An ASCII DXF on layers, with `$INSUNITS` and the extents: LWPOLYLINE with bulges, CIRCLE, LINE, ARC, ELLIPSE, SPLINE
 * and POINT (AC1015 or AC1024), or, for the oldest readers, POLYLINE with its vertices, CIRCLE, LINE, ARC and POINT
 * (AC1009; ellipses and splines have no place there and must be made arcs before). Coordinates in the drawing's unit,
 * each the shortest text that reads back to the same double. Structure and codes as in the format's public reference;
 * bulge = tan(sweep / 4).
 */
export const writeShapes = (
  shapes: readonly ReadShape[],
  unit: Unit,
  { version = "R2000", layers = [], annotations = [], decimals = "exact" }: Partial<Written> = {},
): string => {
  const written = { version, layers, annotations, decimals };
  return version === "R12" ? oldFile(shapes, unit, written) : newFile(shapes, unit, written);
};

const newFile = (
  shapes: readonly ReadShape[],
  unit: Unit,
  { version, layers: given, annotations, decimals }: Written,
): string => {
  let handle = 0x30;
  const next = (): string => (handle++).toString(16).toUpperCase();
  const entities = new GroupText();
  for (const shape of shapes) putEntity(entities, shape, next(), { decimals });
  const known = annotations.length > 0 ? [...given, { name: DIMENSION_LAYER }] : given;
  const blocks = annotations.flatMap((one) => dimensionBlock(entities, one, next));
  const layers = layerNames(shapes, known).map(
    (name) =>
      groups(0, "LAYER", 5, next(), 330, "2", 100, "AcDbSymbolTableRecord", 100, "AcDbLayerTableRecord") +
      groups(2, name, 70, 0, 62, colourOfLayer(name, known), 6, "CONTINUOUS"),
  );
  const styles = lineTypes([...shapes, ...annotations.flatMap(({ display }) => drawnShapes(display.drawn))], next);
  const application = groups(0, "APPID", 5, "12", 330, "9", 100, "AcDbSymbolTableRecord", 100, "AcDbRegAppTableRecord");
  return [
    section("HEADER", headerText(shapes, unit, VERSIONS[version], handle.toString(16).toUpperCase())),
    section(
      "TABLES",
      [
        table("VPORT", "8", []),
        table("LTYPE", "5", styles),
        table("LAYER", "2", layers),
        table("STYLE", "3", annotations.length > 0 ? [textStyle(next())] : []),
        table("VIEW", "6", []),
        table("UCS", "7", []),
        table("APPID", "9", [application + groups(2, "ACAD", 70, 0)]),
        table(
          "DIMSTYLE",
          "A",
          annotations.length > 0 ? [dimensionStyle(next())] : [],
          groups(100, "AcDbDimStyleTable"),
        ),
        table("BLOCK_RECORD", "1", [
          blockRecord("*Model_Space", "1F"),
          blockRecord("*Paper_Space", "1B"),
          ...blocks.map(({ record }) => record),
        ]),
      ].join(""),
    ),
    section(
      "BLOCKS",
      block("*Model_Space", "1F", "20", "21") +
        block("*Paper_Space", "1B", "1C", "1D") +
        blocks.map(({ text }) => text).join(""),
    ),
    section("ENTITIES", entities.text()),
    section(
      "OBJECTS",
      groups(0, "DICTIONARY", 5, "C", 330, "0", 100, "AcDbDictionary", 281, 1, 3, "ACAD_GROUP", 350, "D") +
        groups(0, "DICTIONARY", 5, "D", 330, "C", 100, "AcDbDictionary", 281, 1),
    ),
    groups(0, "EOF"),
  ].join("");
};

/**
 * Puts a dimension that the format knows, with the block that draws it; anything else as plain entities, without one.
 */
const dimensionBlock = (
  entities: GroupText,
  one: FileAnnotation,
  next: () => string,
): readonly { readonly record: string; readonly text: string }[] => {
  const { definition, display } = one;
  if (!definition) {
    putDrawn(entities, display.drawn, { handle: next, owner: MODEL_SPACE });
    return [];
  }
  const name = `*D${display.id}`;
  const [record, begin, end] = [next(), next(), next()];
  const content = new GroupText();
  putDrawn(content, display.drawn, { handle: next, owner: record });
  putDimension(entities, { ...one, definition }, name, next());
  return [{ record: blockRecord(name, record), text: block(name, record, begin, end, content.text(), 1) }];
};

/** The file of the oldest version: no handles, no class marks; dimensions as plain lines and letters. */
const oldFile = (
  shapes: readonly ReadShape[],
  unit: Unit,
  { layers: given, annotations, decimals }: Written,
): string => {
  const known = annotations.length > 0 ? [...given, { name: DIMENSION_LAYER }] : given;
  const entities = new GroupText();
  for (const shape of shapes) putOldEntity(entities, shape, decimals);
  for (const { display } of annotations) putDrawn(entities, display.drawn, {});
  const layers = layerNames(shapes, known);
  return [
    section("HEADER", headerText(shapes, unit, VERSIONS.R12)),
    section(
      "TABLES",
      [
        groups(0, "TABLE", 2, "LTYPE", 70, 1),
        groups(0, "LTYPE", 2, "CONTINUOUS", 70, 0, 3, "Solid line", 72, 65, 73, 0, 40, "0.0"),
        groups(0, "ENDTAB", 0, "TABLE", 2, "LAYER", 70, layers.length),
        ...layers.map((name) => groups(0, "LAYER", 2, name, 70, 0, 62, colourOfLayer(name, known), 6, "CONTINUOUS")),
        groups(0, "ENDTAB"),
      ].join(""),
    ),
    section("ENTITIES", entities.text()),
    groups(0, "EOF"),
  ].join("");
};

const layerNames = (shapes: readonly ReadShape[], known: readonly FileLayer[]): readonly string[] => [
  ...new Set(["0", ...known.map(({ name }) => name), ...shapes.map(({ layer }) => layer)]),
];
const colourOfLayer = (name: string, known: readonly FileLayer[]): number =>
  Number(known.find((layer) => layer.name === name)?.colour ?? LAYER_COLOUR[name] ?? 7);

const table = (name: string, handle: string, rows: readonly string[], more = ""): string =>
  [
    groups(0, "TABLE", 2, name, 5, handle, 330, "0", 100, "AcDbSymbolTable", 70, rows.length),
    more,
    ...rows,
    groups(0, "ENDTAB"),
  ].join("");

const SOLID = [
  ["ByBlock", "14"],
  ["ByLayer", "15"],
  ["CONTINUOUS", "16"],
] as const;

/** The line styles that any file has, and those that shapes name, as dashes: what a style looked like is not read. */
const lineTypes = (shapes: readonly ReadShape[], next: () => string): readonly string[] => {
  const solid = new Set(SOLID.map(([name]) => name.toUpperCase()));
  const named = [...new Set(shapes.flatMap(({ line }) => line ?? []))].filter((name) => !solid.has(name.toUpperCase()));
  const record = (name: string, handle: string, pattern: string): string =>
    groups(0, "LTYPE", 5, handle, 330, "5", 100, "AcDbSymbolTableRecord", 100, "AcDbLinetypeTableRecord") +
    groups(2, name, 70, 0, 3, "", 72, 65) +
    pattern;
  return [
    ...SOLID.map(([name, handle]) => record(name, handle, groups(73, 0, 40, "0.0"))),
    ...named.map((name) => record(name, next(), groups(73, 2, 40, "9.0", 49, "6.0", 74, 0, 49, "-3.0", 74, 0))),
  ];
};

const blockRecord = (name: string, handle: string): string =>
  groups(0, "BLOCK_RECORD", 5, handle, 330, "1", 100, "AcDbSymbolTableRecord", 100, "AcDbBlockTableRecord", 2, name);

/** A block with its content; `flags` 1: nobody has named it. */
const block = (name: string, owner: string, begin: string, end: string, content = "", flags = 0): string =>
  groups(0, "BLOCK", 5, begin, 330, owner, 100, "AcDbEntity", 8, "0", 100, "AcDbBlockBegin", 2, name, 70, flags) +
  groups(10, "0.0", 20, "0.0", 30, "0.0", 3, name, 1, "") +
  content +
  groups(0, "ENDBLK", 5, end, 330, owner, 100, "AcDbEntity", 8, "0", 100, "AcDbBlockEnd");

const boxOf = (shape: ReadShape): Bounds => {
  switch (shape.kind) {
    case "circle":
      return circleBounds(shape);
    case "piece":
      return pieceBounds(shape);
    case "chain":
      return piecesBounds(shape.pieces)!;
    case "ellipse":
      return ellipseBounds(shape);
    case "free":
      return boundsOf(shape.points);
    case "point":
      return boundsOf([shape.at]);
  }
};

const headerText = (shapes: readonly ReadShape[], unit: Unit, version: string, seed?: string): string => {
  const { minX, minY, maxX, maxY } = unionBounds(shapes.map(boxOf)) ?? boundsOf([{ x: 0, y: 0 }]);
  const out = new GroupText().put(9, "$ACADVER", 1, version);
  if (seed !== undefined) out.put(9, "$HANDSEED", 5, seed);
  out.put(9, "$INSUNITS", 70, INSUNITS[unit], 9, "$MEASUREMENT", 70, unit === "mm" ? 1 : 0);
  out.put(9, "$EXTMIN").place(10, { x: minX, y: minY });
  return out.put(9, "$EXTMAX").place(10, { x: maxX, y: maxY }).text();
};
