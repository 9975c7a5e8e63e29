import Dexie, { type EntityTable, type Table } from "dexie";
import { declareVersions } from "./migrations.ts";
import type { BlobRecord, HeadRecord, JobRecord, JournalRecord, SettingRecord, SnapshotRecord } from "./rows.ts";

export type Database = Dexie & {
  readonly jobs: EntityTable<JobRecord, "id">;
  readonly heads: EntityTable<HeadRecord, "job">;
  readonly journal: Table<JournalRecord, [string, number]>;
  readonly snapshots: Table<SnapshotRecord, [string, number]>;
  readonly blobs: EntityTable<BlobRecord, "id">;
  readonly settings: EntityTable<SettingRecord, "key">;
};

/** Opens the store of this browser; edits are on disk before they are shown as saved. */
export const openDatabase = (name = "ash-edge"): Database => {
  const database = new Dexie(name, { chromeTransactionDurability: "strict" });
  declareVersions(database);
  return database as Database;
};
