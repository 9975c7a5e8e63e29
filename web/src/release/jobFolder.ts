import { zip, type AsyncZippable } from "fflate";
import { calloutRows } from "@ash-edge/core/checks";
import { unitOf, type Drawing } from "@ash-edge/core/drawing";
import { calloutCsv } from "@ash-edge/core/formats/csv";
import { revisionLetter } from "@ash-edge/core/release";
import { askedFor, revisionWords } from "../sheet/askedFor.ts";
import { makePdf } from "../sheet/makePdf.ts";
import { keptSetup } from "../sheet/setup.ts";
import { jobFileOf, sketchesOf, type BlobRecord, type Database, type JobRecord } from "../store/index.ts";
import { fileName } from "../ui/saveAs.ts";
import type { ShownSketch } from "../ui/useSketch.ts";
import { contoursAsCsv } from "./contoursAsCsv.ts";

const text = (words: string): Uint8Array => new TextEncoder().encode(words);

/** What the folder holds of a release, in words. */
const contents = (release: BlobRecord, isChanged: boolean, left: readonly string[]): string =>
  [
    `${release.name}, revision ${revisionLetter(release.number ?? 0)}`,
    `written ${new Date(release.made).toISOString()}${release.profile ? ` for ${release.profile}` : ""}`,
    ...(release.checksum ? [`SHA-256 ${release.checksum}`] : []),
    ...(release.verdict ? [release.verdict] : []),
    ...(release.waived ?? []).map((one) => `waived: ${one}`),
    ...(isChanged
      ? ["The job was changed since: all but this file is as the job is now, not as it was released."]
      : []),
    ...left.map((one) => `left out: ${one}`),
    "",
  ].join("\r\n");

/**
 * All that belongs to a job as one ZIP: the file that was released last, a sheet and a template as PDF, its callouts
 * and contours as tables, the customer's sketches, the job file; and a text that says what it is. What could not be
 * made is left out, and named.
 */
export const jobFolder = async (
  database: Database,
  {
    job,
    drawing,
    release,
    isChanged,
    sketch,
  }: {
    job: JobRecord;
    drawing: Drawing;
    release: BlobRecord;
    isChanged: boolean;
    sketch: ShownSketch | undefined;
  },
  signal: AbortSignal,
): Promise<{ readonly name: string; readonly bytes: Uint8Array; readonly left: readonly string[] }> => {
  const words = `${job.number} ${job.name}`;
  const named = (what: string, extension: string): string => fileName(`${words}${what}`, extension);
  const left: string[] = [];
  const files: AsyncZippable = { [release.name]: release.bytes };
  for (const template of [false, true]) {
    const what = askedFor(
      job,
      { ...keptSetup(), template },
      { shift: { x: 0, y: 0 }, sketch, revision: revisionWords(release.number, isChanged) },
    );
    const name = named(template ? " template" : " sheet", ".pdf");
    try {
      files[name] = await makePdf(drawing, what, words, sketch, signal);
    } catch (reason) {
      if (signal.aborted) throw reason;
      left.push(`${name}: ${(reason as Error).message}`);
    }
  }
  files[named(" callouts", ".csv")] = text(calloutCsv(calloutRows(drawing), unitOf(drawing)));
  files[named(" contours", ".csv")] = text(await contoursAsCsv(drawing));
  const saved = await jobFileOf(database, job, drawing);
  files[named("", ".ashedge.json")] = text(saved.text);
  for (const one of saved.missing) left.push(`${one}: the browser’s storage could not be read`);
  for (const [i, { name, bytes }] of (await sketchesOf(database, job.id)).entries())
    files[`sketches/${i + 1} ${name.replace(/[^\w. -]+/g, "-")}`] = bytes;
  files["contents.txt"] = text(contents(release, isChanged, left));
  if (signal.aborted) throw new Error("Stopped.");
  const bytes = await new Promise<Uint8Array>((resolve, reject) =>
    zip(files, { level: 6 }, (reason, made) => (reason ? reject(new Error(reason.message)) : resolve(made))),
  );
  return { name: named("", ".zip"), bytes, left };
};
