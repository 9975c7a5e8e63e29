import type { Unit } from "@ash-edge/core/numeric";
import type { CuttingTool, Sheet, ToolTable } from "@ash-edge/core/tables";

/** Where a row of the table stands: in its list, of its unit. */
export type ToolRow = { readonly list: keyof ToolTable; readonly unit: Unit; readonly at: number };

/** The table with one row put in the place of another, or after the last; without a row that place is taken out. */
export const withRow = (table: ToolTable, { list, unit, at }: ToolRow, row?: CuttingTool | Sheet): ToolTable => {
  const rows: readonly (CuttingTool | Sheet)[] = table[list][unit];
  const next = [...rows.slice(0, at), ...(row ? [row] : []), ...rows.slice(at + 1)];
  return { ...table, [list]: { ...table[list], [unit]: next } };
};
