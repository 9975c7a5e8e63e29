import Joi from "joi";
import { drawingText, type Drawing } from "../../drawing/drawing.ts";
import { done, refuse, type Outcome } from "../../numeric/outcome.ts";
import { FORMAT_VERSION, migrated } from "./migrations.ts";
import { drawingRowsSchema } from "./rows.ts";

/** What a job is beside its drawing. */
export type JobHead = {
  readonly number: string;
  readonly name: string;
  readonly customer: string;
  readonly material: string;
  readonly thickness: string;
  readonly quantity: number;
  readonly due: string;
};

/** A picture of the sketch within a job file. */
export type JobSketch = { readonly name: string; readonly type: string; readonly base64: string };

/** The job as one file of our own open format: JSON, described in docs/formats.md. */
export type JobFile = {
  readonly format: "ash-edge-job";
  readonly version: typeof FORMAT_VERSION;
  readonly head: JobHead;
  readonly nextId: number;
  readonly drawing: unknown;
  readonly sketches: readonly JobSketch[];
};

export const jobHeadSchema = Joi.object({
  number: Joi.string().required(),
  name: Joi.string().required(),
  customer: Joi.string().allow("").required(),
  material: Joi.string().allow("").required(),
  thickness: Joi.string().allow("").required(),
  quantity: Joi.number().integer().min(1).required(),
  due: Joi.string().allow("").required(),
});

const jobFileSchema = Joi.object({
  format: Joi.valid("ash-edge-job").required(),
  version: Joi.valid(FORMAT_VERSION).required(),
  head: jobHeadSchema.required(),
  nextId: Joi.number().integer().min(1).required(),
  drawing: drawingRowsSchema.required(),
  sketches: Joi.array()
    .items(
      Joi.object({
        name: Joi.string().required(),
        type: Joi.string().required(),
        base64: Joi.string().base64().required(),
      }),
    )
    .required(),
});

/** The text of a job file; rows in id order, so that equal jobs give equal files. */
export const writeJobFile = (head: JobHead, drawing: Drawing, sketches: readonly JobSketch[]): string => {
  const file: JobFile = {
    format: "ash-edge-job",
    version: FORMAT_VERSION,
    head,
    nextId: drawing.nextId,
    drawing: JSON.parse(drawingText(drawing)),
    sketches,
  };
  return `${JSON.stringify(file, null, 1)}\n`;
};

/** A job file of this version or an older one that has passed its schema; else a refusal that says what was wrong. */
export const readJobFile = (text: string): Outcome<JobFile> => {
  try {
    const file = JSON.parse(text) as { version?: unknown; drawing?: unknown } | null;
    // what has no version is no job file, which the schema says
    const rows = file?.version === undefined ? done(file?.drawing) : migrated("drawing", file.drawing, file.version);
    if (!rows.ok) return rows;
    const now = { ...file, ...(file?.version === undefined ? {} : { version: FORMAT_VERSION, drawing: rows.value }) };
    const { value, error } = jobFileSchema.validate(now, { convert: false });
    return error ? refuse("file-not-readable", { reason: error.message }) : done(value as JobFile);
  } catch {
    return refuse("file-not-readable", { reason: "it is not JSON" });
  }
};
