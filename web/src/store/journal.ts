import { applyEdit, drawingFromRows, drawingText, invertEdit, type Drawing, type Edit } from "@ash-edge/core/drawing";
import type { Database } from "./database.ts";
import { checked, DamagedRecord } from "./records.ts";

/** A snapshot of the drawing every so many edits. */
const SNAPSHOT_EVERY = 200;

/** All edits of a job that are kept, and how many of them are applied. */
export type History = { readonly edits: readonly Edit[]; readonly position: number };
export type StoredJob = { readonly drawing: Drawing; readonly history: History };

/** Another tab has changed the job since it was opened here. */
export class ChangedElsewhere extends Error {
  constructor() {
    super("This job was changed in another tab. Reload to go on from there.");
  }
}

/** Writes a new job's first snapshot and head; inside the caller's transaction. */
export const startJournal = async (database: Database, job: string, drawing: Drawing): Promise<void> => {
  await database.snapshots.put({ job, n: 0, text: drawingText(drawing), nextId: drawing.nextId });
  await database.heads.put({ job, position: 0, count: 0, nextId: drawing.nextId });
};

/** The drawing of a job as it was left: the nearest snapshot, and the journal from there. Damaged records throw. */
export const loadJob = async (database: Database, job: string): Promise<StoredJob | undefined> => {
  const found = await database.heads.get(job);
  if (!found) return undefined;
  const head = checked("head", found);
  const span = [
    [job, 0],
    [job, Infinity],
  ] as const;
  const snapshots = (
    await database.snapshots
      .where("[job+n]")
      .between(...span)
      .toArray()
  ).map((record) => checked("snapshot", record));
  const journal = (
    await database.journal
      .where("[job+n]")
      .between(...span)
      .toArray()
  ).map((record) => checked("journal", record));
  const edits = journal.map(({ edit }) => edit);
  if (edits.length !== head.count)
    throw new DamagedRecord(`The journal holds ${edits.length} edits where ${head.count} were stored.`);
  const from = snapshots.sort((p, q) => Math.abs(p.n - head.position) - Math.abs(q.n - head.position))[0];
  if (!from) throw new DamagedRecord("The job has no drawing stored.");
  const rows = checked("rows", parsed(from.text));
  let drawing = drawingFromRows(rows as Parameters<typeof drawingFromRows>[0], from.nextId);
  for (let n = from.n; n < head.position; n++) drawing = applyEdit(drawing, edits[n]!);
  for (let n = from.n; n > head.position; n--) drawing = applyEdit(drawing, invertEdit(edits[n - 1]!));
  return {
    drawing: { ...drawing, nextId: Math.max(drawing.nextId, head.nextId) },
    history: { edits, position: head.position },
  };
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
 * Writes one step in one transaction: a new edit with the position after it (what could be redone goes), or just the position
 * after undo and redo. Refuses when another tab has moved the job on.
 */
export const storeStep = (database: Database, { job, before, history, drawing, edit }: Step): Promise<void> =>
  database.transaction("rw", database.heads, database.journal, database.snapshots, async () => {
    const head = await database.heads.get(job);
    if (head?.position !== before) throw new ChangedElsewhere();
    const { position } = history;
    if (edit) {
      await database.journal
        .where("[job+n]")
        .between([job, position - 1], [job, Infinity])
        .delete();
      await database.snapshots.where("[job+n]").between([job, position], [job, Infinity]).delete();
      await database.journal.put({ job, n: position - 1, edit });
      if (position % SNAPSHOT_EVERY === 0)
        await database.snapshots.put({ job, n: position, text: drawingText(drawing), nextId: drawing.nextId });
    }
    await database.heads.put({ job, position, count: history.edits.length, nextId: drawing.nextId });
  });
