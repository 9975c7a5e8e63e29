import { useEffect, useRef, useState } from "react";
import type { Drawing } from "@ash-edge/core/drawing";
import type { AskedFor, Looked } from "./release.worker.ts";
import { releaseWork } from "./releaseWork.ts";

/** Where looking the drawing over stands: at work, done, or why nothing was looked at. */
export type Looking =
  | { readonly state: "looking" }
  | { readonly state: "looked"; readonly looked: Looked }
  | { readonly state: "not looked"; readonly why: string };

/**
 * Looks a drawing over for its release, anew when something else is asked. What is said always speaks of what is asked
 * now.
 */
export const useLooked = (
  drawing: Drawing,
  asked: AskedFor,
): { readonly looking: Looking; readonly stop: () => void; readonly again: () => void } => {
  const [turn, setTurn] = useState(0);
  const [done, setDone] = useState<{ readonly of: object; readonly turn: number; readonly looking: Looking }>();
  const stopping = useRef<AbortController>(undefined);
  useEffect(() => {
    const own = (stopping.current = new AbortController());
    const end = (looking: Looking): void => setDone({ of: asked, turn, looking });
    releaseWork((remote) => remote.look(drawing, asked), own.signal).then(
      (looked) => !own.signal.aborted && end({ state: "looked", looked }),
      (reason: Error) => {
        const gone = own.signal.aborted && own.signal.reason === GONE;
        if (!gone) end({ state: "not looked", why: own.signal.aborted ? "It was stopped." : reason.message });
      },
    );
    return () => own.abort(GONE);
  }, [drawing, asked, turn]);
  const current = done?.of === asked && done.turn === turn ? done.looking : undefined;
  return {
    looking: current ?? { state: "looking" },
    stop: () => stopping.current?.abort(),
    again: () => setTurn((now) => now + 1),
  };
};

/** Something else is asked meanwhile, or the place was left: nobody is told. */
const GONE = "gone";
