import "fake-indexeddb/auto";
import Dexie from "dexie";
import { beforeEach, describe, expect, it } from "vitest";
import { measureCallout } from "@ash-edge/core/callouts";
import {
  applyEdit,
  calloutsOf,
  drawingFromRows,
  drawingText,
  entitiesOf,
  FIRST_STYLE,
  invertEdit,
  PROFILE_LAYER,
  type Drawing,
  type Edit,
} from "@ash-edge/core/drawing";
import { draftEdit } from "@ash-edge/core/edits";
import { FORMAT_VERSION, readJobFile } from "@ash-edge/core/formats/job";
import { FIRST_TOOLS } from "@ash-edge/core/tables";
import keptJob from "./kept/job-1.ashedge.json?raw";
import keptStore from "./kept/store-1.json?raw";
import {
  changeHead,
  createJob,
  goOnFrom,
  keepExample,
  keepShopStyle,
  keepShopTools,
  keepVerdict,
  placeInHistory,
  sayStoreFault,
  stateWords,
  binJob,
  binnedJobs,
  emptyBin,
  unbinJob,
  duplicateJob,
  exampleNow,
  exportRaw,
  listJobs,
  loadJob,
  makeKeeper,
  nextJobNumber,
  openDatabase,
  olderSteps,
  shopStyle,
  shopTools,
  sketchesOf,
  stepCount,
  storeStep,
  verdictsNow,
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
    const keeper = makeKeeper(database, id, 0, {
      onSaved: () => undefined,
      onFailed: ({ message }) => failures.push(message),
    });
    for (let i = 0; i < edits; i++) {
      const edit = circle(drawing, i + 1);
      drawing = applyEdit(drawing, edit);
      history = withStep(history, edit);
      keeper.keep({ job: id, history, drawing, edit });
    }
    for (let i = 0; i < undone; i++) {
      drawing = applyEdit(drawing, invertEdit(history.edits[history.position - 1]!));
      history = { ...history, position: history.position - 1 };
      keeper.keep({ job: id, history, drawing });
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
    const { history, token } = (await loadJob(database, id))!;
    const keeper = makeKeeper(database, id, token, {
      onSaved: () => undefined,
      onFailed: (reason) => Promise.reject(reason),
    });
    keeper.keep({
      job: id,
      history: withStep(history, edit),
      drawing: applyEdit(drawing, edit),
      edit,
    });
    await keeper.idle();
    const again = (await loadJob(database, id))!;
    expect(again.history.edits).toHaveLength(2);
    expect(drawingText(again.drawing)).toBe(drawingText(applyEdit(drawing, edit)));
  });

  it("refuses a step from a tab that is behind, also at the same number after an undo", async () => {
    const { id, drawing, history } = await drawn(2);
    const behind = (await loadJob(database, id))!.token;
    const back = { ...history, position: 1 };
    const other = { token: behind, by: "the other tab" };
    const undone = await storeStep(database, { job: id, history: back, drawing }, other);
    const theirs = circle(drawing, 7);
    await storeStep(
      database,
      { job: id, history: withStep(back, theirs), drawing, edit: theirs },
      { ...other, token: undone },
    );
    const told: [string, boolean][] = [];
    const keeper = makeKeeper(database, id, behind, {
      onSaved: () => undefined,
      onFailed: ({ message }, final) => told.push([message, final]),
    });
    const mine = circle(drawing, 9);
    for (let i = 0; i < 2; i++) keeper.keep({ job: id, history: withStep(history, mine), drawing, edit: mine });
    await keeper.idle();
    expect(told).toEqual([[expect.stringMatching(/changed in another tab/), true]]);
    expect((await loadJob(database, id))!.history.edits.at(-1)).toEqual(theirs);
  });

  it("what there was no room for is stored once there is, in its order and once", async () => {
    const { id, drawing, history } = await drawn(1);
    const put = database.heads.put.bind(database.heads);
    let full = true;
    database.heads.put = ((row: HeadRecord) =>
      full ? Promise.reject(new DOMException("no room", "QuotaExceededError")) : put(row)) as typeof put;
    const told: string[] = [];
    const { token } = (await loadJob(database, id))!;
    const keeper = makeKeeper(database, id, token, {
      onSaved: ({ position }) => told.push(`saved ${position}`),
      onFailed: (reason) => told.push(sayStoreFault(reason).slice(0, 22)),
    });
    const edits = [circle(drawing, 3), circle(drawing, 4)];
    const steps = [withStep(history, edits[0]!), withStep(withStep(history, edits[0]!), edits[1]!)];
    keeper.keep({ job: id, history: steps[0]!, drawing, edit: edits[0]! });
    await keeper.idle();
    expect((await loadJob(database, id))!.history.position).toBe(1);
    full = false;
    keeper.keep({ job: id, history: steps[1]!, drawing, edit: edits[1]! });
    await keeper.idle();
    expect(told).toEqual(["The browser has no roo", "saved 2", "saved 3"]);
    expect((await loadJob(database, id))!.history.edits.slice(1)).toEqual(edits);
    keeper.end();
  });

  it.each([
    ["snapshots", { n: 0, text: '{"entity":[]}', nextId: 1 }],
    ["snapshots", { n: 0, text: "not json", nextId: 1 }],
  ])("where no snapshot is sound (%s) that is said, and the job can be exported raw", async (table, record) => {
    const { id } = await drawn(1);
    await database.table(table).put({ job: id, ...record });
    await expect(loadJob(database, id)).rejects.toThrow(/damaged|can't be read/);
    expect(JSON.parse(await exportRaw(database, id))).toMatchObject({ job: { id }, blobs: [{ bytes: [1, 2, 3] }] });
  });

  it("a step that is missing or damaged costs what comes after it, which is said; one goes on from there", async () => {
    for (const spoil of [
      (id: string) => database.journal.delete([id, 1]),
      (id: string) => database.journal.put({ job: id, n: 1, edit: { label: "?" } as never }),
    ]) {
      const { id } = await drawn(3);
      await spoil(id);
      const opened = (await loadJob(database, id))!;
      expect([opened.history.position, opened.history.edits.length]).toEqual([1, 1]);
      expect(opened.damage).toMatch(/Step 2 of 3 is missing|damaged/);
      await goOnFrom(database, id, opened);
      const again = (await loadJob(database, id))!;
      expect([again.damage, again.history.position, drawingText(again.drawing)]).toEqual([
        undefined,
        1,
        drawingText(opened.drawing),
      ]);
      const edit = circle(again.drawing, 5);
      const step = { job: id, history: withStep(again.history, edit), drawing: applyEdit(again.drawing, edit), edit };
      await storeStep(database, step, { token: again.token, by: "here" });
      expect((await loadJob(database, id))!.history.position).toBe(2);
    }
  });

  it("damage in what could only be redone costs just that; a lost head is found again", async () => {
    const { id, drawing } = await drawn(4, 2);
    await database.journal.put({ job: id, n: 3, edit: { label: "?" } as never });
    const opened = (await loadJob(database, id))!;
    expect([opened.damage, opened.history.position, stepCount(opened.history)]).toEqual([undefined, 2, 3]);
    expect(drawingText(opened.drawing)).toBe(drawingText(drawing));
    for (const lose of [
      () => database.heads.delete(id),
      () => database.heads.put({ job: id, position: -3 } as HeadRecord),
    ]) {
      await lose();
      const found = (await loadJob(database, id))!;
      expect([found.history.position, found.damage === undefined]).toEqual([3, false]);
      expect(found.drawing.nextId).toBeGreaterThan(
        Math.max(...[...entitiesOf(found.drawing)].map(({ id: own }) => own)),
      );
    }
  });

  it("details changed in two tabs keep both fields; the same field is a clash and nothing is overwritten", async () => {
    const { id } = await drawn(0);
    const known = (await database.jobs.get(id))!;
    await changeHead(database, known, { ...known, material: "Slate" });
    const mine = await changeHead(database, known, { ...known, customer: "Fernhollow" });
    expect(mine).toMatchObject({ job: { material: "Slate", customer: "Fernhollow" }, clashes: [] });
    const clash = await changeHead(database, known, { ...known, material: "Basalt", due: "2027-01-01" });
    expect(clash.clashes).toEqual([{ field: "material", theirs: "Slate", mine: "Basalt" }]);
    expect(await database.jobs.get(id)).toMatchObject({ material: "Slate", due: "" });
    await database.jobs.delete(id);
    await expect(changeHead(database, known, { ...known, name: "x" })).rejects.toThrow(/not in this browser/);
  });

  it("a job is copied as it was at a release, undone or drawn on since; not where that was gone over", async () => {
    const { id, drawing, history } = await drawn(3);
    const at = await placeInHistory(database, id);
    const count = async (copy: string | undefined): Promise<number> =>
      [...entitiesOf((await loadJob(database, copy!))!.drawing)].length;
    const released = await count(id);
    // two steps back, and another one from there: what was released is gone over
    let follows = (await loadJob(database, id))!.token;
    const back = { ...history, position: 1 };
    let before = drawing;
    for (const edit of [history.edits[2]!, history.edits[1]!]) before = applyEdit(before, invertEdit(edit));
    follows = await storeStep(database, { job: id, drawing: before, history: back }, { token: follows, by: "test" });
    expect(await count(await duplicateJob(database, id, "0601", at))).toBe(released);
    expect(await count(await duplicateJob(database, id, "0602"))).toBe(released - 2);
    const edit = circle(before, 9);
    const step = { job: id, drawing: applyEdit(before, edit), history: withStep(back, edit), edit };
    await storeStep(database, step, { token: follows, by: "test" });
    expect(await duplicateJob(database, id, "0603", at)).toBeUndefined();
  });

  it("a release is told from what is drawn after it, also by another way to the same number of steps", async () => {
    const { id, drawing, history } = await drawn(2);
    const at = await placeInHistory(database, id);
    await database.jobs.update(id, { state: "released", released: { number: 1, at } });
    let { token } = (await loadJob(database, id))!;
    const step = async (to: History, edit?: Edit): Promise<string> => {
      const keeper = makeKeeper(database, id, token, {
        onSaved: () => undefined,
        onFailed: (why) => Promise.reject(why),
      });
      keeper.keep({ job: id, history: to, drawing, ...(edit ? { edit } : {}) });
      await keeper.idle();
      token += 1;
      return stateWords((await database.jobs.get(id))!);
    };
    const back = { ...history, position: 1 };
    expect(await step(back)).toBe("changed since r1");
    expect(await step(history)).toBe("released");
    await step(back);
    const other = circle(drawing, 8);
    expect(await step(withStep(back, other), other)).toBe("changed since r1");
  });

  it("a store that a newer version wrote is not opened, and nothing is written into it", async () => {
    const name = `newer-${n}`;
    const newer = new Dexie(name);
    newer.version(99).stores({ jobs: "id", heads: "job" });
    await newer.open();
    newer.close();
    const old = openDatabase(name);
    await expect(old.jobs.toArray()).rejects.toThrow(/newer version/);
    old.close();
    const again = new Dexie(name);
    await again.open();
    expect([again.verno, again.tables.map((table) => table.name)]).toEqual([99, ["heads", "jobs"]]);
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
    const first = { token: (await loadJob(database, id))!.token, by: "here" };
    await storeStep(database, { job: id, history: withStep(history, edit), drawing: after, edit }, first);
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
    const step = { job: id, history: withStep(history, bad), drawing, edit: bad };
    await expect(storeStep(database, step, { token: 1, by: "here" })).rejects.toThrow(/radius is not above 0/);
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
    const next = { job: "kept-0500", history: withStep(history, edit), drawing: applyEdit(drawing, edit), edit };
    await storeStep(database, next, { token: 0, by: "here" });
    expect((await loadJob(database, "kept-0500"))!.history.position).toBe(7);
  });

  it("what a newer version wrote is refused, not guessed at", async () => {
    const { id } = await drawn(1);
    const row = (await database.journal.get([id, 0]))!;
    await database.journal.put({ ...row, version: FORMAT_VERSION + 1 });
    expect((await loadJob(database, id))!.damage).toMatch(/newer version/);
    const kept = JSON.parse(keptJob) as object;
    expect(readJobFile(JSON.stringify({ ...kept, version: 99 }))).toMatchObject({ refusal: { code: "version-newer" } });
  });

  it("a store of a newer version is not opened, not written into, and said", async () => {
    const newer = new Dexie("newer");
    newer.version(99).stores({ jobs: "id", secrets: "id" });
    await newer.open();
    await newer.table("secrets").put({ id: "kept" });
    newer.close();
    const ours = openDatabase("newer");
    const reason: unknown = await ours.jobs.toArray().catch((fault: unknown) => fault);
    expect(sayStoreFault(reason)).toMatch(/^The jobs in this browser were stored by a newer version/);
    ours.close();
    const again = await new Dexie("newer").open();
    expect([again.verno, again.tables.map(({ name }) => name).sort()]).toEqual([99, ["jobs", "secrets"]]);
    again.close();
  });

  it("a deleted job comes back as it was, for thirty days; a copy has its drawing and its own sketches", async () => {
    const { id, drawing } = await drawn(3, 1);
    const copy = (await duplicateJob(database, id, "0501"))!;
    const day = 86_400_000;
    await binJob(database, id, day);
    expect((await listJobs(database)).map(({ job }) => job?.number)).toEqual(["0501"]);
    expect(drawingText((await loadJob(database, copy))!.drawing)).toBe(drawingText(drawing));
    expect((await sketchesOf(database, copy)).map((blob) => blob.id)).toEqual([`${copy}-sketch-1`]);
    await emptyBin(database, 30.9 * day);
    // its number was given to another job meanwhile
    const other = await createJob(database, { ...head, unit: "mm" });
    await unbinJob(database, id);
    const again = (await loadJob(database, id))!;
    expect([drawingText(again.drawing), again.history.edits.length]).toEqual([drawingText(drawing), 3]);
    expect(await sketchesOf(database, id)).toHaveLength(1);
    expect((await listJobs(database)).map(({ job }) => job?.number)).toEqual(["0500", "0501", "0502"]);
    await binJob(database, id, day);
    await emptyBin(database, 31.1 * day);
    expect([await loadJob(database, id), await binnedJobs(database), await sketchesOf(database, id)]).toEqual([
      undefined,
      [],
      [],
    ]);
    expect((await loadJob(database, other))!.history.position).toBe(0);
    expect(await duplicateJob(database, "none", "1")).toBeUndefined();
  });

  it("a verdict speaks of the job as it stood and of its stock: a step, even undone, and it is gone", async () => {
    const { id, drawing, history } = await drawn(2);
    const job = (await database.jobs.get(id))!;
    const { token } = (await loadJob(database, id))!;
    const now = async (): Promise<string | undefined> =>
      (await verdictsNow(database, [(await database.jobs.get(id))!])).get(id)?.words;
    const ready = { state: "ready", words: "Ready to cut" } as const;
    await keepVerdict(database, job, token - 1, ready);
    expect(await now()).toBeUndefined();
    await keepVerdict(database, job, token, ready);
    expect(await now()).toBe("Ready to cut");
    const { job: thicker } = await changeHead(database, job, { ...job, thickness: "6" });
    expect(await now()).toBeUndefined();
    await changeHead(database, thicker, { ...thicker, thickness: "" });
    expect(await now()).toBe("Ready to cut");
    const follows = await storeStep(
      database,
      { job: id, drawing, history: { ...history, position: 1 } },
      { token, by: "test" },
    );
    expect(await now()).toBeUndefined();
    await storeStep(database, { job: id, drawing, history }, { token: follows, by: "test" });
    expect(await now()).toBeUndefined();
  });

  it("the shop's tools are kept, row by row: what is damaged among them is left out", async () => {
    expect(await shopTools(database)).toEqual(FIRST_TOOLS);
    const tool = { name: "our 7 mm bit", kind: "cutter", diameter: 7 } as const;
    await keepShopTools(database, { ...FIRST_TOOLS, tools: { ...FIRST_TOOLS.tools, mm: [tool] } });
    expect((await shopTools(database)).tools).toEqual({ mm: [tool], in: FIRST_TOOLS.tools.in });
    const value = { tools: { mm: [{ ...tool, diameter: -1 }, tool, null], in: "none" }, sheets: 3 };
    await database.settings.put({ key: "tools", value });
    expect(await shopTools(database)).toEqual({ ...FIRST_TOOLS, tools: { ...FIRST_TOOLS.tools, mm: [tool] } });
  });

  it("keeps both of two changes of the shop's style that are made one upon the other", async () => {
    await Promise.all([keepShopStyle(database, { height: 5 }), keepShopStyle(database, { arrow: "tick" })]);
    expect(await shopStyle(database)).toEqual({ ...FIRST_STYLE, height: 5, arrow: "tick" });
  });

  it("knows how far the worked example was followed, and nothing of it where what was kept is damaged", async () => {
    await keepExample(database, { job: "a", starts: [0, 1] });
    expect(await exampleNow(database)).toEqual({ job: "a", starts: [0, 1] });
    for (const value of [{ job: "a", starts: [] }, { job: 3, starts: [0] }, { job: "a", starts: ["0"] }, "a", null]) {
      await database.settings.put({ key: "worked example", value });
      expect(await exampleNow(database), JSON.stringify(value)).toBeUndefined();
    }
    await keepExample(database, undefined);
    expect(await exampleNow(database)).toBeUndefined();
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
