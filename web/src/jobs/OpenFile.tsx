import { useEffect, useRef, useState } from "react";
import { useNavigate } from "react-router";
import { openDrawing } from "@ash-edge/core/formats";
import type { Unit } from "@ash-edge/core/numeric";
import { useDatabase } from "../app/StoreProvider.tsx";
import type { Drawing } from "@ash-edge/core/drawing";
import type { JobHead } from "@ash-edge/core/formats/job";
import { askToKeep } from "../app/storage.ts";
import { createJob, isStoreFault, sayStoreFault } from "../store/index.ts";
import { FormDialog } from "../ui/FormDialog.tsx";
import { filesOf } from "../ui/readPicture.ts";
import { Field, UnitChoice } from "./headFields.tsx";
import { readOpened, type Opened } from "./readOpened.ts";

/** Opens a customer's drawing file, or a job file, as a new job; says what came of it before anything is made. */
export const OpenFile = ({
  number: free,
  taken,
  file,
  onClose,
}: {
  number: string;
  taken: readonly string[];
  /** The file that is opened, where one was dropped. */
  file?: File;
  onClose: () => void;
}) => {
  const database = useDatabase();
  const navigate = useNavigate();
  const [opened, setOpened] = useState<Opened>();
  const [refusal, setRefusal] = useState<string>();
  const [reading, setReading] = useState(false);
  const [fields, setFields] = useState<{ number: string; name: string; unit?: Unit }>({ number: free, name: "" });
  const stop = useRef(new AbortController());
  useEffect(() => () => stop.current.abort(), []);

  const take = async (file: File | undefined): Promise<void> => {
    if (!file) return;
    stop.current.abort();
    const own = (stop.current = new AbortController());
    setRefusal(undefined);
    setOpened(undefined);
    setReading(true);
    try {
      const read = await readOpened(file, own.signal);
      const number = read.kind === "job" && !taken.includes(read.head.number) ? read.head.number : free;
      setFields({ number, name: read.name, ...(read.unit ? { unit: read.unit } : {}) });
      setOpened(read);
    } catch (reason) {
      if (!own.signal.aborted) setRefusal(isStoreFault(reason) ? sayStoreFault(reason) : (reason as Error).message);
    } finally {
      if (!own.signal.aborted) setReading(false);
    }
  };
  useEffect(() => {
    let current = true;
    void Promise.resolve().then(() => (current ? take(file) : undefined));
    return () => {
      current = false;
    };
  }, [file]); // eslint-disable-line react-hooks/exhaustive-deps
  const make = async (): Promise<void> => {
    if (!opened) return;
    const { number, name, unit } = fields;
    if (!unit) return setRefusal("The file does not say its unit. Choose mm or in.");
    if (number.trim() === "" || name.trim() === "") return setRefusal("A job needs a number and a name.");
    if (taken.includes(number)) return setRefusal(`There is a job ${number} already. ${free} is free.`);
    const head = opened.kind === "job" ? opened.head : {};
    const drawing = opened.kind === "job" ? opened.drawing : openDrawing(opened.read, unit);
    try {
      await makeJob(head, drawing);
    } catch (reason) {
      setRefusal(sayStoreFault(reason));
    }
  };
  const makeJob = async (head: Partial<JobHead>, drawing: Drawing): Promise<void> => {
    if (!opened || !fields.unit) return;
    const { number, name, unit } = fields;
    const blank = { customer: "", material: "", thickness: "", quantity: 1, due: "" };
    const id = await createJob(
      database,
      { ...blank, ...head, number, name, unit },
      [],
      opened.kind === "job" ? opened.sketches : [],
      drawing,
    );
    askToKeep();
    await navigate(`/jobs/${id}`);
  };
  const field = (name: "number" | "name", label: string) => (
    <Field
      label={label}
      error={undefined}
      value={fields[name]}
      onChange={(event) => setFields({ ...fields, [name]: event.target.value })}
    />
  );
  return (
    <FormDialog
      title="Open a file"
      submit="Make the job"
      ready={opened !== undefined}
      wide
      onSubmit={make}
      onClose={onClose}
    >
      <div
        className="flex flex-col gap-3"
        onDragOver={(event) => event.preventDefault()}
        onDrop={(event) => {
          event.preventDefault();
          void take(filesOf(event.dataTransfer)[0]);
        }}
      >
        <label className="block">
          <span className="text-soft">A DXF of any version, an SVG, or a job file; drop it here, or pick it</span>
          <input
            type="file"
            accept=".dxf,.svg,.json"
            onChange={(event) => void take(event.target.files?.[0])}
            className="mt-1 block w-full rounded-card border border-dashed border-hair bg-board px-2 py-3 text-soft"
          />
        </label>
        {reading && (
          <p role="status" className="flex items-center gap-3 text-soft">
            Reading …
            <button
              type="button"
              className="h-7 rounded-card border border-hair px-2 text-ink"
              onClick={() => {
                stop.current.abort();
                setReading(false);
              }}
            >
              Stop
            </button>
          </p>
        )}
        {opened && (
          <>
            <ul aria-label="What came" className="list-disc pl-5">
              {opened.kind === "job" ? (
                <>
                  <li>
                    {`Job ${opened.head.number}, ${opened.head.name}, its drawing, callouts and ` +
                      `${opened.sketches.length} sketches.`}
                  </li>
                  {opened.mended.map((line) => (
                    <li key={line} className="text-caution">
                      {line}
                    </li>
                  ))}
                </>
              ) : (
                opened.report.map((line) => <li key={line}>{line}</li>)
              )}
            </ul>
            <div className="grid grid-cols-2 gap-3">
              {field("name", "Part")}
              {field("number", "Job number")}
            </div>
            {opened.kind === "drawing" && !opened.unit && (
              <div>
                <div className="mb-1 text-caution">The file does not say its unit. What is one unit of it?</div>
                <UnitChoice
                  label="Unit of the file"
                  value={fields.unit ?? ""}
                  onChange={(unit) => setFields({ ...fields, unit: unit })}
                />
              </div>
            )}
          </>
        )}
        {refusal && (
          <p role="alert" className="text-fault">
            {refusal}
          </p>
        )}
      </div>
    </FormDialog>
  );
};
