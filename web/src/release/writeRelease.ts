import type { ReleasePlan } from "@ash-edge/core/checks";
import { releaseId, checksumOf, placeInHistory, releasesOf, type BlobRecord, type Database } from "../store/index.ts";
import { readBackSvg } from "./readBackSvg.ts";
import type { Written } from "./release.worker.ts";
import { releaseWork } from "./releaseWork.ts";

/** What a release can be written as: DXF in its common versions, or SVG in true size. */
export const FORMATS = ["R2000", "R12", "SVG"] as const;
export type Format = (typeof FORMATS)[number];
export const extensionOf = (format: Format): string => (format === "SVG" ? ".svg" : ".dxf");

/** The place in the job's history from which a release is made. */
export type ReleasedFrom = { readonly position: number; readonly at: string };

/** The file did not read back as it was written: nothing is offered. */
export class ReadsDifferently extends Error {}

/** A release of the job bears the name already. */
export class NameTaken extends Error {
  constructor({ name, number }: BlobRecord) {
    super(`${name} is the name of release no. ${number}. Choose another one.`);
  }
}

/** The text of a release, and what an independent reader finds different in it. */
const written = async (plan: ReleasePlan, format: Format, signal: AbortSignal): Promise<Written> => {
  const { contours, unit, layers } = plan;
  if (format !== "SVG") return releaseWork((remote) => remote.writeDxf({ contours, unit, layers }, format), signal);
  const text = await releaseWork((remote) => remote.writeSvg(contours, unit), signal);
  const found = await readBackSvg(text, signal);
  return { text, differences: await releaseWork((remote) => remote.compareSvg(contours, unit, text, found), signal) };
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
  signal: AbortSignal,
): Promise<BlobRecord> => {
  const { text, differences } = await written(plan, format, signal);
  if (differences.length > 0)
    throw new ReadsDifferently(
      `The file was written but reads back differently, so it is not offered. ${differences.slice(0, 5).join(" ")}`,
    );
  const bytes = new TextEncoder().encode(text);
  const checksum = await checksumOf(bytes);
  if (signal.aborted) throw new Error("Stopped.");
  // another tab may release as well: number and name are looked at where they are taken
  return database.transaction("rw", [database.blobs, database.jobs, database.heads, database.journal], async () => {
    const before = await releasesOf(database, job);
    const taken = before.find((one) => sameName(one.name, name));
    if (taken) throw new NameTaken(taken);
    const number = (before[0]?.number ?? 0) + 1;
    const blob: BlobRecord = {
      id: releaseId(job, number),
      job,
      kind: "release",
      name,
      type: format === "SVG" ? "image/svg+xml" : "image/vnd.dxf",
      bytes,
      checksum,
      made: Date.now(),
      number,
      position,
      at,
    };
    await database.blobs.add(blob);
    const record = await database.jobs.get(job);
    const changed = (await placeInHistory(database, job)) !== at;
    if (record)
      await database.jobs.put({ ...record, state: "released", released: { number, at }, changed, updated: Date.now() });
    return blob;
  });
};

/** File systems of shops take large and small letters for the same. */
export const sameName = (p: string, q: string): boolean => p.toLowerCase() === q.toLowerCase();
