import Dexie from "dexie";
import { newDrawing, type Drawing, type NewCallout } from "@ash-edge/core/drawing";
import type { JobHead } from "@ash-edge/core/formats/job";
import { greatest, type Unit } from "@ash-edge/core/numeric";
import { checksumOf } from "./checksum.ts";
import type { Database } from "./database.ts";
import type { BlobRecord, JobRecord } from "./rows.ts";
import { startJournal } from "./journal.ts";
import { isSound } from "./records.ts";
import { inShopStyle } from "./shopStyle.ts";
import { namedByJob, sketchId } from "./sketchNames.ts";
import { SUMMARY_LIMIT, summaryOf } from "./summary.ts";

/** A job in the list; a damaged one keeps its id, so that it can be exported raw. */
export type ListedJob = { readonly id: string; readonly job?: JobRecord };

/** True where someone else has stored steps of a job since it was opened at `token`. */
export const wasChangedSince = async (database: Database, id: string, token: number, by: string): Promise<boolean> => {
  const head = await database.heads.get(id);
  return head !== undefined && (head.token ?? 0) > token && head.by !== by;
};

/** All jobs by number but those in the bin, damaged records among them. */
export const listJobs = async (database: Database): Promise<readonly ListedJob[]> => {
  const records = (await database.jobs.toArray()) as (JobRecord & { id: string })[];
  return records
    .filter(({ binned }) => binned === undefined)
    .map((record): ListedJob => (isSound("job", record) ? { id: record.id, job: record } : { id: record.id }))
    .sort((p, q) => (p.job?.number ?? p.id).localeCompare(q.job?.number ?? q.id, "en", { numeric: true }));
};

export type NewJob = JobHead & { readonly id?: string; readonly unit: Unit };
export type NewSketch = {
  readonly name: string;
  readonly type: string;
  readonly bytes: Uint8Array;
  readonly from?: string;
};

const sketchRecord = async (job: string, number: number, sketch: NewSketch): Promise<BlobRecord> => ({
  id: sketchId(job, number),
  job,
  kind: "sketch",
  checksum: await checksumOf(sketch.bytes),
  made: Date.now(),
  number,
  ...sketch,
});

/**
 * Makes a job with its drawing (a new one with the callouts where none is given) and sketches in one transaction;
 * returns its id.
 */
export const createJob = async (
  database: Database,
  head: NewJob,
  callouts: readonly NewCallout[] = [],
  sketches: readonly NewSketch[] = [],
  drawing: Drawing = newDrawing(head.unit, callouts),
): Promise<string> => {
  const id = head.id ?? crypto.randomUUID();
  const styled = await inShopStyle(database, drawing);
  const isGreat = drawing.entity.size > SUMMARY_LIMIT;
  const summary = isGreat ? { state: "drawn" as const } : summaryOf(drawing);
  const blobs = await Promise.all(sketches.map((sketch, i) => sketchRecord(id, i + 1, sketch)));
  await database.transaction("rw", database.jobs, database.heads, database.snapshots, database.blobs, async () => {
    if (await database.jobs.get(id)) return;
    await database.jobs.put({
      ...head,
      id,
      ...summary,
      updated: Date.now(),
    });
    await startJournal(database, id, sketches.length > 0 ? namedByJob(styled, id) : styled);
    await database.blobs.bulkPut(blobs);
  });
  return id;
};

/** Puts one more picture with a job's sketches; returns its record. */
export const addSketch = async (database: Database, job: string, sketch: NewSketch): Promise<BlobRecord> => {
  const highest = greatest([0, ...(await sketchesOf(database, job)).map(({ number }) => number ?? 0)]);
  const record = await sketchRecord(job, highest + 1, sketch);
  await database.blobs.add(record);
  return record;
};

/** The number that a new job is offered: one more than the highest. */
export const nextJobNumber = (jobs: readonly ListedJob[]): string => {
  const highest = greatest([0, ...jobs.map(({ job }) => Number(job?.number)).filter(Number.isInteger)]);
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
    journal: (
      await database.journal
        .where("[job+n]")
        .between(...span)
        .toArray()
    ).map((row) => ("packed" in row ? { ...row, packed: new TextDecoder().decode(row.packed) } : row)),
    blobs: (await database.blobs.where("job").equals(id).toArray()).map((blob) => ({
      ...blob,
      bytes: [...(blob.bytes ?? [])],
    })),
  };
  return JSON.stringify(raw, null, 1);
};

/** The sketches of a job in the order in which they came. */
export const sketchesOf = async (database: Database, job: string): Promise<BlobRecord[]> =>
  (await blobsOf(database, job, "sketch")).sort((p, q) => (p.number ?? 0) - (q.number ?? 0));

export const releasesOf = async (database: Database, job: string): Promise<BlobRecord[]> =>
  (await blobsOf(database, job, "release")).sort((p, q) => (q.number ?? 0) - (p.number ?? 0));

const blobsOf = (database: Database, job: string, kind: BlobRecord["kind"]): Promise<BlobRecord[]> =>
  database.blobs
    .where("job")
    .equals(job)
    .and((blob) => blob.kind === kind)
    .toArray();
