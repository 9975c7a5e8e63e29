import { useEffect, useState } from "react";
import type { Drawing } from "@ash-edge/core/drawing";
import { run } from "../worker/run.ts";
import type { PaperAsked, SheetWorker } from "./sheet.worker.ts";
import type { ShownPage } from "./shownPage.ts";

const LIMIT_MS = 120_000;

/** Carries out work on paper in a worker of its own. */
export const paperWork = <T>(call: Parameters<typeof run<SheetWorker, T>>[1], signal: AbortSignal): Promise<T> =>
  run<SheetWorker, T>(new Worker(new URL("./sheet.worker.ts", import.meta.url), { type: "module" }), call, {
    signal,
    limitMs: LIMIT_MS,
  });

/** The pages as they were asked for last, or why there are none; those before stay while new ones are made. */
export type Pages = {
  readonly pages: readonly ShownPage[];
  readonly scale: number;
  /** How many questions to the customer are on them. */
  readonly questions: number;
  readonly wrong?: string;
  /** They are of what is asked now. */
  readonly current: boolean;
};

const NONE = { pages: [], scale: 1, questions: 0 } as const;

export const usePages = (drawing: Drawing, what: PaperAsked): Pages => {
  const [made, setMade] = useState<Pages & { readonly of?: PaperAsked }>({ ...NONE, current: false });
  useEffect(() => {
    const own = new AbortController();
    paperWork((remote) => remote.show(drawing, what), own.signal).then(
      (shown) => !own.signal.aborted && setMade({ ...shown, of: what, current: true }),
      (reason: Error) => !own.signal.aborted && setMade({ ...NONE, wrong: reason.message, of: what, current: true }),
    );
    return () => own.abort();
  }, [drawing, what]);
  return { ...made, current: made.of === what };
};
