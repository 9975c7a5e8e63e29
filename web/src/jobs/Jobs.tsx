import { useLiveQuery } from "dexie-react-hooks";
import { FileWarning, Plus } from "lucide-react";
import { useState } from "react";
import { Link, useNavigate } from "react-router";
import { useDatabase } from "../app/StoreProvider.tsx";
import { exportRaw, listJobs, nextJobNumber, type JobRecord } from "../store/index.ts";
import { Brand } from "../ui/Brand.tsx";
import { saveAs } from "../ui/saveAs.ts";
import { ThemeButton } from "../ui/ThemeButton.tsx";
import { JobPicture } from "./JobPicture.tsx";
import { NewJob } from "./NewJob.tsx";
import { useDemo } from "./useDemo.ts";

const STATE_COLOUR = { sketched: "text-soft", drawn: "text-ink", proved: "text-moss", released: "text-moss" } as const;

const Row = ({ job }: { job: JobRecord }) => {
  const navigate = useNavigate();
  return (
    <tr className="cursor-pointer border-t border-hair hover:bg-board" onClick={() => void navigate(`/jobs/${job.id}`)}>
      <td className="w-28 py-2 pl-3">
        <JobPicture job={job} />
      </td>
      <td className="figures w-16 font-semibold">{job.number}</td>
      <td>
        <Link
          to={`/jobs/${job.id}`}
          onClick={(event) => event.stopPropagation()}
          className="font-semibold hover:underline"
        >
          {job.name}
        </Link>
        <div className="text-soft">{job.customer}</div>
      </td>
      <td className="text-soft">{[job.thickness, job.material].filter(Boolean).join(" ")}</td>
      <td className="figures w-14 text-soft">{job.unit}</td>
      <td className="figures w-14 text-soft">{job.quantity} ×</td>
      <td className="figures w-28 text-soft">{job.due}</td>
      <td className={`w-24 pr-3 ${STATE_COLOUR[job.state]}`}>{job.state}</td>
    </tr>
  );
};

const DamagedRow = ({ id }: { id: string }) => {
  const database = useDatabase();
  return (
    <tr className="border-t border-hair">
      <td className="w-28 py-2 pl-3 text-fault">
        <FileWarning size={28} aria-hidden="true" />
      </td>
      <td colSpan={6}>
        <div className="font-semibold text-fault">This job’s record is damaged and can’t be opened</div>
        <div className="text-soft">The other jobs are sound. Export what is stored of it ({id}) and keep the file.</div>
      </td>
      <td className="pr-3">
        <button
          type="button"
          className="h-8 rounded-card border border-hair px-2.5 hover:bg-board"
          onClick={() =>
            void exportRaw(database, id).then((text) => saveAs(`${id}-raw.json`, text, "application/json"))
          }
        >
          Export raw
        </button>
      </td>
    </tr>
  );
};

/** The list of jobs, and the way to a new one. */
export const Jobs = () => {
  const database = useDatabase();
  const demo = useDemo();
  const jobs = useLiveQuery(() => listJobs(database), [database]);
  const [making, setMaking] = useState(false);
  return (
    <div className="mx-auto flex min-h-full max-w-[1240px] flex-col gap-3 p-4">
      <header className="flex items-center justify-between">
        <Brand />
        <ThemeButton />
      </header>
      <main className="card overflow-hidden">
        <div className="flex items-center justify-between px-3 py-2.5">
          <h1 className="text-lg font-semibold">
            Jobs {jobs && <span className="figures ml-1 text-sm font-normal text-soft">{jobs.length}</span>}
          </h1>
          <button
            type="button"
            disabled={!jobs || demo.isPending}
            className="inline-flex h-8 items-center gap-1.5 rounded-card bg-ember px-3 font-semibold text-panel disabled:opacity-60"
            onClick={() => setMaking(true)}
          >
            <Plus size={16} aria-hidden="true" /> New job
          </button>
        </div>
        {demo.error && (
          <p className="border-t border-hair px-3 py-2 text-fault" role="alert">
            {demo.error.message}
          </p>
        )}
        {jobs && jobs.length > 0 && (
          <table className="w-full text-left">
            <thead className="text-xs text-soft">
              <tr className="border-t border-hair">
                {["", "No.", "Part", "Material", "Unit", "Qty", "Due", "State"].map((title, i) => (
                  <th key={title || i} scope="col" className={`py-1.5 font-normal ${i === 0 ? "pl-3" : ""}`}>
                    {title || <span className="sr-only">Picture</span>}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {jobs.map(({ id, job }) => (job ? <Row key={id} job={job} /> : <DamagedRow key={id} id={id} />))}
            </tbody>
          </table>
        )}
        {jobs?.length === 0 && !demo.isPending && (
          <div className="border-t border-hair px-3 py-16 text-center">
            <p className="text-base">No jobs yet.</p>
            <p className="mt-1 text-soft">Make one with its number, its name and the unit of its sketch.</p>
            <button
              type="button"
              className="mt-4 h-8 rounded-card bg-ember px-3 font-semibold text-panel"
              onClick={() => setMaking(true)}
            >
              Make the first job
            </button>
          </div>
        )}
        {(!jobs || (jobs.length === 0 && demo.isPending)) && (
          <p className="border-t border-hair px-3 py-16 text-center text-soft">Opening the jobs …</p>
        )}
      </main>
      {making && jobs && (
        <NewJob
          number={nextJobNumber(jobs)}
          taken={jobs.flatMap(({ job }) => job?.number ?? [])}
          onClose={() => setMaking(false)}
        />
      )}
    </div>
  );
};
