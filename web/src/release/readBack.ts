import { wrap } from "comlink";
import type { FoundFile } from "@ash-edge/core/formats/dxf";
import type { ReadBackWorker } from "./readBack.worker.ts";

const TIME_LIMIT_MS = 10_000;

/** Reads a written DXF with a reader that is not ours, in a worker that is ended on a time limit. */
export const readBack = async (text: string): Promise<FoundFile> => {
  const worker = new Worker(new URL("./readBack.worker.ts", import.meta.url), { type: "module" });
  let timer: ReturnType<typeof setTimeout> | undefined;
  const limit = new Promise<never>((_, reject) => {
    timer = setTimeout(() => reject(new Error("Reading the file back took longer than 10 s.")), TIME_LIMIT_MS);
    worker.onerror = (event) => reject(new Error(`The reader failed: ${event.message}`));
  });
  try {
    return await Promise.race([wrap<ReadBackWorker>(worker).readBack(text), limit]);
  } finally {
    clearTimeout(timer);
    worker.terminate();
  }
};
