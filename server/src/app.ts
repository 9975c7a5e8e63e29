import express, { type ErrorRequestHandler, type Express } from "express";
import { rateLimit } from "express-rate-limit";
import helmet from "helmet";
import { existsSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { makeCutter } from "./cutter.ts";
import { makeExample } from "./example.ts";
import { makeInbox } from "./inbox.ts";

export type ServerOptions = {
  /** The folder of the built application. */
  readonly site: string;
  /** The folder of the demo data; without it the server has none. */
  readonly demo?: string;
  /** The folder from which the worked example comes, with or without a demo. */
  readonly example?: string;
  /** The folder of the stand-in mailbox; without it the server has none. */
  readonly inbox?: string;
};

const WORDS: Readonly<Record<number, string>> = {
  400: "This address can't be read.",
  403: "There is nothing at this address.",
  404: "There is nothing at this address.",
  413: "This is too large.",
  412: "It is not what it was any more.",
  416: "There is no such part of it.",
};

/** What could not be answered, in words: nothing of the server's own, neither its errors nor its paths. */
const plainly: ErrorRequestHandler = (reason: { status?: unknown }, _request, response, next) => {
  if (response.headersSent) return next(reason);
  const status = typeof reason.status === "number" && reason.status >= 400 && reason.status < 500 ? reason.status : 500;
  if (status === 500) console.error(reason);
  // what was set for a file that is not sent after all
  for (const name of response.getHeaderNames())
    if (/^(content-|cache-|etag|last-)/.test(name)) response.removeHeader(name);
  response.set("Content-Security-Policy", "default-src 'none'");
  response
    .status(status)
    .type("text")
    .send(WORDS[status] ?? (status === 500 ? "The server could not answer this." : "This can't be answered."));
};

/**
 * The server: the built application, the test cutter, and the mailbox and the demo data where they are wanted. It
 * stores nothing.
 */
export const makeApp = ({ site, demo, example, inbox }: ServerOptions): Express => {
  const app = express();
  app.disable("x-powered-by");
  app.use(
    helmet({
      strictTransportSecurity: false, // also served over plain http inside a shop
      contentSecurityPolicy: {
        useDefaults: false,
        directives: {
          defaultSrc: ["'self'"],
          scriptSrc: ["'self'"],
          styleSrc: ["'self'", "'unsafe-inline'"],
          imgSrc: ["'self'", "blob:", "data:"],
          fontSrc: ["'self'", "data:"],
          workerSrc: ["'self'", "blob:"],
          connectSrc: ["'self'"],
          objectSrc: ["'none'"],
          baseUri: ["'none'"],
          formAction: ["'self'"],
          frameAncestors: ["'none'"],
          upgradeInsecureRequests: null,
        },
      },
    }),
  );
  app.use("/api", rateLimit({ windowMs: 60_000, limit: 600, standardHeaders: true, legacyHeaders: false }));
  app.get("/api/demo", (_request, response) => {
    if (!demo) return void response.status(404).json({ error: "This server has no demo data." });
    response.json(JSON.parse(readFileSync(join(demo, "jobs.json"), "utf8")));
  });
  if (example) app.use("/api/example", makeExample(example));
  app.use("/api/cutter", makeCutter());
  if (inbox) app.use("/api/inbox", makeInbox(inbox));
  if (demo) app.use("/api/demo", express.static(demo, { index: false }));
  app.use(
    "/api",
    (_request, response) => void response.status(404).json({ error: "There is nothing at this address." }),
  );
  app.use("/assets", express.static(join(site, "assets"), { immutable: true, maxAge: "1y", fallthrough: false }));
  app.use(express.static(site, { index: false }));
  app.use((request, response, next) =>
    request.method === "GET" || request.method === "HEAD"
      ? next()
      : void response.status(405).set("Allow", "GET, HEAD").type("text").send("Only GET is answered here."),
  );
  app.get("/{*path}", (_request, response) => {
    const page = join(site, "index.html");
    if (!existsSync(page))
      return void response.status(503).type("text").send("The application is not built yet: run npm run build.");
    response.set("Cache-Control", "no-cache").type("html").send(readFileSync(page, "utf8"));
  });
  app.use(plainly);
  return app;
};
