import type { Ask } from "@ash-edge/tools";
import { addSketch, type Database } from "../store/index.ts";
import { run } from "../worker/run.ts";
import type { StraightenWorker } from "../worker/straighten.worker.ts";

/**
 * Carries out what a tool asks for: straightens a stored photo in a worker and stores what comes of it; returns its id.
 */
export const straightenSketch = async (
  database: Database,
  job: string,
  { input: { photo, plan } }: Ask,
  report: (part: number) => void,
  signal: AbortSignal,
): Promise<string> => {
  const stored = await database.blobs.get(photo.blob);
  if (!stored) throw new Error("The photo is not stored any more.");
  const bytes = await run<StraightenWorker, Uint8Array>(
    new Worker(new URL("../worker/straighten.worker.ts", import.meta.url), { type: "module" }),
    (remote, tell) => remote.straighten(stored.bytes.slice(), stored.type, plan, tell),
    { signal, report },
  );
  const name = `${stored.name.replace(/\.\w+$/, "")} straightened.jpg`;
  return (await addSketch(database, job, { name, type: "image/jpeg", bytes, from: stored.id })).id;
};
