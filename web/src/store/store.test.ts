import "fake-indexeddb/auto";
import { beforeEach, describe, expect, it } from "vitest";
import { applyEdit, drawingText, invertEdit, PROFILE_LAYER, type Drawing, type Edit } from "@ash-edge/core/drawing";
import { draftEdit } from "@ash-edge/core/edits";
import {
  createJob,
  deleteJob,
  duplicateJob,
  exportRaw,
  listJobs,
  loadJob,
  makeKeeper,
  nextJobNumber,
  openDatabase,
  restoreJob,
  sketchesOf,
  type Database,
} from "./index.ts";

const head = { number: "0500", name: "Washer", customer: "", material: "", thickness: "", quantity: 1, due: "" };
const circle = (drawing: Drawing, radius: number): Edit => {
  const draft = draftEdit(drawing, "Circle", "circle");
  draft.add({ kind: "circle", centre: { x: 0, y: 0 }, radius }, PROFILE_LAYER);
  return draft.finish();
};

describe("the store", () => {
  let database: Database;
  let n = 0;
  beforeEach(() => {
    database = openDatabase(`test-${++n}`);
  });

  /** A job drawn in `edits` steps, then undone by `undone`. */
  const drawn = async (edits: number, undone = 0): Promise<{ id: string; drawing: Drawing }> => {
    const id = await createJob(
      database,
      { ...head, unit: "mm" },
      [{ kind: "diameter", value: 2, name: "hole" }],
      [{ name: "a.png", type: "image/png", bytes: new Uint8Array([1, 2, 3]) }],
    );
    let { drawing, history } = (await loadJob(database, id))!;
    const failures: string[] = [];
    const keeper = makeKeeper(database, id, {
      onSaved: () => undefined,
      onFailed: ({ message }) => failures.push(message),
    });
    for (let i = 0; i < edits; i++) {
      const edit = circle(drawing, i + 1);
      drawing = applyEdit(drawing, edit);
      history = { edits: [...history.edits, edit], position: history.position + 1 };
      keeper.keep({ job: id, before: history.position - 1, history, drawing, edit });
    }
    for (let i = 0; i < undone; i++) {
      drawing = applyEdit(drawing, invertEdit(history.edits[history.position - 1]!));
      history = { ...history, position: history.position - 1 };
      keeper.keep({ job: id, before: history.position + 1, history, drawing });
    }
    await keeper.idle();
    expect(failures).toEqual([]);
    return { id, drawing };
  };

  it("opens a job as it was left, snapshots and undo included", async () => {
    const { id, drawing } = await drawn(205, 3);
    const again = (await loadJob(database, id))!;
    expect(drawingText(again.drawing)).toBe(drawingText(drawing));
    expect([again.history.edits.length, again.history.position]).toEqual([205, 202]);
    expect(await database.snapshots.count()).toBe(2);
    expect(again.drawing.nextId).toBeGreaterThan(205);
    expect((await database.jobs.get(id))!.state).toBe("drawn");
  });

  it("an edit after undo takes the place of what could be redone", async () => {
    const { id, drawing } = await drawn(3, 2);
    const edit = circle(drawing, 99);
    const keeper = makeKeeper(database, id, { onSaved: () => undefined, onFailed: (reason) => Promise.reject(reason) });
    const { history } = (await loadJob(database, id))!;
    keeper.keep({
      job: id,
      before: 1,
      history: { edits: [history.edits[0]!, edit], position: 2 },
      drawing: applyEdit(drawing, edit),
      edit,
    });
    await keeper.idle();
    const again = (await loadJob(database, id))!;
    expect(again.history.edits).toHaveLength(2);
    expect(drawingText(again.drawing)).toBe(drawingText(applyEdit(drawing, edit)));
  });

  it("refuses a step from a tab that is behind, and writes nothing after", async () => {
    const { id, drawing } = await drawn(2);
    const told: string[] = [];
    const keeper = makeKeeper(database, id, {
      onSaved: () => undefined,
      onFailed: ({ message }) => told.push(message),
    });
    for (const before of [1, 2]) {
      const edit = circle(drawing, 7);
      keeper.keep({ job: id, before, history: { edits: [edit], position: before + 1 }, drawing, edit });
    }
    await keeper.idle();
    expect(told).toEqual(["This job was changed in another tab. Reload to go on from there."]);
    expect((await loadJob(database, id))!.history.position).toBe(2);
  });

  it.each([
    ["snapshots", { n: 0, text: '{"entity":[]}', nextId: 1 }],
    ["snapshots", { n: 0, text: "not json", nextId: 1 }],
    ["journal", { n: 0, edit: { label: "?" } }],
  ])("a damaged record in %s is said, and the job can be exported raw", async (table, record) => {
    const { id } = await drawn(1);
    await database.table(table).put({ job: id, ...record });
    await expect(loadJob(database, id)).rejects.toThrow(/damaged|can't be read/);
    expect(JSON.parse(await exportRaw(database, id))).toMatchObject({ job: { id }, blobs: [{ bytes: [1, 2, 3] }] });
  });

  it("a missing journal entry is no shorter job but a damaged one", async () => {
    const { id } = await drawn(3);
    await database.journal.delete([id, 1]);
    await expect(loadJob(database, id)).rejects.toThrow("The journal holds 2 edits where 3 were stored.");
  });

  it("a deleted job comes back as it was, and a copy has its drawing and its own sketches", async () => {
    const { id, drawing } = await drawn(3, 1);
    const copy = (await duplicateJob(database, id, "0501"))!;
    const whole = await deleteJob(database, id);
    expect(await loadJob(database, id)).toBeUndefined();
    expect((await listJobs(database)).map(({ job }) => job?.number)).toEqual(["0501"]);
    expect(drawingText((await loadJob(database, copy))!.drawing)).toBe(drawingText(drawing));
    expect((await sketchesOf(database, copy)).map((blob) => blob.id)).toEqual([`${copy}-sketch-1`]);
    await restoreJob(database, whole);
    const again = (await loadJob(database, id))!;
    expect([drawingText(again.drawing), again.history.edits.length]).toEqual([drawingText(drawing), 3]);
    expect(await sketchesOf(database, id)).toHaveLength(1);
    expect(await duplicateJob(database, "none", "1")).toBeUndefined();
  });

  it("lists damaged jobs beside sound ones, by number, and offers the next number", async () => {
    await createJob(database, { ...head, number: "0099", unit: "mm" });
    await createJob(database, { ...head, unit: "in" });
    await database.jobs.put({ id: "broken" } as never);
    const jobs = await listJobs(database);
    expect(jobs.map(({ job }) => job?.number)).toEqual(["0099", "0500", undefined]);
    expect(nextJobNumber(jobs)).toBe("0501");
    expect(await loadJob(database, "none")).toBeUndefined();
  });
});
