import type { FoundFile } from "@ash-edge/core/formats/dxf";
import { run } from "../worker/run.ts";
import type { ReadBackWorker } from "./readBack.worker.ts";

const TIME_LIMIT_MS = 10_000;

/** Reads a written DXF with a reader that is not ours, in a worker that is ended on a time limit. */
export const readBack = (text: string): Promise<FoundFile> =>
  run<ReadBackWorker, FoundFile>(
    new Worker(new URL("./readBack.worker.ts", import.meta.url), { type: "module" }),
    (remote) => remote.readBack(text),
    { limitMs: TIME_LIMIT_MS },
  );
