import { useRef, useState } from "react";
import { toast } from "sonner";
import { applyEdit, invertEdit, type Drawing, type Edit } from "@ash-edge/core/drawing";
import { useDatabase } from "../app/StoreProvider.tsx";
import {
  sayStoreFault,
  storeStep,
  summariseJob,
  withStep,
  type History,
  type JobRecord,
  type StoredJob,
} from "../store/index.ts";

/** A job as it is proved: what is stored of it, and the ways to change that. */
export type ProvedJob = {
  readonly drawing: Drawing;
  /** Where it stands in the store. */
  readonly token: number;
  /** Makes an edit and stores it; `said` offers to undo it. */
  readonly edit: (make: (drawing: Drawing) => Edit | undefined, said?: string) => Promise<void>;
};

type Now = { readonly drawing: Drawing; readonly history: History; readonly token: number };

/**
 * What is ticked, waived and set while a job is proved is a step of its history as any other, stored before it is
 * shown: what another tab did meanwhile is told, and nothing is written over it.
 */
export const useProvedJob = (job: JobRecord, stored: StoredJob): ProvedJob => {
  const database = useDatabase();
  const [now, setNow] = useState<Now>(stored);
  const latest = useRef(now);
  const [by] = useState(() => crypto.randomUUID?.() ?? String(Math.random()));
  const waiting = useRef(Promise.resolve());
  const store = async (next: Omit<Now, "token">, edit?: Edit): Promise<void> => {
    const { token } = latest.current;
    const after = await storeStep(database, { job: job.id, ...next, ...(edit ? { edit } : {}) }, { token, by });
    latest.current = { ...next, token: after };
    await summariseJob(database, job.id, next.drawing);
    setNow(latest.current);
  };
  const told = (reason: unknown): void => void toast.error(sayStoreFault(reason));
  const edit: ProvedJob["edit"] = (make, said) => {
    // one after another: each is made from what the one before it left
    waiting.current = waiting.current.then(async () => {
      const { drawing, history } = latest.current;
      const made = make(drawing);
      if (!made) return void toast.error("It is not there any more.");
      const step = withStep(history, made);
      try {
        await store({ drawing: applyEdit(drawing, made), history: step }, made);
        if (said === undefined) return;
        toast(said, {
          id: "proved",
          action: {
            label: "Undo",
            onClick: () => {
              // only what was done last can be taken back here; the bench has all the steps
              if (latest.current.history !== step) return void toast("Something was done since. Undo it on the bench.");
              const before = applyEdit(latest.current.drawing, invertEdit(made));
              store({ drawing: before, history: { ...step, position: step.position - 1 } }).catch(told);
            },
          },
        });
      } catch (reason) {
        told(reason);
      }
    });
    return waiting.current;
  };
  return { drawing: now.drawing, token: now.token, edit };
};
