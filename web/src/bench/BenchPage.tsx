import { useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { Link, useNavigate, useParams } from "react-router";
import { toast } from "sonner";
import { NotFound } from "../app/NotFound.tsx";
import { useDatabase } from "../app/StoreProvider.tsx";
import { saveRaw } from "../jobs/saveRaw.ts";
import { useDemo } from "../jobs/useDemo.ts";
import {
  checked,
  exampleNow,
  goOnFrom,
  holdJob,
  keepExample,
  loadJob,
  makeKeeper,
  makeReserve,
  olderSteps,
  reserveFiles,
  sayStoreFault,
  sketchesOf,
  wasChangedSince,
  type Database,
  type JobHold,
  type JobRecord,
  type Keeper,
} from "../store/index.ts";
import { Brand } from "../ui/Brand.tsx";
import { dropPassing } from "../ui/standingNotes.ts";
import { Bench } from "./Bench.tsx";
import { KEPT_KEY, keptOf } from "./kept.ts";
import { leftView } from "./leftView.ts";
import { focusBoard } from "./useBenchKeys.ts";
import { saveJobFile } from "./saveJobFile.ts";
import { makeSession, type Session } from "./session.ts";
import { traceSketch } from "./tracing/traceSketch.ts";
import { straightenSketch } from "./straightenSketch.ts";

type Opened = {
  readonly job: JobRecord;
  readonly session: Session;
  /** True once another tab has stored something since. */
  readonly changedSince: () => Promise<boolean>;
  readonly keeper: Keeper;
  readonly hold: JobHold;
};

/** How it is opened again: the other tab hands over, or the damage is left behind. */
type Again = { readonly turn: number; readonly how: "at first" | "elsewhere" | "damaged" };

const open = async (
  database: Database,
  id: string,
  how: Again["how"],
  go: (to: string, state: object) => void,
): Promise<Opened | undefined> => {
  let session: Session | undefined = undefined as Session | undefined;
  let keeper: Keeper | undefined = undefined as Keeper | undefined;
  const hold = await holdJob(id, {
    onLost: () => session?.act.lost(),
    finish: async () => {
      await keeper?.idle();
      keeper?.end();
    },
  });
  try {
    if (how !== "at first") await hold.takeOver();
    const [record, found, bench, followed] = await Promise.all([
      database.jobs.get(id),
      loadJob(database, id),
      database.settings.get(KEPT_KEY).catch(() => undefined),
      exampleNow(database).catch(() => undefined),
    ]);
    let stored = record && found;
    if (!record || record.binned !== undefined || !stored) return void hold.letGo();
    const job = checked("job", record);
    if (stored.damage && how === "damaged") {
      await goOnFrom(database, id, stored);
      stored = (await loadJob(database, id))!;
    }
    const { kept, lost } = keptOf(bench?.value);
    const mayChange = hold.isMine() && !stored.damage;
    keeper = makeKeeper(
      database,
      id,
      stored.token,
      {
        onSaved: () => session?.act.saved(),
        onFailed: (reason) => session?.act.failed(sayStoreFault(reason)),
      },
      mayChange ? makeReserve(reserveFiles(database), job, stored, () => sketchesOf(database, id)) : undefined,
    );
    const { by } = keeper;
    const { token } = stored;
    session = makeSession(id, stored, {
      keeper,
      older: (first) => olderSteps(database, id, first),
      kept,
      readOnly: hold.isMine() ? (stored.damage ? "damaged" : undefined) : "elsewhere",
      followed:
        followed?.job === id
          ? {
              now: followed,
              remember: (now) => void keepExample(database, now && { job: id, ...now }).catch(() => undefined),
            }
          : undefined,
      view: leftView(id)?.view,
      layer: leftView(id)?.layer,
      carryOut: (ask, report, stop) => straightenSketch(database, id, ask, report, stop),
      trace: (picture, box, report, stop) => traceSketch(database, picture, box, report, stop),
      // what is remembered of the bench is worth no alarm where there is no room for it
      remember: (value) => void database.settings.put({ key: KEPT_KEY, value }).catch(() => undefined),
      notify: (text, again, undo) =>
        toast(text, {
          ...(again ? { action: { label: again.words, onClick: again.take }, duration: OFFER_MS } : {}),
          [again ? "cancel" : "action"]: { label: "Undo", onClick: undo },
        }),
      toBoard: () => setTimeout(focusBoard),
      saveFile: () =>
        void (
          session &&
          saveJobFile(database, job, session.getState().history.drawing).then((message) => {
            // a refusal stands, with what it offers, until something is done about it
            const refused = session?.getState().panels.message?.tone === "fault";
            if (message.tone === "fault" || !refused) session?.act.say(message);
          })
        ),
      openPlace: (place, selected) => go(`/jobs/${id}/${place}`, { selected }),
    });
    if (lost.length > 0) {
      // said once: what is kept now is sound
      session.act.say({
        text: `What was kept of ${lost.join(", ")} could not be read: as at first again.`,
        tone: "said",
      });
      void database.settings.put({ key: KEPT_KEY, value: kept }).catch(() => undefined);
    }
    return { job, session, changedSince: () => wasChangedSince(database, id, token, by), keeper, hold };
  } catch (reason) {
    hold.letGo();
    throw reason;
  }
};

/** An offer to put a number back stands longer than a note: it is to be read and judged. */
const OFFER_MS = 12_000;

/** A job on the bench: opens it from the store, or says why it can't. */
export const BenchPage = () => {
  const { id = "" } = useParams();
  const database = useDatabase();
  const navigate = useNavigate();
  const demo = useDemo();
  const [goTo] = useState(() => (to: string, state: object) => void navigate(to, { state }));
  const [again, setAgain] = useState<Again>({ turn: 0, how: "at first" });
  const opened = useQuery({
    queryKey: ["bench", id, again.turn],
    queryFn: async () => (await open(database, id, again.how, goTo)) ?? null,
    gcTime: 0,
    staleTime: Infinity,
  });
  // a demo job that is opened by its address comes with the demo: it is looked for again then
  const { refetch } = opened;
  const isMissing = opened.data === null;
  const [looked, setLooked] = useState<string>();
  useEffect(() => {
    if (isMissing && !demo.isPending) void refetch().finally(() => setLooked(id));
  }, [isMissing, demo.isPending, refetch, id]);
  const { keeper, session, hold } = opened.data ?? {};
  useEffect(
    () => () => {
      session?.act.leave();
      void keeper?.idle().finally(() => {
        keeper.end();
        hold?.letGo();
      });
      dropPassing();
    },
    [keeper, session, hold],
  );
  if (opened.isError) return <Damaged id={id} reason={sayStoreFault(opened.error)} />;
  if (opened.isPending || (isMissing && looked !== id)) return <p className="p-8 text-soft">Opening the job …</p>;
  if (!opened.data) return <NotFound what="This job" />;
  const { job, changedSince } = opened.data;
  const takeOver = (): void =>
    setAgain(({ turn }) => ({ turn: turn + 1, how: session?.getState().history.readOnly ?? "elsewhere" }));
  return (
    <Bench
      key={`${id} ${again.turn}`}
      job={job}
      session={opened.data.session}
      changedSince={changedSince}
      onTakeOver={takeOver}
    />
  );
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
            onClick={() => void saveRaw(database, id)}
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
