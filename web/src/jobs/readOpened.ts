import type { Remote } from "comlink";
import { drawingFromRows, unitOf, type Drawing } from "@ash-edge/core/drawing";
import { importReport, type ReadDrawing } from "@ash-edge/core/formats";
import type { JobHead, ReadJob } from "@ash-edge/core/formats/job";
import type { Outcome, Unit } from "@ash-edge/core/numeric";
import { sayRefusal } from "@ash-edge/core/say";
import { fromRaw, isRaw, type NewSketch } from "../store/index.ts";
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
      /** What was put right or is missing, in sentences. */
      readonly mended: readonly string[];
      readonly unit: Unit;
    };

/** Nothing to cut is larger, and reading must end. */
const [LARGEST, LIMIT_MS] = [250e6, 60_000];

/** Reads a file in a worker; throws a sentence where it can't be used. */
export const readOpened = async (file: File, signal: AbortSignal): Promise<Opened> => {
  if (file.size > LARGEST) throw new Error(`${file.name} is larger than 250 MB. That is no drawing to cut.`);
  const name = file.name.replace(/\.\w+$/, "");
  if (/\.json$/i.test(file.name)) {
    const raw = await rawIn(file);
    if (raw) {
      const { head, drawing, sketches, mended } = await fromRaw(raw);
      return { kind: "job", name: head.name, head, drawing, sketches, mended, unit: unitOf(drawing) };
    }
    const job = await inWorker<Outcome<ReadJob>>((remote, bytes) => remote.readJob(bytes), file, signal);
    if (!job.ok) throw new Error(sayRefusal(job.refusal, "mm"));
    const { head, mended, nextId } = job.value;
    const drawing = drawingFromRows(job.value.drawing as never, nextId);
    const sketches = job.value.sketches.map((sketch): NewSketch => ({
      name: sketch.name,
      type: sketch.type,
      bytes: fromBase64(sketch.base64),
    }));
    return { kind: "job", name: head.name, head, drawing, sketches, mended, unit: unitOf(drawing) };
  }
  const kind = /\.dxf$/i.test(file.name) ? "dxf" : /\.svg$/i.test(file.name) ? "svg" : undefined;
  if (!kind) throw new Error(`${file.name} is no DXF, SVG or job file. Those can be opened.`);
  const read = await inWorker<Outcome<ReadDrawing>>((remote, bytes) => remote.read(bytes, kind), file, signal);
  if (!read.ok) throw new Error(sayRefusal(read.refusal, "mm"));
  return { kind: "drawing", name, read: read.value, report: importReport(read.value), unit: read.value.unit };
};

const inWorker = async <T>(
  call: (remote: Remote<ReadFileWorker>, bytes: Uint8Array) => Promise<T>,
  file: File,
  signal: AbortSignal,
): Promise<T> => {
  const bytes = new Uint8Array(await file.arrayBuffer());
  return run<ReadFileWorker, T>(
    new Worker(new URL("../worker/readFile.worker.ts", import.meta.url), { type: "module" }),
    (remote) => call(remote, bytes),
    { signal, limitMs: LIMIT_MS },
  );
};

/** A raw export says what it is at its start; whatever else a file is, it is none. */
const rawIn = async (file: File): Promise<Parameters<typeof fromRaw>[0] | undefined> => {
  if (!/^\s*\{\s*"(?:job|head|snapshots)":/.test(await file.slice(0, 200).text())) return undefined;
  try {
    const value: unknown = JSON.parse(await file.text());
    return isRaw(value) ? value : undefined;
  } catch {
    return undefined;
  }
};

const fromBase64 = (text: string): Uint8Array<ArrayBuffer> => Uint8Array.from(atob(text), (char) => char.charCodeAt(0));
