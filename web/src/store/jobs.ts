import Dexie from "dexie";
import { newDrawing, type NewCallout } from "@ash-edge/core/drawing";
import type { JobHead } from "@ash-edge/core/formats/job";
import type { Unit } from "@ash-edge/core/numeric";
import { checksumOf } from "./checksum.ts";
import type { BlobRecord, Database, JobRecord } from "./database.ts";
import { startJournal } from "./journal.ts";
import { isSound } from "./records.ts";

/** A job in the list; a damaged one keeps its id, so that it can be exported raw. */
export type ListedJob = { readonly id: string; readonly job?: JobRecord };

/** All jobs by number, damaged records among them. */
export const listJobs = async (database: Database): Promise<readonly ListedJob[]> => {
  const records = (await database.jobs.toArray()) as (JobRecord & { id: string })[];
  return records
    .map((record): ListedJob => (isSound("job", record) ? { id: record.id, job: record } : { id: record.id }))
    .sort((p, q) => (p.job?.number ?? p.id).localeCompare(q.job?.number ?? q.id, "en", { numeric: true }));
};

export type NewJob = JobHead & { readonly id?: string; readonly unit: Unit };
export type NewSketch = { readonly name: string; readonly type: string; readonly bytes: Uint8Array };

/** Makes a job with its drawing, callouts and sketch in one transaction; returns its id. */
export const createJob = async (
  database: Database,
  head: NewJob,
  callouts: readonly NewCallout[] = [],
  sketch?: NewSketch,
): Promise<string> => {
  const id = head.id ?? crypto.randomUUID();
  const blob: BlobRecord | undefined = sketch && {
    id: `${id}-sketch-1`,
    job: id,
    kind: "sketch",
    checksum: await checksumOf(sketch.bytes),
    made: Date.now(),
    ...sketch,
  };
  await database.transaction("rw", database.jobs, database.heads, database.snapshots, database.blobs, async () => {
    if (await database.jobs.get(id)) return;
    await database.jobs.put({ ...head, id, state: "sketched", updated: Date.now() });
    await startJournal(database, id, newDrawing(head.unit, callouts));
    if (blob) await database.blobs.put(blob);
  });
  return id;
};

/** The number that a new job is offered: one more than the highest. */
export const nextJobNumber = (jobs: readonly ListedJob[]): string => {
  const highest = Math.max(0, ...jobs.map(({ job }) => Number(job?.number)).filter(Number.isInteger));
  return String(highest + 1).padStart(4, "0");
};

/** Everything stored of a job as it stands, sound or not, as JSON text; bytes as arrays. */
export const exportRaw = async (database: Database, id: string): Promise<string> => {
  const span = [
    [id, Dexie.minKey],
    [id, Dexie.maxKey],
  ] as const;
  const raw = {
    job: await database.jobs.get(id),
    head: await database.heads.get(id),
    snapshots: await database.snapshots
      .where("[job+n]")
      .between(...span)
      .toArray(),
    journal: await database.journal
      .where("[job+n]")
      .between(...span)
      .toArray(),
    blobs: (await database.blobs.where("job").equals(id).toArray()).map((blob) => ({
      ...blob,
      bytes: [...(blob.bytes ?? [])],
    })),
  };
  return JSON.stringify(raw, null, 1);
};

export const sketchesOf = (database: Database, job: string): Promise<BlobRecord[]> =>
  database.blobs
    .where("job")
    .equals(job)
    .and(({ kind }) => kind === "sketch")
    .toArray();

export const releasesOf = async (database: Database, job: string): Promise<BlobRecord[]> =>
  (
    await database.blobs
      .where("job")
      .equals(job)
      .and(({ kind }) => kind === "release")
      .toArray()
  ).sort((p, q) => (q.number ?? 0) - (p.number ?? 0));
