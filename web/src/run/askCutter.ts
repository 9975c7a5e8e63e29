import type { LayerTable, ProcessKind } from "@ash-edge/core/cutter";
import { run } from "../worker/run.ts";
import type { Answer, RunWorker } from "./run.worker.ts";

/** A server that does not answer within this is not waited for. */
const SERVER_MS = 5000;
const LIMIT_MS = 60_000;

/** What came of it, and where: at the server, which has the run under its id, or in the page. */
export type Asked = Answer & { readonly id?: string };

/**
 * Has a file run by the test cutter: by the server's where there is one, else by the page's own. Rejects where neither
 * could.
 */
export const askCutter = async (
  bytes: Uint8Array,
  kind: ProcessKind,
  layers: LayerTable,
  signal: AbortSignal,
): Promise<Asked> => {
  const query = new URLSearchParams({ process: kind, layers: JSON.stringify(layers) });
  try {
    const answer = await fetch(`/api/cutter/runs?${query.toString()}`, {
      method: "POST",
      body: bytes.slice(),
      signal: AbortSignal.any([signal, AbortSignal.timeout(SERVER_MS)]),
    });
    // what it refuses it says; anything else is no answer of a cutter
    if (answer.status === 201 || answer.status === 422) return (await answer.json()) as Asked;
  } catch (reason) {
    if (signal.aborted) throw reason;
  }
  return run<RunWorker, Answer>(
    new Worker(new URL("./run.worker.ts", import.meta.url), { type: "module" }),
    (remote) => remote.run(new TextDecoder().decode(bytes), kind, layers),
    { signal, limitMs: LIMIT_MS },
  );
};
