import type { Page } from "@playwright/test";

/** Puts a drawing into the store in place of a job's own, as if it had always been there. */
export const storeDrawing = async (page: Page, job: string, text: string, nextId: number): Promise<void> => {
  await page.evaluate(
    ([id, rows, next]) =>
      new Promise<void>((resolve, reject) => {
        const asked = indexedDB.open("ash-edge");
        asked.onsuccess = () => {
          const change = asked.result.transaction(["heads", "snapshots", "journal"], "readwrite");
          change.objectStore("snapshots").put({ job: id, n: 0, text: rows, nextId: next });
          change.objectStore("heads").put({ job: id, position: 0, count: 0, nextId: next });
          change.oncomplete = () => resolve();
          change.onerror = () => reject(new Error("not written"));
        };
      }),
    [job, text, nextId] as const,
  );
};
