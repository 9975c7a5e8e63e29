import type { Picture } from "@ash-edge/core/drawing";
import type { Bounds } from "@ash-edge/core/geometry";
import type { PictureTrace } from "@ash-edge/core/picture/trace";
import type { Database } from "../../store/index.ts";
import { run } from "../../worker/run.ts";
import type { TraceWorker } from "../../worker/trace.worker.ts";

const LIMIT_MS = 120_000;

/** Traces a stored picture, or a part of it, in a worker of its own; rejects with a reason in words. */
export const traceSketch = async (
  database: Database,
  picture: Picture,
  box: Bounds,
  report: (part: number) => void,
  signal: AbortSignal,
): Promise<PictureTrace> => {
  const stored = await database.blobs.get(picture.blob);
  if (!stored) throw new Error("The picture is not stored any more.");
  return run<TraceWorker, PictureTrace>(
    new Worker(new URL("../../worker/trace.worker.ts", import.meta.url), { type: "module" }),
    (remote, tell) => remote.work({ bytes: stored.bytes.slice(), type: stored.type, box }, tell),
    { signal, report, limitMs: LIMIT_MS },
  );
};
