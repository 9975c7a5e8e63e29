import Papa from "papaparse";
import type { Unit } from "../../numeric/units.ts";
import { SAFE_CSV } from "./safeCsv.ts";

/** A contour, or an open chain, as a row of a table; lengths in the drawing's unit. */
export type ContourRow = {
  readonly closed: boolean;
  readonly role: "outside" | "inside" | "mark" | "open";
  readonly depth: number;
  /** Without sign; null where nothing is enclosed. */
  readonly area: number | null;
  readonly length: number;
  readonly lines: number;
  readonly arcs: number;
  readonly circle: boolean;
  readonly layer: string;
  /** Least x and y, greatest x and y. */
  readonly bounds: readonly [number, number, number, number];
};

/**
 * The table as CSV (RFC 4180: commas, quotes where needed, CRLF), one row for each contour, its columns named with
 * their unit. Numbers are the shortest text that reads back to the same double, with a point. A name that a spreadsheet
 * would take for a formula is quoted by an apostrophe.
 */
export const contourCsv = (rows: readonly ContourRow[], unit: Unit): string =>
  `${Papa.unparse(
    {
      fields: [
        "contour",
        "layer",
        "role",
        "depth",
        "closed",
        "kind",
        "lines",
        "arcs",
        `area ${unit}2`,
        `length ${unit}`,
        `min x ${unit}`,
        `min y ${unit}`,
        `max x ${unit}`,
        `max y ${unit}`,
      ],
      data: rows.map((row, i) => [
        i + 1,
        row.layer,
        row.role,
        row.depth,
        row.closed ? "yes" : "no",
        row.circle ? "circle" : row.lines + row.arcs === 1 ? "piece" : "chain",
        row.lines,
        row.arcs,
        row.area,
        row.length,
        ...row.bounds,
      ]),
    },
    SAFE_CSV,
  )}\r\n`;
