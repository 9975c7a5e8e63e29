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

const isOwn = (reason: unknown): boolean => OWN.some((kind) => reason instanceof kind);

/** What browsers and Dexie say, by what it means here; the first that fits counts. */
const KINDS = [
  ["full", /quota|full|disk|space/i],
  ["newer", /VersionError/],
  // a store that is there and could not be opened just now is none to draw without
  ["unopened", /OpenFailed.*(?:Abort|Unknown)/],
  ["none", /MissingAPI|InvalidState|SecurityError|OpenFailed/],
  ["gone", /DatabaseClosed|NotFound|NoSuchDatabase/],
  ["failed", /Abort|Timeout|Unknown/],
] as const;

const WORDS: Readonly<Record<(typeof KINDS)[number][0] | "odd", string>> = {
  full: "The browser has no room left to store it. Make room on this computer: storing goes on by itself then.",
  newer: new NewerStore().message,
  unopened:
    "The browser could not open its storage, in which the jobs are. Close other windows of it, or start it again, " +
    "then reload the page.",
  none:
    "This browser gives the application no storage, as some private windows do. Use an ordinary window; what is on a " +
    "board now can be saved to a file.",
  gone: "The browser’s data of this application was deleted or closed. Save to a file, then reload the page.",
  failed: "The browser could not write it to its storage. It is tried again.",
  odd: "The browser’s storage did not answer as it should. It is tried again.",
};

const kindOf = (all: readonly Fault[]): keyof typeof WORDS => {
  const names = namesOf(all);
  return KINDS.find(([, says]) => says.test(names))?.[0] ?? "odd";
};

/** The browser gives no storage at all, as some private windows do: not that it is full, newer, or failed just now. */
export const givesNone = (reason: unknown): boolean => {
  const all = allOf(reason);
  return !all.some(isOwn) && kindOf(all) === "none";
};

/** Why the store did not do what was asked, in words that say what to do; nothing of the browser's own error. */
export const sayStoreFault = (reason: unknown): string => {
  const all = allOf(reason);
  const own = all.find(isOwn);
  return own ? String(own.message) : WORDS[kindOf(all)];
};

/** The store can't be used at all: a private window without one, or one that a newer version wrote. */
export const isStoreFault = (reason: unknown): boolean => reason instanceof Dexie.DexieError || isOwn(reason);
