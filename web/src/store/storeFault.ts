import Dexie from "dexie";
import { UnsoundEdit } from "@ash-edge/core/drawing";
import { NewerStore } from "./database.ts";
import { ChangedElsewhere, NotInStore } from "./journal.ts";
import { DamagedRecord } from "./records.ts";

/** Messages that are written for people already. */
const OWN = [ChangedElsewhere, NotInStore, DamagedRecord, NewerStore, UnsoundEdit] as const;

/** The names of an error and of all that it came from; Dexie wraps what the browser said. */
const namesOf = (reason: unknown): readonly string[] => {
  const names: string[] = [];
  let at = reason as { name?: unknown; message?: unknown; inner?: unknown } | undefined;
  for (let depth = 0; at && typeof at === "object" && depth < 5; depth++) {
    names.push(String(at.name), String(at.message));
    at = at.inner as typeof at;
  }
  return names;
};

/** Why the store did not do what was asked, in words that say what to do; nothing of the browser's own error. */
export const sayStoreFault = (reason: unknown): string => {
  if (OWN.some((kind) => reason instanceof kind)) return (reason as Error).message;
  const names = namesOf(reason).join(" ");
  if (/quota|full|disk|space/i.test(names))
    return "The browser has no room left to store it. Make room on this computer: storing goes on by itself then.";
  if (/VersionError/.test(names)) return new NewerStore().message;
  if (/MissingAPI|InvalidState|SecurityError|OpenFailed/.test(names))
    return "This browser gives the application no storage, as private windows do. Work goes on, but only in this tab.";
  if (/DatabaseClosed|NotFound|NoSuchDatabase/.test(names))
    return "The browser’s data of this application was deleted or closed. Save to a file, then reload the page.";
  if (/Abort|Timeout|Unknown/.test(names)) return "The browser could not write it to its storage. It is tried again.";
  return "The browser’s storage did not answer as it should. It is tried again.";
};

/** The store can't be used at all: a private window without one, or one that a newer version wrote. */
export const isStoreFault = (reason: unknown): boolean =>
  reason instanceof Dexie.DexieError || OWN.some((kind) => reason instanceof kind);
