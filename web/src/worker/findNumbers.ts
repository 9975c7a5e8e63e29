import type { Drawing } from "@ash-edge/core/drawing";
import type { TrueAsk } from "@ash-edge/core/solve";
import { keptWorker } from "./run.ts";
import type { TrueFound, TrueWorker } from "./true.worker.ts";

const kept = keptWorker<TrueWorker>(() => new Worker(new URL("./true.worker.ts", import.meta.url), { type: "module" }));

/** Looks what making numbers true would do, and what they leave open; rejects, in words, where it is stopped. */
export const findNumbers = (drawing: Drawing, ask: TrueAsk | undefined, signal: AbortSignal): Promise<TrueFound> =>
  kept.call((remote) => remote.work({ drawing, ask }), signal);

/** Nobody asks any more. */
export const endNumbers = kept.end;
