import { expose } from "comlink";
import { PROCESSES, readCut, runOf, type CutterRun, type LayerTable, type ProcessKind } from "@ash-edge/core/cutter";
import { sayRefusal } from "@ash-edge/core/say";

/** What the test cutter makes of a file: its run, or why it does not start. */
export type Answer = { readonly run: CutterRun } | { readonly refused: string };

/** The test cutter in the page, for when no server is there: the same code. */
export const worker = {
  run: (text: string, kind: ProcessKind, layers: LayerTable): Answer => {
    const read = readCut(text, PROCESSES[kind], layers);
    return read.ok ? { run: runOf(read.value, PROCESSES[kind]) } : { refused: sayRefusal(read.refusal, "mm") };
  },
};
export type RunWorker = typeof worker;
expose(worker);
