import { useQuery } from "@tanstack/react-query";
import { useLiveQuery } from "dexie-react-hooks";
import { Check, Download, TriangleAlert, X } from "lucide-react";
import { useMemo, useState } from "react";
import { Link, useNavigate, useParams } from "react-router";
import { calloutText, measureCallout, stateText } from "@ash-edge/core/callouts";
import { planRelease, releasedArea, type Fault, type ReleasePlan } from "@ash-edge/core/checks";
import { calloutsOf, unitOf, type Drawing } from "@ash-edge/core/drawing";
import { readTypedValue, showArea, showLength } from "@ash-edge/core/numeric";
import { sayFault, sayRefusal } from "@ash-edge/core/say";
import { NotFound } from "../app/NotFound.tsx";
import { useDatabase } from "../app/StoreProvider.tsx";
import {
  checked,
  loadJob,
  placeInHistory,
  releasesOf,
  thumbnailOf,
  type BlobRecord,
  type JobRecord,
} from "../store/index.ts";
import { Brand } from "../ui/Brand.tsx";
import { Segmented } from "../ui/Choice.tsx";
import { DrawingPicture } from "../ui/DrawingPicture.tsx";
import { saveAs } from "../ui/saveAs.ts";
import { ThemeButton } from "../ui/ThemeButton.tsx";
import { contoursAsCsv } from "./contoursAsCsv.ts";
import { extensionOf, FORMATS, writeRelease, type Format, type ReleasedFrom } from "./writeRelease.ts";

/** The release of a job: what would be written, what stands against it, and what was released before. */
export const Release = () => {
  const { id = "" } = useParams();
  const database = useDatabase();
  const opened = useQuery({
    queryKey: ["release", id],
    queryFn: async () => {
      const job = await database.jobs.get(id);
      const stored = job && (await loadJob(database, id));
      return job && stored
        ? {
            job: checked("job", job),
            drawing: stored.drawing,
            from: { position: stored.history.position, at: await placeInHistory(database, id) },
          }
        : null;
    },
    gcTime: 0,
    staleTime: 0,
  });
  if (opened.isError)
    return (
      <main className="p-8">
        <p role="alert" className="text-fault">
          {opened.error.message}
        </p>
        <Link to={`/jobs/${id}`} className="underline">
          Back to the job
        </Link>
      </main>
    );
  if (opened.isPending) return <p className="p-8 text-soft">Opening the release …</p>;
  if (!opened.data) return <NotFound what="This job" />;
  return <Sheet {...opened.data} />;
};

/** What the shop's machine takes, as it was chosen last. */
const FORMAT_KEPT = "ash-edge-format";
const keptFormat = (): Format => FORMATS.find((one) => one === localStorage.getItem(FORMAT_KEPT)) ?? "R2000";

const proposedName = ({ number, name }: JobRecord, next: number): string =>
  `${number} ${name} r${next}`.replace(/[^\w]+/g, "-").toLowerCase();

const Sheet = ({ job, drawing, from }: { job: JobRecord; drawing: Drawing; from: ReleasedFrom }) => {
  const database = useDatabase();
  const [typedCutter, setTypedCutter] = useState("");
  const cutter = useMemo(() => cutterOf(typedCutter, drawing), [typedCutter, drawing]);
  const plan = useMemo(() => planRelease(drawing, cutter.diameter), [drawing, cutter]);
  const thumbnail = useMemo(() => thumbnailOf(drawing), [drawing]);
  const releases = useLiveQuery(() => releasesOf(database, job.id), [database, job.id]);
  const [typedName, setTypedName] = useState<string>();
  const [state, setState] = useState<{ readonly text: string; readonly failed: boolean } | "working">();
  const name = typedName ?? proposedName(job, (releases?.[0]?.number ?? 0) + 1);
  const [format, setFormat] = useState<Format>(keptFormat);
  const usable = /^[\w][\w .-]{0,99}$/.test(name);
  const write = async (): Promise<void> => {
    setState("working");
    try {
      const file = await writeRelease(database, job.id, plan, `${name}${extensionOf(format)}`, from, format);
      saveAs(file.name, file.bytes, file.type);
      setTypedName(undefined);
      setState({
        text: `${file.name} was written, read back by an independent reader, and holds the same geometry.`,
        failed: false,
      });
    } catch (reason) {
      setState({ text: (reason as Error).message, failed: true });
    }
  };
  const saveTable = async (): Promise<void> =>
    saveAs(`${name}-contours.csv`, await contoursAsCsv(drawing), "text/csv;charset=utf-8");
  return (
    <div className="mx-auto flex min-h-full max-w-[1240px] flex-col gap-3 p-4">
      <header className="flex items-center gap-3">
        <Brand />
        <nav aria-label="Place" className="text-soft">
          <Link to="/jobs" className="hover:underline">
            Jobs
          </Link>{" "}
          /{" "}
          <Link
            to={`/jobs/${job.id}`}
            className="font-semibold text-ink hover:underline"
          >{`${job.number} ${job.name}`}</Link>{" "}
          / Release
        </nav>
        <span className="flex-1" />
        <ThemeButton />
        <Link
          to={`/jobs/${job.id}`}
          className="grid h-8 place-items-center rounded-card border border-hair bg-panel px-3 hover:border-ink"
        >
          Back to the bench
        </Link>
      </header>
      <main className="grid flex-1 grid-cols-[1fr_380px] items-start gap-3">
        <div className="flex flex-col gap-3">
          <section className="card overflow-hidden">
            <h1 className="px-4 pt-3 text-lg font-semibold">Release {job.name}</h1>
            <div className="m-3 grid h-80 place-items-center rounded-card border border-hair bg-board">
              {thumbnail ? (
                <DrawingPicture thumbnail={thumbnail} className="h-72 w-[90%]" title="What is released" />
              ) : (
                <p className="text-soft">Nothing is drawn yet.</p>
              )}
            </div>
          </section>
          <Contours plan={plan} onTable={() => void saveTable()} />
          <Callouts drawing={drawing} />
        </div>
        <div className="flex flex-col gap-3">
          <Checks plan={plan} job={job.id} />
          <section className="card p-4" aria-label="File">
            <h2 className="font-semibold">File for the machine</h2>
            <p className="mt-1 text-soft">
              {format === "SVG" ? "SVG in true size" : "DXF, ASCII"}, unit {plan.unit === "in" ? "inch" : "mm"}. Layout
              is never written.
            </p>
            <label className="mt-3 block">
              <span className="text-soft">Name</span>
              <span className="mt-1 flex items-center gap-1">
                <input
                  className="h-8 min-w-0 flex-1 rounded-card border border-hair bg-board px-2"
                  value={name}
                  aria-invalid={!usable}
                  onChange={(event) => setTypedName(event.target.value)}
                />
                <span className="figures text-soft">{extensionOf(format)}</span>
              </span>
            </label>
            <div className="mt-3 flex items-center gap-2">
              <span className="text-soft">Format</span>
              <Segmented
                label="Format of the file"
                options={[
                  ["R2000", "DXF R2000"],
                  ["R12", "R12, for old machines"],
                  ["SVG", "SVG"],
                ]}
                value={format}
                onChange={(to) => {
                  setFormat(to as Format);
                  localStorage.setItem(FORMAT_KEPT, to);
                }}
              />
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
              <span className="text-soft">{plan.unit}</span>
            </label>
            {cutter.wrong && (
              <p role="alert" className="mt-1 text-fault">
                {cutter.wrong}
              </p>
            )}
            {cutter.diameter > 0 && (
              <p className="mt-1 text-soft">
                Contours are written {showLength(cutter.diameter / 2, plan.unit)} {plan.unit} outside of outer ones and
                inside of holes: the way of the cutter’s middle.
              </p>
            )}
            {!usable && (
              <p role="alert" className="mt-1 text-fault">
                Letters, digits, blanks, dots, - and _ make a file name; it starts with a letter or digit.
              </p>
            )}
            <button
              type="button"
              disabled={!plan.ready || !usable || cutter.wrong !== undefined || state === "working"}
              onClick={() => void write()}
              className={
                "mt-3 h-9 w-full rounded-card bg-ember font-semibold text-panel disabled:bg-hair " +
                "disabled:text-soft"
              }
            >
              {state === "working" ? "Writing and reading back …" : `Write the ${format === "SVG" ? "SVG" : "DXF"}`}
            </button>
            {!plan.ready && <p className="mt-2 text-soft">What is marked in red has to be mended first.</p>}
            {state && state !== "working" && (
              <p
                role={state.failed ? "alert" : "status"}
                className={`mt-2 ${state.failed ? "text-fault" : "text-moss"}`}
              >
                {state.text}
              </p>
            )}
          </section>
          <Released releases={releases ?? []} />
        </div>
      </main>
    </div>
  );
};

/** The cutter's diameter as typed, 0 for none, or what is wrong with it. */
const cutterOf = (text: string, drawing: Drawing): { readonly diameter: number; readonly wrong?: string } => {
  if (text.trim() === "") return { diameter: 0 };
  const unit = unitOf(drawing);
  const read = readTypedValue(text, { unit, expects: "length" });
  if (!read.ok) return { diameter: 0, wrong: sayRefusal(read.refusal, unit) };
  if (!(read.value.value > 0)) return { diameter: 0, wrong: "A cutter's diameter must be more than 0." };
  return { diameter: read.value.value };
};

const polylineWords = (pieces: readonly { readonly bulge: number }[]): string => {
  const lines = pieces.filter(({ bulge }) => bulge === 0).length;
  return `Closed polyline, ${counted(lines, "line")} and ${counted(pieces.length - lines, "arc")}`;
};
const counted = (n: number, one: string): string => `${n} ${one}${n === 1 ? "" : "s"}`;

const Contours = ({ plan, onTable }: { plan: ReleasePlan; onTable: () => void }) => (
  <section className="card overflow-hidden" aria-label="Contours">
    <div className="flex items-center px-4 py-2">
      <h2 className="flex-1 font-semibold">Layers by nesting</h2>
      {plan.contours.length > 0 && (
        <button
          type="button"
          onClick={onTable}
          className="flex h-7 items-center gap-1.5 rounded-card border border-hair px-2 hover:border-ink"
        >
          <Download size={14} aria-hidden="true" /> Save the table (CSV)
        </button>
      )}
    </div>
    {plan.contours.length === 0 && (
      <p className="border-t border-hair px-4 py-3 text-soft">No contour is closed and joined yet.</p>
    )}
    {plan.contours.length > 0 && (
      <table className="w-full">
        <thead className="text-left text-xs text-soft">
          <tr className="border-t border-hair">
            <th scope="col" className="py-1 pl-4 font-normal">
              Layer
            </th>
            <th scope="col" className="font-normal">
              Contour
            </th>
            <th scope="col" className="pr-4 text-right font-normal">
              Area
            </th>
          </tr>
        </thead>
        <tbody>
          {plan.contours.map((contour, i) => (
            <tr key={i} className="border-t border-hair">
              <td className={`figures py-1.5 pl-4 font-semibold ${contour.layer === "INSIDE" ? "text-inside" : ""}`}>
                {contour.layer}
              </td>
              <td className="said">
                {contour.kind === "circle"
                  ? `Circle Ø ${showLength(2 * contour.radius, plan.unit)}`
                  : polylineWords(contour.pieces)}
              </td>
              <td className="figures pr-4 text-right">{showArea(releasedArea(contour), plan.unit)}</td>
            </tr>
          ))}
        </tbody>
      </table>
    )}
  </section>
);

const Callouts = ({ drawing }: { drawing: Drawing }) => {
  const unit = unitOf(drawing);
  const required = calloutsOf(drawing).filter(({ reference }) => !reference);
  const rows = required.map((callout) => ({ callout, state: measureCallout(drawing, callout) }));
  const wanting = rows.filter(({ state }) => state.state === "off" || state.state === "not placed");
  if (rows.length === 0) return null;
  return (
    <section className="card px-4 py-3" aria-label="Callouts">
      <h2 className="font-semibold">
        Callouts: {rows.length - wanting.length} of {rows.length} hold
      </h2>
      {wanting.length > 0 && (
        <ul className="mt-1">
          {wanting.map(({ callout, state }) => (
            <li key={callout.id} className={`said ${state.state === "off" ? "text-fault" : "text-caution"}`}>
              <span className="figures font-semibold">{calloutText(callout, unit)}</span> {callout.name}:{" "}
              {stateText(state, callout)}
            </li>
          ))}
        </ul>
      )}
    </section>
  );
};

const Checks = ({ plan, job }: { plan: ReleasePlan; job: string }) => (
  <section className="card overflow-hidden" aria-label="Checks">
    <h2 className="flex items-center gap-2 px-4 py-2.5 font-semibold">
      {plan.ready ? (
        <Check size={17} className="text-moss" aria-hidden="true" />
      ) : (
        <X size={17} className="text-fault" aria-hidden="true" />
      )}
      {plan.ready ? "Ready to cut" : "Not ready to cut"}
    </h2>
    {plan.faults.length === 0 && (
      <p className="border-t border-hair px-4 py-2 text-soft">
        Every contour is closed, none crosses another, nothing is doubled.
      </p>
    )}
    <ul>
      {plan.faults.map((fault, i) => (
        <FaultRow key={i} fault={fault} plan={plan} job={job} />
      ))}
    </ul>
  </section>
);

const FaultRow = ({ fault, plan, job }: { fault: Fault; plan: ReleasePlan; job: string }) => {
  const navigate = useNavigate();
  const error = fault.severity === "error";
  return (
    <li className="flex items-start gap-2 border-t border-hair px-4 py-2">
      <TriangleAlert
        size={15}
        className={`mt-0.5 shrink-0 ${error ? "text-fault" : "text-caution"}`}
        aria-hidden="true"
      />
      <span className={`said flex-1 ${error ? "text-fault" : "text-caution"}`}>{sayFault(fault, plan.unit)}</span>
      <button
        type="button"
        className="h-7 shrink-0 rounded-card border border-hair px-2 hover:border-ink"
        onClick={() =>
          void navigate(`/jobs/${job}`, { state: { select: fault.ids, ...(fault.at ? { at: fault.at } : {}) } })
        }
      >
        Go to it
      </button>
    </li>
  );
};

const Released = ({ releases }: { releases: readonly BlobRecord[] }) => (
  <section className="card overflow-hidden" aria-label="Released files">
    <h2 className="px-4 py-2.5 font-semibold">Released files</h2>
    {releases.length === 0 && <p className="border-t border-hair px-4 py-2 text-soft">None yet.</p>}
    <ul>
      {releases.map((file) => (
        <li key={file.id} className="flex items-center gap-2 border-t border-hair px-4 py-2">
          <span className="min-w-0 flex-1">
            <b className="block truncate">{file.name}</b>
            <span className="figures block truncate text-xs text-soft" title={file.checksum}>
              no. {file.number} ·{" "}
              {new Date(file.made).toLocaleString("en-GB", { dateStyle: "medium", timeStyle: "short" })}
            </span>
            <span className="figures block truncate text-xs text-soft">
              {file.checksum
                ? `SHA-256 ${file.checksum.slice(0, 16)}…`
                : "no checksum: the browser gives one only over https or on this machine"}
            </span>
          </span>
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
  </section>
);
