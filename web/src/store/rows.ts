import type { LayerTable, ProcessKind } from "@ash-edge/core/cutter";
import type { Edit } from "@ash-edge/core/drawing";
import type { JobHead } from "@ash-edge/core/formats/job";
import type { Unit } from "@ash-edge/core/numeric";

export const JOB_STATES = ["sketched", "drawn", "proved", "released"] as const;
export type JobState = (typeof JOB_STATES)[number];

/** A closed or open outline small enough for a list: SVG path data in the drawing's own coordinates. */
export type Thumbnail = {
  readonly box: readonly [minX: number, minY: number, width: number, height: number];
  readonly outside: string;
  readonly inside: string;
  readonly open: string;
  readonly marks?: string;
  readonly dimensions?: string;
};

export type JobRecord = JobHead & {
  readonly id: string;
  readonly unit: Unit;
  readonly state: JobState;
  readonly updated: number;
  readonly archived?: boolean;
  /** When it was put in the bin. */
  readonly binned?: number;
  /** The last release and the place in the history from which it was made. */
  readonly released?: { readonly number: number; readonly at: string };
  /** What is drawn is not what was released last. */
  readonly changed?: boolean;
  readonly thumbnail?: Thumbnail;
};

/** Where the job stands in its journal: `position` edits are applied, `count` are kept (the rest can be redone). */
export type HeadRecord = {
  readonly job: string;
  readonly position: number;
  readonly count: number;
  readonly nextId: number;
  /** Rises with every step that is stored, undo and redo too: who knows it knows the job as it stands. */
  readonly token?: number;
  /** Who stored the last step. */
  readonly by?: string;
  /** Bytes of packed steps since the last snapshot. */
  readonly grown?: number;
};
/** One step, in the version that wrote it; a step that changes very many rows as packed text. */
export type JournalRecord = {
  readonly job: string;
  readonly n: number;
  readonly version?: number;
  /** The head's token when it was stored: tells it from another step of the same number, before an undo. */
  readonly token?: number;
} & ({ readonly edit: Edit } | { readonly packed: Uint8Array });
/** The drawing after `n` edits, as text. */
export type SnapshotRecord = {
  readonly job: string;
  readonly n: number;
  readonly text: string;
  readonly nextId: number;
  readonly version?: number;
};
export type BlobRecord = {
  readonly id: string;
  readonly job: string;
  readonly kind: "sketch" | "release";
  readonly name: string;
  readonly type: string;
  readonly bytes: Uint8Array;
  /** SHA-256 in hex; empty where the browser gives none (outside https and localhost). */
  readonly checksum: string;
  readonly made: number;
  /** The picture that this one was straightened from. */
  readonly from?: string;
  /** Its number among those of its kind within the job; for a release also how many edits it was made from. */
  readonly number?: number;
  readonly position?: number;
  /** Of a release: the place in the history that it was made from, as `placeInHistory` names it. */
  readonly at?: string;
  /** Of a release: for which machine it was written, what was said of it, and what was waived, with the reasons. */
  readonly profile?: string;
  readonly verdict?: string;
  readonly waived?: readonly string[];
  /** Of a release: what lies on its layers, and how its last test run went. */
  readonly uses?: LayerTable;
  readonly run?: KeptRun;
};
/** A test run of a release as it is kept: lengths in mm, times in s. */
export type KeptRun = {
  readonly process: ProcessKind;
  readonly made: number;
  readonly time: number;
  readonly cut: number;
  readonly travel: number;
  readonly pierces: number;
};
export type SettingRecord = { readonly key: string; readonly value: unknown };
