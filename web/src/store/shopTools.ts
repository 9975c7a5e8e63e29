import Joi from "joi";
import { FIRST_TOOLS, TOOL_KINDS, type ToolTable } from "@ash-edge/core/tables";
import type { Database } from "./database.ts";

/** The name under which the shop's tools and sheets are stored. */
const TOOLS_KEY = "tools";

const name = Joi.string().min(1).max(120).required();
const size = Joi.number().positive().required();
const ROWS = {
  tools: Joi.object({ name, kind: Joi.valid(...TOOL_KINDS).required(), diameter: size }),
  sheets: Joi.object({ name, width: size, height: size }),
} as const;

/** The rows of one list that are what they should be; those as they came where there is no list. */
const sound = <K extends keyof ToolTable>(stored: unknown, kind: K): ToolTable[K] => {
  const lists = (stored as Partial<Record<K, unknown>> | null | undefined)?.[kind] as
    Record<string, unknown> | undefined;
  const listOf = (unit: "mm" | "in"): readonly unknown[] => {
    const list = lists?.[unit];
    if (!Array.isArray(list)) return FIRST_TOOLS[kind][unit];
    return list.filter((row) => !ROWS[kind].validate(row, { convert: false }).error);
  };
  return { mm: listOf("mm"), in: listOf("in") } as unknown as ToolTable[K];
};

/** What the shop cuts with and from: as stored in this browser, else as it came. */
export const shopTools = async (database: Database): Promise<ToolTable> => {
  const stored: unknown = (await database.settings.get(TOOLS_KEY).catch(() => undefined))?.value;
  return { tools: sound(stored, "tools"), sheets: sound(stored, "sheets") };
};

/** Stores what the shop cuts with and from. Jobs keep what they name, whatever becomes of the table. */
export const keepShopTools = async (database: Database, table: ToolTable): Promise<void> =>
  void (await database.settings.put({ key: TOOLS_KEY, value: table }));
