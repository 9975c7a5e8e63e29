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
import { checked, DamagedRecord } from "./records.ts";

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

export type StoredJob = { readonly drawing: Drawing; readonly history: History };

/** Another tab has changed the job since it was opened here. */
export class ChangedElsewhere extends Error {
  constructor() {
    super("This job was changed in another tab. Reload to go on from there.");
  }
}

/** Writes a new job's first snapshot and head; inside the caller's transaction. */
export const startJournal = async (database: Database, job: string, drawing: Drawing): Promise<void> => {
  const { nextId } = drawing;
  await database.snapshots.put({ job, n: 0, text: drawingText(drawing), nextId, version: FORMAT_VERSION });
  await database.heads.put({ job, position: 0, count: 0, nextId });
};

/** A step as it is stored. */
const packed = (job: string, n: number, edit: Edit): JournalRecord => ({
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

/** The stored steps from number `from` up to `to`, every one of them; a missing or damaged one throws. */
const editsBetween = async (database: Database, job: string, from: number, to: number): Promise<readonly Edit[]> => {
  const rows = await database.journal.where("[job+n]").between([job, from], [job, to], true, false).toArray();
  if (rows.length !== to - from)
    throw new DamagedRecord(`The journal holds ${from + rows.length} edits where ${to} were stored.`);
  return rows.map(editOf);
};

/**
 * The drawing of a job as it was left: the newest sound snapshot before that, and the steps after it. Nothing older is
 * read. Throws `DamagedRecord` where no snapshot is sound, or a step that is needed is not.
 */
export const loadJob = async (database: Database, job: string): Promise<StoredJob | undefined> => {
  const found = await database.heads.get(job);
  if (!found) return undefined;
  const head = checked("head", found);
  const numbers = (await database.snapshots.where("[job+n]").between([job, 0], [job, Infinity]).primaryKeys()).map(
    ([, n]) => n,
  );
  // one after the position serves as well, with the steps between taken back, but only where there is none before
  const before = numbers.filter((n) => n <= head.position).reverse();
  const after = numbers.filter((n) => n > head.position);
  let damage: DamagedRecord | undefined;
  for (const n of [...before, ...after]) {
    try {
      return await openFrom(database, head, n);
    } catch (reason) {
      if (!(reason instanceof DamagedRecord)) throw reason;
      damage ??= reason;
    }
  }
  throw damage ?? new DamagedRecord("The job has no drawing stored.");
};

const openFrom = async (database: Database, head: HeadRecord, n: number): Promise<StoredJob> => {
  const { job, position, count } = head;
  const from = checked("snapshot", await database.snapshots.get([job, n]));
  const rows = checked("rows", rowNow("drawing", parsed(from.text), from.version));
  const first = Math.min(n, position);
  const edits = await editsBetween(database, job, first, count);
  let drawing = drawingFromRows(rows as Parameters<typeof drawingFromRows>[0], from.nextId);
  for (let at = n; at < position; at++) drawing = applyEdit(drawing, edits[at - first]!);
  for (let at = n; at > position; at--) drawing = applyEdit(drawing, invertEdit(edits[at - 1 - first]!));
  return {
    drawing: { ...drawing, nextId: Math.max(drawing.nextId, head.nextId) },
    history: { edits, first, position },
  };
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

/** What is to be written: where the job stood in the store, and where it stands now. */
export type Step = {
  readonly job: string;
  readonly before: number;
  readonly history: History;
  readonly drawing: Drawing;
  readonly edit?: Edit;
};

/**
 * Writes one step in one transaction: a new edit with the position after it (what could be redone goes), or just the
 * position after undo and redo. Refuses when another tab has moved the job on, and what could not be read back.
 */
export const storeStep = async (database: Database, { job, before, history, drawing, edit }: Step): Promise<void> => {
  const wrong = edit && unsoundEdit(edit);
  if (edit && wrong !== undefined) throw new UnsoundEdit(edit.label, wrong);
  const { position } = history;
  const row = edit && packed(job, position - 1, edit);
  await database.transaction("rw", database.heads, database.journal, database.snapshots, async () => {
    const head = await database.heads.get(job);
    if (head?.position !== before) throw new ChangedElsewhere();
    const { nextId } = drawing;
    let grown = head.grown ?? 0;
    if (row) {
      await database.journal
        .where("[job+n]")
        .between([job, position - 1], [job, Infinity])
        .delete();
      await database.snapshots.where("[job+n]").between([job, position], [job, Infinity]).delete();
      await database.journal.put(row);
      grown += "packed" in row ? row.packed.byteLength : 0;
      if (position % SNAPSHOT_EVERY === 0 || grown > SNAPSHOT_BYTES) {
        const text = drawingText(drawing);
        await database.snapshots.put({ job, n: position, text, nextId, version: FORMAT_VERSION });
        grown = 0;
      }
    }
    await database.heads.put({ job, position, count: stepCount(history), nextId, grown });
  });
};
