import { FolderArchive } from "lucide-react";
import { useRef, useState } from "react";
import type { Drawing } from "@ash-edge/core/drawing";
import { useDatabase } from "../app/StoreProvider.tsx";
import type { BlobRecord, JobRecord } from "../store/index.ts";
import { saveAs } from "../ui/saveAs.ts";
import { useSketches } from "../ui/useSketch.ts";

/** Saves all that belongs to the last release in one ZIP; fetched when it is wanted. */
export const JobFolder = ({
  job,
  drawing,
  release,
  isChanged,
}: {
  job: JobRecord;
  drawing: Drawing;
  release: BlobRecord;
  isChanged: boolean;
}) => {
  const database = useDatabase();
  const sketch = useSketches(database, job.id)?.[0];
  const [state, setState] = useState<"working" | { readonly text: string; readonly failed: boolean }>();
  const stopping = useRef<AbortController>(undefined);
  const save = async (): Promise<void> => {
    const own = (stopping.current = new AbortController());
    setState("working");
    try {
      const { jobFolder } = await import("./jobFolder.ts");
      const made = await jobFolder(database, { job, drawing, release, isChanged, sketch }, own.signal);
      saveAs(made.name, made.bytes, "application/zip");
      setState(
        made.left.length === 0
          ? { text: `${made.name} was saved.`, failed: false }
          : { text: `${made.name} was saved without ${made.left.join("; ")}`, failed: true },
      );
    } catch (reason) {
      setState(
        own.signal.aborted
          ? { text: "Stopped. Nothing was saved.", failed: false }
          : { text: `${(reason as Error).message} Nothing was saved.`, failed: true },
      );
    }
  };
  const working = state === "working";
  const button =
    "flex h-8 items-center gap-1.5 rounded-card border border-hair px-3 hover:border-ink disabled:opacity-50";
  return (
    <div className="border-t border-hair px-4 py-2">
      <div className="flex gap-2">
        <button type="button" className={button} disabled={working} onClick={() => void save()}>
          <FolderArchive size={16} aria-hidden="true" />{" "}
          {working ? "Putting it together …" : "Save the job folder (ZIP)"}
        </button>
        {working && (
          <button type="button" className={button} onClick={() => stopping.current?.abort()}>
            Stop
          </button>
        )}
      </div>
      <p className="mt-1 text-xs text-soft">
        The last file, sheet and template as PDF, callouts and contours as tables, the sketches, the job file.
        {isChanged && " The job was changed since: the folder says so."}
      </p>
      {state && !working && (
        <p role={state.failed ? "alert" : "status"} className={`mt-1 ${state.failed ? "text-fault" : "text-moss"}`}>
          {state.text}
        </p>
      )}
    </div>
  );
};
