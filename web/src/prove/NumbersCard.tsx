import { useEffect, useState } from "react";
import { calloutsOff } from "@ash-edge/core/checks";
import { calloutsOf, type Drawing } from "@ash-edge/core/drawing";
import { customerQuestions, followsWords, nothingOpenWords, oddsWords, openWords } from "@ash-edge/core/say";
import { oddsIn } from "@ash-edge/core/solve";
import { CopyQuestions } from "../ui/CopyQuestions.tsx";
import { findNumbers } from "../worker/findNumbers.ts";
import type { TrueFound } from "../worker/true.worker.ts";

/** What was found out, of which drawing; or why not. */
type Looked = { readonly of: Drawing } & ({ readonly found: TrueFound } | { readonly why: string });

const BUTTON = "h-6 shrink-0 rounded-card border border-hair px-1.5 text-xs text-ink hover:border-ink";

/** So many are listed; of a drawing that is not exact yet nearly everything is open. */
const MOST_LISTED = 12;

/** Drawings of more curves than this are looked at only when it is asked for: it may take long. */
const MOST_UNASKED = 500;

/** What the numbers of a sketch leave open, which of them say the same, and which can't all be true. */
export const NumbersCard = ({ drawing }: { drawing: Drawing }) => {
  const [looked, setLooked] = useState<Looked>();
  const [asked, setAsked] = useState<Drawing>();
  const looks = drawing.entity.size <= MOST_UNASKED || asked === drawing;
  useEffect(() => {
    if (!looks) return;
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
  }, [drawing, looks]);
  if (calloutsOf(drawing).length === 0) return null;
  const now = looked?.of === drawing ? looked : undefined;
  return (
    <section className="card shrink-0 overflow-hidden" aria-label="Numbers">
      <h2 className="px-3 py-2 font-semibold">Numbers</h2>
      {!now && looks && (
        <p className="flex items-center border-t border-hair px-3 py-1.5 text-soft">
          <span className="flex-1">looking …</span>
          {asked === drawing && (
            <button type="button" className={BUTTON} onClick={() => setAsked(undefined)}>
              Stop
            </button>
          )}
        </p>
      )}
      {!now && !looks && (
        <p className="flex items-center gap-2 border-t border-hair px-3 py-1.5 text-soft">
          <span className="flex-1">It is a great drawing: what its numbers leave open may take a while.</span>
          <button type="button" className={BUTTON} onClick={() => setAsked(drawing)}>
            Look
          </button>
        </p>
      )}
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
  const odds = oddsIn(look);
  const { open, follows, rough, unseen } = standing;
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
            : `Left open: ${nothingOpenWords(unseen)}`}
        </p>
      )}
      <CopyQuestions lines={customerQuestions(drawing, standing, look)} />
    </>
  );
};
