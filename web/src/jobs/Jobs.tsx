import { useLiveQuery } from "dexie-react-hooks";
import { FileWarning, FolderOpen, Plus, Search, Trash2 } from "lucide-react";
import { useEffect, useMemo, useRef, useState } from "react";
import { toast } from "sonner";
import { Page } from "../app/Page.tsx";
import { useDatabase } from "../app/StoreProvider.tsx";
import { DrawTheExample } from "../help/DrawTheExample.tsx";
import {
  emptyBin,
  isStoreFault,
  JOB_STATES,
  listJobs,
  nextJobNumber,
  sayStoreFault,
  verdictsNow,
} from "../store/index.ts";
import { Segmented } from "../ui/Choice.tsx";
import { filesOf } from "../ui/readPicture.ts";
import { Bin } from "./Bin.tsx";
import { JobTable } from "./JobTable.tsx";
import { NewJob } from "./NewJob.tsx";
import { OpenFile } from "./OpenFile.tsx";
import { saveRaw } from "./saveRaw.ts";
import { useDemo } from "./useDemo.ts";
import { useTableSettings } from "./useTableSettings.ts";

/** A dialog that is open, and what was dropped or pasted to begin with. */
type Begun = { readonly files?: readonly File[] };

const primary =
  "inline-flex h-8 shrink-0 items-center gap-1.5 rounded-card bg-ember px-3 font-semibold whitespace-nowrap " +
  "text-panel disabled:opacity-60";

/** The list of jobs, and the way to a new one. */
export const Jobs = () => {
  const database = useDatabase();
  const demo = useDemo();
  const listed = useLiveQuery(() => listJobs(database), [database]);
  const [making, setMaking] = useState<Begun>();
  const [opening, setOpening] = useState<Begun>();
  const [binShown, setBinShown] = useState(false);
  useEffect(() => void emptyBin(database).catch(() => undefined), [database]);
  const [settings, change] = useTableSettings();
  const jobs = useMemo(() => listed?.flatMap(({ job }) => job ?? []), [listed]);
  const verdicts = useLiveQuery(() => verdictsNow(database, jobs ?? []), [database, jobs]);
  const damaged = listed?.filter(({ job }) => !job) ?? [];
  const settled = listed && !demo.isPending;
  const begin = (files: readonly File[]): void => {
    if (files.length === 0 || !settled || making || opening) return;
    const drawing = files.find(({ name }) => /\.(?:dxf|svg|json)$/i.test(name));
    if (!drawing) return setMaking({ files });
    setOpening({ files: [drawing] });
    const left = files.filter((file) => file !== drawing).map(({ name }) => name);
    if (left.length > 0) toast(`A job has one drawing, so ${drawing.name} is opened. Not taken: ${left.join(", ")}.`);
  };
  const pasted = useRef(begin);
  useEffect(() => {
    pasted.current = begin;
  });
  useEffect(() => {
    const onPaste = (event: ClipboardEvent): void => pasted.current(filesOf(event.clipboardData));
    document.addEventListener("paste", onPaste);
    return () => document.removeEventListener("paste", onPaste);
  }, []);
  const [over, setOver] = useState(false);
  return (
    <Page title="Jobs">
      <div
        onDragOver={(event) => {
          event.preventDefault();
          setOver(true);
        }}
        onDragLeave={() => setOver(false)}
        onDrop={(event) => {
          event.preventDefault();
          setOver(false);
          begin(filesOf(event.dataTransfer));
        }}
        className={`mx-auto h-full max-w-[1240px] rounded-card ${over ? "outline-2 outline-ember" : ""}`}
      >
        <div className="card flex h-full flex-col overflow-hidden">
          <div className="flex flex-wrap items-center gap-3 px-3 py-2.5">
            <h1 className="text-lg font-semibold whitespace-nowrap">
              Jobs {listed && <span className="figures ml-1 text-sm font-normal text-soft">{listed.length}</span>}
            </h1>
            <label className="relative ml-3 w-64">
              <Search size={14} className="absolute top-2 left-2.5 text-soft" aria-hidden="true" />
              <input
                type="search"
                aria-label="Search the jobs"
                placeholder="Number, part, customer, material"
                value={settings.search}
                onChange={(event) => change({ search: event.target.value })}
                className="h-8 w-full rounded-card border border-hair bg-board pr-2 pl-8 placeholder:text-soft"
              />
            </label>
            <Segmented
              label="State"
              options={[["all", "all"], ...JOB_STATES.map((state) => [state, state] as const)]}
              value={settings.state}
              onChange={(state) => change({ state: state as typeof settings.state })}
            />
            <label className="inline-flex items-center gap-1.5 text-soft">
              <input
                type="checkbox"
                checked={settings.archived}
                onChange={(event) => change({ archived: event.target.checked })}
              />{" "}
              archived
            </label>
            <button
              type="button"
              aria-pressed={binShown}
              className={`inline-flex items-center gap-1 ${binShown ? "font-semibold" : "text-soft hover:text-ink"}`}
              onClick={() => setBinShown(!binShown)}
            >
              <Trash2 size={14} aria-hidden="true" /> Bin
            </button>
            <span className="flex-1" />
            <button
              type="button"
              disabled={!settled}
              className={
                "inline-flex h-8 shrink-0 items-center gap-1.5 rounded-card border border-hair px-3 " +
                "whitespace-nowrap hover:border-ink disabled:opacity-50"
              }
              onClick={() => setOpening({})}
            >
              <FolderOpen size={16} aria-hidden="true" /> Open a file
            </button>
            <button type="button" disabled={!settled} className={primary} onClick={() => setMaking({})}>
              <Plus size={16} aria-hidden="true" /> New job
            </button>
          </div>
          {binShown && <Bin />}
          {demo.error && (
            <p className="border-t border-hair px-3 py-2 text-fault" role="alert">
              {isStoreFault(demo.error) ? sayStoreFault(demo.error) : demo.error.message}
            </p>
          )}
          {damaged.map(({ id }) => (
            <Damaged key={id} id={id} />
          ))}
          {jobs && jobs.length > 0 && (
            <JobTable
              jobs={jobs}
              verdicts={verdicts}
              nextNumber={nextJobNumber(listed!)}
              settings={settings}
              onChange={change}
            />
          )}
          {listed?.length === 0 && settled && (
            <div className="border-t border-hair px-3 py-16 text-center">
              <p className="text-base">No jobs yet.</p>
              <p className="mt-1 text-soft">
                Make one with its number, its name, the unit of its sketch, and pictures of it.
              </p>
              <div className="mt-4 flex justify-center gap-2">
                <button type="button" className={primary} onClick={() => setMaking({})}>
                  Make the first job
                </button>
                <DrawTheExample />
              </div>
            </div>
          )}
          {!demo.error && (!listed || (listed.length === 0 && demo.isPending)) && (
            <p className="border-t border-hair px-3 py-16 text-center text-soft">Opening the jobs …</p>
          )}
        </div>
      </div>
      {opening && listed && (
        <OpenFile
          {...(opening.files?.[0] ? { file: opening.files[0] } : {})}
          number={nextJobNumber(listed)}
          taken={jobs?.map(({ number }) => number) ?? []}
          onClose={() => setOpening(undefined)}
        />
      )}
      {making && listed && (
        <NewJob
          {...(making.files ? { files: making.files } : {})}
          number={nextJobNumber(listed)}
          taken={jobs?.map(({ number }) => number) ?? []}
          onClose={() => setMaking(undefined)}
        />
      )}
    </Page>
  );
};

const Damaged = ({ id }: { id: string }) => {
  const database = useDatabase();
  return (
    <div className="flex items-center gap-3 border-t border-hair px-3 py-2">
      <FileWarning size={28} className="text-fault" aria-hidden="true" />
      <div className="flex-1">
        <div className="font-semibold text-fault">This job’s record is damaged and can’t be opened</div>
        <div className="text-soft">The other jobs are sound. Export what is stored of it ({id}) and keep the file.</div>
      </div>
      <button
        type="button"
        className="h-8 rounded-card border border-hair px-2.5 hover:bg-board"
        onClick={() => void saveRaw(database, id)}
      >
        Export raw
      </button>
    </div>
  );
};
