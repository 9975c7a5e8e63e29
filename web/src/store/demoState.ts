import Joi from "joi";
import type { Database } from "./database.ts";
import { checked } from "./records.ts";
import type { BlobRecord, HeadRecord, JobRecord, JournalRecord, SnapshotRecord } from "./rows.ts";
import { putVerdict } from "./verdicts.ts";

/** A demo job as far as it has got: its records, packed steps as base64 and its files by where they are fetched. */
export type DemoState = {
  readonly job: JobRecord;
  readonly head: HeadRecord;
  readonly journal: readonly JournalRecord[];
  readonly snapshots: readonly SnapshotRecord[];
  readonly blobs: readonly (Omit<BlobRecord, "bytes"> & { readonly file: string })[];
  readonly verdict?: unknown;
};

const schema = Joi.object({
  job: Joi.object().required(),
  head: Joi.object().required(),
  journal: Joi.array().items(Joi.object()).required(),
  snapshots: Joi.array().items(Joi.object()).min(1).required(),
  blobs: Joi.array()
    .items(
      Joi.object({
        id: Joi.string().required(),
        job: Joi.string().required(),
        kind: Joi.valid("sketch", "release").required(),
        file: Joi.string()
          .pattern(/^\/api\/demo\/[\w.-]+$/)
          .required(),
      }).unknown(),
    )
    .required(),
  verdict: Joi.object(),
});

/** What came as a demo job's state, if it is one whose records are sound. */
export const demoState = (value: unknown): DemoState => {
  const { error } = schema.required().validate(value, { convert: false });
  if (error) throw new Error(`The demo data is not what it should be: ${error.message}`);
  const { job, head, journal, snapshots, ...rest } = value as Omit<DemoState, "journal"> & {
    readonly journal: readonly { readonly packed64?: string }[];
  };
  return {
    ...rest,
    job: checked("job", job),
    head: checked("head", head),
    journal: journal.map(({ packed64, ...row }) =>
      checked(
        "journal",
        packed64 === undefined ? row : { ...row, packed: Uint8Array.from(atob(packed64), (one) => one.charCodeAt(0)) },
      ),
    ),
    snapshots: snapshots.map((row) => checked("snapshot", row)),
  };
};

/** Puts a demo job into the store as far as it has got, in one transaction; one that is there stays as it is. */
export const putDemoJob = async (
  database: Database,
  { job, head, journal, snapshots, blobs, verdict }: DemoState,
  bytesOf: (file: string) => Promise<Uint8Array>,
): Promise<void> => {
  const kept = await Promise.all(blobs.map(async ({ file, ...blob }) => ({ ...blob, bytes: await bytesOf(file) })));
  const { jobs, heads, settings } = database;
  await database.transaction(
    "rw",
    [jobs, heads, database.journal, database.snapshots, database.blobs, settings],
    async () => {
      if (await jobs.get(job.id)) return;
      await jobs.put(job);
      await heads.put(head);
      await database.journal.bulkPut([...journal]);
      await database.snapshots.bulkPut([...snapshots]);
      await database.blobs.bulkPut(kept);
      if (verdict !== undefined) await putVerdict(database, job.id, verdict);
    },
  );
};
