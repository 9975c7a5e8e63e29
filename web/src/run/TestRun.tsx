import { useLiveQuery } from "dexie-react-hooks";
import { Pause, Play } from "lucide-react";
import { useEffect, useMemo, useState } from "react";
import { Link, useParams } from "react-router";
import { PROCESS_KINDS, PROCESSES, type CutterRun, type LayerTable, type ProcessKind } from "@ash-edge/core/cutter";
import { StoredJobPlace } from "../app/StoredJobPlace.tsx";
import { useDatabase } from "../app/StoreProvider.tsx";
import { releaseId, type BlobRecord, type JobRecord } from "../store/index.ts";
import { Segmented } from "../ui/Choice.tsx";
import { IconButton } from "../ui/IconButton.tsx";
import { JobHeader } from "../ui/JobHeader.tsx";
import { askCutter, type Asked } from "./askCutter.ts";
import { RunBoard } from "./RunBoard.tsx";
import { RunCharts } from "./RunCharts.tsx";
import { timeWords } from "./timeWords.ts";
import { usePlayed } from "./usePlayed.ts";

/** A released file on the test cutter. */
export const TestRun = () => {
  const { number = "" } = useParams();
  return <StoredJobPlace>{({ job }) => <Loaded job={job} number={Number(number)} />}</StoredJobPlace>;
};

const Loaded = ({ job, number }: { job: JobRecord; number: number }) => {
  const database = useDatabase();
  const file = useLiveQuery(
    async () => (await database.blobs.get(releaseId(job.id, number))) ?? null,
    [database, job.id, number],
  );
  return (
    <div className="mx-auto flex h-full min-h-[560px] max-w-[1240px] flex-col gap-3 p-4">
      <JobHeader job={job} at="run" />
      {file && <Ran job={job} file={file} />}
      {file === null && (
        <main className="card p-4">
          <p role="alert" className="text-fault">
            There is no such release of this job.
          </p>
          <Link to={`/jobs/${job.id}/release`} className="underline">
            To the releases
          </Link>
        </main>
      )}
    </div>
  );
};

/** Layers of releases that were written before it was kept what lies on them. */
const PLAIN: LayerTable = { OUTSIDE: "outside", INSIDE: "inside", MARK: "mark" };

type State =
  { readonly of: ProcessKind; readonly asked: Asked } | { readonly of: ProcessKind; readonly failed: string };

const Ran = ({ job, file }: { job: JobRecord; file: BlobRecord }) => {
  const database = useDatabase();
  const [kind, setKind] = useState<ProcessKind>(file.run?.process ?? "waterjet");
  const [state, setState] = useState<State>();
  const { id, bytes, uses } = file;
  const text = useMemo(() => new Uint8Array(bytes), [id]); // eslint-disable-line react-hooks/exhaustive-deps
  const layers = useMemo(() => uses ?? PLAIN, [id]); // eslint-disable-line react-hooks/exhaustive-deps
  useEffect(() => {
    const own = new AbortController();
    askCutter(text, kind, layers, own.signal).then(
      (asked) => {
        if (own.signal.aborted) return;
        setState({ of: kind, asked });
        if (!("run" in asked)) return;
        const { time, cut, travel, pierces } = asked.run;
        const run = { process: kind, made: Date.now(), time, cut, travel, pierces };
        database.blobs.update(id, { run }).catch(() => undefined); // worth no alarm: it can be run again
      },
      (reason: Error) => !own.signal.aborted && setState({ of: kind, failed: reason.message }),
    );
    return () => own.abort();
  }, [database, id, text, layers, kind]);
  const now = state?.of === kind ? state : undefined;
  const asked = now && "asked" in now ? now.asked : undefined;
  const run = asked && "run" in asked ? asked.run : undefined;
  const played = usePlayed(run, asked?.id);
  return (
    <main className="grid min-h-0 flex-1 grid-cols-[1fr_360px] gap-3" aria-label={`Test run of ${file.name}`}>
      <section className="card min-h-0 overflow-hidden bg-board" aria-label="Bed">
        {run ? (
          <RunBoard run={run} kind={kind} time={played.time} />
        ) : (
          <p className="grid h-full place-items-center text-soft">
            {now ? "It does not start." : "Handed to the cutter …"}
          </p>
        )}
      </section>
      <section className="card flex min-h-0 flex-col gap-3 overflow-y-auto p-4" aria-label="Test cutter">
        <div>
          <h1 className="text-lg font-semibold">Fernhollow test cutter</h1>
          <p className="text-soft">{file.name}. A made-up machine: it shows the order, not what yours will take.</p>
        </div>
        <Segmented
          label="Process"
          options={PROCESS_KINDS.map((one) => [one, one] as const)}
          value={kind}
          onChange={(to) => setKind(to as ProcessKind)}
        />
        {now && "failed" in now && (
          <p role="alert" className="text-fault">
            It was not run: {now.failed}
          </p>
        )}
        {asked && "refused" in asked && (
          <p role="alert" className="text-fault">
            It does not start. {asked.refused}
          </p>
        )}
        {run && (
          <>
            <Totals run={run} kind={kind} atServer={asked?.id !== undefined} />
            <div className="flex items-center gap-2">
              <IconButton
                label={played.playing ? "Pause" : "Play"}
                onClick={played.playing ? played.pause : played.play}
              >
                {played.playing ? <Pause size={16} aria-hidden="true" /> : <Play size={16} aria-hidden="true" />}
              </IconButton>
              <input
                type="range"
                aria-label="Time of the run"
                min={0}
                max={run.time}
                step={run.time / 1000}
                value={played.time}
                className="min-w-0 flex-1 accent-[var(--ember)]"
                onChange={(event) => played.seek(Number(event.target.value))}
              />
              <span className="figures w-20 text-right text-xs">{timeWords(played.time)}</span>
            </div>
            <Segmented
              label="Speed"
              options={[1, 10, 50, 200].map((one) => [String(one), `${one} ×`] as const)}
              value={String(played.speed)}
              onChange={(to) => played.setSpeed(Number(to))}
            />
            <RunCharts run={run} process={PROCESSES[kind]} onTime={played.seek} />
          </>
        )}
        <Link to={`/jobs/${job.id}/release`} className="underline">
          Back to the releases
        </Link>
      </section>
    </main>
  );
};

const Totals = ({ run, kind, atServer }: { run: CutterRun; kind: ProcessKind; atServer: boolean }) => {
  const { feed, pierce, kerf, bed } = PROCESSES[kind];
  const rows = [
    ["time", timeWords(run.time)],
    ["cut", `${run.cut.toFixed(1)} mm`],
    ["travel", `${run.travel.toFixed(1)} mm`],
    ["pierces", String(run.pierces)],
    ...(run.unled > 0 ? [["without a way in", String(run.unled)]] : []),
  ];
  return (
    <>
      <dl className="grid grid-cols-[auto_1fr] gap-x-4 gap-y-1">
        {rows.map(([name, value]) => (
          <div key={name} className="contents">
            <dt className="text-soft">{name}</dt>
            <dd className="figures text-right">{value}</dd>
          </div>
        ))}
      </dl>
      <p className="text-xs text-soft">
        {feed} mm/min, {pierce} s a pierce, kerf {kerf} mm, bed {bed[0]} × {bed[1]} mm.{" "}
        {atServer ? "Run by the server." : "No server is there: run in this page, by the same code."}
      </p>
    </>
  );
};
