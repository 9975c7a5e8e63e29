import { useEffect, useRef, useState } from "react";
import type { Unit } from "@ash-edge/core/numeric";
import { run } from "../worker/run.ts";
import type { State } from "./Compare.tsx";
import type { Compared, CompareWorker } from "./compare.worker.ts";

/** Nothing that can be opened takes so long. */
const LIMIT_MS = 120_000;

export type Result =
  | { readonly state: "looking" }
  | { readonly state: "done"; readonly compared: Compared }
  | { readonly state: "failed"; readonly why: string };

/** Compares two states away from the page, anew when others are chosen; what is said speaks of these alone. */
export const useCompared = (
  first: State | undefined,
  second: State | undefined,
  unit: Unit,
): { readonly result: Result; readonly stop: () => void; readonly again: () => void } => {
  const [turn, setTurn] = useState(0);
  const [done, setDone] = useState<{ readonly of: readonly unknown[]; readonly result: Result }>();
  const stopping = useRef<AbortController>(undefined);
  useEffect(() => {
    if (!first || !second) return;
    const own = (stopping.current = new AbortController());
    const end = (result: Result): void => setDone({ of: [first, second, turn], result });
    run<CompareWorker, Compared>(
      new Worker(new URL("./compare.worker.ts", import.meta.url), { type: "module" }),
      (remote) => remote.compare(first.side(), second.side(), unit),
      { signal: own.signal, limitMs: LIMIT_MS },
    ).then(
      (compared) => !own.signal.aborted && end({ state: "done", compared }),
      (reason: Error) => own.signal.reason !== GONE && end({ state: "failed", why: reason.message }),
    );
    return () => own.abort(GONE);
  }, [first, second, unit, turn]);
  const isOf = done?.of.every((one, i) => one === [first, second, turn][i]);
  return {
    result: done && isOf ? done.result : { state: "looking" },
    stop: () => stopping.current?.abort(),
    again: () => setTurn((n) => n + 1),
  };
};

/** Something else is compared meanwhile, or the place was left: nobody is told. */
const GONE = "gone";
