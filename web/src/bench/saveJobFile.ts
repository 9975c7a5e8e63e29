import type { Drawing } from "@ash-edge/core/drawing";
import { writeJobFile, type JobSketch } from "@ash-edge/core/formats/job";
import { namedByPlace, sketchesOf, type Database, type JobRecord } from "../store/index.ts";
import type { Message } from "./state/index.ts";
import { fileName, saveAs } from "../ui/saveAs.ts";

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
 * Saves the job to a file from memory: the drawing with its callouts and what the job says of itself. The store is only
 * asked for the pictures, and for details that were changed; what it does not give is left out. What is to be said of
 * it.
 */
export const saveJobFile = async (database: Database, opened: JobRecord, drawing: Drawing): Promise<Message> => {
  const { sketches, ids, missing } = await readSketches(database, opened.id);
  const stored = await within(database.jobs.get(opened.id)).catch(() => undefined);
  const { number, name, customer, material, thickness, quantity, due } = stored ?? opened;
  const text = writeJobFile(
    { number, name, customer, material, thickness, quantity, due },
    namedByPlace(drawing, ids),
    sketches,
  );
  const file = fileName(`${number} ${name}`, ".ashedge.json");
  saveAs(file, text, "application/json");
  return missing.length === 0
    ? { text: `Saved to ${file}.`, tone: "said" }
    : {
        text: `Saved to ${file}, but without ${missing.join(", ")}: the browser’s storage could not be read.`,
        tone: "fault",
      };
};
