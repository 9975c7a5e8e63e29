import Joi from "joi";
import { CALLOUT_FIELDS, ENTITY_FIELDS, isRef, ROW_FIELDS, unsoundRow } from "../../drawing/rows.ts";
import { TABLES, type TableName } from "../../drawing/drawing.ts";
import type { Field, Fields } from "../../numeric/fields.ts";

/**
 * What a stored or received drawing must look like, made from the same fields by which an edit is checked when it is
 * made. These doors stand at the store, the server and the job file; the geometry itself trusts what has passed.
 */
const id = Joi.number().integer().min(0).required();
const reference = Joi.any().custom((value) => {
  if (!isRef(value)) throw new Error("it names no place");
  return value;
}, "a reference");

const schemaOf = (field: Field): Joi.Schema => {
  const schema = bare(field);
  return field.optional ? schema.optional() : schema.required();
};

const bare = (field: Field): Joi.Schema => {
  switch (field.is) {
    case "number": {
      let schema = Joi.number().unsafe();
      if (field.above !== undefined) schema = schema.greater(field.above);
      if (field.least !== undefined) schema = schema.min(field.least);
      return field.most === undefined ? schema : schema.max(field.most);
    }
    case "whole":
      return Joi.number().integer().min(field.least).max(field.most);
    case "boolean":
      return Joi.boolean();
    case "text": {
      const schema = field.most === undefined ? Joi.string() : Joi.string().max(field.most);
      return field.empty ? schema.allow("") : schema;
    }
    case "one of":
      return Joi.valid(...field.of);
    case "list": {
      const schema = Joi.array()
        .items(bare(field.of))
        .min(field.least ?? 0);
      return field.most === undefined ? schema : schema.max(field.most);
    }
    case "record":
      return recordOf(field.of);
    case "reference":
      return reference;
  }
};

const recordOf = (fields: Fields): Joi.ObjectSchema =>
  Joi.object(Object.fromEntries(Object.entries(fields).map(([name, field]) => [name, schemaOf(field)])));

const sense = (value: unknown): unknown => {
  const wrong = unsoundRow("entity", value);
  if (wrong !== undefined) throw new Error(wrong);
  return value;
};

const entity = Joi.alternatives().conditional(".kind", {
  switch: Object.entries(ENTITY_FIELDS).map(([kind, fields], i, all) => ({
    is: kind,
    then: recordOf(fields).custom(sense, "what its numbers mean"),
    ...(i === all.length - 1 ? { otherwise: Joi.forbidden() } : {}),
  })),
});
const rows: Readonly<Record<TableName, Joi.Schema>> = {
  entity,
  layer: recordOf(ROW_FIELDS.layer),
  callout: recordOf(ROW_FIELDS.callout),
  picture: recordOf(ROW_FIELDS.picture),
  settings: recordOf(ROW_FIELDS.settings),
};

/** A callout without an id or links, as a new job lists it. */
export const newCalloutSchema = recordOf(CALLOUT_FIELDS);

/** The rows of a drawing, as `drawingText` writes them, with the next free id beside. */
export const drawingRowsSchema = Joi.object({
  entity: Joi.array().items(rows.entity).required(),
  layer: Joi.array().items(rows.layer).min(1).required(),
  callout: Joi.array().items(rows.callout).required(),
  picture: Joi.array().items(rows.picture),
  settings: Joi.array().items(rows.settings).length(1).required(),
});

const change = Joi.object({
  table: Joi.valid(...TABLES).required(),
  id,
  before: Joi.any(),
  after: Joi.alternatives().conditional("table", {
    switch: TABLES.map((table) => ({ is: table, then: rows[table] })),
  }),
});

const references = Joi.array().items(reference).required();

export const editSchema = Joi.object({
  label: Joi.string().required(),
  gesture: Joi.string().required(),
  changes: Joi.array().items(change).required(),
  lineage: Joi.array().required(),
  cutLoose: Joi.array()
    .items(Joi.object({ callout: id, links: references, offer: references.optional() }))
    .required(),
  answered: Joi.array().items(id),
});
