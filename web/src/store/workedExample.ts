import Joi from "joi";
import type { Database } from "./database.ts";
import { demoJobSchema, fetched, putAsItCame, type DemoJob } from "./demoJob.ts";
import { listJobs, nextJobNumber } from "./jobs.ts";
import { isStoreFault } from "./storeFault.ts";

/** The job in which the worked example is followed, and how far it was: where each step so far began in its history. */
export type WorkedExample = { readonly job: string; readonly starts: readonly number[] };

const KEY = "worked example";
const schema = Joi.object({
  job: Joi.string().required(),
  starts: Joi.array().items(Joi.number().integer().min(0)).min(1).max(1000).required(),
});

/** The example that is being followed; undefined where none is, or what was kept of it can't be read. */
export const exampleNow = async (database: Database): Promise<WorkedExample | undefined> => {
  const kept = (await database.settings.get(KEY))?.value;
  return schema.required().validate(kept, { convert: false }).error ? undefined : (kept as WorkedExample);
};

/** Keeps how far the example was followed; undefined when it was left. */
export const keepExample = async (database: Database, now: WorkedExample | undefined): Promise<void> =>
  void (await (now ? database.settings.put({ key: KEY, value: now }) : database.settings.delete(KEY)));

/**
 * Opens the worked example: the job in which it is being followed, else a new copy of the rocker plate as it came from
 * its customer, fetched from the server. The id of that job; undefined where the server has none to give.
 */
export const openExample = async (database: Database): Promise<string | undefined> => {
  const now = await exampleNow(database);
  const job = now && (await database.jobs.get(now.job));
  if (job && job.binned === undefined) return job.id;
  try {
    const answer: unknown = await (await fetched("/api/example")).json();
    const { value, error } = demoJobSchema.validate(answer);
    if (error) return undefined;
    const source = value as DemoJob;
    const id = await putAsItCame(database, source, {
      ...source.head,
      number: nextJobNumber(await listJobs(database)),
      name: `${source.head.name}, worked example`,
    });
    await keepExample(database, { job: id, starts: [0] });
    return id;
  } catch (reason) {
    if (isStoreFault(reason)) throw reason;
    return undefined;
  }
};
