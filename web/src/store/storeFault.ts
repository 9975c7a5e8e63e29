import Dexie from "dexie";
import { UnsoundEdit } from "@ash-edge/core/drawing";
import { NewerStore } from "./database.ts";
import { ChangedElsewhere, NotInStore } from "./journal.ts";
import { DamagedRecord } from "./records.ts";

/** Messages that are written for people already. */
const OWN = [ChangedElsewhere, NotInStore, DamagedRecord, NewerStore, UnsoundEdit] as const;

type Fault = { readonly name?: unknown; readonly message?: unknown; readonly inner?: Fault };

/** An error and all that it came from: Dexie wraps what the browser, or a door of ours, said. */
const allOf = (reason: unknown): readonly Fault[] => {
  const all: Fault[] = [];
  let at = reason as Fault | undefined;
  for (let depth = 0; at && typeof at === "object" && depth < 5; depth++) {
    all.push(at);
    at = at.inner;
  }
  return all;
};
const namesOf = (all: readonly Fault[]): string =>
  all.map(({ name, message }) => `${String(name)} ${String(message)}`).join(" ");

/** What browsers say that have no storage for the application, or give it none. */
const NONE = /MissingAPI|InvalidState|SecurityError|OpenFailed/;
/** The browser gives no storage at all, as some private windows do; not that it is full, newer, or failed just now. */
export const givesNone = (reason: unknown): boolean => {
  const names = namesOf(allOf(reason));
  return NONE.test(names) && !/quota|full|disk|space|VersionError|Abort|Unknown/i.test(names) && !isNewer(reason);
};
const isNewer = (reason: unknown): boolean => allOf(reason).some((one) => one instanceof NewerStore);

const isOwn = (reason: unknown): boolean => OWN.some((kind) => reason instanceof kind);

/** Why the store did not do what was asked, in words that say what to do; nothing of the browser's own error. */
export const sayStoreFault = (reason: unknown): string => {
  const all = allOf(reason);
  const own = all.find(isOwn);
  if (own) return String(own.message);
  const names = namesOf(all);
  if (/quota|full|disk|space/i.test(names))
    return "The browser has no room left to store it. Make room on this computer: storing goes on by itself then.";
  if (/VersionError/.test(names)) return new NewerStore().message;
  if (NONE.test(names))
    return (
      "This browser gives the application no storage, as some private windows do. Use an ordinary window; what is on " +
      "a board now can be saved to a file."
    );
  if (/DatabaseClosed|NotFound|NoSuchDatabase/.test(names))
    return "The browser’s data of this application was deleted or closed. Save to a file, then reload the page.";
  if (/Abort|Timeout|Unknown/.test(names)) return "The browser could not write it to its storage. It is tried again.";
  return "The browser’s storage did not answer as it should. It is tried again.";
};

/** The store can't be used at all: a private window without one, or one that a newer version wrote. */
export const isStoreFault = (reason: unknown): boolean => reason instanceof Dexie.DexieError || isOwn(reason);
