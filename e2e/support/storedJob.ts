import type { Page } from "@playwright/test";

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
