import { useMemo, type ReactNode } from "react";
import { ErrorBoundary } from "react-error-boundary";
import { useBench, useSession } from "./SessionContext.tsx";
import { useShownSketches } from "./SketchesContext.ts";
import { isEmpty, whatNow, type Does } from "./whatNow.ts";

/** What to do next, by the state of the job, and the buttons that do it. */
const Words = ({ className = "" }: { className?: string }) => {
  const { act } = useSession();
  const drawing = useBench((state) => state.history.drawing);
  const derivedAt = useBench((state) => state.history.derivedAt);
  const hasSketch = (useShownSketches()?.length ?? 0) > 0;
  const { words, offers } = useMemo(() => {
    void derivedAt; // a great drawing is worked out elsewhere and comes later
    return whatNow(drawing, hasSketch);
  }, [drawing, derivedAt, hasSketch]);
  const go = (does: Does): void => {
    if ("take" in does) act.take(does.take);
    else if ("select" in does) act.show(does.select, does.at);
    else if ("callout" in does) act.showCallout(does.callout);
    else act.openPlace(does.go);
  };
  return (
    <span role="status" aria-label="What now" className={`flex min-w-0 items-center gap-2 ${className}`}>
      <span className="truncate text-soft">{words}</span>
      {offers.map(({ button, does }) => (
        <button
          key={button}
          type="button"
          onMouseDown={(event) => event.preventDefault()}
          onClick={() => go(does)}
          className="h-7 shrink-0 rounded-card border border-hair bg-panel px-2 hover:border-ink"
        >
          {button}
        </button>
      ))}
    </span>
  );
};

/** A line that says what is next is worth no more than itself: where it can't be said nothing is. */
const Quietly = ({ children }: { children: ReactNode }) => (
  <ErrorBoundary fallback={null} resetKeys={[useBench((state) => state.history.drawing)]}>
    {children}
  </ErrorBoundary>
);

/** A worked example that is followed says by itself what is next. */
const InSentence = () => {
  const isShown = useBench((state) => !state.following && !isEmpty(state.history.drawing));
  return isShown ? <Words className="ml-2" /> : null;
};

/** On an empty board: how it is begun; out of the way once a tool is in hand, or a picture traced. */
const OnBoard = () => {
  const isShown = useBench(
    (state) => !state.following && !state.tracing && state.hand.toolId === undefined && isEmpty(state.history.drawing),
  );
  if (!isShown) return null;
  return (
    <div className="pointer-events-none absolute inset-x-0 bottom-14 z-10 flex justify-center px-3">
      <Words className="card pointer-events-auto px-3 py-2" />
    </div>
  );
};

/** What is next, in the sentence; while the board is empty that stands there. */
export const NextStep = () => (
  <Quietly>
    <InSentence />
  </Quietly>
);
export const FirstStep = () => (
  <Quietly>
    <OnBoard />
  </Quietly>
);
