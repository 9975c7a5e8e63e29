import type { ReleasePlan } from "@ash-edge/core/checks";
import { releasedShapes } from "@ash-edge/core/formats";
import { compareRead, writeDxf } from "@ash-edge/core/formats/dxf";
import { sayRefusal } from "@ash-edge/core/say";
import { checksumOf, placeInHistory, releasesOf, type BlobRecord, type Database } from "../store/index.ts";
import { readBack } from "./readBack.ts";
import { readBackSvg } from "./readBackSvg.ts";

/** What a release can be written as: DXF in its common versions, or SVG in true size. */
export const FORMATS = ["R2000", "R12", "SVG"] as const;
export type Format = (typeof FORMATS)[number];
export const extensionOf = (format: Format): string => (format === "SVG" ? ".svg" : ".dxf");

/** The place in the job's history from which a release is made. */
export type ReleasedFrom = { readonly position: number; readonly at: string };

/** The file did not read back as it was written: nothing is offered. */
export class ReadsDifferently extends Error {}

/** The text of a release, and what an independent reader finds different in it. */
const written = async (
  { contours, unit }: ReleasePlan,
  format: Format,
): Promise<{ text: string; differences: readonly string[] }> => {
  if (format !== "SVG") {
    const text = writeDxf(contours, unit, format);
    return { text, differences: compareRead(contours, unit, await readBack(text)) };
  }
  const { compareSvg, readSvg, writeSvg } = await import("@ash-edge/core/formats/svg");
  const text = writeSvg(releasedShapes(contours), unit);
  if (!text.ok) throw new Error(sayRefusal(text.refusal, unit));
  const read = readSvg(text.value);
  if (!read.ok) throw new ReadsDifferently(sayRefusal(read.refusal, unit));
  return { text: text.value, differences: compareSvg(contours, unit, readBackSvg(text.value), read.value) };
};

/**
 * Writes the file, reads it back with an independent reader, compares, and keeps the file with its job and checksum.
 */
export const writeRelease = async (
  database: Database,
  job: string,
  plan: ReleasePlan,
  name: string,
  { position, at }: ReleasedFrom,
  format: Format,
): Promise<BlobRecord> => {
  const { text, differences } = await written(plan, format);
  if (differences.length > 0)
    throw new ReadsDifferently(
      `The file was written but reads back differently, so it is not offered. ${differences.slice(0, 5).join(" ")}`,
    );
  const bytes = new TextEncoder().encode(text);
  const checksum = await checksumOf(bytes);
  const number = ((await releasesOf(database, job))[0]?.number ?? 0) + 1;
  const blob: BlobRecord = {
    id: `${job}-release-${number}`,
    job,
    kind: "release",
    name,
    type: format === "SVG" ? "image/svg+xml" : "image/vnd.dxf",
    bytes,
    checksum,
    made: Date.now(),
    number,
    position,
  };
  await database.transaction("rw", [database.blobs, database.jobs, database.heads, database.journal], async () => {
    await database.blobs.add(blob); // never over one that another tab has released
    const released = { number, at };
    const record = await database.jobs.get(job);
    const changed = (await placeInHistory(database, job)) !== at;
    if (record) await database.jobs.put({ ...record, state: "released", released, changed, updated: Date.now() });
  });
  return blob;
};
