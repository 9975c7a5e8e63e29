import { useEffect, useState } from "react";
import { calloutsOff } from "@ash-edge/core/callouts";
import { calloutsOf, type Drawing } from "@ash-edge/core/drawing";
import { customerQuestions, followsWords, oddsWords, openWords } from "@ash-edge/core/say";
import { CopyQuestions } from "../ui/CopyQuestions.tsx";
import { findNumbers } from "../worker/findNumbers.ts";
import type { TrueFound } from "../worker/true.worker.ts";

/** What was found out, of which drawing; or why not. */
type Looked = { readonly of: Drawing } & ({ readonly found: TrueFound } | { readonly why: string });

/** So many are listed; of a drawing that is not exact yet nearly everything is open. */
const MOST_LISTED = 12;

/** What the numbers of a sketch leave open, which of them say the same, and which can't all be true. */
export const NumbersCard = ({ drawing }: { drawing: Drawing }) => {
  const [looked, setLooked] = useState<Looked>();
  useEffect(() => {
    const stop = new AbortController();
    const off = calloutsOff(drawing);
    const told = (how: { found: TrueFound } | { why: string }): void => {
      if (!stop.signal.aborted) setLooked({ of: drawing, ...how });
    };
    findNumbers(drawing, off.length > 0 ? { callouts: off } : undefined, stop.signal).then(
      (found) => told({ found }),
      (reason: unknown) => told({ why: (reason as Error).message }),
    );
    return () => stop.abort();
  }, [drawing]);
  if (calloutsOf(drawing).length === 0) return null;
  const now = looked?.of === drawing ? looked : undefined;
  return (
    <section className="card shrink-0 overflow-hidden" aria-label="Numbers">
      <h2 className="px-3 py-2 font-semibold">Numbers</h2>
      {!now && <p className="border-t border-hair px-3 py-1.5 text-soft">looking …</p>}
      {now && "why" in now && (
        <p role="alert" className="border-t border-hair px-3 py-1.5 text-caution">
          <b>It was not looked what they leave open.</b> {now.why}
        </p>
      )}
      {now && "found" in now && <Found drawing={drawing} found={now.found} />}
    </section>
  );
};

const Found = ({ drawing, found: { standing, look } }: { drawing: Drawing; found: TrueFound }) => {
  const odds = look && !look.ok && look.odds ? [look.odds.callouts] : [];
  const { open, follows, rough } = standing;
  return (
    <>
      {odds.map((callouts) => (
        <p key={callouts.join()} className="border-t border-hair px-3 py-1.5 font-semibold text-fault">
          {oddsWords(drawing, callouts)}
        </p>
      ))}
      <ul aria-label="What the numbers say">
        {open.slice(0, MOST_LISTED).map((measure) => (
          <li
            key={`${measure.what} ${measure.ref.id} ${measure.ref.vertex}`}
            className="border-t border-hair px-3 py-1.5"
          >
            Left open: {openWords(drawing, measure)}
          </li>
        ))}
        {follows.map((one) => (
          <li key={one.callout} className="border-t border-hair px-3 py-1.5 text-soft">
            {followsWords(drawing, one)}
          </li>
        ))}
      </ul>
      {open.length > MOST_LISTED && (
        <p className="border-t border-hair px-3 py-1.5 text-soft">and {open.length - MOST_LISTED} more</p>
      )}
      {open.length === 0 && odds.length === 0 && (
        <p className="border-t border-hair px-3 py-1.5 text-soft">
          {rough
            ? "It is not exact yet: what its numbers leave open is told once they are true."
            : "Nothing is left open, and none of them fight."}
        </p>
      )}
      <CopyQuestions lines={customerQuestions(drawing, standing, odds)} />
    </>
  );
};
