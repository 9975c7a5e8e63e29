import { useQuery } from "@tanstack/react-query";
import { useState, type ReactNode } from "react";
import { Link, useParams } from "react-router";
import { checked, loadJob, placeInHistory, sayStoreFault, type JobRecord, type StoredJob } from "../store/index.ts";
import { NotFound } from "./NotFound.tsx";
import { useDatabase } from "./StoreProvider.tsx";

/** A job as it stands in the store, and the place in its history where that is. */
export type Opened = { readonly job: JobRecord; readonly stored: StoredJob; readonly at: string };

/** A place that shows a job as it is stored: opens it, or says why it can't. */
export const StoredJobPlace = ({ children }: { children: (opened: Opened) => ReactNode }) => {
  const { id = "" } = useParams();
  const database = useDatabase();
  // what another place of the job read may be older than what was stored since
  const [own] = useState(() => Math.random());
  const opened = useQuery({
    queryKey: ["stored", id, own],
    refetchOnWindowFocus: false,
    queryFn: async (): Promise<Opened | null> => {
      const job = await database.jobs.get(id);
      const stored = job && job.binned === undefined ? await loadJob(database, id) : undefined;
      return job && stored ? { job: checked("job", job), stored, at: await placeInHistory(database, id) } : null;
    },
    gcTime: 0,
    staleTime: 0,
  });
  if (opened.isError)
    return (
      <main className="p-8">
        <p role="alert" className="text-fault">
          {sayStoreFault(opened.error)}
        </p>
        <Link to={`/jobs/${id}`} className="underline">
          Back to the job
        </Link>
      </main>
    );
  if (opened.isPending) return <p className="p-8 text-soft">Opening …</p>;
  return opened.data ? children(opened.data) : <NotFound what="This job" />;
};
