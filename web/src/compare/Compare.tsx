import { useLiveQuery } from "dexie-react-hooks";
import { useMemo, useState } from "react";
import { useNavigate, useSearchParams } from "react-router";
import { applyEdit, invertEdit, unitOf, type Drawing } from "@ash-edge/core/drawing";
import { StoredJobPlace } from "../app/StoredJobPlace.tsx";
import { useDatabase } from "../app/StoreProvider.tsx";
import { releasesOf, stepAt, type History, type JobRecord, type StoredJob } from "../store/index.ts";
import { JobHeader } from "../ui/JobHeader.tsx";
import type { Side } from "./compare.worker.ts";
import { DifferencePicture } from "./DifferencePicture.tsx";
import { useCompared } from "./useCompared.ts";

/** What differs between two states of a job: now, any step, any release, any file. */
export const Compare = () => <StoredJobPlace>{(opened) => <Sheet {...opened} />}</StoredJobPlace>;

const FILE_BUTTON =
  "flex h-8 cursor-pointer items-center justify-center rounded-card border border-hair px-3 hover:border-ink " +
  "focus-within:border-ink";

/** The drawing as it was after so many steps. */
const drawingAt = (drawing: Drawing, history: History, n: number): Drawing => {
  let then = drawing;
  for (let k = history.position; k > n; k--) then = applyEdit(then, invertEdit(stepAt(history, k - 1)!));
  return then;
};

export type State = { readonly id: string; readonly words: string; readonly side: () => Side };
const Sheet = ({ job, stored }: { job: JobRecord; stored: StoredJob }) => {
  const database = useDatabase();
  const releases = useLiveQuery(() => releasesOf(database, job.id), [database, job.id]);
  const [files, setFiles] = useState<readonly { name: string; bytes: Uint8Array }[]>([]);
  const [search, setSearch] = useSearchParams();
  const navigate = useNavigate();
  const { drawing, history } = stored;
  const states = useMemo((): readonly State[] => {
    const steps = Array.from({ length: history.position - history.first }, (_, i) => history.position - 1 - i);
    return [
      { id: "now", words: "as it is now", side: () => ({ drawing }) },
      ...(releases ?? []).map((one): State => ({
        id: one.id,
        words: `release no. ${one.number}, ${one.name}`,
        side: () => ({ name: one.name, bytes: one.bytes }),
      })),
      ...files.map((file): State => ({ id: `file ${file.name}`, words: file.name, side: () => file })),
      ...steps.map((n): State => ({
        id: `step ${n}`,
        words: `before step ${n + 1}: ${stepAt(history, n)!.label}`,
        side: () => ({ drawing: drawingAt(drawing, history, n) }),
      })),
    ];
  }, [drawing, history, releases, files]);
  const first = states.find(({ id }) => id === search.get("from")) ?? states[1] ?? states[0]!;
  const second = states.find(({ id }) => id === search.get("to")) ?? states[0]!;
  const { result, stop, again } = useCompared(releases && first, releases && second, unitOf(drawing));
  const choose = (which: "from" | "to", id: string): void => {
    const next = { from: first.id, to: second.id, [which]: id };
    setSearch(next, { replace: true });
  };
  const openFile = async (file: File): Promise<void> => {
    const bytes = new Uint8Array(await file.arrayBuffer());
    setFiles((all) => [...all.filter(({ name }) => name !== file.name), { name: file.name, bytes }]);
    choose("from", `file ${file.name}`);
  };
  const done = result.state === "done" ? result.compared : undefined;
  const pick = (which: "from" | "to", label: string, value: string) => (
    <label className="block">
      <span className="text-soft">{label}</span>
      <select
        className="mt-1 block h-8 w-full rounded-card border border-hair bg-board px-2"
        value={value}
        onChange={(event) => choose(which, event.target.value)}
      >
        {states.map(({ id, words }) => (
          <option key={id} value={id}>
            {words}
          </option>
        ))}
      </select>
    </label>
  );
  return (
    <div className="flex h-full min-h-[560px] flex-col gap-3 p-4">
      <JobHeader job={job} at="compare" />
      <main
        aria-label={`Compare ${job.name}`}
        className="grid min-h-0 flex-1 grid-cols-[1fr_minmax(300px,340px)] gap-3"
      >
        <DifferencePicture compared={done} />
        <div className="flex min-h-0 flex-col gap-3 overflow-y-auto">
          <section className="card p-4" aria-label="What is compared">
            <h1 className="font-semibold">Compare</h1>
            <div className="mt-2 flex flex-col gap-3">
              {pick("from", "before", first.id)}
              {pick("to", "after", second.id)}
              <label className={FILE_BUTTON}>
                <input
                  type="file"
                  className="sr-only"
                  accept=".dxf,.svg,.json"
                  onChange={(event) => {
                    const [file] = event.target.files ?? [];
                    if (file) void openFile(file);
                    event.target.value = "";
                  }}
                />
                With a file …
              </label>
            </div>
          </section>
          <section className="card overflow-hidden" aria-label="Differences">
            {result.state === "looking" && (
              <div role="status" className="flex items-center gap-3 px-4 py-2.5">
                <span className="font-semibold">Comparing …</span>
                <progress className="h-2 min-w-0 flex-1 accent-[var(--ember)]" aria-label="At work" />
                <button
                  type="button"
                  className="h-7 rounded-card border border-hair px-2 hover:border-ink"
                  onClick={stop}
                >
                  Stop
                </button>
              </div>
            )}
            {result.state === "failed" && (
              <div role="alert" className="flex items-center gap-3 px-4 py-2.5">
                <span className="flex-1">Not compared: {result.why}</span>
                <button
                  type="button"
                  className="h-7 shrink-0 rounded-card border border-hair px-2 hover:border-ink"
                  onClick={again}
                >
                  Compare now
                </button>
              </div>
            )}
            {done && (
              <>
                <ul>
                  {done.words.map((words, i) => (
                    <li key={words} className={`said px-4 py-2 ${i > 0 ? "border-t border-hair" : "font-semibold"}`}>
                      {words}
                    </li>
                  ))}
                </ul>
                {second.id === "now" && done.places.length > 0 && (
                  <ul className="max-h-72 overflow-y-auto">
                    {done.places.map(({ what, at }, i) => (
                      <li key={i} className="flex items-center gap-2 border-t border-hair px-4 py-1">
                        <span className={`w-14 ${what === "went" ? "text-ember" : "text-moss"}`}>{what}</span>
                        <span className="figures flex-1 text-xs text-soft">
                          {Number(at.x.toFixed(3))}, {Number(at.y.toFixed(3))}
                        </span>
                        <button
                          type="button"
                          className="h-6 rounded-card border border-hair px-2 text-xs hover:border-ink"
                          onClick={() => void navigate(`/jobs/${job.id}`, { state: { select: [], at } })}
                        >
                          Go there
                        </button>
                      </li>
                    ))}
                  </ul>
                )}
              </>
            )}
          </section>
        </div>
      </main>
    </div>
  );
};
