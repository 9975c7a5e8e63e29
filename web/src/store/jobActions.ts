import Dexie from "dexie";
import type { Database } from "./database.ts";
import type { JobRecord } from "./rows.ts";
import { listJobs, nextJobNumber, sketchesOf } from "./jobs.ts";
import { isSound } from "./records.ts";
import { drawingAt, loadJob, NotInStore, startJournal } from "./journal.ts";
import { reserveFiles } from "./reserve.ts";
import { withSketches } from "./sketchNames.ts";
import { forgetVerdict } from "./verdicts.ts";

/** A job that was deleted is kept for so long. */
export const BIN_DAYS = 30;
const DAY_MS = 86_400_000;

/** Puts a job in the bin: it is out of the list, and comes back as it was. */
export const binJob = async (database: Database, id: string, now = Date.now()): Promise<void> =>
  void (await database.jobs.update(id, { binned: now }));

/** Takes a job out of the bin; under the next free number where another has got its own meanwhile. */
export const unbinJob = (database: Database, id: string): Promise<void> =>
  database.transaction("rw", database.jobs, async () => {
    const job = await database.jobs.get(id);
    if (!job) throw new NotInStore();
    const listed = (await listJobs(database)).filter((one) => one.id !== id);
    const taken = listed.some((one) => one.job?.number === job.number);
    const { binned: _, ...rest } = job;
    await database.jobs.put(taken ? { ...rest, number: nextJobNumber(listed) } : rest);
  });

/** Removes a job with all that belongs to it, for good. */
export const eraseJob = async (database: Database, id: string): Promise<void> => {
  await database.transaction(
    "rw",
    [database.jobs, database.heads, database.journal, database.snapshots, database.blobs, database.settings],
    async () => {
      await forgetVerdict(database, id);
      const span = [
        [id, Dexie.minKey],
        [id, Dexie.maxKey],
      ] as const;
      await database.jobs.delete(id);
      await database.heads.delete(id);
      for (const table of [database.journal, database.snapshots])
        await table
          .where("[job+n]")
          .between(...span)
          .delete();
      await database.blobs.where("job").equals(id).delete();
    },
  );
  await reserveFiles(database)
    ?.remove(id)
    .catch(() => undefined);
};

/** The jobs in the bin, the last deleted first. */
export const binnedJobs = async (database: Database): Promise<readonly JobRecord[]> =>
  (await database.jobs.filter(({ binned }) => typeof binned === "number").toArray())
    .filter((job) => isSound("job", job))
    .sort((p, q) => q.binned! - p.binned!);

/** When a job in the bin goes for good. */
export const goesAt = ({ binned = 0 }: JobRecord): number => binned + BIN_DAYS * DAY_MS;

/** Removes what has been in the bin for longer than it is kept. */
export const emptyBin = async (database: Database, now = Date.now()): Promise<void> => {
  for (const job of await binnedJobs(database)) if (goesAt(job) <= now) await eraseJob(database, job.id);
};

/**
 * A copy of a job under another number: its drawing as it stands, or as it was at a place in its history, its callouts
 * and its sketches; no releases, no history. Undefined where the job, or that place, is not there any more.
 */
export const duplicateJob = async (
  database: Database,
  id: string,
  number: string,
  at?: string,
): Promise<string | undefined> => {
  const job = await database.jobs.get(id);
  const drawing =
    job && (at === undefined ? (await loadJob(database, id))?.drawing : await drawingAt(database, id, at));
  if (!job || !drawing) return undefined;
  const copy = crypto.randomUUID();
  const sketches = (await sketchesOf(database, id)).map((blob) => ({
    ...blob,
    id: blob.id.replace(id, copy),
    job: copy,
    ...(blob.from ? { from: blob.from.replace(id, copy) } : {}),
  }));
  const names = new Map(sketches.map((blob) => [blob.id.replace(copy, id), blob.id]));
  const { archived: _, released: __, changed: ___, ...rest } = job;
  await database.transaction("rw", [database.jobs, database.heads, database.snapshots, database.blobs], async () => {
    await database.jobs.put({
      ...rest,
      id: copy,
      number,
      state: job.state === "released" ? "drawn" : job.state,
      updated: Date.now(),
    });
    await startJournal(
      database,
      copy,
      withSketches(drawing, (sketch) => names.get(sketch) ?? sketch),
    );
    await database.blobs.bulkPut(sketches);
  });
  return copy;
};

type Head = Pick<JobRecord, "number" | "name" | "customer" | "material" | "thickness" | "quantity" | "due">;

const HEAD_FIELDS = ["number", "name", "customer", "material", "thickness", "quantity", "due"] as const;

/** A field that another tab has changed since it was shown here: what it says now, and what was to be put there. */
export type HeadClash = { readonly field: keyof Head; readonly theirs: string; readonly mine: string };

/**
 * Changes what a job says of itself, only the fields that differ from how it was known here. Where another tab has
 * changed one of those meanwhile nothing is written, and the clashes come back. `job` is the job as it is then.
 */
export const changeHead = (
  database: Database,
  known: JobRecord,
  head: Head,
): Promise<{ readonly job: JobRecord; readonly clashes: readonly HeadClash[] }> =>
  database.transaction("rw", database.jobs, async () => {
    const now = await database.jobs.get(known.id);
    if (!now) throw new NotInStore();
    const wanted = HEAD_FIELDS.filter((field) => head[field] !== known[field]);
    const clashes = wanted
      .filter((field) => now[field] !== known[field] && now[field] !== head[field])
      .map((field): HeadClash => ({ field, theirs: String(now[field] ?? ""), mine: String(head[field] ?? "") }));
    if (clashes.length > 0) return { job: now, clashes };
    const changes = Object.fromEntries(wanted.map((field) => [field, head[field]]));
    await database.jobs.update(known.id, changes);
    return { job: { ...now, ...changes }, clashes: [] };
  });

/** The numbers that jobs have; those in the bin don't count. */
export const numbersTaken = async (database: Database): Promise<readonly string[]> =>
  (await listJobs(database)).flatMap(({ job }) => job?.number ?? []);

export const archiveJob = async (database: Database, id: string, archived: boolean): Promise<void> => {
  await database.jobs.update(id, { archived });
};
