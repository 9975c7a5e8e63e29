import Dexie from "dexie";
import { browserStore, openDatabase, type Database } from "./database.ts";
import { declareVersions } from "./migrations.ts";
import { givesNone } from "./storeFault.ts";

const inMemory = new WeakSet<Database>();
/** True of a store that is gone with the page. */
export const isInMemory = (database: Database): boolean => inMemory.has(database);

/** A store in memory, for a browser that gives none: everything works as ever until the page is left. */
const openInMemory = async (): Promise<Database> => {
  const { IDBFactory, IDBKeyRange } = await import("fake-indexeddb");
  const indexedDB = new IDBFactory();
  // Dexie looks at the browser's own even so, and may not: some throw at the mere name
  Object.defineProperty(globalThis, "indexedDB", { value: indexedDB, configurable: true });
  Object.assign(Dexie.dependencies, { indexedDB, IDBKeyRange });
  const database = new Dexie("ash-edge") as Database;
  declareVersions(database);
  inMemory.add(database);
  return database;
};

/** Nobody waits longer for the browser's store before the page is shown. */
const WAIT_MS = 3000;

/** The browser's store, opened; one in memory where the browser gives none. One that fails otherwise says so later. */
export const openStore = async (): Promise<Database> => {
  if (!browserStore()) return openInMemory();
  const database = openDatabase();
  const opened = database.open().then(
    () => undefined,
    (reason: unknown) => reason,
  );
  const reason = await Promise.race([opened, new Promise<undefined>((done) => setTimeout(done, WAIT_MS))]);
  return reason !== undefined && givesNone(reason) ? openInMemory() : database;
};
