import express, { Router, type Response } from "express";
import Joi from "joi";
import { randomUUID } from "node:crypto";
import {
  PROCESS_KINDS,
  PROCESSES,
  readCut,
  runAt,
  runOf,
  type CutterRun,
  type LayerTable,
  type Process,
  type ProcessKind,
} from "@ash-edge/core/cutter";
import { sayRefusal } from "@ash-edge/core/say";

/** The largest file that is taken, runs that are kept at a time and for how long, and streams that are open at once. */
const [LARGEST, MOST_RUNS, KEPT_MS, MOST_STREAMS] = ["20mb", 100, 600_000, 50];
/** An event every so often. */
const EVERY_MS = 100;

type Kept = { readonly run: CutterRun; readonly process: Process; readonly at: number };

const layersSchema = Joi.object<LayerTable>()
  .pattern(Joi.string().max(255), Joi.valid("outside", "inside", "mark", "tapped", "profile"))
  .max(500);
const watchSchema = Joi.object({
  from: Joi.number().min(0).max(1e9).default(0),
  speed: Joi.number().min(0.1).max(1000).default(1),
});

const parsed = (text: unknown): unknown => {
  try {
    return JSON.parse(typeof text === "string" ? text : "");
  } catch {
    return undefined;
  }
};

/**
 * The Fernhollow test cutter, which is made up: takes a file's bytes, refuses what a machine would choke on, and runs
 * it, told by server-sent events. It keeps a run for ten minutes and nothing else.
 */
export const makeCutter = (): Router => {
  const runs = new Map<string, Kept>();
  let streams = 0;
  const router = Router();

  router.get("/processes", (_request, response) => void response.json(Object.values(PROCESSES)));

  router.post("/runs", express.raw({ type: () => true, limit: LARGEST }), (request, response) => {
    const kind = PROCESS_KINDS.find((one) => one === request.query.process) as ProcessKind | undefined;
    const layers = layersSchema.required().validate(parsed(request.query.layers));
    if (!kind || layers.error || !Buffer.isBuffer(request.body))
      return void response.status(400).json({ error: "A run takes a file, a process and the layers that it cuts." });
    const process = PROCESSES[kind];
    const read = readCut(request.body.toString("utf8"), process, layers.value);
    if (!read.ok) return void response.status(422).json({ refused: sayRefusal(read.refusal, "mm") });
    const now = Date.now();
    for (const [id, { at }] of runs) if (now - at > KEPT_MS) runs.delete(id);
    // the oldest makes room
    for (const id of runs.keys()) if (runs.size >= MOST_RUNS) runs.delete(id);
    const id = randomUUID();
    const run = runOf(read.value, process);
    runs.set(id, { run, process, at: now });
    response.status(201).json({ id, run });
  });

  router.get("/runs/:id/events", (request, response) => {
    const kept = runs.get(request.params.id);
    if (!kept) return void response.status(404).json({ error: "There is no such run any more." });
    const asked = watchSchema.validate(request.query, { convert: true });
    if (asked.error) return void response.status(400).json({ error: "A run is watched from a time, at a speed." });
    if (streams >= MOST_STREAMS)
      return void response.status(503).json({ error: "Too many runs are watched. Try again in a while." });
    streams += 1;
    watch(response, kept, asked.value as { from: number; speed: number }, () => (streams -= 1));
  });
  return router;
};

/** Tells where the cutter is, over and over, until it is done or nobody listens. */
const watch = (
  response: Response,
  { run, process }: Kept,
  { from, speed }: { readonly from: number; readonly speed: number },
  onEnd: () => void,
): void => {
  response.set({ "Content-Type": "text/event-stream", "Cache-Control": "no-cache", "X-Accel-Buffering": "no" });
  response.flushHeaders();
  // what is told first is the place from which it is watched, however long it took to get here
  let start: number | undefined;
  const tell = (): void => {
    const now = Date.now();
    start ??= now;
    const time = from + (speed * (now - start)) / 1000;
    const { at, step, state } = runAt(run, time, process);
    response.write(
      `data: ${JSON.stringify({ time: Math.min(time, run.time), position: at, contour: step, state })}\n\n`,
    );
    if (state !== "done") return;
    response.end();
  };
  const timer = setInterval(tell, EVERY_MS);
  response.on("close", () => {
    clearInterval(timer);
    onEnd();
  });
  tell();
};
