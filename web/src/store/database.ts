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

/** The store was written by a newer version of the application, which this one must not write into. */
export class NewerStore extends Error {
  constructor() {
    super(
      "The jobs in this browser were stored by a newer version of Ash Edge. Nothing was changed: reload the page to " +
        "get that version, or ask who looks after the server.",
    );
  }
}

/**
 * The browser's database, which does not open a store of a newer version: told that one is newer than it knows, Dexie
 * would open it all the same, as it is, and write what it misses into it.
 */
const onlyKnown = (browser: IDBFactory): IDBFactory =>
  new Proxy(browser, {
    get: (target, name) => {
      const member = Reflect.get(target, name, target) as unknown;
      if (typeof member !== "function") return member;
      if (name !== "open") return member.bind(target) as unknown;
      return (store: string, version?: number): IDBOpenDBRequest => {
        if (version === undefined) throw new NewerStore();
        return target.open(store, version);
      };
    },
  });

/** The browser's own; undefined where it has none, or forbids even to ask for it. */
export const browserStore = (): IDBFactory | undefined => {
  try {
    return (globalThis as { indexedDB?: IDBFactory }).indexedDB;
  } catch {
    return undefined;
  }
};

/** Opens the store of this browser; edits are on disk before they are shown as saved. A newer one is not opened. */
export const openDatabase = (name = "ash-edge"): Database => {
  const browser = browserStore();
  const database = new Dexie(name, {
    chromeTransactionDurability: "strict",
    ...(browser ? { indexedDB: onlyKnown(browser) as never } : {}),
  });
  declareVersions(database);
  return database as Database;
};

/** Opens the store anew after it refused something: the browser may have closed it, and tells it by failing only. */
export const openAgain = async (database: Database): Promise<void> => {
  database.close({ disableAutoOpen: false });
  await database.open();
};
