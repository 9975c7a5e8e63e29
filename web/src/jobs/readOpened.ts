import { drawingFromRows, unitOf, type Drawing } from "@ash-edge/core/drawing";
import { importReport, type ReadDrawing } from "@ash-edge/core/formats";
import { readJobFile, type JobHead } from "@ash-edge/core/formats/job";
import type { Outcome, Unit } from "@ash-edge/core/numeric";
import { sayRefusal } from "@ash-edge/core/say";
import type { NewSketch } from "../store/index.ts";
import type { ReadFileWorker } from "../worker/readFile.worker.ts";
import { run } from "../worker/run.ts";

/** A file that can become a job: a drawing file with what came of it, or a job file whole. */
export type Opened =
  | {
      readonly kind: "drawing";
      readonly name: string;
      readonly read: ReadDrawing;
      readonly report: readonly string[];
      readonly unit: Unit | undefined;
    }
  | {
      readonly kind: "job";
      readonly name: string;
      readonly head: JobHead;
      readonly drawing: Drawing;
      readonly sketches: readonly NewSketch[];
      readonly unit: Unit;
    };

/** Nothing to cut is larger, and reading must end. */
const [LARGEST, LIMIT_MS] = [250e6, 60_000];

/** Reads a file in a worker; throws a sentence where it can't be used. */
export const readOpened = async (file: File, signal: AbortSignal): Promise<Opened> => {
  if (file.size > LARGEST) throw new Error(`${file.name} is larger than 250 MB. That is no drawing to cut.`);
  const name = file.name.replace(/\.\w+$/, "");
  if (/\.json$/i.test(file.name)) {
    const job = readJobFile(await file.text());
    if (!job.ok) throw new Error(sayRefusal(job.refusal, "mm"));
    const drawing = drawingFromRows(job.value.drawing as never, job.value.nextId);
    const sketches = job.value.sketches.map((sketch): NewSketch => ({
      name: sketch.name,
      type: sketch.type,
      bytes: fromBase64(sketch.base64),
    }));
    return { kind: "job", name: job.value.head.name, head: job.value.head, drawing, sketches, unit: unitOf(drawing) };
  }
  const kind = /\.dxf$/i.test(file.name) ? "dxf" : /\.svg$/i.test(file.name) ? "svg" : undefined;
  if (!kind) throw new Error(`${file.name} is no DXF, SVG or job file. Those can be opened.`);
  const bytes = new Uint8Array(await file.arrayBuffer());
  const read = await run<ReadFileWorker, Outcome<ReadDrawing>>(
    new Worker(new URL("../worker/readFile.worker.ts", import.meta.url), { type: "module" }),
    (remote) => remote.read(bytes, kind),
    { signal, limitMs: LIMIT_MS },
  );
  if (!read.ok) throw new Error(sayRefusal(read.refusal, "mm"));
  return { kind: "drawing", name, read: read.value, report: importReport(read.value), unit: read.value.unit };
};

const fromBase64 = (text: string): Uint8Array<ArrayBuffer> => Uint8Array.from(atob(text), (char) => char.charCodeAt(0));
