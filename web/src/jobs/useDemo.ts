import { useQuery } from "@tanstack/react-query";
import Joi from "joi";
import type { NewCallout } from "@ash-edge/core/drawing";
import { jobHeadSchema, newCalloutSchema } from "@ash-edge/core/formats/job";
import { useDatabase } from "../app/StoreProvider.tsx";
import { createJob, demoState, putDemoJob, type Database, type NewJob } from "../store/index.ts";

type DemoJob = {
  readonly id: string;
  readonly unit: "mm" | "in";
  readonly head: NewJob;
  readonly callouts: readonly NewCallout[];
  readonly sketch?: string;
  /** How far it has got, if it is more than sketched. */
  readonly state?: string;
};

const file = (end: string): Joi.StringSchema => Joi.string().pattern(new RegExp(`^/api/demo/[\\w-]+\\.${end}$`));

const demoSchema = Joi.object({
  jobs: Joi.array()
    .items(
      Joi.object({
        id: Joi.string().required(),
        unit: Joi.valid("mm", "in").required(),
        head: jobHeadSchema.required(),
        callouts: Joi.array().items(newCalloutSchema).required(),
        sketch: file("png"),
        state: file("json"),
      }),
    )
    .required(),
});

/** A server that does not answer within this has no demo: jobs are opened without it. */
const SERVER_MS = 4000;

const fetched = async (place: string): Promise<Response> => {
  const answer = await fetch(place, { signal: AbortSignal.timeout(SERVER_MS) });
  if (!answer.ok) throw new Error("A file of the demo could not be fetched.");
  return answer;
};

const bytesOf = async (place: string): Promise<Uint8Array<ArrayBuffer>> =>
  new Uint8Array(await (await fetched(place)).arrayBuffer());

/** Brings the demo jobs in, once: a demo job that was deleted does not come back. */
const seed = async (database: Database): Promise<number> => {
  const answer = await fetch("/api/demo", { signal: AbortSignal.timeout(SERVER_MS) });
  if (!answer.ok || !answer.headers.get("content-type")?.includes("json")) return 0;
  const { value, error } = demoSchema.validate(await answer.json());
  if (error) throw new Error(`The demo data is not what it should be: ${error.message}`);
  const known = ((await database.settings.get("demo"))?.value as string[] | undefined) ?? [];
  const fresh = (value as { jobs: DemoJob[] }).jobs.filter(({ id }) => !known.includes(id));
  for (const { id, unit, head, callouts, sketch, state } of fresh) {
    if (state) await putDemoJob(database, demoState(await (await fetched(state)).json()), bytesOf);
    else {
      const sketches = sketch
        ? [{ name: sketch.split("/").at(-1)!, type: "image/png", bytes: await bytesOf(sketch) }]
        : [];
      await createJob(database, { ...head, id, unit }, callouts, sketches);
    }
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
