import Joi from "joi";
import { unsoundNewCallout, isRef, unsoundRow } from "../../drawing/rows.ts";
import { LATER_TABLES, TABLES, type TableName } from "../../drawing/drawing.ts";

/*
 * What a stored or received drawing must look like. Its rows are looked at by the same checks as when they are made,
 * which cost a microsecond a row where a general schema takes forty. These doors stand at the store, the server and the
 * job file; the geometry itself trusts what has passed.
 */

/** A value of which `wrong` says what is wrong with it, in words. */
const soundBy = (wrong: (value: unknown) => string | undefined): Joi.AnySchema =>
  Joi.any().custom((value: unknown, helpers) => {
    const words = wrong(value);
    return words === undefined ? value : helpers.message({ custom: words });
  });

/** A callout without an id or links, as a new job lists it. */
export const newCalloutSchema = soundBy(unsoundNewCallout);

const LATER: ReadonlySet<TableName> = new Set(LATER_TABLES);

/** The rows of a drawing: of each table a list, of which a drawing can't do without all but the later ones. */
export type DrawingRows = { readonly [name in TableName]?: readonly { readonly id: number }[] };

/** What is wrong with the rows of a drawing, each by itself, in words; undefined where all can be read. */
export const unsoundRows = (value: unknown): string | undefined => {
  if (typeof value !== "object" || value === null) return "a drawing is missing";
  const rows = value as Readonly<Record<string, unknown>>;
  const unknown = Object.keys(rows).find((name) => !(TABLES as readonly string[]).includes(name));
  if (unknown !== undefined) return `the table ${unknown} is unknown`;
  for (const table of TABLES) {
    const list = rows[table];
    if (list === undefined && LATER.has(table)) continue; // older than these
    if (!Array.isArray(list)) return `its ${table} rows are no list`;
    for (let i = 0; i < list.length; i++) {
      const wrong = unsoundRow(table, list[i]);
      if (wrong !== undefined) return `${table} ${i + 1} of ${list.length}: ${wrong}`;
    }
  }
  if ((rows.settings as unknown[]).length !== 1) return "its drawing has no settings";
  return (rows.layer as unknown[]).length === 0 ? "its drawing has no layers" : undefined;
};

/** The rows of a drawing, as `drawingText` writes them. */
export const drawingRowsSchema = soundBy(unsoundRows).required();

const unsoundChanges = (value: unknown): string | undefined => {
  if (!Array.isArray(value)) return "its changes are no list";
  for (const change of value as readonly Readonly<Record<string, unknown>>[]) {
    const { table, id, after } = (typeof change === "object" && change) || {};
    if (!(TABLES as readonly unknown[]).includes(table)) return `the table ${String(table)} is unknown`;
    if (!Number.isInteger(id) || (id as number) < 0) return "a change names no row";
    const wrong = after === undefined ? undefined : unsoundRow(table as TableName, after);
    if (wrong !== undefined) return `${String(table)} ${String(id)}: ${wrong}`;
  }
  return undefined;
};

const references = soundBy((value) => (Array.isArray(value) && value.every(isRef) ? undefined : "it names no places"));
const id = Joi.number().integer().min(0);

/** Tables whose rows hold references. */
const HOLDERS = ["callout", "annotation"] as const;

export const editSchema = Joi.object({
  label: Joi.string().required(),
  gesture: Joi.string().required(),
  changes: soundBy(unsoundChanges).required(),
  lineage: Joi.array().required(),
  cutLoose: Joi.array()
    .items(Joi.object({ callout: id, annotation: id, links: references.required(), offer: references }).xor(...HOLDERS))
    .required(),
  answered: Joi.array().items(id),
});
