import type { Page } from "@playwright/test";
import { drawingText, type Drawing } from "@ash-edge/core/drawing";
import { Bench } from "./bench.ts";
import { newJob } from "./drawn.ts";

/** Writes records straight into the page's store, table by table, in one transaction. */
export const putRecords = async (page: Page, records: Readonly<Record<string, readonly object[]>>): Promise<void> => {
  await page.evaluate(
    (tables) =>
      new Promise<void>((resolve, reject) => {
        const asked = indexedDB.open("ash-edge");
        asked.onsuccess = () => {
          const change = asked.result.transaction(Object.keys(tables), "readwrite");
          for (const [table, rows] of Object.entries(tables))
            for (const row of rows) change.objectStore(table).put(row);
          change.oncomplete = () => resolve();
          change.onerror = () => reject(new Error("not written"));
        };
      }),
    records,
  );
};

/** Puts a drawing into the store in place of a job's own, as if it had always been there. */
export const storeDrawing = (page: Page, job: string, text: string, nextId: number): Promise<void> =>
  putRecords(page, {
    snapshots: [{ job, n: 0, text, nextId }],
    heads: [{ job, position: 0, count: 0, nextId }],
  });

/** A job with a drawing as if it had always been there, a little smaller than it would fit; as thick as is said. */
export const openDrawn = async (
  page: Page,
  drawing: Drawing,
  { thickness = "", number = "7301" } = {},
): Promise<Bench> => {
  const bench = new Bench(page);
  await newJob(bench, number, "mm", thickness);
  const job = new URL(page.url()).pathname.split("/")[2]!;
  await bench.saved();
  await page.goto("/help");
  await storeDrawing(page, job, drawingText(drawing), drawing.nextId);
  await page.goto(`/jobs/${job}`);
  await bench.ready();
  for (const key of ["KeyV", "KeyV", "-"]) await page.keyboard.press(key);
  return bench;
};
