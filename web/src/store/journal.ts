import {
  applyEdit,
  drawingFromRows,
  drawingText,
  invertEdit,
  unsoundEdit,
  UnsoundEdit,
  type Drawing,
  type Edit,
} from "@ash-edge/core/drawing";
import { FORMAT_VERSION } from "@ash-edge/core/formats/job";
import type { Database } from "./database.ts";
import type { HeadRecord, JournalRecord } from "./rows.ts";
import { stepCount, type History } from "./history.ts";
import { rowNow } from "./migrations.ts";
import { checked, DamagedRecord, isSound } from "./records.ts";

/**
 * A snapshot of the drawing every so many edits, or where the packed ones since the last are so large: opening reads no
 * more than that.
 */
const SNAPSHOT_EVERY = 200;
const SNAPSHOT_BYTES = 5e6;

/**
 * An edit of more rows than this is stored as text in one buffer: cloning so many records takes the store longer than
 * writing them down.
 */
const PACKED_FROM = 2000;

/**
 * A job as it was opened. `token` is what the next step must follow; `damage` says what could not be read: the drawing
 * is then as it was before that, and nothing may be stored until it is decided to go on from there.
 */
export type StoredJob = {
  readonly drawing: Drawing;
  readonly history: History;
  readonly token: number;
  readonly damage?: string;
};

/** Another tab has changed the job since it was opened here. */
export class ChangedElsewhere extends Error {
  constructor() {
    super(
      "This job was changed in another tab since it was opened here. Save to a file, or reload to go on from there.",
    );
  }
}

/** The job is not in the store any more. */
export class NotInStore extends Error {
  constructor() {
    super(
      "This job is not in this browser’s store any more: it was deleted, or the browser’s data was cleared. " +
        "Save it to a file, and open that.",
    );
  }
}

/** Writes a new job's first snapshot and head; inside the caller's transaction. */
export const startJournal = async (database: Database, job: string, drawing: Drawing): Promise<void> => {
  const { nextId } = drawing;
  await database.snapshots.put({ job, n: 0, text: drawingText(drawing), nextId, version: FORMAT_VERSION });
  await database.heads.put({ job, position: 0, count: 0, nextId, token: 0 });
};

/** A step as it is stored. */
const packed = (job: string, n: number, edit: Edit): Omit<JournalRecord, "token"> => ({
  job,
  n,
  version: FORMAT_VERSION,
  ...(edit.changes.length > PACKED_FROM ? { packed: new TextEncoder().encode(JSON.stringify(edit)) } : { edit }),
});

/** A stored step, whatever version wrote it. */
const editOf = (record: unknown): Edit => {
  const row = checked("journal", record);
  const value = "packed" in row ? parsed(new TextDecoder().decode(row.packed)) : row.edit;
  return checked("edit", rowNow("edit", value, row.version));
};

type Read = { readonly edits: readonly Edit[]; readonly damage?: string };

/**
 * The stored steps from number `from` up to `to`, up to the first that is missing or damaged, and what is wrong there.
 */
const editsBetween = async (database: Database, job: string, from: number, to: number): Promise<Read> => {
  const rows = await database.journal.where("[job+n]").between([job, from], [job, to], true, false).toArray();
  const edits: Edit[] = [];
  for (let n = from; n < to; n++) {
    try {
      const row = rows[n - from];
      if (row?.n !== n) throw new DamagedRecord(`Step ${n + 1} of ${to} is missing in the store.`);
      edits.push(editOf(row));
    } catch (reason) {
      if (!(reason instanceof DamagedRecord)) throw reason;
      return { edits, damage: reason.message };
    }
  }
  return { edits };
};

/** Where a job stands that has lost its head: at the end of what is stored of it; undefined where nothing is. */
const headFound = async (database: Database, job: string): Promise<HeadRecord | undefined> => {
  const last = async (table: "journal" | "snapshots"): Promise<number | undefined> =>
    (
      (await database[table].where("[job+n]").between([job, 0], [job, Infinity]).lastKey()) as
        readonly [string, number] | undefined
    )?.[1];
  const [step, snapshot] = [await last("journal"), await last("snapshots")];
  if (snapshot === undefined) return undefined;
  const position = Math.max(step === undefined ? 0 : step + 1, snapshot);
  return { job, position, count: position, nextId: 0 };
};

/**
 * The drawing of a job as it was left: the newest sound snapshot before that, and the steps after it. Nothing older is
 * read. Damage costs no more than itself: behind the position what could be redone, before it the steps from there on,
 * which is said. Throws `DamagedRecord` where no snapshot is sound.
 */
export const loadJob = async (database: Database, job: string): Promise<StoredJob | undefined> => {
  const record = await database.heads.get(job);
  const kept = record && isSound("head", record) && record.position <= record.count ? record : undefined;
  const head = kept ?? (await headFound(database, job));
  if (!head) {
    if (record === undefined && !(await database.jobs.get(job))) return undefined;
    throw new DamagedRecord("Nothing of this job’s drawing is left in the store.");
  }
  const numbers = (await database.snapshots.where("[job+n]").between([job, 0], [job, Infinity]).primaryKeys()).map(
    ([, n]) => n,
  );
  // one after the position serves as well, with the steps between taken back, but only where there is none before
  const before = numbers.filter((n) => n <= head.position).reverse();
  const after = numbers.filter((n) => n > head.position);
  let best: StoredJob | undefined;
  let damage: DamagedRecord | undefined;
  for (const n of [...before, ...after]) {
    try {
      const opened = await openFrom(database, head, n);
      if (!opened.damage) return kept ? opened : { ...opened, damage: "Where the job stood is not stored any more." };
      if (!best || opened.history.position > best.history.position) best = opened;
    } catch (reason) {
      if (!(reason instanceof DamagedRecord)) throw reason;
      damage ??= reason;
    }
  }
  if (best) return best;
  throw damage ?? new DamagedRecord("The job has no drawing stored.");
};

const openFrom = async (database: Database, head: HeadRecord, n: number): Promise<StoredJob> => {
  const { job, position, count, token = 0 } = head;
  const from = checked("snapshot", await database.snapshots.get([job, n]));
  const rows = checked("rows", rowNow("drawing", parsed(from.text), from.version));
  const first = Math.min(n, position);
  const { edits, damage } = await editsBetween(database, job, first, count);
  let drawing = drawingFromRows(rows as Parameters<typeof drawingFromRows>[0], from.nextId);
  const end = first + edits.length;
  if (n > end) throw new DamagedRecord(damage ?? "Steps are missing in the store.");
  // what can only be redone is worth less than the drawing: where that is damaged it ends there
  const reached = Math.min(position, end);
  for (let at = n; at < reached; at++) drawing = applyEdit(drawing, edits[at - first]!);
  for (let at = n; at > reached; at--) drawing = applyEdit(drawing, invertEdit(edits[at - 1 - first]!));
  return {
    drawing: { ...drawing, nextId: Math.max(drawing.nextId, head.nextId) },
    history: { edits, first, position: reached },
    token,
    ...(reached < position ? { damage: damage! } : {}),
  };
};

/**
 * The drawing of a job as it was at a place in its history, as `placeInHistory` names it; undefined where that was
 * undone and gone over since, or can't be read any more.
 */
export const drawingAt = async (database: Database, job: string, at: string): Promise<Drawing | undefined> => {
  const [position = 0, token = 0] = at.split(".").map(Number);
  const last = position === 0 ? undefined : await database.journal.get([job, position - 1]);
  const head = await database.heads.get(job);
  if (!head || (last?.token ?? 0) !== token) return undefined;
  const numbers = (
    await database.snapshots.where("[job+n]").between([job, 0], [job, position], true, true).primaryKeys()
  ).map(([, n]) => n);
  for (const n of numbers.reverse()) {
    try {
      const { drawing, damage } = await openFrom(database, { ...head, position, count: position }, n);
      if (!damage) return drawing;
    } catch (reason) {
      if (!(reason instanceof DamagedRecord)) throw reason;
    }
  }
  return undefined;
};

/** How many older steps are read at once when undo goes there. */
const OLDER_AT_ONCE = 500;

/**
 * The stored steps before number `first`, up to so many of them; fewer, with what is wrong, where one is damaged: undo
 * ends there.
 */
export const olderSteps = async (
  database: Database,
  job: string,
  first: number,
): Promise<{ readonly edits: readonly Edit[]; readonly damage?: string }> => {
  const from = Math.max(0, first - OLDER_AT_ONCE);
  const rows = await database.journal.where("[job+n]").between([job, from], [job, first], true, false).toArray();
  const edits: Edit[] = [];
  for (let i = rows.length - 1, n = first - 1; n >= from; i--, n--) {
    try {
      if (rows[i]?.n !== n) throw new DamagedRecord(`Step ${n + 1} is missing.`);
      edits.unshift(editOf(rows[i]));
    } catch (reason) {
      return { edits, damage: (reason as Error).message };
    }
  }
  return { edits };
};

const parsed = (text: string): unknown => {
  try {
    return JSON.parse(text);
  } catch {
    throw new DamagedRecord("The stored drawing can't be read.");
  }
};

/** What is to be written: where the job stands now, and the edit that led there, unless it was undo or redo. */
export type Step = {
  readonly job: string;
  readonly history: History;
  readonly drawing: Drawing;
  readonly edit?: Edit;
};

/** What a step must follow, and who stores it. */
export type Follows = { readonly token: number; readonly by: string };

/**
 * Writes one step in one transaction: a new edit with the position after it (what could be redone goes), or just the
 * position after undo and redo. Returns the token that the next one follows. Refuses when another tab has moved the job
 * on, when the job is gone, and what could not be read back. A step that is there already, stored by the same writer in
 * a transaction whose end was not heard, is not written twice.
 */
export const storeStep = async (
  database: Database,
  { job, history, drawing, edit }: Step,
  { token, by }: Follows,
): Promise<number> => {
  const wrong = edit && unsoundEdit(edit);
  if (edit && wrong !== undefined) throw new UnsoundEdit(edit.label, wrong);
  const { position } = history;
  const next = token + 1;
  const row = edit && packed(job, position - 1, edit);
  await database.transaction("rw", database.heads, database.journal, database.snapshots, async () => {
    const head = await database.heads.get(job);
    if (!head) throw new NotInStore();
    if (head.token === next && head.by === by) return;
    if ((head.token ?? 0) !== token) throw new ChangedElsewhere();
    const nextId = Math.max(drawing.nextId, head.nextId);
    let grown = head.grown ?? 0;
    if (row) {
      await database.journal
        .where("[job+n]")
        .between([job, position - 1], [job, Infinity])
        .delete();
      await database.snapshots.where("[job+n]").between([job, position], [job, Infinity]).delete();
      await database.journal.put({ ...row, token: next } as JournalRecord);
      grown += "packed" in row ? (row.packed as Uint8Array).byteLength : 0;
      if (position % SNAPSHOT_EVERY === 0 || grown > SNAPSHOT_BYTES) {
        const text = drawingText(drawing);
        await database.snapshots.put({ job, n: position, text, nextId, version: FORMAT_VERSION });
        grown = 0;
      }
    }
    await database.heads.put({ job, position, count: stepCount(history), nextId, grown, token: next, by });
  });
  return next;
};

/** Goes on from what of a damaged job could be read: what comes after it goes, and its head is made anew. */
export const goOnFrom = async (
  database: Database,
  job: string,
  { drawing, history, token }: StoredJob,
): Promise<void> => {
  const { position } = history;
  const { nextId } = drawing;
  await database.transaction("rw", database.heads, database.journal, database.snapshots, async () => {
    await database.journal.where("[job+n]").between([job, position], [job, Infinity]).delete();
    await database.snapshots.where("[job+n]").between([job, position], [job, Infinity]).delete();
    await database.snapshots.put({ job, n: position, text: drawingText(drawing), nextId, version: FORMAT_VERSION });
    await database.heads.put({ job, position, count: position, nextId, token: token + 1 });
  });
};
