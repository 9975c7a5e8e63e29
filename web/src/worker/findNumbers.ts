import { entitiesOf, type Drawing } from "@ash-edge/core/drawing";
import type { TrueAsk } from "@ash-edge/core/solve";
import { run } from "./run.ts";
import type { TrueFound, TrueInput, TrueWorker } from "./true.worker.ts";

/** Drawings of more pieces than this are worked out in a worker; those of fewer are there at once. */
const MOST_AT_ONCE = 200;

const isSmall = (drawing: Drawing): boolean => {
  let pieces = 0;
  for (const entity of entitiesOf(drawing)) {
    pieces += entity.kind === "chain" ? entity.vertices.length : 1;
    if (pieces > MOST_AT_ONCE) return false;
  }
  return true;
};

/** Looks what making numbers true would do, and what they leave open. */
export const findNumbers = async (
  drawing: Drawing,
  ask: TrueAsk | undefined,
  signal: AbortSignal,
): Promise<TrueFound> => {
  const input: TrueInput = { drawing, ask };
  if (isSmall(drawing)) {
    const { lookTrue, numbersStanding, proposeLinks } = await import("@ash-edge/core/solve");
    return {
      look: ask && lookTrue(drawing, ask),
      standing: numbersStanding(drawing),
      proposed: proposeLinks(drawing),
    };
  }
  return run<TrueWorker, TrueFound>(
    new Worker(new URL("./true.worker.ts", import.meta.url), { type: "module" }),
    (remote) => remote.work(input),
    { signal },
  );
};
