import type { Dexie } from "dexie";
import { migrated } from "@ash-edge/core/formats/job";
import { sayRefusal } from "@ash-edge/core/say";
import { DamagedRecord } from "./records.ts";

/**
 * The versions of the store, oldest first: its tables with their keys, and what brings the one before up to it. Never
 * changed once released; a new column or table is a new line. Rows are brought up when they are read (`rowNow`), not
 * here: a great store opens at once.
 */
const VERSIONS: readonly { readonly stores: Readonly<Record<string, string>> }[] = [
  {
    stores: {
      jobs: "id,state,updated",
      heads: "job",
      journal: "[job+n]",
      snapshots: "[job+n]",
      blobs: "id,job",
      settings: "key",
    },
  },
  // rows of the journal and snapshots say in which version they were written, and great edits are packed
  { stores: {} },
];

/** Tells the database all versions that there were. */
export const declareVersions = (database: Dexie): void =>
  VERSIONS.forEach(({ stores }, i) => void database.version(i + 1).stores(stores));

/** A stored drawing or edit as it is written now; rows of the first version don't name it. */
export const rowNow = (kind: "drawing" | "edit", value: unknown, version = 1): unknown => {
  const now = migrated(kind, value, version);
  if (!now.ok) throw new DamagedRecord(sayRefusal(now.refusal, "mm"));
  return now.value;
};
