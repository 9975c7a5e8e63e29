import { expose } from "comlink";

/*
 * Files of the browser's own file system for an origin, apart from its database: a line for every stored step of a job
 * behind its drawing as it was opened, flushed before the step is said saved, and its pictures. A browser that finds
 * its database damaged deletes it; these files are then what is left.
 */

/** Of the File System standard, for workers alone: the library of types for pages leaves it out. */
type Handle = {
  readonly write: (bytes: Uint8Array, options: { readonly at: number }) => number;
  readonly truncate: (size: number) => void;
  readonly flush: () => void;
  readonly close: () => void;
};
type FileForWorkers = FileSystemFileHandle & { readonly createSyncAccessHandle: () => Promise<Handle> };

const FOLDER = "reserve";
const folder = async (): Promise<FileSystemDirectoryHandle> =>
  (await navigator.storage.getDirectory()).getDirectoryHandle(FOLDER, { create: true });

const nameOf = (job: string, kind: string): string => `${encodeURIComponent(job)}.${kind}`;
const bytesOf = (text: string): Uint8Array<ArrayBuffer> => new TextEncoder().encode(text);

/** A page that is being left may hold a file for a moment still. */
const [TRIES, PAUSE_MS] = [10, 100];

const opened = async (name: string): Promise<Handle> => {
  const file = (await (await folder()).getFileHandle(name, { create: true })) as FileForWorkers;
  for (let tries = 1; ; tries++) {
    try {
      return await file.createSyncAccessHandle();
    } catch (reason) {
      if (tries === TRIES) throw reason;
      await new Promise((done) => setTimeout(done, PAUSE_MS));
    }
  }
};
const readAll = async (name: string): Promise<Uint8Array<ArrayBuffer> | undefined> => {
  try {
    const file = await (await (await folder()).getFileHandle(name)).getFile();
    return new Uint8Array(await file.arrayBuffer());
  } catch {
    return undefined;
  }
};
const namesIn = async (): Promise<readonly string[]> => {
  const names: string[] = [];
  for await (const [name] of (await folder()) as unknown as AsyncIterable<[string, unknown]>) names.push(name);
  return names;
};
const removed = async (name: string): Promise<void> => (await folder()).removeEntry(name).catch(() => undefined);

/** Writes a file whole, and what must be on disk is. */
const put = async (name: string, bytes: Uint8Array<ArrayBuffer>): Promise<void> => {
  const handle = await opened(name);
  try {
    handle.truncate(0);
    handle.write(bytes, { at: 0 });
    handle.flush();
  } finally {
    handle.close();
  }
};

const logs = new Map<string, { readonly handle: Handle; readonly name: string; size: number }>();

/** A job's log is one of two files in turn: the new one is whole before the old one goes. */
const KINDS = ["a", "b"] as const;

const textOf = async (job: string, kind: string): Promise<string> =>
  new TextDecoder().decode((await readAll(nameOf(job, kind))) ?? new Uint8Array());

/** The file of a job's log to be written next: never the one that was written last, by whatever page. */
const nextKind = async (job: string): Promise<(typeof KINDS)[number]> => {
  const own = logs.get(job)?.name;
  if (own !== undefined) return own === nameOf(job, "a") ? "b" : "a";
  const times = await Promise.all(
    KINDS.map(async (kind) => {
      try {
        return (await (await (await folder()).getFileHandle(nameOf(job, kind))).getFile()).lastModified;
      } catch {
        return -1;
      }
    }),
  );
  return times[0]! > times[1]! ? "b" : "a";
};

/** What was asked for is done in turn: a step is never before the drawing that it follows. */
let last: Promise<unknown> = Promise.resolve();
const inTurn = <T>(work: () => Promise<T>): Promise<T> => {
  const result = last.then(work);
  last = result.catch(() => undefined);
  return result;
};

const close = (job: string): void => {
  logs.get(job)?.handle.close();
  logs.delete(job);
};

export const worker = {
  identity: () =>
    inTurn(async () => {
      const bytes = await readAll("identity");
      return bytes && bytes.length > 0 ? new TextDecoder().decode(bytes) : undefined;
    }),
  setIdentity: (identity: string) => inTurn(() => put("identity", bytesOf(identity))),
  /** Starts a job's log anew with a first line. */
  begin: (job: string, first: string) =>
    inTurn(async () => {
      const name = nameOf(job, await nextKind(job));
      close(job);
      const handle = await opened(name);
      handle.truncate(0);
      const bytes = bytesOf(`${first}\n`);
      handle.write(bytes, { at: 0 });
      handle.flush();
      logs.set(job, { handle, name, size: bytes.length });
      for (const kind of KINDS) if (nameOf(job, kind) !== name) await removed(nameOf(job, kind));
    }),
  /** One more line, on disk when it resolves. */
  append: (job: string, line: string) =>
    inTurn(async () => {
      const log = logs.get(job);
      if (!log) throw new Error("The log is not open.");
      const bytes = bytesOf(`${line}\n`);
      log.handle.write(bytes, { at: log.size });
      log.size += bytes.length;
      log.handle.flush();
    }),
  close: (job: string) => inTurn(async () => close(job)),
  putPicture: (job: string, number: number, about: string, bytes: Uint8Array) =>
    inTurn(async () => {
      const head = bytesOf(`${about}\n`);
      const all = new Uint8Array(head.length + bytes.length);
      all.set(head);
      all.set(bytes, head.length);
      await put(nameOf(job, `sketch-${number}`), all);
    }),
  /** The numbers of the pictures that are there of a job. */
  pictures: (job: string) =>
    inTurn(async () => {
      const start = nameOf(job, "sketch-");
      return (await namesIn()).filter((name) => name.startsWith(start)).map((name) => Number(name.slice(start.length)));
    }),
  picture: (job: string, number: number) => inTurn(() => readAll(nameOf(job, `sketch-${number}`))),
  /** The logs of every job that has one: its two files as far as they are there. */
  all: () =>
    inTurn(async () => {
      const jobs = new Set(
        (await namesIn()).flatMap((name) => /^(.*)\.[ab]$/.exec(name)?.[1] ?? []).map(decodeURIComponent),
      );
      return Promise.all(
        [...jobs].map(async (job) => ({ job, texts: await Promise.all(KINDS.map((kind) => textOf(job, kind))) })),
      );
    }),
  remove: (job: string) =>
    inTurn(async () => {
      close(job);
      const start = nameOf(job, "");
      for (const name of await namesIn()) if (name.startsWith(start)) await removed(name);
    }),
};
export type ReserveWorker = typeof worker;
expose(worker);
