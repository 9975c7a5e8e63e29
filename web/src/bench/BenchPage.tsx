import { useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { Link, useNavigate, useParams } from "react-router";
import { toast } from "sonner";
import { writeJobFile, type JobSketch } from "@ash-edge/core/formats/job";
import { NotFound } from "../app/NotFound.tsx";
import { useDatabase } from "../app/StoreProvider.tsx";
import { useDemo } from "../jobs/useDemo.ts";
import {
  exportRaw,
  loadJob,
  makeKeeper,
  sketchesOf,
  olderSteps,
  type Database,
  type JobRecord,
  type Keeper,
} from "../store/index.ts";
import { checked } from "../store/records.ts";
import { Brand } from "../ui/Brand.tsx";
import { saveAs } from "../ui/saveAs.ts";
import { Bench } from "./Bench.tsx";
import { KEPT_KEY, keptOf } from "./kept.ts";
import { leftView } from "./leftView.ts";
import { makeSession, type Session } from "./session.ts";
import { straightenSketch } from "./straightenSketch.ts";

type Opened = { readonly job: JobRecord; readonly session: Session; readonly keeper: Keeper };

const toBase64 = (bytes: Uint8Array): string => {
  let text = "";
  for (let i = 0; i < bytes.length; i += 0x8000) text += String.fromCharCode(...bytes.subarray(i, i + 0x8000));
  return btoa(text);
};

const saveFile = async (database: Database, job: JobRecord, session: Session): Promise<void> => {
  const sketches = (await sketchesOf(database, job.id)).map(({ name, type, bytes }): JobSketch => ({
    name,
    type,
    base64: toBase64(bytes),
  }));
  // its head may have changed since it was opened
  const { number, name, customer, material, thickness, quantity, due } = (await database.jobs.get(job.id)) ?? job;
  const text = writeJobFile(
    { number, name, customer, material, thickness, quantity, due },
    session.getState().history.drawing,
    sketches,
  );
  saveAs(`${number} ${name}.ashedge.json`.replace(/[^\w.-]+/g, "-"), text, "application/json");
};

const open = async (database: Database, id: string, go: (to: string) => void): Promise<Opened | undefined> => {
  const record = await database.jobs.get(id);
  if (!record) return undefined;
  const job = checked("job", record);
  const stored = await loadJob(database, id);
  if (!stored) return undefined;
  const kept = keptOf((await database.settings.get(KEPT_KEY))?.value);
  let session: Session | undefined = undefined as Session | undefined;
  const keeper = makeKeeper(database, id, {
    onSaved: (position) => session?.act.saved(position),
    onFailed: (reason) => session?.act.failed(reason.message),
  });
  session = makeSession(id, stored, {
    keeper,
    older: (first) => olderSteps(database, id, first),
    kept,
    view: leftView(id)?.view,
    layer: leftView(id)?.layer,
    carryOut: (ask, report, stop) => straightenSketch(database, id, ask, report, stop),
    remember: (value) => void database.settings.put({ key: KEPT_KEY, value }),
    notify: (text, again, undo) =>
      toast(text, {
        ...(again ? { action: { label: again.words, onClick: again.take }, duration: OFFER_MS } : {}),
        [again ? "cancel" : "action"]: { label: "Undo", onClick: undo },
      }),
    saveFile: () => session && void saveFile(database, job, session),
    openRelease: () => void keeper.idle().then(() => go(`/jobs/${id}/release`)),
  });
  return { job, session, keeper };
};

/** An offer to put a number back stands longer than a note: it is to be read and judged. */
const OFFER_MS = 12_000;

/** A job on the bench: opens it from the store, or says why it can't. */
export const BenchPage = () => {
  const { id = "" } = useParams();
  const database = useDatabase();
  const navigate = useNavigate();
  const demo = useDemo();
  const [goTo] = useState(() => (to: string) => void navigate(to));
  const opened = useQuery({
    queryKey: ["bench", id, demo.isPending],
    queryFn: async () => (await open(database, id, goTo)) ?? null,
    enabled: !demo.isPending,
    gcTime: 0,
    staleTime: Infinity,
  });
  const { keeper, session } = opened.data ?? {};
  useEffect(
    () => () => {
      void keeper?.idle();
      session?.act.leave();
      toast.dismiss(); // an undo offered here means this bench
    },
    [keeper, session],
  );
  if (opened.isError) return <Damaged id={id} reason={opened.error.message} />;
  if (opened.isPending) return <p className="p-8 text-soft">Opening the job …</p>;
  if (!opened.data) return <NotFound what="This job" />;
  return <Bench key={id} job={opened.data.job} session={opened.data.session} />;
};

const Damaged = ({ id, reason }: { id: string; reason: string }) => {
  const database = useDatabase();
  return (
    <main className="p-4">
      <Brand />
      <section className="card mx-auto mt-24 max-w-lg p-6">
        <h1 className="text-lg font-semibold text-fault">This job can’t be opened</h1>
        <p className="mt-2">{reason}</p>
        <p className="mt-2 text-soft">
          The other jobs are not touched. What is stored of this one can be saved as it is.
        </p>
        <div className="mt-4 flex gap-2">
          <button
            type="button"
            className="h-8 rounded-card bg-ember px-3 font-semibold text-panel"
            onClick={() =>
              void exportRaw(database, id).then((text) => saveAs(`${id}-raw.json`, text, "application/json"))
            }
          >
            Export raw
          </button>
          <Link to="/jobs" className="grid h-8 place-items-center rounded-card border border-hair px-3">
            Show all jobs
          </Link>
        </div>
      </section>
    </main>
  );
};
