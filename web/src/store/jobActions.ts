import Dexie from "dexie";
import { calloutsOf, drawingFromRows, drawingText, picturesOf, type Drawing } from "@ash-edge/core/drawing";
import type { Database } from "./database.ts";
import type { BlobRecord, HeadRecord, JobRecord, JournalRecord, SnapshotRecord } from "./rows.ts";
import { sketchesOf } from "./jobs.ts";
import { loadJob, startJournal } from "./journal.ts";

/** Everything stored of a job, to put it back after it was deleted. */
export type WholeJob = {
  readonly job: JobRecord | undefined;
  readonly head: HeadRecord | undefined;
  readonly journal: readonly JournalRecord[];
  readonly snapshots: readonly SnapshotRecord[];
  readonly blobs: readonly BlobRecord[];
};

const ofJob = (id: string) =>
  [
    [id, Dexie.minKey],
    [id, Dexie.maxKey],
  ] as const;

/** Removes a job with all that belongs to it, and returns that. */
export const deleteJob = (database: Database, id: string): Promise<WholeJob> =>
  database.transaction(
    "rw",
    [database.jobs, database.heads, database.journal, database.snapshots, database.blobs],
    async () => {
      const [journal, snapshots] = [database.journal, database.snapshots].map((table) =>
        table.where("[job+n]").between(...ofJob(id)),
      );
      const blobs = database.blobs.where("job").equals(id);
      const whole: WholeJob = {
        job: await database.jobs.get(id),
        head: await database.heads.get(id),
        journal: (await journal!.toArray()) as JournalRecord[],
        snapshots: (await snapshots!.toArray()) as SnapshotRecord[],
        blobs: await blobs.toArray(),
      };
      await Promise.all([
        database.jobs.delete(id),
        database.heads.delete(id),
        journal!.delete(),
        snapshots!.delete(),
        blobs.delete(),
      ]);
      return whole;
    },
  );

/** Puts a deleted job back as it was. */
export const restoreJob = (database: Database, { job, head, journal, snapshots, blobs }: WholeJob): Promise<void> =>
  database.transaction(
    "rw",
    [database.jobs, database.heads, database.journal, database.snapshots, database.blobs],
    async () => {
      if (job) await database.jobs.put(job);
      if (head) await database.heads.put(head);
      await database.journal.bulkPut([...journal]);
      await database.snapshots.bulkPut([...snapshots]);
      await database.blobs.bulkPut([...blobs]);
    },
  );

/** The drawing with its pins and its pictures on the copies of its sketches. */
const withPinsOn = (drawing: Drawing, names: ReadonlyMap<string, string>): Drawing => {
  const rows = JSON.parse(drawingText(drawing)) as Parameters<typeof drawingFromRows>[0];
  const callout = calloutsOf(drawing).map((row) =>
    row.pin ? { ...row, pin: { ...row.pin, sketch: names.get(row.pin.sketch) ?? row.pin.sketch } } : row,
  );
  const renamed = (blob: string): string => names.get(blob) ?? blob;
  const picture = picturesOf(drawing).map(({ from, ...row }) => ({
    ...row,
    blob: renamed(row.blob),
    ...(from ? { from: renamed(from) } : {}),
  }));
  return drawingFromRows({ ...rows, callout, picture }, drawing.nextId);
};

/**
 * A copy of a job under another number: its drawing as it stands, its callouts and its sketches; no releases, no
 * history.
 */
export const duplicateJob = async (database: Database, id: string, number: string): Promise<string | undefined> => {
  const job = await database.jobs.get(id);
  const stored = job && (await loadJob(database, id));
  if (!job || !stored) return undefined;
  const copy = crypto.randomUUID();
  const sketches = (await sketchesOf(database, id)).map((blob) => ({
    ...blob,
    id: blob.id.replace(id, copy),
    job: copy,
    ...(blob.from ? { from: blob.from.replace(id, copy) } : {}),
  }));
  const names = new Map(sketches.map((blob) => [blob.id.replace(copy, id), blob.id]));
  const { archived: _, ...rest } = job;
  await database.transaction("rw", [database.jobs, database.heads, database.snapshots, database.blobs], async () => {
    await database.jobs.put({
      ...rest,
      id: copy,
      number,
      state: job.state === "released" ? "drawn" : job.state,
      updated: Date.now(),
    });
    await startJournal(database, copy, withPinsOn(stored.drawing, names));
    await database.blobs.bulkPut(sketches);
  });
  return copy;
};

type Head = Pick<JobRecord, "number" | "name" | "customer" | "material" | "thickness" | "quantity" | "due">;

/** Changes what a job says of itself; returns the job as it is then. */
export const changeHead = async (database: Database, job: JobRecord, head: Head): Promise<JobRecord> => {
  const { number, name, customer, material, thickness, quantity, due } = head;
  const changes: Head = { number, name, customer, material, thickness, quantity, due };
  await database.jobs.update(job.id, changes);
  return { ...job, ...changes };
};

/** The numbers that jobs have. */
export const numbersTaken = async (database: Database): Promise<readonly string[]> =>
  (await database.jobs.toArray()).map(({ number }) => number);

export const archiveJob = async (database: Database, id: string, archived: boolean): Promise<void> => {
  await database.jobs.update(id, { archived });
};
