import { UnsoundEdit, type Drawing } from "@ash-edge/core/drawing";
import { openAgain, type Database } from "./database.ts";
import { ChangedElsewhere, NotInStore, storeStep, type Step } from "./journal.ts";
import type { History } from "./history.ts";
import type { Reserve } from "./reserve.ts";
import { placeInHistory } from "./released.ts";
import { SUMMARY_LIMIT, summaryOf } from "./summary.ts";

/** Writes the steps of a job one after another. */
export type Keeper = {
  /** Who stores here: stands with what this tab stored last. */
  readonly by: string;
  readonly keep: (step: Step) => void;
  /** Resolves when everything handed over is stored, or can't be stored now. */
  readonly idle: () => Promise<void>;
  /** Tries at once what could not be stored. */
  readonly again: () => void;
  /** Nothing is tried any more. */
  readonly end: () => void;
};

type Told = {
  readonly onSaved: (steps: History) => void;
  /** Told why a step could not be stored; `final` where nothing more is tried. */
  readonly onFailed: (reason: Error, final: boolean) => void;
};

const SUMMARY_DELAY_MS = 400;
/** What could not be stored is tried again after so long, as well as with the next step. */
const RETRY_MS = 3000;

/** Trying again would not help. */
const isFinal = (reason: unknown): boolean =>
  reason instanceof ChangedElsewhere || reason instanceof NotInStore || reason instanceof UnsoundEdit;

/** Writes down how a job looks and how far it has come, for the lists of jobs. */
export const summariseJob = async (database: Database, job: string, drawing: Drawing): Promise<void> => {
  const { state, thumbnail } = summaryOf(drawing);
  await database.transaction("rw", [database.jobs, database.heads, database.journal], async () => {
    const record = await database.jobs.get(job);
    if (!record) return;
    const { thumbnail: _, changed: __, ...rest } = record;
    // a released job stays released, or says that it was changed since
    const isReleased = record.state === "released";
    const changed = isReleased && (await placeInHistory(database, job)) !== record.released?.at;
    await database.jobs.put({
      ...rest,
      state: isReleased ? record.state : state,
      updated: Date.now(),
      ...(changed ? { changed } : {}),
      ...(thumbnail ? { thumbnail } : {}),
    });
  });
};

/**
 * A keeper for one job that was opened at `token`. `onSaved` is told of every step that is on disk. A step that can't
 * be stored waits, with all after it, so that the journal never has a hole: it is tried again until there is room,
 * unless the job was changed elsewhere or is gone.
 */
export const makeKeeper = (
  database: Database,
  job: string,
  token: number,
  { onSaved, onFailed }: Told,
  reserve?: Reserve,
): Keeper => {
  const by = crypto.randomUUID?.() ?? String(Math.random());
  const waiting: Step[] = [];
  let follows = token;
  let working: Promise<void> | undefined;
  let over = false;
  let refused = false;
  let retry: ReturnType<typeof setTimeout> | undefined;
  let timer: ReturnType<typeof setTimeout> | undefined;
  let latest: Drawing | undefined;
  const summarise = async (): Promise<void> => {
    clearTimeout(timer);
    const drawing = latest;
    latest = undefined;
    if (!drawing || over || waiting.length > 0) return;
    await summariseJob(database, job, drawing);
  };
  const write = async (): Promise<void> => {
    clearTimeout(retry);
    while (waiting.length > 0 && !over) {
      const step = waiting[0]!;
      try {
        if (refused) await openAgain(database);
        follows = await storeStep(database, step, { token: follows, by });
      } catch (reason) {
        over = isFinal(reason);
        refused = true;
        if (!over) retry = setTimeout(start, RETRY_MS);
        return onFailed(reason as Error, over);
      }
      refused = false;
      await reserve?.keep(step);
      waiting.shift();
      onSaved(step.history);
    }
  };
  const start = (): void => {
    working ??= write().finally(() => (working = undefined));
  };
  return {
    by,
    keep: (step) => {
      latest = step.drawing;
      waiting.push(step);
      start();
      clearTimeout(timer);
      // a greater one is summed up when the bench is left
      if (step.drawing.entity.size <= SUMMARY_LIMIT) timer = setTimeout(() => void sum(), SUMMARY_DELAY_MS);
    },
    again: () => start(),
    idle: async () => {
      await working;
      await sum();
    },
    end: () => {
      over = true;
      reserve?.end();
      clearTimeout(retry);
      clearTimeout(timer);
    },
  };

  /** What the list shows of the job is worth no alarm: it is written with the next step, or when the bench is left. */
  function sum(): Promise<void> {
    return (working ?? Promise.resolve()).then(summarise).catch(() => undefined);
  }
};
