import {
  applyEdit,
  FIRST_STYLE,
  styleOf,
  unsoundStyle,
  type AnnotationStyle,
  type Drawing,
} from "@ash-edge/core/drawing";
import { setAnnotationStyle } from "@ash-edge/core/annotate";
import type { Database } from "./database.ts";

/** The name under which the shop's style of dimensions is stored. */
const STYLE_KEY = "dimensions";

/** How dimensions look in this shop: as stored in this browser, or as they came. */
export const shopStyle = async (database: Database): Promise<AnnotationStyle> => {
  const stored: unknown = (await database.settings.get(STYLE_KEY).catch(() => undefined))?.value;
  return stored !== undefined && unsoundStyle(stored) === undefined ? (stored as AnnotationStyle) : FIRST_STYLE;
};

/**
 * Stores what changes of how dimensions look in this shop, for jobs that are made from now on. It is put on what is
 * stored by then, so that two changes made one upon the other both stand.
 */
export const keepShopStyle = (database: Database, change: Partial<AnnotationStyle>): Promise<void> =>
  database.transaction("rw", database.settings, async () => {
    await database.settings.put({ key: STYLE_KEY, value: { ...(await shopStyle(database)), ...change } });
  });

/** A new drawing in the shop's style, unless it brings one of its own. */
export const inShopStyle = async (database: Database, drawing: Drawing): Promise<Drawing> => {
  const style = await shopStyle(database);
  return styleOf(drawing) !== FIRST_STYLE || style === FIRST_STYLE
    ? drawing
    : applyEdit(drawing, setAnnotationStyle(drawing, style));
};
