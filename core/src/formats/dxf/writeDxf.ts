import { boundsOf, unionBounds } from "../../geometry/bounds.ts";
import { circleBounds } from "../../geometry/circle.ts";
import { pieceBounds } from "../../geometry/piece.ts";
import type { Unit } from "../../numeric/units.ts";
import type { ReleasedContour } from "../../prove/releasePlan.ts";

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

/**
 * An ASCII DXF (AC1015) of closed contours: LWPOLYLINE with bulges and CIRCLE, on their layers, with `$INSUNITS` and the extents.
 * Coordinates in the job's unit, each the shortest text that reads back to the same double. Structure and codes as in the
 * format's public reference; bulge = tan(sweep / 4).
 */
export const writeDxf = (contours: readonly ReleasedContour[], unit: Unit): string => {
  let handle = 0x30;
  const next = (): string => (handle++).toString(16).toUpperCase();
  const layers = ["0", ...new Set(contours.map(({ layer }) => layer))];
  const entities = contours.flatMap((contour) => entityGroups(contour, next()));
  const layerRows = layers.flatMap((name): Group[] => [
    [0, "LAYER"],
    [5, next()],
    [330, "2"],
    [100, "AcDbSymbolTableRecord"],
    [100, "AcDbLayerTableRecord"],
    [2, name],
    [70, 0],
    [62, LAYER_COLOUR[name] ?? 7],
    [6, "CONTINUOUS"],
  ]);
  const groups: Group[] = [
    ...section("HEADER", headerGroups(contours, unit)),
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
  const seed = handle.toString(16).toUpperCase();
  return groups
    .map(([code, value]) => `${String(code).padStart(3)}\n${value === HANDLE_SEED ? seed : value}\n`)
    .join("");
};

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

const headerGroups = (contours: readonly ReleasedContour[], unit: Unit): Group[] => {
  const boxes = contours.map((contour) =>
    contour.kind === "circle" ? circleBounds(contour) : unionBounds(contour.pieces.map(pieceBounds))!,
  );
  const box = unionBounds(boxes) ?? boundsOf([{ x: 0, y: 0 }]);
  return [
    [9, "$ACADVER"],
    [1, "AC1015"],
    [9, "$HANDSEED"],
    [5, HANDLE_SEED],
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

const entityGroups = (contour: ReleasedContour, handle: string): Group[] => {
  const head = (type: string): Group[] => [
    [0, type],
    [5, handle],
    [330, "1F"],
    [100, "AcDbEntity"],
    [8, contour.layer],
  ];
  if (contour.kind === "circle")
    return [
      ...head("CIRCLE"),
      [100, "AcDbCircle"],
      [10, dxfNumber(contour.centre.x)],
      [20, dxfNumber(contour.centre.y)],
      [30, "0.0"],
      [40, dxfNumber(contour.radius)],
    ];
  return [
    ...head("LWPOLYLINE"),
    [100, "AcDbPolyline"],
    [90, contour.pieces.length],
    [70, 1],
    [43, "0.0"],
    ...contour.pieces.flatMap(({ a, bulge }): Group[] => [
      [10, dxfNumber(a.x)],
      [20, dxfNumber(a.y)],
      ...(bulge === 0 ? [] : [[42, dxfNumber(bulge)] as const]),
    ]),
  ];
};
