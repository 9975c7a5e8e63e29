import { Router } from "express";
import { readFileSync } from "node:fs";
import { basename, join } from "node:path";

/** The job of the demo that is drawn as a worked example. */
const JOB = "demo-0414";

type Job = { readonly id: string; readonly sketch: string; readonly state?: string };

/** The worked example as it came from its customer, and its sketch; read from the folder of the demo data. */
export const makeExample = (folder: string): Router => {
  const router = Router();
  const job = (): Job => {
    const { jobs } = JSON.parse(readFileSync(join(folder, "jobs.json"), "utf8")) as { jobs: Job[] };
    return jobs.find(({ id }) => id === JOB)!;
  };
  router.get("/", (_request, response) => {
    const { state: _, ...asItCame } = job();
    response.json({ ...asItCame, sketch: `/api/example/${basename(asItCame.sketch)}` });
  });
  router.get("/:file.png", (request, response, next) => {
    const name = basename(job().sketch);
    if (`${request.params.file}.png` !== name) return next();
    response.sendFile(name, { root: folder });
  });
  return router;
};
