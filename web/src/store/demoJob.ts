import Joi from "joi";
import type { NewCallout } from "@ash-edge/core/drawing";
import { jobHeadSchema, newCalloutSchema } from "@ash-edge/core/formats/job";
import type { Database } from "./database.ts";
import { createJob, type NewJob } from "./jobs.ts";

/** A job as the server tells of it: as it came from its customer, and how far it has got if it is more than that. */
export type DemoJob = {
  readonly id: string;
  readonly unit: "mm" | "in";
  readonly head: NewJob;
  readonly callouts: readonly NewCallout[];
  readonly sketch?: string;
  readonly state?: string;
};

const file = (end: string): Joi.StringSchema =>
  Joi.string().pattern(new RegExp(`^/api/(demo|example)/[\\w-]+\\.${end}$`));

export const demoJobSchema = Joi.object({
  id: Joi.string().required(),
  unit: Joi.valid("mm", "in").required(),
  head: jobHeadSchema.required(),
  callouts: Joi.array().items(newCalloutSchema).required(),
  sketch: file("png"),
  state: file("json"),
});

/** A server that does not answer within this has nothing to give: jobs are opened without it. */
export const SERVER_MS = 4000;

/** A file of the server's; it throws where it is not there. */
export const fetched = async (place: string): Promise<Response> => {
  const answer = await fetch(place, { signal: AbortSignal.timeout(SERVER_MS) });
  if (!answer.ok) throw new Error("A file of the demo could not be fetched.");
  return answer;
};
export const bytesOf = async (place: string): Promise<Uint8Array<ArrayBuffer>> =>
  new Uint8Array(await (await fetched(place)).arrayBuffer());

/** Makes a job as it came from its customer, under a head of its own; its id. */
export const putAsItCame = async (
  database: Database,
  { unit, callouts, sketch }: DemoJob,
  head: Omit<NewJob, "unit">,
): Promise<string> => {
  const sketches = sketch ? [{ name: sketch.split("/").at(-1)!, type: "image/png", bytes: await bytesOf(sketch) }] : [];
  return createJob(database, { ...head, unit }, callouts, sketches);
};
