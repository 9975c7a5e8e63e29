import { useLiveQuery } from "dexie-react-hooks";
import { Trash2 } from "lucide-react";
import { useState } from "react";
import { useDatabase } from "../app/StoreProvider.tsx";
import { BIN_DAYS, binnedJobs, eraseJob, goesAt, unbinJob } from "../store/index.ts";

const day = (time: number): string => new Date(time).toISOString().slice(0, 10);
const button = "h-7 shrink-0 rounded-card border border-hair px-2.5 hover:border-ink";

/** The jobs that were deleted: each can be put back until its day. */
export const Bin = () => {
  const database = useDatabase();
  const jobs = useLiveQuery(() => binnedJobs(database), [database]);
  // nothing brings back what is deleted here: it takes two clicks
  const [asked, setAsked] = useState<string>();
  return (
    <section aria-label="Bin" className="max-h-64 shrink-0 overflow-y-auto border-t border-hair bg-board">
      <p className="px-3 py-2 text-soft">
        {jobs?.length === 0
          ? "The bin is empty."
          : `What was deleted is kept for ${BIN_DAYS} days, with its history, its sketches and its releases.`}
      </p>
      <ul>
        {jobs?.map((job) => (
          <li key={job.id} className="flex items-center gap-3 border-t border-hair px-3 py-1.5">
            <Trash2 size={14} className="text-soft" aria-hidden="true" />
            <span className="figures font-semibold">{job.number}</span>
            <span className="min-w-0 flex-1 truncate">
              {job.name} <span className="text-soft">{job.customer}</span>
            </span>
            <span className="figures text-xs text-soft">
              deleted {day(job.binned!)}, goes {day(goesAt(job))}
            </span>
            <button
              type="button"
              className={button}
              aria-label={`Put ${job.number} ${job.name} back`}
              onClick={() => void unbinJob(database, job.id)}
            >
              Put back
            </button>
            <button
              type="button"
              className={`${button} text-fault`}
              aria-label={`Delete ${job.number} ${job.name} for good`}
              onBlur={() => setAsked(undefined)}
              onClick={() => (asked === job.id ? void eraseJob(database, job.id) : setAsked(job.id))}
            >
              {asked === job.id ? "Yes, for good" : "Delete for good"}
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
};
