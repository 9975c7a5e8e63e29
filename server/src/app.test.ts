import Joi from "joi";
import { mkdtempSync, writeFileSync } from "node:fs";
import type { AddressInfo } from "node:net";
import { tmpdir } from "node:os";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { writeShapes } from "@ash-edge/core/formats/dxf";
import { jobHeadSchema, newCalloutSchema } from "@ash-edge/core/formats/job";
import { makeApp } from "./app.ts";

describe("the server", () => {
  const own = dirname(dirname(fileURLToPath(import.meta.url)));
  const demo = join(own, "demo");
  let close: () => void;
  let base = "";
  beforeAll(async () => {
    const site = mkdtempSync(join(tmpdir(), "ash-edge-site-"));
    writeFileSync(join(site, "index.html"), "<!doctype html><title>Ash Edge</title>");
    const server = makeApp({ site, demo, example: demo, inbox: join(own, "inbox") }).listen(0, "127.0.0.1");
    await new Promise((ready) => server.once("listening", ready));
    close = () => void server.close();
    base = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
  });
  afterAll(() => close());

  it("gives the page at any place of the application, with a policy that allows no inline script", async () => {
    const answer = await fetch(`${base}/jobs/0414/release`);
    expect(await answer.text()).toContain("Ash Edge");
    const policy = answer.headers.get("content-security-policy")!;
    expect(policy).toContain("script-src 'self'");
    expect(policy).not.toMatch(/script-src[^;]*unsafe/);
    expect(answer.headers.get("x-content-type-options")).toBe("nosniff");
  });

  it("offers demo jobs that pass the application's own door, each with its picture", async () => {
    const { jobs } = (await (await fetch(`${base}/api/demo`)).json()) as {
      jobs: { head: unknown; callouts: unknown; sketch?: string; state?: string }[];
    };
    expect(jobs.length).toBeGreaterThanOrEqual(3);
    for (const { head, callouts, sketch, state } of jobs) {
      expect(jobHeadSchema.validate(head).error).toBeUndefined();
      expect(Joi.array().items(newCalloutSchema).validate(callouts).error).toBeUndefined();
      const files = state ? ((await (await fetch(base + state)).json()) as { blobs: { file: string }[] }).blobs : [];
      for (const file of [...(sketch ? [sketch] : []), ...files.map(({ file }) => file)])
        expect([file, (await fetch(base + file)).status]).toEqual([file, 200]);
    }
  });

  it("gives the worked example as its customer sent it, with its sketch and nothing else of the folder", async () => {
    type Job = { head: { number: string }; callouts: unknown[]; sketch: string; state?: string };
    const job = (await (await fetch(`${base}/api/example`)).json()) as Job;
    expect([job.head.number, job.callouts.length, job.state]).toEqual(["0414", 8, undefined]);
    const sketch = await fetch(base + job.sketch);
    expect([sketch.status, sketch.headers.get("content-type")]).toEqual([200, "image/png"]);
    for (const place of ["jobs.json", "sketch-0412.png", "..%2Fdemo%2Fsketch-0414.png", "%2e%2e/inbox/messages.json"])
      expect((await fetch(`${base}/api/example/${place}`)).status).toBe(404);
  });

  it("gives the messages of the mailbox with what came with each, and nothing else of their folder", async () => {
    type Sent = { id: string; attachments: { name: string; type: string; size: number }[] };
    const { messages } = (await (await fetch(`${base}/api/inbox`)).json()) as { messages: Sent[] };
    expect(messages).toHaveLength(4);
    const came = messages.flatMap(({ id, attachments }) => attachments.map((one) => ({ id, ...one })));
    expect(came.map(({ type }) => type)).toEqual(["image/jpeg", "application/pdf", "application/dxf"]);
    for (const { id, name, type, size } of came) {
      const answer = await fetch(`${base}/api/inbox/${id}/${name}`);
      expect([answer.status, answer.headers.get("content-type")]).toEqual([200, type]);
      expect((await answer.arrayBuffer()).byteLength).toBe(size);
    }
    for (const other of ["flange/messages.json", "lever/flange.jpg", "flange/..%2Fmessages.json", "none/flange.jpg"])
      expect((await fetch(`${base}/api/inbox/${other}`)).status).toBe(404);
  });

  it("answers whatever is asked for without a stack or a path of its own; what is wrong by a plain 4xx", async () => {
    const odd = [
      "%",
      "%00",
      "%c0%af",
      "%2e%2e%2f%2e%2e%2fpackage.json",
      "..%5c..%5c",
      "a\u202e.js",
      "%ff%fe",
      "con",
      "x".repeat(4000),
    ];
    const places = ["/", "/assets/", "/api/", "/api/demo/", "/jobs/"].flatMap((at) => odd.map((one) => at + one));
    const asks: readonly RequestInit[] = [
      {},
      { headers: { range: "bytes=9999999-" } },
      { headers: { range: "bytes=-1,5-2" } },
      { headers: { "if-match": '"none"' } },
      { method: "POST", body: "{" },
      { method: "DELETE" },
    ];
    let wrong = 0;
    for (const place of [...places, "/api/demo/jobs.json", "/index.html"])
      for (const ask of asks) {
        const answer = await fetch(base + place, ask);
        const text = await answer.text();
        expect([answer.status < 500, /\bat .*:\d+:\d+|node_modules|\/src\/|Error:/.test(text)]).toEqual([true, false]);
        wrong += answer.status >= 400 ? 1 : 0;
      }
    expect(wrong).toBeGreaterThan(100);
  });

  it("runs a file on the test cutter, told by events; refuses in words; two hundred at once with limits", async () => {
    const text = writeShapes([{ kind: "circle", layer: "OUTSIDE", centre: { x: 0, y: 0 }, radius: 20 }], "mm");
    const layers = encodeURIComponent(JSON.stringify({ OUTSIDE: "outside" }));
    const post = (body: string, query = `process=plasma&layers=${layers}`): Promise<Response> =>
      fetch(`${base}/api/cutter/runs?${query}`, { method: "POST", body });
    const made = await post(text);
    expect(made.status).toBe(201);
    const { id, run } = (await made.json()) as { id: string; run: { time: number; cut: number } };
    expect(run.cut).toBeCloseTo(40 * Math.PI + 5, 9);
    // watched at a thousand times its speed it is done at once, and the stream ends
    const events = await (await fetch(`${base}/api/cutter/runs/${id}/events?speed=1000`)).text();
    const told = events
      .split("\n\n")
      .filter(Boolean)
      .map((one) => JSON.parse(one.slice(6)) as { state: string; time: number });
    expect(told[0]!.state).toBe("travel");
    expect(told.at(-1)).toMatchObject({ state: "done", time: run.time });
    const refused = await post("nonsense");
    expect([refused.status, await refused.json()]).toEqual([
      422,
      { refused: expect.stringContaining("reads DXF files") },
    ]);
    for (const query of [
      "",
      "process=laser",
      `process=plasma&layers=${encodeURIComponent('{"A":"B"}')}`,
      "process=plasma&layers=x",
    ])
      expect((await post(text, query)).status).toBe(400);
    expect((await fetch(`${base}/api/cutter/runs/none/events`)).status).toBe(404);
    expect((await fetch(`${base}/api/cutter/runs/${id}/events?speed=-1`)).status).toBe(400);
    expect((await post("x".repeat(21_000_000))).status).toBe(413);
    const many = await Promise.all(Array.from({ length: 200 }, () => post(text)));
    expect(many.every(({ status }) => status === 201)).toBe(true);
    // what came first made room
    expect((await fetch(`${base}/api/cutter/runs/${id}/events`)).status).toBe(404);
  });

  it("answers what it does not have with a plain 404", async () => {
    expect((await fetch(`${base}/api/nothing`)).status).toBe(404);
    expect((await fetch(`${base}/assets/none.js`)).status).toBe(404);
  });
});
