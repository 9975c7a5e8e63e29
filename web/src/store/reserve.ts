import { wrap, type Remote } from "comlink";
import { applyEdit, drawingFromRows, drawingText, invertEdit, type Drawing, type Edit } from "@ash-edge/core/drawing";
import { sensible, type DrawingRows } from "@ash-edge/core/formats/job";
import type { ReserveWorker } from "../worker/reserve.worker.ts";
import { checksumOf } from "./checksum.ts";
import type { Database } from "./database.ts";
import { isInMemory } from "./openStore.ts";
import { stepAt, withStep, type History } from "./history.ts";
import { startJournal, type Step } from "./journal.ts";
import { isSound } from "./records.ts";
import type { BlobRecord, JobRecord } from "./rows.ts";
import { sketchId } from "./sketchNames.ts";

/** What keeps a second copy of every step, apart from the database: of a worker in the page, of a stand-in in tests. */
export type ReserveFiles = Pick<
  Remote<ReserveWorker>,
  "identity" | "setIdentity" | "begin" | "append" | "close" | "putPicture" | "pictures" | "picture" | "all" | "remove"
>;

type First = {
  readonly made: number;
  readonly job: JobRecord;
  readonly position: number;
  readonly nextId: number;
  readonly rows: DrawingRows;
};
type Line = { readonly position: number; readonly edit?: Edit };

let files: ReserveFiles | undefined;
/**
 * The reserve beside a store; undefined where the browser has no file system for an origin, and for a store in memory,
 * which must not touch what stands in for another.
 */
export const reserveFiles = (database: Database): ReserveFiles | undefined => {
  const there =
    !isInMemory(database) &&
    typeof navigator !== "undefined" &&
    typeof Worker !== "undefined" &&
    "getDirectory" in (navigator.storage ?? {});
  if (!there) return undefined;
  files ??= wrap<ReserveWorker>(
    new Worker(new URL("../worker/reserve.worker.ts", import.meta.url), { type: "module" }),
  );
  return files;
};

/** Nothing waits longer than this for the reserve: the database has the step already. */
const WAIT_MS = 2000;
const within = <T>(answer: Promise<T>): Promise<T> =>
  Promise.race([
    answer,
    new Promise<never>((_, no) => setTimeout(() => no(new Error("The reserve did not answer.")), WAIT_MS)),
  ]);

/** Writing down more things than this takes long enough to be seen. */
const GREAT = 4000;

/** A log is begun anew after so many lines, so that it never takes long to be read. */
const LINES = 500;

/** Writes down beside the database what is stored of one job. */
export type Reserve = {
  /** Resolves when the step is in the reserve too, or can't be: then nothing more is tried. */
  readonly keep: (step: Step) => Promise<void>;
  readonly end: () => void;
};

/** The reserve of a job that was just opened. */
export const makeReserve = (
  of: ReserveFiles | undefined,
  job: JobRecord,
  opened: { readonly drawing: Drawing; readonly history: History },
  pictures: () => Promise<readonly BlobRecord[]>,
): Reserve => {
  let off = of === undefined;
  let base = 0;
  let lines = 0;
  const trying = async (work: (own: ReserveFiles) => Promise<unknown>): Promise<void> => {
    if (off || !of) return;
    await within(work(of)).catch(() => (off = true));
  };
  const begin = ({ drawing, history }: { readonly drawing: Drawing; readonly history: History }): Promise<void> => {
    const { thumbnail: _, ...rest } = job;
    // the rows are text already: a great drawing is not taken apart and put together again for this
    const first: Omit<First, "rows"> = {
      made: Date.now(),
      job: rest,
      position: history.position,
      nextId: drawing.nextId,
    };
    const line = `${JSON.stringify(first).slice(0, -1)},"rows":${drawingText(drawing)}}`;
    base = history.position;
    lines = 0;
    return trying((own) => own.begin(job.id, line));
  };
  const copyPictures = async (own: ReserveFiles): Promise<void> => {
    const there = new Set(await own.pictures(job.id));
    for (const { number, name, type, from, bytes } of await pictures()) {
      if (number === undefined || there.has(number)) continue;
      await own.putPicture(job.id, number, JSON.stringify({ name, type, ...(from ? { from } : {}) }), bytes.slice());
    }
  };
  // a great drawing is shown first
  const shown = new Promise((done) => setTimeout(done, opened.drawing.entity.size > GREAT ? 1000 : 0));
  let ready = off ? Promise.resolve() : shown.then(() => begin(opened));
  void ready.then(() => (off || !of ? undefined : copyPictures(of).catch(() => undefined)));
  return {
    keep: async ({ history, drawing, edit }) => {
      await ready;
      if (off) return;
      // what lies before the log's first line can't be told from it
      if (history.position < base || lines >= LINES) return void (await (ready = begin({ drawing, history })));
      lines += 1;
      const line: Line = { position: history.position, ...(edit ? { edit } : {}) };
      await trying((own) => own.append(job.id, JSON.stringify(line)));
    },
    end: () => void of?.close(job.id).catch(() => undefined),
  };
};

/** What a log holds, as far as it is whole: a line that was cut off in the middle was never said saved. */
export const fromLog = (
  text: string,
): { readonly made: number; readonly job: JobRecord; readonly drawing: Drawing } | undefined => {
  const [head, ...rest] = text.split("\n");
  try {
    const first = JSON.parse(head!) as First;
    if (!isSound("job", first.job)) return undefined;
    const sound = sensible(first.rows, first.nextId);
    if (!sound.ok) return undefined;
    let drawing = drawingFromRows(sound.value.drawing as never, sound.value.nextId);
    let history: History = { edits: [], first: first.position, position: first.position };
    for (const line of rest) {
      if (line === "") break;
      let step: Line;
      try {
        step = JSON.parse(line) as Line;
      } catch {
        break;
      }
      if (step.edit) {
        drawing = applyEdit(drawing, step.edit);
        history = withStep(history, step.edit);
        continue;
      }
      while (history.position !== step.position) {
        const back = step.position < history.position;
        const edit = stepAt(history, back ? history.position - 1 : history.position);
        if (!edit) break;
        drawing = applyEdit(drawing, back ? invertEdit(edit) : edit);
        history = { ...history, position: history.position + (back ? -1 : 1) };
      }
    }
    return { made: first.made, job: first.job, drawing };
  } catch {
    return undefined;
  }
};

const IDENTITY = "identity";

/**
 * Puts back what a database has lost that the browser deleted: it knows its database by a mark of its own, which a new
 * one has not. Returns the names of the jobs put back; their history and releases are gone.
 */
export const putBack = async (database: Database, of: ReserveFiles): Promise<readonly string[]> => {
  const known = (await database.settings.get(IDENTITY))?.value as string | undefined;
  if (known !== undefined) {
    // nothing was lost: nobody waits for the reserve to say whose it is
    of.identity()
      .then((kept) => (kept === known ? undefined : of.setIdentity(known)))
      .catch(() => undefined);
    return [];
  }
  const kept = await of.identity();
  const identity = kept ?? crypto.randomUUID?.() ?? String(Math.random());
  const names: string[] = [];
  for (const { job: id, texts } of kept === undefined ? [] : await of.all()) {
    const found = texts.flatMap((text) => fromLog(text) ?? []).sort((p, q) => q.made - p.made)[0];
    if (!found) continue;
    const { released: _, changed: __, ...job } = found.job;
    const blobs: BlobRecord[] = [];
    for (const number of await of.pictures(id)) {
      const bytes = await of.picture(id, number);
      const end = bytes?.indexOf(10) ?? -1;
      if (!bytes || end < 0) continue;
      const about = JSON.parse(new TextDecoder().decode(bytes.subarray(0, end))) as Pick<
        BlobRecord,
        "name" | "type" | "from"
      >;
      const own = bytes.slice(end + 1);
      const base = { id: sketchId(id, number), job: id, kind: "sketch", number, made: Date.now() } as const;
      blobs.push({ ...about, ...base, checksum: await checksumOf(own), bytes: own });
    }
    await database.transaction("rw", [database.jobs, database.heads, database.snapshots, database.blobs], async () => {
      // a new database may have got the job as it comes with the demo meanwhile: nothing was drawn in that
      if ((await database.jobs.get(id)) && ((await database.heads.get(id))?.position ?? 0) > 0) return;
      await database.jobs.put({ ...job, state: job.state === "released" ? "drawn" : job.state });
      await startJournal(database, id, found.drawing);
      await database.blobs.bulkPut(blobs);
      names.push(`${job.number} ${job.name}`);
    });
  }
  await database.settings.put({ key: IDENTITY, value: identity });
  if (kept === undefined) await of.setIdentity(identity);
  return names;
};
