import { proxy, wrap, type Remote } from "comlink";

export type RunOptions<R = number> = {
  readonly signal?: AbortSignal;
  readonly report?: (how: R) => void;
  readonly limitMs?: number;
};

/** The time was up; the reason for which work is given up that could still be right. */
export class TookTooLong extends Error {
  constructor(limitMs: number) {
    super(`It took longer than ${limitMs / 1000} s.`);
  }
}

const NOT_STARTED = "The part of the application that does this could not be loaded. Reload the page.";
const MISTAKE = "The application made a mistake in it.";

/**
 * Runs work in a worker of its own and ends the worker afterwards: when it is done, when it fails, when `signal` says
 * stop, or after `limitMs`. Rejects with a reason in words.
 */
export const run = async <W, T, R = number>(
  worker: Worker,
  call: (remote: Remote<W>, report: (how: R) => void) => Promise<T>,
  { signal, report = () => undefined, limitMs }: RunOptions<R> = {},
): Promise<T> => {
  let timer: ReturnType<typeof setTimeout> | undefined;
  const ended = new Promise<never>((_, reject) => {
    worker.onerror = (event) => {
      if (event.message) console.error(event.message);
      reject(new Error(event.message ? MISTAKE : NOT_STARTED));
    };
    if (signal?.aborted) reject(new Error("Stopped."));
    signal?.addEventListener("abort", () => reject(new Error("Stopped.")), { once: true });
    if (limitMs !== undefined) timer = setTimeout(() => reject(new TookTooLong(limitMs)), limitMs);
  });
  try {
    return await Promise.race([call(wrap<W>(worker), proxy(report)), ended]);
  } finally {
    clearTimeout(timer);
    worker.terminate();
  }
};

/** A worker that is kept from one call to the next, so that an answer is there at once. */
export type KeptWorker<W> = {
  /** Rejects with a reason in words; a call that is stopped, or fails, ends the worker, and the next starts another. */
  readonly call: <T>(work: (remote: Remote<W>) => Promise<T>, signal: AbortSignal) => Promise<T>;
  readonly end: () => void;
};

/** Keeps a worker that `make` starts when it is called first. */
export const keptWorker = <W>(make: () => Worker): KeptWorker<W> => {
  let now: { readonly worker: Worker; readonly remote: Remote<W> } | undefined;
  const end = (): void => {
    now?.worker.terminate();
    now = undefined;
  };
  return {
    end,
    call: async (work, signal) => {
      if (!now) {
        const worker = make();
        now = { worker, remote: wrap<W>(worker) };
      }
      const own = now;
      let over = false;
      // ended at once: whoever calls next must not get a worker that is about to end
      const fail = (reject: (reason: Error) => void, reason: Error): void => {
        if (over) return;
        own.worker.terminate();
        if (now === own) now = undefined;
        reject(reason);
      };
      const ended = new Promise<never>((_, reject) => {
        own.worker.onerror = (event) => {
          if (event.message) console.error(event.message);
          fail(reject, new Error(event.message ? MISTAKE : NOT_STARTED));
        };
        if (signal.aborted) fail(reject, new Error("Stopped."));
        signal.addEventListener("abort", () => fail(reject, new Error("Stopped.")), { once: true });
      });
      try {
        return await Promise.race([work(own.remote), ended]);
      } finally {
        over = true;
      }
    },
  };
};
