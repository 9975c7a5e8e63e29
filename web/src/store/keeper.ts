import type { Drawing } from "@ash-edge/core/drawing";
import type { Database } from "./database.ts";
import { storeStep, type Step } from "./journal.ts";
import { stateOf, thumbnailOf } from "./summary.ts";

/** Writes the steps of a job one after another. */
export type Keeper = {
  readonly keep: (step: Step) => void;
  /** Resolves when everything handed over is stored (or has failed). */
  readonly idle: () => Promise<void>;
};

const SUMMARY_DELAY_MS = 400;
const SUMMARY_LIMIT = 4000;

/**
 * A keeper for one job. `onSaved` is told of every step that is on disk, `onFailed` of the first that could not be
 * written; after that nothing more is written, so that the journal never has a hole.
 */
export const makeKeeper = (
  database: Database,
  job: string,
  { onSaved, onFailed }: { onSaved: (position: number) => void; onFailed: (reason: Error) => void },
): Keeper => {
  let queue: Promise<void> = Promise.resolve();
  let failed = false;
  let timer: ReturnType<typeof setTimeout> | undefined;
  let latest: Drawing | undefined;
  const summarise = async (): Promise<void> => {
    clearTimeout(timer);
    const drawing = latest;
    latest = undefined;
    if (!drawing || failed) return;
    const thumbnail = thumbnailOf(drawing);
    await database.transaction("rw", database.jobs, async () => {
      const record = await database.jobs.get(job);
      if (!record) return;
      const { thumbnail: _, ...rest } = record;
      // a released job stays released; what was released is kept beside it
      const state = record.state === "released" ? record.state : stateOf(drawing);
      await database.jobs.put({ ...rest, state, updated: Date.now(), ...(thumbnail ? { thumbnail } : {}) });
    });
  };
  return {
    keep: (step) => {
      latest = step.drawing;
      queue = queue.then(async () => {
        if (failed) return;
        try {
          await storeStep(database, step);
          onSaved(step.history.position);
        } catch (reason) {
          failed = true;
          onFailed(reason as Error);
        }
      });
      clearTimeout(timer);
      // a great drawing takes too long to be summed up between two edits: it is when the bench is left
      if (step.drawing.entity.size <= SUMMARY_LIMIT) timer = setTimeout(() => void summarise(), SUMMARY_DELAY_MS);
    },
    idle: async () => {
      await queue;
      await summarise();
    },
  };
};
