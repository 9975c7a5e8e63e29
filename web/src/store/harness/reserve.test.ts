import "fake-indexeddb/auto";
import fc from "fast-check";
import { expect, it } from "vitest";
import { drawingText } from "@ash-edge/core/drawing";
import {
  fromLog,
  loadJob,
  makeKeeper,
  makeReserve,
  openDatabase,
  putBack,
  sketchesOf,
  type ReserveFiles,
} from "../index.ts";
import { afterEdit, afterWalk, circleEdit, FULL, newJob, randomBy, type Tab } from "./drawnJob.ts";

/** The reserve's files in memory: what is there of them after a crash is what was flushed, and part of a line more. */
const inMemory = () => {
  const logs = new Map<string, string>();
  const pictures = new Map<string, Uint8Array<ArrayBuffer>>();
  let identity: string | undefined;
  const files = {
    identity: async () => identity,
    setIdentity: async (own: string) => void (identity = own),
    begin: async (job: string, first: string) => void logs.set(job, `${first}\n`),
    append: async (job: string, line: string) => void logs.set(job, `${logs.get(job)!}${line}\n`),
    close: async () => undefined,
    putPicture: async (job: string, n: number, about: string, bytes: Uint8Array) =>
      void pictures.set(`${job} ${n}`, Uint8Array.from([...new TextEncoder().encode(`${about}\n`), ...bytes])),
    pictures: async (job: string) =>
      [...pictures.keys()].filter((key) => key.startsWith(`${job} `)).map((key) => Number(key.split(" ")[1])),
    picture: async (job: string, n: number) => pictures.get(`${job} ${n}`),
    all: async () => [...logs].map(([job, text]) => ({ job, texts: [text, ""] })),
    remove: async (job: string) => void logs.delete(job),
  };
  return { files: files as unknown as ReserveFiles, logs };
};

it(
  "a database that is gone is put back from the reserve as it was last said saved, cut off at any place",
  { timeout: 120_000 },
  async () => {
    let runs = 0;
    await fc.assert(
      fc.asyncProperty(fc.integer({ min: 1, max: 1e6 }), fc.integer({ min: 1, max: 40 }), async (seed, steps) => {
        const random = randomBy(seed);
        const name = `reserve-${++runs}`;
        const { files, logs } = inMemory();
        const database = openDatabase(name);
        expect(await putBack(database, files)).toEqual([]);
        const { id, stored } = await newJob(database);
        const job = (await database.jobs.get(id))!;
        let tab: Tab = stored;
        let said = drawingText(tab.drawing);
        const keeper = makeKeeper(
          database,
          id,
          stored.token,
          { onSaved: () => (said = drawingText(tab.drawing)), onFailed: () => undefined },
          makeReserve(files, job, stored, () => sketchesOf(database, id)),
        );
        for (let step = 0; step < steps; step++) {
          const walked = random() < 0.4 ? afterWalk(tab, random() < 0.6 ? -1 : 1) : undefined;
          const edit = walked ? undefined : circleEdit(tab.drawing, 1 + random());
          tab = walked ?? afterEdit(tab, edit!);
          keeper.keep({ job: id, ...tab, ...(edit ? { edit } : {}) });
          await keeper.idle();
        }
        keeper.end();
        database.close();
        // the browser deletes its database; of one more line only a part got to the disk
        const whole = logs.get(id)!;
        logs.set(id, `${whole}{"position":99,"edit":{"la`);
        await openDatabase(name).delete();
        const again = openDatabase(name);
        expect(await putBack(again, files)).toEqual(["0500 Washer"]);
        const opened = (await loadJob(again, id))!;
        expect(drawingText(opened.drawing) === said).toBe(true);
        expect(opened.drawing.nextId).toBeGreaterThanOrEqual(tab.drawing.nextId - 1);
        expect(await putBack(again, files)).toEqual([]);
        await again.delete();
        // cut off anywhere it is what it was after some step, or nothing
        const cut = fromLog(whole.slice(0, Math.floor(random() * whole.length)));
        if (cut) expect(JSON.parse(drawingText(cut.drawing))).toBeDefined();
      }),
      { numRuns: FULL ? 300 : 40 },
    );
    console.info(`reserve: ${runs} databases lost and put back as they were last said saved`);
  },
);
