import { useMemo, useState } from "react";
import { Link, useNavigate } from "react-router";
import { answerCallout, calloutText, refPointed, withPointed } from "@ash-edge/core/callouts";
import { calloutRows, type Fault } from "@ash-edge/core/checks";
import { calloutsOf, TABLES, unitOf, type Drawing, type Ref } from "@ash-edge/core/drawing";
import { indexDrawing } from "@ash-edge/core/look";
import type { Id } from "@ash-edge/core/numeric";
import { StoredJobPlace } from "../app/StoredJobPlace.tsx";
import { Checks } from "../release/Checks.tsx";
import { stockOf } from "../release/stockOf.ts";
import { useKeptVerdict } from "../release/useKeptVerdict.ts";
import type { AskedFor } from "../release/release.worker.ts";
import { useJobProfile } from "../release/useJobProfile.ts";
import { useLooked } from "../release/useLooked.ts";
import type { JobRecord, StoredJob } from "../store/index.ts";
import { JobHeader } from "../ui/JobHeader.tsx";
import type { Point } from "@ash-edge/core/geometry";
import { AlongChart } from "./AlongChart.tsx";
import { CalloutTable } from "./CalloutTable.tsx";
import { MadeWith } from "./MadeWith.tsx";
import { NumbersCard } from "./NumbersCard.tsx";
import { PinPicture } from "./PinPicture.tsx";
import { PointAnew } from "./PointAnew.tsx";
import { ProofPicture } from "./ProofPicture.tsx";
import { useProvedJob } from "./useProvedJob.ts";

/** Whether a job is what the customer called, and whether it can be cut. */
export const Prove = () => (
  <StoredJobPlace>
    {({ job, stored }) =>
      stored.damage ? (
        <main className="p-8">
          <p role="alert" className="text-fault">
            What is stored of this job is damaged, so it can’t be proved. The bench says what there is to do.
          </p>
          <Link to={`/jobs/${job.id}`} className="underline">
            To the bench
          </Link>
        </main>
      ) : (
        <Sheet {...{ job, stored }} />
      )
    }
  </StoredJobPlace>
);

const Sheet = ({ job, stored }: { job: JobRecord; stored: StoredJob }) => {
  const { drawing, token, edit } = useProvedJob(job, stored);
  const rows = useMemo(() => calloutRows(drawing), [drawing]);
  const navigate = useNavigate();
  const checkedNow = useCheckedNow(drawing);
  const { kept, profile } = useJobProfile(job.id);
  const asked = useMemo(
    (): AskedFor => ({ stock: stockOf(job, unitOf(checkedNow)), profile, unseen: true }),
    [job, checkedNow, profile],
  );
  const { looking, stop, again } = useLooked(checkedNow, asked);
  const looked = looking.state === "looked" ? looking.looked : undefined;
  // until it is known for which machine, nothing that is said of it is kept
  useKeptVerdict(job, token, kept && looked?.verdict);
  const [chosen, setChosen] = useState<Id>();
  const [fault, setFault] = useState<Fault>();
  const [place, setPlace] = useState<Point>();
  const callout = rows.find((row) => row.callout.id === chosen)?.callout;
  const [pointing, setPointing] = useState<Pointing>();
  const pointed = pointing && rows.find((row) => row.callout.id === pointing.id)?.callout;
  const index = useMemo(() => (pointed ? indexDrawing(drawing) : undefined), [pointed, drawing]);
  return (
    <div className="flex h-full min-h-[560px] flex-col gap-3 p-4 max-[999px]:h-auto">
      <JobHeader job={job} at="prove" />
      <main
        aria-label={`Prove ${job.name}`}
        className={
          "grid min-h-0 flex-1 grid-cols-[minmax(360px,1.5fr)_minmax(220px,1fr)_minmax(300px,340px)] gap-3 " +
          "max-[999px]:grid-cols-[minmax(360px,1.2fr)_minmax(220px,1fr)] max-[999px]:grid-rows-[460px_auto]"
        }
      >
        <CalloutTable
          rows={rows}
          unit={unitOf(drawing)}
          name={`${job.number} ${job.name}`}
          chosen={chosen}
          onChoose={(id) => {
            setChosen(id);
            setFault(undefined);
            setPlace(undefined);
          }}
          edit={edit}
          onMakeTrue={(ids) => void navigate(`/jobs/${job.id}`, { state: { makeTrue: ids } })}
          onPoint={(id) => {
            setChosen(id);
            setPointing({ id, refs: [], missed: false });
          }}
        />
        <div className="flex min-h-0 flex-col gap-3">
          {pointing && pointed && (
            <PointAnew
              drawing={drawing}
              callout={pointed}
              refs={pointing.refs}
              missed={pointing.missed}
              onLeave={() => setPointing(undefined)}
              onTake={() => {
                setPointing(undefined);
                void edit(
                  (now) => answerCallout(now, pointed.id, pointing.refs),
                  `${calloutText(pointed, unitOf(drawing))} points there now`,
                );
              }}
            />
          )}
          <ProofPicture
            drawing={drawing}
            faults={looked?.plan.faults ?? NONE}
            fault={fault}
            refs={pointed ? pointing.refs : (callout?.links ?? [])}
            place={place}
            onPoint={
              index && pointed
                ? (at, reach) => {
                    const ref = refPointed(index, pointed.kind, at, reach);
                    setPointing(
                      (was) =>
                        was &&
                        (ref
                          ? { ...was, refs: withPointed(pointed, was.refs, ref), missed: false }
                          : { ...was, missed: true }),
                    );
                  }
                : undefined
            }
          />
          <AlongChart
            drawing={checkedNow}
            faults={looked?.plan.faults ?? NONE}
            onPlace={(at) => {
              setPlace(at);
              setFault(undefined);
              setChosen(undefined);
            }}
          />
          {callout?.pin && <PinPicture job={job.id} pin={callout.pin} />}
        </div>
        <div className="flex min-h-0 flex-col gap-3 overflow-y-auto max-[999px]:col-span-2">
          <Checks
            looking={looking}
            job={job.id}
            onStop={stop}
            onAgain={again}
            onShow={(shown) => {
              setFault(shown);
              setChosen(undefined);
              setPlace(undefined);
            }}
          />
          <NumbersCard drawing={checkedNow} />
          <MadeWith drawing={drawing} job={job} edit={edit} />
        </div>
      </main>
    </div>
  );
};

const NONE: readonly Fault[] = [];

/** A callout that is pointed at other geometry: what was clicked so far. */
type Pointing = { readonly id: Id; readonly refs: readonly Ref[]; readonly missed: boolean };

/** The drawing as it is checked: a tick that a number was looked at is nothing that is checked anew. */
const useCheckedNow = (drawing: Drawing): Drawing => {
  const [kept, setKept] = useState(drawing);
  const bare = (one: Drawing): string => JSON.stringify(calloutsOf(one).map(({ looked: _, ...callout }) => callout));
  const same =
    kept === drawing ||
    (TABLES.every((table) => table === "callout" || kept[table] === drawing[table]) && bare(kept) === bare(drawing));
  if (same) return kept;
  setKept(drawing);
  return drawing;
};
