import Joi from "joi";
import type { Edit } from "@ash-edge/core/drawing";
import { drawingRowsSchema, editSchema, jobHeadSchema } from "@ash-edge/core/formats/job";
import type { HeadRecord, JobRecord, JournalRecord, SnapshotRecord } from "./rows.ts";

const text = Joi.string().required();
const whole = Joi.number().integer().min(0).required();
const token = Joi.number().integer().min(0);

const schemas = {
  job: jobHeadSchema.keys({
    id: text,
    unit: Joi.valid("mm", "in").required(),
    state: Joi.valid("sketched", "drawn", "proved", "released").required(),
    updated: Joi.number().required(),
    archived: Joi.boolean(),
    binned: Joi.number(),
    released: Joi.object({ number: whole, at: text }),
    changed: Joi.boolean(),
    thumbnail: Joi.object({
      box: Joi.array().items(Joi.number()).length(4).required(),
      outside: Joi.string().allow(""),
      inside: Joi.string().allow(""),
      open: Joi.string().allow(""),
      marks: Joi.string().allow(""),
      dimensions: Joi.string(),
    }),
  }),
  head: Joi.object({
    job: text,
    position: whole,
    count: whole,
    nextId: whole,
    grown: Joi.number().min(0),
    token,
    by: Joi.string(),
  }),
  journal: Joi.object({
    job: text,
    n: whole,
    version: Joi.number().integer().min(1),
    token,
    edit: Joi.object(),
    packed: Joi.any(),
  }).xor("edit", "packed"),
  edit: editSchema.required(),
  snapshot: Joi.object({ job: text, n: whole, text, nextId: whole, version: Joi.number().integer().min(1) }),
  rows: drawingRowsSchema,
};

type Records = {
  job: JobRecord;
  head: HeadRecord;
  journal: JournalRecord;
  snapshot: SnapshotRecord;
  edit: Edit;
  rows: unknown;
};

/** A stored record that is not what it should be. */
export class DamagedRecord extends Error {}

/** The record as what it should be; whatever comes out of the store passes here. */
export const checked = <K extends keyof Records>(kind: K, record: unknown): Records[K] => {
  const { error } = schemas[kind].validate(record, { convert: false });
  if (error) throw new DamagedRecord(`The stored ${kind} is damaged: ${error.message}.`);
  return record as Records[K];
};

export const isSound = (kind: keyof Records, record: unknown): boolean =>
  !schemas[kind].validate(record, { convert: false }).error;
