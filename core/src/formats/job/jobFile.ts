import Joi from "joi";
import { drawingText, type Drawing } from "../../drawing/drawing.ts";
import { done, refuse, type Outcome } from "../../numeric/outcome.ts";
import { FORMAT_VERSION, migrated } from "./migrations.ts";
import { plainName } from "../../numeric/plainName.ts";
import type { DrawingRows } from "./rows.ts";
import { sensible } from "./sense.ts";

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
  drawing: Joi.any().required(), // `sensible` looks at it
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

/** Names cleaned before they are looked at: one that holds nothing else is empty. */
const plainHead = (head: unknown): unknown =>
  typeof head !== "object" || head === null
    ? head
    : Object.fromEntries(
        Object.entries(head).map(([name, value]) => [
          name,
          typeof value === "string" ? plainName(value) : (value as unknown),
        ]),
      );

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

/** A job file that makes sense, and what was mended in it for that, in sentences. */
export type ReadJob = Omit<JobFile, "drawing"> & { readonly drawing: DrawingRows; readonly mended: readonly string[] };

/**
 * A job file of this version or an older one that has passed its schema and makes sense; else a refusal that says what
 * was wrong.
 */
export const readJobFile = (text: string): Outcome<ReadJob> => {
  try {
    const raw = JSON.parse(text) as { version?: unknown; head?: unknown; drawing?: unknown } | null;
    // what has no version is no job file, which the schema says
    const rows = raw?.version === undefined ? done(raw?.drawing) : migrated("drawing", raw.drawing, raw.version);
    if (!rows.ok) return rows;
    const now = {
      ...raw,
      ...(raw?.head === undefined ? {} : { head: plainHead(raw.head) }),
      ...(raw?.version === undefined ? {} : { version: FORMAT_VERSION, drawing: rows.value }),
    };
    const { value, error } = jobFileSchema.validate(now, { convert: false });
    if (error) return refuse("file-not-readable", { reason: error.message });
    const file = value as JobFile;
    const sense = sensible(file.drawing as DrawingRows, file.nextId);
    return sense.ok ? done({ ...file, ...sense.value }) : sense;
  } catch {
    return refuse("file-not-readable", { reason: "it is not JSON" });
  }
};
