import type { Drawing } from "@ash-edge/core/drawing";
import type { JobHead } from "@ash-edge/core/formats/job";
import { plainName } from "@ash-edge/core/numeric";
import { openDatabase } from "./database.ts";
import type { NewSketch } from "./jobs.ts";
import { loadJob } from "./journal.ts";
import { DamagedRecord } from "./records.ts";
import { namedByPlace } from "./sketchNames.ts";

/** What `exportRaw` writes: the records of a job as they stood, sound or not. */
type Raw = Readonly<Record<"snapshots" | "journal", readonly unknown[]>> & {
  readonly job?: Readonly<Record<string, unknown>>;
  readonly head?: unknown;
  readonly blobs?: readonly unknown[];
};

/** True for the text of a raw export, by its lists. */
export const isRaw = (value: unknown): value is Raw =>
  typeof value === "object" &&
  value !== null &&
  Array.isArray((value as Raw).snapshots) &&
  Array.isArray((value as Raw).journal);

export type FromRaw = {
  readonly head: JobHead;
  readonly drawing: Drawing;
  readonly sketches: readonly NewSketch[];
  readonly mended: readonly string[];
};

const rowsOf = (rows: readonly unknown[] | undefined): readonly Readonly<Record<string, unknown>>[] =>
  (rows ?? []).filter((row) => typeof row === "object" && row !== null) as Readonly<Record<string, unknown>>[];

const textIn = (row: Raw["job"], name: string): string => {
  const value = row?.[name];
  return typeof value === "string" ? plainName(value) : "";
};

/**
 * What of a raw export is sound: read as the store reads a damaged job, from a store of its own that is gone
 * afterwards. Throws `DamagedRecord` where nothing of the drawing can be read.
 */
export const fromRaw = async (raw: Raw): Promise<FromRaw> => {
  const name = `ash-edge-raw-${crypto.randomUUID?.() ?? String(Math.random())}`;
  const database = openDatabase(name);
  const job = "raw";
  const lost: string[] = [];
  const put = async (row: () => Promise<unknown>, what: string): Promise<void> => {
    await row().catch(() => void lost.push(what));
  };
  try {
    for (const row of rowsOf(raw.snapshots))
      await put(() => database.snapshots.put({ ...row, job } as never), "a snapshot");
    for (const { packed, ...row } of rowsOf(raw.journal)) {
      const whole = typeof packed === "string" ? { ...row, packed: new TextEncoder().encode(packed) } : row;
      await put(() => database.journal.put({ ...whole, job } as never), "a step");
    }
    for (const row of rowsOf([raw.head]))
      await put(() => database.heads.put({ ...row, job } as never), "where it stood");
    const stored = await loadJob(database, job);
    if (!stored) throw new DamagedRecord("Nothing of the job’s drawing is in this file.");
    const sketches: NewSketch[] = [];
    const ids: string[] = [];
    for (const { id, kind, name: called, type, bytes } of rowsOf(raw.blobs)) {
      if (kind !== "sketch") continue;
      if (typeof id !== "string" || typeof called !== "string" || typeof type !== "string" || !Array.isArray(bytes)) {
        lost.push("a picture");
        continue;
      }
      ids.push(id);
      sketches.push({ name: called, type, bytes: Uint8Array.from(bytes as number[]) });
    }
    const text = (field: string): string => textIn(raw.job, field);
    const quantity = raw.job?.quantity;
    return {
      head: {
        number: text("number"),
        name: text("name") || "Job from a raw file",
        customer: text("customer"),
        material: text("material"),
        thickness: text("thickness"),
        quantity: Number.isInteger(quantity) && (quantity as number) > 0 ? (quantity as number) : 1,
        due: text("due"),
      },
      drawing: namedByPlace(stored.drawing, ids),
      sketches,
      mended: [
        ...(stored.damage ? [`${stored.damage} The drawing is as it was before that.`] : []),
        ...(lost.length > 0 ? [`Could not be read: ${lost.join(", ")}.`] : []),
        "Its history and its released files stay in the raw file.",
      ],
    };
  } finally {
    await database.delete();
  }
};
