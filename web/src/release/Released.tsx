import { useLiveQuery } from "dexie-react-hooks";
import { CopyPlus, Download, Play } from "lucide-react";
import { Link, useNavigate } from "react-router";
import { toast } from "sonner";
import type { Drawing } from "@ash-edge/core/drawing";
import { revisionLetter } from "@ash-edge/core/release";
import { useDatabase } from "../app/StoreProvider.tsx";
import {
  duplicateJob,
  listJobs,
  nextJobNumber,
  placeInHistory,
  sayStoreFault,
  type BlobRecord,
  type JobRecord,
} from "../store/index.ts";
import { JobFolder } from "./JobFolder.tsx";
import { timeWords } from "../run/timeWords.ts";
import { IconButton } from "../ui/IconButton.tsx";
import { saveAs } from "../ui/saveAs.ts";

/** The files that were released, each to be had again; and whether the job was changed since. */
export const Released = ({
  job: record,
  drawing,
  releases,
}: {
  job: JobRecord;
  drawing: Drawing;
  releases: readonly BlobRecord[];
}) => {
  const job = record.id;
  const database = useDatabase();
  const navigate = useNavigate();
  const copy = async ({ name, at }: BlobRecord): Promise<void> => {
    try {
      const made = await duplicateJob(database, job, nextJobNumber(await listJobs(database)), at);
      if (made) await navigate(`/jobs/${made}`);
      else toast.error(`What ${name} was made from was undone and gone over since: there is no copy of that.`);
    } catch (reason) {
      toast.error(sayStoreFault(reason));
    }
  };
  const now = useLiveQuery(() => placeInHistory(database, job), [database, job]);
  return (
    <section className="card overflow-hidden" aria-label="Released files">
      <h2 className="px-4 py-2.5 font-semibold">Released files</h2>
      {releases.length === 0 && <p className="border-t border-hair px-4 py-2 text-soft">None yet.</p>}
      <ul>
        {releases.map((file) => (
          <li key={file.id} className="flex items-center gap-2 border-t border-hair px-4 py-2">
            <span className="min-w-0 flex-1">
              <b className="block truncate">{file.name}</b>
              <span className="figures block truncate text-xs text-soft" title={file.checksum}>
                no. {file.number}, {revisionLetter(file.number ?? 0)} ·{" "}
                {new Date(file.made).toLocaleString("en-GB", { dateStyle: "medium", timeStyle: "short" })}
              </span>
              {(file.profile ?? file.verdict) !== undefined && (
                <span className="block text-xs text-soft">
                  {[file.profile, file.verdict].filter(Boolean).join(" · ")}
                  {file.waived && file.waived.length > 0 && ` (${file.waived.join("; ")})`}
                </span>
              )}
              {file.run && (
                <span className="block text-xs text-soft">
                  Test run by {file.run.process}: {timeWords(file.run.time)}, {Math.round(file.run.cut)} mm cut
                </span>
              )}
              {file.at !== undefined && now !== undefined && file.at !== now && (
                <Link
                  to={`/jobs/${job}/compare?from=${encodeURIComponent(file.id)}&to=now`}
                  className="block text-xs text-caution underline"
                >
                  The job was changed since.
                </Link>
              )}
              <span className="figures block truncate text-xs text-soft">
                {file.checksum
                  ? `SHA-256 ${file.checksum.slice(0, 16)}…`
                  : "no checksum: the browser gives one only over https or on this machine"}
              </span>
            </span>
            <Link
              to={`/jobs/${job}/run/${file.number}`}
              aria-label={`Test run of ${file.name}`}
              title={file.run ? `Test run: ${timeWords(file.run.time)} by ${file.run.process}` : "Test run"}
              className="grid h-8 w-8 place-items-center rounded-card hover:bg-board"
            >
              <Play size={16} aria-hidden="true" />
            </Link>
            <IconButton
              label={`A copy of the job as it was at ${file.name}`}
              disabled={file.at === undefined}
              onClick={() => void copy(file)}
            >
              <CopyPlus size={16} aria-hidden="true" />
            </IconButton>
            <button
              type="button"
              aria-label={`Download ${file.name}`}
              className="grid h-8 w-8 place-items-center rounded-card hover:bg-board"
              onClick={() => saveAs(file.name, file.bytes, file.type)}
            >
              <Download size={16} aria-hidden="true" />
            </button>
          </li>
        ))}
      </ul>
      {releases[0] && (
        <JobFolder
          job={record}
          drawing={drawing}
          release={releases[0]}
          isChanged={releases[0].at !== undefined && now !== undefined && releases[0].at !== now}
        />
      )}
    </section>
  );
};
