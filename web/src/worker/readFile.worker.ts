import { expose } from "comlink";
import type { ReadDrawing } from "@ash-edge/core/formats";
import { readDxf } from "@ash-edge/core/formats/dxf";
import { readJobFile, type ReadJob } from "@ash-edge/core/formats/job";
import { readSvg } from "@ash-edge/core/formats/svg";
import type { Outcome } from "@ash-edge/core/numeric";

const read = (bytes: Uint8Array, kind: "dxf" | "svg"): Outcome<ReadDrawing> =>
  kind === "svg" ? readSvg(bytes) : readDxf(bytes);

const readJob = (bytes: Uint8Array): Outcome<ReadJob> => readJobFile(new TextDecoder().decode(bytes));

export const worker = { read, readJob };
export type ReadFileWorker = typeof worker;
expose(worker);
