import { useEffect } from "react";
import type { Verdict } from "@ash-edge/core/checks";
import { useDatabase } from "../app/StoreProvider.tsx";
import { keepVerdict, type JobRecord } from "../store/index.ts";

/** Keeps the verdict on a job as it is stored at `token`, for the list of jobs; worth no alarm where it can't be. */
export const useKeptVerdict = (job: JobRecord, token: number, verdict: Verdict | undefined): void => {
  const database = useDatabase();
  useEffect(() => {
    if (verdict) keepVerdict(database, job, token, verdict).catch(() => undefined);
  }, [database, job, token, verdict]);
};
