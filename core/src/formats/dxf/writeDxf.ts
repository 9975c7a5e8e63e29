import { boundsOf, unionBounds, type Bounds } from "../../geometry/bounds.ts";
import { circleBounds } from "../../geometry/circle.ts";
import { ellipseBounds } from "../../geometry/ellipse.ts";
import { arcOf, pieceBounds, type Piece } from "../../geometry/piece.ts";
import { normalAngle, toDegrees } from "../../numeric/angle.ts";
import type { Unit } from "../../numeric/units.ts";
import type { ReleasedContour } from "../../prove/releasePlan.ts";
import type { ReadLayer, ReadShape } from "../readShapes.ts";

/** `$INSUNITS` as the DXF reference has it: 1 inches, 4 millimetres. */
export const INSUNITS = { in: 1, mm: 4 } as const;

/** Colour numbers of the DXF reference's standard palette: 7 is the pen's own black or white. */
const LAYER_COLOUR: Record<string, number> = { OUTSIDE: 7, INSIDE: 6, MARK: 2 };

type Group = readonly [code: number, value: string | number];

/** Numbers as the shortest text that reads back to the same double; never in a form that old readers don't take. */
export const dxfNumber = (value: number): string => {
  const text = String(value === 0 ? 0 : value);
  return text.includes("e") || Number.isInteger(value) ? plainNumber(value) : text;
};

/** Without an exponent where that is exact, with a decimal point always. */
const plainNumber = (value: number): string => {
  const text = String(value === 0 ? 0 : value);
  if (!text.includes("e")) return `${text}.0`;
  const [mantissa, exponent] = text.split("e") as [string, string];
  const sign = mantissa.startsWith("-") ? "-" : "";
  const [whole, part = ""] = mantissa.replace("-", "").split(".") as [string, string?];
  const power = Number(exponent);
  const digits = whole + part;
  const point = whole.length + power;
  if (point <= 0) return `${sign}0.${"0".repeat(-point)}${digits}`;
  return `${sign}${digits.padEnd(point, "0")}.0`;
};

/** An ASCII DXF of closed contours, as `writeShapes` writes them. */
export const writeDxf = (contours: readonly ReleasedContour[], unit: Unit, version: DxfVersion = "R2000"): string =>
  writeShapes(
    contours.map((contour) => (contour.kind === "circle" ? contour : { ...contour, kind: "chain", closed: true })),
    unit,
    { version },
  );

export type DxfVersion = "R2000" | "R12";

/**
 * An ASCII DXF on layers, with `$INSUNITS` and the extents: LWPOLYLINE with bulges, CIRCLE, LINE, ARC, ELLIPSE, SPLINE and POINT
 * (AC1015), or, for the oldest readers, POLYLINE with its vertices, CIRCLE, LINE, ARC and POINT (AC1009; ellipses and splines have no
 * place there and must be made arcs before). Coordinates in the drawing's unit, each the shortest text that reads back to the same
 * double. Structure and codes as in the format's public reference; bulge = tan(sweep / 4).
 */
export const writeShapes = (
  shapes: readonly ReadShape[],
  unit: Unit,
  { version = "R2000", layers: known = [] }: { version?: DxfVersion; layers?: readonly ReadLayer[] } = {},
): string => {
  if (version === "R12") return textOfGroups(oldGroups(shapes, unit, known));
  let handle = 0x30;
  const next = (): string => (handle++).toString(16).toUpperCase();
  const layers = layerNames(shapes, known);
  const entities = shapes.flatMap((shape) => entityGroups(shape, next()));
  const layerRows = layers.flatMap((name): Group[] => [
    [0, "LAYER"],
    [5, next()],
    [330, "2"],
    [100, "AcDbSymbolTableRecord"],
    [100, "AcDbLayerTableRecord"],
    [2, name],
    [70, 0],
    [62, colourOfLayer(name, known)],
    [6, "CONTINUOUS"],
  ]);
  const groups: Group[] = [
    ...section("HEADER", headerGroups(shapes, unit)),
    ...section("TABLES", [
      ...table("VPORT", "8", []),
      ...table("LTYPE", "5", lineTypes()),
      ...table("LAYER", "2", layerRows),
      ...table("STYLE", "3", []),
      ...table("VIEW", "6", []),
      ...table("UCS", "7", []),
      ...table("APPID", "9", [
        [0, "APPID"],
        [5, "12"],
        [330, "9"],
        [100, "AcDbSymbolTableRecord"],
        [100, "AcDbRegAppTableRecord"],
        [2, "ACAD"],
        [70, 0],
      ]),
      ...table("DIMSTYLE", "A", [], [[100, "AcDbDimStyleTable"]]),
      ...table("BLOCK_RECORD", "1", [...blockRecord("*Model_Space", "1F"), ...blockRecord("*Paper_Space", "1B")]),
    ]),
    ...section("BLOCKS", [...block("*Model_Space", "1F", "20", "21"), ...block("*Paper_Space", "1B", "1C", "1D")]),
    ...section("ENTITIES", entities),
    ...section("OBJECTS", [
      [0, "DICTIONARY"],
      [5, "C"],
      [330, "0"],
      [100, "AcDbDictionary"],
      [281, 1],
      [3, "ACAD_GROUP"],
      [350, "D"],
      [0, "DICTIONARY"],
      [5, "D"],
      [330, "C"],
      [100, "AcDbDictionary"],
      [281, 1],
    ]),
    [0, "EOF"],
  ];
  return textOfGroups(groups, handle.toString(16).toUpperCase());
};

/** Group codes as they are written, right in three places; made once. */
const codeTexts = Array.from({ length: 1072 }, (_, code) => `${String(code).padStart(3)}\n`);

const textOfGroups = (groups: readonly Group[], seed = ""): string => {
  const parts: string[] = [];
  for (const [code, value] of groups) {
    parts.push(codeTexts[code]!, value === HANDLE_SEED ? seed : String(value), "\n");
  }
  return parts.join("");
};

const layerNames = (shapes: readonly ReadShape[], known: readonly ReadLayer[]): readonly string[] => [
  ...new Set(["0", ...known.map(({ name }) => name), ...shapes.map(({ layer }) => layer)]),
];
const colourOfLayer = (name: string, known: readonly ReadLayer[]): number =>
  Number(known.find((layer) => layer.name === name)?.colour ?? LAYER_COLOUR[name] ?? 7);

const HANDLE_SEED = "{seed}";

const section = (name: string, groups: readonly Group[]): Group[] => [
  [0, "SECTION"],
  [2, name],
  ...groups,
  [0, "ENDSEC"],
];

const table = (name: string, handle: string, rows: readonly Group[], more: readonly Group[] = []): Group[] => [
  [0, "TABLE"],
  [2, name],
  [5, handle],
  [330, "0"],
  [100, "AcDbSymbolTable"],
  [70, rows.filter(([code]) => code === 0).length],
  ...more,
  ...rows,
  [0, "ENDTAB"],
];

const lineTypes = (): Group[] =>
  [
    ["ByBlock", "14"],
    ["ByLayer", "15"],
    ["CONTINUOUS", "16"],
  ].flatMap(([name, handle]): Group[] => [
    [0, "LTYPE"],
    [5, handle!],
    [330, "5"],
    [100, "AcDbSymbolTableRecord"],
    [100, "AcDbLinetypeTableRecord"],
    [2, name!],
    [70, 0],
    [3, ""],
    [72, 65],
    [73, 0],
    [40, "0.0"],
  ]);

const blockRecord = (name: string, handle: string): Group[] => [
  [0, "BLOCK_RECORD"],
  [5, handle],
  [330, "1"],
  [100, "AcDbSymbolTableRecord"],
  [100, "AcDbBlockTableRecord"],
  [2, name],
];

const block = (name: string, owner: string, begin: string, end: string): Group[] => [
  [0, "BLOCK"],
  [5, begin],
  [330, owner],
  [100, "AcDbEntity"],
  [8, "0"],
  [100, "AcDbBlockBegin"],
  [2, name],
  [70, 0],
  [10, "0.0"],
  [20, "0.0"],
  [30, "0.0"],
  [3, name],
  [1, ""],
  [0, "ENDBLK"],
  [5, end],
  [330, owner],
  [100, "AcDbEntity"],
  [8, "0"],
  [100, "AcDbBlockEnd"],
];

const boxOf = (shape: ReadShape): Bounds => {
  switch (shape.kind) {
    case "circle":
      return circleBounds(shape);
    case "piece":
      return pieceBounds(shape);
    case "chain":
      return unionBounds(shape.pieces.map(pieceBounds))!;
    case "ellipse":
      return ellipseBounds(shape);
    case "free":
      return boundsOf(shape.points);
    case "point":
      return boundsOf([shape.at]);
  }
};

const headerGroups = (shapes: readonly ReadShape[], unit: Unit, version = "AC1015"): Group[] => {
  const box = unionBounds(shapes.map(boxOf)) ?? boundsOf([{ x: 0, y: 0 }]);
  return [
    [9, "$ACADVER"],
    [1, version],
    ...(version === "AC1015"
      ? ([
          [9, "$HANDSEED"],
          [5, HANDLE_SEED],
        ] as const)
      : []),
    [9, "$INSUNITS"],
    [70, INSUNITS[unit]],
    [9, "$MEASUREMENT"],
    [70, unit === "mm" ? 1 : 0],
    [9, "$EXTMIN"],
    [10, dxfNumber(box.minX)],
    [20, dxfNumber(box.minY)],
    [30, "0.0"],
    [9, "$EXTMAX"],
    [10, dxfNumber(box.maxX)],
    [20, dxfNumber(box.maxY)],
    [30, "0.0"],
  ];
};

const at = (code: number, { x, y }: { x: number; y: number }): Group[] => [
  [code, dxfNumber(x)],
  [code + 10, dxfNumber(y)],
  [code + 20, "0.0"],
];

/** Colour and line style of its own, where a shape has them. */
const looksOf = ({ colour, line }: ReadShape): Group[] => [
  ...(line === undefined ? [] : [[6, line] as const]),
  ...(colour === undefined
    ? []
    : colour.startsWith("#")
      ? [[420, parseInt(colour.slice(1), 16)] as const]
      : [[62, Number(colour)] as const]),
];

const arcGroups = (piece: Piece): Group[] => {
  const { centre, radius, from, sweep } = arcOf(piece)!;
  const [start, end] = sweep > 0 ? [from, from + sweep] : [from + sweep, from];
  return [...at(10, centre), [40, dxfNumber(radius)], ...angles(start, end)];
};
const angles = (start: number, end: number): Group[] => [
  [50, dxfNumber(toDegrees(normalAngle(start)))],
  [51, dxfNumber(toDegrees(normalAngle(end)))],
];

const entityGroups = (shape: ReadShape, handle: string): Group[] => {
  const head = (type: string, ...marks: readonly string[]): Group[] => [
    [0, type],
    [5, handle],
    [330, "1F"],
    [100, "AcDbEntity"],
    [8, shape.layer],
    ...looksOf(shape),
    ...marks.map((mark) => [100, mark] as const),
  ];
  switch (shape.kind) {
    case "point":
      return [...head("POINT", "AcDbPoint"), ...at(10, shape.at)];
    case "circle":
      return [...head("CIRCLE", "AcDbCircle"), ...at(10, shape.centre), [40, dxfNumber(shape.radius)]];
    case "piece": {
      if (shape.bulge === 0) return [...head("LINE", "AcDbLine"), ...at(10, shape.a), ...at(11, shape.b)];
      const [centre, radius] = [arcGroups(shape).slice(0, 4), arcGroups(shape).slice(4)];
      return [...head("ARC", "AcDbCircle"), ...centre, [100, "AcDbArc"], ...radius];
    }
    case "ellipse": {
      const { centre, major, ratio, from, sweep } = shape;
      const [start, end] = sweep > 0 ? [from, from + sweep] : [from + sweep, from];
      return [
        ...head("ELLIPSE", "AcDbEllipse"),
        ...at(10, centre),
        ...at(11, major),
        [210, "0.0"],
        [220, "0.0"],
        [230, "1.0"],
        [40, dxfNumber(ratio)],
        [41, dxfNumber(start)],
        [42, dxfNumber(end)],
      ];
    }
    case "free": {
      const { degree, knots, points, weights } = shape;
      return [
        ...head("SPLINE", "AcDbSpline"),
        [70, weights ? 12 : 8], // planar, and rational where it has weights
        [71, degree],
        [72, knots.length],
        [73, points.length],
        [74, 0],
        ...knots.map((knot) => [40, dxfNumber(knot)] as const),
        ...(weights ?? []).map((weight) => [41, dxfNumber(weight)] as const),
        ...points.flatMap((p) => at(10, p)),
      ];
    }
    case "chain": {
      const ends = shape.closed ? shape.pieces.map(({ a, bulge }) => ({ at: a, bulge })) : openVertices(shape.pieces);
      return [
        ...head("LWPOLYLINE", "AcDbPolyline"),
        [90, ends.length],
        [70, shape.closed ? 1 : 0],
        [43, "0.0"],
        ...ends.flatMap(({ at: { x, y }, bulge }): Group[] => [
          [10, dxfNumber(x)],
          [20, dxfNumber(y)],
          ...(bulge === 0 ? [] : [[42, dxfNumber(bulge)] as const]),
        ]),
      ];
    }
  }
};

const openVertices = (pieces: readonly Piece[]): readonly { at: Piece["a"]; bulge: number }[] => [
  ...pieces.map(({ a, bulge }) => ({ at: a, bulge })),
  { at: pieces.at(-1)!.b, bulge: 0 },
];

/** The file of the oldest version: no handles, no class marks. */
const oldGroups = (shapes: readonly ReadShape[], unit: Unit, known: readonly ReadLayer[]): Group[] => {
  const layers = layerNames(shapes, known);
  return [
    ...section("HEADER", headerGroups(shapes, unit, "AC1009")),
    ...section("TABLES", [
      [0, "TABLE"],
      [2, "LTYPE"],
      [70, 1],
      [0, "LTYPE"],
      [2, "CONTINUOUS"],
      [70, 0],
      [3, "Solid line"],
      [72, 65],
      [73, 0],
      [40, "0.0"],
      [0, "ENDTAB"],
      [0, "TABLE"],
      [2, "LAYER"],
      [70, layers.length],
      ...layers.flatMap((name): Group[] => [
        [0, "LAYER"],
        [2, name],
        [70, 0],
        [62, colourOfLayer(name, known)],
        [6, "CONTINUOUS"],
      ]),
      [0, "ENDTAB"],
    ]),
    ...section("ENTITIES", shapes.flatMap(oldEntity)),
    [0, "EOF"],
  ];
};

const oldEntity = (shape: ReadShape): Group[] => {
  const head = (type: string): Group[] => [
    [0, type],
    [8, shape.layer],
    ...looksOf(shape).filter(([code]) => code === 62),
  ];
  switch (shape.kind) {
    case "point":
      return [...head("POINT"), ...at(10, shape.at)];
    case "circle":
      return [...head("CIRCLE"), ...at(10, shape.centre), [40, dxfNumber(shape.radius)]];
    case "piece":
      return shape.bulge === 0
        ? [...head("LINE"), ...at(10, shape.a), ...at(11, shape.b)]
        : [...head("ARC"), ...arcGroups(shape)];
    case "chain": {
      const ends = shape.closed ? shape.pieces.map(({ a, bulge }) => ({ at: a, bulge })) : openVertices(shape.pieces);
      return [
        ...head("POLYLINE"),
        [66, 1],
        ...at(10, { x: 0, y: 0 }),
        [70, shape.closed ? 1 : 0],
        ...ends.flatMap(({ at: place, bulge }): Group[] => [
          [0, "VERTEX"],
          [8, shape.layer],
          ...at(10, place),
          ...(bulge === 0 ? [] : [[42, dxfNumber(bulge)] as const]),
        ]),
        [0, "SEQEND"],
        [8, shape.layer],
      ];
    }
    default:
      return [];
  }
};
