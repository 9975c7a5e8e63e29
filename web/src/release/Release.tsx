import { useLiveQuery } from "dexie-react-hooks";
import { useMemo, useRef, useState } from "react";
import { useLocation } from "react-router";
import { calloutText } from "@ash-edge/core/callouts";
import { isWaived } from "@ash-edge/core/checks";
import { entityOf, settingsOf, unitOf, type Drawing } from "@ash-edge/core/drawing";
import { readTypedValue, showLength, type Id } from "@ash-edge/core/numeric";
import { releaseName, type Comparison, type MachineProfile } from "@ash-edge/core/release";
import { sayRefusal } from "@ash-edge/core/say";
import { StoredJobPlace } from "../app/StoredJobPlace.tsx";
import { useDatabase } from "../app/StoreProvider.tsx";
import { isStoreFault, releasesOf, sayStoreFault, type BlobRecord, type JobRecord } from "../store/index.ts";
import { Segmented } from "../ui/Choice.tsx";
import { DrawingPicture } from "../ui/DrawingPicture.tsx";
import { JobHeader } from "../ui/JobHeader.tsx";
import { fileName, NAME_LENGTH, saveAs } from "../ui/saveAs.ts";
import { CalloutList } from "./CalloutList.tsx";
import { Checks } from "./Checks.tsx";
import { contoursAsCsv } from "./contoursAsCsv.ts";
import { ContourTable } from "./ContourTable.tsx";
import { ForPeople } from "./ForPeople.tsx";
import { Machine } from "./Machine.tsx";
import { ReadBack } from "./ReadBack.tsx";
import type { AskedFor, Looked } from "./release.worker.ts";
import { Released } from "./Released.tsx";
import { stockOf } from "./stockOf.ts";
import { useJobProfile } from "./useJobProfile.ts";
import { useKeptVerdict } from "./useKeptVerdict.ts";
import { useLooked } from "./useLooked.ts";
import { extensionOf, sameName, writeRelease, type ReleasedFrom, type ToRelease } from "./writeRelease.ts";

/** The release of a job: what would be written, what stands against it, and what was released before. */
export const Release = () => (
  <StoredJobPlace>
    {({ job, stored: { drawing, history, token }, at }) => (
      <Sheet job={job} drawing={drawing} token={token} from={{ position: history.position, at }} />
    )}
  </StoredJobPlace>
);

/** A name for the next release that none has yet. */
const proposedName = ({ number, name }: JobRecord, releases: readonly BlobRecord[], extension: string): string => {
  for (let next = (releases[0]?.number ?? 0) + 1; ; next++) {
    const proposed = releaseName(number, name, next, NAME_LENGTH - extension.length);
    if (!releases.some((one) => sameName(one.name, proposed + extension))) return proposed;
  }
};

/** What is wrong with a name, in a sentence. */
const wrongName = (name: string, extension: string, releases: readonly BlobRecord[]): string | undefined => {
  if (!/^[A-Za-z0-9][\w .-]*$/.test(name))
    return "Letters, digits, blanks, dots, - and _ make a file name; it starts with a letter or digit.";
  if (name.length + extension.length > NAME_LENGTH) return `A file name has at most ${NAME_LENGTH} characters.`;
  const taken = releases.find((one) => sameName(one.name, name + extension));
  return taken && `${taken.name} is the name of release no. ${taken.number}. Choose another one.`;
};

type Done = { readonly text: string; readonly failed: boolean; readonly comparison?: Comparison };

/** What is written: everything, or what was selected on the bench, as far as it is there. */
const useAmong = (drawing: Drawing): readonly Id[] => {
  const state = useLocation().state as { selected?: readonly Id[] } | null;
  return useMemo(() => (state?.selected ?? []).filter((id) => entityOf(drawing, id)), [state, drawing]);
};

const Sheet = ({
  job,
  drawing,
  token,
  from,
}: {
  job: JobRecord;
  drawing: Drawing;
  token: number;
  from: ReleasedFrom;
}) => {
  const database = useDatabase();
  const [typedCutter, setTypedCutter] = useState("");
  const cutter = useMemo(() => cutterOf(typedCutter, drawing), [typedCutter, drawing]);
  const selected = useAmong(drawing);
  const [onlySelected, setOnlySelected] = useState(false);
  const { kept, profile, gone } = useJobProfile(job.id);
  const asked = useMemo(
    (): AskedFor => ({
      cutter: cutter.diameter,
      profile,
      among: onlySelected ? new Set(selected) : undefined,
      stock: stockOf(job, unitOf(drawing)),
    }),
    [cutter, profile, onlySelected, selected, job, drawing],
  );
  const { looking, stop, again } = useLooked(drawing, asked);
  const looked = looking.state === "looked" ? looking.looked : undefined;
  const isOfAll = cutter.diameter === 0 && !onlySelected;
  useKeptVerdict(job, token, isOfAll && kept ? looked?.verdict : undefined);
  const releases = useLiveQuery(() => releasesOf(database, job.id), [database, job.id]);
  const unit = unitOf(drawing);
  const saveTable = async (name: string): Promise<void> =>
    saveAs(fileName(name, "-contours.csv"), await contoursAsCsv(drawing), "text/csv;charset=utf-8");
  const extension = extensionOf(profile);
  const [typedName, setTypedName] = useState<string>();
  const name = typedName ?? proposedName(job, releases ?? [], extension);
  return (
    <div className="mx-auto flex min-h-full max-w-[1240px] flex-col gap-3 p-4">
      <JobHeader job={job} at="release" />
      <main className="grid flex-1 grid-cols-[1fr_380px] items-start gap-3">
        <div className="flex flex-col gap-3">
          <section className="card overflow-hidden">
            <h1 className="px-4 pt-3 text-lg font-semibold">Release {job.name}</h1>
            <div className="m-3 grid h-80 place-items-center rounded-card border border-hair bg-board">
              {looked?.picture ? (
                <DrawingPicture thumbnail={looked.picture} className="h-72 w-[90%]" title="What is released" />
              ) : (
                <p className="text-soft">
                  {looked
                    ? "Nothing would be written."
                    : looking.state === "looking"
                      ? "Looking it over …"
                      : "Not looked over, so nothing is shown."}
                </p>
              )}
            </div>
          </section>
          {looked && <ContourTable plan={looked.plan} profile={profile} onTable={() => void saveTable(name)} />}
          {looked && <CalloutList rows={looked.callouts} unit={unit} />}
        </div>
        <div className="flex flex-col gap-3">
          <Checks looking={looking} job={job.id} onStop={stop} onAgain={again} />
          <section className="card p-4" aria-label="File">
            <h2 className="font-semibold">File for the machine</h2>
            <Machine {...{ job, kept, profile, gone, unit }} />
            <label className="mt-3 block">
              <span className="text-soft">Name</span>
              <span className="mt-1 flex items-center gap-1">
                <input
                  className="h-8 min-w-0 flex-1 rounded-card border border-hair bg-board px-2"
                  value={name}
                  aria-invalid={wrongName(name, extension, releases ?? []) !== undefined}
                  onChange={(event) => setTypedName(event.target.value)}
                />
                <span className="figures text-soft">{extension}</span>
              </span>
            </label>
            <div className="mt-3 grid grid-cols-[auto_1fr] items-center gap-x-2 gap-y-2">
              {selected.length > 0 && (
                <>
                  <span className="text-soft">Of</span>
                  <Segmented
                    label="What is written"
                    options={[
                      ["all", "everything"],
                      ["selected", `what is selected (${selected.length})`],
                    ]}
                    value={onlySelected ? "selected" : "all"}
                    onChange={(to) => setOnlySelected(to === "selected")}
                  />
                </>
              )}
            </div>
            <label className="mt-3 flex items-center gap-2">
              <span className="text-soft">Allow for a cutter of Ø</span>
              <input
                className="figures h-8 w-24 rounded-card border border-hair bg-board px-2"
                value={typedCutter}
                placeholder="none"
                autoComplete="off"
                aria-invalid={cutter.wrong !== undefined}
                onChange={(event) => setTypedCutter(event.target.value)}
              />
              <span className="text-soft">{unit}</span>
            </label>
            {cutter.wrong && (
              <p role="alert" className="mt-1 text-fault">
                {cutter.wrong}
              </p>
            )}
            {cutter.diameter > 0 && (
              <p className="mt-1 text-soft">
                Contours are written {showLength(cutter.diameter / 2, unit)} {unit} outside of outer ones and inside of
                holes: the way of the cutter’s middle.
              </p>
            )}
            <Write
              {...{ job, from, name, extension }}
              release={looked && toRelease(looked, profile, drawing)}
              wrong={wrongName(name, extension, releases ?? [])}
              refused={looked?.refused}
              blocked={!kept || cutter.wrong !== undefined || looked?.refused !== undefined}
              onWritten={() => setTypedName(undefined)}
            />
          </section>
          <ForPeople drawing={drawing} name={fileName(`${job.number} ${job.name}`, "")} />
          <Released job={job} drawing={drawing} releases={releases ?? []} />
        </div>
      </main>
    </div>
  );
};

/** The button that writes, how that goes on, and what came of it. */
const Write = ({
  job,
  from,
  extension,
  name,
  release,
  wrong,
  refused,
  blocked,
  onWritten,
}: {
  job: JobRecord;
  from: ReleasedFrom;
  extension: string;
  name: string;
  release: ToRelease | undefined;
  wrong: string | undefined;
  /** Why there would be no file. */
  refused: string | undefined;
  blocked: boolean;
  onWritten: () => void;
}) => {
  const database = useDatabase();
  const [state, setState] = useState<Done | "working">();
  const stopping = useRef<AbortController>(undefined);
  const write = async (of: ToRelease): Promise<void> => {
    const own = (stopping.current = new AbortController());
    setState("working");
    try {
      const { file, comparison } = await writeRelease(database, job.id, of, name + extension, from, own.signal);
      saveAs(file.name, file.bytes, file.type);
      onWritten();
      setState({
        text:
          `${file.name} was written, read back by an independent reader, and holds the same geometry` +
          `${roundedWords(of)}.`,
        failed: false,
        comparison,
      });
    } catch (reason) {
      const said = isStoreFault(reason) ? sayStoreFault(reason) : (reason as Error).message;
      setState(
        own.signal.aborted
          ? { text: "Stopped. Nothing was written.", failed: false }
          : { text: `${said} Nothing was released.`, failed: true },
      );
    }
  };
  const working = state === "working";
  return (
    <>
      {wrong && (
        <p role="alert" className="mt-1 text-fault">
          {wrong}
        </p>
      )}
      <button
        type="button"
        disabled={!release?.plan.ready || wrong !== undefined || blocked || working}
        onClick={() => release && void write(release)}
        className={"mt-3 h-9 w-full rounded-card bg-ember font-semibold text-panel disabled:bg-hair disabled:text-soft"}
      >
        {working ? "Writing and reading back …" : `Write the ${extension.slice(1).toUpperCase()}`}
      </button>
      {working && (
        <div role="status" aria-label="Work" className="mt-2 flex items-center gap-3">
          <progress className="h-2 min-w-0 flex-1 accent-[var(--ember)]" aria-label="At work" />
          <button
            type="button"
            className="h-7 rounded-card border border-hair px-2 hover:border-ink"
            onClick={() => stopping.current?.abort()}
          >
            Stop
          </button>
        </div>
      )}
      {refused !== undefined && (
        <p role="alert" className="mt-2 text-fault">
          {refused}
        </p>
      )}
      {release && !release.plan.ready && (
        <p className="mt-2 text-soft">What is marked in red has to be mended first.</p>
      )}
      {state && !working && (
        <p role={state.failed ? "alert" : "status"} className={`mt-2 ${state.failed ? "text-fault" : "text-moss"}`}>
          {state.text}
        </p>
      )}
      {state && !working && state.comparison && <ReadBack {...state.comparison} />}
    </>
  );
};

/** That a file's numbers are rounded, where they are. */
const roundedWords = ({ profile: { decimals } }: ToRelease): string =>
  decimals === "exact" ? "" : `, with ${decimals} decimal${decimals === 1 ? "" : "s"}`;

/** What is released of a drawing that was looked over. */
const toRelease = ({ plan, verdict, callouts }: Looked, profile: MachineProfile, drawing: Drawing): ToRelease => ({
  plan,
  profile,
  datum: settingsOf(drawing).datum,
  verdict: verdict.words,
  waived: callouts
    .filter(isWaived)
    .map(({ callout }) => `${calloutText(callout, plan.unit)} ${callout.name}: ${callout.waived?.reason ?? ""}`),
});

/** The cutter's diameter as typed, 0 for none, or what is wrong with it. */
const cutterOf = (text: string, drawing: Drawing): { readonly diameter: number; readonly wrong?: string } => {
  if (text.trim() === "") return { diameter: 0 };
  const unit = unitOf(drawing);
  const read = readTypedValue(text, { unit, expects: "length" });
  if (!read.ok) return { diameter: 0, wrong: sayRefusal(read.refusal, unit) };
  if (!(read.value.value > 0)) return { diameter: 0, wrong: "A cutter's diameter must be more than 0." };
  return { diameter: read.value.value };
};
