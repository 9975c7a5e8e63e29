import { useQuery } from "@tanstack/react-query";
import Joi from "joi";
import { useDatabase } from "../app/StoreProvider.tsx";
import {
  bytesOf,
  demoJobSchema,
  demoState,
  fetched,
  putAsItCame,
  putDemoJob,
  SERVER_MS,
  type Database,
  type DemoJob,
} from "../store/index.ts";

const demoSchema = Joi.object({ jobs: Joi.array().items(demoJobSchema).required() });

/** Brings the demo jobs in, once: a demo job that was deleted does not come back. */
const seed = async (database: Database): Promise<number> => {
  const answer = await fetch("/api/demo", { signal: AbortSignal.timeout(SERVER_MS) });
  if (!answer.ok || !answer.headers.get("content-type")?.includes("json")) return 0;
  const { value, error } = demoSchema.validate(await answer.json());
  if (error) throw new Error(`The demo data is not what it should be: ${error.message}`);
  const known = ((await database.settings.get("demo"))?.value as string[] | undefined) ?? [];
  const fresh = (value as { jobs: DemoJob[] }).jobs.filter(({ id }) => !known.includes(id));
  for (const job of fresh) {
    if (job.state) await putDemoJob(database, demoState(await (await fetched(job.state)).json()), bytesOf);
    else await putAsItCame(database, job, { ...job.head, id: job.id });
  }
  if (fresh.length > 0) await database.settings.put({ key: "demo", value: [...known, ...fresh.map(({ id }) => id)] });
  return fresh.length;
};

/** Whether the demo data is there; without a server, or without a demo on it, nothing comes and nothing is wrong. */
export const useDemo = (): { readonly isPending: boolean; readonly error: Error | null } => {
  const database = useDatabase();
  return useQuery({
    queryKey: ["demo"],
    queryFn: () =>
      seed(database).catch((reason: unknown) =>
        reason instanceof TypeError || (reason as Error).name === "TimeoutError" ? 0 : Promise.reject(reason),
      ),
  });
};
