import "fake-indexeddb/auto";
import { expect, it } from "vitest";
import { drawingText } from "@ash-edge/core/drawing";
import {
  DamagedRecord,
  exportRaw,
  fromRaw,
  goOnFrom,
  listJobs,
  loadJob,
  makeKeeper,
  openDatabase,
  sayStoreFault,
  type Database,
} from "../index.ts";
import { afterEdit, afterWalk, circleEdit, FULL, newJob, type Tab } from "./drawnJob.ts";

const drawnIn = async (database: Database, steps: number, undone: number): Promise<{ id: string; tab: Tab }> => {
  const { id, stored } = await newJob(database);
  let tab: Tab = stored;
  const keeper = makeKeeper(database, id, stored.token, { onSaved: () => undefined, onFailed: () => undefined });
  for (let i = 0; i < steps; i++) {
    const edit = circleEdit(tab.drawing, i + 1);
    tab = afterEdit(tab, edit);
    keeper.keep({ job: id, ...tab, edit });
  }
  for (let i = 0; i < undone; i++) {
    tab = afterWalk(tab, -1)!;
    keeper.keep({ job: id, ...tab });
  }
  await keeper.idle();
  keeper.end();
  return { id, tab };
};

const ODD: readonly unknown[] = [undefined, null, -1, 1.5, 1e12, "", "{", "furlong", [], {}, true, NaN];
type Row = Readonly<Record<string, unknown>>;

/**
 * Each record of a job in turn is taken out, and each of its fields made into what it can't be. The job then opens as
 * it was, or as it was before the damage, which is said; or it says in words why not. Nothing else is touched.
 */
it("one damaged record takes no more with it than itself, whatever is wrong in it", { timeout: 300_000 }, async () => {
  const database = openDatabase("damage");
  const many = await drawnIn(database, 205, 2);
  const few = await drawnIn(database, 3, 1); // has no other snapshot to open from
  const kinds = ["jobs", "heads", "snapshots", "journal"] as const;
  const keyOf = (table: (typeof kinds)[number], row: Row): never =>
    (table === "jobs" ? row.id : table === "heads" ? row.job : [row.job, row.n]) as never;
  let [tried, whole, before, said] = [0, 0, 0, 0];
  for (const [{ id, tab }, other] of [
    [many, few],
    [few, many],
  ] as const)
    for (const table of kinds) {
      const rows = ((await database[table].toArray()) as unknown as Row[]).filter((row) => (row.job ?? row.id) === id);
      // of the many 205: the first, those about the snapshot, and those about where it stands
      const looked = table === "journal" && !FULL ? rows.filter(({ n }) => n === 0 || (n as number) > 196) : rows;
      for (const row of looked) {
        const damages: readonly (Row | undefined)[] = [
          undefined,
          ...Object.keys(row)
            .filter((name) => !["id", "job", "n"].includes(name))
            .flatMap((name) => ODD.map((value) => ({ ...row, [name]: value }))),
        ];
        for (const damage of FULL ? damages : damages.filter((_, i) => i === 0 || (i + tried) % 5 === 0)) {
          tried += 1;
          if (damage) await database[table].put(damage as never);
          else await database[table].delete(keyOf(table, row));
          try {
            const opened = await loadJob(database, id);
            if (!opened) expect(table).toBe("jobs");
            else if (opened.damage === undefined) {
              whole += 1;
              // what could only be redone may be gone
              expect(drawingText(opened.drawing) === drawingText(tab.drawing)).toBe(true);
              expect(opened.history.position).toBe(tab.history.position);
            } else {
              before += 1;
              expect(opened.damage).toMatch(/^[A-Z].*\.$/);
              expect(opened.history.position).toBeLessThanOrEqual(205);
              if (before % 7 === 1) {
                // the raw file gives the same, and going on from there is sound
                const raw = await fromRaw(JSON.parse(await exportRaw(database, id)) as never);
                expect(drawingText(raw.drawing) === drawingText(opened.drawing)).toBe(true);
              }
            }
          } catch (reason) {
            if (!(reason instanceof DamagedRecord)) throw reason;
            said += 1;
            expect(sayStoreFault(reason)).toMatch(/^[A-Z].*\.$/);
          }
          expect((await listJobs(database)).some((one) => one.id === other.id && one.job)).toBe(true);
          await database[table].put(row as never);
        }
      }
    }
  for (const { id, tab } of [many, few]) {
    const again = (await loadJob(database, id))!;
    expect([again.damage, again.history.position, drawingText(again.drawing)]).toEqual([
      undefined,
      tab.history.position,
      drawingText(tab.drawing),
    ]);
  }
  expect([whole > 0, before > 0, said > 0]).toEqual([true, true, true]);

  // going on leaves the damage behind
  const { id } = many;
  await database.journal.delete([id, 201]);
  const damaged = (await loadJob(database, id))!;
  expect([damaged.damage !== undefined, damaged.history.position]).toEqual([true, 201]);
  await goOnFrom(database, id, damaged);
  const again = (await loadJob(database, id))!;
  expect([again.damage, drawingText(again.drawing)]).toEqual([undefined, drawingText(damaged.drawing)]);
  console.info(
    `damaged records: ${tried} tried, ${whole} open whole, ${before} as before it, ${said} refused in words`,
  );
});
