import "fake-indexeddb/auto";
import { beforeEach, describe, expect, it } from "vitest";
import { measureCallout } from "@ash-edge/core/callouts";
import {
  applyEdit,
  calloutsOf,
  drawingFromRows,
  drawingText,
  invertEdit,
  PROFILE_LAYER,
  type Drawing,
  type Edit,
} from "@ash-edge/core/drawing";
import { draftEdit } from "@ash-edge/core/edits";
import { FORMAT_VERSION, readJobFile } from "@ash-edge/core/formats/job";
import keptJob from "./kept/job-1.ashedge.json?raw";
import keptStore from "./kept/store-1.json?raw";
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
  olderSteps,
  sketchesOf,
  stepCount,
  storeStep,
  withStep,
  type Database,
  type HeadRecord,
  type History,
  type JobRecord,
  type JournalRecord,
  type SnapshotRecord,
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
  const drawn = async (edits: number, undone = 0): Promise<{ id: string; drawing: Drawing; history: History }> => {
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
      history = withStep(history, edit);
      keeper.keep({ job: id, before: history.position - 1, history, drawing, edit });
    }
    for (let i = 0; i < undone; i++) {
      drawing = applyEdit(drawing, invertEdit(history.edits[history.position - 1]!));
      history = { ...history, position: history.position - 1 };
      keeper.keep({ job: id, before: history.position + 1, history, drawing });
    }
    await keeper.idle();
    expect(failures).toEqual([]);
    return { id, drawing, history };
  };

  it("opens a job as it was left, snapshots and undo included", async () => {
    const { id, drawing } = await drawn(205, 3);
    const again = (await loadJob(database, id))!;
    expect(drawingText(again.drawing)).toBe(drawingText(drawing));
    // the snapshot after 200 steps, and what came after it: nothing older is read
    expect([again.history.first, stepCount(again.history), again.history.position]).toEqual([200, 205, 202]);
    const { edits, damage } = await olderSteps(database, id, 200);
    expect([edits.length, damage]).toEqual([200, undefined]);
    expect(edits.map(({ label }) => label)).toEqual(Array<string>(200).fill("Circle"));
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
      history: withStep(history, edit),
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
      keeper.keep({ job: id, before, history: { edits: [edit], first: before, position: before + 1 }, drawing, edit });
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
    await expect(loadJob(database, id)).rejects.toThrow(/where 3 were stored/);
  });

  it("damage in an older step costs undo behind it, in the newest snapshot nothing but time", async () => {
    const { id, drawing } = await drawn(203);
    const sound = (await database.journal.get([id, 150]))!;
    await database.journal.put({ job: id, n: 150, edit: { label: "?" } as never });
    const text = drawingText((await loadJob(database, id))!.drawing);
    expect(text).toBe(drawingText(drawing));
    const { edits, damage } = await olderSteps(database, id, 200);
    expect(edits).toHaveLength(49);
    expect(damage).toMatch(/damaged/);
    await database.journal.put(sound);
    await database.snapshots.put({ job: id, n: 200, text: "not json", nextId: 1 });
    expect(drawingText((await loadJob(database, id))!.drawing)).toBe(text);
  });

  it("an edit of very many rows is packed, and large ones make a snapshot", async () => {
    const { id, drawing, history } = await drawn(1);
    const draft = draftEdit(drawing, "Many", "many");
    for (let i = 0; i < 50_000; i++)
      draft.add({ kind: "circle", centre: { x: i, y: 0.1 * i }, radius: 1 }, PROFILE_LAYER);
    const edit = draft.finish();
    const after = applyEdit(drawing, edit);
    await storeStep(database, { job: id, before: 1, history: withStep(history, edit), drawing: after, edit });
    expect(Object.keys((await database.journal.get([id, 1]))!)).toContain("packed");
    expect(await database.snapshots.where("[job+n]").equals([id, 2]).count()).toBe(1);
    const again = (await loadJob(database, id))!;
    expect(drawingText(again.drawing)).toBe(drawingText(after));
    expect((await olderSteps(database, id, 2)).edits.at(-1)).toEqual(edit);
  });

  it("what could not be read back is not stored, and said", async () => {
    const { id, drawing, history } = await drawn(1);
    const edit = circle(drawing, 5);
    const bad = {
      ...edit,
      changes: edit.changes.map((one) => ({ ...one, after: { ...(one.after as object), radius: -1 } })),
    };
    const step = { job: id, before: 1, history: withStep(history, bad), drawing, edit: bad };
    await expect(storeStep(database, step)).rejects.toThrow(/radius is not above 0/);
    expect((await loadJob(database, id))!.history.position).toBe(1);
  });

  it("a store that the first version wrote opens as it was left, with its undone steps", async () => {
    const raw = JSON.parse(keptStore) as {
      job: JobRecord;
      head: HeadRecord;
      snapshots: SnapshotRecord[];
      journal: JournalRecord[];
    };
    await database.jobs.put(raw.job);
    await database.heads.put(raw.head);
    await database.snapshots.bulkPut(raw.snapshots);
    await database.journal.bulkPut(raw.journal);
    const { drawing, history } = (await loadJob(database, "kept-0500"))!;
    const kept = readJobFile(keptJob);
    if (!kept.ok) throw new Error(kept.refusal.code);
    expect(drawingText(drawing)).toBe(drawingText(drawingFromRows(kept.value.drawing as never, kept.value.nextId)));
    expect([history.position, stepCount(history)]).toEqual([6, 8]);
    const last = history.edits.reduce((now, edit, i) => (i < 6 ? now : applyEdit(now, edit)), drawing);
    expect(calloutsOf(last).map((one) => measureCallout(last, one).state)).toEqual([
      "true",
      "true",
      "true",
      "not placed",
      "not placed",
    ]);
    // and goes on in this version
    const edit = circle(drawing, 5);
    await storeStep(database, {
      job: "kept-0500",
      before: 6,
      history: withStep(history, edit),
      drawing: applyEdit(drawing, edit),
      edit,
    });
    expect((await loadJob(database, "kept-0500"))!.history.position).toBe(7);
  });

  it("what a newer version wrote is refused, not guessed at", async () => {
    const { id } = await drawn(1);
    const row = (await database.journal.get([id, 0]))!;
    await database.journal.put({ ...row, version: FORMAT_VERSION + 1 });
    await expect(loadJob(database, id)).rejects.toThrow(/newer version/);
    const kept = JSON.parse(keptJob) as object;
    expect(readJobFile(JSON.stringify({ ...kept, version: 99 }))).toMatchObject({ refusal: { code: "version-newer" } });
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
