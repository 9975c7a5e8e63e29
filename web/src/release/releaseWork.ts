import type { Remote } from "comlink";
import { run } from "../worker/run.ts";
import type { ReleaseWorker } from "./release.worker.ts";

/** Nothing that is asked of a release takes so long on a drawing that can be cut. */
const LIMIT_MS = 120_000;

/** Carries out one part of a release in a worker of its own, which ends with it. */
export const releaseWork = <T>(call: (remote: Remote<ReleaseWorker>) => Promise<T>, signal: AbortSignal): Promise<T> =>
  run<ReleaseWorker, T>(
    new Worker(new URL("./release.worker.ts", import.meta.url), { type: "module" }),
    (remote) => call(remote),
    { signal, limitMs: LIMIT_MS },
  );
