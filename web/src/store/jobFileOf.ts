import type { Drawing } from "@ash-edge/core/drawing";
import { writeJobFile, type JobSketch } from "@ash-edge/core/formats/job";
import type { Database } from "./database.ts";
import { sketchesOf } from "./jobs.ts";
import type { JobRecord } from "./rows.ts";
import { namedByPlace } from "./sketchNames.ts";

const toBase64 = (bytes: Uint8Array): string => {
  let text = "";
  for (let i = 0; i < bytes.length; i += 0x8000) text += String.fromCharCode(...bytes.subarray(i, i + 0x8000));
  return btoa(text);
};

/** A store that does not answer within this is not waited for: what is in memory is saved. */
const STORE_MS = 4000;

const within = <T>(answer: Promise<T>): Promise<T> =>
  Promise.race([
    answer,
    new Promise<never>((_, reject) => setTimeout(() => reject(new Error("The store did not answer.")), STORE_MS)),
  ]);

/** The pictures of a job, as far as they can be read, and which can't. */
const readSketches = async (
  database: Database,
  job: string,
): Promise<{
  readonly sketches: readonly JobSketch[];
  readonly ids: readonly string[];
  readonly missing: readonly string[];
}> => {
  const found = await within(sketchesOf(database, job)).catch(() => undefined);
  if (!found) return { sketches: [], ids: [], missing: ["its pictures"] };
  const sketches: JobSketch[] = [];
  const ids: string[] = [];
  const missing: string[] = [];
  for (const { id, name, type, bytes } of found) {
    try {
      sketches.push({ name, type, base64: toBase64(bytes) });
      ids.push(id);
    } catch {
      missing.push(name);
    }
  }
  return { sketches, ids, missing };
};

/**
 * A job as a file, from memory: the drawing with its callouts and what the job says of itself. The store is only asked
 * for the pictures, and for details that were changed; what it does not give is left out, and named in `missing`.
 */
export const jobFileOf = async (
  database: Database,
  opened: JobRecord,
  drawing: Drawing,
): Promise<{ readonly text: string; readonly words: string; readonly missing: readonly string[] }> => {
  const { sketches, ids, missing } = await readSketches(database, opened.id);
  const stored = await within(database.jobs.get(opened.id)).catch(() => undefined);
  const { number, name, customer, material, thickness, quantity, due } = stored ?? opened;
  const head = { number, name, customer, material, thickness, quantity, due };
  return { text: writeJobFile(head, namedByPlace(drawing, ids), sketches), words: `${number} ${name}`, missing };
};
