import { readFile } from "node:fs/promises";
import { drawingFromRows, unitOf, type Drawing } from "@ash-edge/core/drawing";
import { openDrawing } from "@ash-edge/core/formats";
import type { JobHead, JobSketch } from "@ash-edge/core/formats/job";
import { sayRefusal } from "@ash-edge/core/say";
import { thicknessOf } from "@ash-edge/core/tables";
import type { Arguments } from "./arguments.ts";
import { fileFindings, plainReport, unitFindings, type Finding } from "./report.ts";
import { Unusable } from "./unusable.ts";
import { readDrawing } from "./work.ts";

const IS_JOB = /\.ashedge\.json$/i;

export type Opened = {
  readonly isJob: boolean;
  readonly drawing: Drawing;
  readonly material: string;
  readonly thickness?: number | undefined;
};

/** A saved job with its head, or a drawing of an open format with what was met while reading it. */
export const openFile = async (
  file: string,
  options: Pick<Arguments, "units">,
): Promise<Opened & { readonly met: readonly Finding[] }> => {
  if (!IS_JOB.test(file)) {
    const read = await readDrawing(file);
    // what is no arc, or is no cut geometry, the checks say themselves; dimensions are put on what they measure
    const { dimensions: _, leaders: __, ...rest } = read;
    const met = [...unitFindings(read, options.units), ...fileFindings(rest, [])];
    return { drawing: openDrawing(read, read.unit ?? options.units ?? "mm"), material: "", isJob: false, met };
  }
  return openJob(file);
};

/** A saved job with its head, and what was mended in it. */
export const openJob = async (
  file: string,
): Promise<
  Opened & { readonly head: JobHead; readonly sketches: readonly JobSketch[]; readonly met: readonly Finding[] }
> => {
  if (!IS_JOB.test(file)) throw new Unusable(`${file}: a saved job is wanted, a file ending in .ashedge.json`);
  const { readJobFile } = await import("@ash-edge/core/formats/job");
  const text = await readFile(file, "utf8").catch(() => {
    throw new Unusable(`${file}: there is no such file, or it can't be read`);
  });
  const job = readJobFile(text);
  if (!job.ok) throw new Unusable(`${file}: ${sayRefusal(job.refusal, "mm")}`);
  const { head, sketches, drawing: rows, nextId, mended } = job.value;
  const drawing = drawingFromRows(rows as never, nextId);
  return {
    drawing,
    head,
    sketches,
    isJob: true,
    material: head.material,
    thickness: thicknessOf(head.thickness, unitOf(drawing)),
    met: mended.map((sentence) => plainReport("mended", "warning", sentence)),
  };
};
