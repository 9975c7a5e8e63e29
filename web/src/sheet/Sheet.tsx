import { useLiveQuery } from "dexie-react-hooks";
import { useMemo, useRef, useState } from "react";
import type { Drawing } from "@ash-edge/core/drawing";
import type { Point } from "@ash-edge/core/geometry";
import { StoredJobPlace } from "../app/StoredJobPlace.tsx";
import { useDatabase } from "../app/StoreProvider.tsx";
import { releasesOf, type JobRecord } from "../store/index.ts";
import { JobHeader } from "../ui/JobHeader.tsx";
import { fileName, saveAs } from "../ui/saveAs.ts";
import { useSketches } from "../ui/useSketch.ts";
import { askedFor, revisionWords } from "./askedFor.ts";
import { makePdf } from "./makePdf.ts";
import { keepSetup, keptSetup, type Setup } from "./setup.ts";
import { PageView } from "./PageView.tsx";
import { SheetOptions } from "./SheetOptions.tsx";
import { usePages } from "./usePages.ts";

/** A job on paper: as a sheet with its title block, or as a template in true size. */
export const SheetPlace = () => (
  <StoredJobPlace>{({ job, stored: { drawing }, at }) => <Paper {...{ job, drawing, at }} />}</StoredJobPlace>
);

/** `at` is the place in the job’s history that is shown. */
const Paper = ({ job, drawing, at }: { job: JobRecord; drawing: Drawing; at: string }) => {
  const database = useDatabase();
  const [setup, setSetup] = useState<Setup>(keptSetup);
  const [shift, setShift] = useState<Point>({ x: 0, y: 0 });
  const releases = useLiveQuery(() => releasesOf(database, job.id), [database, job.id]);
  const sketch = useSketches(database, job.id)?.[0];
  const last = releases?.[0];
  const revision = revisionWords(last?.number, last?.at !== undefined && last.at !== at);
  const words = `${job.number} ${job.name}`;
  const what = useMemo(() => askedFor(job, setup, { shift, sketch, revision }), [job, setup, shift, sketch, revision]);
  const { pages, scale, questions, wrong, current } = usePages(drawing, what);
  const [state, setState] = useState<"working" | { readonly text: string; readonly failed: boolean }>();
  const stopping = useRef<AbortController>(undefined);
  const change = (to: Partial<Setup>): void => {
    const next = { ...setup, ...to };
    setSetup(next);
    keepSetup(next);
    setState(undefined);
  };
  const save = async (): Promise<void> => {
    const own = (stopping.current = new AbortController());
    setState("working");
    try {
      const bytes = await makePdf(drawing, what, words, sketch, own.signal);
      const name = fileName(`${words}${setup.template ? " template" : " sheet"}`, ".pdf");
      saveAs(name, bytes, "application/pdf");
      setState({ text: `${name} was made, ${pages.length} page${pages.length === 1 ? "" : "s"}.`, failed: false });
    } catch (reason) {
      setState(
        own.signal.aborted
          ? { text: "Stopped. Nothing was saved.", failed: false }
          : { text: `${(reason as Error).message} Nothing was saved.`, failed: true },
      );
    }
  };
  const [first] = pages;
  return (
    <div className="mx-auto flex min-h-full max-w-[1240px] flex-col gap-3 p-4">
      {first && <style>{`@media print { @page { size: ${first.width}mm ${first.height}mm; margin: 0 } }`}</style>}
      <JobHeader job={job} at="sheet" />
      <main className="grid flex-1 grid-cols-[1fr_340px] items-start gap-3" aria-label={`${job.name} on paper`}>
        <div className="papers flex min-w-0 flex-col gap-4" aria-busy={!current}>
          {wrong && (
            <p role="alert" className="card p-4 text-fault">
              {wrong}
            </p>
          )}
          {!wrong && pages.length === 0 && <p className="p-8 text-soft">Laying it out …</p>}
          {pages.map((page, i) => (
            <PageView
              key={i}
              page={page}
              name={`Page ${i + 1} of ${pages.length}`}
              pictures={sketch ? { [sketch.id]: sketch.url } : {}}
              onMove={
                page.groups.some(({ moves }) => moves)
                  ? (by) => setShift((was) => ({ x: was.x + by.x, y: was.y + by.y }))
                  : undefined
              }
            />
          ))}
        </div>
        <SheetOptions
          {...{ setup, change }}
          scale={current && pages.length > 0 ? scale : undefined}
          questions={current && pages.length > 0 ? questions : undefined}
          hasSketch={sketch !== undefined}
          ready={current && !wrong && pages.length > 0}
          isMoved={shift.x !== 0 || shift.y !== 0}
          onBack={() => setShift({ x: 0, y: 0 })}
          pages={pages.length}
          working={state === "working"}
          onSave={() => void save()}
          onStop={() => stopping.current?.abort()}
          said={state === "working" ? undefined : state}
        />
      </main>
    </div>
  );
};
