import { showLength } from "../numeric/showValue.ts";
import type { Unit } from "../numeric/units.ts";

/** How something is cut: by a cutter that turns, or by a jet or a beam with its kerf. */
export const TOOL_KINDS = ["cutter", "waterjet", "plasma", "laser"] as const;
export type ToolKind = (typeof TOOL_KINDS)[number];

/** A cutter by its diameter, a jet or a beam by its kerf. */
export type CuttingTool = { readonly name: string; readonly kind: ToolKind; readonly diameter: number };

/** A sheet or a slab. */
export type Sheet = { readonly name: string; readonly width: number; readonly height: number };

/** What a bit is called that has no other name. */
export const bitNamed = (diameter: number, unit: Unit): string => `a bit of ${showLength(diameter, unit)} ${unit}`;

/** What a sheet is called that has no other name. */
export const sheetNamed = (width: number, height: number, unit: Unit): string =>
  `a sheet of ${showLength(width, unit)} × ${showLength(height, unit)}`;

const bit = (diameter: number, words: string): CuttingTool => ({ name: `a bit of ${words}`, kind: "cutter", diameter });
const kerf = (kind: Exclude<ToolKind, "cutter">, name: string, diameter: number): CuttingTool => ({
  name,
  kind,
  diameter,
});

/** What a shop cuts with and from; of each unit no two of a kind have one name. Lengths in that unit. */
export type ToolTable = {
  readonly tools: Readonly<Record<Unit, readonly CuttingTool[]>>;
  readonly sheets: Readonly<Record<Unit, readonly Sheet[]>>;
};

/** Router bits and kerfs as shops have them: common practice, sizes as they are sold, kerfs of middling plate. */
const TOOLS: ToolTable["tools"] = {
  mm: [
    ...[2, 3, 4, 5, 6, 8, 10, 12, 16, 20].map((size) => bit(size, `${size} mm`)),
    kerf("waterjet", "the waterjet", 0.9),
    kerf("plasma", "the plasma torch", 1.5),
    kerf("laser", "the laser", 0.2),
  ],
  in: [
    bit(0.125, "1/8 in"),
    bit(0.1875, "3/16 in"),
    bit(0.25, "1/4 in"),
    bit(0.375, "3/8 in"),
    bit(0.5, "1/2 in"),
    bit(0.75, "3/4 in"),
    kerf("waterjet", "the waterjet", 0.035),
    kerf("plasma", "the plasma torch", 0.06),
    kerf("laser", "the laser", 0.008),
  ],
};

const sheet = (width: number, height: number, what = "a sheet"): Sheet => ({
  name: `${what} of ${width} × ${height}`,
  width,
  height,
});

/** Sheets and slabs as they are sold: common practice; no two slabs of stone are alike. */
const SHEETS: ToolTable["sheets"] = {
  mm: [
    sheet(1000, 2000),
    sheet(1250, 2500),
    sheet(1500, 3000),
    sheet(2000, 4000),
    sheet(3000, 1400, "a slab"),
    sheet(3200, 1600, "a slab"),
  ],
  in: [sheet(48, 96), sheet(60, 120), sheet(72, 144), sheet(120, 55, "a slab"), sheet(126, 63, "a slab")],
};

/** The table as it comes, until the shop changes it. */
export const FIRST_TOOLS: ToolTable = { tools: TOOLS, sheets: SHEETS };
