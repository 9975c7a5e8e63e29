import { expose } from "comlink";
import type { ReadDrawing } from "@ash-edge/core/formats";
import { readDxf } from "@ash-edge/core/formats/dxf";
import { readSvg } from "@ash-edge/core/formats/svg";
import type { Outcome } from "@ash-edge/core/numeric";

const read = (bytes: Uint8Array, kind: "dxf" | "svg"): Outcome<ReadDrawing> =>
  kind === "svg" ? readSvg(bytes) : readDxf(bytes);

export const worker = { read };
export type ReadFileWorker = typeof worker;
expose(worker);
