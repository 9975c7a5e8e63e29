import { expose } from "comlink";
import { readDxf } from "@ash-edge/core/formats/dxf";
import type { ReadDrawing } from "@ash-edge/core/formats";
import type { Outcome } from "@ash-edge/core/numeric";

const read = (bytes: Uint8Array): Outcome<ReadDrawing> => readDxf(bytes);

export const worker = { read };
export type ReadFileWorker = typeof worker;
expose(worker);
