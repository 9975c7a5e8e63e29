import { useLiveQuery } from "dexie-react-hooks";
import { CircleHelp, Download, Pencil, Redo2, Undo2 } from "lucide-react";
import { useState } from "react";
import { Link, useNavigate } from "react-router";
import { unitOf } from "@ash-edge/core/drawing";
import { useDatabase } from "../app/StoreProvider.tsx";
import { JobDetails } from "../jobs/JobDetails.tsx";
import { saveRaw } from "../jobs/saveRaw.ts";
import { isInMemory, stepCount, type JobRecord } from "../store/index.ts";
import { Brand } from "../ui/Brand.tsx";
import { IconButton } from "../ui/IconButton.tsx";
import { ThemeButton } from "../ui/ThemeButton.tsx";
import { Guarded } from "./Guarded.tsx";
import { HistoryList } from "./HistoryList.tsx";
import { isSaved } from "./state/index.ts";
import { useBench, useSession } from "./SessionContext.tsx";
import { Steps } from "./Steps.tsx";
import { useAskBeforeLeaving } from "./useAskBeforeLeaving.ts";

/** What the bench is told of other tabs on its job. */
export type Elsewhere = { readonly changedSince: () => Promise<boolean>; readonly onTakeOver: () => void };

/** The job, what is done with it as a whole, and its steps. */
export const TopBar = ({ job, onChanged }: { job: JobRecord; onChanged: (job: JobRecord) => void }) => {
  const [asking, setAsking] = useState(false);
  const { act } = useSession();
  const navigate = useNavigate();
  const history = useBench((state) => state.history.steps);
  const saved = useBench((state) => isSaved(state.history));
  const readOnly = useBench((state) => state.history.readOnly !== undefined);
  const failure = useBench((state) => state.history.failure !== undefined);
  const unit = useBench((state) => unitOf(state.history.drawing));
  const inMemory = isInMemory(useDatabase());
  useAskBeforeLeaving(failure || (inMemory && history.position > 0));
  return (
    <header className="flex h-9 items-center gap-3 pl-1">
      <Brand />
      <nav aria-label="Place" className="flex min-w-0 whitespace-pre text-soft">
        <Link to="/jobs" className="hover:underline">
          Jobs
        </Link>
        {" / "}
        <b className="min-w-0 truncate text-ink" title={job.name}>{`${job.number} ${job.name}`}</b>
        {` · ${unit} · `}
        {/* whether it is saved is never cut off */}
        <span aria-live="polite" className="shrink-0">
          {readOnly
            ? "read only"
            : saved
              ? inMemory
                ? "in memory alone"
                : "saved"
              : failure
                ? "not saved"
                : "saving …"}
        </span>
      </nav>
      <IconButton label="Job details" onClick={() => setAsking(true)}>
        <Pencil size={14} />
      </IconButton>
      {asking && <JobDetails job={job} onClose={() => setAsking(false)} onChanged={onChanged} />}
      <span className="flex-1" />
      <div className="flex">
        <IconButton label="Undo" hint="Ctrl Z" disabled={history.position === 0} onClick={act.undo}>
          <Undo2 size={16} />
        </IconButton>
        <IconButton label="Redo" hint="Ctrl Y" disabled={history.position === stepCount(history)} onClick={act.redo}>
          <Redo2 size={16} />
        </IconButton>
        <HistoryList />
        <IconButton label="Save to a file" hint="Ctrl S" onClick={act.saveFile}>
          <Download size={16} />
        </IconButton>
        <IconButton label="Help" onClick={() => void navigate("/help")}>
          <CircleHelp size={16} />
        </IconButton>
        <ThemeButton />
      </div>
      <Guarded name="The steps">
        <Steps job={job} />
      </Guarded>
    </header>
  );
};

/** Why the job is read only in this tab, and the way out of that. */
export const ReadOnlyBar = ({ job, changedSince, onTakeOver }: { job: JobRecord } & Elsewhere) => {
  const why = useBench((state) => state.history.readOnly);
  const damage = useBench((state) => state.history.damage);
  const database = useDatabase();
  const isOld = useLiveQuery(async () => why === "elsewhere" && (await changedSince()), [why, changedSince]);
  if (!why) return null;
  return (
    <div role="alert" className="card flex items-center gap-3 !border-caution px-3 py-1.5">
      {why === "elsewhere" ? (
        <>
          <b className="text-caution">Open in another tab: read only here.</b>
          <span className="text-soft">
            {isOld
              ? "It was changed there since: take over to see it as it is now."
              : "It is shown as it was stored when it was opened here."}
          </span>
        </>
      ) : (
        <>
          <b className="text-caution">Part of this job can’t be read.</b>
          <span>{damage} The drawing is shown as it was before that.</span>
        </>
      )}
      <span className="flex-1" />
      {why === "damaged" && (
        <button
          type="button"
          className="h-8 shrink-0 rounded-card border border-hair px-3 hover:border-ink"
          onClick={() => void saveRaw(database, job.id)}
        >
          Export raw
        </button>
      )}
      <button
        type="button"
        className="h-8 shrink-0 rounded-card bg-ember px-3 font-semibold text-panel"
        onClick={onTakeOver}
      >
        {why === "elsewhere" ? "Take over" : "Go on from here"}
      </button>
    </div>
  );
};

/** Nothing is stored any more: said at once, with the way to keep the work. */
export const Failure = () => {
  const failure = useBench((state) => state.history.failure);
  const { act } = useSession();
  if (!failure) return null;
  return (
    <div role="alert" className="card flex items-center gap-3 !border-fault px-3 py-2">
      <b className="text-fault">What you draw now is not stored.</b>
      <span>{failure}</span>
      <span className="flex-1" />
      <button type="button" className="h-8 shrink-0 rounded-card border border-hair px-3" onClick={act.storeAgain}>
        Try again
      </button>
      <button type="button" className="h-8 shrink-0 rounded-card border border-hair px-3" onClick={act.saveFile}>
        Save to a file now
      </button>
    </div>
  );
};
